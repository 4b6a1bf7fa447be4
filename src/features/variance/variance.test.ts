import { minor, type Minor } from '@/core/money';
import { naturalSign, type Book, type Budget, type Layout } from '@/core/model';
import { frozenLines } from '@/core/plan';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  line,
  periodIds,
  share,
  sourceOf,
} from '@/core/test/build';
import { comparisonFor, makeGround, reckoned, type Comparison, type Ground } from '@/core/ground';
import { actualOf } from '@/core/ledger';
import { cellOf, shippedLayout, type ReportTable } from '@/core/report';
import { lookAt } from './varianceData';

const accounts = [
  account('s', 'income', 'Sales'),
  account('c', 'costOfSales', 'Goods'),
  account('r', 'expense', 'Rent'),
];
const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const every = (value: number) =>
  Object.fromEntries(ids.map((p) => [p, minor(value)])) as Record<string, Minor>;
const lines = [line('s', byMonth(every(1000))), line('c', share('s', '40')), line('r', byMonth(every(300)))];
/** Three closed months: sales 1,100, 900 and 1,300; goods 500 each; rent 300. */
const block = blockOf(
  accounts,
  [1100, 900, 1300].flatMap((sales, i) => {
    const d = `2026-0${i + 1}-15`;
    return [
      [d, 's', sales],
      [d, 'c', 500],
      [d, 'r', 300],
    ] as const;
  }),
);
const groundOf = (budgets: Budget[], change: Partial<Book> = {}) =>
  makeGround(
    bookWith(accounts, { sources: [sourceOf()], closedThrough: ids[2]!, budgets, ...change }),
    new Map([[block.id, block]]),
  );
const approvedOf = (budget: Budget, at: string): Budget => ({
  ...budget,
  state: 'approved',
  approved: {
    at,
    by: 'K',
    fingerprint: '',
    cash: null,
    lines: frozenLines(reckoned(groundOf([budget]), budget).reckoning),
  },
});

const PLAIN = { ...shippedLayout('std-months')!, filter: 'all' as const };
const cellsOf = (comparison: Comparison, row: string, ground: Ground, month = first + 2) => {
  const facts = lookAt(ground, PLAIN, month, comparison.id).facts();
  const { table, net } = facts;
  const found = table.rows.find((r) => r.key === row)!;
  return { table, net, of: (...keys: string[]) => keys.map((k) => cellOf(table, found, k)) };
};
const comparedIn = (ground: Ground, chosen: string | null = null, month = first + 2): Comparison =>
  comparisonFor(ground, month, chosen)!;

describe('the report of a month', () => {
  const draft = budgetOf(lines, 'b1');
  const ground = groundOf([draft]);
  const report = (row: string, month?: number) => cellsOf(comparedIn(ground), row, ground, month);
  test('actual and budget of the month and of the year to date come from ledger and budget', () => {
    expect(report('s').of('monthActual', 'monthBudget', 'monthDiff', 'monthSense')).toEqual([
      1300,
      1000,
      300,
      'F',
    ]);
    expect(report('s').of('toDateActual', 'toDateBudget')).toEqual([3300, 3000]);
    expect(report('c').of('monthActual', 'monthBudget', 'toDateActual', 'toDateBudget')).toEqual([
      500, 400, 1500, 1200,
    ]);
  });
  test('net profit of the report is that of ledger and budget', () => {
    const actual = accounts.reduce(
      (t, a) => t + (actualOf(ground.balances, a, first + 2) ?? 0) * (naturalSign(a.kind) < 0 ? 1 : -1),
      0,
    );
    expect(actual).toBe(500);
    expect(report('netProfit').of('monthActual', 'monthBudget')).toEqual([500, 300]);
  });
  test('a month that is not closed shows its plan and no result, and the year to date ends where actuals end', () => {
    const { table, of, net } = report('s', first + 5);
    expect(of('monthActual', 'monthBudget', 'monthDiff', 'monthPercent', 'monthSense')).toEqual([
      null,
      1000,
      null,
      null,
      null,
    ]);
    expect(of('toDateActual', 'toDateBudget')).toEqual([3300, 3000]);
    expect([...new Set(table.columns.map((c) => c.group))]).toEqual([
      'Jun 2026: not closed',
      'Year to Mar 2026',
      'FY26',
      '',
    ]);
    expect(table.rows.some((r) => r.flagged)).toBe(false);
    expect(cellOf(table, net!, 'monthDiff')).toBeNull();
  });
  test('a closed month without a source is none either, and says so', () => {
    const gap = groundOf([draft], { closedThrough: ids[4]! });
    const { table, of } = cellsOf(comparedIn(gap, null, first + 4), 's', gap, first + 4);
    expect(of('monthActual', 'monthDiff', 'toDateActual', 'toDateBudget')).toEqual([null, null, 3300, 3000]);
    expect(table.columns[0]!.group).toBe('May 2026: no entries');
  });
  test('the outlook is what happened where there are actuals, and the plan for the rest', () =>
    expect(report('s').of('yearOutlook', 'yearBudget')).toEqual([3300 + 9 * 1000, 12_000]));
  test('what was approved is compared, whatever its methods reckon to by now', () => {
    const approved = approvedOf(draft, '2025-12-01T00:00:00Z');
    const moved: Budget = { ...approved, lines: [line('s', byMonth(every(9_999))), ...lines.slice(1)] };
    const g = groundOf([moved]);
    const { table, of } = cellsOf(comparedIn(g), 's', g);
    expect(of('monthActual', 'monthBudget')).toEqual([1300, 1000]);
    expect(table.subtitle).toBe('Actual of the whole company against Budget, approved 1 Dec 2025');
  });
  test('a filter leaves lines out of sight, and net profit stays', () => {
    const costs: Layout = { ...PLAIN, rows: { ...PLAIN.rows, kinds: ['costOfSales', 'expense'] } };
    const look = lookAt(ground, costs, first + 2, null);
    const { report } = look;
    const facts = look.facts();
    const lines = ({ rows }: ReportTable) => rows.filter((r) => r.kind === 'line').map((r) => r.key);
    expect(lines(report.table)).toEqual(['c', 'r']);
    expect(lines(facts.table)).toHaveLength(3);
    expect(facts.net).toBe(facts.table.rows.find((r) => r.key === 'netProfit'));
  });
  test('a note on a line of the month stands beside it', () => {
    const noted = groundOf([draft], {
      varianceNotes: {
        [ids[2]!]: {
          s: {
            text: 'Boat show',
            against: null,
            parts: [{ kind: 'timing', amount: null, back: [] }],
            at: '',
          },
        },
      },
    });
    expect(cellsOf(comparedIn(noted), 's', noted).of('note')).toEqual(['Timing: Boat show']);
  });
});

