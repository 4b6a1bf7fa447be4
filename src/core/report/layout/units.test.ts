import type { Driver, OverMonths } from '@/core/model';
import { account, calendar, driver, periodIds } from '../../test/build';
import { groundWith, reportOf } from '../../test/variance';
import { cellOf, fileTable } from '../table';
import { shippedLayout } from './shipped';
import { overMonths } from './quantities';
import { budgetOf } from '../../test/build';

/* Quantities over several months. That hours add up, that members are an average or a closing count, and that prices do
   neither is a fact of the trade (common practice; a flow against a stock in statistics of national accounts). */

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);

test.each<[OverMonths | null, readonly (number | null)[], number | null]>([
  ['sum', [10, null, 20], 30],
  ['mean', [10, null, 21], 16],
  ['mean', [-10, -21], -16],
  ['last', [10, 20, null], 20],
  ['none', [10, 20], null],
  ['none', [10], 10],
  [null, [10, 20], null],
  [null, [10], 10],
  ['sum', [null, null], null],
  ['last', [], null],
])('%s of %j is %s', (over, values, expected) => expect(overMonths(over, values)).toBe(expected));

/** Months of 2026 as typed values of a driver. */
const typed = (name: string, values: readonly (number | null)[]): Driver => ({
  ...driver(name, {
    kind: 'typed',
    values: Object.fromEntries(values.flatMap((v, i) => (v === null ? [] : [[ids[i]!, v]]))),
  }),
  name,
});
const COUNTED: readonly [
  string,
  OverMonths | undefined,
  readonly (number | null)[],
  readonly (number | null)[],
][] = [
  // name, how it goes over months, planned, counted
  ['Hours', 'sum', [10, 10, 10, 10], [12, 11, 9]],
  ['Hours begun late', 'sum', [10, 10, 10, 10], [null, 11, 9]],
  ['Lessons', 'sum', [null, 10, 10], [null, 12, 12]],
  ['Members', 'last', [100, 100, 100, 100], [101, 103, 98]],
  ['Berths', 'mean', [40, 42, 44, 44], [40, 41, 45]],
  ['Price', 'none', [5, 5, 5, 5], [6, 6, 7]],
  ['Not said', undefined, [1, 2, 3, 4], [1, 2, 4]],
];
const ground = groundWith({
  accounts: [account('s', 'income')],
  actual: () => null,
  budget: () => null,
  through: first + 2,
  change: {
    budgets: [budgetOf([], 'b1', { drivers: COUNTED.map(([name, , plan]) => typed(name, plan)) })],
    quantities: COUNTED.map(([name, over, , counts]) => ({
      name,
      unit: '',
      decimals: 0,
      values: Object.fromEntries(counts.flatMap((v, i) => (v === null ? [] : [[ids[i]!, v]]))),
      ...(over && { over }),
    })),
  },
});

test('units over a year to date: each as it goes; what was not counted is blank and makes no difference', () => {
  const { table } = reportOf(ground, shippedLayout('std-units')!, first + 2, 'b1');
  const read = (label: string) => {
    const row = table.rows.find((r) => r.label === label)!;
    return ['monthActual', 'monthDiff', 'toDateActual', 'toDateBudget', 'toDateDiff'].map((key) =>
      cellOf(table, row, key),
    );
  };
  expect(COUNTED.map(([name]) => [name, ...read(name)])).toEqual([
    ['Hours', 9, -1, 32, 30, 2],
    ['Hours begun late', 9, -1, null, 30, null],
    ['Lessons', 12, 2, 24, 20, 4],
    ['Members', 98, -2, 98, 100, -2],
    ['Berths', 45, 1, 42, 42, 0],
    ['Price', 7, 2, null, null, null],
    ['Not said', 4, 1, null, null, null],
  ]);
  // No file adds up what does not add up.
  const rows = fileTable(table, true).rows.filter((r) => ['Price', 'Members', 'Hours'].includes(r.label));
  expect(rows.map((r) => [r.label, r.addsUp ?? true])).toEqual([
    ['Hours', true],
    ['Members', true],
    ['Price', false],
  ]);
});

test('a month without a count is no fall to nothing', () => {
  const { table } = reportOf(ground, shippedLayout('std-units')!, first, 'b1');
  const row = table.rows.find((r) => r.label === 'Hours begun late')!;
  expect(
    ['monthActual', 'monthBudget', 'monthDiff', 'monthPercent'].map((k) => cellOf(table, row, k)),
  ).toEqual([null, 10, null, null]);
});
