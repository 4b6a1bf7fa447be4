import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { chooseFile, expect, newBook, openApp, stage, test } from './fixture';

const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** WCAG 2.2 A and AA rules of axe-core; nothing serious or critical may be found. */
async function scan(page: Page, what: string, contrastOnly = false) {
  await page.waitForTimeout(200);
  // The app has no frames: without the gathering of frames' results axe takes a third of the time.
  const { violations } = await new AxeBuilder({ page })
    .options({ resultTypes: ['violations'], runOnly: contrastOnly ? ['color-contrast'] : WCAG })
    .setLegacyMode()
    .analyze();
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(
    serious.map(
      (v) =>
        `${what}: ${v.id}: ${v.nodes
          .slice(0, 3)
          .map((n) => `${n.target.join(' ')} ${n.failureSummary?.split('\n')[1] ?? ''}`)
          .join(' | ')}`,
    ),
  ).toEqual([]);
}

for (const colorScheme of ['light', 'dark'] as const)
  test(`every screen, ${colorScheme}`, async ({ page }) => {
    test.setTimeout(600_000);
    // The dark scheme is the same page in other colors: what it may break is contrast.
    const look = (p: Page, what: string) => scan(p, what, colorScheme === 'dark');
    await page.emulateMedia({ colorScheme });
    await openApp(page);
    await look(page, 'ledger');
    for (const view of ['Trial', 'Accounts', 'Segments', 'Sources', 'Feed', 'Calendar', 'Journal']) {
      await page
        .getByRole('radiogroup', { name: 'View' })
        .getByText(new RegExp(`^${view}`))
        .click();
      await look(page, view);
    }
    await stage(page, 'Budget');
    await expect(page.getByRole('grid')).toBeVisible();
    await look(page, 'worksheet');
    for (const view of [
      'First pass',
      'Drivers',
      'Schedules',
      'Report',
      'Side by side',
      'History',
      'Worksheet',
    ]) {
      await page.getByRole('radiogroup', { name: 'View' }).getByText(view, { exact: true }).click();
      await page.waitForTimeout(400);
      await look(page, view);
    }
    await page.getByRole('radiogroup', { name: 'View' }).getByText('Schedules', { exact: true }).click();
    for (const kind of [/^Loans/, /^Assets/, /^Income tax/, /^Equity/]) {
      await page.getByRole('radiogroup', { name: 'Schedule' }).getByText(kind).click();
      await page.waitForTimeout(300);
      await look(page, `schedule ${kind.source}`);
    }
    await page.getByRole('radiogroup', { name: 'View' }).getByText('Handouts', { exact: true }).click();
    await page.getByRole('button', { name: 'Tom Arkle' }).click();
    await look(page, 'handouts');
    await page.getByRole('button', { name: 'Compare' }).click();
    await page
      .getByRole('button', { name: /changed by both/ })
      .first()
      .click();
    await look(page, 'a return');
    await page.getByRole('button', { name: 'Back to the round' }).click();
    await page.getByRole('button', { name: 'Add someone' }).click();
    await look(page, 'handing lines to someone');
    await page.getByRole('button', { name: 'New round' }).click();
    await look(page, 'a new round');
    await page.getByRole('button', { name: 'New budget' }).click();
    await look(page, 'starting a budget');
    await page.getByRole('button', { name: 'Back to the worksheet' }).click();
    await stage(page, 'Cash');
    await expect(page.getByRole('grid')).toBeVisible();
    await look(page, 'cash ahead');
    for (const view of ['Open items', 'Terms', 'Dated items', 'Taxes', 'Bank and floor', 'Then and now']) {
      await page.getByRole('radiogroup', { name: 'View' }).getByText(view, { exact: true }).click();
      await page.waitForTimeout(400);
      await look(page, view);
    }
    await stage(page, 'Statements');
    await expect(page.getByRole('grid')).toBeVisible();
    await look(page, 'statements');
    for (const view of ['Balance sheet', 'Cash flow', 'From profit to cash', 'Working capital', 'Ratios']) {
      await page.getByRole('radiogroup', { name: 'View' }).getByText(view, { exact: true }).click();
      await page.waitForTimeout(600);
      await look(page, view);
    }
    await stage(page, 'What-if');
    await page.locator('#case-cell-1-3').click();
    await expect(page.getByRole('region', { name: 'What it does alone' })).toContainText('U');
    await look(page, 'cases');
    await page.getByRole('button', { name: 'Change…' }).click();
    await look(page, 'an adjustment');
    await page.getByRole('button', { name: 'Leave it' }).click();
    await page.getByText('Step by step', { exact: true }).click();
    await expect(page.getByRole('row', { name: /^From the plan to Worse/ })).toBeVisible();
    await look(page, 'step by step');
    await stage(page, 'Variance');
    await page.getByRole('button', { name: 'Repair and refit jobs', exact: true }).first().click();
    await look(page, 'variance');
    await page.getByRole('button', { name: 'Oct 2026 Actual: change the column', exact: true }).click();
    await expect(page.getByLabel('Shows', { exact: true })).toBeVisible();
    await look(page, 'a column’s head');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Layout:/ }).click();
    await look(page, 'layouts');
    await page.keyboard.press('Escape');
    await page.getByLabel('Picture', { exact: true }).selectOption('lines');
    await page.waitForTimeout(600);
    await look(page, 'pictures');
    await page.getByRole('link', { name: 'Tellan' }).click();
    await expect(page.getByText(/made a loss of/)).toBeVisible();
    await page.waitForTimeout(600);
    await look(page, 'front page');
    await stage(page, 'Variance');
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog')).toBeVisible();
    await look(page, 'keys');
    await page.keyboard.press('Escape');
    await newBook(page, 'Empty');
    await stage(page, 'Budget');
    await look(page, 'no ledger');
    await stage(page, 'Books');
    await look(page, 'first steps');
    await chooseFile(page, 'public/demo/pellow-creek-ledger-fy26.csv');
    await expect(page.getByRole('heading', { name: /Proof/ })).toBeVisible();
    await look(page, 'intake');
  });

