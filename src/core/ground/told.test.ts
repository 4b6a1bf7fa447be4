import { minor } from '@/core/money';
import { toDayNumber, type Day } from '@/core/calendar';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import { account, bookWith, calendar, periodIds, sourceOf } from '@/core/test/build';
import { makeGround, toldOf } from '.';

const first = calendar.firstOfYear(2026);
const power = account('p', 'expense', 'Power');
type Row = readonly [day: string, party: string, amount: number, reference?: string];

function blockWith(rows: readonly Row[]): LedgerBlock {
  const builder = new BlockBuilder(rows.length);
  rows.forEach(([day, party, amount, reference], i) =>
    builder.add(
      toDayNumber(day as Day),
      0,
      amount,
      i + 2,
      builder.text(party),
      builder.text(reference ?? `r${i}`),
      builder.text(''),
    ),
  );
  return builder.build('l1', ['p']);
}
const told = (rows: readonly Row[], difference: number, change: Partial<typeof power> = {}) => {
  const own = { ...power, ...change };
  const block = blockWith(rows);
  const ground = makeGround(
    bookWith([own], { sources: [sourceOf()], closedThrough: periodIds(2026)[0]! }),
    new Map([[block.id, block]]),
  );
  return toldOf(ground, own, first, minor(difference), null);
};
/** Without what is told of the month's size: few months make every one of them odd. */
const byName = (...of: Parameters<typeof told>) => told(...of).filter((f) => f.of !== 'odd');
const BEFORE: Row[] = [
  ['2025-01-10', 'Grid', 100],
  ['2025-01-20', 'Pump Co', 300],
];

test('who was there a year before and is not now; who came to much more', () => {
  const facts = byName([...BEFORE, ['2026-01-12', 'Grid', 180]], -220);
  expect(facts.map((f) => ('name' in f ? [f.of, f.name] : [f.of]))).toEqual([
    ['missing', 'Pump Co'],
    ['party', 'Grid'],
  ]);
  expect(facts[0]).toMatchObject({ then: 300 });
  expect(facts[1]).toMatchObject({ now: 180, then: 100 });
});

test('who is new is told as well as who is gone', () =>
  expect(
    byName([...BEFORE, ['2026-01-12', 'Grid', 100], ['2026-01-13', 'Sun Co', 500]], 200).map((f) => f.of),
  ).toEqual(['new', 'missing']));

test('names that never come again tell nothing', () =>
  expect(byName([...BEFORE, ['2026-01-12', 'Walk-in 731', 180]], -220)).toEqual([]));

test('the few entries that make most of it, with the rows that they are', () => {
  const rows: Row[] = [
    ['2026-01-03', 'A', 10],
    ['2026-01-04', 'B', 900],
    ['2026-01-05', 'C', 12],
    ['2026-01-06', 'D', 14],
  ];
  expect(told(rows, 500)[0]).toMatchObject({ of: 'few', amount: 900, all: 936, entries: [{ row: 3 }] });
});

test('entries dated just over the month’s end, when the month is short of them', () => {
  const late: Row[] = [
    ['2026-01-10', 'Grid', 50],
    ['2026-02-04', 'Grid', 200],
    ['2026-02-20', 'Grid', 400],
  ];
  expect(told(late, -180).find((f) => f.of === 'late')).toMatchObject({ amount: 200 });
  // A month that is over is short of nothing; the sixth day is too late.
  expect(told(late, 180).some((f) => f.of === 'late')).toBe(false);
  expect(told([late[0]!, ['2026-02-06', 'Grid', 200]], -180).some((f) => f.of === 'late')).toBe(false);
});

test('the same party, reference and amount twice', () => {
  const rows: Row[] = [
    ['2026-01-10', 'Grid', 80, 'INV 7'],
    ['2026-01-11', 'Grid', 80, 'INV 7'],
    ['2026-01-12', 'Grid', 80, 'INV 8'],
  ];
  const twice = told(rows, 100).filter((f) => f.of === 'twice');
  expect(twice).toHaveLength(1);
  expect(twice[0]).toMatchObject({ name: 'Grid', amount: 80 });
});

test('a month outside of what is set as usual', () =>
  expect(
    told([['2026-01-10', 'Grid', 900]], 100, { usual: { low: null, high: minor(500) } }).map((f) => f.of),
  ).toContain('odd'));

test('what is small beside the difference is not told', () =>
  expect(
    byName(
      [
        ['2025-01-10', 'Grid', 100],
        ['2026-01-12', 'Grid', 130],
      ],
      10_000,
    ),
  ).toEqual([]));
