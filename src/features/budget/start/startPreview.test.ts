import { minor, percent } from '@/core/money';
import { draftBudget, type StartChoice } from '@/core/plan';
import { createMemory, makeGround } from '@/core/ground';
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
} from '@/core/test/build';
import { rowName } from '@/core/report';
import { startPreview } from './startPreview';

const accounts = [
  account('s', 'income', 'Sales'),
  { ...account('old', 'income', 'Given up'), active: false },
  account('r', 'expense', 'Rent'),
];
const ids = periodIds(2026);
/** Four closed months of 2026: sales of 100, rent of 10, and 7 once of what is no longer sold. */
const block = blockOf(accounts, [
  ...[1, 2, 3, 4].flatMap((m) => [[`2026-0${m}-10`, 's', 100] as const, [`2026-0${m}-10`, 'r', 10] as const]),
  ['2026-02-01', 'old', 7],
]);
const plan = budgetOf([
  line('s', byMonth(Object.fromEntries(ids.map((p) => [p, minor(200)])))),
  line('r', byMonth(Object.fromEntries(ids.map((p) => [p, minor(20)])))),
]);
const ground = makeGround(
  bookWith(accounts, { sources: [sourceOf()], closedThrough: ids[3]!, budgets: [plan] }),
  new Map([[block.id, block]]),
);
const empty = draftBudget({
  id: 'preview',
  name: '',
  first: calendar.period(calendar.firstOfYear(2027)).id,
  length: 12,
  lines: [],
});
const choice: StartChoice = {
  from: 'sameMonth',
  other: null,
  uplift: percent('10'),
  upliftByKind: {},
  round: 0,
  rest: null,
};
const told = (change: Partial<StartChoice>) => {
  const { rows, ...rest } = startPreview(ground, empty, { ...choice, ...change }, createMemory());
  const of = (key: string) => {
    const found = rows.find(({ row }) => rowName(row).label === key)!;
    return [found.before, found.plan];
  };
  return { ...rest, income: of('Total income'), net: of('Net profit') };
};

test('a start from last year stands beside as much of it as the ledger has, and says how much', () => {
  const { income, net, known, beside } = told({});
  expect({ income, net, known, beside }).toEqual({
    income: [407, 440],
    net: [367, 396],
    known: 4,
    beside: 'lastYear',
  });
});

test('a start from the outlook stands beside all of the outlook, what is no longer used included', () => {
  const other = { budget: plan.id, years: 1, covers: plan.covers };
  const { income, net, known, beside } = told({ from: 'outlook', other });
  // Four months of the ledger, eight of the budget: 4 × 100 + 8 × 200, and 7 of what was given up.
  expect({ income, net, known, beside }).toEqual({
    income: [2007, 2200],
    net: [2007 - 200, 2200 - 220],
    known: 12,
    beside: 'outlook',
  });
});

test('a start from another budget stands beside it without uplift or rounding', () => {
  const other = { budget: plan.id, years: 1, covers: plan.covers };
  const { income, lines } = told({ from: 'otherBudget', other, round: 100 });
  expect(income[0]).toBe(2400);
  expect(lines.find((l) => l.account === 's')!.method).toMatchObject({ uplift: '10', round: 100 });
});

test('without a budget to take from, the year before is what there is', () => {
  expect(told({ from: 'outlook', other: null })).toMatchObject({ beside: 'lastYear', income: [407, null] });
});
