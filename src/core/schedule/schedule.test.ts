import fc from 'fast-check';
import { HyperFormula } from 'hyperformula';
import { day, fromDayNumber, toDayNumber, weekCalendar, yearRange } from '@/core/calendar';
import type { RowOf, ScheduleRow } from '@/core/model';
import { minor, percent, ratio } from '@/core/money';
import { calendar, months } from '@/core/test/build';
import {
  assetRow,
  equityRow,
  linesOf,
  loanRow,
  movesOf,
  releaseRow,
  rowGroundOf,
  staffRow,
  taxRow,
} from '@/core/test/schedule';
import {
  accumulatedAt,
  assetAt,
  dueWithinYear,
  levelPayment,
  loanCost,
  loanTable,
  makeRow,
  principalAt,
  taxedPeriods,
  taxPayments,
} from '.';

/** What a general spreadsheet engine makes of a formula. */
function sheet(formula: string): number {
  const engine = HyperFormula.buildFromArray([[formula]], { licenseKey: 'gpl-v3' });
  return engine.getCellValue({ sheet: 0, row: 0, col: 0 }) as number;
}
const cents = (formula: string): number => Math.round(sheet(formula) * 100);

const ground = rowGroundOf();
const at = (year: number, month: number) => months(year).first + month - 1;
const debits = (row: ScheduleRow, of: string, g = ground) => movesOf(makeRow(row, g).postings, of, g);

