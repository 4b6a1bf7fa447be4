import { minor } from '@/core/money';
import type { OutlookWay } from '@/core/model';
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
import { makeGround, outlookMonths, reckoned } from '.';

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const accounts = [account('s', 'income', 'Sales')];
/** Last year 100 a month but 300 in July; this year 120, 130, 140 so far; 110 planned. */
const block = blockOf(accounts, [
  ...Array.from(
    { length: 12 },
    (_, i) => [`2025-${String(i + 1).padStart(2, '0')}-10`, 's', i === 6 ? 300 : 100] as const,
  ),
  ['2026-01-10', 's', 120],
  ['2026-02-10', 's', 130],
  ['2026-03-10', 's', 140],
]);
const months = (way: OutlookWay | null, axis: string | null = null) => {
  const budget = budgetOf([line('s', byMonth(Object.fromEntries(ids.map((p) => [p, minor(110)]))))], 'b1', {
    axis,
  });
  const ground = makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      closedThrough: ids[2]!,
      budgets: [budget],
      outlookWays: way ? { b1: { s: way } } : {},
      varianceNotes: {
        [ids[2]!]: {
          s: {
            text: '',
            against: 'b1',
            parts: [{ kind: 'lasting', amount: null, monthly: minor(5), until: null }],
            at: '',
          },
        },
      },
    }),
    new Map([[block.id, block]]),
  );
  return outlookMonths(reckoned(ground, budget), 's', [null]);
};

test.each<[string, OutlookWay | null, number[]]>([
  ['as planned, with what explanations carry on', null, [120, 130, 140, 115, 115]],
  ['as the last three months on average', { kind: 'runRate', months: 3 }, [120, 130, 140, 130, 130]],
  ['as the last twelve', { kind: 'runRate', months: 12 }, [120, 130, 140, 124, 124]],
  ['as more months than there are', { kind: 'runRate', months: 36 }, [120, 130, 140, 119, 119]],
  [
    'as typed, and as planned where nothing is',
    { kind: 'typed', amounts: { [ids[4]!]: minor(7) } },
    [120, 130, 140, 115, 7],
  ],
])('%s', (_n, way, expected) => expect(months(way).slice(0, 5)).toEqual(expected));

test('as last year’s months at this year’s level: 390 so far beside 300', () =>
  expect(months({ kind: 'lastYear' }).slice(3, 8)).toEqual([130, 130, 130, 390, 130]));

test('where last year says nothing of the level, it is as planned', () => {
  const none = blockOf(accounts, [['2026-01-10', 's', 120]]);
  const budget = budgetOf([line('s', byMonth({ [ids[5]!]: minor(9) }))], 'b1');
  const ground = makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      closedThrough: ids[0]!,
      budgets: [budget],
      outlookWays: { b1: { s: { kind: 'lastYear' } } },
    }),
    new Map([[none.id, none]]),
  );
  expect(outlookMonths(reckoned(ground, budget), 's', [null])[5]).toBe(9);
  expect(first).toBe(calendar.firstOfYear(2026));
});
