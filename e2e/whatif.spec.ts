import { readFile } from 'node:fs/promises';
import ExcelJS from 'exceljs';
import type { Page } from '@playwright/test';
import { expect, openApp, test } from './fixture';

const grid = (page: Page) => page.getByRole('grid', { name: 'Adjustments by case' });
const row = (page: Page, name: string) => grid(page).getByRole('row', { name: new RegExp(`^${name}`) });
/** A figure of an outcome: 0 as planned, then the cases. */
async function figure(page: Page, outcome: string, at: number): Promise<number> {
  const text = await row(page, outcome)
    .getByRole('gridcell')
    .nth(at + 1)
    .innerText();
  const number = Number(text.replace(/[^\d.]/g, ''));
  return /^[−(-]/.test(text.trim()) ? -number : number;
}
const reckoned = (page: Page) => expect(grid(page)).not.toContainText('…', { timeout: 20_000 });

test('a case moves everything and the plan nothing; a size is typed in its cell and taken back', async ({
  page,
}) => {
  await openApp(page, '/whatif');
  await expect(page).toHaveTitle('What-if · Tellan');
  await expect(page.getByRole('heading', { name: '3 cases' })).toBeVisible();
  await reckoned(page);
  const plan = await Promise.all(['Income', 'Net profit', 'Bank at the end'].map((o) => figure(page, o, 0)));
  const worse = await figure(page, 'Income', 3);
  expect(worse).toBeLessThan(plan[0]!);
  // What is sold less comes off the income: 12 % of the jobs became 24 %, twice as much.
  await row(page, 'Repair and refit jobs').getByRole('gridcell').nth(5).click();
  await page.keyboard.type('-24');
  await page.keyboard.press('Enter');
  await expect(row(page, 'Repair and refit jobs').getByRole('gridcell').nth(5)).toHaveText('−24%');
  await expect
    .poll(async () => Math.abs(plan[0]! - (await figure(page, 'Income', 3)) - 2 * (plan[0]! - worse)))
    .toBeLessThan(3);
  // The plan is what it was, and so are the other cases.
  expect(
    await Promise.all(['Income', 'Net profit', 'Bank at the end'].map((o) => figure(page, o, 0))),
  ).toEqual(plan);
  await page.keyboard.press('Control+z');
  await expect(row(page, 'Repair and refit jobs').getByRole('gridcell').nth(5)).toHaveText('−12%');
  await expect.poll(() => figure(page, 'Income', 3)).toBe(worse);
  // What is no size is refused where it is typed, and nothing is lost.
  await row(page, 'Repair and refit jobs').getByRole('gridcell').nth(5).click();
  await page.keyboard.type('much');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'A percentage' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(row(page, 'Repair and refit jobs').getByRole('gridcell').nth(5)).toHaveText('−12%');
});

test('an adjustment is added with its sizes, switched off by the space bar, and survives a reload', async ({
  page,
}) => {
  // Somebody who is known is not asked for a name.
  await page.addInitScript(() =>
    localStorage.setItem('tellan.person', JSON.stringify({ name: 'Ines Marlow', initials: 'IM' })),
  );
  await openApp(page, '/whatif');
  await reckoned(page);
  const before = await figure(page, 'Net profit', 2);
  await page.getByRole('button', { name: 'Add an adjustment' }).click();
  const dialog = page.getByRole('dialog', { name: 'What changes?' });
  await dialog.getByLabel('What is tried').selectOption('amount');
  await dialog.getByLabel('Of which line').first().fill('Slipway lease');
  await page.getByRole('option', { name: /Slipway lease/ }).click();
  await dialog.getByLabel('Name').fill('Dearer lease');
  await dialog.getByLabel('Why').fill('The landlord wrote');
  await dialog.getByLabel('In Likely').fill('1000');
  await dialog.getByLabel('In Worse').fill('a lot');
  await expect(dialog.getByText('An amount', { exact: true })).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Add it' })).toBeDisabled();
  await dialog.getByLabel('In Worse').fill('');
  await dialog.getByRole('button', { name: 'Add it' }).click();
  await expect(row(page, 'Dearer lease').getByRole('gridcell').nth(4)).toHaveText('+1,000');
  // From November to June, eight times a thousand; the profit is taxed, so it falls by no more than that.
  await expect.poll(async () => before - (await figure(page, 'Net profit', 2))).toBeGreaterThan(6_000);
  expect(before - (await figure(page, 'Net profit', 2))).toBeLessThanOrEqual(8_001);
  await row(page, 'Dearer lease').getByRole('gridcell').first().click();
  await page.keyboard.press(' ');
  await expect(row(page, 'Dearer lease')).toContainText('off');
  await expect.poll(() => figure(page, 'Net profit', 2)).toBe(before);
  await expect(page.getByText(/^Saved/)).toBeVisible();
  await page.reload();
  await expect(row(page, 'Dearer lease')).toContainText('off');
  await expect(row(page, 'Dearer lease').getByRole('gridcell').nth(4)).toHaveText('+1,000');
});

test('a formula of what was planned is tried, stays one when it is opened again, and is marked where it tries', async ({
  page,
}) => {
  await known(page);
  await openApp(page, '/whatif');
  await reckoned(page);
  const [plan, likely] = [await figure(page, 'Income', 0), await figure(page, 'Income', 2)];
  expect(likely).toBe(plan);
  await page.getByRole('button', { name: 'Add an adjustment' }).click();
  const dialog = page.getByRole('dialog', { name: 'What changes?' });
  await dialog.getByLabel('What is tried').selectOption('formula');
  await dialog.getByLabel('Of which lines').first().fill('Slip and crane hire');
  await page.getByRole('option', { name: /Slip and crane hire/ }).click();
  await dialog.getByRole('textbox', { name: 'Formula' }).fill('"As planed" - 100');
  await expect(dialog.getByText('Nothing has this name.')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Add it' })).toBeDisabled();
  await dialog.getByRole('textbox', { name: 'Formula' }).fill('"As planned" - 100');
  await dialog.getByLabel('In Likely').fill('yes');
  await dialog.getByLabel('Name').fill('Less slip hire');
  await dialog.getByRole('button', { name: 'Add it' }).click();
  // A hundred less from November to June.
  await expect.poll(() => figure(page, 'Income', 2)).toBe(plan - 800);
  await row(page, 'Less slip hire').getByRole('gridcell').nth(4).click();
  await page.getByRole('button', { name: 'Change…' }).click();
  const again = page.getByRole('dialog', { name: '“Less slip hire”' });
  await expect(again.getByRole('textbox', { name: 'Formula' })).toHaveValue('"As planned" - 100');
  // One that is half written is not taken for the one before.
  await again.getByRole('textbox', { name: 'Formula' }).fill('"As planned" -');
  await expect(again.getByRole('button', { name: 'Keep it' })).toBeDisabled();
  await again.getByRole('textbox', { name: 'Formula' }).fill('"As planned" - 100');
  await again.getByRole('button', { name: 'Keep it' }).click();
  await expect.poll(() => figure(page, 'Income', 2)).toBe(plan - 800);
  await page.getByRole('link', { name: 'Budget', exact: true }).click();
  const line = page.getByRole('row', { name: /Slip and crane hire/ });
  await expect(line.getByRole('img', { name: 'Tried in cases: Less slip hire' })).toBeVisible();
  await line.getByRole('gridcell').nth(3).click();
  await expect(page.getByRole('region', { name: 'What is tried of it' })).toContainText(
    'Less slip hire, from Nov 2026: Likely yes.',
  );
});

test('what an adjustment does alone stands beside it, with who assumed it and why', async ({ page }) => {
  await openApp(page, '/whatif');
  await reckoned(page);
  await row(page, 'A rigger more').getByRole('gridcell').nth(3).click();
  const panel = page.getByRole('complementary', { name: 'The adjustment at hand' });
  await expect(panel).toContainText('The board asked for it');
  await expect(panel.getByRole('region', { name: 'What it does alone' })).toContainText(
    /Net profit\s*−[\d,]+ U/,
  );
  await panel.getByRole('button', { name: 'Take away' }).click();
  await expect(row(page, 'A rigger more')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(row(page, 'A rigger more')).toBeVisible();
});

test('what it takes: a size is sought for a goal, and put back it meets it', async ({ page }) => {
  await openApp(page, '/whatif');
  await reckoned(page);
  await row(page, 'Customers pay later').getByRole('gridcell').nth(4).click();
  const takes = page.getByRole('region', { name: 'What it takes' });
  await takes.getByLabel('Goal').fill('0');
  await takes.getByLabel('Goal').press('Enter');
  await takes.getByLabel('From', { exact: true }).fill('0');
  await takes.getByLabel('to', { exact: true }).fill('12');
  await takes.getByRole('button', { name: 'Seek' }).click();
  const answer = takes.getByRole('status');
  await expect(answer).toContainText(/From no days to \d+ days later it holds/, { timeout: 60_000 });
  const most = Number(/to (\d+) days/.exec(await answer.innerText())![1]);
  const type = async (days: number) => {
    await row(page, 'Customers pay later').getByRole('gridcell').nth(4).click();
    await page.keyboard.type(String(days));
    await page.keyboard.press('Enter');
  };
  // So many days the bank stays above nothing, and not one more.
  await type(most);
  await expect.poll(() => figure(page, 'Lowest bank day', 2)).toBeGreaterThanOrEqual(0);
  await type(most + 1);
  await expect.poll(() => figure(page, 'Lowest bank day', 2)).toBeLessThan(0);
});

test('step by step from the plan to a case: the steps come to it, and so do all alone with what they do together', async ({
  page,
}) => {
  await openApp(page, '/whatif');
  await reckoned(page);
  const [plan, worse] = await Promise.all([0, 3].map((at) => figure(page, 'Bank at the end', at)));
  await page.getByText('Step by step', { exact: true }).click();
  const table = page.getByRole('table').filter({ hasText: 'From the plan to Worse' }).last();
  await expect(table.getByRole('row', { name: /^From the plan to Worse/ })).toBeVisible({ timeout: 60_000 });
  const column = async (at: number) =>
    (await table.getByRole('row').all()).reduce(async (sum, r) => {
      const text = await r
        .locator('td')
        .nth(at)
        .innerText({ timeout: 1_000 })
        .catch(() => '');
      const number = Number(text.replace(/[^\d.]/g, '')) || 0;
      return (await sum) + (/^[−(-]/.test(text.trim()) ? -number : number);
    }, Promise.resolve(0));
  // Each column holds its steps and, in the last row, their sum.
  for (const at of [1, 2]) expect(Math.abs((await column(at)) - 2 * (worse! - plan!))).toBeLessThan(8);
});

const view = (page: Page, name: string) => page.getByText(name, { exact: true }).first().click();
const amountIn = (text: string): number => {
  const number = Number(text.replace(/[^\d.]/g, ''));
  return /^[−(-]/.test(text.trim()) ? -number : number;
};

test('two at once: the cell of the case as it is has its outcome, and a long table is stopped', async ({
  page,
}) => {
  await openApp(page, '/whatif');
  await reckoned(page);
  const low = await figure(page, 'Lowest bank day', 3);
  await view(page, 'Two at once');
  await page.getByLabel('Down: from').fill('-12');
  await page.getByLabel('Down: to').fill('0');
  await page.getByLabel('Down: how many').fill('2');
  await page.getByLabel('Across: from').fill('0');
  await page.getByLabel('Across: to').fill('20');
  await page.getByLabel('Across: how many').fill('3');
  await page.getByRole('button', { name: 'Reckon' }).click();
  const table = page.getByRole('table');
  await expect(table.getByRole('row')).toHaveCount(3, { timeout: 60_000 });
  const cell = (r: number, c: number) => table.getByRole('row').nth(r).getByRole('cell').nth(c);
  await expect(table.getByRole('columnheader').last()).toHaveText('20 days later');
  await expect.poll(async () => amountIn(await cell(1, 2).innerText())).toBe(low);
  await expect(cell(1, 2)).toHaveAttribute('title', /breaks the floor/);
  // A range that turns around is said, and nothing is reckoned of it.
  await page.getByLabel('Down: to').fill('-20');
  await expect(page.getByText('A range ends before it begins.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Reckon' })).toBeDisabled();
  await page.getByLabel('Down: to').fill('40');
  await page.getByLabel('Down: how many').fill('21');
  await page.getByLabel('Across: how many').fill('21');
  await page.getByRole('button', { name: 'Reckon' }).click();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('It is being reckoned')).toHaveCount(0);
  await expect(table).toHaveCount(0);
});

test('the edge: break-even of each month and how far each may go', async ({ page }) => {
  await openApp(page, '/whatif');
  await reckoned(page);
  await view(page, 'Edge');
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) });
  const first = async (name: string) => amountIn(await row(name).getByRole('cell').first().innerText());
  const [income, contribution, fixed, even, safety] = await Promise.all(
    ['Income', 'Contribution', 'Fixed costs', 'Break-even, of operations', 'Margin of safety'].map((n) =>
      n === 'Margin of safety'
        ? row('Margin of safety').first().getByRole('cell').first().innerText().then(amountIn)
        : first(n),
    ),
  );
  expect(Math.abs(even! - (-fixed! * income!) / contribution!)).toBeLessThan(3);
  expect(Math.abs(safety! - (income! - even!))).toBeLessThan(2);
  // Of the plan as it is nothing varies.
  await page.getByRole('combobox', { name: 'Case' }).selectOption('As planned');
  await expect(page.getByRole('button', { name: 'Seek the edges' })).toHaveCount(0);
  await page.getByRole('combobox', { name: 'Case' }).selectOption('Better');
  await page.getByRole('button', { name: 'Seek the edges' }).click();
  await expect(row('Berth fees for the season')).toContainText(/from|up to|in all of/, { timeout: 120_000 });
});