describe('staff', () => {
  const pays: readonly (readonly [string, Partial<RowOf<'staff'>>, number[]])[] = [
    ['by month', {}, new Array<number>(12).fill(300_000)],
    [
      'by year: twelve parts that come to it, the larger ones first',
      { pay: { per: 'year', amount: minor(5_000_000) } },
      [...new Array<number>(8).fill(416_667), ...new Array<number>(4).fill(416_666)],
    ],
    [
      'from a day within a month, by its calendar days: 16 of 31',
      { from: day('2026-03-16') },
      [0, 0, Math.round((300_000 * 16) / 31), ...new Array<number>(9).fill(300_000)],
    ],
    [
      'until a day within a month: 10 of 28',
      { until: day('2026-02-10') },
      [300_000, Math.round((300_000 * 10) / 28), ...new Array<number>(10).fill(0)],
    ],
    [
      'a raise in the middle of April: 15 days each, then one of an amount on top',
      {
        raises: [
          { from: day('2026-05-01'), change: { of: 'amount', amount: minor(1000) } },
          { from: day('2026-04-16'), change: { of: 'percent', percent: percent('10') } },
        ],
      },
      [300_000, 300_000, 300_000, 315_000, ...new Array<number>(8).fill(331_000)],
    ],
    [
      'by payday: every other Friday makes two months with three (common practice)',
      {
        pay: { per: 'payday', amount: minor(100_000) },
        paydays: { of: 'weeks', every: 2, from: day('2026-01-02') },
      },
      [3, 2, 2, 2, 2, 2, 3, 2, 2, 2, 2, 2].map((n) => n * 100_000),
    ],
    [
      'by hour, so many a month, for one and a half positions',
      { count: 150, pay: { per: 'hour', amount: minor(2000), hours: { of: 'month', hours: 16_050 } } },
      new Array<number>(12).fill(481_500),
    ],
  ];
  it.each(pays)('%s', (_, change, expected) => {
    expect(debits(staffRow(change), 'wages')).toEqual(expected);
  });

  it('takes hours of a driver, and says so where there is none', () => {
    const row = staffRow({
      pay: { per: 'hour', amount: minor(2500), hours: { of: 'driver', driver: 'd1' } },
    });
    const hours = rowGroundOf({
      driver: (id, p) => (id === 'd1' ? ratio(p - months(2026).first) : undefined),
    });
    expect(debits(row, 'wages', hours)).toEqual(Array.from({ length: 12 }, (_, i) => i * 2500));
    expect(makeRow(row, ground)).toMatchObject({ issue: 'driverMissing', postings: [] });
  });

  it('pays the net part on the payday, and what is withheld with the on-costs when due', () => {
    const row = staffRow({
      oncosts: [{ name: 'Pension', percent: percent('10'), cap: null, year: 'fiscal' }],
      oncostAccount: 'oncosts',
      withheld: percent('20'),
      remitted: { of: 'months', months: 1, day: 15 },
    });
    expect(linesOf(row, rowGroundOf({ range: { first: at(2026, 1), last: at(2026, 1) } }))).toEqual([
      ['2026-01-31', 'wages', 300_000],
      ['2026-01-31', 'withheld', -300_000],
      ['2026-01-31', 'oncosts', 30_000],
      ['2026-01-31', 'withheld', -30_000],
      ['2026-01-31', 'withheld', 240_000],
      ['2026-01-31', 'bank', -240_000],
      ['2026-02-15', 'withheld', 90_000],
      ['2026-02-15', 'bank', -90_000],
    ]);
  });

  it('stops an on-cost at the cap of a year, to the cent, also where the year began before the budget', () => {
    const capped = (year: 'fiscal' | number) =>
      staffRow({
        oncosts: [{ name: 'Unemployment', percent: percent('6'), cap: minor(700_000), year: year as 1 }],
        oncostAccount: 'oncosts',
      });
    // Two months at 3,000 and a third of 1,000: 6 % of 7,000 is 420.
    expect(debits(capped('fiscal'), 'oncosts').slice(0, 4)).toEqual([18_000, 18_000, 6_000, 0]);
    // A year from November: by January 6,000 have gone before.
    expect(debits(capped(11), 'oncosts').slice(0, 2)).toEqual([6_000, 0]);
    expect(debits(capped(11), 'oncosts').slice(9)).toEqual([0, 18_000, 18_000]);
  });

  it('has the tools she needs in the month in which she comes, divided as her pay is', () => {
    const row = staffRow({
      from: day('2026-05-04'),
      once: [{ account: 'tools', name: 'Desk', amount: minor(100_001) }],
      split: [
        { segment: null, percent: percent('50') },
        { segment: 'n', percent: percent('50') },
      ],
    });
    const made = makeRow(row, ground).postings.filter((p) => p.account === 'tools');
    expect(made.map((p) => [fromDayNumber(p.day), p.segment, p.amount])).toEqual([
      ['2026-05-04', null, 50_001],
      ['2026-05-04', 'n', 50_000],
    ]);
  });

  it('needs nothing anew where she came before', () => {
    const row = staffRow({
      from: day('2025-12-31'),
      once: [{ account: 'tools', name: 'Desk', amount: minor(5) }],
    });
    expect(debits(row, 'tools').every((v) => v === 0)).toBe(true);
    expect(makeRow(row, ground).postings.some((p) => p.account === 'tools')).toBe(false);
  });

  it('counts the calendar days of months in a year of weeks', () => {
    const weeks = weekCalendar({
      pattern: '4-4-5',
      endMonth: 12,
      endWeekday: 6,
      ending: 'last',
    });
    const year = yearRange(weeks, 2026);
    const g = rowGroundOf({ calendar: weeks, range: year });
    const first = weeks.period(year.first);
    const paid = debits(staffRow(), 'wages', g);
    // A year that ends on the last Saturday of December 2025 leaves 28 to 31 December to the next; January has 31 days.
    expect([first.start, first.end]).toEqual(['2025-12-28', '2026-01-24']);
    expect(paid[0]).toBe(Math.round((300_000 * 4) / 31) + Math.round((300_000 * 24) / 31));
    expect(paid).toHaveLength(12);
  });
});

