import { createMemory, makeGround, type Ground } from '@/core/ground';
import type { AccountKind, Adjusts, Book } from '@/core/model';
import { minor } from '@/core/money';
import type { Assumption } from '@/core/scenario';
import { account, blockOf, bookWith, budgetOf, byMonth, calendar, line, periodIds, sourceOf } from './build';
import { assume, lines } from './cases';
import { atOnce, terms } from './cash';

/* A plan of three months, small enough to be reckoned by hand. */

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
/** January to March 2026. */
export const range = { first, last: first + 2 };
const amounts = (...all: number[]) => byMonth(Object.fromEntries(all.map((a, i) => [ids[i], minor(a)])));
/** A line of one month, January, of an account that is made for it. */
type More = readonly [id: string, kind: AccountKind, name: string, january: number];

/**
 * Sales of 2,000, 2,000 and 0 on the 20th, goods of 800, 500 and 0 on the 10th, rent of 600 on the 5th; 1,000 in the bank, a
 * floor of 0. January loses 1,400 before the 20th: the lowest day is 10 January, with −400.
 */
export function smallPlan(
  cash: Partial<Book['cash']> = {},
  change: Partial<Book> = {},
  more: readonly More[] = [],
): Ground {
  const accounts = [
    account('sales', 'income'),
    account('goods', 'costOfSales'),
    account('rent', 'expense'),
    account('bank', 'bank'),
    account('line', 'loan', 'Credit line'),
    account('capital', 'equity'),
    ...more.map(([id, kind, name]) => account(id, kind, name)),
  ];
  const opening = blockOf(
    accounts,
    [
      ['2025-12-31', 'bank', 1_000],
      ['2025-12-31', 'capital', 1_000],
    ],
    'l0',
  );
  const on = (day: number) => atOnce({ of: 'monthDay', day });
  const budget = budgetOf(
    [
      line('sales', amounts(2_000, 2_000, 0)),
      line('goods', amounts(800, 500, 0)),
      line('rent', amounts(600, 600, 600)),
      ...more.map(([id, , , january]) => line(id, amounts(january))),
    ],
    'b1',
    {
      length: 3,
      terms: [
        terms('sales', ['100', on(20)]),
        terms('goods', ['100', on(10)]),
        terms('rent', ['100', on(5)]),
      ],
    },
  );
  const plain = bookWith(accounts, { budgets: [budget] });
  const book: Book = {
    ...plain,
    sources: [sourceOf({ id: 's0', block: 'l0' })],
    closedThrough: periodIds(2025)[11]!,
    ...change,
    cash: { ...plain.cash, floor: minor(0), ...cash },
  };
  return makeGround(book, new Map([[opening.id, opening]]), createMemory());
}

/** An assumption of January to March, under an id. */
export const assumption = (id: string, what: Adjusts, size: number): Assumption => assume(what, size, {}, id);

/** So much percent of an account's line more. */
export const percentOn = (id: string, size: number): Assumption =>
  assumption(id, { on: 'amounts', reach: lines(id), way: { as: 'percent' } }, size);
