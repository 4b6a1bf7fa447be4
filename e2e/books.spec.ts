import ExcelJS from 'exceljs';
import { cell, chooseFile, expect, newBook, openApp, saved, stage, takeIn, TALL, test } from './fixture';
import type { Page } from '@playwright/test';

test.use({ viewport: TALL });

const lines = (...l: string[]) => l.join('\r\n') + '\r\n';
const view = (page: Page, name: string | RegExp) =>
  page.getByRole('radiogroup', { name: 'View' }).getByText(name).click();
const accept = (page: Page) => page.getByRole('button', { name: /^Accept \d/ });
const upload = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });

const ENTRIES = (month: string, rent: string) =>
  lines(
    'Date,Ref,Code,Account,Debit,Credit,Site',
    `2025-${month}-05,S${month},1000,Bank,100.00,,North`,
    `2025-${month}-05,S${month},4000,Sales,,100.00,North`,
    `2025-${month}-20,R${month},6000,Rent,${rent},,`,
    `2025-${month}-20,R${month},1000,Bank,,${rent},`,
  );

test('a messy statement with months across: rows are read as what they are, and all its totals tie', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Messy');
  await chooseFile(page, {
    name: 'statement.csv',
    text: lines(
      'Heron Lane Studio',
      'Profit and loss by month',
      '',
      ',Jan 2026,Jan 2025,Feb 2026,Feb 2025,Total',
      'Income,,,,,',
      '  4000 Course fees,"1,200.00",900,"1,300.00",950,"2,500.00"',
      '  Total Income,"1,200.00",900,"1,300.00",950,"2,500.00"',
      'Expenses,,,,,',
      '  Premises,,,,,',
      '    6000 Rent,800,750,800,750,"1,600.00"',
      '    6010 Heat,(55.20),50,61.30,50,6.10',
      '  Total Premises,744.80,800,861.30,800,"1,606.10"',
      'Net profit,455.20,100,438.70,150,893.90',
      '',
      'Accrual basis,,,,,',
    ),
  });
  const preview = page.getByRole('region', { name: 'First rows of the file' });
  await expect(preview.getByRole('row', { name: /Heron Lane/ })).toContainText('title');
  await expect(preview.getByRole('row', { name: /Total Premises/ })).toContainText('total');
  await expect(preview.getByRole('row', { name: /Accrual/ })).toContainText('foot');
  await expect(page.getByText('6 of 6 totals in the file equal ours')).toBeVisible();
  await expect(page.getByLabel('Group of Rent')).toHaveValue('Premises');
  await accept(page).click();
  await expect(cell(page, 'Total Premises', 0)).toHaveText('745');
  await expect(cell(page, 'Heat', 0)).toHaveText('(55)');
});

test('entries with decimal commas, day before month and a column of segments', async ({ page }) => {
  await openApp(page);
  await newBook(page, 'Comma', { currency: 'EUR', locale: 'de-DE' });
  await takeIn(page, {
    name: 'buchungen.csv',
    text: lines(
      'Datum;Beleg;Konto;Kontobezeichnung;Soll;Haben;Site;Buchungstext',
      '13.01.2025;1;1000;Bank;1.234,50;;Nord;Verkauf',
      '13.01.2025;1;4000;Sales;;1.234,50;Nord;Verkauf',
      '14.02.2025;2;6000;Rent;400,00;;;Miete',
      '14.02.2025;2;1000;Bank;;400,00;;Miete',
    ),
  });
  await expect(cell(page, 'Sales', 0)).toHaveText('1.235');
  await page.getByLabel('Site', { exact: true }).selectOption('Nord');
  await expect(cell(page, 'Rent', 1)).toHaveText('');
  await page.getByLabel('Site', { exact: true }).selectOption('unassigned');
  await expect(cell(page, 'Rent', 1)).toHaveText('400');
});

test('cumulative trial balances in a workbook, a sheet a month, become monthly activity', async ({
  page,
}, info) => {
  const workbook = new ExcelJS.Workbook();
  for (const [name, bank, sales, rent] of [
    ['Jan 2025', 110, 30, 20],
    ['Feb 2025', 130, 70, 40],
    ['Mar 2025', 160, 120, 60],
  ] as const) {
    const sheet = workbook.addWorksheet(name);
    sheet.addRow(['Code', 'Account', 'Debit', 'Credit']);
    sheet.addRow(['1000', 'Bank', bank, null]);
    sheet.addRow(['3000', 'Member equity', null, 100]);
    sheet.addRow(['4000', 'Sales', null, sales]);
    sheet.addRow(['6000', 'Rent', rent, null]);
    sheet.addRow(['', 'Total', bank + rent, 100 + sales]);
  }
  const path = info.outputPath('trial.xlsx');
  await workbook.xlsx.writeFile(path);
  await openApp(page);
  await newBook(page, 'Trial');
  await chooseFile(page, path);
  await expect(page.getByLabel('As of, Feb 2025')).toHaveValue('2025-02-28');
  await expect(page.getByText('6 of 6 totals in the file equal ours')).toBeVisible();
  await accept(page).click();
  await expect(cell(page, 'Sales', 1)).toHaveText('40');
  await expect(cell(page, 'Rent', 2)).toHaveText('20');
  await view(page, 'Trial balance');
  await expect(page.getByText('✓ Debits equal credits')).toBeVisible();
  await expect(page.getByRole('row', { name: /Bank/ })).toContainText('160.00');
});

