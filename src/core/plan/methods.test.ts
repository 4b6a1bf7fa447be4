import Decimal from 'decimal.js';
import { allocate, dinero, toSnapshot } from 'dinero.js';
import { USD } from 'dinero.js/currencies';
import fc from 'fast-check';
import { minor, sum, type Minor } from '@/core/money';
import { fromDayNumber, monthCalendar, toDayNumber, weekCalendar, day } from '@/core/calendar';
import { balancesOf } from '@/core/ledger';
import type { Driver, Line, Method, Occurrence, Phasing } from '@/core/model';
import { createReckoner, explainMonth, factsFor, stepped } from '.';
import { occurrencesIn, workingDays } from '@/core/schedule';
import {
  account,
  blockOf,
  byMonth,
  calendar,
  driver,
  factsOver,
  factsWith,
  formula,
  lastYear,
  line,
  of,
  pattern,
  pct,
  periodIds,
  phased,
  planOf,
  runRate,
  share,
  yearly,
} from '../test/build';

const ids = periodIds(2026);
const accounts = [
  account('s', 'income'),
  { ...account('f', 'income'), group: 'Members' },
  account('w', 'expense'),
  account('b', 'bank'),
  account('n', 'expense'),
];
const season = [100, 200, 300, 400, 500, 600, 700, 800, 900, 1000, 1100, 1200];
const facts = factsWith(accounts, { s: season, f: new Array<number>(12).fill(50), w: [60, null, null, 90] });
const reckon = (lines: readonly Line[], drivers: readonly Driver[] = [], f = facts) =>
  createReckoner()({ lines, drivers }, f);
const one = (method: Method, id = 'w', f = facts, overrides: Line['overrides'] = {}) =>
  reckon([line(id, method, overrides)], [], f).lines.get(of(id))!;
const week = { weekdays: [1, 2, 3, 4, 5], holidays: [] };
const month = (year: number, n: number) => calendar.period(calendar.firstOfYear(year) + n - 1);

describe('last year', () => {
  test('an amount a month comes before the percentage', () =>
    expect(one(lastYear({ add: minor(10), uplift: pct('10') }), 's').amounts.slice(0, 2)).toEqual([
      121, 231,
    ]));
  test('a lump is taken out, in part or with its whole month', () =>
    expect(
      one(lastYear({ skip: { [ids[1]!]: minor(150), [ids[2]!]: null } }), 's').amounts.slice(0, 4),
    ).toEqual([100, 50, null, 400]));
  test('two years back', () => {
    const entries = [['2024-01-10', 's', 70] as const, ['2025-01-10', 's', 90] as const];
    const balances = balancesOf([blockOf(accounts, entries)], calendar);
    const f = factsWith(accounts, {}, { balances, ofSegment: () => balances });
    expect(one(lastYear({ from: { of: 'actuals', years: 2 } }), 's', f).amounts[0]).toBe(70);
  });
  const other = {
    has: () => true,
    amount: (_: string, __: string | null, p: number) =>
      p === calendar.firstOfYear(2026) + 1 ? minor(777) : null,
    plans: () => true,
  };
  const withOther = factsWith(accounts, { s: season }, { others: new Map([['b9', other]]) });
  test('another budget’s months, and the same year’s of it', () =>
    expect(
      one(lastYear({ from: { of: 'budget', budget: 'b9', years: 0 } }), 's', withOther).amounts.slice(0, 3),
    ).toEqual([null, 777, null]));
  test('the outlook: actuals where closed, the budget beyond', () => {
    const f = factsWith(
      accounts,
      { s: [5, 6] },
      {
        closedThrough: calendar.firstOfYear(2025),
        others: new Map([['b9', { has: () => true, amount: () => minor(9), plans: () => true }]]),
      },
    );
    expect(
      one(lastYear({ from: { of: 'outlook', budget: 'b9', years: 1 } }), 's', f).amounts.slice(0, 3),
    ).toEqual([5, 9, 9]);
  });
  test('a budget that is gone is said', () =>
    expect(one(lastYear({ from: { of: 'budget', budget: 'no', years: 1 } })).issue).toBe('budgetMissing'));
  test('the second year of a longer budget follows its first, typed months included', () => {
    const periods = Array.from({ length: 24 }, (_, i) => calendar.period(calendar.firstOfYear(2026) + i));
    const f = factsWith(accounts, { s: season }, { periods });
    const { amounts } = one(lastYear({ uplift: pct('10') }), 's', f, { [ids[1]!]: minor(1000) });
    expect([amounts[0], amounts[12], amounts[1], amounts[13]]).toEqual([110, 121, 1000, 1100]);
  });
});