describe('loans', () => {
  const table = (change: Partial<RowOf<'loan'>> = {}) => loanTable(loanRow(change), calendar);

  it('agrees with PMT, IPMT and PPMT of a spreadsheet engine, payment by payment', () => {
    const { payments } = table();
    expect(levelPayment(2_000_000, percent('6'), 1, 60)).toBe(cents('=PMT(0.06/12,60,-20000)'));
    // The bank rounds each payment, so its parts drift from the unrounded ones by less than a cent a payment.
    for (const k of [1, 2, 12, 30, 59]) {
      const p = payments[k - 1]!;
      expect(Math.abs(p.interest - cents(`=IPMT(0.06/12,${k},60,-20000)`))).toBeLessThanOrEqual(1);
      expect(Math.abs(p.principal - cents(`=PPMT(0.06/12,${k},60,-20000)`))).toBeLessThanOrEqual(1);
    }
    expect(payments).toHaveLength(60);
    expect(payments.at(-1)!.closing).toBe(0);
    // The last payment takes the rounding.
    const last = payments.at(-1)!;
    expect(payments.slice(0, -1).every((p) => p.interest + p.principal === 38_666)).toBe(true);
    expect(Math.abs(last.interest + last.principal - 38_666)).toBeLessThan(60);
  });

  it('agrees with PMT for random loans', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1_000, max: 5_000_000 }),
        fc.integer({ min: 1, max: 240 }),
        fc.integer({ min: 2, max: 360 }),
        fc.constantFrom(1, 3, 6, 12),
        (principal, tenths, n, every) => {
          const ours = levelPayment(principal * 100, percent(`${tenths / 10}`), every, n);
          const theirs = sheet(`=PMT(${tenths / 10}/100/12*${every},${n},-${principal})`) * 100;
          expect(Math.abs(ours - theirs)).toBeLessThan(0.51);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('comes to the interest of a year by CUMIPMT', () => {
    const { payments } = table({
      begins: { of: 'drawn', day: day('2025-12-31'), amount: minor(12_500_000) },
      first: day('2026-01-31'),
      rate: percent('9'),
      payments: 360,
    });
    const second = payments.slice(12, 24).reduce((t, p) => t + p.interest, 0);
    expect(Math.abs(second + cents('=CUMIPMT(0.09/12,360,125000,13,24,0)'))).toBeLessThanOrEqual(12);
  });

  const ways: readonly (readonly [string, Partial<RowOf<'loan'>>, (readonly [number, number, number])[]])[] =
    [
      [
        'level principal: equal parts, less interest each time',
        {
          repay: { of: 'principal' },
          payments: 3,
          begins: { of: 'drawn', day: day('2026-01-31'), amount: minor(100_000) },
        },
        [
          [500, 33_333, 66_667],
          [333, 33_333, 33_334],
          [167, 33_334, 0],
        ],
      ],
      [
        'interest alone, then all of it with the last payment',
        { repay: { of: 'interestOnly' }, payments: 3 },
        [
          [10_000, 0, 2_000_000],
          [10_000, 0, 2_000_000],
          [10_000, 2_000_000, 0],
        ],
      ],
      ['all at the end', { repay: { of: 'atEnd' }, payments: 3 }, [[30_000, 2_000_000, 0]]],
      [
        'two payments of grace are part of the term',
        { grace: 2, payments: 4, repay: { of: 'principal' } },
        [
          [10_000, 0, 2_000_000],
          [10_000, 0, 2_000_000],
          [10_000, 1_000_000, 1_000_000],
          [5_000, 1_000_000, 0],
        ],
      ],
      [
        'typed principal with the interest up to each day',
        {
          repay: {
            of: 'typed',
            amounts: [
              { day: day('2026-04-30'), amount: minor(500_000) },
              { day: day('2026-03-31'), amount: minor(1_500_000) },
            ],
          },
        },
        [
          [20_000, 1_500_000, 500_000],
          [2_500, 500_000, 0],
        ],
      ],
      [
        'a rate that changes with the second payment',
        {
          repay: { of: 'interestOnly' },
          payments: 3,
          rates: [{ from: day('2026-02-28'), rate: percent('12') }],
        },
        [
          [10_000, 0, 2_000_000],
          [20_000, 0, 2_000_000],
          [20_000, 2_000_000, 0],
        ],
      ],
      [
        'by actual days of 365: 28, then 31',
        { repay: { of: 'interestOnly' }, payments: 2, days: 'actual/365' },
        [
          [Math.round((2_000_000 * 0.06 * 28) / 365), 0, 2_000_000],
          [Math.round((2_000_000 * 0.06 * 31) / 365), 2_000_000, 0],
        ],
      ],
    ];
  it.each(ways)('%s', (_, change, expected) => {
    expect(table(change).payments.map((p) => [p.interest, p.principal, p.closing])).toEqual(expected);
  });

  it('ends earlier, or pays less, after an extra repayment, and saves its interest', () => {
    const extra = [{ day: day('2026-06-15'), amount: minor(500_000) }];
    const [plain, shorter, lower] = [table(), table({ extra }), table({ extra, afterExtra: 'lower' })];
    expect(shorter.payments.filter((p) => !p.extra).length).toBeLessThan(60);
    expect(lower.payments.filter((p) => !p.extra)).toHaveLength(60);
    expect(loanCost(shorter).interest).toBeLessThan(loanCost(lower).interest);
    expect(loanCost(lower).interest).toBeLessThan(loanCost(plain).interest);
    const at = shorter.payments.findIndex((p) => p.extra);
    // June's interest: half on what stood, half on what was left.
    const before = shorter.payments[at - 1]!.closing;
    expect(shorter.payments[at + 1]!.interest).toBe(
      Math.round((before * 0.06 * 15) / 360 + ((before - 500_000) * 0.06 * 15) / 360),
    );
  });

  it('tells interest where it accrues, and pays it when it is paid', () => {
    const row = loanRow({
      accrued: 'accrued',
      every: 3,
      first: day('2026-04-15'),
      payments: 2,
      repay: { of: 'interestOnly' },
    });
    // 75 days from 31 January to 15 April: 30 in February and March each, 15 in April.
    expect(debits(row, 'interest').slice(0, 5)).toEqual([0, 10_000, 10_000, 10_000, 10_000]);
    expect(debits(row, 'accrued').slice(0, 5)).toEqual([0, -10_000, -10_000, 15_000, -10_000]);
    expect(debits(loanRow({ ...row, accrued: null }), 'interest').slice(0, 5)).toEqual([0, 0, 0, 25_000, 0]);
  });

  it('a loan that stands on the day of a payment has paid it', () => {
    const begins = { of: 'stands' as const, day: day('2026-03-31'), amount: minor(100_000) };
    const { payments } = table({ begins, repay: { of: 'principal' }, payments: 4 });
    expect(payments.map((p) => fromDayNumber(p.day))).toEqual(['2026-04-30', '2026-05-31']);
  });

  it('says what is owed on a day, and what of it falls due within a year', () => {
    const row = loanRow({
      repay: { of: 'principal' },
      payments: 20,
      begins: { of: 'stands', day: day('2026-01-31'), amount: minor(2_000_000) },
    });
    const t = loanTable(row, calendar);
    const on = (d: string) => toDayNumber(day(d));
    expect(principalAt(row, t, on('2026-01-30'))).toBe(0);
    expect(principalAt(row, t, on('2026-02-27'))).toBe(2_000_000);
    expect(principalAt(row, t, on('2026-02-28'))).toBe(1_900_000);
    expect(dueWithinYear(row, t, on('2026-02-28'))).toBe(1_200_000);
    // Twelve months after 28 February 2027, a month's last day, end on 29 February 2028: twelve payments of 50,000.
    const long = { ...row, payments: 40 };
    expect(dueWithinYear(long, loanTable(long, calendar), on('2027-02-28'))).toBe(600_000);
    expect(dueWithinYear(long, loanTable(long, calendar), on('2027-02-27'))).toBe(600_000);
  });

  it('names a payment that is too small, and principal that is left', () => {
    expect(table({ repay: { of: 'level', payment: minor(5_000) }, payments: 3 })).toMatchObject({
      issue: 'paymentTooSmall',
      payments: [{}, {}, { closing: 0 }],
    });
    expect(
      table({ repay: { of: 'typed', amounts: [{ day: day('2026-05-01'), amount: minor(1) }] } }).issue,
    ).toBe('principalLeft');
  });
});

