import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, figure, newBook, openApp, saved, stage, takeIn, TALL, test } from './fixture';

test('a variance is explained in two parts, the outlook follows from them and becomes a draft; one undo takes each back', async ({
  page,
}) => {
  await openApp(page);
  await stage(page, 'Variance');
  // By what was approved: the revision that is in force ahead knows of October already.
  await page.getByLabel('What to compare with').selectOption({ label: 'FY27 budget' });
  await page.getByRole('button', { name: 'Winter storage', exact: true }).first().click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  const way = panel.getByRole('region', { name: 'Way to the outlook' });
  await expect(way).toContainText('Outlook62,284');

  // 983 under: 300 of it comes back in December, the rest goes on to April.
  await panel.getByRole('button', { name: '+ Timing' }).click();
  await panel.getByLabel('Explains').fill('-300');
  await page.keyboard.press('Enter');
  await expect(panel).toContainText(/683\s+is unexplained|683.* is unexplained/);
  await panel.getByRole('button', { name: 'Say when it comes back' }).click();
  await panel.getByLabel('Comes back in').selectOption({ label: 'in Dec 2026' });
  await expect(way).toContainText('Comes back or goes on');
  await expect(way).toContainText('Outlook62,584');
  await panel.getByRole('button', { name: '+ Lasting' }).click();
  const second = panel.getByRole('group', { name: 'Part 2' });
  await second.getByLabel('A month').fill('-100');
  await page.keyboard.press('Enter');
  await second.getByLabel('Until').selectOption({ label: 'Apr 2027' });
  await expect(panel).toContainText('All of it is explained');
  await expect(way).toContainText('Outlook61,984');
  await expect(figure(page, 'Winter storage', 12)).toHaveText('61,984');

  // More than there is, is said; what is typed is kept.
  await panel.getByRole('group', { name: 'Part 1' }).getByLabel('Explains').fill('-2000');
  await page.keyboard.press('Enter');
  await expect(panel.getByRole('alert')).toContainText('explain more than the difference');
  await page.keyboard.press('Control+z');
  await expect(panel).toContainText('All of it is explained');

  await page.getByRole('button', { name: 'Outlook as a draft' }).click();
  await stage(page, 'Budget');
  const draft = page.getByRole('row', { name: /Winter storage/ });
  await expect(draft).toContainText('61,984');
});

const grid = (page: Page) => page.getByRole('grid', { name: 'Variance report' });
const layoutButton = (page: Page) => page.getByRole('button', { name: /^Layout:/ });

test('what was to come back is followed up: one promise is kept, one in part waits until it is settled', async ({
  page,
}) => {
  await openApp(page);
  await stage(page, 'Variance');
  await page.getByLabel('What to compare with').selectOption({ label: 'FY27 budget' });
  const waiting = page.getByRole('region', { name: 'Waiting from earlier months' });
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  const promised = panel.getByRole('region', { name: 'Promised' });
  const october = page.getByLabel('Month to compare').getByRole('button', { name: /October|Oct 2026/ });
  const comesBackInOctober = async (month: string, name: string) => {
    await waiting
      .getByRole('listitem')
      .filter({ hasText: name })
      .filter({ hasText: month })
      .getByRole('button')
      .first()
      .click();
    await expect(panel).toContainText(`Why, in ${month}`);
    await panel.getByRole('button', { name: '+ Timing' }).click();
    await panel.getByRole('button', { name: 'Say when it comes back' }).click();
    await panel.getByLabel('Comes back in').selectOption({ label: 'in Oct 2026' });
    await saved(page);
    await october.last().click();
    await expect(panel).toContainText('Why, in Oct 2026');
  };
  // 1,833 more jobs in September were done early: October, 7,313 under, has given them back.
  await comesBackInOctober('Sep 2026', 'Repair and refit jobs');
  await expect(promised).toContainText(/1,833 explained in Sep 2026: .*1,833 came, kept/);
  // Of 843 that August lacked at South Quay, 242 came in October.
  await page.keyboard.press('Escape');
  await page.reload();
  await comesBackInOctober('Aug 2026', 'Berth fees, South Quay');
  await expect(promised).toContainText(/843 explained in Aug 2026: .*242 came, kept in part/);
  await page.reload();
  await expect(waiting.getByRole('listitem').first()).toContainText(
    /Berth fees, South Quay.*601.* was to come in Oct, kept in part/,
  );
  await waiting.getByRole('button', { name: 'Berth fees, South Quay' }).first().click();
  await promised.getByLabel(/comes later$/).selectOption({ label: 'Dec 2026' });
  await expect(promised).toContainText(/242 explained in Aug 2026: .*242 came, kept/);
  await expect(panel.getByRole('region', { name: 'Way to the outlook' })).toContainText(
    'Comes back or goes on',
  );
});

