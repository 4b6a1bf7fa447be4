import { readFile } from 'node:fs/promises';
import ExcelJS from 'exceljs';
import type { Page } from '@playwright/test';
import { cell, expect, openApp, stage, TALL, test } from './fixture';

test.use({ viewport: TALL, permissions: ['clipboard-read', 'clipboard-write'] });

async function worksheet(page: Page) {
  await openApp(page);
  await stage(page, 'Budget');
  await expect(page.getByRole('grid', { name: /revision/ })).toBeVisible();
}

const view = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'View' }).getByText(name, { exact: true }).click();

const amount = async (page: Page, line: string, column: number): Promise<number> => {
  const text = (await cell(page, line, column).innerText()).replaceAll(',', '').trim();
  return text === '' || text === '–' ? 0 : Number(text.replace(/^\((.*)\)$/, '-$1'));
};

/** Selects from a cell so many columns to the right and lines down, by the keyboard. */
async function select(page: Page, line: string, column: number, right: number, down = 0) {
  await cell(page, line, column).click();
  for (let i = 0; i < right; i++) await page.keyboard.press('Shift+ArrowRight');
  for (let i = 0; i < down; i++) await page.keyboard.press('Shift+ArrowDown');
}

const ask = async (page: Page, key: string, text: string) => {
  await page.keyboard.press(key);
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};

test('tools over a selection, by their keys: percentage, amount, total, rounding, carrying, sign, and one undo each', async ({
  page,
}) => {
  await worksheet(page);
  const before = await amount(page, 'Cleaning', 0);
  await select(page, 'Cleaning', 0, 1, 1);
  await ask(page, 'Alt+p', '10');
  await expect.poll(() => amount(page, 'Cleaning', 0)).toBe(Math.round(before * 1.1));
  await page.keyboard.press('Control+z');
  await expect.poll(() => amount(page, 'Cleaning', 0)).toBe(before);

  await select(page, 'Cleaning', 0, 2);
  await ask(page, 'Alt+t', '3100');
  const all = () => Promise.all([0, 1, 2].map((c) => amount(page, 'Cleaning', c)));
  // Each month is shown without its cents, so that the three may add up to one or two more or less.
  await expect
    .poll(async () => Math.abs((await all()).reduce((a, b) => a + b, 0) - 3100))
    .toBeLessThanOrEqual(2);
  await ask(page, 'Alt+r', '100');
  await expect.poll(async () => (await all()).every((v) => v % 100 === 0)).toBe(true);
  const rounded = await all();
  expect(rounded.reduce((a, b) => a + b, 0)).toBe(3100);
  await ask(page, 'Alt+a', '-50');
  await expect.poll(() => amount(page, 'Cleaning', 0)).toBe(rounded[0]! - 50);

  await cell(page, 'Cleaning', 3).click();
  await page.keyboard.type('777');
  await page.keyboard.press('Enter');
  await cell(page, 'Cleaning', 3).click();
  await page.keyboard.press('Alt+m');
  await expect(cell(page, 'Cleaning', 11)).toHaveText('777');
  await page.keyboard.press('Alt+s');
  await expect(cell(page, 'Cleaning', 3)).toHaveText('(777)');
  await page.keyboard.press('Alt+l');
  await expect(page.getByText('Looked at 1 of 53')).toBeVisible();
  await expect(
    page.getByRole('row', { name: /Cleaning/ }).getByRole('img', { name: 'looked at' }),
  ).toBeVisible();
});

test('what a tool cannot read is said, and nothing changes', async ({ page }) => {
  await worksheet(page);
  const before = await amount(page, 'Cleaning', 0);
  await cell(page, 'Cleaning', 0).click();
  await ask(page, 'Alt+p', 'ten');
  await expect(page.getByRole('alert').filter({ hasText: 'not a percentage' })).toBeVisible();
  await page.keyboard.press('Escape');
  expect(await amount(page, 'Cleaning', 0)).toBe(before);
});

