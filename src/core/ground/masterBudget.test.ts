import { day, periodsOf, toDayNumber, type Day } from '@/core/calendar';
import { byPeriods, cashTable } from '@/core/cash';
import { NO_CASH, type Budget, type Line, type ScheduleRow, type Terms } from '@/core/model';
import { minor, percent } from '@/core/money';
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
import { atOnce, onAccount, terms } from '@/core/test/cash';
import { assetRow, releaseRow } from '@/core/test/schedule';
import { aheadOf, cashOf, makeGround, offBalance, reckoned } from '.';

/*
 * A master budget from sales to balance sheet: the kitchenware shop of C. Horngren, G. Sundem, W. Stratton, "Introduction to
 * Management Accounting", chapter on the master budget. Its data and the net cash of each month (−13,450, 1,450, 9,400,
 * 5,850) are from memory; the closing balance sheet is worked by hand beside each figure. Financing is left out: the book
 * borrows by rules of its own.
 */

const accounts = [
  account('cash', 'bank'),
  account('receivable', 'receivable'),
  account('stock', 'inventory'),
  account('prepaid', 'otherAsset'),
  account('equipment', 'fixedAsset'),
  account('accumulated', 'fixedAsset', 'Accumulated depreciation'),
  account('payable', 'payable'),
  account('owedWages', 'otherLiability'),
  account('owners', 'equity'),
  account('sales', 'income'),
  account('cost', 'costOfSales'),
  account('wages', 'expense'),
  account('misc', 'expense'),
  account('rent', 'expense'),
  account('insurance', 'expense'),
  account('depreciation', 'expense'),
];
// The balance sheet of 31 March: 100,000 on either side.
const block = blockOf(accounts, [
  ['2026-03-31', 'cash', 1_000_000],
  ['2026-03-31', 'receivable', 1_600_000],
  ['2026-03-31', 'stock', 4_800_000],
  ['2026-03-31', 'prepaid', 180_000],
  ['2026-03-31', 'equipment', 3_700_000],
  ['2026-03-31', 'accumulated', -1_280_000],
  ['2026-03-31', 'payable', 1_680_000],
  ['2026-03-31', 'owedWages', 425_000],
  ['2026-03-31', 'owners', 7_895_000],
]);

const ids = periodIds(2026).slice(3, 7);
const first = calendar.firstOfYear(2026) + 3;
const typed = (of: string, ...units: number[]): Line =>
  line(of, byMonth(Object.fromEntries(ids.map((p, i) => [p, minor(units[i]! * 100)]))));
const share = (of: string, base: string, rate: string): Line =>
  line(of, { kind: 'share', of: { of: 'account', account: base }, percent: percent(rate), lag: 0, round: 0 });
const made = (of: string): Line => line(of, { kind: 'schedule', beside: {} });