test('a layout is built by keyboard, kept, sent out as a file and taken in again', async ({ page }) => {
  await openApp(page, '/variance?layout=std-costs');
  await expect(layoutButton(page)).toHaveText(/Costs, largest first/);
  // From the first figure up into the heads; Enter opens what the column shows.
  await grid(page).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  const shows = page.getByLabel('Shows', { exact: true });
  await expect(shows).toBeVisible();
  await shows.selectOption('outlook');
  await page.getByLabel('Of', { exact: true }).selectOption({ label: 'The full year' });
  await page.keyboard.press('Escape');
  await expect(
    grid(page)
      .getByRole('columnheader', { name: /Outlook/ })
      .first(),
  ).toBeVisible();
  await expect(page.getByText('FY27', { exact: true }).first()).toBeVisible();

  // It is the book's own now: named, closed, found again; undo takes each step back.
  await layoutButton(page).click();
  const name = page.getByLabel('Name', { exact: true });
  await name.fill('What it will cost');
  await name.press('Enter');
  await expect(layoutButton(page)).toHaveText(/What it will cost/);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const path = (await (await download).path())!;
  const file = JSON.parse(await readFile(path, 'utf8'));
  expect(file).toMatchObject({ format: 'tellan.layout', version: 1 });
  expect(file.layouts[0].columns[0]).toMatchObject({ show: 'outlook', span: { of: 'year' } });
  await page.getByRole('button', { name: 'As it ships' }).click();
  await expect(layoutButton(page)).toHaveText(/Costs, largest first/);

  // Taken in as one of its own; a file that is none changes nothing.
  const chooser = page.locator('input[type="file"]').last();
  await chooser.setInputFiles({
    name: 'no.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"a":1}'),
  });
  await expect(
    page.getByText(/no\.json was not taken in: it is not a layout\. Nothing was changed\./),
  ).toBeVisible();
  file.layouts[0].rows.own = [{ row: 'account', account: 'a999' }];
  file.accounts = { a999: { code: '99999', name: 'Moon rent' } };
  await chooser.setInputFiles({
    name: 'x.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(file)),
  });
  await expect(
    page.getByText(/taken in without what the book has not: no account “Moon rent”/),
  ).toBeVisible();
  await expect(layoutButton(page)).toHaveText(/What it will cost/);
  await saved(page);
  await page.reload();
  await expect(layoutButton(page)).toHaveText(/What it will cost/);
});

test('a wrong entry stands where it belongs until the next intake has it right', async ({ page }) => {
  const ledger = (account: string) =>
    [
      'Date,Account code,Account name,Debit,Credit,Reference,Counterparty',
      '2025-01-10,4000,Sales,,1000.00,J1,Ann',
      '2025-01-10,1000,Bank,1000.00,,J1,Ann',
      '2025-01-12,6100,Power,80.00,,J2,Grid',
      '2025-01-12,1000,Bank,,80.00,J2,Grid',
      `2025-01-20,${account},500.00,,J3,Landlord`,
      '2025-01-20,1000,Bank,,500.00,J3,Landlord',
      '2025-01-25,6200,Rent,10.00,,J4,Landlord',
      '2025-01-25,1000,Bank,,10.00,J4,Landlord',
    ].join('\n');
  await openApp(page);
  await newBook(page, 'Wrong', { firstMonth: 'Jan' });
  await takeIn(page, { name: 'january.csv', text: ledger('6100,Power') });
  await stage(page, 'Variance');
  await expect(figure(page, 'Power', 0)).toHaveText('580');
  await figure(page, 'Power', 0).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  const entry = panel.getByRole('row', { name: /Landlord/ });
  await entry.getByRole('button', { name: 'Belongs elsewhere' }).click();
  await panel.getByLabel('Belongs to').selectOption({ label: '6200 Rent' });
  await expect(figure(page, 'Power', 0)).toHaveText('80');
  await expect(figure(page, 'Rent', 0)).toHaveText('510');
  await expect(panel).toContainText('not put right in the ledger yet');
  await expect(panel.getByText('Total ties to the ledger ✓')).toBeVisible();

  // The corrected ledger takes the place of the first; nothing is counted twice.
  await stage(page, 'Books');
  await page
    .getByRole('radiogroup', { name: 'View' })
    .getByText(/^Sources/)
    .click();
  await page.getByRole('button', { name: 'Take away…' }).click();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await takeIn(page, { name: 'january-corrected.csv', text: ledger('6200,Rent') });
  await stage(page, 'Variance');
  await expect(figure(page, 'Power', 0)).toHaveText('80');
  await expect(figure(page, 'Rent', 0)).toHaveText('510');
  await figure(page, 'Power', 0).click();
  await expect(panel).toContainText('the ledger has it right by now');
});