test('the handle of a selection is dragged to the right, and its months come again', async ({ page }) => {
  await worksheet(page);
  await cell(page, 'Cleaning', 0).click();
  await page.keyboard.type('100');
  await page.keyboard.press('Tab');
  await page.keyboard.type('200');
  await page.keyboard.press('Tab');
  await select(page, 'Cleaning', 0, 1);
  const handle = page.locator('[data-handle]');
  const from = (await handle.boundingBox())!;
  const to = (await cell(page, 'Cleaning', 5).boundingBox())!;
  await page.mouse.move(from.x + 3, from.y + 3);
  await page.mouse.down();
  await page.mouse.move(to.x + 10, to.y + 10, { steps: 6 });
  await page.mouse.up();
  await expect
    .poll(() => Promise.all([2, 3, 4, 5].map((c) => amount(page, 'Cleaning', c))))
    .toEqual([100, 200, 100, 200]);
});

test('a block with accounts and months is matched, what nothing is called is listed, and then it is taken', async ({
  page,
}) => {
  await worksheet(page);
  await cell(page, 'Cleaning', 0).click();
  await page.evaluate(() =>
    navigator.clipboard.writeText(
      'Code\tAccount\tOct 2026\tJul 2026\tTotal\r\n\tInsurance\t500\t600\t1100\r\n4010\t\t9000\t8000\t17000\r\n\tGhost costs\t1\t2\t3\r\n',
    ),
  );
  await page.keyboard.press('Control+v');
  const dialog = page.getByRole('dialog', { name: 'Before it is pasted' });
  await expect(dialog.getByText(/Ghost costs/)).toBeVisible();
  await expect(dialog.getByRole('row', { name: /4010 Berth fees/ })).toContainText('17,000');
  await dialog.getByRole('button', { name: 'Paste' }).click();
  await expect(cell(page, 'Insurance', 3)).toHaveText('500');
  await expect(cell(page, 'Insurance', 0)).toHaveText('600');
  await expect(cell(page, 'Berth fees, North Yard', 3)).toHaveText('9,000');
});

test('the first pass: a percentage and an amount move each other, results move beside, and what is easily forgotten leads to its line', async ({
  page,
}) => {
  await worksheet(page);
  await view(page, 'First pass');
  const percent = page.getByLabel('Cleaning, percent on last year');
  const annual = page.getByLabel('Cleaning, amount for the year');
  const net = page.getByRole('complementary', { name: 'Results' });
  const before = await net.innerText();
  await percent.fill('50');
  await percent.press('Enter');
  await expect(page.getByLabel('Security, percent on last year')).toBeFocused();
  const raised = Number(await annual.inputValue());
  await expect.poll(() => net.innerText()).not.toBe(before);
  await annual.fill('12000');
  await annual.press('Enter');
  await expect(percent).not.toHaveValue('50');
  expect(raised).not.toBe(12000);
  const forgotten = page.getByRole('region', { name: 'Easily forgotten' });
  await expect(forgotten.getByText('Jan 2026 32,136')).toBeVisible();
  await forgotten.getByRole('button', { name: 'Interest received' }).click();
  await expect(page.getByRole('heading', { name: 'Interest received' })).toBeVisible();
});

test('a driver moves the line that follows it by a formula, and the reasoning names both', async ({
  page,
}) => {
  await worksheet(page);
  await view(page, 'Drivers');
  await page.getByRole('button', { name: 'Add a driver' }).click();
  await page.getByLabel('Name').fill('Boats ashore');
  await page.getByLabel('Name').press('Tab');
  await page.getByLabel('Boats ashore, month 1', { exact: true }).fill('40');
  await page.getByLabel('Boats ashore, month 1', { exact: true }).press('Enter');
  await page.getByRole('button', { name: 'Carry each month' }).click();
  await view(page, 'Worksheet');
  await cell(page, 'Cleaning', 0).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await panel.getByRole('button', { name: 'Formula', exact: true }).click();
  await panel.getByLabel('Formula').fill('"Boats');
  await panel.getByRole('option', { name: /Boats ashore/ }).click();
  await page.keyboard.type(' * 12.5 + 1% * "Slipway');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Cleaning', 0)).toHaveText('540');
  await expect(panel.getByText('Boats ashore, Jul 2026')).toBeVisible();
  await expect(panel.getByText('Slipway lease, Jul 2026')).toBeVisible();
  await view(page, 'Drivers');
  await page.getByLabel('Boats ashore, month 1', { exact: true }).fill('80');
  await page.getByLabel('Boats ashore, month 1', { exact: true }).press('Enter');
  await view(page, 'Worksheet');
  await expect(cell(page, 'Cleaning', 0)).toHaveText('1,040');
  await expect(cell(page, 'Cleaning', 1)).toHaveText('540');
});

