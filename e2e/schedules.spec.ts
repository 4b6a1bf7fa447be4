import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { cell, expect, openApp, saved, stage, TALL, test } from './fixture';

const view = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'View' }).getByText(name, { exact: true }).click();
const schedule = (page: Page, name: RegExp) =>
  page.getByRole('radiogroup', { name: 'Schedule' }).getByText(name).click();
const months = (page: Page) => page.getByRole('region', { name: 'Months of the schedule' });
const open = async (page: Page) => {
  await page.setViewportSize(TALL);
  await openApp(page, '/budget');
  await view(page, 'Schedules');
};
const number = (text: string): number => Number(text.replace(/[^\d.-]/g, ''));

test('a hire from a month: her pay, on-costs and tools are on the worksheet at once, and gone with one undo', async ({
  page,
}) => {
  await open(page);
  const staff = page.getByRole('table', { name: 'Staff of FY27 autumn revision' });
  await expect(staff.getByRole('row')).toHaveCount(9);
  await view(page, 'Worksheet');
  const before = number(await cell(page, 'Yard wages', 10).innerText());
  await expect(page.getByRole('row', { name: /Yard wages/ })).toContainText('Staff');
  await view(page, 'Schedules');
  await page.getByRole('button', { name: 'Add a position' }).click();
  const pay = page.getByLabel('Pay, New position');
  await pay.fill('36000');
  await pay.press('Enter');
  await page.getByLabel('Position or name, New position').fill('Welder');
  await page.getByLabel('Position or name, New position').blur();
  // 36,000 a year on the paydays of the others: 3,000 in May, and 9 % of on-costs.
  await expect(months(page).getByRole('row', { name: /^Pay/ })).toContainText('3,000');
  await expect(months(page).getByRole('row', { name: /^Employer’s payroll tax/ })).toContainText('270');
  await page.getByRole('button', { name: 'Add what is needed' }).click();
  await page
    .getByRole('region', { name: 'Once, when she comes: tools, a desk' })
    .getByLabel('Amount')
    .fill('900');
  await page.keyboard.press('Enter');
  await expect(months(page).getByRole('row', { name: /^Once/ })).toContainText('900');
  await view(page, 'Worksheet');
  expect(number(await cell(page, 'Yard wages', 10).innerText())).toBe(before + 3000);
  // The month says whom it comes from, and leads back.
  await cell(page, 'Yard wages', 10).click();
  const panel = page.getByRole('region', { name: 'How the month was made' });
  await expect(panel).toContainText('Welder');
  await expect(panel).toContainText('Shipwrights');
  await page.getByRole('button', { name: 'Welder' }).click();
  await expect(page.getByRole('heading', { name: 'Welder' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await expect(staff.getByRole('row')).toHaveCount(9);
  await page.keyboard.press('Control+z');
  await expect(staff.getByRole('row')).toHaveCount(10);
});

test('a raise for all; rows by keyboard; a block from a spreadsheet adds rows', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await open(page);
  await page.getByLabel('Whole cost, FY27').first().waitFor({ state: 'detached' });
  await page.getByLabel('Pay, Yard manager').focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByLabel('Pay, Shipwrights')).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel('Pay, Yard manager')).toBeFocused();
  const total = page.getByRole('table', { name: /^Staff of/ }).locator('tfoot td');
  const before = number(await total.innerText());
  await page.getByRole('button', { name: 'Raise for all…' }).click();
  const dialog = page.getByRole('dialog', { name: 'A raise for all' });
  await dialog.getByLabel('From').fill('2027-03-01');
  await dialog.getByLabel('By').fill('10');
  await dialog.getByRole('button', { name: 'Raise', exact: true }).click();
  await expect(page.getByText(/positions raised by 10%/)).toBeVisible();
  expect(number(await total.innerText())).toBeGreaterThan(before);
  await page.keyboard.press('Control+z');
  await expect(total).toHaveText(before.toLocaleString('en-US'));

  await page.evaluate(() =>
    navigator.clipboard.writeText('Painter\t1\t2,400\ta month\nCook\t0.5\t1,800\ta month'),
  );
  const last = page.getByLabel('Position or name, Sailing instructors');
  await last.focus();
  await page.keyboard.press('Enter');
  // On the last row the block lies over it and adds one.
  await last.focus();
  await page.keyboard.press('Control+v');
  await expect(page.getByText('2 rows pasted.')).toBeVisible();
  await expect(page.getByLabel('Pay, Cook')).toHaveValue('1800');
  await page.evaluate(() => navigator.clipboard.writeText('Painter\tmany\t2,400'));
  await page.getByLabel('Position or name, Cook').focus();
  await page.keyboard.press('Control+v');
  await expect(page.getByText(/“many” does not go under “How many”\. Nothing was pasted/)).toBeVisible();
});

