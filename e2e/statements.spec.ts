import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, newBook, openApp, saved, stage, takeIn, TALL, test } from './fixture';

const grid = (page: Page, name: string) => page.getByRole('grid', { name });
const cellOf = (page: Page, statement: string, line: string, column: number) =>
  grid(page, statement)
    .getByRole('row', { name: new RegExp(`^(\\d+ ?)?${line}`) })
    .locator(`[data-column="${column}"]`);
const amount = async (page: Page, statement: string, line: string, column: number) => {
  const text = await cellOf(page, statement, line, column).innerText();
  const number = Number(text.replace(/[^\d.]/g, '')) || 0;
  return /^[−(-]/.test(text.trim()) ? -number : number;
};
const view = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'View' }).getByText(name, { exact: true }).click();

test('three statements move together: closed months and those ahead tie, and any figure opens what it is made of', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1500, height: 2200 });
  await openApp(page, '/statements?view=flow');
  await expect(page).toHaveTitle('Statements · Tellan');
  const flow = 'Cash flow';
  await expect(grid(page, flow).getByRole('columnheader', { name: 'Nov 2026', exact: true })).toBeVisible();
  // Each month's bank is the one before and its change; the balance sheet has the same.
  const closing: number[] = [];
  for (const m of [2, 3, 4, 5]) {
    const [opening, change, end] = [
      await amount(page, flow, 'Bank at the start', m),
      await amount(page, flow, 'Change of the bank', m),
      await amount(page, flow, 'Bank at the end', m),
    ];
    expect(Math.abs(opening + change - end)).toBeLessThan(2);
    closing.push(end);
  }
  // One key tells operations by whom money came from and went to; they come to the same.
  const operations = await amount(page, flow, 'Cash from operations', 4);
  await cellOf(page, flow, 'Net profit', 4).click();
  await page.keyboard.press('d');
  await expect(grid(page, 'Cash flow, direct').getByRole('row', { name: /From customers/ })).toBeVisible();
  expect(await amount(page, 'Cash flow, direct', 'Cash from operations', 4)).toBe(operations);

  await view(page, 'Balance sheet');
  const balance = 'Balance sheet';
  for (const [i, m] of [2, 3, 4, 5].entries()) {
    const banks = await Promise.all(
      ['Operating bank account', 'Reserve savings account'].map((line) => amount(page, balance, line, m)),
    );
    expect(Math.abs(banks[0]! + banks[1]! - closing[i]!)).toBeLessThan(2000);
  }
  // A closed figure opens its entries, one ahead its causes.
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await cellOf(page, balance, 'Accounts receivable', 3).click();
  await expect(panel.getByText('Total ties to the ledger ✓')).toBeVisible();
  await cellOf(page, balance, 'Accounts receivable', 5).click();
  await expect(panel).toContainText('Repair and refit jobs');
  await expect(panel).toContainText('FY27 autumn revision');

  // Where an account belongs on the cash flow can be said; the bank stays what it is.
  await cellOf(page, balance, 'Boat hoist loan(?!,)', 3).click();
  await panel.getByLabel('On the cash-flow statement').selectOption({ label: 'Operating' });
  await view(page, 'Cash flow');
  await page.getByText('From profit', { exact: true }).click();
  await expect.poll(() => amount(page, flow, 'Cash from financing', 3)).toBe(0);
  expect(await amount(page, flow, 'Bank at the end', 5)).toBe(closing[3]);
  await page.keyboard.press('Control+z');
  await expect.poll(() => amount(page, flow, 'Cash from financing', 3)).toBe(-896);
});

test('one thing is changed, three are seen before it is applied', async ({ page }) => {
  await page.setViewportSize({ width: 1500, height: 2200 });
  await openApp(page, '/statements');
  const name = 'Profit and loss';
  await cellOf(page, name, 'Repair and refit jobs', 5).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await panel.getByLabel('Repair and refit jobs in Dec 2026').fill('20000');
  await page.keyboard.press('Enter');
  await expect(panel).toContainText(/profit −[\d,]+, .*accounts receivable −[\d,]+/);
  await expect(panel).toContainText(/bank −[\d,]+/);
  expect(await amount(page, name, 'Repair and refit jobs', 5)).toBe(22_900);
  await panel.getByRole('button', { name: 'Apply' }).click();
  await expect.poll(() => amount(page, name, 'Repair and refit jobs', 5)).toBe(20_000);
  await page.keyboard.press('Control+z');
  await expect.poll(() => amount(page, name, 'Repair and refit jobs', 5)).toBe(22_900);
});

