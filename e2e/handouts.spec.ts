import { readFile } from 'node:fs/promises';
import ExcelJS, { type Worksheet } from 'exceljs';
import type { Page } from '@playwright/test';
import { cell, expect, openApp, saved, test } from './fixture';

/* A round with three people: one answers, one answers what was changed meanwhile, one is late. */

const view = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'View' }).getByText(name, { exact: true }).click();
const table = (page: Page) => page.getByRole('region', { name: 'Handouts of the round' });

async function addSomeone(page: Page, name: string, from: string, through: string): Promise<void> {
  await page.getByRole('button', { name: 'Add someone' }).click();
  await page.getByRole('textbox', { name: 'For', exact: true }).fill(name);
  await page.getByLabel('Codes from').fill(from);
  await page.getByLabel('through').fill(through);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
}

/** The file of someone, as it comes into the downloads. */
async function fileOf(page: Page, name: string): Promise<ExcelJS.Workbook> {
  await table(page).getByRole('button', { name, exact: true }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Make the file' }).click(),
  ]);
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load((await readFile(await download.path())) as unknown as ArrayBuffer);
  return workbook;
}

const rowOf = (sheet: Worksheet, text: string): number => {
  for (let r = 1; r <= sheet.rowCount; r++)
    for (let c = 1; c <= 4; c++) if (sheet.getCell(r, c).value === text) return r;
  throw new Error(text);
};
const columnOf = (sheet: Worksheet, head: string): number => {
  for (let c = 1; c <= sheet.columnCount; c++) if (sheet.getCell(4, c).value === head) return c;
  throw new Error(head);
};
const bytesOf = async (name: string, workbook: ExcelJS.Workbook) => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.from(await workbook.xlsx.writeBuffer()),
});

test('lines are handed to three people; what comes back is compared, settled and merged as one change', async ({
  page,
}) => {
  await openApp(page, '/budget?view=handouts');
  await page.getByRole('button', { name: 'New round' }).click();
  await page.getByLabel('Name').fill('Winter round');
  await page.getByLabel('Who asks').fill('Ines');
  await page.getByLabel('Due').fill('2026-11-01');
  await page.getByRole('button', { name: 'Start the round' }).click();
  await addSomeone(page, 'North Yard', '4100', '4100');
  await addSomeone(page, 'Workshop', '4100', '4120');
  await addSomeone(page, 'Shop', '4200', '4210');
  const [yard, workshop] = [await fileOf(page, 'North Yard'), await fileOf(page, 'Workshop')];
  await fileOf(page, 'Shop');
  await expect(table(page).getByRole('row', { name: /Shop/ })).toContainText('late');
  for (const [workbook, value] of [
    [yard, 41_000],
    [workshop, 42_000],
  ] as const) {
    const sheet = workbook.getWorksheet('Please fill')!;
    sheet.getCell(rowOf(sheet, 'Repair and refit jobs'), columnOf(sheet, 'Dec 2026')).value = value;
  }
  const sheet = workshop.getWorksheet('Please fill')!;
  sheet.getCell(rowOf(sheet, 'Rigging and sail repair'), columnOf(sheet, 'Nov 2026')).value = 'ask Tom';
  sheet.getCell(rowOf(sheet, 'Rigging and sail repair'), columnOf(sheet, 'Comment')).value =
    'Two masts ordered';
  // A figure and a comment on one line go in together.
  sheet.getCell(rowOf(sheet, 'Repair and refit jobs'), columnOf(sheet, 'Comment')).value = 'Two refits more';
  const own = rowOf(sheet, 'Total income') + 1;
  sheet.getCell(own, 3).value = 'Mast storage';
  sheet.getCell(own, columnOf(sheet, 'Dec 2026')).value = 90;
  await page
    .getByLabel('Returned files')
    .setInputFiles([await bytesOf('yard.xlsx', yard), await bytesOf('workshop (1).xlsx', workshop)]);
  await expect(table(page).getByRole('row', { name: /North Yard/ })).toContainText('returned');
  await expect(table(page).getByRole('row', { name: /Workshop/ })).toContainText('returned');
  // The same answer again, in another file, says so.
  await page.getByLabel('Returned files').setInputFiles([await bytesOf('yard.xlsx', yard)]);
  await expect(page.getByRole('contentinfo')).toContainText('yard.xlsx of North Yard said already');

  await table(page).getByRole('button', { name: 'North Yard' }).click();
  await page.getByRole('button', { name: 'Compare' }).first().click();
  const panel = page.getByRole('complementary', { name: 'What goes in' });
  await expect(panel).toContainText('Goes in: 1 figure');
  await panel.getByRole('button', { name: 'Put it into the budget' }).click();
  await expect(page.getByRole('contentinfo')).toContainText('1 figure of North Yard’s return');
  await expect(table(page).getByRole('row', { name: /North Yard/ })).toContainText('merged');

  // The workshop was handed what stood before: nobody wins silently.
  await table(page).getByRole('button', { name: 'Workshop' }).click();
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(panel).toContainText('Changed by both, not settled');
  await expect(panel.getByRole('button', { name: 'Put it into the budget' })).toBeDisabled();
  const both = page.getByRole('button', { name: /Repair and refit jobs, Dec: changed by both, 42,000/ });
  await both.click();
  await expect(panel.getByRole('button', { name: /Theirs/ }).first()).toContainText('42,000');
  await expect(panel.getByRole('button', { name: /The draft now/ })).toContainText('41,000');
  await panel.getByRole('button', { name: /^Theirs/ }).click();
  await page.getByRole('button', { name: /Nov: no amount, ask Tom/ }).click();
  await expect(panel).toContainText('words where an amount belongs');
  await page.getByLabel('What Mast storage becomes').selectOption('A new account of income');
  await panel.getByRole('button', { name: 'Put it into the budget' }).click();
  await expect(table(page).getByRole('row', { name: /Workshop/ })).toContainText('merged');
  await saved(page);
  await page.reload();
  await view(page, 'Worksheet');
  await expect(cell(page, 'Repair and refit jobs', 5)).toHaveText('42,000');
  await expect(page.getByRole('row', { name: /Mast storage/ })).toBeVisible();
  await cell(page, 'Rigging and sail repair', 4).click();
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toContainText('Two masts ordered');
  await cell(page, 'Repair and refit jobs', 5).click();
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toContainText('Two refits more');
  await view(page, 'History');
  await expect(page.getByText(/Merged “Workshop’s return of/).first()).toBeVisible();
  // One change, one undo.
  await page.keyboard.press('Control+z');
  await view(page, 'Worksheet');
  await expect(cell(page, 'Repair and refit jobs', 5)).toHaveText('41,000');
  await expect(page.getByRole('row', { name: /Mast storage/ })).toHaveCount(0);
});

