import fc from 'fast-check';
import { minor } from '@/core/money';
import { toDayNumber, type Day } from '@/core/calendar';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import type { Line } from '@/core/model';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  lastYear,
  line,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { comparisonFor } from './comparison';
import { makeGround, toldOf } from '.';

/* Why a month came to something else than its budget. That a variance is taken apart into quantity × planned price and
   quantity × change of price is the textbooks' (C. Horngren, S. Datar, M. Rajan, "Cost Accounting"); that a month may have
   three biweekly paydays, that rents come every month and that an invoice can be entered twice are common practice. */

const first = calendar.firstOfYear(2026);
const ids = periodIds(2026);
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

/** What is told of a month of 2026 (0: January) whose line is made so. */
function told(
  rows: readonly Row[],
  method: Line['method'],
  month = 0,
  change: { usual?: (typeof power)['usual']; overrides?: Line['overrides'] } = {},
) {
  const own = { ...power, ...(change.usual !== undefined && { usual: change.usual }) };
  const block = blockWith(rows);
  const of = { ...line('p', method), overrides: change.overrides ?? {} };
  const budget = budgetOf([of], 'b1');
  const ground = makeGround(
    bookWith([own], { sources: [sourceOf()], closedThrough: ids[11]!, budgets: [budget] }),
    new Map([[block.id, block]]),
  );
  const comparison = comparisonFor(ground, first + month, 'b1');
  const at = (p: number) =>
    rows.filter(([d]) => d.startsWith(calendar.period(p).start.slice(0, 7))).reduce((t, r) => t + r[2], 0);
  const planned = plannedOf(method, change.overrides ?? {}, month, at);
  const difference = minor(at(first + month) - planned);
  return { ...toldOf(ground, own, first + month, difference, comparison, 'plan'), difference, ground, own };
}

/** What the two methods of these tests plan of a month, in plain sums. */
function plannedOf(
  method: Line['method'],
  overrides: Line['overrides'],
  month: number,
  at: (p: number) => number,
): number {
  const typed = overrides[ids[month]!];
  if (typed !== undefined) return typed ?? 0;
  if (method.kind === 'byMonth') return method.amounts[ids[month]!] ?? 0;
  if (method.kind === 'occurrence') return PAYDAYS[month]! * method.amount;
  return at(first + month - 12);
}

/** Every other Friday from January 2, 2026: three paydays in January and in July. */
const PAYDAYS = [3, 2, 2, 2, 2, 2, 3, 2, 2, 2, 2, 2];
const even = (amount: number) => byMonth(Object.fromEntries(ids.map((p) => [p, minor(amount)])));
const short = (t: ReturnType<typeof told>) =>
  t.parts.map((p) => [p.of, 'name' in p ? p.name : '', p.amount] as const);

/** A rent of 500 on each first, from July 2025 on. */
const RENT: Row[] = ['07', '08', '09', '10', '11', '12'].map((m) => [`2025-${m}-01`, 'Quay Estates', 500]);

describe('who comes every month', () => {
  test('and did not: as much as it is as a rule; the rent of the next first is no news of this month', () => {
    const t = told([...RENT, ['2026-01-14', 'Grid', 80], ['2026-02-01', 'Quay Estates', 500]], even(600));
    expect(short(t)).toEqual([
      ['missing', 'Quay Estates', -500],
      ['rest', '', -20],
    ]);
    expect(t.parts[0]).toMatchObject({ each: 500, came: 0, planned: 1, on: null });
  });
  test('and stands in the month beside it, which has one more than as a rule', () => {
    const late: Row[] = [
      ['2026-02-01', 'Quay Estates', 500],
      ['2026-02-27', 'Quay Estates', 500],
    ];
    expect(told([...RENT, ...late], even(500)).parts[0]).toMatchObject({
      of: 'missing',
      on: '2026-02-01',
      entries: [{ day: '2026-02-01' }, { day: '2026-02-27' }],
    });
    const early: Row[] = [['2025-12-30', 'Quay Estates', 500]];
    expect(told([...RENT, ...early], even(500)).parts[0]).toMatchObject({ on: '2025-12-30' });
  });
  test('came twice, since the month before lacks it; or once more', () => {
    const twice: Row[] = [
      ['2026-01-02', 'Quay Estates', 500, 'A'],
      ['2026-01-30', 'Quay Estates', 500, 'B'],
    ];
    const missed = RENT.filter(([d]) => !d.startsWith('2025-12'));
    expect(told([...missed, ...twice], even(500)).parts).toMatchObject([
      { of: 'extra', because: 'late', times: 2, planned: 1, amount: 500 },
    ]);
    expect(told([...RENT, ...twice], even(500)).parts).toMatchObject([{ of: 'extra', because: 'more' }]);
    const same = twice.map(([d, n, a]): Row => [d, n, a, 'INV 7']);
    expect(told([...RENT, ...same], even(500)).parts).toMatchObject([
      { of: 'extra', because: 'twice', amount: 500, entries: [{ row: 8 }, { row: 9 }] },
    ]);
  });
  test('is no habit when it is twice as much each time, comes anew, came half of the time, or missed two months of six', () => {
    const wild = RENT.map(([d, n], i): Row => [d, n, 200 + 150 * i]);
    const anew = RENT.slice(-2);
    const half = RENT.filter((_, i) => i % 2 === 0);
    const gaps = RENT.filter(([d]) => !/-(09|11)-/.test(d));
    for (const rows of [wild, anew, half, gaps])
      expect(told([...rows, ['2026-01-14', 'Grid', 80]], even(600)).parts.map((p) => p.of)).toEqual(['rest']);
  });
});