test('how sure: draws of what may come out otherwise, the same of one seed', async ({ page }) => {
  await openApp(page, '/whatif');
  await reckoned(page);
  await view(page, 'How sure');
  await page.getByRole('combobox', { name: 'Case' }).selectOption('Better');
  await expect(page.getByRole('button', { name: 'Draw' })).toBeDisabled();
  await page.getByRole('combobox', { name: 'Case' }).selectOption('Worse');
  await page.getByLabel('How many draws').fill('60');
  await page.getByRole('button', { name: 'Draw' }).click();
  const picture = page.getByRole('img', { name: /The bank by week over 60 draws/ });
  await expect(picture).toBeVisible({ timeout: 60_000 });
  const said = await picture.getAttribute('aria-label');
  await expect(page.getByText('The bank falls under the floor')).toBeVisible();
  await page.getByLabel('Seed').fill('2');
  await page.getByRole('button', { name: 'Draw' }).click();
  await expect.poll(() => picture.getAttribute('aria-label')).not.toBe(said);
  await page.getByLabel('Seed').fill('1');
  await page.getByRole('button', { name: 'Draw' }).click();
  await expect.poll(() => picture.getAttribute('aria-label')).toBe(said);
});

test('which case are we in: while no month has closed since they were made, that is said', async ({
  page,
}) => {
  await openApp(page, '/whatif');
  await expect(page.getByText(/No month has closed since they were made/)).toBeVisible({ timeout: 30_000 });
});

