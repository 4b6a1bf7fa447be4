import { minor, percent } from '@/core/money';
import type { Book, Budget } from '@/core/model';
import { createMemory, makeGround, reckoned } from '.';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  lastYear,
  line,
  periodIds,
  siteAxis,
  sourceOf,
} from '@/core/test/build';
import { sameMonths, yearBefore, yearsTo } from './yearBefore';

const accounts = [account('s', 'income', 'Sales'), account('r', 'expense', 'Rent')];
const ids = periodIds(2026);
const next = calendar.period(calendar.firstOfYear(2027)).id;
/** 2025 whole, and four months of 2026, of which three are closed. */
const block = blockOf(accounts, [
  ...Array.from({ length: 12 }, (_, i) => [`2025-${String(i + 1).padStart(2, '0')}-10`, 's', 10] as const),
  ...[1, 2, 3, 4].map((m) => [`2026-0${m}-10`, 's', m * 100] as const),
]);
const all = (value: number) => byMonth(Object.fromEntries(ids.map((p) => [p, minor(value)])));
const running = budgetOf([line('s', all(7)), line('r', all(3))], 'b1');
const planned = budgetOf([line('s', lastYear())], 'b2', { first: next });
function told(budget: Budget, others: readonly Budget[], change: Partial<Book> = {}) {
  const book = bookWith(accounts, {
    sources: [sourceOf()],
    closedThrough: ids[2]!,
    budgets: [...others, budget],
    ...change,
  });
  const ground = makeGround(book, new Map([[block.id, block]]));
  return yearBefore(ground, reckoned(ground, budget));
}

test('a year that is closed is what it was', () => {
  const before = told(budgetOf([], 'b9'), []);
  expect([before.year, before.as]).toEqual(['FY25', 'actual']);
  expect(before.of('s', 'all')).toEqual(new Array(12).fill(10));
  expect(before.method(percent('3'))).toMatchObject({ from: { of: 'actuals', years: 1 }, uplift: '3' });
});

test('one that is running is its outlook: closed months as they were, the rest as planned', () => {
  const before = told(planned, [running]);
  expect([before.year, before.as]).toEqual(['FY26', 'outlook']);
  expect(before.of('s', 'all')).toEqual([100, 200, 300, ...new Array<number>(9).fill(7)]);
  // Nothing was booked of the rent: closed months are blank, not planned.
  // Closed and silent, with a line: it came to nothing.
  expect(before.of('r', null)).toEqual([0, 0, 0, ...new Array<number>(9).fill(3)]);
});

test('a line takes it over as it stands there', () => {
  const before = told(planned, [running]);
  const method = before.method(percent('10'), 10);
  expect(method).toMatchObject({ from: { of: 'outlook', budget: 'b1', years: 1 }, round: 10 });
  const taking = { ...planned, lines: [line('s', before.method(percent('10')))] };
  const ground = makeGround(
    bookWith(accounts, { sources: [sourceOf()], closedThrough: ids[2]!, budgets: [running, taking] }),
    new Map([[block.id, block]]),
  );
  expect(reckoned(ground, taking).amounts('s')!.slice(0, 5)).toEqual([110, 220, 330, 8, 8]);
});

test('without a budget of that year there are only its closed months, and it says how many', () => {
  const before = told(planned, []);
  expect([before.as, before.of('s', 'all').slice(0, 5)]).toEqual(['actual', [100, 200, 300, null, null]]);
  expect([before.label, before.all, sameMonths(before, [1, 2, 3, 4, 5])]).toEqual([
    'FY26 actual, 3 months',
    false,
    [1, 2, 3],
  ]);
});

test('what stands in: a budget that its own lines follow, else the latest that is not superseded', () => {
  const second = { ...running, id: 'b3', lines: [line('s', all(8))] };
  const gone: Budget = { ...running, id: 'b4', state: 'superseded', lines: [line('s', all(9))] };
  const july = (b: ReturnType<typeof told>) => b.of('s', 'all')[6];
  expect(july(told(planned, [running, second, gone]))).toBe(8);
  const following = {
    ...planned,
    lines: [line('s', lastYear({ from: { of: 'outlook', budget: 'b1', years: 1 } }))],
  };
  expect(july(told(following, [running, second, gone]))).toBe(7);
});

test('of two years the second has nothing before it but itself', () => {
  const before = told({ ...planned, length: 24 }, [running]);
  expect([before.year, before.of('s', 'all').slice(11, 14)]).toEqual(['FY26–27', [7, null, null]]);
});

describe('by segment', () => {
  const axis = siteAxis({ s: 'n' });
  const own = { axis: 'x', segments: ['n', null] };
  const bySite = budgetOf([line('s', all(7), {}, 'n'), line('s', all(1), {}, null)], 'b5', own);
  test('each has its own part, and all of them the whole', () => {
    const before = told({ ...planned, ...own }, [bySite], { axes: [axis] });
    expect([before.of('s', 'n')[5], before.of('s', null)[5], before.of('s', 'all')[5]]).toEqual([7, 1, 8]);
    expect([before.of('s', 'n')[0], before.of('s', null)[0]]).toEqual([100, 0]);
  });
  test('a budget without segments stands in for none of them, one with them for the whole', () => {
    expect(told({ ...planned, ...own }, [running], { axes: [axis] }).as).toBe('actual');
    expect(told(planned, [bySite], { axes: [axis] }).of('s', 'all')[5]).toBe(8);
  });
});

test.each<[string, Partial<Budget>, number]>([
  ['the same months', { first: ids[0]! }, 0],
  ['the same months, begun a year before', { first: periodIds(2025)[0]!, length: 24 }, 0],
  ['the year before', { first: periodIds(2025)[0]! }, 1],
  ['the year before, begun two years before', { first: periodIds(2024)[0]!, length: 24 }, 1],
  ['the end of the year before', { first: periodIds(2025)[6]!, length: 6 }, 1],
  ['three years before', { first: periodIds(2023)[0]! }, 3],
  ['later months', { first: next }, 0],
])('months are taken from another budget of %s', (_, other, years) =>
  expect(yearsTo(calendar, calendar.firstOfYear(2026), budgetOf([], 'b', other))).toBe(years),
);

test('it is the same object until something of it changes, so that nothing is drawn again', () => {
  const book = bookWith(accounts, {
    sources: [sourceOf()],
    closedThrough: ids[2]!,
    budgets: [running, planned],
  });
  const blocks = new Map([[block.id, block]]);
  const memory = createMemory();
  const ground = makeGround(book, blocks, memory);
  const first = yearBefore(ground, reckoned(ground, planned));
  const typed = { ...planned, lines: [line('s', lastYear(), { [next]: minor(5) })] };
  const after = makeGround({ ...book, budgets: [running, typed] }, blocks, memory);
  expect(yearBefore(ground, reckoned(ground, planned))).toBe(first);
  expect(yearBefore(after, reckoned(after, typed))).toBe(first);
});