const nextMonth = { months: 1, day: 31 };
const paid: readonly Terms[] = [
  // 60 % in cash, the rest the month after.
  terms('sales', ['60', atOnce()], ['40', onAccount([['100', nextMonth]])]),
  // Goods go out of stock; what is bought follows from the stock that is wanted.
  terms('cost', ['100', { kind: 'withoutMoney', against: 'stock' }]),
  // Half when it is earned, half the month after.
  terms('wages', ['50', atOnce()], ['50', { ...onAccount([['100', nextMonth]]), through: 'owedWages' }]),
  terms('misc', ['100', atOnce()]),
  terms('rent', ['100', atOnce()]),
];
const rows: readonly ScheduleRow[] = [
  releaseRow({ amount: minor(180_000), from: ids[0]!, months: 9 }),
  // 500 a month, whatever it is of.
  assetRow({
    name: 'Equipment',
    account: 'equipment',
    bought: day('2024-01-01'),
    cost: minor(3_700_000),
    residual: minor(420_000),
    standing: { day: day('2026-03-31'), accumulated: minor(1_280_000), months: 40 },
  }),
  assetRow({
    id: 'r9',
    name: 'Fixture',
    account: 'equipment',
    bought: day('2026-04-20'),
    cost: minor(300_000),
    way: { of: 'none' },
  }),
];
const budget: Budget = budgetOf(
  [
    typed('sales', 50_000, 80_000, 60_000, 50_000),
    share('cost', 'sales', '70'),
    // 2,500 and a commission of 15 %.
    typed('wages', 10_000, 14_500, 11_500, 10_000),
    share('misc', 'sales', '5'),
    typed('rent', 2_000, 2_000, 2_000, 2_000),
    made('insurance'),
    made('depreciation'),
    // 20,000 and 80 % of what the next month sells at cost; bought on account.
    typed('stock', 64_800, 53_600, 48_000, 42_400),
    // Half of the month's purchases: 51,800, 44,800, 36,400, 29,400.
    typed('payable', 25_900, 22_400, 18_200, 14_700),
  ],
  'b1',
  {
    covers: 'both',
    first: ids[0]!,
    length: 4,
    schedules: [...rows],
    terms: [...paid],
    contras: { stock: 'payable' },
  },
);
const ground = makeGround(
  bookWith(accounts, {
    sources: [sourceOf({ lastDay: '2026-03-31' as Day })],
    closedThrough: periodIds(2026)[2]!,
    budgets: [budget],
    cash: {
      ...NO_CASH,
      // The wages of March that are still owed.
      dated: [
        {
          id: 'd1',
          name: 'Wages of March',
          direction: 'out',
          amount: minor(425_000),
          first: day('2026-04-15'),
          repeat: null,
          against: 'owedWages',
          bank: null,
          group: 'other',
        },
      ],
    },
  }),
  new Map([[block.id, block]]),
);

test('the profit of four months is 3,200 before interest', () => {
  const whole = reckoned(ground, budget);
  const sum = (of: string) => whole.amounts(of)!.reduce<number>((t, v) => t + (v ?? 0), 0) / 100;
  expect([
    sum('sales'),
    sum('cost'),
    sum('wages'),
    sum('misc'),
    sum('rent'),
    sum('insurance'),
    sum('depreciation'),
  ]).toEqual([240_000, 168_000, 46_000, 12_000, 8_000, 800, 2_000]);
});

test('the net cash of each month is the textbook’s', () => {
  const view = cashOf(ground, budget)!;
  const { opening, closing } = cashTable(
    view.forecast,
    byPeriods(periodsOf(calendar, { first, last: first + 3 })),
  );
  expect(closing.map((c, i) => (c - opening[i]!) / 100)).toEqual([-13_450, 1_450, 9_400, 5_850]);
});

test('the balance sheet of July follows, and balances', () => {
  const ahead = aheadOf(ground, budget)!;
  const stands = Object.fromEntries(
    accounts
      .filter((a) =>
        [
          'bank',
          'receivable',
          'inventory',
          'otherAsset',
          'fixedAsset',
          'payable',
          'otherLiability',
          'equity',
        ].includes(a.kind),
      )
      .map((a) => [a.id, ahead.balances.balance(a.id, first + 3, true) / 100]),
  );
  expect(stands).toEqual({
    // 10,000 − 13,450 + 1,450 + 9,400 + 5,850
    cash: 13_250,
    // 40 % of 50,000
    receivable: 20_000,
    stock: 42_400,
    // 1,800 − 4 × 200
    prepaid: 1_000,
    // 37,000 + 3,000
    equipment: 40_000,
    // 12,800 + 4 × 500
    accumulated: -14_800,
    payable: -14_700,
    // half of 10,000
    owedWages: -5_000,
    owners: -78_950,
  });
  expect(offBalance(ahead, first + 3)).toBe(0);
  expect(toDayNumber(calendar.period(first + 3).end)).toBe(toDayNumber(day('2026-07-31')));
});