test('a method for several lines at once, seen before it is applied', async ({ page }) => {
  await worksheet(page);
  await select(page, 'Cleaning', 0, 0, 1);
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(panel.getByText('How these 2 lines are made')).toBeVisible();
  await panel.getByRole('button', { name: 'Run rate' }).click();
  await expect(panel.getByRole('group', { name: 'What it would come to' })).toBeVisible();
  await expect(page.getByRole('row', { name: /Cleaning/ })).not.toContainText('Run rate');
  await panel.getByRole('button', { name: 'Apply to 2 lines' }).click();
  await expect(page.getByRole('row', { name: /Cleaning/ })).toContainText('Run rate');
  await expect(page.getByRole('row', { name: /Security/ })).toContainText('Run rate');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('row', { name: /Security/ })).not.toContainText('Run rate');
});

test('approved by a name with a fingerprint, revised with a reason, compared, and an earlier state taken up', async ({
  page,
}) => {
  await worksheet(page);
  await cell(page, 'Cleaning', 0).click();
  await page.keyboard.type('5000');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Cleaning', 0)).toHaveText('5,000');
  await page.getByRole('button', { name: /FY27 autumn revision ▾/ }).click();
  await page.getByRole('menuitem', { name: 'Approve…' }).click();
  await page.getByLabel('Your name').fill('Ines Marlow');
  await expect(page.getByLabel('Initials')).toHaveValue('IM');
  await page.getByRole('button', { name: 'Approve', exact: true }).click();
  await expect(page.getByText(/^Approved .* by Ines Marlow · revises FY27 budget/)).toBeVisible();
  await page.getByRole('button', { name: /FY27 autumn revision ▾/ }).click();
  await page.getByRole('menuitem', { name: 'What was approved…' }).click();
  await expect(page.getByText('✓ The figures are those that were approved')).toBeVisible();
  await page.keyboard.press('Escape');
  // What was approved is explained too, while its method still comes to it.
  await cell(page, 'Berth fees, North Yard', 0).click();
  const made = page.getByRole('region', { name: 'How the month was made' });
  await expect(made).toContainText('in the sheet15,360.00');

  await page.getByRole('button', { name: 'Start a revision' }).click();
  await page.getByLabel('Why it is revised').fill('New cleaner');
  await page.getByRole('button', { name: 'Start the revision' }).click();
  await expect(page.getByText(/revises FY27 autumn revision: New cleaner/)).toBeVisible();
  await cell(page, 'Cleaning', 0).click();
  await page.keyboard.type('6000');
  await page.keyboard.press('Enter');
  await view(page, 'Side by side');
  const row = page.getByRole('row', { name: /Cleaning/ });
  await expect(row).toContainText('+1,000');
  await view(page, 'History');
  await expect(page.getByRole('row', { name: /Typed/ })).toContainText('Ines Marlow');
  await page
    .getByRole('row', { name: /Budget added|Budget started/ })
    .getByRole('button', { name: 'New draft from here' })
    .click();
  await expect(cell(page, 'Cleaning', 0)).toHaveText('5,000');
});

test('the history of a month: each amount before and after, the latest what is shown', async ({ page }) => {
  await worksheet(page);
  for (const figure of ['111', '222']) {
    await cell(page, 'Cleaning', 0).click();
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter');
    await expect(cell(page, 'Cleaning', 0)).toHaveText(figure);
  }
  await page.keyboard.press('Control+z');
  await cell(page, 'Cleaning', 0).click();
  await page.getByRole('button', { name: 'History of this month' }).click();
  const list = page.getByRole('region', { name: 'History' }).getByRole('listitem');
  await expect(list.nth(0)).toContainText('222.00 → 111.00');
  await expect(list.nth(1)).toContainText('111.00 → 222.00');
  await expect(list.nth(2)).toContainText('→ 111.00');
});