test('all at once with messages and the due day; bad files are refused in words; nothing is lost', async ({
  page,
}) => {
  await openApp(page, '/budget?view=handouts');
  await page.getByLabel('with a message each').check();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Hand out 3' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/\.zip$/);
  await expect(page.getByRole('contentinfo')).toContainText('3 workbooks with a message each');
  const names = (await readFile(await download.path())).toString('latin1');
  for (const name of ['Tom Arkle.xlsx', 'Tom Arkle.eml', 'Ivo Lund.xlsx', 'due.ics'])
    expect(names).toContain(name);

  const strip = page.getByRole('contentinfo');
  const drop = (name: string, text: string) =>
    page
      .getByLabel('Returned files')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text, 'latin1') });
  await drop('photo.xlsx', 'PK\x03\x04 not really');
  await expect(strip).toContainText('photo.xlsx: it looks like a workbook but cannot be opened');
  await drop('other.csv', 'tellan sheet otherBook u1 h1 abc,Jan\nx,1\n');
  await expect(strip).toContainText('other.csv was handed out from another book');
  await drop('nothing.csv', 'a,b\nc,d\n');
  await expect(strip).toContainText('no line and month of it is known');
  // A table of someone’s own is read by its names and months.
  await drop('own.csv', 'What,Nov 2026,Dec 2026\nChandlery sales North Yard,3500,4100\n');
  await expect(strip).toContainText('1 of 3 lines of Ivo Lund, known by their names alone');
  await expect(table(page).getByRole('row', { name: /Ivo Lund/ })).toContainText('returned in part');
  await page.keyboard.press('Control+z');
  await expect(table(page).getByRole('row', { name: /Ivo Lund/ })).toContainText('late');

  // Numbers that can be read two ways are asked about; left out is left out.
  await drop('two ways.csv', 'What;Nov 2026;Dec 2026\nChandlery sales North Yard;1.200;3.000\n');
  const dialog = page.getByRole('dialog', { name: 'two ways.csv' });
  await expect(dialog).toContainText('2 numbers in it can be read two ways');
  await expect(dialog.getByRole('button', { name: '1.20', exact: true })).toBeVisible();
  await dialog.getByRole('button', { name: 'Leave the file out' }).click();
  await expect(strip).toContainText('two ways.csv was left out');
  await drop('two ways.csv', 'What;Nov 2026;Dec 2026\nChandlery sales North Yard;1.200;3.000\n');
  await dialog.getByRole('button', { name: '1,200.00' }).click();
  await expect(strip).toContainText('1 of 3 lines of Ivo Lund');
  await table(page).getByRole('button', { name: 'Ivo Lund' }).click();
  await page.getByRole('button', { name: 'Compare' }).first().click();
  await expect(page.getByRole('region', { name: 'Return of Ivo Lund' })).toContainText('1,200');
});