test('the weekly view: weeks of a month beside their part of its budget; a figure opens its days', async ({
  page,
}) => {
  await page.setViewportSize(TALL);
  await openApp(page, '/variance?layout=std-weekly');
  await expect(grid(page).getByRole('columnheader', { name: 'Oct 5 – Oct 11', exact: true })).toBeVisible();
  const amount = async (column: number) =>
    Number((await figure(page, 'Winter storage', column).innerText()).replace(/[^\d]/g, '')) || 0;
  const weeks = [];
  for (let w = 0; w < 5; w++) weeks.push(await amount(3 * w));
  expect(weeks.reduce((a, b) => a + b, 0)).toBeGreaterThan(14_800);
  expect(Math.abs(weeks.reduce((a, b) => a + b, 0) - 14_817)).toBeLessThan(4);
  await figure(page, 'Winter storage', 3).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(panel).toContainText('Oct 5, 2026 – Oct 11, 2026');
  await expect(panel.getByText('Total ties to the ledger ✓')).toBeVisible();
});

test('any range of the ruler, a kept forecast, and the budget itself are columns of the one report', async ({
  page,
}) => {
  await page.setViewportSize(TALL);
  await openApp(page, '/variance?layout=std-ledger');
  await page.getByLabel('Month to compare').getByRole('button', { pressed: true }).focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowLeft');
  await expect(
    grid(page).getByRole('columnheader', { name: 'May 2026 – Oct 2026', exact: true }),
  ).toBeVisible();
  const amounts = async (columns: number) => {
    const out = [];
    for (let c = 0; c <= columns; c++)
      out.push(Number((await figure(page, 'Repair and refit jobs', c).innerText()).replace(/[^\d]/g, '')));
    return out;
  };
  const months = await amounts(6);
  expect(Math.abs(months.slice(0, 6).reduce((a, b) => a + b) - months[6]!)).toBeLessThan(4);
  // The column that goes across goes by quarter instead.
  await page.getByRole('button', { name: /May 2026 Actual: change the column/ }).click();
  await page.getByLabel('Of', { exact: true }).selectOption('Each quarter chosen on the ruler');
  await expect(
    grid(page).getByRole('columnheader', { name: 'Q4 FY26, May – Jun', exact: true }),
  ).toBeVisible();
  const quarters = await amounts(3);
  expect(quarters[1]).toBeGreaterThan(0);
  expect(quarters[3]).toBe(months[6]);

  await openApp(page, '/variance?layout=std-cash');
  const against = page.getByLabel('What to compare with');
  const kept = await against.locator('option', { hasText: 'Forecast' }).first().innerText();
  await against.selectOption({ label: kept });
  await expect(grid(page).getByRole('columnheader', { name: 'Forecast' }).first()).toBeVisible();

  await stage(page, 'Budget');
  await page.getByRole('radiogroup', { name: 'View' }).getByText('Report', { exact: true }).click();
  await page
    .getByRole('radiogroup', { name: 'Columns of the report' })
    .getByText('Quarters', { exact: true })
    .click();
  const report = page.getByRole('grid', { name: 'FY27 autumn revision' });
  await expect(report.getByRole('columnheader', { name: 'Q1 FY27', exact: true })).toBeVisible();
  const income = report.getByRole('row', { name: /^Total income/ });
  const shown = await income.innerText();
  await page.getByRole('button', { name: 'Export ▾' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /PDF.*A4/ }).click();
  const text = execFileSync('pdftotext', ['-layout', (await (await download).path())!, '-'], {
    encoding: 'utf8',
  });
  expect(text).toContain('Q1 FY27');
  for (const amount of shown.match(/\d+,\d{3}/g)!) expect(text).toContain(amount);
  await page.keyboard.press('Control+z');
  await expect(report.getByRole('columnheader', { name: 'Jul 2026', exact: true })).toBeVisible();
});

