import { civilOf, daysInMonth, toDayNumber, type DayNumber, type FiscalCalendar } from '@/core/calendar';
import type { RowOf } from '@/core/model';
import {
  addRatio,
  multiplyRatio,
  percentFraction,
  ratio,
  ratioOfPercent,
  roundRatio,
  type Percent,
  type Ratio,
} from '@/core/money';
import { monthDay, yearAfter } from './days';
import type { RowIssue } from './rule';

/*
 * The table of a loan's payments to the last. A level payment is that of an ordinary annuity, P × i ÷ (1 − (1 + i)^−n), with
 * i the yearly rate by the months between payments, reckoned exactly and rounded once; interest is rounded at each payment,
 * and the last payment takes what is left. (Common practice of lenders.)
 */

type Loan = RowOf<'loan'>;

export type LoanPayment = {
  readonly day: DayNumber;
  readonly interest: number;
  readonly principal: number;
  /** Repaid beside the regular payments. */
  readonly extra: boolean;
  /** What is owed after it. */
  readonly closing: number;
  /** The interest by the periods of the calendar that it accrued in: the last day of each part. */
  readonly accrued: readonly { readonly day: DayNumber; readonly amount: number }[];
};

export type LoanTable = { readonly payments: readonly LoanPayment[]; readonly issue: RowIssue | null };

/** A day's place where every month has thirty days: the last day of a month is its 30th (30E/360, ISDA 2006 §4.16(h), from memory). */
function place360(day: DayNumber, date?: number): number {
  const { year, month, date: own } = civilOf(day);
  const last = own === daysInMonth(year, month);
  return 360 * year + 30 * month + Math.min(date ?? (last ? 30 : own), 30);
}

/** P × i × (1 + i)^n ÷ ((1 + i)^n − 1), exact to its one rounding, for i = rate × months ÷ 1200. */
export function levelPayment(principal: number, rate: Percent, months: number, n: number): number {
  const { numerator, denominator } = percentFraction(rate);
  if (numerator <= 0n) return Math.ceil(principal / n);
  const a = numerator * BigInt(months);
  const b = denominator * 1200n;
  const power = (a + b) ** BigInt(n);
  const top = BigInt(principal) * a * power;
  const bottom = b * (power - b ** BigInt(n));
  return Number((2n * top + bottom) / (2n * bottom));
}

/** The rate of a loan on a day. */
const rateOf = ({ rate, rates }: Loan, day: DayNumber): Percent =>
  [...rates].sort((x, y) => (x.from < y.from ? -1 : 1)).findLast((r) => toDayNumber(r.from) <= day)?.rate ??
  rate;

/** The date of regular payments: of a loan first paid on a month's last day, every month's last (the end-of-month convention). */
function dateOf({ first }: Loan): number {
  const { year, month, date } = civilOf(toDayNumber(first));
  return date === daysInMonth(year, month) ? 31 : date;
}

/** The days of regular payments. */
function paymentDays(loan: Loan): readonly { readonly day: DayNumber; readonly typed: number | null }[] {
  const begins = toDayNumber(loan.begins.day);
  if (loan.repay.of === 'typed') {
    const days = new Map<DayNumber, number>();
    for (const { day, amount } of loan.repay.amounts)
      days.set(toDayNumber(day), (days.get(toDayNumber(day)) ?? 0) + amount);
    return [...days]
      .filter(([day]) => day > begins)
      .sort(([x], [y]) => x - y)
      .map(([day, typed]) => ({ day, typed }));
  }
  const { year, month } = civilOf(toDayNumber(loan.first));
  const date = dateOf(loan);
  const all = Array.from({ length: loan.payments }, (_, k) => ({
    day: monthDay(year, month + k * loan.every, date),
    typed: null,
  })).filter(({ day }) => day > begins);
  return loan.repay.of === 'atEnd' ? all.slice(-1) : all;
}

const tables = new WeakMap<Loan, { readonly calendar: FiscalCalendar; readonly table: LoanTable }>();

/** The table of a loan from where it begins; reckoned once for a row as it is. */
export function loanTable(loan: Loan, calendar: FiscalCalendar): LoanTable {
  let kept = tables.get(loan);
  if (kept?.calendar !== calendar)
    tables.set(loan, (kept = { calendar, table: reckonTable(loan, calendar) }));
  return kept!.table;
}

