import { makeGround } from '@/core/ground';
import type { Adjusts, Axis, Budget, Book } from '@/core/model';
import { minor } from '@/core/money';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  line,
  of,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { missesOf, spreadFrom } from '.';

/* How far approved budgets missed their lines, reckoned by hand. */

const ids = periodIds(2026);
const accounts = [
  account('sales', 'income', 'Sales'),
  account('fees', 'income', 'Fees'),
  account('rent', 'expense', 'Rent'),
  account('bank', 'bank'),
];
const block = blockOf(accounts, [
  ['2026-01-10', 'sales', 900],
  ['2026-02-10', 'sales', 1_000],
  ['2026-03-10', 'sales', 860],
  ['2026-03-11', 'fees', 40],
  ['2026-04-10', 'sales', 5_000],
  ['2026-01-31', 'rent', 330],
  ['2026-02-28', 'rent', 330],
  ['2026-03-31', 'rent', 330],
]);
const planned = (id: string, lines: Record<string, readonly number[]>): Budget => {
  const all = Object.entries(lines);
  const budget = budgetOf(
    all.map(([a, m]) => line(a, byMonth(Object.fromEntries(m.map((v, i) => [ids[i], minor(v)]))))),
    id,
    { length: 6 },
  );
  return {
    ...budget,
    name: id,
    state: 'approved',
    approved: {
      at: 't',
      by: '',
      fingerprint: '',
      cash: null,
      lines: all.map(([a, m]) => ({
        ...of(a),
        amounts: Array.from({ length: 6 }, (_, i) => (m[i] === undefined ? null : minor(m[i]!))),
        wholes: [],
      })),
    },
  };
};
const first = planned('First', { sales: [1_000, 1_000, 1_000, 1_000], rent: [300, 300, 300] });
const second = planned('Second', { sales: [800, 800, 900, 100], fees: [0, 0, 0] });
const draft = { ...planned('Draft', { sales: [1, 1, 1] }), state: 'draft' as const, approved: null };
const groundOf = (change: Partial<Book> = {}) =>
  makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      budgets: [first, second, draft],
      closedThrough: ids[2]!,
      ...change,
    }),
    new Map([[block.id, block]]),
  );
const on = (...lines: (Adjusts & { on: 'amounts' })['reach']['lines']): Adjusts => ({
  on: 'amounts',
  reach: { lines },
  way: { as: 'percent' },
});
const sales = on({ of: 'account', account: 'sales' });

test('what happened in closed months less what each approved budget planned of them', () => {
  // 2,760 of 3,000 planned, and of 2,500.
  expect(missesOf(groundOf(), sales)).toEqual([
    { budget: 'First', months: 3, size: -8_000 },
    { budget: 'Second', months: 3, size: 10_400 },
  ]);
  // All income that each planned: the second has fees, of which 40 came and nothing was planned.
  expect(missesOf(groundOf(), on({ of: 'income' }))).toEqual([
    { budget: 'First', months: 3, size: -8_000 },
    { budget: 'Second', months: 3, size: 12_000 },
  ]);
  // Costs beyond the plan are more of them.
  expect(missesOf(groundOf(), on({ of: 'account', account: 'rent' }))).toEqual([
    { budget: 'First', months: 3, size: 10_000 },
  ]);
});

test('nothing is told of too few months, of what nobody planned, or of what is said otherwise', () => {
  expect(missesOf(groundOf({ closedThrough: ids[1]! }), sales)).toEqual([]);
  expect(missesOf(groundOf({ closedThrough: null }), sales)).toEqual([]);
  expect(missesOf(groundOf(), on({ of: 'account', account: 'bank' }))).toEqual([]);
  expect(missesOf(groundOf(), { ...sales, way: { as: 'amount' } } as Adjusts)).toEqual([]);
  expect(missesOf(groundOf(), { on: 'oncosts' })).toEqual([]);
});

test('a budget by segments is held against the ledger of its segments', () => {
  const axis: Axis = {
    id: 'x1',
    name: 'Site',
    columns: [],
    values: [{ id: 'north', name: 'North', from: [] }],
    byAccount: { sales: 'north' },
  };
  const lines = first.lines.map((l) => ({ ...l, segment: l.account === 'sales' ? 'north' : null }));
  const frozen = first.approved!.lines.map((l) => ({
    ...l,
    segment: l.account === 'sales' ? 'north' : null,
  }));
  const bySite = {
    ...first,
    axis: 'x1',
    segments: ['north', null],
    lines,
    approved: { ...first.approved!, lines: frozen },
  };
  const ground = groundOf({ budgets: [bySite], axes: [axis] });
  expect(missesOf(ground, sales)).toEqual([{ budget: 'First', months: 3, size: -8_000 }]);
  expect(
    missesOf(ground, { ...sales, reach: { lines: [{ of: 'income' }], segment: null } } as Adjusts),
  ).toEqual([]);
});

test('a low and a high are as far from a size as plans were missed, and never beyond it', () => {
  const misses = missesOf(groundOf(), sales);
  expect(spreadFrom(misses, 5_000)).toEqual({ low: -3_000, high: 15_400 });
  expect(spreadFrom(misses.slice(1), 5_000)).toEqual({ low: 5_000, high: 15_400 });
  expect(spreadFrom([], 5_000)).toBeNull();
});