test('next month is one drop: the file is read as the last one was, and what ties goes in by itself', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Monthly');
  await takeIn(page, { name: 'ledger 2025-01.csv', text: ENTRIES('01', '40.00') });
  // Dropped in the wrong order; taken in that of their months.
  await page
    .getByLabel('Ledger file')
    .setInputFiles([
      upload('ledger 2025-03.csv', ENTRIES('03', '42.00')),
      upload('ledger 2025-02.csv', ENTRIES('02', '41.00')),
    ]);
  await expect(page.getByText('Read as ledger 2025-01.csv was')).toBeVisible();
  await expect(page.getByText('After this one: ledger 2025-03.csv')).toBeVisible();
  await page.getByRole('button', { name: 'Accept this and the next that tie' }).click();
  await expect(cell(page, 'Rent', 2)).toHaveText('42');
  await expect(page.getByText('closed through Mar 2025')).toBeVisible();
  await view(page, /^Sources/);
  await expect(page.getByRole('table', { name: 'Sources' }).getByRole('row')).toHaveCount(4);
});

test('a corrected file takes the place of a source: the change is shown first, and one undo brings the old one back', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Replaced');
  await takeIn(page, { name: 'january.csv', text: ENTRIES('01', '40.00') });
  await chooseFile(page, { name: 'january corrected.csv', text: ENTRIES('01', '45.00') });
  const answer = page.getByLabel('1 source in the book has some of these days');
  // Of its four entries two are as they were: added, these would count twice.
  await answer.selectOption('Add to it: the two hold different entries');
  await accept(page).click();
  await expect(page.getByText('2 of its 4 entries are like one in the book')).toBeVisible();
  await answer.selectOption('Replace january.csv');
  const changes = page.getByRole('region', { name: 'What changes' });
  await expect(changes.getByRole('row', { name: /Rent/ })).toContainText('40.0045.005.00');
  await expect(changes.getByRole('row', { name: /Bank/ })).toContainText('60.0055.00(5.00)');
  await expect(changes.getByRole('row')).toHaveCount(3);
  await accept(page).click();
  await expect(cell(page, 'Rent', 0)).toHaveText('45');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell(page, 'Rent', 0)).toHaveText('40');
  await view(page, /^Sources/);
  await page.getByRole('button', { name: 'Take away…' }).click();
  await expect(page.getByRole('region', { name: 'What changes' }).getByRole('row')).toHaveCount(4);
  await page.getByRole('button', { name: 'Take it away' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('✓ ties')).toBeVisible();
});

test('a file that the book nearly holds is not added to it without a reason', async ({ page }) => {
  await openApp(page);
  await newBook(page, 'Twice');
  await takeIn(page, { name: 'january.csv', text: ENTRIES('01', '40.00') });
  await chooseFile(page, { name: 'january again.csv', text: `${ENTRIES('01', '40.00')}\r\n` });
  await page
    .getByLabel('1 source in the book has some of these days')
    .selectOption('Add to it: the two hold different entries');
  await expect(accept(page)).toBeDisabled();
  await expect(
    page.getByText('4 of its 4 entries are in the book already and would count twice'),
  ).toBeVisible();
  await page.getByLabel('It is in the book already. Take it in because').fill('A second till wrote the same');
  await accept(page).click();
  await expect(cell(page, 'Rent', 0)).toHaveText('80');
});

test('what does not tie goes in with a reason only, and stays a failed check; a closed month is reopened with one too', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Untied');
  await chooseFile(page, { name: 'off.csv', text: ENTRIES('01', '40.00').replace(',,40.00,', ',,39.00,') });
  await expect(accept(page)).toBeDisabled();
  await page.getByLabel(/It does not tie/).fill('The bank file of January is late');
  await accept(page).click();
  await expect(page.getByText(/of \d+ checks? (hold|fail)/)).toContainText(/fail|of/);
  await view(page, /^Sources/);
  await expect(page.getByText('“The bank file of January is late”')).toBeVisible();
  await page.getByLabel('Closed through').selectOption('Nothing yet');
  await expect(page.getByRole('button', { name: 'Reopen' })).toBeDisabled();
  await page.getByLabel('Why is it reopened?').fill('January again');
  await page.getByRole('button', { name: 'Reopen' }).click();
  await view(page, 'Journal');
  await expect(page.getByRole('row', { name: /Closed months changed/ })).toContainText('January again');
  await expect(page.getByRole('row', { name: /Ledger file taken in/ })).toContainText('late');
});

