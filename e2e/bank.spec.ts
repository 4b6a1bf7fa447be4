import type { Page } from '@playwright/test';
import { expect, openApp, saved, stage, test } from './fixture';

const view = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'View' }).getByText(name, { exact: true }).click();
const foot = (page: Page) => page.getByRole('contentinfo');
const heading = (page: Page) => page.getByText(/at the bank on/).first();

test('nine days after the closed month: the bank is asked, what moved is told, and weeks begin on the day after', async ({
  page,
}) => {
  await openApp(page);
  await stage(page, 'Cash');
  await expect(heading(page)).toContainText('from 117,537 at the bank on Oct 31, 2026');
  await view(page, 'At the bank');
  await page.getByRole('button', { name: 'Ask the simulated bank' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('18 movements from Nov 1, 2026 to Nov 9, 2026');
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  await expect(heading(page)).toContainText('from 96,548 at the bank on Nov 9, 2026');

  const moved = page.getByRole('region', { name: 'Movements' });
  await expect(moved.getByRole('row', { name: /Hoist loan payment/ })).toContainText('Boat hoist loan');
  await expect(moved.getByRole('row', { name: /Cleanhull Waste/ })).toContainText('in the ledger on Oct 26');

  // Someone knows better: the loan's payment is nothing that was planned, so that the planned one is still to come.
  const loan = page.getByRole('button', { name: 'Say what First Estuary Bank of Nov 3, 2026 is' });
  await loan.click();
  await page.getByRole('dialog').getByRole('button', { name: 'Nothing that is planned' }).click();
  await expect(moved.getByRole('row', { name: /Hoist loan payment/ })).toContainText(
    'nothing planned, as said',
  );
  await page.getByText(/^Has not moved/).click();
  await expect(page.getByRole('region', { name: 'Has not moved' })).toContainText('Boat hoist loan');
  await page.getByText(/^Moved \(/).click();
  await loan.click();
  await page.getByRole('dialog').getByLabel('Find what it is').fill('hoist');
  await page.getByRole('button', { name: 'It is Boat hoist loan of Nov 3, 2026' }).click();
  await expect(moved.getByRole('row', { name: /Hoist loan payment/ })).toContainText('Boat hoist loan');

  // What the ledger has and the bank had not cleared.
  await page
    .getByText(/^Not cleared/)
    .first()
    .click();
  await expect(page.getByRole('region', { name: 'Not cleared' })).toContainText('cleared on Nov 2, 2026');

  // Thirteen whole weeks from the day after; the low point is ahead.
  await view(page, 'Ahead');
  await page.getByText('Weeks', { exact: true }).click();
  const heads = page.getByRole('columnheader');
  await expect(heads.filter({ hasText: 'Nov 10' })).toBeVisible();
  await expect(heads.filter({ hasText: 'Nov 17' })).toBeVisible();
  await expect(heads.filter({ hasText: 'Feb 2' })).toBeVisible();

  // It is kept, and both statements can be taken back.
  await saved(page);
  await page.reload();
  await expect(heading(page)).toContainText('from 96,548 at the bank on Nov 9, 2026');
  await view(page, 'At the bank');
  for (let n = 0; n < 2; n++)
    await page
      .getByRole('button', { name: /^Take back the statement simulated bank/ })
      .first()
      .click();
  await expect(heading(page)).toContainText('from 117,537 at the bank on Oct 31, 2026');
});

test('a balance is typed, a list of movements taken in, and what cannot be read changes nothing', async ({
  page,
}) => {
  await openApp(page);
  await stage(page, 'Cash');
  await view(page, 'At the bank');
  const amount = page.getByLabel('Operating bank account: at the bank');
  await amount.fill('90000');
  await amount.press('Enter');
  const day = page.getByLabel('Operating bank account: day of the balance');
  await day.fill('2026-11-12');
  await day.press('Enter');
  // The savings stand as the ledger has them.
  await expect(heading(page)).toContainText('at the bank on Nov 12, 2026');
  await expect(page.getByRole('table', { name: 'Banks' })).toContainText('its balance alone');

  // An older day says nothing of days ahead, and is no longer used.
  await day.fill('2026-10-15');
  await day.press('Enter');
  await expect(heading(page)).toContainText('from 117,537 at the bank on Oct 31, 2026');
  await expect(page.getByRole('table', { name: 'Banks' })).toContainText('not used any more');
  await foot(page)
    .getByRole('button', { name: /checks/ })
    .click();
  await expect(page.getByText('not after the closed day', { exact: false })).toBeVisible();
  await page.keyboard.press('Escape');
  await amount.fill('');
  await amount.press('Enter');

  const file = page.getByLabel('File of a bank');
  const list = (text: string, name = 'movements.csv') => ({
    name,
    mimeType: 'text/csv',
    buffer: Buffer.from(text),
  });
  await file.setInputFiles(
    list('Date,Details,Amount\n11/03/2026,Harbor Cafe,-55.20\n11/40/2026,Broken,-1.00\n'),
  );
  const dialog = page.getByRole('dialog', { name: 'movements.csv' });
  await expect(dialog).toContainText('It cannot be taken in');
  await expect(dialog).toContainText('3: the day is missing or cannot be read (“11/40/2026”)');
  await expect(dialog.getByRole('button', { name: 'Take it in' })).toBeDisabled();
  await dialog.getByRole('button', { name: 'Leave it out' }).click();

  await file.setInputFiles(
    list('Date,Details,Amount\n11/01/2026,Harbor Cafe,-55.20\n11/05/2026,Refund,20.00\n'),
  );
  await expect(dialog).toContainText('2 movements from Nov 1, 2026 to Nov 5, 2026');
  await dialog.getByLabel('It is of').selectOption({ label: 'Operating bank account' });
  await dialog.getByLabel('Held then').fill('100123.00');
  await dialog.getByLabel('Held then').press('Enter');
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  await expect(heading(page)).toContainText('at the bank on Nov 5, 2026');
  await expect(page.getByRole('region', { name: 'Movements' })).toContainText('Harbor Cafe');

  // The same list again is known as the same.
  await file.setInputFiles(
    list('Date,Details,Amount\n11/01/2026,Harbor Cafe,-55.20\n11/05/2026,Refund,20.00\n'),
  );
  await expect(dialog).toContainText('2 of them are in the book already');
  await dialog.getByRole('button', { name: 'Leave it out' }).click();

  await file.setInputFiles({
    name: 'odd.xml',
    mimeType: 'text/xml',
    buffer: Buffer.from('<?xml version="1.0"?><a><b/></a>'),
  });
  await expect(foot(page)).toContainText('odd.xml holds no bank statements');
});

test('a bank with a floor of its own: what would mend it is planned, and what would lift the low point is told', async ({
  page,
}) => {
  await openApp(page);
  await stage(page, 'Cash');
  const panel = page.getByRole('complementary', { name: 'Causes' });
  await expect(panel).toContainText(/4,289 more from .* until .* would keep the floor of 30,000/);
  await expect(panel).toContainText(/Heron Charter Line.*the low point would be .*the floor would be kept/);

  await view(page, 'Bank and floor');
  const floor = page.getByLabel('Operating bank account: its own floor');
  await floor.fill('20000');
  await floor.press('Enter');
  const row = page.getByRole('table', { name: 'Floors of accounts' }).getByRole('row', { name: /Operating/ });
  await expect(row).toContainText('under its floor from');
  await expect(row).toContainText('from Reserve savings account on');
  await expect(foot(page)).toContainText('floor of a bank broken');
  await row.getByRole('button', { name: 'Plan it' }).click();
  await expect(row).not.toContainText('under its floor');
  await expect(foot(page)).not.toContainText('floor of a bank broken');
  await view(page, 'Dated items');
  await expect(
    page.getByRole('button', { name: 'From Reserve savings account to Operating bank account' }),
  ).toBeVisible();
});
