import { minor } from '@/core/money';
import { entriesOf } from '@/core/ledger';
import type { Axis, Budget, SegmentId } from '@/core/model';
import { comparisonFor, comparisonsAt, entriesView, makeGround } from '@/core/ground';
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
import { reportOf, STANDARD } from '@/core/test/variance';
import { cellOf } from '..';

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const accounts = [account('n', 'income', 'Sales north'), account('s', 'income', 'Sales south')];
const axis: Axis = {
  id: 'x1',
  name: 'Site',
  columns: [],
  values: [
    { id: 'north', name: 'North', from: [] },
    { id: 'south', name: 'South', from: [] },
  ],
  byAccount: { n: 'north', s: 'south' },
};
const block = blockOf(accounts, [
  ['2026-01-15', 'n', 700],
  ['2026-01-20', 's', 300],
]);
const groundOf = (budgets: Budget[], unassigned = false) =>
  makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      axes: [unassigned ? { ...axis, byAccount: { n: 'north' } } : axis],
      closedThrough: ids[0]!,
      budgets,
    }),
    new Map([[block.id, block]]),
  );
const amounts = byMonth({ [ids[0]!]: minor(500) });
const company = (id: string, change: Partial<Budget> = {}) =>
  budgetOf([line('n', amounts), line('s', amounts)], id, change);
const of = (id: string, segments: SegmentId[], change: Partial<Budget> = {}) =>
  budgetOf(
    segments.flatMap((segment) => ['n', 's'].map((a) => ({ ...line(a, amounts), segment }))),
    id,
    { axis: 'x1', segments, ...change },
  );
const approval = { at: '2025-12-01', by: '', fingerprint: '', cash: null, lines: [] };
const approved = { state: 'approved' as const, approved: approval };
const superseded = { state: 'superseded' as const, approved: approval };

describe('what a month is compared with, unless something is chosen', () => {
  test.each<[string, Budget[], string | null]>([
    [
      'the company before a segment, though the segment’s is the later',
      [company('b1'), of('b2', ['north'])],
      'b1',
    ],
    ['what is in force before a draft of more', [of('b1', ['north'], approved), company('b2')], 'b1'],
    ['the later of two alike', [company('b1'), company('b2')], 'b2'],
    ['more segments before fewer', [of('b1', ['north', null]), of('b2', ['north'])], 'b1'],
    ['a draft before what is superseded', [company('b1', superseded), of('b2', ['north'])], 'b2'],
    [
      'two that together cover the company',
      [of('b1', ['north'], approved), of('b2', ['south'], approved)],
      'together x1',
    ],
    [
      'one that covers both statements before one that covers profit',
      [company('b1', { covers: 'both' }), company('b2')],
      'b1',
    ],
    ['profit before balances', [company('b1'), company('b2', { covers: 'balanceSheet' })], 'b1'],
    ['none of another year', [company('b1', { first: periodIds(2027)[0]! })], null],
  ])('%s', (_, budgets, expected) =>
    expect(comparisonFor(groundOf(budgets), first, null)?.id ?? null).toBe(expected),
  );
  test('the one chosen, where it has the month', () => {
    const ground = groundOf([company('b1'), company('b2', { length: 1 })]);
    expect(comparisonFor(ground, first, 'b1')!.id).toBe('b1');
    expect(comparisonFor(ground, first + 1, 'b2')!.id).toBe('b1');
  });
});