test('accounts are moved, merged and parted again; segments merged; the calendar sorts the same entries anew', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Setup');
  await takeIn(page, {
    name: 'a.csv',
    text: ENTRIES('01', '40.00').replace(',North\r\n2025-01-05', ',N\r\n2025-01-05'),
  });
  await view(page, /^Accounts/);
  const table = page.getByRole('table', { name: 'Accounts' });
  await page.getByRole('button', { name: 'Add an account…' }).click();
  await page.getByLabel('Code', { exact: true }).fill('6010');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Heating cost');
  await page.getByRole('button', { name: 'Add the account', exact: true }).click();
  await expect(table.getByLabel('Kind of Heating cost')).toHaveValue('expense');
  await table.getByRole('button', { name: 'Move Heating cost' }).focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(table.getByRole('row').nth(3)).toContainText('');
  await expect(table.getByLabel(/^Name of/).nth(2)).toHaveValue('Heating cost');
  await page.getByRole('button', { name: 'Merge Rent into another account' }).click();
  await page.getByLabel('Goes into').selectOption({ label: '6010 Heating cost (Expense)' });
  await page.getByRole('button', { name: 'Merge', exact: true }).click();
  await view(page, 'Ledger');
  await expect(cell(page, 'Heating cost', 0)).toHaveText('40');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell(page, 'Rent', 0)).toHaveText('40');
  await view(page, 'Segments');
  await page.getByLabel('Merge N into').selectOption('North');
  await expect(page.getByRole('row', { name: /North/ })).toContainText('N');
  await view(page, 'Calendar');
  await page.getByLabel('The fiscal year has').selectOption('52 or 53 weeks');
  await page.getByRole('button', { name: 'Use this calendar' }).click();
  await expect(page.getByRole('table', { name: 'Periods' }).getByRole('row').nth(1)).toContainText(
    '2024-12-29',
  );
  await saved(page);
});

test('a file on its way belongs to its book: an undo beneath it is heeded, and another book does not get it', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'First');
  await takeIn(page, { name: 'january.csv', text: ENTRIES('01', '40.00') });
  await chooseFile(page, { name: 'february.csv', text: ENTRIES('02', '41.00') });
  await expect(page.getByText('3 accounts found in the book')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: /^Accounts/ })).toContainText('3 new');
  await accept(page).click();
  await expect(cell(page, 'Rent', 1)).toHaveText('41');
  await chooseFile(page, { name: 'march.csv', text: ENTRIES('03', '42.00') });
  await expect(accept(page)).toBeEnabled();
  await newBook(page, 'Second');
  await expect(page.getByText('Three steps from a ledger to a report')).toBeVisible();
});