test('the way from profit to cash, a ratio with its formula, and a covenant that breaks', async ({
  page,
}) => {
  await openApp(page, '/statements?view=way');
  await expect(page.getByText(/^A (profit|loss) of [\d,]+ and the bank (up|down) by [\d,]+/)).toBeVisible();
  await expect(page.getByText(/went into Yard equipment/)).toBeVisible();
  await view(page, 'Ratios');
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(panel).toContainText('current assets ÷ current liabilities');
  // A ratio of one's own, by a formula over lines and totals.
  await page.getByRole('button', { name: 'Add a ratio' }).click();
  const own = page.getByRole('region', { name: 'Ratios of your own' });
  const formula = own.getByLabel('Formula');
  await formula.fill('"Repair and refit jobs" / "Total income"');
  await formula.blur();
  await expect(own.getByRole('row', { name: /^Costs of income/ })).toContainText('%');
  await formula.fill('"Nobody" / 2');
  await expect(own.getByRole('alert')).toContainText('Nothing has this name.');
  await page.keyboard.press('Escape');
  // A lender may ask something of it, at the quarters' ends.
  await panel.getByLabel('Who asks').fill('Guild');
  await panel.getByLabel('Costs of income').selectOption('at most');
  await panel.getByLabel('Limit').fill('20%');
  await panel.getByLabel('Looked at').selectOption('quarter ends');
  await panel.getByRole('button', { name: 'Add' }).click();
  await expect(panel).toContainText('Guild: Costs of income at most 20.0%, at quarter ends');
  await expect(panel).toContainText(/Broken first in \w+ 202\d · over by [\d,]+ in/);
  await own.getByRole('button', { name: 'Take it away' }).click();
  await expect(page.getByRole('contentinfo')).toContainText('and the covenant on it');
  await expect(panel).not.toContainText('Guild');
  await page.keyboard.press('Control+z');
  await expect(panel).toContainText('Guild');
  await page.getByRole('button', { name: 'Current ratio', exact: true }).click();
  await panel.getByLabel('Who asks').fill('Harbor Bank');
  await panel.getByLabel('Current ratio').selectOption('at least');
  await panel.getByLabel('Looked at').selectOption('every month');
  await panel.getByLabel('Limit').fill('five');
  await panel.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('contentinfo')).toContainText('A covenant needs a limit');
  await panel.getByLabel('Limit').fill('5.1');
  await panel.getByRole('button', { name: 'Add' }).click();
  await expect(panel).toContainText('Broken first in Jan 2027');
  await expect(page.getByRole('contentinfo')).toContainText('covenant broken');
  await saved(page);
  await page.reload();
  await expect(panel).toContainText('Harbor Bank: current ratio at least 5.10 ×');
  await page.getByRole('link', { name: 'Tellan' }).click();
  await expect(page.getByRole('region', { name: 'Covenants' })).toContainText(
    /Harbor Bank on current ratio breaks in/,
  );
  await page
    .getByRole('region', { name: 'Covenants' })
    .getByRole('button', { name: 'current ratio' })
    .click();
  await expect(panel).toContainText('Harbor Bank');
  await page.keyboard.press('Control+z');
});

test('a ledger of profit and loss alone has its statement; what it cannot tell is not made up', async ({
  page,
}) => {
  await page.setViewportSize(TALL);
  await openApp(page);
  await newBook(page, 'Kiosk');
  await takeIn(page, {
    name: 'kiosk.csv',
    text: [
      'Account,Name,Jan 2026,Feb 2026,Mar 2026',
      '4000,Sales,1000,1200,900',
      '6000,Rent,400,400,400',
    ].join('\n'),
  });
  await stage(page, 'Statements');
  await expect(grid(page, 'Profit and loss')).toBeVisible();
  expect(await amount(page, 'Profit and loss', 'Net profit', 1)).toBe(800);
  await view(page, 'Cash flow');
  await expect(grid(page, 'Cash flow')).toBeVisible();
  await expect(page.getByText(/checks hold/)).toBeVisible();
});

test('all statements leave as one workbook and one document', async ({ page }) => {
  await openApp(page, '/statements');
  await page.getByRole('button', { name: 'Export ▾' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /All three, one workbook/ }).click();
  const file = await readFile((await (await download).path())!);
  expect(file.subarray(0, 2).toString()).toBe('PK');
  await page.getByRole('button', { name: 'Export ▾' }).click();
  const document = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /All three.*PDF.*A4/ }).click();
  const text = execFileSync('pdftotext', ['-layout', (await (await document).path())!, '-'], {
    encoding: 'utf8',
  });
  for (const name of ['Profit and loss', 'Balance sheet', 'Cash flow', 'Bank at the end'])
    expect(text).toContain(name);
});

test('working capital in days, with the terms that it follows', async ({ page }) => {
  await openApp(page, '/statements?view=capital');
  const days = page.getByRole('region', { name: 'Working capital by period' });
  const october = () =>
    days
      .getByRole('row', { name: /^Receivable days/ })
      .getByRole('cell')
      .nth(4);
  await expect(october()).toHaveText('35 days');
  await page.getByText('Of the month', { exact: true }).click();
  await expect(october()).not.toHaveText('35 days');
  // 93,919 owed at the end of October, whatever it is held against.
  await expect(
    days
      .getByRole('row', { name: /^Receivables/ })
      .getByRole('cell')
      .nth(4),
  ).toHaveText('93,919');
  const panel = page.getByRole('complementary', { name: 'Days applied ahead' });
  await expect(panel).toContainText('45 days in stock');
  await panel.getByRole('button', { name: 'Change the terms' }).click();
  await expect(page).toHaveURL(/cash.*view=terms/);
});

test('profit and loss tells segments apart; costs are fixed, variable or mixed', async ({ page }) => {
  await openApp(page, '/statements?view=profit');
  await page.getByRole('button', { name: 'Segments and figures' }).click();
  await page.getByLabel('Segments', { exact: true }).selectOption('Beneath each line');
  await page.keyboard.press('Escape');
  const grid = page.getByRole('grid');
  await grid
    .getByRole('row', { name: /^North Yard/ })
    .first()
    .locator('[data-column="0"]')
    .click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(panel).toContainText('North Yard');
  await expect(panel).toContainText('Entries, Jul 2026');
  await view(page, 'Ratios');
  await page.getByRole('button', { name: /^Break-even sales Oct 2026/ }).click();
  const before = await page.getByRole('button', { name: /^Break-even sales Oct 2026/ }).textContent();
  const share = panel.getByLabel('Variable share of Yard wages, percent');
  await share.fill('140');
  await share.press('Enter');
  await expect(page.getByRole('contentinfo')).toContainText('whole percent from 0 to 100');
  await expect(share).toHaveValue('33');
  await share.fill('100');
  await share.press('Enter');
  await expect(page.getByRole('button', { name: /^Break-even sales Oct 2026/ })).not.toHaveText(before!);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Break-even sales Oct 2026/ })).toHaveText(before!);
});
