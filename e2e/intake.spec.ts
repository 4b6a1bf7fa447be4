import ExcelJS from 'exceljs';
import { cell, chooseFile, expect, newBook, openApp, stage, takeIn, TALL, test } from './fixture';

test.use({ viewport: TALL });

const lines = (...l: string[]) => l.join('\r\n') + '\r\n';

test('semicolons and decimal commas, in euros, on a calendar year', async ({ page }) => {
  await openApp(page);
  await newBook(page, 'Töpferei', { currency: 'EUR', locale: 'de-DE' });
  const text = lines(
    'Studio by month;;;;',
    'Konto;01/2025;02/2025;03/2025;Total',
    'Income;;;;',
    '4000 Sales;1.200,50;1.300,00;900,25;3.400,75',
    '4100 Courses;200,00;;150,00;350,00',
    'Total income;1.400,50;1.300,00;1.050,25;3.750,75',
    'Expenses;;;;',
    '6000 Rent;800,00;800,00;800,00;2.400,00',
    'Total expenses;800,00;800,00;800,00;2.400,00',
    'Net profit;600,50;500,00;250,25;1.350,75',
  );
  await chooseFile(page, { name: 'studio.csv', text });
  await expect(page.getByText('6 of 6 totals in the file equal ours')).toBeVisible();
  await page.getByLabel('Kind of Courses').selectOption('Other income');
  await page.getByRole('button', { name: 'Accept 8 amounts' }).click();
  await expect(cell(page, 'Rent', 0)).toHaveText('800');
  await expect(page.getByRole('row', { name: /Operating profit/ })).toContainText('1.001');
  await stage(page, 'Budget');
  await page.getByRole('radio', { name: /average of the months/ }).check();
  await page.getByRole('button', { name: 'Start the budget' }).click();
  await expect(cell(page, 'Rent', 12)).toHaveText('9.600');
  await cell(page, 'Rent', 0).click();
  await page.keyboard.type('850,5');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Rent', 12)).toHaveText('9.651');
});

test('yen have no cents, and a fiscal year from April', async ({ page }) => {
  await openApp(page);
  await newBook(page, 'Tea House', { currency: 'JPY', locale: 'ja-JP', firstMonth: 'Apr' });
  const text = lines(
    'Date,Voucher,Account,Debit,Credit',
    '15/04/2025,1,1000 Bank,"120,000",',
    '15/04/2025,1,4000 Tea sales,,"120,000"',
    '28/03/2026,2,6100 Shop rent,"90,500",',
    '28/03/2026,2,1000 Bank,,"90,500"',
  );
  await takeIn(page, { name: 'tea.csv', text });
  await expect(cell(page, 'Tea sales', 0)).toHaveText('120,000');
  await expect(cell(page, 'Shop rent', 11)).toHaveText('90,500');
  await chooseFile(page, {
    name: 'cents.csv',
    text: lines(
      'Date,Voucher,Account,Debit,Credit',
      '15/05/2026,1,1000 Bank,10.50,',
      '15/05/2026,1,4000 Tea sales,,10.50',
    ),
  });
  await expect(page.getByRole('main').getByRole('alert')).toContainText(
    'row 2, column D: “10.50” has more decimals than the currency',
  );
  await expect(page.getByRole('button', { name: /^Accept/ })).toBeDisabled();
});

test('bad input is named by row, column and value, and changes nothing until it is accepted', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Bad Input');
  const text = lines(
    'Date,Ref,Account,Debit,Credit',
    '2025-01-05,A,1000 Bank,10.00,',
    '2025-01-05,A,4000 Sales,,10.00',
    '2025-02-30,B,1000 Bank,5,',
    '2025-02-27,C,1000 Bank,12x0,',
    '2025-03-01,D,1000 Bank,7,',
    '2025-03-01,D,4000 Sales,,6',
  );
  await chooseFile(page, { name: 'bad.csv', text });
  await expect(page.getByRole('main').getByRole('alert')).toContainText(
    'row 4, column A: “2025-02-30” is not a date',
  );
  await expect(page.getByRole('main').getByRole('alert')).toContainText(
    'row 5, column D: “12x0” is not an amount',
  );
  await expect(
    page.getByText('Entry D, from row 6: debits and credits differ by 1.00 over 2 rows.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Leave the file out' }).click();
  await expect(page.getByText('Three steps from a ledger to a report')).toBeVisible();
});