test('a PDF says what the screen says', async ({ page }) => {
  await page.setViewportSize(TALL);
  await openApp(page, '/variance');
  const shown: Record<string, string> = {};
  for (const line of ['Winter storage', 'Total income', 'Power and water', 'Net profit'])
    shown[line] = [await figure(page, line, 0).innerText(), await figure(page, line, 1).innerText()].join(
      ' ',
    );
  await page.getByRole('button', { name: 'Export ▾' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /PDF.*Letter/ }).click();
  const text = execFileSync('pdftotext', ['-layout', (await (await download).path())!, '-'], {
    encoding: 'utf8',
  });
  const lines = text.split('\n').map((l) => l.trim().replace(/\s+/g, ' '));
  for (const [line, figures] of Object.entries(shown)) {
    const there = lines.find((l) => l.startsWith(line))!;
    expect(there.slice(line.length + 1, line.length + 1 + figures.length)).toBe(figures);
  }
  expect(text).toMatch(/Page 1 of \d/);
  expect(text).toContain('Two hull refits slipped to November');
});

test('the front page says how it stands, and each of its words leads to its place', async ({ page }) => {
  await openApp(page, '/');
  await expect(page.getByText(/Oct 2026 made a loss of/)).toBeVisible();
  const waits = page.getByRole('region', { name: 'What waits' });
  await expect(waits).toContainText('3 flagged lines ask for a word');
  await expect(page.getByRole('region', { name: 'The bank ahead' })).toContainText('lowest on');
  const why = page.getByRole('region', { name: 'Why' });
  await expect(why).toContainText('Two hull refits slipped to November');
  await expect(why).toContainText('−6,750 of it is explained, −898 is not');
  await expect(page.getByRole('region', { name: 'Since the month before' })).toContainText(
    'FY27 autumn revision was put in force from Nov 2026 on',
  );
  await why.getByRole('button', { name: 'Power and water' }).click();
  await expect(page).toHaveTitle('Variance · Tellan');
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toContainText('Power and water');
  await page.getByRole('link', { name: 'Tellan' }).click();
  await page.getByRole('region', { name: 'The bank ahead' }).getByRole('button').first().click();
  await expect(page).toHaveTitle('Cash · Tellan');
});

test('sentences of the front page quote the figures of the screens that they lead to', async ({ page }) => {
  await openApp(page, '/');
  const owes = page.getByRole('region', { name: 'Who owes' });
  const [, owed, late] = /Customers owe ([\d,]+), ([\d,]+) of it/.exec((await owes.textContent())!)!;
  const beside = page.getByRole('region', { name: 'The bank beside the plan' });
  const [, held, planned] = /it held ([\d,]+), where ([\d,]+) was planned/.exec(
    (await beside.textContent())!,
  )!;
  await expect(beside).toContainText('other −98,003');
  await expect(beside).toContainText('Slipway rebuild, first payment');
  await beside.getByRole('button').click();
  await expect(page).toHaveTitle('Variance · Tellan');
  const closing = page.getByRole('row', { name: /^Closing balance/ });
  await expect(closing).toContainText(held!);
  await expect(closing).toContainText(planned!);
  await page.getByRole('link', { name: 'Tellan' }).click();
  await owes.getByRole('button').first().click();
  await expect(page).toHaveTitle('Cash · Tellan');
  await expect(page.getByRole('main')).toContainText(owed!);
  expect(Number(late!.replace(',', ''))).toBeLessThan(Number(owed!.replace(',', '')));
});

