import { day, toDayNumber, type Day } from '@/core/calendar';
import type { Adjusts, ScheduleRow, Terms, When } from '@/core/model';
import { NO_CASH } from '@/core/model';
import { minor, percent } from '@/core/money';
import { makeRow, taxedPeriods } from '@/core/schedule';
import { account, calendar, months, periodIds } from '@/core/test/build';
import { atOnce, onAccount, terms } from '@/core/test/cash';
import {
  assetRow,
  equityRow,
  loanRow,
  movesOf,
  releaseRow,
  rowGroundOf,
  staffRow,
  taxRow,
} from '@/core/test/schedule';
import {
  cashIn,
  isOfCompany,
  itemsIn,
  percentOfSize,
  reachesItem,
  rowsIn,
  sizeOfPercent,
  termsIn,
  timesIn,
  type Assumption,
} from '.';

/* What assumptions make of rows, terms and money, by hand. */

const ids = periodIds(2026);
const always: When = { from: ids[0]!, until: null, every: 1, times: null, ramp: null };
const assume = (what: Adjusts, size: number, when: Partial<When> = {}): Assumption => ({
  size,
  adjustment: {
    id: 'j1',
    name: 'Tried',
    why: '',
    by: 'me',
    at: '2026-01-01T00:00:00Z',
    what,
    when: { ...always, ...when },
    off: false,
  },
});
const budget = (...schedules: ScheduleRow[]) => ({
  schedules,
  axis: null,
  segments: [null],
  first: ids[0]!,
  length: 12,
});
const rowsOf = (rows: ScheduleRow[], a: Assumption, closedThrough: number | null = null) =>
  rowsIn(budget(...rows), [a], { calendar, closedThrough });
const ground = rowGroundOf();
const debits = (row: ScheduleRow, of: string) => movesOf(makeRow(row, ground).postings, of, ground);