describe('paydays', () => {
  const pay: Line['method'] = {
    kind: 'occurrence',
    amount: minor(1000),
    on: { of: 'weeks', every: 2, from: '2026-01-02' as Day },
  };
  /** Paid on every other Friday from July 2025 on. */
  const paid = Array.from({ length: 30 }, (_, i): Row => {
    const day = new Date(Date.UTC(2025, 6, 4 + 14 * i)).toISOString().slice(0, 10);
    return [day, 'Payroll', 1000];
  });
  test('three are as planned where three are planned', () => {
    const t = told(paid, pay);
    expect([t.difference, t.parts]).toEqual([0, []]);
  });
  test('one that was paid a day early stands in the month before', () => {
    const moved = paid.map((r): Row => (r[0] === '2026-01-02' ? ['2025-12-31', 'Payroll', 1000] : r));
    expect(told(moved, pay).parts).toMatchObject([
      { of: 'missing', came: 2, planned: 3, on: '2025-12-31', amount: -1000 },
    ]);
  });
  test('a third where the plan goes by a month of two', () => {
    const rows: Row[] = [
      ...paid.filter(([d]) => d < '2026-01-01'),
      ...[10, 24].map((d): Row => [`2025-01-${d}`, 'Payroll', 1000]),
      ...['02', '16', '30'].map((d): Row => [`2026-01-${d}`, 'Payroll', 1010]),
    ];
    const t = told(rows, lastYear());
    expect(t.parts).toMatchObject([
      { of: 'extra', times: 3, planned: 2, amount: 1010 },
      { of: 'rest', amount: 20 },
    ]);
    expect(t.basis).toBe(first - 12);
  });
});

describe('by the month that the plan goes by', () => {
  const jobs = (year: number, sizes: readonly number[]): Row[] =>
    sizes.map((s, i) => [`${year}-01-${10 + i}`, `Walk-in ${year}-${i}`, s]);
  test('fewer and smaller entries: number at planned size, then size', () => {
    const t = told([...jobs(2025, [100, 200, 300, 400]), ...jobs(2026, [100, 200])], lastYear());
    // 2 instead of 4 at 250 are −500; 2 × (150 − 250) are −200.
    expect(t.parts).toMatchObject([
      { of: 'number', now: 2, planned: 4, each: 250, amount: -500 },
      { of: 'size', count: 2, each: 150, planned: 250, amount: -200 },
    ]);
  });
  test('people who come again: who came to more, who to nothing, who is new', () => {
    const names = (year: number, of: Record<string, number>): Row[] =>
      Object.entries(of).map(([n, a], i) => [`${year}-01-1${i}`, n, a]);
    const t = told(
      [...names(2025, { Grid: 600, Pump: 300, Gas: 100 }), ...names(2026, { Grid: 900, Gas: 100, Sun: 50 })],
      lastYear(),
    );
    expect(short(t)).toEqual([
      ['name', 'Grid', 300],
      ['name', 'Pump', -300],
      ['name', 'Sun', 50],
    ]);
    expect(t.parts[1]).toMatchObject({ now: 0, planned: 300, entries: [{ day: '2025-01-11' }] });
  });
  test('as many entries of the same one: each beside its like', () => {
    const t = told(
      [
        ['2025-01-04', 'Grid', 100],
        ['2025-01-15', 'Grid', 200],
        ['2026-01-04', 'Grid', 104],
        ['2026-01-15', 'Grid', 390],
      ],
      lastYear(),
    );
    expect(t.parts).toMatchObject([
      { of: 'entry', day: '2026-01-15', size: 390, planned: 200, amount: 190 },
      { of: 'rest', amount: 4, count: 2, all: false },
    ]);
  });
  test('a large one that did not come again, or stands a month later', () => {
    const rows: Row[] = [
      ['2025-01-20', 'Dredger', 900],
      ['2025-01-04', 'Grid', 100],
      ['2026-01-04', 'Grid', 100],
    ];
    expect(told(rows, lastYear()).parts).toMatchObject([
      { of: 'lump', name: 'Dredger', on: null, amount: -900 },
    ]);
    expect(told([...rows, ['2026-02-02', 'Dredger', 950]], lastYear()).parts[0]).toMatchObject({
      of: 'lump',
      then: '2025-01-20',
      on: '2026-02-02',
    });
  });
  test('what was typed goes by no month', () => {
    const rows = [...jobs(2025, [100, 200, 300, 400]), ...jobs(2026, [100, 200])];
    const t = told(rows, lastYear(), 0, { overrides: { [ids[0]!]: minor(1000) } });
    expect([t.basis, t.parts.map((p) => p.of)]).toEqual([null, ['rest']]);
  });
});