describe('a budget of two years from another of one', () => {
  const last = calendar.firstOfYear(2025);
  const f = factsOver(accounts, balancesOf([], calendar), 24, {
    closedThrough: last - 1,
    others: new Map([
      [
        'b9',
        {
          has: (p: number) => p >= last && p < last + 12,
          amount: (_: string, __: string | null, p: number) => (p === last ? minor(100) : null),
          plans: () => true,
        },
      ],
    ]),
  });
  const of9 = (kind: 'outlook' | 'budget', years: number, uplift = '10') =>
    one(lastYear({ from: { of: kind, budget: 'b9', years }, uplift: pct(uplift) }), 's', f);
  test.each(['outlook', 'budget'] as const)(
    'its second year follows its first (%s), as after actuals',
    (kind) => expect([0, 1, 12, 13].map((i) => of9(kind, 1).amounts[i])).toEqual([110, null, 121, null]),
  );
  test('of the same months there is nothing to follow beyond them', () =>
    expect(of9('budget', 0).amounts.every((a) => a === null)).toBe(true));
  test('where the other goes on, it is followed', () => {
    const longer = factsOver(accounts, balancesOf([], calendar), 24, {
      others: new Map([
        [
          'b9',
          {
            has: () => true,
            amount: (_: string, __: string | null, p: number) => minor(p - last),
            plans: () => true,
          },
        ],
      ]),
    });
    const { amounts } = one(lastYear({ from: { of: 'budget', budget: 'b9', years: 1 } }), 's', longer);
    expect(amounts).toEqual(Array.from({ length: 24 }, (_, i) => i));
  });
});

