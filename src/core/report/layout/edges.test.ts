import type { PeriodId } from '@/core/calendar';
import { minor } from '@/core/money';
import { makeGround } from '@/core/ground';
import { NO_CASH, type KeptForecast, type Layout, type LayoutColumn, type LayoutSpan } from '@/core/model';
import { beneathTitle, keptId, SHIPPED } from '..';
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
  unphased,
} from '../../test/build';
import { groundWith, reportOf } from '../../test/variance';
import { daySharing } from './days';
import { perUnit } from './quantities';

/* Where one span ends and another begins, and what stands there. */

const first = calendar.firstOfYear(2026);
const ids = periodIds(2026);
const sales = account('s', 'income', 'Sales', '4000');
const wages = account('w', 'expense', 'Wages', '6000');
const bank = account('b', 'bank', 'Bank', '1000');
const column = (show: LayoutColumn['show'], span: LayoutSpan, against: LayoutColumn['against'] = 'first') =>
  ({ show, span, against, hidden: false, unit: '' }) satisfies LayoutColumn;
const layoutOf = (columns: LayoutColumn[], set: Layout['rows']['set'] = 'profitAndLoss'): Layout => ({
  ...SHIPPED[0]!,
  id: 'own',
  filter: 'all',
  rows: { ...SHIPPED[0]!.rows, set },
  columns,
});
/** 1, 2, 4, 8 … from December 2024 on: a sum says which months are in it. */
const bits = makeGround(
  bookWith([sales, bank], { sources: [sourceOf()], closedThrough: '2026-02' as PeriodId }),
  (() => {
    const entries = Array.from({ length: 15 }, (_, i) => {
      const { start } = calendar.period(first - 13 + i);
      return [`${start.slice(0, 8)}05`, 's', 2 ** i] as const;
    });
    const block = blockOf([sales, bank], entries);
    return new Map([[block.id, block]]);
  })(),
);
const read = (columns: LayoutColumn[], month: number, ground = bits, key = 's') => {
  const { table } = reportOf(ground, layoutOf(columns), month);
  return { cells: table.rows.find((r) => r.key === key)!.cells, columns: table.columns };
};

test('twelve months end with the month, and begin eleven before it', () => {
  // December 2024 is bit 0, December 2025 bit 12: January to December 2025 are bits 1 to 12.
  expect(read([column('actual', { of: 'rolling' })], first - 1).cells).toEqual([2 ** 13 - 2]);
  const each = column('actual', { of: 'each', by: 'month', over: 'rolling' });
  expect(read([each], first - 1).cells).toEqual(Array.from({ length: 12 }, (_, i) => 2 ** (i + 1)));
});

test('beside last year alone, last year stands once; beside it and something else, twice', () => {
  const columns = [
    column('actual', { of: 'toDate' }),
    column('compared', { of: 'toDate' }),
    column('compared', { of: 'toDate' }, 'lastYear'),
    column('difference', { of: 'toDate' }, 'lastYear'),
    column('compared', { of: 'rolling' }, 'lastYear'),
  ];
  const keys = (chosen: string | null, ground = bits) =>
    reportOf(ground, layoutOf(columns), first + 1, chosen).table.columns.map((c) => c.key);
  // A difference that no other column shows stays.
  expect(keys('lastYear')).toEqual([
    'toDateActual',
    'toDateBudget',
    'toDateDiffLastYear',
    'rollingBudgetLastYear',
  ]);
  const budget = budgetOf([line('s', byMonth())], 'b1');
  const planned = makeGround({ ...bits.book, budgets: [budget] }, new Map(bits.blocks.map((b) => [b.id, b])));
  expect(keys('b1', planned)).toHaveLength(5);
});

test('F and U are explained once beneath the title, and why segments of a whole budget are blank', () => {
  const budget = budgetOf([line('s', byMonth({ [ids[1]!]: minor(5) }))], 'b1');
  const axis = {
    id: 'x',
    name: 'Site',
    columns: [],
    byAccount: { s: 'n' },
    values: [{ id: 'n', name: 'North', from: [] }],
  };
  const ground = makeGround(
    { ...bits.book, budgets: [budget], axes: [axis] },
    new Map(bits.blocks.map((b) => [b.id, b])),
  );
  const of = (shows: LayoutColumn['show'][]) => {
    const layout = layoutOf(shows.map((show) => column(show, { of: 'month', back: 0 })));
    const across: Layout = { ...layout, segments: { axis: 'x', place: 'across', values: ['n'] } };
    return beneathTitle(reportOf(ground, across, first + 1, 'b1').table, 'USD');
  };
  expect(of(['actual'])).toBe('USD');
  expect(of(['actual', 'compared'])).toBe('USD · compared tells no segments');
  expect(of(['actual', 'sense'])).toBe('USD · sense tells no segments · F and U');
});

