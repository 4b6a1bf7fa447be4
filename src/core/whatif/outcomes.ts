import { toDayNumber, type DayNumber, type PeriodIndex, type PeriodRange } from '@/core/calendar';
import { aheadOf, budgetOn, covenantsOf, type Ahead, type Ground } from '@/core/ground';
import { isProfitAndLoss, type Budget } from '@/core/model';
import { minor, plus, type Minor } from '@/core/money';
import type { CovenantState } from '@/core/statements';
import { STAND_INS } from '@/core/schedule';

/* What a plan comes to, in the figures that cases are compared by. */

export const OUTCOME_IDS = [
  'income',
  'grossMargin',
  'netProfit',
  'lowBank',
  'lowAfterLine',
  'highestDrawing',
  'daysUnder',
  'closingBank',
  'equity',
] as const;
export type OutcomeId = (typeof OUTCOME_IDS)[number];

/** Which way is better: more of it, or less. */
export const BETTER: Readonly<Record<OutcomeId, 'more' | 'less'>> = {
  income: 'more',
  grossMargin: 'more',
  netProfit: 'more',
  lowBank: 'more',
  lowAfterLine: 'more',
  highestDrawing: 'less',
  daysUnder: 'less',
  closingBank: 'more',
  equity: 'more',
};

/** A figure with the day it is of, where it is of one. */
export type Outcome = { readonly amount: number; readonly day: DayNumber | null };

export type Outcomes = {
  /** In minor units; days of `daysUnder`. Null where nothing tells it. */
  readonly of: Readonly<Record<OutcomeId, Outcome | null>>;
  /** How covenants fare in the range. */
  readonly covenants: readonly CovenantState[];
  /** The bank at the end of each day ahead, before and after the credit line; the first is the day after `start`. */
  readonly bank: { readonly start: DayNumber; readonly plain: Float64Array; readonly closing: Float64Array };
  /** By period of the range: net profit, and the bank at its end where it is ahead. */
  readonly months: readonly {
    readonly period: PeriodIndex;
    readonly profit: Minor;
    readonly bank: number | null;
  }[];
  /** Whether all balances together come to nothing in every period ahead. */
  readonly balances: boolean;
};

/** The bank by day without what the credit line brings and takes. */
export function bankBeforeLine({ forecast }: Ahead['view']): Float64Array {
  const own = forecast.bySource.get('creditLine');
  if (!own) return forecast.closing;
  let put = 0;
  return forecast.closing.map((amount, d) => amount - (put += own[d]!));
}

/** What a plan comes to over a range of periods; null where nothing is known at all. */
export function outcomesOf(ground: Ground, look: Budget | null, range: PeriodRange): Outcomes | null {
  const ahead = aheadOf(ground, budgetOn(ground, look));
  if (ahead === null) return null;
  const { calendar, book } = ground;
  const { view, balances, accounts } = ahead;
  const { forecast } = view;
  const periods = Array.from({ length: range.last - range.first + 1 }, (_, i) => range.first + i).filter(
    (p) => p <= ahead.last,
  );
  const ofProfit = accounts.filter((a) => isProfitAndLoss(a.kind));
  let [income, costOfSales] = [0, 0];
  const months = periods.map((period) => {
    let profit = 0;
    for (const { id, kind } of ofProfit) {
      const moved = balances.movement(id, period) ?? 0;
      profit = plus(profit, -moved);
      if (kind === 'income') income = plus(income, -moved);
      if (kind === 'costOfSales') costOfSales = plus(costOfSales, moved);
    }
    const end = toDayNumber(calendar.period(period).end);
    const bank = end > forecast.start ? (forecast.closing[end - forecast.start - 1] ?? null) : null;
    return { period, profit: minor(profit), bank };
  });
  const last = periods.at(-1) ?? ahead.last;
  const from = Math.max(forecast.today + 1, toDayNumber(calendar.period(range.first).start));
  const to = Math.min(forecast.start + forecast.closing.length, toDayNumber(calendar.period(last).end));
  const plain = bankBeforeLine(view);
  const lowIn = (all: Float64Array): Outcome | null => {
    let low: Outcome | null = null;
    for (let day = from; day <= to; day++) {
      const amount = all[day - forecast.start - 1]!;
      if (low === null || amount < low.amount) low = { amount, day };
    }
    return low;
  };
  const line = view.creditLine;
  const { floor } = book.cash;
  const drawn = line ? highestDrawing(ahead, from, to) : null;
  let under = 0;
  if (floor !== null)
    for (let day = from; day <= to; day++) if (forecast.closing[day - forecast.start - 1]! < floor) under++;
  // Results that no entry has put into equity yet are the owners' too.
  const equity = accounts.reduce(
    (t, a) =>
      isProfitAndLoss(a.kind) || a.kind === 'equity' ? t : plus(t, balances.balance(a.id, last, true)),
    0,
  );
  const amountOf = (amount: number): Outcome => ({ amount, day: null });
  const end = toDayNumber(calendar.period(last).end) - forecast.start - 1;
  return {
    of: {
      income: amountOf(income),
      grossMargin: amountOf(plus(income, -costOfSales)),
      netProfit: amountOf(months.reduce((t, m) => plus(t, m.profit), 0)),
      lowBank: lowIn(plain),
      lowAfterLine: line ? lowIn(forecast.closing) : null,
      highestDrawing: drawn,
      daysUnder: floor === null ? null : amountOf(under),
      closingBank: forecast.closing[end] === undefined ? null : amountOf(forecast.closing[end]),
      equity: amountOf(equity),
    },
    covenants: covenantsOf(ground, ahead, undefined, range),
    bank: { start: forecast.start, plain, closing: forecast.closing },
    months,
    balances: periods.every(
      (p) => accounts.reduce((t, a) => plus(t, balances.balance(a.id, p, true)), 0) === 0,
    ),
  };
}

/** The most that is drawn of the credit line in a range of days, with the first day of it; what stands when it begins counts. */
function highestDrawing({ view }: Ahead, from: DayNumber, to: DayNumber): Outcome {
  const account = view.creditLine?.account ?? STAND_INS.creditLine;
  let stands = Math.max(0, -(view.input.opening.get(account) ?? 0));
  let most: Outcome = { amount: stands, day: null };
  for (const m of view.forecast.moves) {
    if (m.day > to) break;
    stands = m.stands;
    if (m.day < from) most = { amount: stands, day: null };
    else if (stands > most.amount) most = { amount: stands, day: m.day };
  }
  return most;
}