describe('rows', () => {
  test('a raise from a month on, for those who work then; of some accounts alone where they are said', () => {
    const left = staffRow({ id: 'r2', until: day('2026-02-28') });
    const [rigger, gone] = rowsOf(
      [staffRow(), left],
      assume({ on: 'pay', accounts: [] }, 10_000, { from: ids[3]! }),
    );
    expect(debits(rigger!, 'wages').slice(2, 5)).toEqual([300_000, 330_000, 330_000]);
    expect(gone).toMatchObject({ raises: [] });
    const other = assume({ on: 'pay', accounts: ['office'] }, 10_000);
    const same = budget(staffRow());
    expect(rowsIn(same, [other], { calendar, closedThrough: null })[0]).toBe(same.schedules[0]);
  });

  test('every year anew where it is said so', () => {
    const yearly = assume({ on: 'pay', accounts: [] }, 10_000, { every: 3, times: 2 });
    expect(debits(rowsOf([staffRow()], yearly)[0]!, 'wages').slice(0, 5)).toEqual([
      330_000, 330_000, 330_000, 363_000, 363_000,
    ]);
  });

  test('points on top of all pay hold for the months that they are for', () => {
    const [row] = rowsOf(
      [staffRow({ oncostAccount: 'oncosts' })],
      assume({ on: 'oncosts' }, 2_000, { from: ids[1]!, until: ids[2]! }),
    );
    expect(debits(row!, 'oncosts').slice(0, 5)).toEqual([0, 6_000, 6_000, 0, 0]);
  });

  test('interest of loans is so many points more from a month on, and as before after its end', () => {
    const loan = loanRow({ rates: [{ from: day('2026-07-01'), rate: percent('8') }] });
    const more = assume({ on: 'rate', of: 'interest', by: 'more' }, 1_500, { from: ids[3]!, until: ids[8]! });
    const [row] = rowsOf([loan], more);
    expect(row!.kind === 'loan' && row!.rates).toEqual([
      { from: '2026-04-01', rate: '7.5' },
      { from: '2026-07-01', rate: '9.5' },
      { from: '2026-10-01', rate: '8' },
    ]);
    const fixed = assume({ on: 'rate', of: 'interest', by: 'value' }, 3_000);
    expect((rowsOf([loan], fixed)[0] as typeof loan).rates.map((r) => r.rate)).toEqual(['3', '3']);
  });

  test('income tax takes another rate for whole fiscal years, from that of its first month on', () => {
    const [row] = rowsOf(
      [taxRow()],
      assume({ on: 'rate', of: 'incomeTax', by: 'value' }, 30_000, { from: periodIds(2027)[5]! }),
    );
    const two = { first: months(2026).first, last: months(2027).last };
    const of = taxedPeriods(row as ReturnType<typeof taxRow>, {
      calendar,
      range: two,
      profit: () => 1_000,
      booked: () => null,
    });
    expect(of.map((t) => t.amount)).toEqual([...Array<number>(12).fill(200), ...Array<number>(12).fill(300)]);
  });

  test('a row moves with all its days, what stands in the ledger stays', () => {
    const moved = (row: ScheduleRow, by = 2) =>
      rowsOf([row], assume({ on: 'rowMoved', row: row.id }, by))[0]!;
    expect(moved(staffRow({ from: day('2026-01-31'), until: day('2026-11-30') }), 1)).toMatchObject({
      // February has no 31st; the month is counted from the day itself.
      from: '2026-02-28',
      until: '2026-12-30',
    });
    expect(moved(loanRow())).toMatchObject({
      begins: { day: '2026-03-31' },
      first: '2026-04-28',
    });
    expect(
      moved(loanRow({ begins: { of: 'stands', day: day('2026-01-31'), amount: minor(5) } })),
    ).toMatchObject({
      begins: { day: '2026-01-31' },
    });
    expect(
      moved(assetRow({ sold: { day: day('2026-09-01'), price: minor(5), gain: null } }), -1),
    ).toMatchObject({
      bought: '2026-02-15',
      sold: { day: '2026-08-01' },
    });
    expect(moved(releaseRow())).toMatchObject({ from: ids[2] });
    expect(moved(equityRow())).toMatchObject({ first: '2026-04-10' });
  });

  test('fields take a value, or so many percent more, and never less than nothing', () => {
    const field = (row: ScheduleRow, f: string, by: 'value' | 'percent', size: number) =>
      rowsOf([row], assume({ on: 'rowField', row: row.id, field: f as 'pay', by }, size))[0];
    expect(field(staffRow(), 'pay', 'percent', 5_000)).toMatchObject({ pay: { amount: 315_000 } });
    expect(field(staffRow(), 'pay', 'value', -5)).toMatchObject({ pay: { amount: 0 } });
    expect(field(staffRow(), 'count', 'value', 250)).toMatchObject({ count: 250 });
    expect(field(staffRow(), 'until', 'value', toDayNumber(day('2026-06-30')))).toMatchObject({
      until: '2026-06-30',
    });
    expect(field(loanRow(), 'rate', 'value', 4_125)).toMatchObject({ rate: '4.125' });
    expect(field(loanRow(), 'payments', 'value', 48)).toMatchObject({ payments: 48 });
    expect(field(assetRow(), 'cost', 'percent', -95_000)).toMatchObject({ cost: 50_000, residual: 50_000 });
    const tax = taxRow();
    // It has no such field.
    expect(field(tax, 'pay', 'value', 5)).toBe(tax);
  });

  test('what an adjustment adds has a name of its own; a purchase that a closed month did without is gone', () => {
    const boat = assetRow({ bought: day('2026-03-15') });
    const added = assume({ on: 'rowAdded', row: boat, by: 'yes' }, 1);
    expect(rowsOf([], added).map((r) => r.id)).toEqual(['added-j1']);
    expect(rowsOf([], added, months(2026).first + 1)).toHaveLength(1);
    expect(rowsOf([], added, months(2026).first + 2)).toEqual([]);
    const hired = assume({ on: 'rowAdded', row: staffRow({ from: day('2026-03-15') }), by: 'yes' }, 1);
    // Whoever works goes on working.
    expect(rowsOf([], hired, months(2026).first + 2)).toHaveLength(1);
  });
});