const known = (page: Page) =>
  page.addInitScript(() =>
    localStorage.setItem('tellan.person', JSON.stringify({ name: 'Ines Marlow', initials: 'IM' })),
  );
const COMPARED = ['Income', 'Net profit', 'Lowest bank day', 'Bank at the end', 'Equity at the end'];
const figures = (page: Page, at: number) => Promise.all(COMPARED.map((o) => figure(page, o, at)));

test('a case taken into the draft is what the case was; one undo takes it back; taken in it counts once', async ({
  page,
}) => {
  await known(page);
  await openApp(page, '/whatif');
  await reckoned(page);
  const [plan, worse] = [await figures(page, 0), await figures(page, 3)];
  expect(worse).not.toEqual(plan);
  await page.getByRole('button', { name: 'Worse ▾' }).click();
  await page.getByRole('menuitem', { name: 'Take it into a plan…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Take “Worse” into a plan' });
  await expect(dialog.getByLabel('Into')).toHaveValue(/^b/);
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  await expect.poll(() => figures(page, 0)).toEqual(worse);
  await reckoned(page);
  // In the plan already: the case over it is the plan.
  await expect.poll(() => figures(page, 3)).toEqual(worse);
  await expect(row(page, 'Customers pay later').getByRole('gridcell').nth(2)).toHaveText(
    'in it 20 days later',
  );
  await page.keyboard.press('Control+z');
  await expect.poll(() => figures(page, 0)).toEqual(plan);
  await expect.poll(() => figures(page, 3)).toEqual(worse);
});

