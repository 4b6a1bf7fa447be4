import {
  cell,
  chooseFile,
  expect,
  figure,
  newBook,
  openApp,
  saved,
  stage,
  TALL,
  takeIn,
  test,
} from './fixture';

/* Where two contexts meet: each on a book made for it, in the browser. */

test.use({ viewport: TALL });

/** Two sites with sales of their own: 700 and 300 in January and in February, 80 of wages. */
const LEDGER = [
  'Date,Ref,Account code,Account name,Debit,Credit,Site',
  ...['2025-01', '2025-02'].flatMap((m, i) => [
    `${m}-15,A${i},1000,Bank,700,,North`,
    `${m}-15,A${i},4000,Sales,,700,North`,
    `${m}-20,B${i},1000,Bank,300,,South`,
    `${m}-20,B${i},4000,Sales,,300,South`,
    `${m}-25,C${i},6000,Wages,80,,South`,
    `${m}-25,C${i},1000,Bank,,80,South`,
  ]),
].join('\n');

test('a start before the year is over fills what is missing; a segment’s budget meets its own actuals; an open month has no result', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Weir', { firstMonth: 'Jan' });
  await takeIn(page, { name: 'weir.csv', text: LEDGER });

  // The year after: ten of its twelve months have no actuals yet, and the start says so.
  await stage(page, 'Budget');
  await page.getByLabel('First month').selectOption({ label: 'Jan 2026 (FY26)' });
  await page.getByText('The same month last year').click();
  const missing = page.getByLabel(/Mar 2025 to Dec 2025 have no actuals yet/);
  await expect(missing).toHaveValue('average');
  await expect(page.getByText(/2 of the 12 months a year before are there/)).toBeVisible();
  await page.getByRole('button', { name: 'Start the budget' }).click();
  await expect(cell(page, 'Sales', 11)).toHaveText('1,000');
  await expect(cell(page, 'Sales', 12)).toHaveText('12,000');

  // A budget of this year by site, then one of a site alone, which is the newest.
  for (const only of [false, true]) {
    await page.getByRole('button', { name: 'New budget' }).click();
    await page.getByLabel('First month').selectOption({ label: 'Jan 2025 (FY25)' });
    await page.getByText('The last closed month carried on').click();
    if (only) {
      await page.getByLabel('For', { exact: true }).selectOption({ label: 'each site' });
      await page.getByLabel('South', { exact: true }).uncheck();
      await page.getByLabel('Unassigned').uncheck();
      await page.getByLabel('Name', { exact: true }).fill('North alone');
    }
    await page.getByRole('button', { name: 'Start the budget' }).click();
    await expect(page.getByRole('grid')).toBeVisible();
  }
  await stage(page, 'Variance');
  // The company is compared unless something else is chosen.
  await expect(page.getByText(/the whole company against FY25 budget/)).toBeVisible();
  await expect(figure(page, 'Sales', 0)).toHaveText('1,000');
  await page.getByLabel('What to compare with').selectOption({ label: 'North alone' });
  await expect(page.getByText(/Site North only against North alone/)).toBeVisible();
  await expect(figure(page, 'Sales', 0)).toHaveText('700');
  await figure(page, 'Sales', 0).click();
  await expect(page.getByText('Total ties to the ledger ✓')).toBeVisible();

  // A month that is not closed: its plan, and nothing that looks like a result. Back leads to the month before.
  await page
    .getByLabel('Month to compare')
    .getByRole('button', { name: /^Mar 2025/ })
    .click();
  await expect(page.getByText('Mar 2025: not closed')).toBeVisible();
  await expect(page.getByText('Year to Feb 2025').first()).toBeVisible();
  await expect(figure(page, 'Sales', 1)).toHaveText('700');
  await expect(figure(page, 'Sales', 2)).toHaveText('');
  await expect(page).toHaveURL(/month=/);
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Feb 2025' })).toBeVisible();
});

test('sums in cells, undo wherever the hand is, and a book that reopens where it was', async ({ page }) => {
  await openApp(page);
  await stage(page, 'Budget');
  await cell(page, 'Cleaning', 1).click();
  await page.keyboard.type('=1200*3+80');
  await page.keyboard.press('ArrowRight');
  await expect(cell(page, 'Cleaning', 1)).toHaveText('3,680');
  await page.keyboard.type('52000/12');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Cleaning', 2)).toHaveText('4,333');
  await cell(page, 'Cleaning', 3).click();
  await page.keyboard.type('n');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('grid', { name: /revision/ })).toBeFocused();
  // The focus on a choice above the sheet: undo is the book's all the same.
  await page.getByRole('button', { name: 'Find', exact: true }).focus();
  await page.keyboard.press('Control+z');
  await expect(cell(page, 'Cleaning', 2)).not.toHaveText('4,333');
  await page.getByRole('radiogroup', { name: 'View' }).getByText('History', { exact: true }).click();
  await expect(page.getByText(/Typed “=1200\*3\+80”/)).toBeVisible();
  await expect(page).toHaveURL(/view=history/);
  await saved(page);
  await page.goto('/books');
  await expect(page).toHaveURL(/\/budget\?.*view=history/);
  await expect(page.getByText(/Typed “=1200\*3\+80”/)).toBeVisible();
});

test('dates that can be read both ways are chosen; figures in thousands are so on every screen', async ({
  page,
}) => {
  await openApp(page);
  await newBook(page, 'Ford');
  const text = ['Date,Account,Debit,Credit', '03/04/2025,Bank,1200000,', '03/04/2025,Sales,,1200000'].join(
    '\n',
  );
  await chooseFile(page, { name: 'ford.csv', text });
  await expect(page.getByText(/can be read both ways/)).toBeVisible();
  await expect(page.getByText(/Not yet: say above how its dates are written/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Accept 2/ })).toBeDisabled();
  await page.getByRole('button', { name: 'The day comes first' }).click();
  const accept = page.getByRole('button', { name: /^Accept 2/ });
  await expect(accept).toBeEnabled();
  await accept.click();
  const again = page.getByText(/Press again/);
  const done = page.getByText(/taken in\. Ctrl\+Z/);
  await expect(again.or(done)).toBeVisible();
  if (await again.isVisible()) await accept.click();
  await expect(done).toBeVisible();
  await expect(page.getByText('closed through Apr 2025')).toBeVisible();
  await page.getByRole('button', { name: 'How figures are written' }).click();
  await page.getByRole('radiogroup', { name: 'Figures' }).getByText('Thousands').click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('row', { name: /^Net profit/ })).toContainText('1,200.0');
  await expect(page.getByRole('row', { name: /^Net profit/ })).not.toContainText('1,200,000');
});
