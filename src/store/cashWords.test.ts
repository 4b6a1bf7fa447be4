import { causesIn } from '@/core/cash';
import { fromDayNumber } from '@/core/calendar';
import { cashOf, makeGround } from '@/core/ground';
import { minor } from '@/core/money';
import type { Budget, Line } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  line,
  periodIds,
  siteAxis,
  sourceOf,
} from '@/core/test/build';
import { atOnce, onAccount, terms } from '@/core/test/cash';
import { causeWords } from './cashWords';

const chart = [account('sales', 'income', 'Sales'), account('bank', 'bank'), account('rec', 'receivable')];
const mixed = terms(
  'sales',
  ['40', atOnce({ of: 'monthDay', day: 10 })],
  [
    '60',
    onAccount(
      [
        ['50', { days: 30 }],
        ['50', { days: 60 }],
      ],
      { of: 'monthDay', day: 5 },
    ),
  ],
);

function told(budget: Budget, from: string, to: string) {
  const block = blockOf(chart, [['2025-12-31', 'bank', 0]]);
  const book = bookWith(chart, {
    budgets: [budget],
    axes: budget.axis ? [siteAxis()] : [],
    sources: [sourceOf({ block: block.id })],
    closedThrough: periodIds(2025)[11]!,
  });
  const ground = makeGround(book, new Map([[block.id, block]]));
  const view = cashOf(ground, budget)!;
  return causesIn(view.projected, { from: -Infinity, to: Infinity }, () => true)
    .filter((c) => fromDayNumber(c.day) >= from && fromDayNumber(c.day) <= to)
    .map((c) => ({ day: fromDayNumber(c.day), amount: c.amount, ...causeWords(ground, view, c) }));
}
const january = (l: Line): Line => ({ ...l, method: byMonth({ [periodIds(2026)[0]!]: minor(1_000_00) }) });

test('a share of a mixed line says its own part of the terms, and its own day', () => {
  const budget = budgetOf([january(line('sales', byMonth()))], 'b1', { terms: [mixed] });
  const all = told(budget, '2026-01-01', '2026-12-31');
  expect(all.map((c) => [c.day, c.amount])).toEqual([
    ['2026-01-10', 400_00],
    ['2026-02-04', 300_00],
    ['2026-03-06', 300_00],
  ]);
  expect(all[0]!.why).toContain('40% of it paid on the 10th');
  expect(all[1]!.why).toContain('60% of it invoiced on the 5th, 50% after 30 days');
  expect(all[2]!.why).toContain('60% of it invoiced on the 5th, 50% after 60 days');
});

test('two lines of one account are told apart by their segments', () => {
  const lines = ['n', null].map((segment) => january({ ...line('sales', byMonth()), segment }));
  const budget = budgetOf(lines, 'b1', { axis: 'x', segments: ['n', null], terms: [mixed] });
  const names = new Set(told(budget, '2026-01-01', '2026-01-31').map((c) => c.name));
  expect([...names].sort()).toEqual(['Sales, North', 'Sales, unassigned']);
});
