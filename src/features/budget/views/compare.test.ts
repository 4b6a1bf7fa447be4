import { minor } from '@/core/money';
import type { Budget } from '@/core/model';
import { makeGround } from '@/core/ground';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  line,
  periodIds,
  phased,
  siteAxis,
  unphased,
} from '@/core/test/build';
import { compareBudgets, differs } from './compare';

const accounts = [
  account('s', 'income', 'Sales', '4000'),
  account('r', 'expense', 'Rent', '6000'),
  account('bank', 'bank', 'Bank', '1000'),
];
const ids = periodIds(2026);
const axis = siteAxis();
const months = (amounts: Readonly<Record<number, number>>) =>
  byMonth(Object.fromEntries(Object.entries(amounts).map(([i, v]) => [ids[Number(i)]!, minor(v)])));
function compared(other: Budget, budget: Budget) {
  const ground = makeGround(bookWith(accounts, { axes: [axis], budgets: [other, budget] }), new Map());
  const { rows, months: shared } = compareBudgets(ground, other, budget);
  return { shared: shared.map((p) => p.id), row: (label: string) => rows.find((r) => r.label === label)! };
}

test('totals, each month’s change, and results with the sign of profit', () => {
  const { row, shared } = compared(
    budgetOf([line('s', months({ 0: 100, 1: 100 })), line('r', months({ 0: 30 }))], 'a'),
    budgetOf([line('s', months({ 0: 150, 1: 90 })), line('r', months({ 0: 40 }))], 'b'),
  );
  expect(shared).toEqual(ids);
  expect(row('Sales')).toMatchObject({ left: 200, right: 240, change: 40, code: '4000', ways: [] });
  expect(row('Sales').months.slice(0, 3)).toEqual([50, -10, 0]);
  expect(row('Net profit')).toMatchObject({ left: 170, right: 200, change: 30 });
  expect(row('Net profit').months.slice(0, 2)).toEqual([40, -10]);
});

test('a line that only moved from month to month differs, though its total does not', () => {
  const { row } = compared(
    budgetOf([line('s', months({ 0: 100 })), line('r', months({ 0: 5 }))], 'a'),
    budgetOf([line('s', months({ 11: 100 })), line('r', months({ 0: 5 }))], 'b'),
  );
  expect(row('Sales')).toMatchObject({ change: 0, ways: [] });
  expect([differs(row('Sales')), differs(row('Rent'))]).toEqual([true, false]);
});

test('how a line is made, typed months and lines of one of the two are told', () => {
  const { row } = compared(
    budgetOf([line('s', phased(1200)), line('r', phased(120))], 'a'),
    budgetOf([line('s', phased(1200), { [ids[0]!]: minor(100) })], 'b'),
  );
  expect(row('Sales').ways).toEqual([{ segment: null, from: 'Even', to: 'Even, typed over' }]);
  expect(row('Rent').ways).toEqual([{ segment: null, from: 'Even', to: 'no line' }]);
  expect(row('Rent').right).toBeNull();
});

test('budgets of other months: each has its own total, and only the months of both are set against each other', () => {
  const { row, shared } = compared(
    budgetOf([line('s', months({ 0: 1, 1: 2, 2: 3, 3: 4 }))], 'a', { length: 4 }),
    budgetOf([line('s', months({ 2: 13, 3: 14, 4: 15 }))], 'b', { first: ids[2]!, length: 10 }),
  );
  expect(shared).toEqual([ids[2], ids[3]]);
  expect(row('Sales')).toMatchObject({ left: 10, right: 42, months: [10, 10] });
});

test('years that have no month in common stand side by side by their totals alone', () => {
  const next = calendar.period(calendar.firstOfYear(2027)).id;
  const { row, shared } = compared(
    budgetOf([line('s', months({ 0: 7 }))], 'a'),
    budgetOf([line('s', phased(1200))], 'b', { first: next }),
  );
  expect([shared, row('Sales').months, row('Sales').change]).toEqual([[], [], 1193]);
});

test('an amount of the year without months counts in the total and in no month', () => {
  const { row } = compared(
    budgetOf([line('s', unphased(500))], 'a'),
    budgetOf([line('s', unphased(800))], 'b'),
  );
  expect(row('Sales')).toMatchObject({ left: 500, right: 800, change: 300 });
  expect(row('Sales').months.every((m) => m === 0)).toBe(true);
});

test('by segment each one’s way is told; of different axes none is', () => {
  const segmented = (id: string, north: ReturnType<typeof phased>) =>
    budgetOf([line('s', north, {}, 'n'), line('s', phased(12), {}, null)], id, {
      axis: 'x',
      segments: ['n', null],
    });
  const { row } = compared(
    segmented('a', phased(1200)),
    segmented('b', phased(1200, { by: { by: 'days' } })),
  );
  expect(row('Sales').ways).toEqual([{ segment: 'North', from: 'Even', to: expect.any(String) as string }]);
  expect(row('Sales').change).toBe(0);
  const whole = compared(segmented('a', phased(1200)), budgetOf([line('s', months({ 0: 1 }))], 'c'));
  expect(whole.row('Sales')).toMatchObject({ left: 1212, right: 1, ways: [] });
});

test('where one plans balances, both statements are there, a balance by its last month', () => {
  const { row } = compared(
    budgetOf([line('s', months({ 0: 1 }))], 'a'),
    budgetOf([line('s', months({ 0: 1 })), line('bank', months({ 0: 70, 11: 90 }))], 'b', { covers: 'both' }),
  );
  expect(row('Bank')).toMatchObject({ left: null, right: 90, change: 90 });
  expect(differs(row('Total income'))).toBe(false);
});
