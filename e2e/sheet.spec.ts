import type { Page } from '@playwright/test';
import { cell, expect, openApp, stage, TALL, test } from './fixture';

test.use({ viewport: TALL });

test.use({ permissions: ['clipboard-read', 'clipboard-write'] });

async function worksheet(page: Page) {
  await openApp(page);
  await stage(page, 'Budget');
  await expect(page.getByRole('grid')).toBeVisible();
}

const paste = async (page: Page, text: string) => {
  await page.evaluate((t) => navigator.clipboard.writeText(t), text);
  await page.keyboard.press('Control+v');
};

test('typing over a method is marked, explained and restored', async ({ page }) => {
  await worksheet(page);
  const july = cell(page, 'Visitor moorings', 0);
  const before = await july.innerText();
  await july.click();
  await page.keyboard.type('5,000.50');
  await page.keyboard.press('Enter');
  await expect(july).toHaveText('5,001');
  await expect(july).toHaveAttribute('data-typed', 'true');
  await july.hover();
  await expect(july).toHaveAttribute('title', '5,000.50');
  await july.click();
  await expect(page.getByText(`Typed over ${before}.00`)).toBeVisible();
  await page.keyboard.press('Backspace');
  await expect(july).toHaveText(before);
  await page.keyboard.press('Delete');
  await expect(july).toHaveText('');
});

test('what cannot be read is refused in place; Escape leaves the cell as it was', async ({ page }) => {
  await worksheet(page);
  const july = cell(page, 'Visitor moorings', 0);
  const before = await july.innerText();
  await july.click();
  await page.keyboard.type('12x');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Not an amount' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(july).toHaveText(before);
  await july.click();
  await page.keyboard.type('+10%');
  await page.keyboard.press('Enter');
  await expect(july).toHaveText(Math.round(Number(before.replace(',', '')) * 1.1).toLocaleString('en-US'));
});

test('blocks go to and from spreadsheets: locale’s numbers, parentheses, currency signs', async ({
  page,
}) => {
  await worksheet(page);
  await cell(page, 'Fuel for launches', 0).click();
  await paste(page, '1,200.00\t$50\t(30)\r\n100\t\t-\r\n');
  // Waste falls to a hundredth: that is shown before it is taken.
  const dialog = page.getByRole('dialog', { name: 'Before it is pasted' });
  await expect(dialog.getByText('tenfold', { exact: true })).toBeVisible();
  await dialog.getByRole('button', { name: 'Paste' }).click();
  await expect(cell(page, 'Fuel for launches', 0)).toHaveText('1,200');
  await expect(cell(page, 'Fuel for launches', 1)).toHaveText('50');
  await expect(cell(page, 'Fuel for launches', 2)).toHaveText('(30)');
  await expect(cell(page, 'Waste and hull washings', 1)).toHaveText('');
  await expect(cell(page, 'Waste and hull washings', 2)).toHaveText('–');
  await cell(page, 'Fuel for launches', 0).click();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Control+c');
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('1200\t50\t-30');
  await paste(page, '1\toops\t3');
  await expect(page.getByText(/Nothing was pasted: row 1, column 2 of the block holds “oops”/)).toBeVisible();
  await expect(cell(page, 'Fuel for launches', 0)).toHaveText('1,200');
  await page.keyboard.press('Control+z');
  await expect(cell(page, 'Fuel for launches', 1)).not.toHaveText('50');
});

test('a quarter and a year are typed, and the months follow in proportion', async ({ page }) => {
  await worksheet(page);
  await page.getByText('Quarters', { exact: true }).click();
  await cell(page, 'Trade subscriptions', 0).click();
  await page.keyboard.type('900');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Trade subscriptions', 0)).toHaveText('900');
  await page.getByText('Months', { exact: true }).click();
  await expect(cell(page, 'Trade subscriptions', 0)).toHaveText('300');
  await cell(page, 'Trade subscriptions', 12).click();
  await page.keyboard.type('2400');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Trade subscriptions', 12)).toHaveText('2,400');
});

test('the method is changed in the panel, and net profit says by how much', async ({ page }) => {
  await worksheet(page);
  await cell(page, 'Security', 0).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await panel.getByRole('button', { name: 'Phased', exact: true }).click();
  await panel.getByRole('textbox', { name: 'FY27' }).fill('12000');
  await expect(panel.getByRole('group', { name: 'What it would come to' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Security', 0)).toHaveText('1,000');
  await expect(panel.getByText('Since you came to this line')).toBeVisible();
  await panel.getByRole('button', { name: 'Share', exact: true }).click();
  await panel.getByLabel('Percentage').fill('10');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Security', 0)).toHaveText('1,540');
  await panel.getByLabel('Note on the line').fill('New cameras');
  await cell(page, 'Cleaning', 0).click();
  await expect(
    page.getByRole('row', { name: /Security/ }).getByRole('img', { name: 'has a note' }),
  ).toBeVisible();
});

test('the keyboard reaches everything, and ? says how', async ({ page }) => {
  await worksheet(page);
  await page.getByRole('grid').focus();
  await page.keyboard.press('Control+End');
  await expect(
    page
      .getByRole('complementary', { name: 'Reasoning' })
      .getByRole('heading', { name: 'Income tax on trading' }),
  ).toBeVisible();
  await page.keyboard.press('Control+Home');
  await expect(page.getByRole('heading', { name: 'Berth fees, North Yard' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  // A menu that is loaded with its first press opens by it, takes the focus and gives it back.
  const book = page.getByRole('button', { name: /^Book:/ });
  await book.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menuitem', { name: 'New book…' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('menuitem', { name: 'New book…' })).toBeHidden();
  await expect(book).toBeFocused();
  await page.getByRole('button', { name: 'Oct 2026, closed' }).click();
  await expect(cell(page, 'Berth fees, North Yard', 3)).toHaveAttribute('id', /-active$/);
});

test('a sheet in thousands says so, and takes what is typed in thousands', async ({ page }) => {
  await openApp(page, '/budget');
  const figures = page.getByRole('button', { name: 'How figures are written' });
  await figures.click();
  await page.getByText('Thousands', { exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('columnheader', { name: 'Account in thousands of USD' })).toBeVisible();
  await expect(page.getByText('in thousands of USD ·')).toBeVisible();
  const at = cell(page, 'Repair and refit jobs', 6);
  await at.click();
  await page.keyboard.type('31.5');
  await page.keyboard.press('Enter');
  await expect(at).toHaveText('31.5');
  await at.dblclick();
  await expect(page.getByRole('textbox', { name: /Repair and refit jobs/ })).toHaveValue('31.5');
  await page.keyboard.press('Escape');
  await stage(page, 'Variance');
  await expect(page.getByText('in thousands of USD').first()).toBeVisible();
  await figures.click();
  await page.getByText('Whole', { exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('in thousands of USD')).toHaveCount(0);
  await stage(page, 'Budget');
  await expect(cell(page, 'Repair and refit jobs', 6)).toHaveText('31,500');
});