test.describe('the feed', () => {
  // The simulated service is one for all: what drives it takes turns.
  test.describe.configure({ mode: 'default' });
  test.use({ allowedErrors: [/503/] });
  test('the feed: a month more comes in once, also when the service fails, breaks off and repeats itself', async ({
    page,
  }) => {
    await openApp(page);
    await view(page, 'Feed');
    const simulation = page.getByRole('region', { name: 'The simulated service' });
    await simulation.getByRole('button', { name: 'As at first' }).click();
    await page.getByRole('button', { name: 'Connect to the feed' }).click();
    await page.getByRole('button', { name: 'Pull now' }).click();
    await expect(page.getByRole('cell', { name: 'nothing new' })).toBeVisible();
    await simulation.getByRole('button', { name: 'Close one more month' }).click();
    await expect(simulation.getByText('29 months closed')).toBeVisible();
    await simulation.getByRole('button', { name: /Fail the next five/ }).click();
    await page.getByRole('button', { name: 'Pull now' }).click();
    await expect(
      page.getByRole('cell', { name: /nothing was taken: the service could not be reached/ }),
    ).toBeVisible();
    await expect(page.getByText('closed through Oct 2026')).toBeVisible();
    await simulation.getByRole('button', { name: 'As at first' }).click();
    await simulation.getByRole('button', { name: 'Close one more month' }).click();
    await simulation.getByRole('button', { name: /Break off/ }).click();
    await simulation.getByLabel('Repeat entries on every page').click();
    await expect(simulation.getByLabel('Repeat entries on every page')).toBeChecked();
    await expect(simulation.getByText('29 months closed')).toBeVisible();
    await page.getByRole('button', { name: 'Pull now' }).click();
    await expect(page.getByRole('cell', { name: /161 entries taken in/ })).toBeVisible();
    await expect(page.getByText('closed through Nov 2026')).toBeVisible();
    await page.getByRole('button', { name: 'Pull now' }).click();
    await expect(page.getByRole('cell', { name: 'nothing new' })).toHaveCount(2);
  });

  test('the feed’s open items: new ones wait until they are looked at, an order stands in place or on top', async ({
    page,
  }) => {
    await openApp(page);
    await page.getByRole('radiogroup', { name: 'View' }).getByText('Feed').click();
    const simulation = page.getByRole('region', { name: 'The simulated service' });
    await simulation.getByRole('button', { name: 'As at first' }).click();
    await page.getByRole('button', { name: 'Connect to the feed' }).click();
    await page.getByRole('button', { name: 'Pull now' }).click();
    await expect(page.getByRole('cell', { name: /open items as of the closed day/ })).toBeVisible();
    await stage(page, 'Cash');
    // What was decided of the ledger's own invoice went over to the feed's.
    await expect(page.getByRole('contentinfo')).toContainText('Low point');
    await page.getByRole('radiogroup', { name: 'View' }).getByText('Open items', { exact: true }).click();
    await page.getByLabel('Find an item').fill('Heron');
    await expect(page.getByLabel(/^Heron Charter Line J-.*: expected on$/)).toHaveValue('2027-02-26');
    await page.getByLabel('New items of a refresh').selectOption('wait');
    await page.getByLabel('Orders and the plan').selectOption('top');
    await expect(page.getByRole('row', { name: /SO-121 \(order\)/ })).toBeVisible();

    await stage(page, 'Books');
    await page.getByRole('radiogroup', { name: 'View' }).getByText('Feed').click();
    await simulation.getByRole('button', { name: 'Close one more month' }).click();
    await expect(simulation.getByText('29 months closed')).toBeVisible();
    await page.getByRole('button', { name: 'Pull now' }).click();
    await expect(page.getByRole('cell', { name: /entries taken in/ })).toBeVisible();
    await stage(page, 'Cash');
    const look = page.getByRole('button', { name: /^Looked at all \d+ that wait$/ });
    await expect(look).toBeVisible();
    await page.getByLabel('Find an item').fill('');
    await page.getByLabel('only what waits').check();
    await expect(page.getByRole('row', { name: /waits for a look/ }).first()).toBeVisible();
    await look.click();
    await expect(look).toHaveCount(0);
    await page.keyboard.press('Control+z');
    await expect(look).toBeVisible();
  });

  test('a quarter goes by: each month keeps the plan that was in force when it was closed', async ({
    page,
  }) => {
    const against = (plan: string) => page.getByText(new RegExp(`against ${plan}, approved`)).first();
    await openApp(page, '/budget');
    await page.getByRole('button', { name: /FY27 autumn revision ▾/ }).click();
    await page.getByRole('menuitem', { name: 'Approve…' }).click();
    const asked = page.getByRole('dialog');
    await expect(asked).toContainText('It is in force from Nov 2026 on, in place of FY27 budget');
    await expect(asked).toContainText('The closed months before that keep FY27 budget');
    await page.getByLabel('Your name').fill('Ines Marlow');
    await page.getByRole('button', { name: 'Approve', exact: true }).click();
    await expect(page.getByText(/^Approved .* by Ines Marlow/)).toBeVisible();
    await stage(page, 'Variance');
    await expect(against('FY27 budget')).toBeVisible();

    await stage(page, 'Books');
    await view(page, 'Feed');
    const simulation = page.getByRole('region', { name: 'The simulated service' });
    await simulation.getByRole('button', { name: 'As at first' }).click();
    await page.getByRole('button', { name: 'Connect to the feed' }).click();
    for (const month of ['Nov 2026', 'Dec 2026', 'Jan 2027']) {
      await simulation.getByRole('button', { name: 'Close one more month' }).click();
      await page.getByRole('button', { name: 'Pull now' }).click();
      await expect(page.getByText(`closed through ${month}`)).toBeVisible();
      await expect(page.getByRole('button', { name: /checks (hold|fail)/ })).toContainText('checks hold');
    }
    // What closed under the revision is compared with it; October still with what was approved before it.
    await stage(page, 'Variance');
    await page.getByRole('button', { name: 'Jan 2027, closed' }).click();
    await expect(against('FY27 autumn revision')).toBeVisible();
    await page.getByRole('button', { name: 'Oct 2026, closed' }).click();
    await expect(against('FY27 budget')).toBeVisible();
    await stage(page, 'Cash');
    await expect(page.getByText(/at the bank on Jan 31, 2027 · FY27 autumn revision/)).toBeVisible();
  });
});
