import {
  civilOf,
  indexOfId,
  toDayNumber,
  yearRange,
  type DayNumber,
  type FiscalCalendar,
  type PeriodIndex,
} from '@/core/calendar';
import type { RowOf } from '@/core/model';
import { minor, percentOf } from '@/core/money';
import { dueDay, monthDay } from './days';
import { RowBook, type RowGround, type RowPosting, type RowRuleOf } from './rule';
import { accountFor } from './standIns';

/*
 * In a year that runs, closed months have the tax that the ledger has, and the first open one what they lack of it.
 * Tax on the profit of a fiscal year to date, never below zero in a year; a loss is carried forward and used up by later
 * profits. (The common form of loss relief: no carry back, no limit by year.)
 */

type IncomeTax = RowOf<'incomeTax'>;

/** A period's tax with what led to it. */
export type TaxedPeriod = {
  readonly period: PeriodIndex;
  /** Profit before tax of the fiscal year up to it, losses of earlier years that are left, and what is taxed of it. */
  readonly profit: number;
  readonly losses: number;
  readonly taxable: number;
  /** The tax of the year up to it, and of the period alone. */
  readonly toDate: number;
  readonly amount: number;
};

/** The tax of the periods of a range; its first fiscal year counts from its start, as far as its profit is known. */
export function taxedPeriods(
  { account, rate, rates, losses }: Pick<IncomeTax, 'account' | 'rate' | 'rates' | 'losses'>,
  { calendar, range, profit, booked }: Pick<RowGround, 'calendar' | 'range' | 'profit' | 'booked'>,
): TaxedPeriod[] {
  const out: TaxedPeriod[] = [];
  let left: number = losses;
  let [sum, accrued] = [0, 0];
  const first = calendar.firstOfYear(calendar.period(range.first).year);
  /** One rate for a fiscal year: the last that holds from a period of it, or of one before. */
  const later = [...(rates ?? [])].sort((a, b) => (a.from < b.from ? -1 : 1));
  const rateOf = (p: PeriodIndex) => {
    const { year } = calendar.period(p);
    return (
      later.findLast(({ from }) => {
        const at = indexOfId(calendar, from);
        return at !== null && calendar.period(at).year <= year;
      })?.rate ?? rate
    );
  };
  for (let p = first; p <= range.last; p++) {
    const { number } = calendar.period(p);
    if (number === 1) {
      // Only a whole year uses losses up, or adds to them.
      left = Math.max(0, left - sum);
      [sum, accrued] = [0, 0];
    }
    sum += profit(p) ?? 0;
    const taxable = Math.max(0, sum - left);
    const now = Math.max(0, percentOf(minor(taxable), rateOf(p)));
    const amount = booked(account, p) ?? now - accrued;
    accrued += amount;
    out.push({ period: p, profit: sum, losses: left, taxable, toDate: now, amount });
  }
  return out.filter((t) => t.period >= range.first);
}

export const incomeTax: RowRuleOf<'incomeTax'> = {
  needs: () => ({ drivers: [], profit: true }),
  make(row, ground) {
    const book = new RowBook();
    const owed = [row.payable ?? accountFor(ground.accounts, 'incomeTax'), null] as const;
    for (const { period, amount } of taxedPeriods(row, ground))
      book.pair(
        toDayNumber(ground.calendar.period(period).end),
        [row.account, row.segment],
        owed,
        amount,
        'tax',
      );
    return { postings: book.postings, issue: null };
  },
};

/** The days after one on which installments of a fiscal year fall, and the day its rest is due. */
export function taxDays(
  { installments, due }: Pick<IncomeTax, 'installments' | 'due'>,
  calendar: FiscalCalendar,
  year: number,
): {
  readonly installments: readonly { readonly day: DayNumber; readonly amount: number }[];
  readonly rest: DayNumber;
} {
  const { first, last } = yearRange(calendar, year);
  const begins = civilOf(toDayNumber(calendar.period(first).start));
  const ends = toDayNumber(calendar.period(last).end);
  return {
    installments: installments.map(({ months, day, amount }) => ({
      day: monthDay(begins.year, begins.month + months, day),
      amount,
    })),
    rest: Math.max(ends, dueDay(ends, due)),
  };
}

/**
 * What is paid of an income tax after a day, from what stands owed of it then (credits positive) and from the tax that
 * accrues after it: installments on their days, and with each year's rest what is missing, or what was paid too much.
 * What stands owed is told apart by fiscal years whose rest is not due by then: of each, what was `credited` in it less its
 * installments that are over; whatever is left is of the first of them. Where nothing tells what was credited, all is.
 */
export function taxPayments(
  row: IncomeTax,
  { calendar, bank: usual, accounts }: Pick<RowGround, 'calendar' | 'bank' | 'accounts'>,
  accruals: readonly RowPosting[],
  {
    after,
    until,
    stood,
    credited,
  }: {
    readonly after: DayNumber;
    readonly until: DayNumber;
    readonly stood: number;
    readonly credited: ((from: DayNumber, to: DayNumber) => number) | null;
  },
): readonly RowPosting[] {
  const account = row.payable ?? accountFor(accounts, 'incomeTax');
  const book = new RowBook();
  const bank = [row.bank ?? usual, null] as const;
  const owed = [account, null] as const;
  const yearOf = (day: DayNumber) => calendar.period(calendar.indexOfDay(day)).year;
  const open: { readonly year: number; readonly days: ReturnType<typeof taxDays>; left: number }[] = [];
  for (let year = yearOf(after) - 2; year <= yearOf(until); year++) {
    const days = taxDays(row, calendar, year);
    if (days.rest > after) open.push({ year, days, left: 0 });
  }
  let others = 0;
  for (const of of open.slice(1)) {
    if (credited === null || of.year > yearOf(after)) continue;
    const { first, last } = yearRange(calendar, of.year);
    const from = toDayNumber(calendar.period(first).start);
    of.left = credited(from, Math.min(after, toDayNumber(calendar.period(last).end)));
    for (const { day, amount } of of.days.installments) if (day <= after) of.left -= amount;
    others += of.left;
  }
  if (open[0]) open[0].left = stood - others;
  for (const { year, days, left: stands } of open) {
    const { installments, rest } = days;
    let left = stands;
    for (const p of accruals)
      if (p.account === account && p.day > after && yearOf(p.day) === year) left -= p.amount;
    for (const { day, amount } of installments) {
      if (day <= after || day > rest) continue;
      left -= amount;
      if (day <= until) book.pair(day, owed, bank, amount, 'payment', day);
    }
    if (rest <= until) book.pair(rest, owed, bank, left, 'payment', rest);
  }
  return book.postings;
}