describe('assets', () => {
  const months5 = { of: 'straight', months: 5 } as const;
  it('straight-line agrees with SLN; months alike, the last takes the rounding', () => {
    const row = assetRow({ cost: minor(100_003), residual: minor(0), way: months5 });
    expect(debits(row, 'depreciation')).toEqual([
      0, 0, 20_001, 20_001, 20_001, 20_001, 19_999, 0, 0, 0, 0, 0,
    ]);
    expect(accumulatedAt(assetRow(), calendar, at(2027, 2))).toBe(cents('=SLN(10000,1000,5)'));
  });

  it('declining balance goes by what it stands at when a year begins, as DDB does for whole years', () => {
    const row = assetRow({
      bought: day('2026-01-01'),
      cost: minor(240_000),
      residual: minor(30_000),
      way: { of: 'declining', rate: percent('20') },
    });
    [1, 2, 3, 10].forEach((year) => {
      const last = at(2025 + year, 12);
      const ofYear = accumulatedAt(row, calendar, last) - accumulatedAt(row, calendar, last - 12);
      expect(Math.abs(ofYear - cents(`=DDB(2400,300,10,${year},2)`))).toBeLessThanOrEqual(year);
    });
    // From a day within the year: its months in use, of twelve.
    const later = assetRow({ ...row, bought: day('2026-10-20') });
    expect(accumulatedAt(later, calendar, at(2026, 12))).toBe(12_000);
  });

  it('goes on from what the ledger has', () => {
    const row = assetRow({
      bought: day('2022-01-01'),
      standing: { day: day('2026-02-28'), accumulated: minor(700_000), months: 4 },
    });
    expect(debits(row, 'depreciation').slice(0, 7)).toEqual([0, 0, 50_000, 50_000, 50_000, 50_000, 0]);
    expect(assetAt(row, calendar, at(2026, 4))).toEqual({
      cost: 1_000_000,
      accumulated: 800_000,
      book: 200_000,
    });
  });

  it('is sold with what was written off of it: nothing in the month of sale, the gain told', () => {
    const row = assetRow({
      way: { of: 'straight', months: 9 },
      sold: { day: day('2026-06-10'), price: minor(750_000), gain: 'gain' },
    });
    // March to May: 3 of 9 months of 9,000.
    expect(debits(row, 'depreciation')).toEqual([0, 0, 100_000, 100_000, 100_000, 0, 0, 0, 0, 0, 0, 0]);
    expect(linesOf(row).slice(-6)).toEqual([
      ['2026-06-10', 'bank', 750_000],
      ['2026-06-10', 'boats', -750_000],
      ['2026-06-10', 'accumulated', 300_000],
      ['2026-06-10', 'boats', -300_000],
      ['2026-06-10', 'gain', -50_000],
      ['2026-06-10', 'boats', 50_000],
    ]);
    expect(assetAt(row, calendar, at(2026, 6)).cost).toBe(0);
  });

  it('is paid on terms, its tax with it', () => {
    const row = assetRow({
      way: { of: 'none' },
      paid: { due: { of: 'days', days: 30 }, through: 'pay', bank: null },
      tax: { scheme: 't1', rate: percent('20') },
    });
    expect(linesOf(row)).toEqual([
      ['2026-03-15', 'boats', 1_000_000],
      ['2026-03-15', 'pay', -1_000_000],
      ['2026-03-15', '~tax', 200_000],
      ['2026-03-15', 'pay', -200_000],
      ['2026-04-14', 'pay', 1_200_000],
      ['2026-04-14', 'bank', -1_200_000],
    ]);
    expect(makeRow(row, ground).postings.flatMap((p) => p.owes ?? [])).toEqual([
      { scheme: 't1', amount: -200_000, paid: toDayNumber(day('2026-04-14')) },
    ]);
  });
});