describe('the full year', () => {
  test('is the fiscal year of the month looked at, also of a budget of two', () => {
    const two = budgetOf([line('s', byMonth({ ...every(1000), [`2027-01`]: minor(5) }))], 'b1', {
      length: 24,
    });
    const ground = groundOf([two]);
    expect(cellsOf(comparedIn(ground), 's', ground).of('yearBudget')).toEqual([12_000]);
    const later = cellsOf(comparedIn(ground, null, first + 12), 's', ground, first + 12);
    expect(later.of('yearBudget', 'yearOutlook')).toEqual([5, 5]);
    expect(later.table.columns.find((c) => c.block === 'toDate')!.group).toBe('Year to date: nothing closed');
  });
  test('of a budget begun in mid-year: heads hold what they say, and what is compared says which months it has', () => {
    const late = budgetOf([line('s', byMonth(every(1000)))], 'b1', { first: ids[1]!, length: 11 });
    const ground = groundOf([late]);
    const { table, of } = cellsOf(comparedIn(ground), 's', ground);
    // Three months of 1,100 are the year to March; two of them stand beside 2,000.
    expect(of('toDateActual', 'toDateBudget', 'toDateDiff')).toEqual([3300, 2000, 200]);
    expect(of('yearOutlook', 'yearBudget', 'yearDiff')).toEqual([12_300, 11_000, 200]);
    const column = (key: string) => table.columns.find((c) => c.key === key)!;
    expect([column('toDateActual').group, column('yearBudget').group]).toEqual(['Year to Mar 2026', 'FY26']);
    expect(column('toDateBudget')).toMatchObject({
      label: 'Budget, Feb – Mar',
      only: [first + 1, first + 2],
    });
    expect(column('yearBudget').label).toBe('Budget, Feb – Dec');
    expect(column('toDateActual').only).toBeUndefined();
  });
});

test('a budget of balances is compared in balances alone: no income stands against blanks, and nothing is F or U', () => {
  const bank = account('k', 'bank', 'Bank');
  const balances = budgetOf([line('k', byMonth(every(900)))], 'b1', { covers: 'balanceSheet' });
  const entries = blockOf(
    [...accounts, bank],
    [
      ['2026-01-15', 's', 1000],
      ['2026-01-15', 'k', 1000],
    ],
  );
  const ground = makeGround(
    bookWith([...accounts, bank], { sources: [sourceOf()], closedThrough: ids[0]!, budgets: [balances] }),
    new Map([[entries.id, entries]]),
  );
  const { table, of } = cellsOf(comparedIn(ground, null, first), 'k', ground, first);
  expect(table.rows.some((r) => r.key === 's')).toBe(false);
  expect(of('monthActual', 'monthBudget', 'monthDiff', 'monthSense')).toEqual([1000, 900, 100, null]);
  expect(of('toDateActual', 'yearBudget')).toEqual([1000, 900]);
});

test('a line of the budget without an account in the book leaves the report as it is', () => {
  const odd = budgetOf([...lines, line('gone', byMonth(every(5)))], 'b1');
  const ground = groundOf([odd]);
  expect(() => lookAt(ground, PLAIN, first, null).report.table.rows.map((r) => r.cells)).not.toThrow();
});