describe('like with like', () => {
  const actualOf = (budgets: Budget[], id: string, unassigned = false) => {
    const ground = groundOf(budgets, unassigned);
    const comparison = comparisonFor(ground, first, id)!;
    const { table } = reportOf(ground, STANDARD, first, id);
    const net = table.rows.find((r) => r.key === 'netProfit')!;
    const entries = ['n', 's'].flatMap((a) =>
      entriesOf(ground.blocks, ground.calendar, a, { first, last: first }, entriesView(ground, comparison)),
    );
    return {
      company: comparison.company,
      actual: cellOf(table, net, 'monthActual'),
      budget: cellOf(table, net, 'monthBudget'),
      entries: -entries.reduce((t, e) => t + e.amount, 0),
    };
  };
  test.each<[string, Budget[], string, boolean, number, number]>([
    ['a budget of one segment', [of('b1', ['north'])], 'b1', false, 700, 1000],
    ['one segment of a budget of two', [of('b1', ['north', 'south'])], 'b1 south', false, 300, 1000],
    ['a budget of all segments', [of('b1', ['north', 'south'])], 'b1', true, 1000, 2000],
    [
      'budgets that together cover the company',
      [of('b1', ['north']), of('b2', ['south'])],
      'together x1',
      true,
      1000,
      2000,
    ],
    ['the company', [company('b1')], 'b1', true, 1000, 1000],
  ])('%s', (_, budgets, id, whole, actual, budget) =>
    expect(actualOf(budgets, id)).toEqual({ company: whole, actual, budget, entries: actual }),
  );
  test('with unassigned entries, all named segments are not the company', () => {
    const budgets = [of('b1', ['north', 'south']), of('b2', ['north', 'south', null])];
    expect(actualOf(budgets, 'b1', true)).toMatchObject({ company: false, actual: 700, entries: 700 });
    expect(actualOf(budgets, 'b2', true)).toMatchObject({ company: true, actual: 1000 });
    expect(
      comparisonsAt(groundOf([of('b1', ['north']), of('b2', ['south'])], true), first).map((c) => c.of),
    ).not.toContain('together');
  });
});

describe('what is in force, month by month', () => {
  const every = (amount: number) => byMonth(Object.fromEntries(ids.map((p) => [p, minor(amount)])));
  const plan = (id: string, amount: number) => budgetOf([line('s', every(amount))], id);
  const two = blockOf(accounts, [
    ['2026-01-20', 's', 300],
    ['2026-02-20', 's', 90],
  ]);
  const ground = makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      closedThrough: ids[1]!,
      budgets: [plan('b1', 500), plan('b2', 80)],
      inForce: [
        { budget: 'b1', from: ids[0]! },
        { budget: 'b2', from: ids[1]! },
      ],
    }),
    new Map([[two.id, two]]),
  );
  const figures = (month: number, chosen: string | null = null) => {
    const { table } = reportOf(ground, STANDARD, month, chosen);
    const net = table.rows.find((r) => r.key === 'netProfit')!;
    return ['monthBudget', 'toDateBudget', 'toDateDiff', 'yearBudget', 'yearOutlook'].map((k) =>
      cellOf(table, net, k),
    );
  };

  test('a closed month keeps the plan that ruled it; the months before and after it theirs', () => {
    // February by the revision; the year to date by both; the year as February has it; what came, then 80 a month.
    expect(figures(first + 1)).toEqual([80, 580, 390 - 580, 500 + 11 * 80, 390 + 10 * 80]);
  });
  test('the month before is as it was, but for the outlook, which goes by what is in force ahead', () => {
    expect(figures(first)).toEqual([500, 500, 300 - 500, 12 * 500, 390 + 10 * 80]);
  });
  test('a budget that is chosen is compared by itself', () => {
    expect(figures(first + 1, 'b1')).toEqual([500, 1000, 390 - 1000, 12 * 500, 390 + 10 * 500]);
  });
  test('a place’s budget rules once the other places have theirs', () => {
    const north = of('b3', ['north']);
    const south = of('b4', ['south']);
    const put = (...ids_: string[]) => {
      const own = groundOf([company('b1'), north, south]);
      const inForce = ['b1', ...ids_].map((budget) => ({ budget, from: ids[0]! }));
      return comparisonFor({ ...own, book: { ...own.book, inForce } }, first, null)!;
    };
    expect([put('b3').id, put('b3', 'b4').id, put('b3', 'b4', 'b1').id]).toEqual(['b1', 'together x1', 'b1']);
  });
});