test('a loan and a purchase are followed through the three statements; the covenant that breaks is named', async ({
  page,
}) => {
  await open(page);
  await schedule(page, /^Loans/);
  await expect(
    page.getByText('Boat hoist loan: the ledger stands at 48,762.48 in Oct 2026, and so do the rows.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Add a loan' }).click();
  await page.getByLabel('Amount, New loan').fill('30000');
  await page.keyboard.press('Enter');
  // 60 payments at 6 %: PMT(0.06/12, 60, -30000) is 579.98.
  const table = page.getByRole('region', { name: 'Table of payments' });
  await expect(table.getByRole('row').nth(1)).toContainText('150.00');
  await expect(table.getByRole('row').nth(1)).toContainText('429.98');
  // What an extra repayment saves.
  await page.getByRole('button', { name: 'Add a day' }).click();
  await page.getByLabel('Repaid beside the payments 1: day').fill('2027-02-15');
  await page.getByLabel('Repaid beside the payments 1: amount').fill('10000');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Saves [\d,.]+ of interest and ends on/)).toBeVisible();

  await schedule(page, /^Assets/);
  await page.getByRole('button', { name: 'Add an asset' }).click();
  await page.getByLabel('Cost, New asset').fill('30000');
  await page.keyboard.press('Enter');
  await expect(months(page).getByRole('row', { name: /^Written off/ })).toContainText('500');
  // It is paid with a loan of what it costs, drawn on its day.
  await page.getByRole('button', { name: 'With a loan…' }).click();
  await expect(page.getByLabel('Amount, New asset, loan')).toHaveValue('30000');
  await page.keyboard.press('Control+z');
  await saved(page);

  await stage(page, 'Statements');
  await view(page, 'Balance sheet');
  const grid = page.getByRole('grid', { name: 'Balance sheet' });
  const row = (name: string) => grid.getByRole('row', { name: new RegExp(`^(\\d+ ?)?${name}`) });
  await expect(row('Launch loan(?!,)')).toBeVisible();
  const yard = row('Yard equipment').locator('[data-column="4"]');
  await expect(yard).not.toBeEmpty();
  await yard.click();
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toContainText('New asset');
  // A figure of the row is tried: what it moves is said before it is applied.
  const what = page.getByRole('region', { name: 'What if' });
  await what.getByLabel('New asset: cost').fill('36000');
  await page.keyboard.press('Enter');
  await expect(what).toContainText('yard equipment +6,000');
  await expect(what).toContainText('bank −6,000');
  await page.getByLabel('Beside a budget').selectOption({ label: 'Beside FY27 budget' });
  await expect(grid.getByRole('columnheader', { name: /FY27 budget/ }).first()).toBeVisible();
  await page.getByLabel('Beside a budget').selectOption({ label: 'Beside no budget' });
  await view(page, 'Cash flow');
  await expect(
    page
      .getByRole('grid', { name: 'Cash flow' })
      .getByRole('row', { name: /Depreciation|Accumulated depreciation/ })
      .first(),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /checks hold/ })).toContainText('covenant broken');
  await page.getByRole('button', { name: /checks hold/ }).click();
  await expect(page.getByRole('list', { name: 'Checks' })).toContainText(
    'First Estuary Bank on debt service coverage',
  );
});