describe('phasing', () => {
  const split = (by: Phasing, annual = 120_000, f = facts) => one(phased(annual, { by }), 'w', f).amounts;
  test('even, as dinero.js allocates', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e9 }), (annual) => {
        const theirs = allocate(dinero({ amount: annual, currency: USD }), new Array<number>(12).fill(1));
        expect(split({ by: 'even' }, annual)).toEqual(theirs.map((d) => toSnapshot(d).amount));
      }),
    );
  });
  test('by days, as dinero.js allocates by the days of the months of 2026', () => {
    const days = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e9 }), (annual) => {
        const ours = split({ by: 'days' }, annual) as Minor[];
        const theirs = allocate(dinero({ amount: annual, currency: USD }), days).map(
          (d) => toSnapshot(d).amount,
        );
        // The leftover cents go elsewhere: ours to the largest remainder, theirs from the first part on.
        ours.forEach((v, i) => expect(Math.abs(v - theirs[i]!)).toBeLessThanOrEqual(1));
        expect(sum(ours)).toBe(annual);
      }),
    );
  });
  test.each<[string, Phasing, number[]]>([
    ['weeks of 4-4-5', { by: 'weeks', pattern: '4-4-5' }, [4, 4, 5, 4, 4, 5, 4, 4, 5, 4, 4, 5]],
    ['chosen months', { by: 'months', numbers: [3, 9] }, [0, 0, 6, 0, 0, 0, 0, 0, 6, 0, 0, 0]],
    ['one lump', { by: 'months', numbers: [2] }, [0, 12, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]],
    [
      'every three months from February',
      { by: 'every', first: ids[1]!, months: 3 },
      [0, 3, 0, 0, 3, 0, 0, 3, 0, 0, 3, 0],
    ],
    ['weights of one’s own', { by: 'weights', weights: 'w1' }, [6, 6, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]],
  ])('%s', (_name, by, parts) => {
    const f = factsWith(accounts, {}, { weights: [{ id: 'w1', name: 'x', weights: [7, 7] }] });
    const all = parts.reduce((a, b) => a + b, 0);
    expect(split(by, all * 1000, f)).toEqual(parts.map((p) => p * 1000));
  });
  test('weeks add up to 52 a year, as in the retail 4-5-4 calendar (National Retail Federation)', () => {
    const amounts = split({ by: 'weeks', pattern: '4-5-4' }, 52_000);
    expect(amounts.slice(0, 3)).toEqual([4000, 5000, 4000]);
    expect(sum(amounts as Minor[])).toBe(52_000);
  });
  /* US federal work schedule, OPM: 2026 has 261 weekdays, of which 11 are federal holidays on weekdays (from memory). */
  test('working days of 2026, and a holiday takes one away', () => {
    const holidays = [
      '2026-01-01',
      '2026-01-19',
      '2026-02-16',
      '2026-05-25',
      '2026-06-19',
      '2026-07-03',
      '2026-09-07',
    ].map(day);
    const rest = ['2026-10-12', '2026-11-11', '2026-11-26', '2026-12-25'].map(day);
    const all = Array.from({ length: 12 }, (_, i) => month(2026, i + 1));
    const count = (h: typeof holidays) =>
      all.reduce((n, p) => n + workingDays(p, { weekdays: week.weekdays, holidays: h }), 0);
    expect([count([]), count([...holidays, ...rest])]).toEqual([261, 250]);
  });
  test('no month chosen, or weights that are gone, is said and nothing is lost in silence', () => {
    expect(one(phased(100, { by: { by: 'months', numbers: [13] } }))).toMatchObject({
      issue: 'noMonths',
      total: null,
    });
    expect(one(phased(100, { by: { by: 'weights', weights: 'no' } })).issue).toBe('weightsMissing');
  });
  test('quarterly amounts stay in their quarters', () => {
    const amounts = {
      per: 'quarter' as const,
      amounts: [30, 60, null, 10].map((v) => (v === null ? null : minor(v))),
    };
    expect(one(phased(null, { amounts })).amounts).toEqual([
      10,
      10,
      10,
      20,
      20,
      20,
      null,
      null,
      null,
      4,
      3,
      3,
    ]);
  });
  test('parts of any amount by any weights add up, and twice the amount keeps the shape', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e8, max: 1e8 }),
        fc.array(fc.nat(1000), { minLength: 12, maxLength: 12 }).filter((w) => w.some((x) => x > 0)),
        (annual, weights) => {
          const f = factsWith(accounts, {}, { weights: [{ id: 'w1', name: 'x', weights }] });
          const a = split({ by: 'weights', weights: 'w1' }, annual, f) as Minor[];
          const b = split({ by: 'weights', weights: 'w1' }, annual * 2, f) as Minor[];
          expect(sum(a)).toBe(annual);
          a.forEach((v, i) => expect(Math.abs(b[i]! - 2 * v)).toBeLessThanOrEqual(2));
        },
      ),
    );
  });
});

describe('pattern', () => {
  test('a month that the ledger has not come to is shaped like the latest one that it has', () => {
    const at = (year: number, month: number) => `${year}-${String(month).padStart(2, '0')}-10`;
    const entries = [
      ...Array.from({ length: 12 }, (_, i) => [at(2024, i + 1), 's', (i + 1) * 10] as const),
      // Of 2025 three months are closed, and a few entries of April are there.
      ...[1, 2, 3].map((m) => [at(2025, m), 's', m * 100] as const),
      [at(2025, 4), 's', 1] as const,
    ];
    const balances = balancesOf([blockOf(accounts, entries)], calendar);
    const f = factsOver(accounts, balances, 24, { closedThrough: calendar.firstOfYear(2025) + 2 });
    const shape = [100, 200, 300, 40, 50, 60, 70, 80, 90, 100, 110, 120];
    const total = shape.reduce((a, b) => a + b, 0);
    const { amounts } = one(pattern(null, { amounts: yearly(total, total * 2) }), 's', f);
    expect(amounts).toEqual([...shape, ...shape.map((v) => v * 2)]);
    // The year before's own total keeps to the months that it is of.
    expect(one(pattern(null), 's', f).amounts.slice(0, 5)).toEqual([100, 200, 300, 1, 0]);
    // Where no month is ever closed, what has entries counts.
    const open = factsOver(accounts, balances, 12, { closedThrough: null });
    const all = one(pattern(total - 39), 's', open);
    expect(all.amounts).toEqual(shape.map((v) => (v === 40 ? 1 : v)));
  });
  test('with nothing in any year it is even, and says so', () => {
    const f = factsOver(accounts, balancesOf([], calendar), 12);
    expect(one(pattern(1200), 's', f)).toMatchObject({ issue: 'nothingToFollow', total: 1200 });
  });
  test('shaped like another account, or like a group', () => {
    expect(one(pattern(7800, { like: { of: 'account', account: 's' } })).amounts).toEqual(season);
    expect(one(pattern(1200, { like: { of: 'group', kind: 'income', group: 'Members' } })).amounts).toEqual(
      new Array(12).fill(100),
    );
  });
  test('the average of two years', () => {
    const entries = [
      ...season.map((v, i) => [`2025-${String(i + 1).padStart(2, '0')}-10`, 's', v] as const),
      ...season.map((v, i) => [`2024-${String(i + 1).padStart(2, '0')}-10`, 's', 1300 - v] as const),
    ];
    const balances = balancesOf([blockOf(accounts, entries)], calendar);
    const f = factsWith(accounts, {}, { balances, ofSegment: () => balances });
    expect(one(pattern(1200, { years: [1, 2] }), 's', f).amounts).toEqual(new Array(12).fill(100));
  });
});

