import { spawn } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ExcelJS from 'exceljs';
import { chromium, type Page } from '@playwright/test';
import { minor, percent } from '@/core/money';
import { bookFile } from '@/core/exchange/bookJson';
import { BlockBuilder } from '@/core/ledger';
import {
  blankLine,
  newAccount,
  newBook,
  type Account,
  type Book,
  type Budget,
  type Line,
} from '@/core/model';
import { asLastYear, draftBudget } from '@/core/plan';
import type { PeriodId } from '@/core/calendar';
import { report, summary } from './measure';

const PORT = 4319;
const URL_OF = `http://localhost:${PORT}`;

const SEGMENTS = Array.from({ length: 8 }, (_, i) => ({ id: `v${i}`, name: `Site ${i}`, from: [] }));

/** A book of 1,000 accounts with a year of actuals and a draft budget of them, as a file that opens. */
function bigBook(large: boolean): string {
  const accounts: Account[] = Array.from({ length: 1000 }, (_, i) =>
    newAccount(
      `a${i}`,
      String(4000 + i),
      `Account ${i}`,
      i < 300 ? 'income' : i < 500 ? 'costOfSales' : 'expense',
    ),
  );
  const builder = new BlockBuilder(12000);
  accounts.forEach((a, i) => {
    for (let m = 0; m < 12; m++)
      builder.add(
        20089 + m * 30,
        i,
        (a.kind === 'income' ? -1 : 1) * (10_000 + ((i * 31 + m * 17) % 900) * 100),
        i + 2,
      );
  });
  const block = builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
  const lines = accounts.map((a, i): Line => ({
    ...blankLine({ account: a.id, segment: null }),
    method:
      i >= 300 && i % 5 === 0
        ? {
            kind: 'share',
            of: { of: 'account', account: `a${i % 300}` },
            percent: percent('12.5'),
            lag: 0,
            round: 0,
          }
        : asLastYear(percent('3')),
  }));
  const total = minor(block.amount.reduce((t, v) => t + Math.max(0, v), 0));
  const credit = minor(-block.amount.reduce((t, v) => t + Math.min(0, v), 0));
  const book: Book = {
    ...newBook({
      id: large ? 'large' : 'bench',
      name: large ? 'Large' : 'Bench',
      currency: 'USD',
      locale: 'en-US',
      firstMonth: 1,
    }),
    accounts,
    axes: [{ id: 'x1', name: 'Site', columns: [], values: SEGMENTS, byAccount: {} }],
    closedThrough: '2025-12' as PeriodId,
    sources: [
      {
        id: 's1',
        fileName: 'bench.csv',
        fingerprint: 'a'.repeat(64),
        sheet: null,
        takenAt: '2026-01-01T00:00:00Z',
        shape: 'months',
        format: 'delimited',
        heads: '',
        cursor: null,
        untied: null,
        openings: 0,
        closings: 0,
        controls: 0,
        mapping: {},
        block: 'l1',
        rows: { read: 12000, used: 12000, leftOut: [] },
        entries: 12000,
        debit: total,
        credit,
        firstDay: '2025-01-01' as never,
        lastDay: '2025-12-01' as never,
      },
    ],
    budgets: [
      large
        ? largeBudget(accounts)
        : draftBudget({ id: 'b1', name: 'FY26 budget', first: '2026-01' as PeriodId, length: 12, lines }),
    ],
    nextId: 10,
  };
  return bookFile({ book, blocks: [block], journal: [] });
}

/** 1,000 accounts × 24 months × 8 segments, 200 lines following others. */
function largeBudget(accounts: readonly Account[]): Budget {
  const segments = SEGMENTS.map((s) => s.id);
  const months = [2026, 2027].flatMap((y) =>
    Array.from({ length: 12 }, (_, m) => `${y}-${String(m + 1).padStart(2, '0')}` as PeriodId),
  );
  const lines = segments.flatMap((segment, s) =>
    accounts.map((a, i): Line => ({
      ...blankLine({ account: a.id, segment }),
      method:
        i >= 300 && i % 28 === 0
          ? {
              kind: 'share',
              of: i % 56 === 0 ? { of: 'kind', kind: 'income' } : { of: 'account', account: `a${i % 300}` },
              percent: percent('12.5'),
              lag: 0,
              round: 0,
            }
          : {
              kind: 'byMonth',
              amounts: Object.fromEntries(months.map((p, m) => [p, minor(10_000 + i * 100 + s * 10 + m)])),
            },
    })),
  );
  return {
    ...draftBudget({ id: 'b0', name: 'Large budget', first: months[0]!, length: 24, lines }),
    axis: 'x1',
    segments,
  };
}

