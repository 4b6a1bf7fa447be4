import { readFileSync } from 'node:fs';
import { parseBookFile } from '@/core/exchange';
import { bookFileJsonSchema } from '@/core/exchange/bookSchema';
import { actualOf, balancesOf, trialBalance } from '@/core/ledger';
import { monthCalendar } from '@/core/calendar';
import { newBook, undo } from '@/core/model';
import { runChecks } from '@/core/checks';
import { demoBook, demoBookFile } from './demoBook';
import { DEMO_FILE, DEMO_ID } from './demoFile';
import { demoFiles } from './files';
import { demoLedger } from './ledger';

test('the shipped files are what the generator writes (else: npm run write:files)', async () => {
  expect(readFileSync(`public${DEMO_FILE}`, 'utf8')).toBe(await demoBookFile());
  for (const { name, text } of demoFiles()) expect(readFileSync(`public/demo/${name}`, 'utf8')).toBe(text);
  expect(JSON.parse(readFileSync('public/schema/tellan-book.schema.json', 'utf8'))).toEqual(
    bookFileJsonSchema(),
  );
});

test('about nine thousand lines, every entry in balance', () => {
  const rows = demoLedger();
  expect(rows.length).toBeGreaterThan(8500);
  const sums = new Map<string, number>();
  for (const r of rows) sums.set(r.journal, (sums.get(r.journal) ?? 0) + r.debit - r.credit);
  expect([...sums.values()].every((s) => s === 0)).toBe(true);
});

test('biweekly pay gives two months a year with three paydays (a fact of the calendar: 26 paydays in 12 months)', () => {
  const days = new Set(
    demoLedger()
      .filter((r) => r.code === '6010' && r.day >= '2025-07-01' && r.day <= '2026-06-30')
      .map((r) => r.day),
  );
  const byMonth = new Map<string, number>();
  for (const d of days) byMonth.set(d.slice(0, 7), (byMonth.get(d.slice(0, 7)) ?? 0) + 1);
  expect(days.size).toBe(26);
  expect([...byMonth.values()].filter((n) => n === 3)).toHaveLength(2);
});

describe('the demo book', () => {
  const made = demoBook('demo-test');
  test('has its approved budget, a draft revision, and passes every check', async () => {
    const { history, blocks } = await made;
    const { book } = history;
    expect(book.budgets.map((b) => b.state)).toEqual(['approved', 'draft']);
    const calendar = monthCalendar(7);
    const checks = runChecks({
      book,
      blocks: new Map(blocks.map((b) => [b.id, b])),
      balances: balancesOf(blocks, calendar),
      budgets: book.budgets.map((b) => ({
        id: b.id,
        name: b.name,
        width: 12,
        lines: b.approved?.lines ?? [],
        covers: b.covers,
        figures: (a) => b.approved?.lines.find((l) => l.account === a) ?? null,
      })),
    });
    expect(checks.filter((c) => !c.holds)).toEqual([]);
    expect(checks.length).toBeGreaterThan(10);
  });
  test('tells its story: insurance in January, courses in summer, power over budget, refits slipping in October', async () => {
    const { history, blocks } = await made;
    const calendar = monthCalendar(7);
    const balances = balancesOf(blocks, calendar);
    const of = (code: string, year: number) => {
      const a = history.book.accounts.find((x) => x.code === code)!;
      return Array.from({ length: 12 }, (_, i) => actualOf(balances, a, calendar.firstOfYear(year) + i) ?? 0);
    };
    const plan = (code: string) =>
      history.book.budgets[0]!.approved!.lines.find(
        (l) => l.account === history.book.accounts.find((x) => x.code === code)!.id,
      )!.amounts;
    expect(of('6110', 2026).flatMap((v, i) => (v ? [i] : []))).toEqual([6]);
    expect(of('4300', 2026).flatMap((v, i) => (v ? [i] : []))).toEqual([0, 1, 10, 11]);
    expect(of('6200', 2027)[3]! / plan('6200')[3]!).toBeGreaterThan(1.3);
    expect(of('4100', 2027)[3]! / plan('4100')[3]!).toBeLessThan(0.8);
  });
  test('its file opens as the same book, with its segments, openings and closings', async () => {
    const { history, blocks } = await demoBook(DEMO_ID);
    expect(parseBookFile(await demoBookFile())).toEqual({
      ok: true,
      book: history.book,
      blocks,
      journal: history.journal,
      setAside: [],
    });
    expect(history.book.axes.map((a) => [a.name, a.values.length])).toEqual([
      ['Site', 2],
      ['Activity', 4],
    ]);
    expect(history.book.sources.map((s) => [s.openings, s.closings > 40])).toEqual([
      [11, true],
      [0, true],
      [0, false],
    ]);
  });
  test('its trial balance balances at every month-end', async () => {
    const { history, blocks } = await made;
    const calendar = monthCalendar(7);
    const balances = balancesOf(blocks, calendar);
    for (let p = balances.range!.first; p <= balances.range!.last; p++) {
      const t = trialBalance(history.book.accounts, balances, calendar, p);
      expect([p, t.debit]).toEqual([p, t.credit]);
      expect(t.unclosed).toBe(0);
    }
  });
  test('undoing everything gives back the empty book', async () => {
    const { history } = await made;
    let h = history;
    while (h.done.length > 0) h = undo(h, 't');
    expect(h.book).toEqual(
      newBook({ id: 'demo-test', name: history.book.name, currency: 'USD', locale: 'en-US', firstMonth: 7 }),
    );
  });
});
