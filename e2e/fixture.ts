import { test as base, expect, type Page } from '@playwright/test';

/** Every browser test fails on a request that leaves this machine and on any console error. */
export const test = base.extend<{ guarded: void; allowedErrors: RegExp[] }>({
  allowedErrors: [[], { option: true }],
  guarded: [
    async ({ context, allowedErrors }, use) => {
      const trouble: string[] = [];
      context.on('request', (r) => {
        const { hostname, protocol } = new URL(r.url());
        if (protocol.startsWith('http') && !['localhost', '127.0.0.1'].includes(hostname))
          trouble.push(`request to ${r.url()}`);
      });
      context.on('console', (m) => {
        if (m.type() === 'error' && !allowedErrors.some((a) => a.test(m.text())))
          trouble.push(`console: ${m.text()}`);
      });
      context.on('weberror', (e) => trouble.push(`page error: ${e.error().message}`));
      await use();
      expect(trouble).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** Opens the app and waits until a book is there. */
export async function openApp(page: Page, path = '/books'): Promise<void> {
  await page.goto(path);
  await expect(page.getByTestId('saved')).toBeVisible();
}

export async function newBook(
  page: Page,
  name: string,
  options: { currency?: string; locale?: string; firstMonth?: string } = {},
): Promise<void> {
  await page.getByRole('button', { name: /^Book:/ }).click();
  await page.getByRole('menuitem', { name: 'New book…' }).click();
  await page.getByLabel('Name of the company').fill(name);
  if (options.currency) await page.getByLabel('Currency').fill(options.currency);
  if (options.locale) await page.getByLabel('Numbers are written').selectOption(options.locale);
  if (options.firstMonth)
    await page.getByLabel('First month of the fiscal year').selectOption({ label: options.firstMonth });
  await page.getByRole('button', { name: 'Make the book' }).click();
  await expect(page.getByRole('button', { name: `Book: ${name}` })).toBeVisible();
}

export type Upload = string | { readonly name: string; readonly text: string };

/** Chooses a ledger file and waits for its proof. */
export async function chooseFile(page: Page, file: Upload): Promise<void> {
  await page
    .getByLabel('Ledger file')
    .setInputFiles(
      typeof file === 'string'
        ? file
        : { name: file.name, mimeType: 'text/csv', buffer: Buffer.from(file.text) },
    );
}

export async function takeIn(page: Page, file: Upload): Promise<void> {
  await chooseFile(page, file);
  await expect(page.getByRole('heading', { name: /Proof/ })).toContainText('everything ties');
  const accept = page.getByRole('button', { name: /^Accept (?!all guesses)/ });
  await accept.click();
  // What is unsure is asked about once.
  const asked = page.getByText(/Press again to take it in/);
  const done = page.getByText(/taken in\. Ctrl\+Z/);
  await expect(asked.or(done)).toBeVisible();
  if (await asked.isVisible()) await accept.click();
  await expect(done).toBeVisible();
}

export async function stage(
  page: Page,
  name: 'Books' | 'Budget' | 'Cash' | 'Statements' | 'What-if' | 'Variance',
): Promise<void> {
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();
  await expect(page).toHaveTitle(`${name} · Tellan`);
}

/** Tall enough for every line of the demo book: the sheet draws only the lines in sight. */
export const TALL = { width: 1280, height: 2200 };

/** The cell of a line and column in the sheet. */
export const cell = (page: Page, line: string, column: number) =>
  page.getByRole('row', { name: new RegExp(`^(\\d+ ?)?${line}`) }).locator(`[data-column="${column}"]`);

/** A line of the variance report, and one of its figures. */
export const reportRow = (page: Page, line: string) =>
  page
    .getByRole('grid', { name: 'Variance report' })
    .getByRole('row', { name: new RegExp(`^(flagged )?${line}`) });
export const figure = (page: Page, line: string, column: number) =>
  reportRow(page, line).locator(`[data-column="${column}"]`);

/** Waits until the last change is on disk. */
export const saved = (page: Page) => expect(page.getByTestId('saved')).toBeVisible();