describe('run rate', () => {
  test('the last three months, and a chosen range', () => {
    expect(one(runRate({ over: { of: 'last', months: 3 } }), 's').amounts[0]).toBe(1100);
    const y25 = periodIds(2025);
    expect(one(runRate({ over: { of: 'range', first: y25[0]!, last: y25[1]! } }), 's').amounts[0]).toBe(150);
  });
  test('an amount a month on top, then the percentage', () =>
    expect(one(runRate({ add: minor(50), uplift: pct('100') }), 's').total).toBe((7800 + 600) * 2));
});

describe('step', () => {
  const stepBy = (change: Extract<Method, { kind: 'step' }>['change'], every = 1): Method => ({
    kind: 'step',
    start: minor(100_000),
    first: ids[1]!,
    every,
    change,
    round: 0,
  });
  test('plus an amount each month, and each three months', () => {
    expect(one(stepBy({ of: 'amount', amount: minor(500) })).amounts.slice(0, 3)).toEqual([
      100_000, 100_500, 101_000,
    ]);
    const slow = one(stepBy({ of: 'amount', amount: minor(-500) }, 3)).amounts;
    expect(slow.slice(0, 6)).toEqual([100_000, 99_500, 99_500, 99_500, 99_000, 99_000]);
  });
  /* Compound interest as handbooks tabulate it: 1.01^12 = 1.126825 (future value of 1 at 1 % for 12 periods). */
  test('one percent a month compounds to the tabulated 1.126825, simple to 1.12', () => {
    expect(stepped(1_000_000, { of: 'percent', percent: pct('1'), compounding: true }, 12)).toBe(1_126_825);
    expect(stepped(1_000_000, { of: 'percent', percent: pct('1'), compounding: false }, 12)).toBe(1_120_000);
  });
  test('compounding is exact: as decimal.js at 200 digits, rounded once', () => {
    const Exact = Decimal.clone({ precision: 400 });
    fc.assert(
      fc.property(
        fc.integer({ min: -1e7, max: 1e7 }),
        fc.integer({ min: -3000, max: 3000 }),
        fc.nat(36),
        (start, p, n) => {
          const grown = new Exact(1).plus(new Exact(p).div(10_000)).pow(n).times(start);
          const theirs = grown.toDecimalPlaces(0, Decimal.ROUND_HALF_UP).toNumber();
          const ours = stepped(
            start,
            { of: 'percent', percent: pct((p / 100).toFixed(2)), compounding: true },
            n,
          );
          expect(ours).toBe(theirs === 0 ? 0 : theirs);
        },
      ),
    );
  });
  test('without a start it goes on from the ledger’s last month', () =>
    expect(
      one(
        { ...(stepBy({ of: 'amount', amount: minor(1) }) as object), start: null } as Method,
        's',
      ).amounts.slice(0, 2),
    ).toEqual([1200, 1201]));
});

