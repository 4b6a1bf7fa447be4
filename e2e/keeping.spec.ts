import { readFile } from 'node:fs/promises';
import { cell, expect, newBook, openApp, saved, stage, TALL, test } from './fixture';

test.use({ viewport: TALL });

test('a tab killed right after typing opens at the last or the one-before-last state', async ({
  page,
  context,
}) => {
  await openApp(page);
  await stage(page, 'Budget');
  const type = async (figure: string) => {
    await cell(page, 'Cleaning', 0).click();
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter');
  };
  await type('1111');
  await saved(page);
  await type('2222');
  // No time for anything: the renderer is gone.
  const session = await context.newCDPSession(page);
  const crashed = page.waitForEvent('crash');
  void session.send('Page.crash').catch(() => undefined);
  await crashed;
  const again = await context.newPage();
  await openApp(again, '/budget');
  await expect(cell(again, 'Cleaning', 0)).toHaveText(/^(1,111|2,222)$/);
  await expect(again.getByRole('button', { name: /checks hold/ })).toBeVisible();
});

test('what was changed is on disk within a second', async ({ page, context }) => {
  await openApp(page);
  await stage(page, 'Budget');
  await cell(page, 'Cleaning', 0).click();
  await page.keyboard.type('777');
  await page.keyboard.press('Enter');
  await page.waitForTimeout(1000);
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await openApp(again, '/budget');
  await expect(cell(again, 'Cleaning', 0)).toHaveText('777');
  await again.getByRole('button', { name: 'Undo' }).click();
  await expect(cell(again, 'Cleaning', 0)).not.toHaveText('777');
});

test('a second tab is told, reads, follows, and takes over', async ({ page, context }) => {
  await openApp(page);
  await stage(page, 'Budget');
  const second = await context.newPage();
  await openApp(second, '/budget');
  await expect(second.getByText('This book is open in another tab')).toBeVisible();
  await cell(second, 'Cleaning', 0).click();
  await second.keyboard.type('9');
  await expect(second.getByText('This book is being worked on in another tab.')).toBeVisible();
  await cell(page, 'Cleaning', 0).click();
  await page.keyboard.type('555');
  await page.keyboard.press('Enter');
  await expect(cell(second, 'Cleaning', 0)).toHaveText('555');
  await second.getByRole('button', { name: 'Work on it here' }).click();
  await expect(page.getByText('This book is open in another tab')).toBeVisible();
  await cell(second, 'Cleaning', 0).click();
  await second.keyboard.type('666');
  await second.keyboard.press('Enter');
  await expect(cell(page, 'Cleaning', 0)).toHaveText('666');
});

test('a full storage is said at once, with the book offered as a file', async ({ page }) => {
  await openApp(page);
  await stage(page, 'Budget');
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    };
  });
  await cell(page, 'Cleaning', 0).click();
  await page.keyboard.type('888');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Not saved' })).toContainText('quota');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the book as a file' }).click();
  const file = JSON.parse(await readFile(await (await download).path(), 'utf8'));
  expect(
    file.book.budgets[1].lines.find(
      (l: { account: string }) =>
        l.account === file.book.accounts.find((a: { name: string }) => a.name === 'Cleaning').id,
    ).overrides,
  ).toEqual({ '2027-01': 88800 });
});

test('a book goes out as a file and comes back the same; books are renamed, duplicated and deleted by name', async ({
  page,
}, info) => {
  await openApp(page);
  const menu = () => page.getByRole('button', { name: /^Book:/ }).click();
  await newBook(page, 'Second');
  await menu();
  await page.getByRole('menuitem', { name: /^Pellow Creek/ }).click();
  await expect(page.getByRole('button', { name: /^Book: Pellow/ })).toBeVisible();
  await menu();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Save the book as a file' }).click();
  const path = info.outputPath('pellow.tellan.json');
  await (await download).saveAs(path);

  await menu();
  await page.getByRole('menuitem', { name: 'Delete…' }).click();
  await expect(page.getByRole('button', { name: 'Delete', exact: true })).toBeDisabled();
  await page.getByLabel(/Type the name/).fill('Pellow Creek Boatyard Co-op');
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Book: Second' })).toBeVisible();

  await page.getByLabel('Book file').setInputFiles(path);
  await expect(page.getByRole('button', { name: /^Book: Pellow/ })).toBeVisible();
  await saved(page);
  await menu();
  const again = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Save the book as a file' }).click();
  expect(await readFile(await (await again).path(), 'utf8')).toBe(await readFile(path, 'utf8'));

  await page.getByLabel('Book file').setInputFiles({
    name: 'x.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"tellan.file"'),
  });
  await expect(page.getByText(/x\.json was not opened: it is not JSON text/)).toBeVisible();
  await menu();
  await page.getByRole('menuitem', { name: 'Duplicate…' }).click();
  await page.getByRole('button', { name: 'Duplicate', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Book: Pellow Creek Boatyard Co-op, copy' })).toBeVisible();
  await menu();
  await page.getByRole('menuitem', { name: 'Rename…' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Copy');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Book: Copy' })).toBeVisible();
});
