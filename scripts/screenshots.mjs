import { chromium as playwright } from '@playwright/test';
import { chromium } from './chromium.mjs';

/* Takes the pictures in docs/screenshots from the demo book; `npm run demo` must be running, its address in APP. */
const app = process.env.APP ?? 'http://localhost:3210';
const browser = await playwright.launch({ executablePath: chromium(), args: ['--no-sandbox'] });
const shot = (page, name) => page.screenshot({ path: `docs/screenshots/${name}.png` });
const stage = async (page, name) => {
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();
  await page.waitForTimeout(1500);
};
for (const colorScheme of ['light', 'dark']) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme });
  const dark = colorScheme === 'dark';
  await page.goto(`${app}/books`);
  await page.getByTestId('saved').waitFor();
  await page.waitForTimeout(800);
  if (!dark) {
    await shot(page, 'ledger');
  }
  await stage(page, 'Budget');
  await page
    .getByRole('row', { name: /Repair and refit jobs/ })
    .locator('[data-column="8"]')
    .click();
  await page.waitForTimeout(300);
  await shot(page, dark ? 'worksheet-dark' : 'worksheet');
  if (!dark)
    for (const [view, name] of [
      ['First pass', 'first-pass'],
      ['Drivers', 'drivers'],
      ['Schedules', 'schedules'],
      ['Report', 'budget-report'],
    ]) {
      await page.getByRole('radiogroup', { name: 'View' }).getByText(view, { exact: true }).click();
      await page.waitForTimeout(600);
      await shot(page, name);
    }
  if (!dark) {
    await page.getByRole('radiogroup', { name: 'View' }).getByText('Handouts', { exact: true }).click();
    await page.getByRole('button', { name: 'Tom Arkle' }).click();
    await page.getByRole('button', { name: 'Compare' }).click();
    await page
      .getByRole('button', { name: /changed by both/ })
      .first()
      .click();
    await page.waitForTimeout(400);
    await shot(page, 'return');
    await page.getByRole('radiogroup', { name: 'View' }).getByText('Worksheet', { exact: true }).click();
  }
  await page.getByRole('button', { name: 'New budget' }).click();
  await page.waitForTimeout(300);
  await page.getByRole('button', { name: 'Back to the worksheet' }).click();
  await stage(page, 'Cash');
  await page.waitForTimeout(600);
  if (!dark) {
    await shot(page, 'cash');
    for (const [view, name] of [
      ['Open items', 'open-items'],
      ['Then and now', 'then-and-now'],
    ]) {
      await page.getByRole('radiogroup', { name: 'View' }).getByText(view, { exact: true }).click();
      await page.waitForTimeout(600);
      await page.waitForTimeout(300);
      await shot(page, name);
    }
    await page.getByRole('radiogroup', { name: 'View' }).getByText('At the bank', { exact: true }).click();
    await page.getByRole('button', { name: 'Ask the simulated bank' }).click();
    await page.getByRole('button', { name: 'Take it in' }).click();
    await page.waitForTimeout(900);
    await shot(page, 'at-the-bank');
    for (let n = 0; n < 2; n++) await page.keyboard.press('Control+z');
    await page.waitForTimeout(600);
  }
  if (!dark) {
    await stage(page, 'Statements');
    await page.getByRole('radiogroup', { name: 'View' }).getByText('Balance sheet', { exact: true }).click();
    await page
      .getByRole('row', { name: /Accounts receivable/ })
      .locator('[data-column="5"]')
      .click();
    await page.waitForTimeout(500);
    await shot(page, 'balance-sheet');
    await page
      .getByRole('radiogroup', { name: 'View' })
      .getByText('Working capital', { exact: true })
      .click();
    await page.waitForTimeout(1200);
    await shot(page, 'working-capital');
  }
  await stage(page, 'What-if');
  if (!dark) {
    await page.waitForTimeout(4000);
    await page.locator('#case-cell-1-3').click();
    await page.waitForTimeout(1500);
    await shot(page, 'whatif');
  }
  await stage(page, 'Variance');
  await page.getByRole('button', { name: 'Repair and refit jobs', exact: true }).first().click();
  await page.waitForTimeout(300);
  if (!dark) await shot(page, 'variance');
  if (!dark) {
    await page.getByRole('link', { name: 'Tellan' }).click();
    await page.waitForTimeout(1200);
    await shot(page, 'front');
  }
  if (!dark) {
    await page.getByRole('button', { name: /^Book:/ }).click();
    await page.getByRole('menuitem', { name: 'New book…' }).click();
    await page.getByLabel('Name of the company').fill('Tide Mill');
    await page.getByLabel('First month of the fiscal year').selectOption({ label: 'Jul' });
    await page.getByRole('button', { name: 'Make the book' }).click();
    await stage(page, 'Books');
    await page.getByLabel('Ledger file').setInputFiles('public/demo/pellow-creek-ledger-fy26.csv');
    await page.getByRole('button', { name: /^Accept/ }).waitFor();
    await page.waitForTimeout(400);
    await shot(page, 'intake');
    await page.getByRole('heading', { name: /^Proof/ }).evaluate((h) => h.scrollIntoView({ block: 'start' }));
    await page.waitForTimeout(300);
    await shot(page, 'intake-proof');
  }
  await page.close();
}
await browser.close();