describe('prepaid, deferred and equity', () => {
  it('takes its part each month, the larger first', () => {
    expect(debits(releaseRow(), 'insurance').slice(0, 4)).toEqual([33_334, 33_333, 33_333, 0]);
    // What was received in advance comes to income.
    expect(debits(releaseRow({ account: 'sales', against: 'accrued' }), 'accrued').slice(0, 3)).toEqual([
      33_334, 33_333, 33_333,
    ]);
  });
  it('is paid in, drawn and repeated', () => {
    const monthly = { every: 1, unit: 'months', until: null, times: 3 } as const;
    expect(debits(equityRow({ repeat: monthly }), 'shares').slice(0, 5)).toEqual([
      0, -50_000, -50_000, -50_000, 0,
    ]);
    expect(debits(equityRow({ what: 'dividend' }), 'bank').slice(0, 3)).toEqual([0, -50_000, 0]);
  });
});

describe('income tax', () => {
  const profits = (...by: number[]) =>
    rowGroundOf({
      range: { first: at(2026, 1), last: at(2027, 12) },
      profit: (p) => by[p - at(2026, 1)] ?? 0,
    });

  it('is of the year to date, and never below zero in it', () => {
    const made = taxedPeriods(taxRow(), profits(1000, -400, -900, 2000));
    expect(made.slice(0, 4).map((t) => t.amount)).toEqual([200, -80, -120, 340]);
  });

  /*
   * Loss carry-forward, in the pattern of the textbooks' worked examples (figures ours): a loss of 60,000, then profits of
   * 40,000 and 50,000 at 20 %: nothing in the first year, nothing in the second, tax on 30,000 in the third.
   */
  it('carries a loss forward and uses it up', () => {
    const year = (amount: number) => [...new Array<number>(11).fill(0), amount];
    const g = rowGroundOf({
      range: { first: at(2026, 1), last: at(2028, 12) },
      profit: (p) => [...year(-60_000), ...year(40_000), ...year(50_000)][p - at(2026, 1)] ?? 0,
    });
    const made = taxedPeriods(taxRow(), g);
    expect([11, 23, 35].map((i) => [made[i]!.losses, made[i]!.taxable, made[i]!.toDate])).toEqual([
      [0, 0, 0],
      [60_000, 0, 0],
      [20_000, 30_000, 6_000],
    ]);
    // What was left of older years counts from the first.
    expect(taxedPeriods(taxRow({ losses: minor(70_000) }), g)[35]!.losses).toBe(90_000);
  });

  it('goes on from what is closed: the first open month has what the ledger lacks', () => {
    const g = {
      ...profits(1000, 1000, 1000, 1000),
      booked: (account: string, p: number) =>
        account === 'tax' && p <= at(2026, 2) ? [150, 0][p - at(2026, 1)]! : null,
    };
    // 20 % of 3,000 by March is 600, of which 150 are booked.
    expect(
      taxedPeriods(taxRow(), g)
        .slice(0, 4)
        .map((t) => t.amount),
    ).toEqual([150, 0, 450, 200]);
  });

  it('pays installments on their days and with the rest what is missing; too much comes back', () => {
    const row = taxRow({
      installments: [
        { months: 5, day: 15, amount: minor(100) },
        { months: 11, day: 15, amount: minor(100) },
      ],
    });
    const g = profits(...new Array<number>(12).fill(50), ...new Array<number>(12).fill(200));
    const accruals = makeRow(row, g).postings;
    const paid = (stood: number, after: string) =>
      taxPayments(row, g, accruals, {
        after: toDayNumber(day(after)),
        until: toDayNumber(day('2028-03-31')),
        stood,
        credited: null,
      })
        .filter((p) => p.account === 'bank')
        .map((p) => [fromDayNumber(p.day), p.amount || 0]);
    expect(paid(0, '2025-12-31')).toEqual([
      ['2026-06-15', -100],
      ['2026-12-15', -100],
      // 12 × 50 × 20 % is 120, paid were 200.
      ['2027-03-15', 80],
      ['2027-06-15', -100],
      ['2027-12-15', -100],
      ['2028-03-15', -280],
    ]);
    // 70 of the year before are due in March, once; on the very day they are paid already, and go with the year that runs.
    expect(paid(70, '2025-12-31')).toEqual([['2026-03-15', -70], ...paid(0, '2025-12-31')]);
    expect(paid(70, '2026-03-15')).toEqual(
      paid(0, '2026-03-15').map(([d, a]) => (d === '2027-03-15' ? [d, Number(a) - 70] : [d, a])),
    );
  });
});