test('more columns than anybody reads are refused before they are made, in words with their number', () => {
  const days = { of: 'each', by: 'day', over: 'year' } as const;
  const shows = ['actual', 'compared', 'difference', 'percent'] as const;
  const of = (n: number) =>
    reportOf(bits, layoutOf(shows.slice(0, n).map((show) => column(show, days))), first).table;
  expect([of(3).tooWide, of(3).columns.length]).toEqual([undefined, 3 * 365]);
  expect(of(4)).toMatchObject({ tooWide: 4 * 365, columns: [], rows: [], title: 'Variance' });
});

test('what has no value of the axis has no column where there is nothing of it, and one as soon as there is', () => {
  const axis = {
    id: 'x',
    name: 'Site',
    columns: [],
    byAccount: { s: 'n', b: 'n' } as Record<string, string>,
    values: [{ id: 'n', name: 'North', from: [] }],
  };
  const at = (byAccount: Record<string, string>) => {
    const book = { ...bits.book, axes: [{ ...axis, byAccount }] };
    const ground = makeGround(book, new Map(bits.blocks.map((b) => [b.id, b])));
    const layout = layoutOf([column('actual', { of: 'toDate' })], 'profitStatement');
    return (['across', 'beneath'] as const).map((place) => {
      const { table } = reportOf(
        ground,
        { ...layout, segments: { axis: 'x', place, values: [] } },
        first + 1,
      );
      return [
        table.columns.map((c) => c.scope ?? 'all'),
        table.rows.flatMap((r) => (r.kind === 'detail' ? [r.scope] : [])),
      ];
    });
  };
  expect(at(axis.byAccount)).toEqual([
    [['n', 'all'], []],
    [['all'], ['n']],
  ]);
  expect(at({ b: 'n' })).toEqual([
    [['n', null, 'all'].map((s) => s ?? 'all'), []],
    [['all'], ['n', null]],
  ]);
});

test('twelve months hold twelve, whatever the budget beside them covers; what is compared is of the months of both', () => {
  // Bit 13 is January 2026, bit 14 February: the budget has these two months and those that come.
  const half = budgetOf([line('s', byMonth(Object.fromEntries(ids.map((id) => [id, minor(100)]))))], 'b1');
  const ground = makeGround({ ...bits.book, budgets: [half] }, new Map(bits.blocks.map((b) => [b.id, b])));
  const of = (span: LayoutSpan, show: LayoutColumn['show'] = 'difference') => {
    const columns = [column('actual', span), column('compared', span), column(show, span)];
    const made = read(columns, first + 1, ground);
    return [made.cells, made.columns.map((c) => c.only), made.columns[2]!.formula];
  };
  const [year, both] = [2 ** 15 - 2 ** 3, [first, first + 1]];
  expect(of({ of: 'rolling' })).toEqual([
    [year, 200, 2 ** 13 + 2 ** 14 - 200],
    [undefined, both, both],
    null,
  ]);
  const [from, to] = [calendar.period(first - 10).id, calendar.period(first + 1).id];
  expect(of({ of: 'range', first: from, last: to })[0]).toEqual([year, 200, 2 ** 13 + 2 ** 14 - 200]);
  // Months of actuals beside the year's plan count as far as it has them.
  expect(of({ of: 'rolling' }, 'reached')[0]).toEqual([year, 200, ((2 ** 13 + 2 ** 14) / 200) * 1000]);
});

test('a quarter that is not over goes no further than the months that are asked for', () => {
  const each = { of: 'each', by: 'quarter', over: 'toDate' } as const;
  const ground = groundWith({
    accounts: [sales],
    actual: () => null,
    budget: () => minor(10),
    through: first - 1,
  });
  expect(read([column('compared', each)], first + 1, ground).cells).toEqual([20]);
  expect(read([column('compared', each)], first + 4, ground).cells).toEqual([30, 20]);
});

