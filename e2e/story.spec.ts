import { readFile } from 'node:fs/promises';
import ExcelJS from 'exceljs';
import {
  cell,
  expect,
  figure,
  newBook,
  openApp,
  reportRow,
  saved,
  stage,
  takeIn,
  TALL,
  test,
} from './fixture';

test.use({ viewport: TALL });

test('from last year’s ledger to a variance report, closed and found again', async ({ page, context }) => {
  test.setTimeout(120_000);
  await openApp(page);
  await newBook(page, 'Tide Mill', { firstMonth: 'Jul' });
  await expect(page.getByText('Three steps from a ledger to a report')).toBeVisible();

  // Last year comes in, month by month, to the cent.
  await takeIn(page, 'public/demo/pellow-creek-ledger-fy26.csv');
  await expect(page.getByText('closed through Jun 2026').first()).toBeVisible();
  await expect(cell(page, 'Insurance', 6)).toHaveText('32,136');
  await cell(page, 'Insurance', 6).click();
  await expect(page.getByText('Total ties to the ledger ✓')).toBeVisible();

  // Next year's budget starts from it; the year's results are live beside the choices.
  await stage(page, 'Budget');
  await expect(page.getByLabel('Name')).toHaveValue('FY27 budget');
  const live = page.getByRole('complementary', { name: 'The year as it would be' });
  const before = await live.getByRole('row', { name: /Total income/ }).innerText();
  await page.getByLabel('Uplift for all').fill('10');
  await page.keyboard.press('Enter');
  await expect(live.getByRole('row', { name: /Total income/ })).not.toHaveText(before);
  await page.getByLabel('Uplift for all').fill('3');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Start the budget' }).click();

  // Through the lines: type a month, fill it to the right, phase an annual amount, take one back.
  await cell(page, 'Slipway lease', 0).click();
  await page.keyboard.type('4400');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Slipway lease', 0)).toHaveText('4,400');
  await cell(page, 'Slipway lease', 0).click();
  await page.keyboard.press('Shift+End');
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Alt+f');
  await expect(cell(page, 'Slipway lease', 12)).toHaveText('52,800');
  await cell(page, 'Winter storage', 12).click();
  await page.keyboard.type('60000');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /Winter storage/ })).toContainText('Pattern');
  await expect(cell(page, 'Winter storage', 12)).toHaveText('60,000');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('row', { name: /Winter storage/ })).toContainText('Last year +3%');
  await page.keyboard.press('Control+Shift+z');
  await expect(cell(page, 'Winter storage', 12)).toHaveText('60,000');

  // This year's months come in; budget and actual stand side by side.
  await stage(page, 'Books');
  await takeIn(page, 'public/demo/pellow-creek-ledger-fy27-to-october.csv');
  await stage(page, 'Variance');
  await expect(page.getByRole('heading', { name: 'Oct 2026' })).toBeVisible();
  await page.setViewportSize(TALL);
  await expect(figure(page, 'Slipway lease', 1)).toHaveText('4,400');
  const refits = reportRow(page, 'Repair and refit jobs');
  await expect(refits.getByText('U').first()).toBeVisible();
  await figure(page, 'Repair and refit jobs', 0).click();
  await expect(page.getByText('Total ties to the ledger ✓')).toBeVisible();
  await page.getByPlaceholder('What happened, and what follows').fill('Two refits slipped to November.');
  await page.keyboard.press('Control+Enter');
  await expect(refits.getByRole('img', { name: /Two refits slipped/ })).toBeVisible();

  // The report leaves as files, whose figures are those of the screen.
  const net = await figure(page, 'Net profit', 0).innerText();
  const take = async (item: RegExp) => {
    await page.getByRole('button', { name: 'Export ▾' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: item }).click();
    return (await download).path();
  };
  const csv = await readFile(await take(/CSV/), 'utf8');
  const csvNet = Number(
    csv
      .split('\r\n')
      .find((l) => l.startsWith(',Net profit'))!
      .split(',')[2],
  );
  const shown = Number(net.replace(/[(,]/g, (c) => (c === '(' ? '-' : '')).replace(')', ''));
  expect(Math.round(Math.abs(csvNet)) * Math.sign(csvNet)).toBe(shown);
  expect(csv).toContain('Two refits slipped to November.');
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.readFile(await take(/XLSX/));
  const sheet = workbook.worksheets[0]!;
  const last = sheet.lastRow!;
  expect(last.getCell(2).value).toBe('Net profit');
  expect(last.getCell(3).value).toMatchObject({ result: csvNet });
  expect(last.getCell(5).value).toMatchObject({ formula: expect.stringMatching(/^C\d+-D\d+$/) });

  // Closed, opened again: all is there.
  await saved(page);
  await page.close();
  const again = await context.newPage();
  await again.setViewportSize(TALL);
  await openApp(again, '/variance');
  await expect(
    reportRow(again, 'Repair and refit jobs').getByRole('img', { name: /Two refits slipped/ }),
  ).toBeVisible();
  await expect(figure(again, 'Net profit', 0)).toHaveText(net);
});

test('the demo book is there on the first visit, and all its checks hold', async ({ page }) => {
  await openApp(page, '/');
  await expect(page.getByRole('button', { name: 'Book: Pellow Creek Boatyard Co-op' })).toBeVisible();
  await expect(page.getByRole('button', { name: /of \d+ checks hold/ })).toBeVisible();
  await stage(page, 'Variance');
  await expect(page.getByText(/against FY27 budget, approved Jun 12, 2026/)).toBeVisible();
  await stage(page, 'Budget');
  await page.getByRole('button', { name: /^FY27 autumn revision/ }).click();
  await page.getByRole('menuitem', { name: /^FY27 budget/ }).click();
  await cell(page, 'Insurance', 0).click();
  await page.keyboard.type('5');
  await expect(page.getByText(/Approved figures stay as they are\. Start a revision/)).toBeVisible();
});