describe('terms', () => {
  const sales = account('sales', 'income');
  const own = terms('sales', [
    '100',
    onAccount([
      ['60', { days: 10 }],
      ['40', { months: 1, day: 15 }],
    ]),
  ]);
  const changed = (what: Adjusts, size: number, of: Terms = own): Terms =>
    termsIn([assume(what, size)], calendar)!(of, sales, null, months(2026).first);
  const reach = { lines: [{ of: 'income' as const }] };

  test('days later or earlier, never before the invoice', () => {
    const rule = changed({ on: 'termsDays', reach }, 20).parts[0]!.rule;
    expect(rule.kind === 'onAccount' && rule.shares.map((s) => s.due)).toEqual([
      { of: 'days', days: 30 },
      { of: 'months', months: 1, day: 15, later: 20 },
    ]);
    const earlier = changed({ on: 'termsDays', reach }, -20).parts[0]!.rule;
    expect(earlier.kind === 'onAccount' && earlier.shares[0]!.due).toEqual({ of: 'days', days: 0 });
  });

  test('what is paid at once is paid after so many days then', () => {
    const cash = terms('sales', ['100', atOnce({ of: 'monthDay', day: 5 })]);
    expect(changed({ on: 'termsDays', reach }, 14, cash).parts[0]!.rule).toMatchObject({
      kind: 'onAccount',
      invoiced: { of: 'monthDay', day: 5 },
      shares: [{ percent: '100', due: { of: 'days', days: 14 } }],
    });
    expect(changed({ on: 'termsDays', reach }, -14, cash)).toBe(cash);
  });

  test('points that are never paid come off the last share, then the one before', () => {
    const rule = changed({ on: 'termsLost', reach }, 45_000).parts[0]!.rule;
    expect(rule.kind === 'onAccount' && rule.shares.map((s) => s.percent)).toEqual(['55', '0']);
  });

  test('they hold in their months, and for no other line', () => {
    const in2 = termsIn(
      [assume({ on: 'termsDays', reach }, 20, { from: ids[3]!, until: ids[4]! })],
      calendar,
    )!;
    const at = (month: number) => in2(own, sales, null, months(2026).first + month);
    expect([2, 5].map(at)).toEqual([own, own]);
    expect(at(3)).toBe(at(4));
    expect(at(3)).not.toBe(own);
    expect(in2(own, account('rent', 'expense'), null, months(2026).first + 3)).toBe(own);
  });
});