test('the demo’s waiting return is settled and merged', async ({ page }) => {
  await openApp(page, '/budget?view=handouts');
  await table(page).getByRole('button', { name: 'Tom Arkle' }).click();
  await page.getByRole('button', { name: 'Compare' }).first().click();
  const panel = page.getByRole('complementary', { name: 'What goes in' });
  await page
    .getByRole('button', { name: /changed by both/ })
    .first()
    .click();
  await panel.getByRole('button', { name: /^Theirs/ }).click();
  await panel.getByRole('button', { name: 'Put it into the budget' }).click();
  await expect(table(page).getByRole('row', { name: /Tom Arkle/ })).toContainText('merged');
  await view(page, 'Worksheet');
  await cell(page, 'Repair and refit jobs', 5).click();
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toContainText(
    'The Halloran refit is signed',
  );
});

test('the whole budget goes out and comes back; a table made elsewhere is read against all lines', async ({
  page,
}) => {
  await openApp(page, '/budget?view=handouts');
  await page.getByRole('button', { name: 'The whole budget' }).click();
  await expect(page.getByRole('heading', { name: 'Myself' })).toBeVisible();
  const workbook = await fileOf(page, 'Myself');
  const sheet = workbook.getWorksheet('Please fill')!;
  sheet.getCell(rowOf(sheet, 'Office wages'), columnOf(sheet, 'Jan 2027')).value = 9_000;
  await page.getByLabel('Returned files').setInputFiles([await bytesOf('mine.xlsx', workbook)]);
  await page.getByRole('button', { name: 'Compare' }).click();
  const panel = page.getByRole('complementary', { name: 'What goes in' });
  await expect(panel).toContainText('Goes in: 1 figure');
  await page.getByLabel('Only what differs').click();
  await expect(page.getByRole('region', { name: 'Return of Myself' }).getByRole('row')).toHaveCount(2);
  await page.getByRole('button', { name: 'Back to the round' }).click();

  const table =
    'Account;November 2026;Dec 2026;Jan 2028\n4100 Repair and refit jobs;30.000,50;31.000;1\nNew pontoon;5;5;5\n';
  await page
    .getByLabel('A table of the budget')
    .setInputFiles({ name: 'board.csv', mimeType: 'text/csv', buffer: Buffer.from(table) });
  await expect(page.getByRole('contentinfo')).toContainText(
    /board.csv: 1 of \d+ lines of FY27 autumn revision/,
  );
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(panel).toContainText('Goes in: 2 figures');
  await expect(panel).toContainText('61,000.50');
  await expect(panel).toContainText('“Jan 2028” is none of the months');
  await expect(page.getByLabel('What New pontoon becomes')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Round', { exact: true })).not.toContainText('board.csv');
});

test('a new budget begins with a table of years made elsewhere', async ({ page }) => {
  await openApp(page, '/budget');
  await page.getByRole('button', { name: 'New budget' }).click();
  await page.getByRole('button', { name: 'Start, and take in a table' }).click();
  await expect(page.getByText('Start a round for FY28 budget')).toBeVisible();
  await page.getByLabel('A table of the budget').setInputFiles({
    name: 'board.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Account,FY27,FY28\nRepair and refit jobs,1,"480,000"\n6100 Slipway lease,1,24000\n'),
  });
  await page.getByRole('dialog').getByRole('button', { name: '480,000.00' }).click();
  await expect(page.getByRole('contentinfo')).toContainText(/board.csv: [12] of \d+ lines of FY28 budget/);
  await page.getByRole('button', { name: 'Compare' }).click();
  const panel = page.getByRole('complementary', { name: 'What goes in' });
  await expect(panel).toContainText('504,000.00');
  await panel.getByRole('button', { name: 'Put it into the budget' }).click();
  await view(page, 'Worksheet');
  await expect(page.getByRole('row', { name: /Repair and refit jobs/ })).toContainText('480,000');
});
