import { dayNumberOf, fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import type { DatedItem, TaxScheme } from '@/core/model';
import { account, blockOf } from '@/core/test/build';
import { atOnce, byMonth, NEW_YEAR, onAccount, planned, projectionOf } from '@/core/test/cash';
import {
  byDays,
  byWeeks,
  cashTable,
  causesIn,
  createProjector,
  creditLineMoves,
  forecastOf,
  guessTerms,
  habitsOf,
  cureOf,
  holdsOf,
  matchItems,
  medianDays,
  sharesOf,
  taxPeriods,
  type ExpectedItem,
} from '.';
import { datesOf } from '@/core/schedule';

const on = (text: string) => toDayNumber(text as Day);
const days = (all: readonly number[]) => all.map(fromDayNumber);
const item = (change: Partial<ExpectedItem> = {}): ExpectedItem => ({
  key: 'i1',
  side: 'in',
  kind: 'invoice',
  account: 'rec',
  dated: on('2025-12-10'),
  expected: on('2026-01-20'),
  open: minor(400),
  counted: true,
  onTop: false,
  ...change,
});
const RULES = { without: [], floor: null, creditLine: null, drawn: 0 };

describe('tax periods and their due days', () => {
  const scheme = (change: Partial<TaxScheme>): TaxScheme => ({
    id: 't1',
    name: 'Tax',
    payable: null,
    owed: 'net',
    on: 'invoice',
    every: 3,
    ends: 12,
    due: { of: 'months', months: 1, day: 10 },
    exceptions: [],
    ...change,
  });
  const dues = (s: TaxScheme, after: string, until: string) =>
    taxPeriods(s, on(after), on(until)).map((p) => [fromDayNumber(p.to), fromDayNumber(p.due)]);

  test('a quarterly return whose December quarter is due at the end of February', () => {
    // Australian Taxation Office, business activity statements by the quarter: due on the 28th of the month after, the
    // quarter to December on 28 February (from memory).
    const bas = scheme({
      due: { of: 'months', months: 1, day: 28 },
      exceptions: [{ ends: 12, due: { of: 'months', months: 2, day: 28 } }],
    });
    expect(dues(bas, '2026-07-01', '2027-04-01')).toEqual([
      ['2026-06-30', '2026-07-28'],
      ['2026-09-30', '2026-10-28'],
      ['2026-12-31', '2027-02-28'],
      ['2027-03-31', '2027-04-28'],
      ['2027-06-30', '2027-07-28'],
    ]);
  });
  test('a bimonthly return of even months, due a month and a few days later', () => {
    // Value-added tax of Ireland: two-month periods from January, due by the 19th of the month after, 23rd online (from memory).
    const irish = scheme({ every: 2, ends: 2, due: { of: 'months', months: 1, day: 23 } });
    expect(dues(irish, '2026-01-31', '2026-05-01')).toEqual([
      ['2026-02-28', '2026-03-23'],
      ['2026-04-30', '2026-05-23'],
      ['2026-06-30', '2026-07-23'],
    ]);
  });
  test('a UK value-added tax return: one calendar month and seven days after its period', () => {
    // HM Revenue and Customs: the deadline is one calendar month and 7 days after the end of the accounting period (from memory).
    const uk = scheme({ due: { of: 'months', months: 2, day: 7 } });
    expect(dues(uk, '2026-01-01', '2026-01-02')).toEqual([
      ['2025-12-31', '2026-02-07'],
      ['2026-03-31', '2026-05-07'],
    ]);
  });
  test('a yearly tax that ends in June', () => {
    expect(dues(scheme({ every: 12, ends: 6 }), '2026-07-15', '2026-08-01')).toEqual([
      ['2027-06-30', '2027-07-10'],
    ]);
  });

  test('what is owed goes out with its return; what stood goes with the periods it belongs to', () => {
    const sales = account('sales', 'income');
    const line = planned(sales, atOnce(), [100_00, 100_00, 100_00, 100_00]);
    const taxed = { ...line, terms: { ...line.terms, tax: { scheme: 't1', rate: percent('10') } } };
    const p = createProjector()(
      projectionOf([taxed], {
        taxes: [scheme({ payable: 'vat' })],
        opening: new Map([['vat', -7_00]]),
        taxCredits: (_, from, to) => (from <= on('2025-11-30') && to >= on('2025-11-30') ? 7_00 : 0),
      }),
    );
    expect(p.returns.map((r) => [fromDayNumber(r.due), r.owed])).toEqual([
      ['2026-01-10', 7_00],
      ['2026-04-10', 30_00],
      ['2026-07-10', 10_00],
    ]);
    expect(byMonth(p).slice(0, 4)).toEqual([103_00, 110_00, 110_00, 80_00]);
  });

  test('what the running period has brought so far goes with its return', () => {
    const p = createProjector()(
      projectionOf([planned(account('sales', 'income'), atOnce(), [0])], {
        taxes: [scheme({ payable: 'vat', ends: 11 })],
        opening: new Map([['vat', -9_00]]),
        taxCredits: (_, from) => (from > on('2025-11-30') ? 9_00 : 0),
      }),
    );
    expect(p.returns.map((r) => [fromDayNumber(r.to), r.owed])).toEqual([['2026-02-28', 9_00]]);
  });
});

describe('dated items', () => {
  const item = (repeat: DatedItem['repeat']): DatedItem => ({
    id: 'i1',
    name: 'x',
    direction: 'out',
    amount: minor(1),
    first: '2026-01-31' as Day,
    repeat,
    against: null,
    bank: null,
    group: 'owners',
  });
  test.each<[string, DatedItem['repeat'], string[]]>([
    ['once', null, ['2026-01-31']],
    [
      'each month, on its last day where it has no 31st',
      { every: 1, unit: 'months', until: null, times: null },
      ['2026-01-31', '2026-02-28', '2026-03-31', '2026-04-30'],
    ],
    [
      'every two weeks, three times',
      { every: 2, unit: 'weeks', until: null, times: 3 },
      ['2026-01-31', '2026-02-14', '2026-02-28'],
    ],
    [
      'until a day',
      { every: 1, unit: 'months', until: '2026-03-30' as Day, times: null },
      ['2026-01-31', '2026-02-28'],
    ],
  ])('%s', (_, repeat, expected) => {
    expect(days(datesOf(item(repeat), NEW_YEAR, on('2026-04-30')))).toEqual(expected);
    expect(datesOf(item(repeat), on('2026-12-31'), on('2026-12-31'))).toEqual([]);
  });
});

describe('a credit line', () => {
  const LINE = { limit: minor(50_000), rate: percent('12'), step: minor(1_000) };
  /** Closing balances of January to April 2026: the same all month. */
  const closing = (...months: number[]) => {
    const out: number[] = [];
    months.forEach((amount, m) => {
      for (let d = dayNumberOf(2026, m + 1, 1); d < dayNumberOf(2026, m + 2, 1); d++) out.push(amount);
    });
    return Float64Array.from(out);
  };
  const moves = (balances: Float64Array, stood = 0) =>
    creditLineMoves(LINE, 10_000, NEW_YEAR, balances, stood).map((m) => [
      fromDayNumber(m.day),
      m.what,
      m.amount,
    ]);

  test('draws in whole steps to keep the floor, pays interest on what was drawn at the month’s start, and repays at its end', () => {
    expect(moves(closing(12_000, 3_500, 3_500, 30_000))).toEqual([
      ['2026-02-01', 'drawing', 7_000],
      // 7,000 × 12 % ÷ 12; 10,500 less 70 is above the floor still.
      ['2026-03-31', 'interest', -70],
      ['2026-04-30', 'interest', -70],
      ['2026-04-30', 'repayment', -7_000],
    ]);
  });
  test('never draws beyond its limit: the floor is broken then', () => {
    expect(moves(closing(-100_000))).toEqual([['2026-01-01', 'drawing', 50_000]]);
  });
  test('what is drawn at the start costs, and is repaid from what is above the floor', () => {
    expect(moves(closing(13_500), 5_000)).toEqual([
      ['2026-01-31', 'interest', -50],
      ['2026-01-31', 'repayment', -3_000],
    ]);
  });

  test('keeps the floor in a forecast, and the low point is told after it', () => {
    const wages = account('wages', 'expense');
    const p = createProjector()(
      projectionOf([planned(wages, atOnce({ of: 'monthDay', day: 15 }), [30_000])], {
        opening: new Map([['bank', 25_000]]),
      }),
    );
    expect(forecastOf(p, { ...RULES, floor: minor(10_000) })).toMatchObject({
      low: { day: on('2026-01-15'), amount: -5_000 },
      below: [{ from: on('2026-01-15'), to: on('2026-01-31'), least: -5_000 }],
    });
    const kept = forecastOf(p, {
      ...RULES,
      floor: minor(10_000),
      creditLine: { ...LINE, account: null, interest: null },
    });
    expect(kept.low).toEqual({ day: on('2026-01-15'), amount: 10_000 });
    expect(kept.below).toEqual([]);
  });
});

describe('open items', () => {
  const sales = account('sales', 'income');
  test('come on the day they are expected; what stands without one runs off', () => {
    const p = createProjector()(
      projectionOf([planned(sales, atOnce(), [0])], {
        items: [item()],
        opening: new Map([['rec', 460]]),
        runOffEnd: () => NEW_YEAR + 30,
      }),
    );
    const causes = causesIn(p, { from: NEW_YEAR, to: on('2026-01-31') }, () => true);
    expect(causes.find((c) => c.part.of === 'item')).toMatchObject({ day: on('2026-01-20'), amount: 400 });
    expect(causes.filter((c) => c.part.of === 'runOff').map((c) => c.amount)).toEqual(new Array(30).fill(2));
  });
  test('one that is held moves nothing, and does not run off either', () => {
    const p = createProjector()(
      projectionOf([planned(sales, atOnce(), [0])], {
        items: [item({ counted: false })],
        opening: new Map([['rec', 400]]),
      }),
    );
    expect(byMonth(p)).toEqual([]);
  });
  test('an overdue one never falls before the start', () => {
    const p = createProjector()(
      projectionOf([planned(sales, atOnce(), [0])], {
        items: [item({ expected: on('2025-11-01') })],
        opening: new Map([['rec', 400]]),
      }),
    );
    expect(causesIn(p, { from: 0, to: 1e6 }, () => true).map((c) => fromDayNumber(c.day))).toEqual([
      '2026-01-01',
    ]);
  });
  test('an order stands in place of the plan of its month as far as that reaches, or on top', () => {
    const order = item({
      kind: 'order',
      account: 'sales',
      dated: on('2026-01-10'),
      expected: on('2026-02-10'),
    });
    const project = (onTop: boolean) =>
      createProjector()(
        projectionOf([planned(sales, atOnce(), [1_000, 100])], {
          items: [{ ...order, onTop }],
          opening: new Map(),
        }),
      );
    expect(byMonth(project(false))).toEqual([600, 500]);
    expect(byMonth(project(true))).toEqual([1_000, 500]);
    expect(byMonth(project(false), 'sales')).toEqual([-1_000, -100]);
    // A balance that was brought about is let go when nobody asks for it any more.
    const held = createProjector();
    const target = {
      key: 'b',
      account: 'rec',
      kind: 'receivable' as const,
      against: 'bank',
      amounts: [70, 0],
    };
    const plain = projectionOf([planned(sales, atOnce(), [1_000, 100])], { opening: new Map() });
    const kept = [[], [target], [target], []].map((balances) => byMonth(held({ ...plain, balances })));
    expect(kept).toEqual([
      [1_000, 100],
      [930, 170],
      [930, 170],
      [1_000, 100],
    ]);
    // The same line beside an order that comes later, and goes again: each time as from scratch.
    const one = createProjector();
    const line = planned(sales, atOnce(), [1_000, 100]);
    const base = projectionOf([line], { opening: new Map() });
    const steps = [[], [{ ...order, onTop: false }], []].map((items) => byMonth(one({ ...base, items })));
    expect(steps).toEqual([
      [1_000, 100],
      [600, 500],
      [1_000, 100],
    ]);
  });
});

describe('what the ledger tells of money', () => {
  const accounts = [
    account('sales', 'income', 'Sales'),
    account('rent', 'expense', 'Rent'),
    account('rec', 'receivable'),
    account('bank', 'bank'),
  ];
  const view = { merged: new Map(), keep: null };
  /** Entries of a party: [day, account, debit-positive amount, party, reference]. */
  const blockWith = (rows: readonly (readonly [string, string, number, string, string])[]) => {
    const block = blockOf(
      accounts,
      rows.map(([d, a, amount]) => [d, a, a === 'sales' ? -amount : amount] as const),
    );
    // The builder of tests names parties by turns; here they are what a test says.
    const texts = ['', ...rows.flatMap((r) => [r[3], r[4]])];
    const bytes = new TextEncoder().encode(texts.join(''));
    let end = 0;
    const ends = Uint32Array.from(texts, (t) => (end += t.length));
    return {
      ...block,
      texts: { bytes, ends },
      counterparty: Int32Array.from(rows, (_, i) => 1 + 2 * i),
      reference: Int32Array.from(rows, (_, i) => 2 + 2 * i),
    };
  };

  test('payments settle invoices of the same reference, else the oldest of the counterparty', () => {
    const block = blockWith([
      ['2025-01-01', 'rec', 100, 'Ann', 'R1'],
      ['2025-01-05', 'rec', 50, 'Ann', 'R2'],
      ['2025-01-06', 'rec', 70, 'Bob', 'R3'],
      ['2025-02-01', 'rec', -50, 'Ann', 'R2'],
      ['2025-02-10', 'rec', -60, 'Ann', 'P9'],
      ['2025-02-12', 'rec', -20, 'Nobody', ''],
    ]);
    const { items, settled, ahead } = matchItems([block], view, 'rec', 1, on('2025-12-31'));
    // Nobody's payment pays the oldest of all: Ann's first.
    expect(items.map((i) => [i.counterparty, i.reference, i.open])).toEqual([
      ['Ann', 'R1', 20],
      ['Bob', 'R3', 70],
    ]);
    expect(settled.map((s) => [s.days, s.amount])).toEqual([
      [27, 50],
      [40, 60],
      [42, 20],
    ]);
    expect(ahead).toBe(0);
    // Up to an earlier day, less was paid.
    expect(matchItems([block], view, 'rec', 1, on('2025-02-05')).items.map((i) => i.open)).toEqual([100, 70]);
  });
  test('what is paid without an invoice is paid ahead', () => {
    const block = blockWith([['2025-02-01', 'rec', -50, 'Ann', '']]);
    expect(matchItems([block], view, 'rec', 1, on('2025-12-31'))).toEqual({
      items: [],
      settled: [],
      ahead: 50,
    });
  });

  test('measured shares are whole percents at their median days; what is rare joins the rest', () => {
    const settled = [
      { key: '', counterparty: 'a', days: 1, amount: 300, paid: 0 },
      { key: '', counterparty: 'a', days: 28, amount: 500, paid: 0 },
      { key: '', counterparty: 'a', days: 30, amount: 190, paid: 0 },
      { key: '', counterparty: 'a', days: 200, amount: 10, paid: 0 },
    ];
    expect(medianDays(settled)).toBe(28);
    expect(sharesOf(settled)).toEqual([
      { percent: 30, days: 1 },
      { percent: 70, days: 28 },
    ]);
    expect(sharesOf([])).toEqual([]);
  });

  test('an account’s habit tells its terms: rent on its day, sales on account', () => {
    const rows: [string, string, number, string, string][] = [];
    for (const m of ['01', '02', '03']) {
      rows.push([`2025-${m}-03`, 'rent', 900, '', `B${m}`], [`2025-${m}-03`, 'bank', -900, '', `B${m}`]);
      rows.push(
        [`2025-${m}-10`, 'rec', 500, 'Ann', `S${m}`],
        [`2025-${m}-10`, 'sales', -500, 'Ann', `S${m}`],
      );
    }
    // Rows of an entry share their reference's place, as an intake leaves them.
    const made = blockWith(rows);
    const block = { ...made, reference: Int32Array.from(rows, (_, i) => 2 + 4 * (i >> 1)) };
    const habits = habitsOf([block], view, accounts);
    expect(habits.get('rent')).toMatchObject({ bank: 1, account: 0, day: 3, perMonth: 1 });
    expect(habits.get('sales')).toMatchObject({ bank: 0, account: 1 });
    // A statement by month has one side only, and tells nothing.
    expect(habitsOf([blockWith([['2025-01-31', 'rent', 900, '', '']])], view, accounts).size).toBe(0);
    const shares = { in: [{ percent: 100, days: 30 }], out: [] };
    const ground = (id: string) => ({
      habit: habits.get(id),
      shares,
      untaxed: false,
      stockDays: () => null,
    });
    expect(guessTerms(accounts[1]!, ground('rent'))).toMatchObject({
      from: 'history',
      sure: true,
      terms: { parts: [{ rule: { kind: 'atOnce', on: { of: 'monthDay', day: 3 } } }] },
    });
    expect(guessTerms(accounts[0]!, ground('sales')).terms.parts[0]!.rule).toEqual({
      ...onAccount([['100', { days: 30 }]], { of: 'monthDay', day: 10 }),
    });
    expect(guessTerms(account('d', 'expense', 'Depreciation'), ground('d')).terms.parts[0]!.rule.kind).toBe(
      'withoutMoney',
    );
    expect(guessTerms(account('w', 'expense', 'Yard wages'), ground('w'))).toMatchObject({
      from: 'name',
      sure: false,
    });
    // A tax that moves in the ledger and that nobody told of comes on top of sales; what is lost is never paid.
    const taxed = { ...ground('sales'), untaxed: true };
    expect([guessTerms(accounts[0]!, ground('sales')).sure, guessTerms(accounts[0]!, taxed).sure]).toEqual([
      true,
      false,
    ]);
    expect(guessTerms(accounts[1]!, { ...ground('rent'), untaxed: true }).sure).toBe(true);
    const lost = { ...account('lost', 'expense', 'Bad debts'), id: 'rent' };
    expect(guessTerms(lost, ground('rent')).sure).toBe(false);
    expect(guessTerms(account('x', 'expense', 'Sundry'), ground('x'))).toMatchObject({
      from: 'kind',
      sure: false,
    });
  });
});

test('what holds the low point down: a payment a week later, a receipt that comes too late', () => {
  const wages = account('wages', 'expense');
  const sales = account('sales', 'income');
  const p = createProjector()(
    projectionOf(
      [
        planned(wages, atOnce({ of: 'monthDay', day: 10 }), [700]),
        planned(sales, atOnce({ of: 'monthDay', day: 20 }), [500]),
      ],
      { opening: new Map([['bank', 1_000]]) },
    ),
  );
  const f = forecastOf(p, RULES);
  expect(f.low).toEqual({ day: on('2026-01-10'), amount: 300 });
  const holds = (of: typeof f, rules: typeof RULES) =>
    holdsOf(p, of, rules, 5).map((h) => [h.cause.amount, fromDayNumber(h.to), h.low, h.lift]);
  // Received on the day of the low point, it lifts it. The payment a week later would only move it.
  expect(holds(f, RULES)).toEqual([[500, '2026-01-10', { day: on('2026-01-10'), amount: 800 }, 500]]);
  // What would keep a floor, and how long: until the 500 come, 450 are missing of 750, and nothing where it is kept.
  expect(cureOf(f, null)).toBeNull();
  const floored = forecastOf(p, { ...RULES, floor: minor(750) });
  expect(cureOf(floored, minor(750))).toEqual({
    amount: 450,
    from: on('2026-01-10'),
    until: floored.below.at(-1)!.to,
  });
  expect(cureOf(forecastOf(p, { ...RULES, floor: minor(300) }), minor(300))).toBeNull();
});

test('a payment that could wait lifts the low point; days that are known are not looked at', () => {
  const p = createProjector()(
    projectionOf([], {
      opening: new Map([
        ['bank', 1_000],
        ['rec', 900],
        ['pay', -700],
      ]),
      periods: projectionOf([planned(account('x', 'income'), atOnce(), [0, 0])]).periods,
      items: [
        item({ key: 'a', side: 'out', account: 'pay', expected: on('2026-01-05'), open: minor(400) }),
        item({ key: 'b', side: 'out', account: 'pay', expected: on('2026-01-12'), open: minor(300) }),
        item({ key: 'c', side: 'in', expected: on('2026-01-14'), open: minor(900) }),
      ],
    }),
  );
  const f = forecastOf(p, RULES);
  const holds = (of: typeof f, today?: number) =>
    holdsOf(p, of, { ...RULES, ...(today ? { today } : {}) }, 5).map((h) => [
      h.cause.amount,
      fromDayNumber(h.to),
      h.lift,
    ]);
  // Low on the 12th at 300. The 400 of the 5th wait two weeks, the 300 of the 12th one, the 900 come two days earlier.
  expect(f.low).toEqual({ day: on('2026-01-12'), amount: 300 });
  expect(holds(f)).toEqual([
    [-400, '2026-01-19', 400],
    [900, '2026-01-12', 300],
    [-300, '2026-01-19', 300],
  ]);
  // Under a floor it is missing from the first day: the 900 keep it if they come then.
  const floor = minor(700);
  const under = forecastOf(p, { ...RULES, floor });
  expect(
    holdsOf(p, under, { ...RULES, floor }, 5).map((h) => [h.cause.amount, fromDayNumber(h.to), h.lift]),
  ).toContainEqual([900, '2026-01-05', 700]);
  const known = forecastOf(p, { ...RULES, today: on('2026-01-05') });
  expect(holds(known, on('2026-01-05')).map((h) => h[0])).toEqual([900, -300]);
});

test('a table of weeks and days adds up to the bank, whatever the ranges', () => {
  const sales = account('sales', 'income');
  const p = createProjector()(
    projectionOf([planned(sales, atOnce({ of: 'spread' }), [10_000, 5_000, -700])], {
      opening: new Map([['bank', 33]]),
    }),
  );
  const f = forecastOf(p, RULES);
  for (const ranges of [byWeeks(NEW_YEAR + 1, 14), byDays(NEW_YEAR + 1, 90)]) {
    const t = cashTable(f, ranges);
    expect(t.opening[0]).toBe(33);
    ranges.forEach((_, i) => {
      const moved = t.rows.reduce((s, r) => s + r.amounts[i]!, 0);
      expect(t.opening[i]! + moved).toBe(t.closing[i]);
      if (i > 0) expect(t.opening[i]).toBe(t.closing[i - 1]);
    });
    expect(t.closing.at(-1)).toBe(33 + 14_300);
  }
  // 1 January 2026 is a Thursday (ISO 8601): its week ends on the 4th.
  expect(byWeeks(NEW_YEAR + 1, 2).map((r) => [fromDayNumber(r.from), fromDayNumber(r.to)])).toEqual([
    ['2026-01-01', '2026-01-04'],
    ['2026-01-05', '2026-01-11'],
  ]);
});