test.describe('files that are no ledger', () => {
  for (const [name, content, words] of [
    ['empty.csv', Buffer.alloc(0), 'the file is empty'],
    ['picture.csv', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0]), 'it is not a CSV, XLSX or audit file'],
    ['broken.xlsx', Buffer.from('PK\x03\x04 no'), 'it may be cut off or locked'],
    ['old.xls', Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0, 0]), 'old .xls format'],
  ] as const)
    test(`${name} is refused in plain words`, async ({ page }) => {
      await openApp(page);
      await page.getByLabel('Ledger file').setInputFiles({ name, mimeType: 'text/csv', buffer: content });
      await expect(page.getByRole('main').getByRole('alert')).toContainText(`${name} was not taken in`);
      await expect(page.getByRole('main').getByRole('alert')).toContainText(words);
      await page.getByRole('button', { name: 'Back to the books' }).click();
      await expect(page.getByRole('grid', { name: 'Ledger by month' })).toBeVisible();
    });
});

test('the same file is recognised, a mapping can be corrected, and taking in is undone in one step', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Again');
  const file = {
    name: 'l.csv',
    text: lines(
      'Date,Ref,Account,Value,Other',
      '2025-01-05,A,4000 Sales,-10.00,3',
      '2025-01-05,A,1000 Bank,10.00,4',
    ),
  };
  await takeIn(page, file);
  await chooseFile(page, file);
  await expect(page.getByText(/This very file was taken in on/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Accept/ })).toBeDisabled();
  await page.getByLabel('Column D holds').selectOption('Leave out');
  await page.getByLabel('Column E holds').selectOption('Amount');
  await expect(page.getByRole('heading', { name: /Proof/ })).toContainText('not everything ties');
  await page.getByRole('button', { name: 'Leave the file out' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Three steps from a ledger to a report')).toBeVisible();
});

test('the proof says which column was taken for what, names what was left out, and takes it as a segment', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Columns');
  const text = [
    'Date,No,Code,Name,Counterparty,Debit,Credit,Department,Hall',
    '2025-01-05,1,1000,Bank,Ann,100.00,,North,Red',
    '2025-01-05,1,4000,Sales,Ann,,100.00,North,Red',
    '2025-01-06,2,1000,Bank,Bob,50.00,,South,Blue',
    '2025-01-06,2,4000,Sales,Bob,,50.00,South,Blue',
    '2025-01-07,3,1000,Bank,Cyd,50.00,,South,Blue',
    '2025-01-07,3,4000,Sales,Cyd,,50.00,South,Blue',
  ].join('\n');
  await chooseFile(page, { name: 'halls.csv', text });
  const row = (head: string) => page.getByRole('row', { name: new RegExp(`^[A-Z] ${head} `) });
  await expect(row('Name')).toContainText('account name');
  await expect(row('Counterparty')).toContainText('counterparty');
  await expect(row('Department')).toContainText('segment');
  await expect(row('Hall')).toContainText('left out: Red, Blue, again and again');
  await page.getByRole('button', { name: 'Take “Hall” as a segment' }).click();
  await expect(row('Hall')).toContainText(/segment$/);
  await page.getByRole('button', { name: /^Accept/ }).click();
  await expect(page.getByText(/taken in\. Ctrl\+Z/)).toBeVisible();
  await expect(page.getByRole('option', { name: 'Hall: all' })).toBeAttached();
});

test('a workbook with months across', async ({ page }, info) => {
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet('P&L');
  sheet.addRow(['Account', new Date(Date.UTC(2025, 0, 31)), new Date(Date.UTC(2025, 1, 28))]);
  sheet.addRow(['4000 Sales', 1000.5, 2000]);
  sheet.addRow(['6000 Rent', 400, { formula: 'B3', result: 400 }]);
  const path = info.outputPath('months.xlsx');
  await workbook.xlsx.writeFile(path);
  await openApp(page);
  await newBook(page, 'Workbook');
  await takeIn(page, path);
  await expect(cell(page, 'Sales', 0)).toHaveText('1,001');
  await expect(cell(page, 'Rent', 1)).toHaveText('400');
});
