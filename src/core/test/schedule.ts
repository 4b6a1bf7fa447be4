import { day, fromDayNumber, type FiscalCalendar } from '@/core/calendar';
import type { RowOf, ScheduleRow } from '@/core/model';
import { minor, percent } from '@/core/money';
import { daysOf, makeRow, type RowGround, type RowPosting } from '@/core/schedule';
import { account, calendar, months } from './build';

/* Rows of schedules for tests: what a test is about is said in the test, the rest is here. */

const base = { note: '' };

export const staffRow = (change: Partial<RowOf<'staff'>> = {}): RowOf<'staff'> => ({
  kind: 'staff',
  id: 'r1',
  name: 'Rigger',
  ...base,
  account: 'wages',
  oncostAccount: null,
  through: 'withheld',
  bank: null,
  count: 100,
  pay: { per: 'month', amount: minor(300_000) },
  from: null,
  until: null,
  raises: [],
  paydays: { of: 'monthDays', days: [31] },
  moved: 'stays',
  oncosts: [],
  withheld: percent('0'),
  remitted: { of: 'days', days: 0 },
  once: [],
  split: [{ segment: null, percent: percent('100') }],
  ...change,
});

export const loanRow = (change: Partial<RowOf<'loan'>> = {}): RowOf<'loan'> => ({
  kind: 'loan',
  id: 'r2',
  name: 'Launch loan',
  ...base,
  account: 'loan',
  interest: 'interest',
  accrued: null,
  bank: null,
  segment: null,
  begins: { of: 'drawn', day: day('2026-01-31'), amount: minor(2_000_000) },
  rate: percent('6'),
  rates: [],
  repay: { of: 'level', payment: null },
  first: day('2026-02-28'),
  every: 1,
  payments: 60,
  grace: 0,
  days: '30/360',
  extra: [],
  afterExtra: 'shorter',
  ...change,
});

export const assetRow = (change: Partial<RowOf<'asset'>> = {}): RowOf<'asset'> => ({
  kind: 'asset',
  id: 'r3',
  name: 'Launch',
  ...base,
  account: 'boats',
  expense: 'depreciation',
  accumulated: 'accumulated',
  segment: null,
  bought: day('2026-03-15'),
  cost: minor(1_000_000),
  standing: null,
  residual: minor(100_000),
  way: { of: 'straight', months: 60 },
  paid: { due: { of: 'days', days: 0 }, through: null, bank: null },
  tax: null,
  sold: null,
  ...change,
});

export const releaseRow = (change: Partial<RowOf<'release'>> = {}): RowOf<'release'> => ({
  kind: 'release',
  id: 'r4',
  name: 'Insurance paid in January',
  ...base,
  account: 'insurance',
  against: 'prepaid',
  segment: null,
  amount: minor(100_000),
  from: calendar.period(months(2026).first).id,
  months: 3,
  ...change,
});

export const taxRow = (change: Partial<RowOf<'incomeTax'>> = {}): RowOf<'incomeTax'> => ({
  kind: 'incomeTax',
  id: 'r5',
  name: 'Income tax',
  ...base,
  account: 'tax',
  payable: 'taxOwed',
  bank: null,
  segment: null,
  rate: percent('20'),
  losses: minor(0),
  installments: [],
  due: { of: 'months', months: 3, day: 15 },
  ...change,
});

export const equityRow = (change: Partial<RowOf<'equity'>> = {}): RowOf<'equity'> => ({
  kind: 'equity',
  id: 'r6',
  name: 'Member shares',
  ...base,
  account: 'shares',
  bank: null,
  what: 'paidIn',
  amount: minor(50_000),
  first: day('2026-02-10'),
  repeat: null,
  ...change,
});

/** The accounts that the rows above name. */
export const SCHEDULE_ACCOUNTS = [
  account('bank', 'bank'),
  account('prepaid', 'otherAsset'),
  account('boats', 'fixedAsset'),
  account('accumulated', 'fixedAsset', 'Accumulated depreciation'),
  account('pay', 'payable'),
  account('vat', 'taxPayable'),
  account('taxOwed', 'taxPayable'),
  account('withheld', 'otherLiability'),
  account('accrued', 'otherLiability'),
  account('loan', 'loan'),
  account('shares', 'equity'),
  account('sales', 'income'),
  account('wages', 'expense'),
  account('oncosts', 'expense'),
  account('tools', 'expense'),
  account('insurance', 'expense'),
  account('depreciation', 'expense'),
  account('gain', 'otherIncome'),
  account('interest', 'otherExpense'),
  account('tax', 'otherExpense'),
];

/** What rows look at: the year 2026 by months, unless said otherwise. */
export const rowGroundOf = (change: Partial<RowGround> = {}): RowGround => {
  const workWeek = { weekdays: [1, 2, 3, 4, 5], holidays: [] };
  return {
    calendar,
    workWeek,
    days: daysOf(workWeek),
    range: months(2026),
    accounts: SCHEDULE_ACCOUNTS,
    bank: 'bank',
    driver: () => undefined,
    profit: () => null,
    booked: () => null,
    ...change,
  };
};

/** Debit-positive movements of an account by period of the range. */
export function movesOf(
  postings: readonly RowPosting[],
  of: string,
  { calendar: c, range }: Pick<RowGround, 'calendar' | 'range'> & { calendar: FiscalCalendar },
  by: 'of' | 'day' = 'of',
): number[] {
  const out = new Array<number>(range.last - range.first + 1).fill(0);
  for (const p of postings) {
    const at = c.indexOfDay(p[by]) - range.first;
    if (p.account === of && at >= 0 && at < out.length) out[at]! += p.amount;
  }
  return out;
}

/** Postings of a row in lines: day, account, amount. */
export const linesOf = (row: ScheduleRow, ground: RowGround = rowGroundOf()): [string, string, number][] =>
  makeRow(row, ground).postings.map((p) => [fromDayNumber(p.day), p.account, p.amount]);