test('no screen breaks at 900 pixels: nothing of the page is wider than the window', async ({ page }) => {
  await page.setViewportSize({ width: 900, height: 800 });
  await openApp(page);
  for (const name of ['Books', 'Budget', 'Cash', 'Statements', 'Variance'] as const) {
    await stage(page, name);
    await page.waitForTimeout(300);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(900);
    await expect(page.getByRole('button', { name: /checks hold/ })).toBeInViewport();
  }
});

test('the policy lets nothing in from elsewhere', async ({ page }) => {
  const response = await page.goto('/books');
  const policy = response!.headers()['content-security-policy']!;
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'(;|$)/);
  expect(policy).not.toMatch(/unsafe-eval|https?:/);
  expect(policy).toContain("connect-src 'self'");
});

test('no screen is cut off: what one can press or read lies in the window, or in what scrolls', async ({
  page,
}) => {
  await openApp(page, '/');
  for (const width of [1280, 1024]) {
    await page.setViewportSize({ width, height: 800 });
    for (const stageName of ['Books', 'Budget', 'Cash', 'Statements', 'Variance'] as const) {
      await stage(page, stageName);
      const views = page.getByRole('radiogroup', { name: 'View' }).first().locator('label');
      await page.waitForTimeout(400);
      for (const name of (await views.count()) > 0 ? await views.allTextContents() : ['']) {
        if (name !== '') await views.getByText(name, { exact: true }).click();
        const cut = () =>
          page.evaluate(() => {
            const scrolls = (el: Element): boolean => {
              for (let up = el.parentElement; up; up = up.parentElement)
                if (/(auto|scroll)/.test(getComputedStyle(up).overflowX))
                  return up.getBoundingClientRect().right <= innerWidth + 1;
              return false;
            };
            return [...document.querySelectorAll('button, input, select, a, h1, table, [role=grid]')].flatMap(
              (el) => {
                const { width: w, height: h, right } = el.getBoundingClientRect();
                const out =
                  w > 0 && h > 0 && right > innerWidth + 1 && !scrolls(el) && !el.closest('.srOnly');
                return out
                  ? [(el.getAttribute('aria-label') ?? el.textContent ?? el.tagName).slice(0, 40)]
                  : [];
              },
            );
          });
        await expect.poll(cut, { message: `${stageName} ${name} at ${width}` }).toEqual([]);
      }
    }
  }
});