test('some of a case goes into a new draft; its worksheet tells what was taken in, and takes it out', async ({
  page,
}) => {
  await known(page);
  await openApp(page, '/whatif');
  await reckoned(page);
  const income = await figure(page, 'Income', 0);
  await page.getByRole('button', { name: 'Worse ▾' }).click();
  await page.getByRole('menuitem', { name: 'Take it into a plan…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Into').selectOption({ label: 'A new draft, from FY27 autumn revision' });
  await dialog.getByLabel('Its name').fill('Winter plan');
  for (const name of ['Customers pay later', 'Power and water', 'Launch Merganser is late'])
    await dialog.getByRole('checkbox', { name: new RegExp(`^${name}`) }).uncheck();
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('over Winter plan')).toBeVisible();
  await expect.poll(() => figure(page, 'Income', 0)).toBeLessThan(income);
  await page.getByRole('link', { name: 'Budget' }).click();
  await page.getByRole('button', { name: /FY27 autumn revision ▾|FY27 budget ▾|Winter plan ▾/ }).click();
  await page.getByRole('menuitem', { name: /Winter plan/ }).click();
  await page
    .getByRole('row', { name: /Repair and refit jobs/ })
    .getByRole('gridcell')
    .nth(9)
    .click();
  const part = page.getByRole('region', { name: 'What was taken in' });
  await expect(part).toContainText('Repair and refit jobs, −12%');
  await expect(part).toContainText('Two yards open upstream');
  await part.getByRole('button', { name: 'Take it out' }).click();
  await expect(part).toHaveCount(0);
});