describe('share', () => {
  test('of a kind, in the same month', () => {
    const r = reckon([
      line('s', lastYear()),
      line('f', lastYear()),
      line('w', share('', '10', { of: { of: 'kind', kind: 'income' } })),
    ]);
    expect(r.lines.get(of('w'))!.amounts.slice(0, 2)).toEqual([15, 25]);
  });
  test('months later; before the budget’s first month the ledger’s actual', () => {
    const r = reckon([line('s', lastYear({ uplift: pct('100') })), line('w', share('s', '10', { lag: 2 }))]);
    expect(r.lines.get(of('w'))!.amounts.slice(0, 4)).toEqual([110, 120, 20, 40]);
  });
  test('from history: last year’s totals, exactly', () => {
    const r = reckon([
      line('s', byMonth({ [ids[0]!]: minor(7800) })),
      line('w', { ...share('s', '0'), percent: null }),
    ]);
    expect(r.lines.get(of('w'))!.amounts[0]).toBe(150);
  });
  test('no history is said', () => {
    const r = reckon([line('s', lastYear()), line('n', { ...share('s', '0'), percent: null })]);
    expect(r.lines.get(of('n'))!.issue).toBe('noShare');
  });
});

describe('paydays', () => {
  const count = (on: Occurrence, p: ReturnType<typeof month>) => occurrencesIn(p, on, week).length;
  /* Common practice of payroll: biweekly pay gives 26 paydays in a year, ten months with two and two with three. */
  test('every two weeks: 26 a year, two months with three', () => {
    for (const first of ['2026-01-02', '2026-01-09'] as const) {
      const counts = Array.from({ length: 12 }, (_, i) =>
        count({ of: 'weeks', every: 2, from: day(first) }, month(2026, i + 1)),
      );
      expect([26, 27]).toContain(counts.reduce((a, b) => a + b, 0));
      if (first === '2026-01-09') expect(counts.filter((c) => c === 3)).toHaveLength(2);
    }
  });
  test('a year of 53 Thursdays has 53 weekly paydays, as ISO 8601 gives 2026 its week 53', () => {
    const all = Array.from({ length: 12 }, (_, i) =>
      count({ of: 'weekdays', weekdays: [4] }, month(2026, i + 1)),
    );
    expect(all.reduce((a, b) => a + b, 0)).toBe(53);
  });
  test.each<[string, Occurrence, number, string[]]>([
    [
      'the 15th and the last day, in a short month',
      { of: 'monthDays', days: [15, 31] },
      2,
      ['2026-02-15', '2026-02-28'],
    ],
    ['the 29th to 31st once in February', { of: 'monthDays', days: [29, 30] }, 2, ['2026-02-28']],
    [
      'every four weeks from a day, none before it',
      { of: 'weeks', every: 4, from: day('2026-02-20') },
      2,
      ['2026-02-20'],
    ],
    [
      'Saturdays',
      { of: 'weekdays', weekdays: [6] },
      8,
      ['2026-08-01', '2026-08-08', '2026-08-15', '2026-08-22', '2026-08-29'],
    ],
  ])('%s', (_name, on, n, days) => expect(occurrencesIn(month(2026, n), on, week)).toEqual(days));
  test('what a day-by-day count finds, found by another way', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20_000, max: 21_500 }),
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 12 }),
        (from, every, n) => {
          const p = month(2027, n);
          const [a, b] = [toDayNumber(p.start), toDayNumber(p.end)];
          const upTo = (d: number) => (d < from ? 0 : Math.floor((d - from) / (every * 7)) + 1);
          expect(count({ of: 'weeks', every, from: fromDayNumber(from) }, p)).toBe(upTo(b) - upTo(a - 1));
        },
      ),
    );
  });
  test('the amount follows: three paydays cost half as much again', () => {
    const method: Method = {
      kind: 'occurrence',
      amount: minor(1000),
      on: { of: 'weeks', every: 2, from: day('2026-01-02') },
    };
    expect(one(method).amounts.slice(0, 2)).toEqual([3000, 2000]);
  });
  test('a raise holds from its day on, within a month too, and the reasons add up', () => {
    // Fridays of 2026: five in January (from the 2nd), four in February, four in March.
    const method: Method = {
      kind: 'occurrence',
      amount: minor(1000),
      later: [
        { from: day('2026-03-01'), amount: minor(1200) },
        { from: day('2026-01-16'), amount: minor(1100) },
      ],
      on: { of: 'weekdays', weekdays: [5] },
    };
    expect(one(method).amounts.slice(0, 3)).toEqual([2 * 1000 + 3 * 1100, 4 * 1100, 4 * 1200]);
    const l = line('w', method);
    const reckoning = reckon([l]);
    const reasons = explainMonth(l, reckoning.lines.get(of('w'))!, reckoning, 0).flatMap((x) =>
      x.step === 'occurrences' ? [[x.days.length, x.each, x.value]] : [],
    );
    expect(reasons).toEqual([
      [2, 1000, 2000],
      [3, 1100, 3300],
    ]);
  });
});