test('beside a year of which only some months are known, a difference is of those, and follows from nothing shown', () => {
  const toDate = { of: 'toDate' } as const;
  const columns = [
    column('actual', toDate),
    column('compared', toDate, 'lastYear'),
    column('difference', toDate, 'lastYear'),
    column('percent', toDate, 'lastYear'),
  ];
  const entries = [
    ['2025-01-05', 's', 5],
    ['2026-01-05', 's', 10],
    ['2026-02-05', 's', 100],
  ] as const;
  const block = blockOf([sales], entries);
  const book = bookWith([sales], { sources: [sourceOf()], closedThrough: '2026-02' as PeriodId });
  const { cells, columns: made } = read(columns, first + 1, makeGround(book, new Map([[block.id, block]])));
  expect(cells).toEqual([110, 5, 5, 1000]);
  expect(made.map((c) => c.formula)).toEqual([null, null, null, null]);
});

test('a year adds up its months alone where nothing is said of it as a whole, or where that stands beside them', () => {
  const months = column('compared', { of: 'each', by: 'month', over: 'year' });
  const year = column('compared', { of: 'year' });
  const ground = (whole: boolean) =>
    groundWith({
      accounts: [sales, wages],
      actual: () => null,
      budget: () => minor(10),
      whole: (a) => (whole && a === wages ? minor(500) : null),
      through: first - 1,
    });
  const formula = (columns: LayoutColumn[], whole: boolean) =>
    read(columns, first, ground(whole)).columns.at(-1)!.formula;
  expect(formula([months, year], false)).toMatchObject({ op: 'sum' });
  expect(formula([months, year], true)).toBeNull();
  expect(formula([months, column('unphased', { of: 'year' }), year], true)).toMatchObject({
    beyond: 'yearUnphased',
  });
});

test('a budget that begins within a year tells that year as a whole too', () => {
  const half = budgetOf([line('s', unphased(600))], 'b1', { first: '2026-07' as PeriodId, length: 6 });
  const book = bookWith([sales], { sources: [sourceOf()], budgets: [half] });
  const block = blockOf([sales], [['2025-01-05', 's', 1]]);
  const ground = makeGround(book, new Map([[block.id, block]]));
  expect(read([column('compared', { of: 'year' })], first + 7, ground).cells).toEqual([600]);
});

test('a total of zeros is zero, one of blanks blank', () => {
  const ground = (value: number | null) =>
    groundWith({
      accounts: [sales, wages],
      actual: () => (value === null ? null : minor(value)),
      budget: () => null,
      through: first,
    });
  expect(read([column('actual', { of: 'toDate' })], first, ground(0), 'netProfit').cells).toEqual([0]);
  expect(read([column('actual', { of: 'toDate' })], first, ground(null), 'netProfit').cells).toEqual([null]);
});

test('entries of a week’s first and last day are in it; a holiday has no part of a budget', () => {
  const each = { of: 'each', by: 'week', over: 'month' } as const;
  const block = blockOf(
    [sales],
    [
      ['2026-01-01', 's', 1],
      ['2026-01-31', 's', 2],
    ],
  );
  const book = bookWith([sales], { sources: [sourceOf()], closedThrough: '2026-01' as PeriodId });
  const { cells } = read([column('actual', each)], first, makeGround(book, new Map([[block.id, block]])));
  expect([cells[0], cells.at(-1)]).toEqual([1, 2]);
  const share = daySharing(
    calendar,
    { weekdays: [1, 2, 3, 4, 5], holidays: ['2026-01-01' as never] },
    'working',
  );
  const parts = share(first, minor(2100), null);
  expect(parts.slice(0, 2)).toEqual([0, 100]);
});