test('the list of what is assumed leaves with its reasons, and the workbook reckons what is beside the plan', async ({
  page,
}) => {
  await openApp(page, '/whatif');
  await reckoned(page);
  const worse = await figure(page, 'Income', 3);
  const leaves = async (name: string) => {
    await page.getByRole('button', { name: 'Export ▾' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name }).click();
    return readFile(await (await download).path());
  };
  const list = (await leaves('What is assumed (CSV)')).toString('utf8');
  expect(list).toContain(
    ",Repair and refit jobs,Jan – Jun 2027,'+12%,,−12%,Two yards open upstream; one of them does refits.,Treasurer",
  );
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load((await leaves('Workbook (XLSX)')) as unknown as ArrayBuffer);
  const sheet = workbook.getWorksheet('What it comes to')!;
  const at = sheet.getColumn(2).values.findIndex((v) => v === 'Income');
  expect(sheet.getCell(at, 6).value).toBe(worse);
  const less = sheet.getCell(at, 9).value as { formula: string; result: number };
  expect(less.formula).toBe(`F${at}-C${at}`);
  expect(less.result).toBe(worse - Number(sheet.getCell(at, 3).value));
  expect((await leaves('Document (PDF), A4')).subarray(0, 5).toString()).toBe('%PDF-');
});