describe('drivers and formulas', () => {
  const typed = (...values: number[]): Driver['series'] => ({
    kind: 'typed',
    values: Object.fromEntries(values.map((v, i) => [ids[i]!, v])),
  });
  test('units × price × a factor, rounded once', () => {
    const drivers = [
      driver('u', typed(3, 7)),
      driver('p', typed(1999, 1999), 2),
      driver('x', typed(333, 500), 3),
    ];
    const r = reckon([line('s', { kind: 'driver', factors: ['u', 'p', 'x'], round: 0 })], drivers);
    expect(r.lines.get(of('s'))!.amounts.slice(0, 3)).toEqual([1997, 6997, null]);
  });
  test('sites open: what was open, plus opened, less closed', () => {
    const drivers = [
      driver(
        'open',
        { kind: 'formula', formula: 'prior "driver:open" + "driver:opened" - "driver:closed"' },
        0,
        5,
      ),
      driver('opened', typed(1, 0, 2)),
      driver('closed', typed(0, 1, 0)),
    ];
    expect(reckon([], drivers).drivers.get('open')!.values.slice(0, 4)).toEqual(
      [6, 5, 7, null].map((v, i) => (i === 3 ? 7 : v)),
    );
  });
  test('a seasonal driver keeps its average', () => {
    const f = factsWith(
      accounts,
      {},
      { weights: [{ id: 'w1', name: 'x', weights: [1, 2, 3, 2, 1, 3, 1, 2, 3, 2, 1, 3] }] },
    );
    const { values } = reckon(
      [],
      [driver('m', { kind: 'seasonal', level: 200, weights: 'w1' })],
      f,
    ).drivers.get('m')!;
    expect(values.reduce<number>((a, b) => a + (b ?? 0), 0)).toBe(2400);
    expect(values.slice(0, 3)).toEqual([100, 200, 300]);
  });
  test('a line that follows its own earlier months and a line that follows it', () => {
    const lines = [
      line('s', formula('max(prior "account:s", 5) + "account:f"')),
      line('f', byMonth(Object.fromEntries(ids.map((p) => [p, minor(100)])))),
    ];
    // December’s actual of 12.00, and a unit each month.
    expect(reckon(lines).lines.get(of('s'))!.amounts.slice(0, 3)).toEqual([1300, 1400, 1500]);
  });
  test.each<[string, string, string]>([
    ['a division by zero leaves its month blank', '1 / "account:w"', 'dividesByZero'],
    ['a text that cannot be read', '"account:w" *', 'badFormula'],
    ['a line that is not there', '"account:gone" * 2', 'lineMissing'],
    ['a driver that is not there', '"driver:gone" * 2', 'driverMissing'],
  ])('%s, and says so', (_name, text, issue) => {
    const lines = [
      line('s', formula(text)),
      line('w', byMonth({ [ids[0]!]: minor(200) })),
      line('f', lastYear()),
    ];
    const r = reckon(lines);
    expect(r.lines.get(of('s'))!.issue).toBe(issue);
    expect(r.lines.get(of('f'))!.total).toBe(600);
  });
  test('drivers in a circle are named, the rest stand', () => {
    const drivers = [
      driver('a', { kind: 'formula', formula: '"driver:b" + 1' }),
      driver('b', { kind: 'formula', formula: '"driver:a" + 1' }),
      driver('c', typed(4)),
    ];
    const r = reckon([line('s', { kind: 'driver', factors: ['c'], round: 0 })], drivers);
    expect([r.drivers.get('a')!.issue, r.drivers.get('c')!.issue]).toEqual(['cycle', null]);
    expect(r.lines.get(of('s'))!.amounts[0]).toBe(400);
  });
});

