import { toDayNumber, type DayNumber, type PeriodIndex, type PeriodRange } from '@/core/calendar';
import {
  ALL_SOURCES,
  aheadOf,
  budgetOn,
  cashOf,
  covenantsOf,
  type CashView,
  type Ground,
} from '@/core/ground';
import { CASH_SOURCES, isProfitAndLoss, type Budget, type CashSource } from '@/core/model';
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
  readonly bank: {
    readonly start: DayNumber;
    readonly plain: Float64Array;
    readonly closing: Float64Array;
    /** What comes and goes by day and by what it is from. */
    readonly bySource: CashView['forecast']['bySource'];
  };
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
export function bankBeforeLine({ forecast }: CashView): Float64Array {
  const own = forecast.bySource.get('creditLine');
  if (!own) return forecast.closing;
  let put = 0;
  return forecast.closing.map((amount, d) => amount - (put += own[d]!));
}

/** Outcomes that money ahead tells alone. */
export const OF_MONEY = ['lowBank', 'lowAfterLine', 'highestDrawing', 'daysUnder', 'closingBank'] as const;
type OfMoney = (typeof OF_MONEY)[number];
const isOfMoney = (id: OutcomeId): id is OfMoney => (OF_MONEY as readonly string[]).includes(id);

const amountOf = (amount: number): Outcome => ({ amount, day: null });

/** What money ahead comes to in a range of periods; `last` is the last of them that is projected. */
function moneyOf(
  { calendar, book }: Ground,
  view: CashView,
  range: PeriodRange,
  last: PeriodIndex,
): Readonly<Record<OfMoney, Outcome | null>> & Pick<Outcomes, 'bank'> {
  const { forecast, creditLine: line } = view;
  const { floor } = book.cash;
  const end = toDayNumber(calendar.period(last).end);
  const from = Math.max(forecast.today + 1, toDayNumber(calendar.period(range.first).start));
  const to = Math.min(forecast.start + forecast.closing.length, end);
  const bank = bankOf(view);
  const lowIn = (all: Float64Array): Outcome | null => {
    let low: Outcome | null = null;
    for (let day = from; day <= to; day++) {
      const amount = all[day - forecast.start - 1]!;
      if (low === null || amount < low.amount) low = { amount, day };
    }
    return low;
  };
  let under = 0;
  if (floor !== null)
    for (let day = from; day <= to; day++) if (forecast.closing[day - forecast.start - 1]! < floor) under++;
  const closing = forecast.closing[end - forecast.start - 1];
  return {
    lowBank: lowIn(bank.plain),
    lowAfterLine: line ? lowIn(forecast.closing) : null,
    highestDrawing: line ? highestDrawing(view, from, to) : null,
    daysUnder: floor === null ? null : amountOf(under),
    closingBank: closing === undefined ? null : amountOf(closing),
    bank,
  };
}

/**
 * One figure that a plan comes to, as `outcomesOf` has it, and no more is reckoned than it needs; null where nothing tells it.
 */
export function outcomeOf(
  ground: Ground,
  look: Budget | null,
  range: PeriodRange,
  id: OutcomeId,
): Outcome | null {
  if (!isOfMoney(id)) return outcomesOf(ground, look, range)?.of[id] ?? null;
  const view = cashOf(ground, budgetOn(ground, look), ALL_SOURCES);
  return view && moneyOf(ground, view, range, lastOf(ground, view, range))[id];
}

/** The bank by day ahead; null where nothing is known at all. */
export function bankAhead(ground: Ground, look: Budget | null): Outcomes['bank'] | null {
  const view = cashOf(ground, budgetOn(ground, look), ALL_SOURCES);
  return view && bankOf(view);
}

function bankOf(view: CashView): Outcomes['bank'] {
  const { start, closing, bySource } = view.forecast;
  return { start, plain: bankBeforeLine(view), closing, bySource };
}

/**
 * Why the bank stands elsewhere at a day's end than in another plan of the same start: by what money is from, how much more of it
 * came up to that day, the most first. They add up to what the banks are apart. `before`: the credit line left out.
 */
export function bankCauses(
  { bank: was }: Pick<Outcomes, 'bank'>,
  { bank: now }: Pick<Outcomes, 'bank'>,
  day: DayNumber,
  before: boolean,
): readonly { readonly source: CashSource; readonly amount: number }[] {
  const upTo = (of: Float64Array | undefined) => {
    let sum = 0;
    for (let d = now.start + 1; d <= day; d++) sum += of?.[d - now.start - 1] ?? 0;
    return sum;
  };
  return CASH_SOURCES.filter((s) => !before || s !== 'creditLine')
    .map((source) => ({ source, amount: upTo(now.bySource.get(source)) - upTo(was.bySource.get(source)) }))
    .filter((c) => c.amount !== 0)
    .sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount));
}

const lastOf = ({ calendar }: Ground, { input }: CashView, range: PeriodRange): PeriodIndex =>
  Math.min(range.last, calendar.indexOfDay(input.start) + input.periods.length);

/** What a plan comes to over a range of periods; null where nothing is known at all. */
export function outcomesOf(ground: Ground, look: Budget | null, range: PeriodRange): Outcomes | null {
  const ahead = aheadOf(ground, budgetOn(ground, look));
  if (ahead === null) return null;
  const { calendar } = ground;
  const { view, balances, accounts } = ahead;
  const { forecast } = view;
  const last = lastOf(ground, view, range);
  const periods = periodsFrom(range.first, last);
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
  // Results that no entry has put into equity yet are the owners' too.
  const equity = accounts.reduce(
    (t, a) =>
      isProfitAndLoss(a.kind) || a.kind === 'equity' ? t : plus(t, balances.balance(a.id, last, true)),
    0,
  );
  const { bank, ...money } = moneyOf(ground, view, range, last);
  return {
    of: {
      ...money,
      income: amountOf(income),
      grossMargin: amountOf(plus(income, -costOfSales)),
      netProfit: amountOf(months.reduce((t, m) => plus(t, m.profit), 0)),
      equity: amountOf(equity),
    },
    covenants: covenantsOf(ground, ahead, undefined, range),
    bank,
    months,
    balances: periods.every(
      (p) => accounts.reduce((t, a) => plus(t, balances.balance(a.id, p, true)), 0) === 0,
    ),
  };
}

const periodsFrom = (first: PeriodIndex, last: PeriodIndex): PeriodIndex[] =>
  Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i);

/** The most that is drawn of the credit line in a range of days, with the first day of it; what stands when it begins counts. */
function highestDrawing(view: CashView, from: DayNumber, to: DayNumber): Outcome {
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