test('a list of staff comes in from a file: what cannot be read is named, what goes out has no pay of anyone', async ({
  page,
}) => {
  await open(page);
  const csv =
    'Name,Pay,Per,Hours,Start,Account\nAda Reed,"42,000",year,,,6010\nBo Quill,24.50,hour,120,2027-02-01,Yard wages\nNobody,,year,,,6010\nCy Vane,3000,month,,,9999\nTotal,45000,,,,';
  await page
    .getByLabel(/^File with a list of staff/)
    .setInputFiles({ name: 'staff.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  const dialog = page.getByRole('dialog', { name: 'staff.csv' });
  await expect(dialog).toContainText('2 rows can be taken in.');
  await expect(dialog).toContainText('row 4: an amount is missing or cannot be read');
  await expect(dialog).toContainText('row 5: the book has no such account (“9999”)');
  await dialog.getByLabel('They stand in place of the rows that are there').check();
  await dialog.getByRole('button', { name: 'Take 2 in' }).click();
  await expect(page.getByRole('table', { name: /^Staff of/ }).getByRole('row')).toHaveCount(4);
  await expect(months(page).getByRole('row', { name: /^Pay/ })).toContainText('3,500');
  await page
    .getByLabel(/^File with a list of staff/)
    .setInputFiles({ name: 'no.csv', mimeType: 'text/csv', buffer: Buffer.from('a,b\n1,2\n') });
  await expect(page.getByText(/no\.csv is not a list of staff.*Nothing was changed/)).toBeVisible();

  // Nobody’s pay is in a file that leaves the program.
  await view(page, 'Report');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: /CSV/ }).first().click();
  const text = await readFile(await (await download).path(), 'utf8');
  expect(text).toContain('Yard wages');
  expect(text).not.toContain('Ada Reed');
});

test('accounts that a schedule needs are added on the spot; a balance stands against what was chosen', async ({
  page,
}) => {
  await open(page);
  await schedule(page, /^Prepaid/);
  await page.getByRole('button', { name: 'Add an amount' }).click();
  const dialog = page.getByRole('dialog', { name: 'Accounts for prepaid and deferred' });
  await expect(dialog.getByLabel('What is paid in advance')).toHaveValue('');
  await dialog.getByRole('button', { name: 'Add an amount' }).click();
  await page.getByLabel('Amount, Paid in advance').fill('1200');
  await page.keyboard.press('Enter');
  await expect(months(page).getByRole('row', { name: /^Its part/ })).toContainText('100');
  await expect(
    page.getByText(
      /Prepaid expenses: the ledger stands at nothing in Oct 2026, the rows at 1,200\.00: 1,200\.00 apart/,
    ),
  ).toBeVisible();
});

test('a budget started from another has its schedules, unless someone says no', async ({ page }) => {
  await openApp(page, '/budget');
  await page.getByRole('button', { name: 'New budget' }).click();
  await page.getByRole('radio', { name: /Another budget/ }).check();
  await page.getByLabel('Which budget').selectOption('FY27 autumn revision');
  await expect(page.getByLabel(/Its schedules come along \(\d+ rows/)).toBeChecked();
  await expect(page.getByText(/Over before it begins:.*Launch Teal/)).toBeVisible();
  // Its drivers come along too, and with them who works by their hours; without them that row stays behind.
  const brings = page.getByRole('note', { name: 'What it brings' });
  await expect(brings).toContainText(
    /brings \d+ rows of schedules, \d+ drivers, \d+ lines? that follows? them, \d+ lines’ terms/,
  );
  const drivers = page.getByLabel(/^Its drivers come along/);
  await expect(drivers).toBeChecked();
  await drivers.uncheck();
  await expect(page.getByText(/By hours of a driver, which belongs to that budget/)).toBeVisible();
  await drivers.check();
  await page.getByRole('button', { name: 'Start the budget' }).click();
  await view(page, 'Schedules');
  await expect(page.getByRole('table', { name: 'Staff of FY28 budget' }).getByRole('row')).toHaveCount(9);
  await view(page, 'Drivers');
  expect(await page.getByRole('row').count()).toBeGreaterThan(2);
});