/** Times from pressing a key that works on everything selected to the frame after it. */
async function toolTimes(page: Page): Promise<{ readonly tool: number; readonly undo: number }> {
  const timed = async (press: () => Promise<void>): Promise<number> => {
    await page.evaluate(() => {
      const w = window as unknown as { took: Promise<number> };
      w.took = new Promise((resolve) =>
        addEventListener(
          'keydown',
          function once(e) {
            if (!['KeyS', 'KeyZ'].includes(e.code)) return;
            removeEventListener('keydown', once, true);
            const from = performance.now();
            requestAnimationFrame(() => {
              const channel = new MessageChannel();
              channel.port1.onmessage = () => resolve(performance.now() - from);
              channel.port2.postMessage(0);
            });
          },
          true,
        ),
      );
    });
    await press();
    const took = await page.evaluate(() => (window as unknown as { took: Promise<number> }).took);
    await page.waitForTimeout(400);
    return took;
  };
  await page.getByRole('grid').focus();
  await page.keyboard.press('Control+a');
  const tool = await timed(() => page.keyboard.press('Alt+s'));
  const undo = await timed(() => page.keyboard.press('Control+z'));
  return { tool, undo };
}

/** Times from a key's event to the frame after the one that shows what it did. */
async function keyTimes(page: Page): Promise<number[]> {
  await page.evaluate(() => {
    const w = window as unknown as { keys: number[] };
    w.keys = [];
    addEventListener(
      'keydown',
      () => {
        const from = performance.now();
        requestAnimationFrame(() => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => w.keys.push(performance.now() - from);
          channel.port2.postMessage(0);
        });
      },
      true,
    );
  });
  await page.getByRole('grid').focus();
  for (let i = 0; i < 40; i++) {
    for (const key of [String(i % 10), '5', '0', 'Enter']) {
      await page.keyboard.press(key);
      await page.waitForTimeout(30);
    }
  }
  return page.evaluate(() => (window as unknown as { keys: number[] }).keys);
}