test('an entry beyond all of the year before stands in the place of a planned one; the rest is told beside it', () => {
  const year = Array.from({ length: 11 }, (_, i): Row => [
    `2025-${String(i + 2).padStart(2, '0')}-10`,
    `W${i}`,
    100,
  ]);
  const rows: Row[] = [
    ...year,
    ...[10, 11, 12].map((d): Row => [`2025-01-${d}`, `V${d}`, 100]),
    ['2026-01-05', 'Harbor Crane', 700],
    ['2026-01-06', 'X', 60],
    ['2026-01-07', 'Y', 60],
  ];
  expect(told(rows, lastYear()).parts).toMatchObject([
    { of: 'unusual', name: 'Harbor Crane', size: 700, usual: 100, amount: 600, entries: [{ row: 16 }] },
    { of: 'size', count: 2, each: 60, planned: 100, amount: -80 },
  ]);
  // One and a half times the largest is not beyond it.
  const near = rows.map((r): Row => (r[1] === 'Harbor Crane' ? [r[0], r[1], 150] : r));
  expect(told(near, lastYear()).parts.some((p) => p.of === 'unusual')).toBe(false);
});

test('nothing booked, nothing planned, and entries none of which is unusual', () => {
  expect(told([['2025-12-10', 'Grid', 5]], even(300)).parts).toMatchObject([
    { of: 'nothing', planned: 300, amount: -300 },
  ]);
  expect(short(told([['2026-01-10', 'Grid', 5]], even(0)))).toEqual([['name', 'Grid', 5]]);
  const many = Array.from({ length: 41 }, (_, i): Row => ['2026-01-10', `W${i}`, 10]);
  expect(told(many, even(400)).parts).toEqual([
    { of: 'rest', amount: 10, count: 41, all: true, entries: [] },
  ]);
});

test('a month outside of what is set as usual says so', () => {
  const usual = { low: null, high: minor(500) };
  expect(told([['2026-01-10', 'Grid', 900]], even(800), 0, { usual }).odd).toBe('outside');
  expect(told([['2026-01-10', 'Grid', 400]], even(800), 0, { usual }).odd).toBeNull();
});

test('beside last year the month of last year is what it goes by', () => {
  const { ground, own } = told(
    [
      ['2025-01-04', 'Grid', 100],
      ['2026-01-04', 'Grid', 180],
    ],
    even(0),
  );
  const t = toldOf(ground, own, first, minor(80), null, 'lastYear');
  expect([t.basis, t.parts]).toMatchObject([first - 12, [{ of: 'entry', planned: 100, amount: 80 }]]);
});

test('whatever the entries are, the parts come to the difference', () => {
  const row = fc.tuple(
    fc.integer({ min: 0, max: 14 }),
    fc.integer({ min: 1, max: 28 }),
    fc.constantFrom('Grid', 'Pump', 'Payroll', 'Quay', ''),
    fc.integer({ min: -500, max: 5000 }),
  );
  fc.assert(
    fc.property(
      fc.array(row, { maxLength: 60 }),
      fc.boolean(),
      fc.integer({ min: -50, max: 4000 }),
      (all, by, plan) => {
        const rows = all.map(([m, d, name, amount]): Row => {
          const month = m % 12;
          const year = m < 12 ? 2025 : 2026;
          return [
            `${year}-${String(month + 1).padStart(2, '0')}-${String(d).padStart(2, '0')}`,
            name,
            amount,
            '',
          ];
        });
        const t = told(rows, by ? lastYear() : even(plan));
        expect(t.parts.reduce((s, p) => s + p.amount, 0)).toBe(t.difference);
        // A line that differs always has a word.
        expect(t.parts.length > 0).toBe(t.difference !== 0);
      },
    ),
  );
});