describe('a kept forecast in place of a budget of cash', () => {
  // From 10 January on for 60 days: February is told whole, January and March in part.
  const kept: KeptForecast = {
    id: 'k1',
    name: 'Spring',
    at: '2026-01-10T00:00:00.000Z' as never,
    by: '',
    start: '2026-01-10' as never,
    days: 60,
    opening: minor(1000),
    sources: [
      // Days 0, 21 and 48 are 11 January, 1 February and 28 February; day 49 is 1 March.
      { source: 'newSales', days: [0, 21, 48, 49], amounts: [1, 10, 100, 1000].map(minor) },
      { source: 'payroll', days: [30], amounts: [minor(-7)] },
    ],
  };
  const block = blockOf(
    [sales, bank],
    [
      ['2026-02-05', 's', 50],
      ['2026-02-05', 'b', 50],
    ],
  );
  const ground = makeGround(
    bookWith([sales, bank], {
      sources: [sourceOf()],
      closedThrough: '2026-02' as PeriodId,
      cash: { ...NO_CASH, kept: [kept] },
    }),
    new Map([[block.id, block]]),
  );
  const cash = layoutOf(
    [
      column('actual', { of: 'month', back: 0 }),
      column('compared', { of: 'month', back: 0 }),
      column('difference', { of: 'month', back: 0 }),
    ],
    'cash',
  );
  const at = (month: number, layout = cash) => {
    const { table } = reportOf(ground, layout, month, keptId('k1'));
    return Object.fromEntries(table.rows.map((r) => [r.label, [...r.cells]]));
  };
  test('of a month all of whose days it tells', () => {
    expect(at(first + 1)).toMatchObject({
      'Opening balance': [0, 1001, -1001],
      // The two rows have no reference in common: whose money it was is not known.
      'From customers': [0, 110, -110],
      Other: [50, 0, 50],
      Pay: [0, -7, 7],
      'Closing balance': [50, 1104, -1054],
    });
  });
  test('not of one that it tells in part', () => {
    for (const month of [first, first + 2]) expect(at(month)['From customers']![1]).toBeNull();
  });
  test('of cash alone', () => {
    const { table } = reportOf(ground, layoutOf(cash.columns), first + 1, keptId('k1'));
    expect(table.rows.find((r) => r.key === 's')!.cells[1]).toBeNull();
  });
});

test('a segment that a budget plans without entries of it is shown all the same', () => {
  const axis = {
    id: 'x',
    name: 'Site',
    columns: [],
    values: [{ id: 'n', name: 'North', from: [] }],
    byAccount: { s: 'n' },
  };
  const plan = (segment: string | null) => ({ ...line('s', byMonth({ ['2026-01']: minor(5) })), segment });
  const budget = budgetOf([plan('n'), plan(null)], 'b1', { axis: 'x', segments: ['n', null] });
  const block = blockOf([sales], [['2026-01-05', 's', 1]]);
  const book = bookWith([sales], {
    sources: [sourceOf()],
    axes: [axis],
    budgets: [budget],
    closedThrough: '2026-01' as PeriodId,
  });
  const layout = {
    ...layoutOf([column('compared', { of: 'month', back: 0 })]),
    segments: { axis: 'x', place: 'across', values: [] },
  } as Layout;
  const { table } = reportOf(makeGround(book, new Map([[block.id, block]])), layout, first, 'b1');
  expect(table.columns.map((c) => c.key)).toEqual(['n:monthBudget', 'none:monthBudget', 'monthBudget']);
  expect(table.rows.find((r) => r.key === 's')!.cells).toEqual([5, 5, 10]);
});

test('an amount per unit divides by the quantity, not by its digits', () => {
  // 10.00 over 2.5 units.
  expect(perUnit(minor(1000), 25, 1)).toBe(400);
  expect([perUnit(minor(1000), 0, 1), perUnit(null, 25, 1), perUnit(minor(1000), null, 1)]).toEqual([
    null,
    null,
    null,
  ]);
});

test('a heading of someone’s own stands over lines that are shown, and over other headings', () => {
  const own = [
    { row: 'heading', name: 'Nothing here' },
    { row: 'account', account: 'w' },
    { row: 'heading', name: 'Money' },
    { row: 'heading', name: 'In' },
    { row: 'account', account: 's' },
  ] as Layout['rows']['own'];
  const base = layoutOf([column('actual', { of: 'toDate' })]);
  const layout: Layout = { ...base, filter: 'withFigures', rows: { ...base.rows, own } };
  const ground = groundWith({
    accounts: [sales, wages],
    actual: (a) => (a === sales ? minor(5) : null),
    budget: () => null,
    through: first,
  });
  expect(reportOf(ground, layout, first).table.rows.map((r) => r.label)).toEqual(['Money', 'In', 'Sales']);
});