describe('for the year as a whole', () => {
  const whole: Method = { kind: 'unphased', amounts: yearly(1200) };
  test('no month says anything, and the year says it all', () =>
    expect(one(whole)).toMatchObject({ total: 1200, wholes: [1200], amounts: new Array(12).fill(null) }));
  test('a typed month is part of the year', () =>
    expect(one(whole, 'w', facts, { [ids[3]!]: minor(200) })).toMatchObject({ total: 1200, wholes: [1000] }));
});

describe('balances', () => {
  const opening = (amount: number) => {
    const entries = [
      ['2025-11-05', 'b', amount] as const,
      ['2025-12-05', 'b', 250] as const,
      ['2025-12-05', 's', 250] as const,
    ];
    const balances = balancesOf([blockOf(accounts, entries)], calendar);
    return factsWith(accounts, {}, { balances, ofSegment: () => balances });
  };
  test('are closing balances: held, carried, and never divided', () => {
    const f = opening(1000);
    const hold: Method = {
      kind: 'step',
      start: null,
      first: ids[0]!,
      every: 1,
      change: { of: 'amount', amount: minor(0) },
      round: 0,
    };
    expect(one(hold, 'b', f)).toMatchObject({ total: 1250, amounts: new Array(12).fill(1250) });
    expect(one(phased(1200), 'b', f).issue).toBe('notForBalances');
    expect(one(lastYear(), 'b', f).amounts.slice(9)).toEqual([null, 1000, 1250]);
  });
});

describe('segments', () => {
  test('each segment’s line follows lines of its own segment, and together they tie', () => {
    const lines = [
      line('s', byMonth({ [ids[0]!]: minor(100) }), {}, 'v1'),
      line('s', byMonth({ [ids[0]!]: minor(300) }), {}, 'v2'),
      line('w', share('s', '10'), {}, 'v1'),
      line('w', share('s', '20'), {}, 'v2'),
    ];
    const r = reckon(lines);
    expect(r.lines.get({ account: 'w', segment: 'v2' })!.total).toBe(60);
    expect(r.lines.figures('w', 'all')!.amounts[0]).toBe(70);
    expect(r.lines.figures('s', 'all')!.amounts[0]).toBe(400);
  });
});

test('in a calendar of weeks the days of a period are its weeks’ days', () => {
  const weeks = weekCalendar({ pattern: '4-4-5', endMonth: 12, endWeekday: 6, ending: 'last' });
  const periods = Array.from({ length: 12 }, (_, i) => weeks.period(weeks.firstOfYear(2026) + i));
  const balances = balancesOf([], weeks);
  const f = factsFor({
    calendar: weeks,
    periods,
    accounts,
    bank: null,
    balances,
    ofSegment: () => balances,
    closedThrough: null,
    unit: 100,
    weights: [],
    workWeek: week,
    others: new Map(),
  });
  expect(one(phased(52_000, { by: { by: 'days' } }), 'w', f).amounts.slice(0, 3)).toEqual([4000, 4000, 5000]);
  expect(monthCalendar(1).periodsIn(2026)).toBe(12);
});

test('every method explains each of its months', () => {
  const methods: Method[] = [
    lastYear({ add: minor(1), uplift: pct('3'), skip: { [ids[0]!]: minor(5) } }),
    runRate({ uplift: pct('3') }),
    phased(1001, { by: { by: 'days' } }),
    pattern(999),
    { kind: 'unphased', amounts: yearly(12) },
    share('f', '33'),
    formula('"account:f" * 2'),
  ];
  for (const method of methods) {
    const lines = [line('s', method), line('f', lastYear())];
    const r = reckon(lines);
    const result = r.lines.get(of('s'))!;
    for (let i = 0; i < 12; i++) {
      const steps = explainMonth(lines[0]!, result, r, i);
      expect(steps.length).toBeGreaterThan(1);
      expect(steps.at(-1)).toEqual({ step: 'result', value: result.amounts[i] });
    }
  }
});

test('a plan without lines is reckoned to nothing', () =>
  expect([...createReckoner()(planOf(), facts).lines]).toEqual([]));