describe('every row', () => {
  const any: fc.Arbitrary<ScheduleRow> = fc.oneof(
    fc
      .record({
        count: fc.integer({ min: 1, max: 900 }),
        amount: fc.integer({ min: 0, max: 1e9 }),
        cut: fc.integer({ min: 0, max: 99 }),
        cap: fc.option(fc.integer({ min: 0, max: 1e7 })),
      })
      .map(({ count, amount, cut, cap }) =>
        staffRow({
          count,
          pay: { per: 'year', amount: minor(amount) },
          withheld: percent(`${cut}`),
          remitted: { of: 'days', days: cut },
          oncosts: [{ name: '', percent: percent('7.65'), cap: cap === null ? null : minor(cap), year: 4 }],
          oncostAccount: 'oncosts',
        }),
      ),
    fc
      .record({
        amount: fc.integer({ min: 1, max: 1e10 }),
        payments: fc.integer({ min: 1, max: 80 }),
        rate: fc.integer({ min: 0, max: 40 }),
        of: fc.constantFrom('level', 'principal', 'interestOnly', 'atEnd'),
        extra: fc.integer({ min: 0, max: 1e9 }),
        days: fc.constantFrom('30/360' as const, 'actual/365' as const),
        first: fc.integer({ min: 1, max: 28 }),
      })
      .map(({ amount, payments, rate, of, extra, days, first }) =>
        loanRow({
          begins: { of: 'drawn', day: day('2026-01-15'), amount: minor(amount) },
          repay: of === 'level' ? { of, payment: null } : { of: of as 'principal' },
          first: fromDayNumber(toDayNumber(day('2026-02-01')) + first),
          rate: percent(`${rate}`),
          payments,
          days,
          accrued: 'accrued',
          extra: [{ day: day('2026-07-07'), amount: minor(extra) }],
        }),
      ),
    fc
      .record({
        cost: fc.integer({ min: 0, max: 1e10 }),
        residual: fc.integer({ min: 0, max: 1e9 }),
        life: fc.integer({ min: 1, max: 90 }),
        sold: fc.boolean(),
        straight: fc.boolean(),
      })
      .map(({ cost, residual, life, sold, straight }) =>
        assetRow({
          cost: minor(cost),
          residual: minor(Math.min(cost, residual)),
          way: straight ? { of: 'straight', months: life } : { of: 'declining', rate: percent(`${life}`) },
          sold: sold ? { day: day('2027-01-10'), price: minor(life), gain: 'gain' } : null,
        }),
      ),
  );
  const wide = rowGroundOf({ range: { first: at(2026, 1), last: at(2033, 12) } });

  it('posts in balance on every day and event, whatever is said', () => {
    fc.assert(
      fc.property(any, (row) => {
        const { postings } = makeRow(row, wide);
        const byEvent = new Map<string, number>();
        for (const p of postings) byEvent.set(`${p.day}`, (byEvent.get(`${p.day}`) ?? 0) + p.amount);
        expect([...byEvent.values()].every((v) => v === 0)).toBe(true);
        expect(postings.every((p) => p.day >= p.of)).toBe(true);
      }),
    );
  });

  it('leaves nothing of a loan, and no more written off than cost less what is left', () => {
    fc.assert(
      fc.property(any, (row) => {
        const { postings } = makeRow(row, wide);
        const stands = (of: string) => postings.reduce((t, p) => (p.account === of ? t + p.amount : t), 0);
        if (row.kind === 'loan') expect([stands('loan') + 0, stands('accrued') + 0]).toEqual([0, 0]);
        if (row.kind === 'staff') expect(Math.abs(stands('withheld'))).toBe(0);
        if (row.kind === 'asset') {
          if (row.sold) expect([stands('boats') + 0, stands('accumulated') + 0]).toEqual([0, 0]);
          else expect(-stands('accumulated')).toBeLessThanOrEqual(row.cost - row.residual);
        }
      }),
    );
  });
});