describe('money', () => {
  const cash = {
    ...NO_CASH,
    floor: minor(500),
    creditLine: { account: null, interest: null, limit: minor(1_000), rate: percent('5'), step: minor(1) },
    dated: [
      {
        id: 'd1',
        name: 'Grant',
        direction: 'in' as const,
        amount: minor(9),
        first: day('2026-03-31'),
        repeat: null,
        against: null,
        bank: null,
        group: 'other' as const,
      },
    ],
  };
  const start = toDayNumber(day('2026-01-31'));
  const rate = (of: 'limit' | 'floor' | 'lineRate', by: 'value' | 'more', size: number) =>
    cashIn(cash, [assume({ on: 'rate', of, by }, size)], start);

  test('floor, limit and rate of the credit line take a value or so much more, never less than nothing', () => {
    expect(rate('floor', 'more', 200).floor).toBe(700);
    expect(rate('limit', 'value', 400).creditLine!.limit).toBe(400);
    expect(rate('limit', 'more', -5_000).creditLine!.limit).toBe(0);
    expect(rate('lineRate', 'more', 1_250).creditLine!.rate).toBe('6.25');
    expect(cashIn(cash, [assume({ on: 'rate', of: 'interest', by: 'more' }, 5)], start)).toBe(cash);
  });

  test('a dated item comes months later; one that is over stays where it was', () => {
    const moved = (from: number) =>
      cashIn(cash, [assume({ on: 'datedMoved', item: 'd1' }, 1)], from).dated[0]!.first;
    expect(moved(start)).toBe('2026-04-30');
    expect(moved(toDayNumber(day('2026-03-31')))).toBe('2026-03-31');
  });

  const on = (text: string) => toDayNumber(text as Day);
  const item = {
    key: 'item 1',
    side: 'in' as const,
    kind: 'invoice',
    counterparty: 'Ann',
    due: on('2026-02-10'),
    expected: on('2026-02-15'),
    open: 1_000,
    comes: { shares: [], ruled: true, tax: { owes: 160 } },
  };
  const items = (as: 'later' | 'paid' | 'never', size: number, whose: string | null = null) =>
    itemsIn(
      [item],
      [
        assume({ on: 'items', side: 'in', counterparty: whose, item: null, as }, size) as Parameters<
          typeof itemsIn
        >[1][number],
      ],
      start,
    )[0]!;

  test('an open item later counts from its due day, and comes no sooner than it would have', () => {
    expect(items('later', 30)).toMatchObject({ expected: on('2026-03-12'), comes: { ruled: false } });
    expect(items('later', 3).expected).toBe(on('2026-02-15'));
    expect(items('later', -60).expected).toBe(on('2026-02-01'));
    expect(items('later', 30, 'Bob')).toBe(item);
  });

  test('what is overdue is written off on the first day ahead', () => {
    const overdue = { ...item, due: start - 20 };
    const what = { on: 'items', side: 'in', counterparty: null, item: null, as: 'never' } as const;
    const [now] = itemsIn([overdue], [assume(what, 1) as Parameters<typeof itemsIn>[1][number]], start);
    expect((now!.comes.shares as readonly { day: number }[]).map((s) => s.day)).toEqual([
      start + 1,
      start + 1,
    ]);
  });

  test('an adjustment is about one item, a counterparty, or all of a side; about invoices alone', () => {
    const of = (change: object, i = item) =>
      reachesItem({ on: 'items', side: 'in', counterparty: null, item: null, as: 'later', ...change }, i);
    expect([of({}), of({ side: 'out' }), of({}, { ...item, kind: 'order' })]).toEqual([true, false, false]);
    expect([of({ item: item.key }), of({ item: 'another' })]).toEqual([true, false]);
    expect([of({ counterparty: item.counterparty }), of({ counterparty: 'Nobody' })]).toEqual([true, false]);
  });

  test.each<[Adjusts, boolean]>([
    [{ on: 'datedMoved', item: 'd1' }, true],
    [{ on: 'items', side: 'in', counterparty: null, item: null, as: 'never' }, true],
    [{ on: 'rate', of: 'floor', by: 'value' }, true],
    [{ on: 'rate', of: 'interest', by: 'more' }, false],
    [{ on: 'oncosts' }, false],
  ])('%o is of the company: %s', (what, is) => expect(isOfCompany(what)).toBe(is));

  test('paid in part or never, the rest is written off on its due day, its tax taken back', () => {
    expect(items('never', 1).comes.shares).toEqual([
      { day: item.due, amount: 840, to: 'lost', owes: 0 },
      { day: item.due, amount: 160, to: 'tax', owes: 0 },
    ]);
    expect(items('paid', 25_000).comes.shares).toEqual([
      { day: item.due, amount: 250, to: 'bank', owes: 40 },
      { day: item.due, amount: 630, to: 'lost', owes: 0 },
      { day: item.due, amount: 120, to: 'tax', owes: 0 },
    ]);
  });
});

describe('when', () => {
  const first = months(2026).first;
  const times = (when: Partial<When>, stays = false) =>
    [0, 1, 2, 3, 4, 5, 6, 7].map((m) => timesIn(calendar, { ...always, ...when }, stays)(first + m));

  test.each<[string, Partial<When>, boolean, number[]]>([
    ['once', { from: ids[1]!, until: ids[1]! }, false, [0, 1, 0, 0, 0, 0, 0, 0]],
    ['from a month on', { from: ids[2]! }, false, [0, 0, 1, 2, 3, 4, 5, 6]],
    ['from one to another', { from: ids[2]!, until: ids[4]! }, false, [0, 0, 1, 2, 3, 0, 0, 0]],
    ['every third, three times', { every: 3, times: 3 }, false, [1, 0, 0, 2, 0, 0, 3, 0]],
    ['every third until a month', { every: 3, until: ids[4]! }, false, [1, 0, 0, 2, 0, 0, 0, 0]],
    ['what stays as high', { from: ids[1]!, until: ids[3]! }, true, [0, 1, 2, 3, 3, 3, 3, 3]],
    ['a range that is turned around', { from: ids[4]!, until: ids[2]! }, false, [0, 0, 0, 0, 0, 0, 0, 0]],
  ])('%s', (_, when, stays, expected) => expect(times(when, stays)).toEqual(expected));
});

test('a size of percent and its percentage are one', () => {
  for (const p of ['0', '5', '-12.5', '4.125', '100', '-0.001'])
    expect(percentOfSize(sizeOfPercent(p))).toBe(p);
});
