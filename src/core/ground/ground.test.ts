import { minor } from '@/core/money';
import type { Axis, Book, Budget } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  lastYear,
  line,
  of,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { lastOf } from '@/core/lastOf';
import { makeGround, reckoned, rulerRange, segmentLedgers } from '.';

const accounts = [account('s', 'income', 'Sales'), account('r', 'expense', 'Rent')];
const ids = periodIds(2026);
const block = blockOf(accounts, [
  ['2025-02-10', 's', 700],
  ['2025-12-10', 'r', 300],
]);
const groundOf = (change: Partial<Book> = {}) =>
  makeGround(
    bookWith(accounts, { sources: [sourceOf()], closedThrough: periodIds(2025)[11]!, ...change }),
    new Map([[block.id, block]]),
  );
const taking = (id: string, budget: string): Budget =>
  budgetOf([line('s', lastYear({ from: { of: 'budget', budget, years: 0 } }))], id);

describe('a budget that is made from another', () => {
  test('follows it, and is the same object while nothing changes', () => {
    const base = budgetOf([line('s', byMonth({ [ids[0]!]: minor(50) }))], 'b1');
    const ground = groundOf({ budgets: [base, taking('b2', 'b1')] });
    const now = reckoned(ground, ground.book.budgets[1]!);
    expect(now.amounts('s')![0]).toBe(50);
    expect(reckoned(ground, ground.book.budgets[1]!)).toBe(now);
  });
  test('two that are made from each other say that they are, and nothing hangs', () => {
    const ground = groundOf({ budgets: [taking('b1', 'b2'), taking('b2', 'b1')] });
    const r = reckoned(ground, ground.book.budgets[0]!);
    expect(r.reckoning.lines.get(of('s'))!.amounts.every((a) => a === null)).toBe(true);
  });
});

describe('the ledger by segments', () => {
  const axis: Axis = {
    id: 'x1',
    name: 'Site',
    columns: [],
    values: [{ id: 'v1', name: 'North', from: [] }],
    byAccount: { s: 'v1' },
  };
  const ground = groundOf({ axes: [axis] });
  const february = calendar.firstOfYear(2025) + 1;
  test('a segment has its accounts’ entries, what is unassigned the rest, and together they are the whole', () => {
    const of = segmentLedgers(ground, 'x1');
    expect(of('v1').movement('s', february)).toBe(-700);
    expect(of('v1').movement('r', february + 10)).toBeNull();
    expect(of(null).movement('r', february + 10)).toBe(300);
  });
  test('two axes in turn are each added up once', () => {
    const two = groundOf({ axes: [axis, { ...axis, id: 'x2', byAccount: { r: 'v1' } }] });
    const one = segmentLedgers(two, 'x1')('v1');
    const other = segmentLedgers(two, 'x2')('v1');
    expect(other.movement('r', february + 10)).toBe(300);
    expect(segmentLedgers(two, 'x1')('v1')).toBe(one);
    expect(segmentLedgers(two, 'x2')('v1')).toBe(other);
  });
  test('of an axis that is gone nothing is known; without an axis it is the whole ledger', () => {
    expect(segmentLedgers(ground, 'x9')('v1').movement('s', february)).toBeNull();
    expect(segmentLedgers(ground, null)(null)).toBe(ground.balances);
  });
});

describe('the months on the ruler', () => {
  const january = calendar.firstOfYear(2025);
  test('whole years of the ledger, and of every budget', () => {
    expect(rulerRange(groundOf())).toEqual({ first: january, last: january + 11 });
    expect(rulerRange(groundOf({ budgets: [budgetOf([], 'b1', { first: ids[6]!, length: 12 })] }))).toEqual({
      first: january,
      last: january + 35,
    });
  });
  test('none of an empty book', () => expect(rulerRange(makeGround(bookWith([]), new Map()))).toBeNull());
});

test('the last answer is given again for the same inputs only', () => {
  let made = 0;
  const f = lastOf((a: number, b?: number) => ({ sum: a + (b ?? 0), made: ++made }));
  expect(f(1, 2)).toBe(f(1, 2));
  expect(f(1, 3).sum).toBe(4);
  expect(f(1).sum).toBe(1);
  expect(f(1, 2).made).toBe(4);
});