function reckonTable(loan: Loan, calendar: FiscalCalendar): LoanTable {
  const { repay, every } = loan;
  const exact = loan.days === 'actual/365';
  const basis = exact ? 365 : 360;
  const nominal = dateOf(loan);
  const days = paymentDays(loan);
  const regular = new Set(repay.of === 'typed' ? [] : days.map((d) => d.day));
  const place = (day: DayNumber): number =>
    exact ? day : place360(day, regular.has(day) ? nominal : undefined);
  const begins = toDayNumber(loan.begins.day);
  const extras = new Map<DayNumber, number>();
  for (const { day, amount } of loan.extra) {
    const d = toDayNumber(day);
    if (d > begins) extras.set(d, (extras.get(d) ?? 0) + amount);
  }
  const turns = loan.rates.map((r) => toDayNumber(r.from));
  const out: LoanPayment[] = [];
  let issue: RowIssue | null = null;
  let owed: number = loan.begins.amount;
  let since = begins;
  let owes: Ratio = ratio(0);
  let parts: { day: DayNumber; amount: number }[] = [];
  let told = 0;
  const grace = Math.max(0, loan.grace - (repay.of === 'typed' ? 0 : loan.payments - days.length));
  /** The level payment as it was last reckoned, at which rate; what equal parts of principal are of, since which payment. */
  const plan: {
    level: { readonly amount: number; readonly rate: Percent } | null;
    equal: { readonly of: number; readonly from: number } | null;
  } = { level: null, equal: null };

  /** Interest up to a day, told at the end of every period that it passes. */
  const accrue = (until: DayNumber): void => {
    while (since < until) {
      let to = until;
      const end = toDayNumber(calendar.period(calendar.indexOfDay(since + 1)).end);
      if (end < to) to = end;
      for (const turn of turns) if (turn > since && turn < to) to = turn;
      const count = Math.max(0, place(to) - place(since));
      owes = addRatio(
        owes,
        multiplyRatio(multiplyRatio(ratio(owed), ratioOfPercent(rateOf(loan, since))), ratio(count, basis)),
      );
      if (to === end || to === until) {
        const now = roundRatio(owes);
        if (now !== told) parts.push({ day: to, amount: now - told });
        told = now;
      }
      since = to;
    }
  };
  /** Repaid beside the regular payments, on their days too. */
  const repaid = (until: DayNumber): void => {
    for (const [day, amount] of [...extras].sort(([x], [y]) => x - y)) {
      if (day > until || owed <= 0) continue;
      extras.delete(day);
      accrue(day);
      const principal = Math.min(amount, owed);
      owed -= principal;
      out.push({ day, interest: 0, principal, extra: true, closing: owed, accrued: [] });
      if (loan.afterExtra === 'lower') plan.level = plan.equal = null;
    }
  };

  for (const [k, { day, typed }] of days.entries()) {
    if (owed <= 0) break;
    repaid(day - 1);
    if (owed <= 0 && told === 0 && parts.length === 0) break;
    accrue(day);
    const interest = told;
    const left = days.length - k;
    let principal: number;
    if (typed !== null) principal = Math.min(typed, owed);
    else if (left === 1) principal = owed;
    else if (k < grace || repay.of === 'interestOnly') principal = 0;
    else if (repay.of === 'principal') {
      // Of what is owed when repayment begins, or begins anew after an extra repayment.
      const equal = (plan.equal ??= { of: owed, from: k });
      principal = Math.min(Math.round(equal.of / (days.length - equal.from)), owed);
    } else {
      const rate = rateOf(loan, day);
      const said = repay.of === 'level' ? repay.payment : null;
      if (plan.level?.rate !== rate)
        plan.level = { amount: said ?? levelPayment(owed, rate, every, left), rate };
      const { level } = plan;
      if (level.amount <= interest && owed > 0) issue = 'paymentTooSmall';
      principal = Math.min(level.amount - interest, owed);
    }
    owed -= principal;
    out.push({ day, interest, principal, extra: false, closing: owed, accrued: parts });
    [owes, told, parts] = [ratio(0), 0, []];
    repaid(day);
  }
  if (owed > 0 && repay.of === 'typed') issue = 'principalLeft';
  return { payments: out, issue };
}

/** What is owed at the end of a day, by the table; nothing before it begins. */
export function principalAt(loan: Loan, { payments }: LoanTable, day: DayNumber): number {
  if (day < toDayNumber(loan.begins.day)) return 0;
  return payments.findLast((p) => p.day <= day)?.closing ?? loan.begins.amount;
}

/** What of the principal falls due in the twelve months after a day. */
export const dueWithinYear = (loan: Loan, table: LoanTable, day: DayNumber): number =>
  principalAt(loan, table, day) - principalAt(loan, table, yearAfter(day));

/** What a loan costs in all, and when it is paid off. */
export function loanCost({ payments }: LoanTable): {
  readonly interest: number;
  readonly last: DayNumber | null;
} {
  return {
    interest: payments.reduce((t, p) => t + p.interest, 0),
    last: payments.at(-1)?.day ?? null,
  };
}