test('the front page prints on a page, without what is only for the screen', async ({ page }) => {
  await openApp(page, '/');
  await expect(page.getByRole('region', { name: 'Since the month before' })).toBeVisible();
  const text = execFileSync('pdftotext', ['-layout', '-', '-'], {
    input: await page.pdf({ format: 'A4' }),
    encoding: 'utf8',
  });
  for (const words of ['made a loss of', 'What waits', 'Slipway rebuild', 'breaks in Jun 2027'])
    expect(text.toLowerCase()).toContain(words.toLowerCase());
  expect(text).not.toContain('What-if');
  expect(text.split('\f').filter((t) => t.trim() !== '')).toHaveLength(1);
});

test('counts come in from a file; activity and rate come to the difference; pictures leave', async ({
  page,
}) => {
  await page.setViewportSize(TALL);
  await openApp(page, '/variance?layout=std-units');
  await page.getByLabel('What to compare with').selectOption({ label: 'FY27 autumn revision' });
  await expect(figure(page, 'Members', 0)).toHaveText('248');
  await page.getByLabel('File of counted quantities').setInputFiles({
    name: 'counts.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Name,Jul 2026,Aug 2026,Oct 2026\nMembers,260,oops,255\n'),
  });
  await expect(
    page.getByText(
      /2 counts of 1 driver taken in from counts\.csv; 1 could not be read, first row 2, column 3: “oops”/,
    ),
  ).toBeVisible();
  await expect(figure(page, 'Members', 0)).toHaveText('255');
  await page.goto('/variance?layout=std-activity');
  await page.getByLabel('What to compare with').selectOption({ label: 'FY27 autumn revision' });
  const read = async (c: number) => {
    const t = await figure(page, 'Membership dues', c).innerText();
    return Number(t.replace(/[^\d]/g, '')) * (t.includes('(') ? -1 : 1);
  };
  expect((await read(1)) + (await read(5))).toBeCloseTo(await read(8), -1);
  expect(await read(1)).toBeGreaterThan(0);
  await page.getByLabel('Picture', { exact: true }).selectOption('page');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'SVG' }).click();
  expect((await download).suggestedFilename()).toBe('The year on one page.svg');
});

test('a report has a message: drafted from its figures, which lead to their rows, written, kept by month, and it leaves with it', async ({
  page,
}) => {
  await openApp(page, '/variance');
  const message = page.getByRole('group', { name: 'Message' });
  await expect(message).toContainText(
    'Oct 2026: a loss of 15, where a profit of 7,633 was budgeted; most by Repair and refit jobs, −7,313 U.',
  );
  await message.getByRole('button', { name: '−7,313 U' }).click();
  // The parts of a line's difference come to it.
  const told = page.getByRole('region', { name: 'What the entries tell' });
  await expect(told.getByRole('listitem').last()).toContainText('In all');
  const amounts = await told.getByRole('listitem').evaluateAll((all) =>
    all.map((li) =>
      Number(
        (
          /([+−])([\d,]+) [FU]$/
            .exec(li.textContent ?? '')
            ?.slice(1)
            .join('') ?? ''
        )
          .replace('−', '-')
          .replace(',', ''),
      ),
    ),
  );
  expect(amounts.slice(0, -1).reduce((a, b) => a + b, 0)).toBe(amounts.at(-1));
  expect(amounts.at(-1)).toBe(-7313);
  await message.getByRole('button', { name: 'Edit' }).click();
  await page.getByRole('textbox', { name: 'What the report says' }).fill('Refits slipped, −7,313 U of it.');
  await page.keyboard.press('Enter');
  await page.getByLabel('Your name').fill('Ines Marlow');
  await page.keyboard.press('Escape');
  await expect(message).toContainText('Refits slipped');
  await page.getByRole('button', { name: /^Export/ }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /CSV/ }).click();
  const text = await readFile(await (await download).path(), 'utf8');
  expect(text).toContain('Refits slipped');
  expect(text).toContain('closed through Oct 2026');
  const ruler = page.getByLabel('Month to compare');
  await ruler.getByRole('button', { name: /Sep 2026/ }).click();
  await expect(message).toContainText('Sep 2026: a profit');
  await page.reload();
  await ruler.getByRole('button', { name: /Oct 2026/ }).click();
  await expect(message).toContainText('Refits slipped');
  await message.getByRole('button', { name: 'As drafted' }).click();
  await expect(message).toContainText('Oct 2026: a loss of 15');
});
