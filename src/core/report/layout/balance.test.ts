import type { PeriodId } from '@/core/calendar';
import { makeGround, offBalance, aheadOf } from '@/core/ground';
import { NO_CASH, type Book } from '@/core/model';
import { minor } from '@/core/money';
import { SHIPPED, STATEMENT_LAYOUTS } from '..';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  line,
  periodIds,
  sourceOf,
} from '../../test/build';
import { reportOf } from '../../test/variance';

/* Balance sheets of books that are not whole: what is off stands in one line, and nothing else is bent for it. */

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const accounts = [
  account('s', 'income', 'Sales'),
  account('b', 'bank', 'Bank'),
  account('r', 'receivable', 'Receivables'),
  account('c', 'equity', 'Capital'),
  account('vat', 'taxPayable', 'vat'),
];
const plan = byMonth(Object.fromEntries(ids.map((p) => [p, minor(100)])));
function read(
  entries: readonly (readonly [string, string, number])[],
  change: Partial<Book> = {},
  budget = true,
) {
  const block = blockOf(accounts, entries);
  const ground = makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      closedThrough: '2026-01' as PeriodId,
      budgets: budget ? [budgetOf([line('s', plan)])] : [],
      ...change,
    }),
    new Map([[block.id, block]]),
  );
  const layout = SHIPPED.find((l) => l.id === STATEMENT_LAYOUTS.balance)!;
  const columns = [
    { ...layout.columns[0]!, span: { of: 'each' as const, by: 'month' as const, over: 'year' as const } },
  ];
  const { table } = reportOf(ground, { ...layout, columns }, first, budget ? 'b1' : null);
  const of = (label: string) =>
    table.rows
      .find((r) => r.label === label)
      ?.cells.slice(0, 3)
      .map(Number);
  return { ground, of, labels: table.rows.map((r) => r.label) };
}
const WHOLE = [
  ['2026-01-05', 'c', 500],
  ['2026-01-05', 'b', 500],
  ['2026-01-20', 's', 80],
  ['2026-01-20', 'r', 80],
] as const;

test('books that balance have no line for what is off', () => {
  const { of, labels } = read(WHOLE);
  expect(labels).not.toContain('Does not balance');
  expect([of('Net assets'), of('Total equity'), of('Result not yet in equity')]).toEqual([
    [580, 680, 780],
    [580, 680, 780],
    [80, 180, 280],
  ]);
});

test('a trial balance that does not balance: one line carries it, the same on every day', () => {
  const { of, ground } = read([...WHOLE, ['2026-01-21', 'b', 7]]);
  expect(of('Does not balance')).toEqual([7, 7, 7]);
  expect(of('Result not yet in equity')).toEqual([80, 180, 280]);
  expect(offBalance(aheadOf(ground, null)!, first)).toBe(7);
});

test('profit and loss alone, with opening figures that were said: the owners’ part is the balancing figure', () => {
  const opening = { day: '2026-01-31', amounts: { b: minor(300), r: minor(50) } } as never;
  const { of } = read([['2026-01-20', 's', 80]], { cash: { ...NO_CASH, opening } });
  // In the first month nothing of balances is known; from its end on they stand as they were said.
  expect(of('Bank')![0]).toBe(300);
  expect(of('Owners’ part at the start (balancing figure)')).toEqual([270, 270, 270]);
  expect(of('Result not yet in equity')).toEqual([80, 180, 280]);
});

test('profit and loss alone: what is not known is called so', () => {
  const { of } = read([['2026-01-20', 's', 80]]);
  expect(of('Balances that are not known')).toEqual([-80, -80, -80]);
  expect(of('Net assets')![0]).toBe(0);
});

test('a tax that was paid beyond what is owed is an asset, and what is owed of it nothing', () => {
  const { of } = read([...WHOLE, ['2026-01-25', 'vat', -30], ['2026-01-25', 'b', -30]]);
  expect(of('vat, paid beyond what is owed')).toEqual([30, 30, 30]);
  expect(of('vat')).toBeUndefined();
  expect([of('Total liabilities'), of('Liabilities and equity')]).toEqual([
    [0, 0, 0],
    [580, 680, 780],
  ]);
  expect(of('Total assets')).toEqual([580, 680, 780]);
});