/** The longest frame while the sheet is scrolled from end to end by the wheel. */
async function longestFrame(page: Page): Promise<number> {
  await page.evaluate(() => {
    const w = window as unknown as { frames: number[] };
    w.frames = [];
    let last = performance.now();
    const tick = () => {
      const now = performance.now();
      w.frames.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await page.mouse.move(600, 450);
  for (let i = 0; i < 60; i++) {
    await page.mouse.wheel(0, i < 40 ? 500 : -600);
    await page.waitForTimeout(16);
  }
  return page.evaluate(() => Math.max(...(window as unknown as { frames: number[] }).frames.slice(2)));
}

/** The longest task on the page while a 250,000-line file is taken in by the worker. */
async function longestTaskOfIntake(page: Page, path: string): Promise<{ longest: number; seconds: number }> {
  await page.evaluate(() => {
    const w = window as unknown as { tasks: number[] };
    w.tasks = [];
    new PerformanceObserver((list) => list.getEntries().forEach((e) => w.tasks.push(e.duration))).observe({
      type: 'longtask',
    });
  });
  const from = Date.now();
  await page.getByLabel('Ledger file').setInputFiles(path);
  await page.getByRole('button', { name: /^Accept 250,000/ }).waitFor({ timeout: 120_000 });
  const seconds = (Date.now() - from) / 1000;
  return {
    longest: await page.evaluate(() => Math.max(0, ...(window as unknown as { tasks: number[] }).tasks)),
    seconds,
  };
}

const lineOf = (i: number): [string, string, number, number] => {
  const e = i >> 1;
  const day = `2025-${String(1 + (e % 12)).padStart(2, '0')}-${String(1 + (e % 28)).padStart(2, '0')}`;
  return [day, `J-${e}`, i % 2 ? 4000 + (e % 400) : 6000 + (e % 600), ((e * 7919) % 1_000_000) / 100 + 1];
};

/** A ledger of n lines, in balance, made by counting. */
function ledgerText(n: number): string {
  const rows = ['Date,Journal no,Account code,Account name,Debit,Credit,Counterparty,Memo'];
  for (let i = 0; i < n; i++) {
    const [day, journal, account, amount] = lineOf(i);
    const text = amount.toFixed(2);
    rows.push(
      `${day},${journal},${account},Account,${i % 2 ? '' : text},${i % 2 ? text : ''},Party ${(i >> 1) % 997},Memo ${(i >> 1) % 5003}`,
    );
  }
  return rows.join('\n') + '\n';
}

async function writeWorkbook(path: string, n: number): Promise<void> {
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path });
  const sheet = book.addWorksheet('Ledger');
  sheet.addRow(['Date', 'Journal no', 'Account code', 'Account name', 'Debit', 'Credit']).commit();
  for (let i = 0; i < n; i++) {
    const [day, journal, account, amount] = lineOf(i);
    sheet
      .addRow([
        new Date(`${day}T00:00:00Z`),
        journal,
        account,
        `Account ${account}`,
        i % 2 ? null : amount,
        i % 2 ? amount : null,
      ])
      .commit();
  }
  await book.commit();
}

/** Seconds from choosing a file to its proof. */
async function toProof(page: Page, path: string, accept: RegExp): Promise<number> {
  const from = Date.now();
  await page.getByLabel('Ledger file').setInputFiles(path);
  await page.getByRole('button', { name: accept }).waitFor({ timeout: 300_000 });
  return (Date.now() - from) / 1000;
}

/** A million entries: in, saved, opened again, and the entries of one account in one month. */
async function millionEntries(page: Page, path: string): Promise<void> {
  await page.getByRole('button', { name: /^Book:/ }).click();
  await page.getByRole('menuitem', { name: 'New book…' }).click();
  await page.getByLabel('Name of the company').fill('Million');
  await page.getByRole('button', { name: 'Make the book' }).click();
  await page.getByRole('button', { name: 'Book: Million' }).waitFor();
  const proof = await toProof(page, path, /^Accept 1,000,000/);
  await page.getByRole('button', { name: /^Accept 1,000,000/ }).click();
  await page.getByRole('grid', { name: 'Ledger by month' }).waitFor({ timeout: 60_000 });
  await page.getByText(/^Saved/).waitFor({ timeout: 60_000 });
  await page.reload();
  await page.getByRole('grid', { name: 'Ledger by month' }).waitFor({ timeout: 60_000 });
  const times: number[] = [];
  for (const [row, column, month] of [
    [3, 2, 'Mar 2025'],
    [9, 5, 'Jun 2025'],
    [14, 8, 'Sep 2025'],
    [4, 0, 'Jan 2025'],
    [6, 11, 'Dec 2025'],
    [11, 6, 'Jul 2025'],
    [8, 3, 'Apr 2025'],
  ] as const) {
    const from = Date.now();
    await page.locator(`[data-row="${row}"][data-column="${column}"]`).click();
    await page.getByRole('complementary', { name: 'Entries' }).getByText(month).waitFor();
    times.push(Date.now() - from);
  }
  const shown = summary(times);
  report(
    'a million entries: one account’s month shown with its entries',
    shown.best,
    ' ms',
    '≤ 1000 ms',
    shown.median <= 1000,
    `median of 7 ${shown.median.toFixed(0)} ms; file to proof in ${proof.toFixed(1)} s`,
  );
}

async function main(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'tellan-bench-'));
  const book = join(folder, 'bench.tellan.json');
  writeFileSync(book, bigBook(false));
  const large = join(folder, 'large.tellan.json');
  writeFileSync(large, bigBook(true));
  const csv = join(folder, 'ledger.csv');
  writeFileSync(csv, ledgerText(250_000));
  const million = join(folder, 'million.csv');
  writeFileSync(million, ledgerText(1_000_000));
  const workbook = join(folder, 'ledger.xlsx');
  await writeWorkbook(workbook, 100_000);

  const server = spawn(
    'node',
    ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', String(PORT)],
    { stdio: 'ignore' },
  );
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox'],
  });
  try {
    for (
      let i = 0;
      i < 60 &&
      !(await fetch(URL_OF).then(
        (r) => r.ok,
        () => false,
      ));
      i++
    )
      await new Promise((r) => setTimeout(r, 500));
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${URL_OF}/books`, { waitUntil: 'networkidle' });
    await page.getByTestId('saved').waitFor();
    const kb = await page.evaluate(
      () =>
        (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
          .filter((r) => r.name.endsWith('.js'))
          .reduce((t, r) => t + r.encodedBodySize, 0) / 1024,
    );
    report(
      'JavaScript of the first screen, compressed',
      kb,
      ' kB',
      '≤ 300 kB',
      kb <= 300,
      'all scripts of a first visit, the demo book’s generator included',
    );

    await page.getByLabel('Book file').setInputFiles(book);
    await page.getByRole('button', { name: 'Book: Bench' }).waitFor();
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Budget' }).click();
    await page.getByRole('grid', { name: /FY26 budget/ }).waitFor();
    await page.waitForTimeout(1000);
    const p95s: number[] = [];
    for (let turn = 0; turn < 7; turn++) {
      const times = (await keyTimes(page)).sort((a, b) => a - b);
      p95s.push(times[Math.floor(times.length * 0.95)]!);
    }
    const keys = summary(p95s);
    report(
      'key pressed to figure painted, 1,000 accounts × 12 months, p95',
      keys.best,
      ' ms',
      '≤ 50 ms',
      keys.best <= 50,
      `median of 7 turns ${keys.median.toFixed(1)} ms`,
    );
    const longest: number[] = [];
    for (let turn = 0; turn < 7; turn++) longest.push(await longestFrame(page));
    const frames = summary(longest);
    report(
      'longest frame while scrolling that sheet',
      frames.best,
      ' ms',
      '≤ 50 ms',
      frames.best <= 50,
      `median of 7 turns ${frames.median.toFixed(1)} ms`,
    );

    await page.getByLabel('Book file').setInputFiles(large);
    await page.getByRole('button', { name: 'Book: Large' }).waitFor();
    await page.getByRole('combobox', { name: 'Site' }).selectOption('v3');
    await page.waitForTimeout(1500);
    const largeKeys: number[] = [];
    for (let turn = 0; turn < 7; turn++) {
      const times = (await keyTimes(page)).sort((a, b) => a - b);
      largeKeys.push(times[Math.floor(times.length * 0.95)]!);
    }
    const wide = summary(largeKeys);
    report(
      'the same, 1,000 accounts × 24 months × 8 segments, 200 lines following others',
      wide.best,
      ' ms',
      '≤ 50 ms',
      wide.best <= 50,
      `median of 7 turns ${wide.median.toFixed(1)} ms`,
    );
    const gestures = [];
    for (let turn = 0; turn < 7; turn++) gestures.push(await toolTimes(page));
    for (const [name, key] of [
      ['a tool over its 1,000 lines × 24 months, key to paint', 'tool'],
      ['undoing it', 'undo'],
    ] as const) {
      const t = summary(gestures.map((g) => g[key]));
      report(name, t.best, ' ms', '≤ 100 ms', t.best <= 100, `median of 7 ${t.median.toFixed(1)} ms`);
    }
    const scrolls: number[] = [];
    for (let turn = 0; turn < 7; turn++) scrolls.push(await longestFrame(page));
    const rolled = summary(scrolls);
    report(
      'longest frame while scrolling that large sheet',
      rolled.best,
      ' ms',
      '≤ 50 ms',
      rolled.best <= 50,
      `median of 7 turns ${rolled.median.toFixed(1)} ms`,
    );

    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Books' }).click();
    // Drawing the books is not the file's doing.
    await page.waitForTimeout(1500);
    const intake = await longestTaskOfIntake(page, csv);
    report(
      'longest task on the page while 250,000 lines come in',
      intake.longest,
      ' ms',
      '≤ 50 ms',
      intake.longest <= 50,
      `${intake.longest === 0 ? 'none was that long; ' : ''}file to proof in ${intake.seconds.toFixed(1)} s`,
    );
    await page.getByRole('button', { name: 'Leave the file out' }).click();
    const sheet = await toProof(page, workbook, /^Accept 100,000/);
    report(
      'a workbook of 100,000 rows, file to proof in the worker',
      sheet,
      ' s',
      '≤ 60 s',
      sheet <= 60,
      'read cell by cell',
    );
    await page.getByRole('button', { name: 'Leave the file out' }).click();
    await millionEntries(page, million);
  } finally {
    await browser.close();
    server.kill();
  }
}

await main();