test('a change is tried from where one stands: a line with its month, a row, a counterparty', async ({
  page,
}) => {
  await known(page);
  await openApp(page, '/budget');
  await page
    .getByRole('row', { name: /Sailing courses/ })
    .getByRole('gridcell')
    .nth(12)
    .click();
  await page.getByRole('button', { name: 'Try a change of it…' }).click();
  const dialog = page.getByRole('dialog', { name: 'What changes?' });
  await expect(dialog.getByText('Sailing courses').first()).toBeVisible();
  await dialog.getByLabel('In Worse').fill('-50');
  await dialog.getByRole('button', { name: 'Add it' }).click();
  await expect(row(page, 'Sailing courses').getByRole('gridcell').nth(5)).toHaveText('−50%');
  // It was asked once: coming back asks nothing.
  await page.getByRole('link', { name: 'Cash' }).click();
  await page.getByText('Open items', { exact: true }).click();
  await page
    .getByRole('button', { name: /^Try what if .* pays later$/ })
    .first()
    .click();
  await expect(dialog.getByLabel('What is tried')).toHaveValue('itemsLater');
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await page.getByRole('link', { name: 'Cash' }).click();
  await page.getByRole('link', { name: 'What-if' }).click();
  await expect(grid(page)).toBeVisible();
  await expect(dialog).toHaveCount(0);
});

test('a counterparty who pays later, taken into the plan: his items say so, and every plan has it until it is taken out', async ({
  page,
}) => {
  await known(page);
  await openApp(page, '/cash');
  await page.getByText('Open items', { exact: true }).click();
  const first = page.getByRole('button', { name: /^Try what if .* pays later$/ }).first();
  const who = /^Try what if (.*) pays later$/.exec((await first.getAttribute('aria-label'))!)![1]!;
  const mark = page.getByRole('img', { name: /^Taken in: He pays late: expected on / });
  await expect(mark).toHaveCount(0);
  await first.click();
  const dialog = page.getByRole('dialog', { name: 'What changes?' });
  await dialog.getByLabel('Name').fill('He pays late');
  await dialog.getByLabel('In Better').fill('45');
  await dialog.getByRole('button', { name: 'Add it' }).click();
  // What was just added leaves with the list, too.
  await page.getByRole('button', { name: 'Export ▾' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'What is assumed (CSV)' }).click();
  expect(await readFile(await (await download).path(), 'utf8')).toContain(',He pays late,');
  await page.getByRole('button', { name: 'Better ▾' }).click();
  await page.getByRole('menuitem', { name: 'Take it into a plan…' }).click();
  const taking = page.getByRole('dialog', { name: 'Take “Better” into a plan' });
  await expect(taking.getByRole('listitem').filter({ hasText: 'He pays late' })).toContainText(
    'changes every plan',
  );
  for (const box of await taking.getByRole('checkbox').all())
    if (!(await box.evaluate((e) => e.closest('li')!.textContent!.includes('He pays late'))))
      await box.uncheck();
  await taking.getByRole('button', { name: 'Take it in' }).click();
  await expect(row(page, 'He pays late').getByRole('gridcell').nth(2)).toHaveText('in it 45 days later');
  await page.getByRole('link', { name: 'Cash' }).click();
  await expect(page.getByRole('row').filter({ hasText: who }).filter({ has: mark })).not.toHaveCount(0);
  await page.getByRole('link', { name: 'What-if' }).click();
  await row(page, 'He pays late').getByRole('gridcell').nth(3).click();
  await page.getByRole('button', { name: 'Take it out' }).click();
  await page.getByRole('link', { name: 'Cash' }).click();
  await expect(mark).toHaveCount(0);
});

test('cases go to another book by a file, and what is no such file changes nothing', async ({ page }) => {
  await openApp(page, '/whatif');
  await reckoned(page);
  await page.getByRole('button', { name: 'Export ▾' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'For another book (JSON)' }).click();
  const path = await (await download).path();
  const input = page.getByLabel('A file of cases');
  await input.setInputFiles({
    name: 'notes.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"a": 1}'),
  });
  await expect(
    page.getByText('notes.json was not taken in: it holds no cases. Nothing was changed.'),
  ).toBeVisible();
  await expect(row(page, 'Power and water')).toHaveCount(1);
  await input.setInputFiles(path);
  await expect(page.getByText('6 adjustments are taken in.')).toBeVisible();
  await expect(row(page, 'Power and water')).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(row(page, 'Power and water')).toHaveCount(1);
});