test('a budget of two years by site: segments are worked on one by one and add up', async ({ page }) => {
  await worksheet(page);
  await page.getByRole('button', { name: 'New budget' }).click();
  await page.getByLabel('For', { exact: true }).selectOption({ index: 1 });
  await page.getByLabel('How long').selectOption('24');
  await page.getByRole('radio', { name: /^Empty/ }).check();
  await page.getByRole('button', { name: 'Start the budget' }).click();
  const choose = page.getByRole('combobox').filter({ hasText: 'added up' });
  await expect(page.getByText('FY29', { exact: true }).first()).toBeVisible();
  const type = async (segment: number, figure: string) => {
    await choose.selectOption({ index: segment });
    await cell(page, 'Cleaning', 0).click();
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter');
    await expect(cell(page, 'Cleaning', 0)).toHaveText(figure);
  };
  await type(1, '100');
  await type(2, '250');
  await choose.selectOption({ index: 0 });
  await expect(cell(page, 'Cleaning', 0)).toHaveText('350');
  await cell(page, 'Cleaning', 0).click();
  await page.keyboard.type('9');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: /added up here/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /checks hold/ })).toBeVisible();
});

test('the palette does and finds; a filter leaves only what it asks for', async ({ page }) => {
  await worksheet(page);
  await page.getByRole('grid').focus();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('insur');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Insurance' })).toBeVisible();
  await page.keyboard.press('Control+Shift+f');
  await page.getByLabel('Code or name').fill('berth');
  await expect(page.getByRole('row', { name: /Cleaning/ })).toHaveCount(0);
  await expect(page.getByRole('row', { name: /Berth fees/ })).toHaveCount(2);
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(page.getByRole('row', { name: /Cleaning/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'Fold Income' }).click();
  await expect(page.getByRole('row', { name: /Berth fees/ })).toHaveCount(0);
  await expect(page.getByRole('row', { name: /^Total income/ })).toBeVisible();
});

test('a budget leaves as a workbook that reckons itself', async ({ page }) => {
  await worksheet(page);
  await view(page, 'Report');
  await page.getByRole('button', { name: 'Export ▾' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /reckons itself/ }).click();
  const book = new ExcelJS.Workbook();
  await book.xlsx.load((await readFile(await (await download).path())).buffer as ArrayBuffer);
  const sheet = book.getWorksheet('Budget')!;
  const row = sheet.getColumn(2).values.findIndex((v) => v === 'Repair materials');
  const value = sheet.getCell(row, 6).value as { formula: string; result: number };
  expect(value.formula).toMatch(/^ROUND\(F\d+\*\$D\d+,2\)$/);
  expect(value.result).toBe(5520);
});

test('balances in the same sheet: held as the ledger has them last, typed, carried, and not added up over time', async ({
  page,
}) => {
  await worksheet(page);
  await page.getByRole('button', { name: 'New budget' }).click();
  await page.getByLabel('It plans').selectOption('both');
  await page.getByRole('button', { name: 'Start the budget' }).click();
  // What no line says follows from the plan: only the statements tell what all of them come to.
  await expect(page.getByText('what all come to stands under Statements').first()).toBeVisible();
  await expect(page.getByRole('row', { name: /^(Net assets|Total assets|Result not yet)/ })).toHaveCount(0);
  const bank = 'Operating bank account';
  const held = await amount(page, bank, 0);
  expect(held).toBeGreaterThan(0);
  expect(await amount(page, bank, 11)).toBe(held);

  await cell(page, bank, 5).click();
  await page.keyboard.type(String(held + 1000));
  await page.keyboard.press('Enter');
  await expect.poll(() => amount(page, bank, 5)).toBe(held + 1000);
  await cell(page, bank, 5).click();
  await page.keyboard.press('Alt+m');
  await expect.poll(() => amount(page, bank, 11)).toBe(held + 1000);
  // The year's figure is the last balance, and so is a quarter's.
  await expect.poll(() => amount(page, bank, 12)).toBe(held + 1000);
  await page.getByText('Quarters', { exact: true }).click();
  await expect.poll(() => amount(page, bank, 0)).toBe(held);
  await expect.poll(() => amount(page, bank, 1)).toBe(held + 1000);

  await page.getByText('Months', { exact: true }).first().click();
  await cell(page, 'Boat hoist loan', 0).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  // Paydays and even amounts are of flows; a balance is not offered them.
  await expect(panel.getByRole('button', { name: 'Step' })).toBeVisible();
  await expect(panel.getByRole('button', { name: 'Paydays' })).toHaveCount(0);
  const loan = await amount(page, 'Boat hoist loan', 0);
  await panel.getByRole('button', { name: 'Step' }).click();
  await panel.getByLabel('Plus or minus').fill('-500');
  await panel.getByLabel('Plus or minus').press('Enter');
  await expect.poll(() => amount(page, 'Boat hoist loan', 2)).toBe(loan - 1500);
  await expect(page.getByRole('button', { name: /checks hold/ })).toBeVisible();
});

test('a wage by paydays rises from a day on, and the month of the rise says both', async ({ page }) => {
  await worksheet(page);
  await cell(page, 'Cleaning', 0).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await panel.getByRole('button', { name: 'Paydays' }).click();
  await panel.getByLabel('It falls').selectOption('weekdays');
  await panel.getByLabel('Amount each time').fill('100');
  await panel.getByRole('button', { name: 'Another amount from a day on' }).click();
  await panel.getByLabel('Then, from').fill('2026-07-12');
  await panel.getByLabel('it is, each time').fill('150');
  await panel.getByLabel('it is, each time').press('Enter');
  // July 2026 has four Saturdays: the 4th and 11th before the rise, the 18th and 25th after it.
  await expect(cell(page, 'Cleaning', 0)).toHaveText('500');
  await expect(cell(page, 'Cleaning', 1)).toHaveText('750');
  await expect(panel.getByText(/100\.00 each/)).toBeVisible();
  await expect(panel.getByText(/150\.00 each/)).toBeVisible();
});

test('drivers take a block from a spreadsheet as one step, and refuse what is no number', async ({
  page,
}) => {
  await worksheet(page);
  await view(page, 'Drivers');
  for (const name of ['Boats ashore', 'Boats afloat']) {
    await page.getByRole('button', { name: 'Add a driver' }).click();
    await page.getByLabel('Name').fill(name);
    await page.getByLabel('Name').press('Tab');
    await expect(page.getByLabel(`${name}, month 1`, { exact: true })).toBeVisible();
  }
  const month = (name: string, n: number) => page.getByLabel(`${name}, month ${n}`, { exact: true });
  const paste = async (text: string) => {
    await page.evaluate((t) => navigator.clipboard.writeText(t), text);
    await month('Boats ashore', 2).focus();
    await page.keyboard.press('Control+v');
  };
  await paste('41\t42\t43\n1,400\t\t1,600');
  await expect(month('Boats ashore', 4)).toHaveValue('43');
  await expect(month('Boats afloat', 2)).toHaveValue('1400');
  await expect(month('Boats afloat', 3)).toHaveValue('');
  await paste('1\ntwo');
  await expect(page.getByText(/“two” is no number of Boats afloat/)).toBeVisible();
  await expect(month('Boats ashore', 2)).toHaveValue('41');
  await page.getByRole('button', { name: 'History of the driver' }).click();
  await expect(page.getByRole('region', { name: 'History' }).getByRole('listitem').first()).toContainText(
    'Aug 2026: blank → 41Sep 2026: blank → 42',
  );
  await page.getByRole('heading', { name: 'Boats ashore' }).click();
  await page.keyboard.press('Control+z');
  await expect(month('Boats ashore', 4)).toHaveValue('');
  await expect(month('Boats afloat', 2)).toHaveValue('');
});

test('a sheet wider than the screen follows the cursor, keeps its names, and keeps what is being typed', async ({
  page,
}) => {
  await worksheet(page);
  await page.getByText('Two years', { exact: true }).click();
  const far = cell(page, 'Cleaning', 23);
  await expect(far).toHaveCount(0);
  await cell(page, 'Cleaning', 1).click();
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(far).toBeInViewport();
  await expect(page.getByText('Cleaning', { exact: true }).last()).toBeInViewport();
  await page.keyboard.type('4321');
  await page.getByRole('grid').evaluate((box) => (box.scrollLeft = 0));
  await expect(far).toHaveCount(0);
  await page.getByRole('grid').evaluate((box) => (box.scrollLeft = box.scrollWidth));
  await expect(far.getByRole('textbox')).toHaveValue('4321');
  await page.keyboard.press('Enter');
  await expect(far).toHaveText('4,321');
});

test('next year’s budget while this one runs: its outlook stands beside it, and a percentage lifts it', async ({
  page,
}) => {
  await worksheet(page);
  await page.getByRole('button', { name: 'New budget' }).click();
  await expect(page.getByRole('radio', { name: /^The outlook/ })).toBeChecked();
  const live = page.getByRole('complementary', { name: 'The year as it would be' });
  await expect(live.getByRole('columnheader', { name: 'the outlook' })).toBeVisible();
  // The schedules go on: raises and hires for the whole year. Without them it is the outlook to the cent.
  const profit = live.getByRole('row', { name: /^Net profit/ });
  const change = profit.getByRole('cell').last();
  const schedules = page.getByRole('checkbox', { name: /^Its schedules come along/ });
  await expect(change).toHaveText(/^−\d/);
  await schedules.uncheck();
  await expect(change).toHaveText('–');
  await schedules.check();
  await page.getByRole('button', { name: 'Start, and go down a first pass' }).click();
  await expect(page.getByRole('columnheader', { name: 'FY27 outlook' })).toBeVisible();
  const annual = page.getByLabel('Berth fees, North Yard, amount for the year');
  const before = Number(await annual.inputValue());
  const percent = page.getByLabel('Berth fees, North Yard, percent on last year');
  await expect(percent).toHaveValue('0');
  await percent.fill('10');
  await percent.press('Enter');
  await expect.poll(async () => Number(await annual.inputValue())).toBeCloseTo(before * 1.1, 0);
  const quay = page.getByLabel('Berth fees, South Quay, amount for the year');
  await quay.fill('90000');
  await quay.press('Enter');
  await view(page, 'Worksheet');
  const row = page.getByRole('row', { name: /Berth fees, North Yard/ }).first();
  await expect(row).toContainText('Outlook +10%');
  // An amount for the year keeps a shape of twelve months, though only four of the year before are there.
  await expect(page.getByRole('row', { name: /Berth fees, South Quay/ })).toContainText('Pattern');
  expect(await amount(page, 'Berth fees, South Quay', 0)).toBeLessThan(20_000);
  expect(await amount(page, 'Berth fees, South Quay', 11)).toBeGreaterThan(1000);
  await cell(page, 'Berth fees, North Yard', 0).click();
  await expect(page.getByText('FY27 outlook').first()).toBeVisible();
});

test('months that only moved stand side by side, and named weights say whom they shape', async ({ page }) => {
  await worksheet(page);
  await page.getByRole('button', { name: /FY27 autumn revision ▾/ }).click();
  await page.getByRole('menuitem', { name: 'Duplicate…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Duplicate' }).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await cell(page, 'Cleaning', 0).click();
  await expect(panel.getByRole('heading', { name: 'Cleaning' })).toBeVisible();
  await panel.getByRole('button', { name: 'Phased', exact: true }).click();
  await panel.getByLabel('Divided').selectOption({ label: 'by own weights' });
  await expect(panel.getByText('No line has them yet.')).toBeVisible();
  const weight = panel.getByLabel('Weight of month 1', { exact: true });
  await weight.fill('100');
  await weight.press('Enter');
  await panel.getByRole('button', { name: 'Apply', exact: true }).click();
  await expect(panel.getByText(/A change moves Cleaning \(/)).toBeVisible();
  await view(page, 'Side by side');
  await page.getByLabel('Compared with').selectOption({ label: 'FY27 autumn revision (draft)' });
  const row = page.getByRole('row', { name: /Cleaning/ });
  await expect(row).toContainText('Weights');
  await expect(row).toContainText(/\+[\d,]+.*−[\d,]+/);
});
