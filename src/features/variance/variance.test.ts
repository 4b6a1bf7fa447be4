import { minor, type Minor } from '@/core/money';
import { naturalSign, type Book, type Budget } from '@/core/model';
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
import { makeGround, reckoned } from '@/core/ground';
import { actualOf } from '@/core/ledger';
import { comparedBudget, varianceTable } from './varianceData';

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
    lines: frozenLines(reckoned(groundOf([budget]), budget).reckoning),
  },
});

describe('which budget a month is compared with', () => {
  const draft = budgetOf(lines, 'b1');
  const approved = approvedOf(budgetOf(lines, 'b2'), '2025-12-01T00:00:00Z');
  const short = budgetOf(lines, 'b3', { length: 2 });
  const ground = groundOf([approved, draft, short]);
  test.each<[string, number, string | null, string | null]>([
    ['the one chosen', first, 'b1', 'b1'],
    ['the approved one where none is chosen', first, null, 'b2'],
    ['the approved one where the chosen does not cover the month', first + 2, 'b3', 'b2'],
    ['none outside every budget', first + 12, 'b1', null],
  ])('%s', (_, month, chosen, expected) =>
    expect(comparedBudget(ground, month, chosen)?.id ?? null).toBe(expected),
  );
  test('the latest where none is approved', () =>
    expect(comparedBudget(groundOf([draft, short]), first, null)!.id).toBe('b3'));
});

describe('the report of a month', () => {
  const draft = budgetOf(lines, 'b1');
  const cellsOf = (budget: Budget, row: string, ground = groundOf([budget])) => {
    const { table } = varianceTable(ground, budget, first + 2, 'all');
    const at = (key: string) => table.columns.findIndex((c) => c.key === key);
    const cells = table.rows.find((r) => r.key === row)!.cells;
    return { table, of: (key: string) => cells[at(key)] as Minor | null };
  };
  test('actual and budget of the month and of the year to date come from ledger and budget', () => {
    const { table } = cellsOf(draft, 's');
    const sales = table.rows.find((r) => r.key === 's')!.cells;
    expect(sales).toEqual(expect.arrayContaining([1300, 1000, 300, 3300, 3000]));
    const goods = table.rows.find((r) => r.key === 'c')!.cells;
    expect(goods).toEqual(expect.arrayContaining([500, 400, 1500, 1200]));
  });
  test('net profit of the report is that of ledger and budget', () => {
    const ground = groundOf([draft]);
    const { net } = varianceTable(ground, draft, first + 2, 'all');
    const actual = accounts.reduce(
      (t, a) => t + (actualOf(ground.balances, a, first + 2) ?? 0) * (naturalSign(a.kind) < 0 ? 1 : -1),
      0,
    );
    expect(actual).toBe(500);
    expect(net!.cells).toEqual(expect.arrayContaining([500, 300]));
  });
  test('what was approved is compared, whatever its methods reckon to by now', () => {
    const approved = approvedOf(draft, '2025-12-01T00:00:00Z');
    const moved: Budget = { ...approved, lines: [line('s', byMonth(every(9_999))), ...lines.slice(1)] };
    const { table } = cellsOf(moved, 's');
    expect(table.rows.find((r) => r.key === 's')!.cells).toEqual(expect.arrayContaining([1300, 1000]));
    expect(table.subtitle).toBe('Actual against Budget, approved 1 Dec 2025');
  });
  test('a filter leaves lines out of sight, and net profit stays', () => {
    const { table, everything, net } = varianceTable(groundOf([draft]), draft, first + 2, 'costs');
    const shown = table.rows.filter((r) => r.kind === 'line').map((r) => r.key);
    expect(shown).toEqual(['c', 'r']);
    expect(everything.rows.filter((r) => r.kind === 'line')).toHaveLength(3);
    expect(net).toBe(everything.rows.find((r) => r.key === 'netProfit'));
  });
  test('a note on a line of the month stands beside it', () => {
    const ground = groundOf([draft], {
      varianceNotes: { [ids[2]!]: { s: { text: 'Boat show', by: '', at: '' } as never } },
    });
    const { table } = varianceTable(ground, draft, first + 2, 'all');
    expect(JSON.stringify(table.rows.find((r) => r.key === 's'))).toContain('Boat show');
  });
});

test('a line of the budget without an account in the book leaves the report as it is', () => {
  const odd = budgetOf([...lines, line('gone', byMonth(every(5)))], 'b1');
  expect(() => varianceTable(groundOf([odd]), odd, first, 'all')).not.toThrow();
});
