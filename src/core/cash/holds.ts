import type { DayNumber } from '@/core/calendar';
import type { CashSource } from '@/core/model';
import {
  causesIn,
  forecastOf,
  type Cause,
  type CashForecast,
  type ForecastRules,
  type Low,
} from './forecast';
import type { Projected } from './projected';

/** Something that holds the low point down, and what another day would make of it. */
export type Hold = {
  readonly cause: Cause;
  /** A payment by whole weeks later, past the low point; money that comes too late on the day from which it is missing. */
  readonly to: DayNumber;
  readonly low: Low;
  /** What the low point is lifted by. */
  readonly lift: number;
};

/** What falls due by law or contract does not wait. */
const WAITS_NOT: ReadonlySet<CashSource> = new Set(['payroll', 'taxes', 'loans']);
const WEEK = 7;
/** A payment waits four weeks at most: nobody lets his suppliers wait longer for a low point. */
const MOST_WEEKS = 4;
/** So far after the low point money is looked for that could come earlier. */
const AFTER = 60;
/** So many of the largest are tried, each by a forecast of its own. */
const TRIED = 24;

/**
 * What would lift the low point, by how much, the most first: payments up to it that could wait until it is past (pay, taxes
 * and installments cannot), and money that comes only after it. What would not lift it is none of it.
 */
export function holdsOf(
  projected: Projected,
  forecast: CashForecast,
  rules: ForecastRules,
  count: number,
): Hold[] {
  const { low, today } = forecast;
  if (!low) return [];
  const counted = (source: Cause['part']['source']) =>
    forecast.bySource.has(source) && source !== 'creditLine';
  const near = { from: Math.max(today + 1, low.day + 1 - MOST_WEEKS * WEEK), to: low.day + AFTER };
  // Under a floor it is missing from the first day on, else on the low point's alone.
  const missing = rules.floor === null ? low.day : (cureOf(forecast, rules.floor)?.from ?? low.day);
  const later = (day: DayNumber) => day + WEEK * Math.ceil((low.day + 1 - day) / WEEK);
  return causesIn(projected, near, counted)
    .filter((c) => (c.day <= low.day ? c.amount < 0 && !WAITS_NOT.has(c.part.source) : c.amount > 0))
    .sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount))
    .slice(0, TRIED)
    .flatMap((cause): Hold[] => {
      const to = cause.day > low.day ? missing : later(cause.day);
      const shift = { source: cause.part.source, from: cause.day, to, amount: cause.amount };
      const tried = forecastOf(projected, rules, [shift]).low;
      return tried && tried.amount > low.amount
        ? [{ cause, to, low: tried, lift: tried.amount - low.amount }]
        : [];
    })
    .sort((a, b) => b.lift - a.lift)
    .slice(0, count);
}

/** How much money would keep a floor, from the first day on which it is missing to the last. */
export type Cure = { readonly amount: number; readonly from: DayNumber; readonly until: DayNumber };

/** What a credit or a deposit of the owners would have to be to keep the floor (nothing, where there is none); null where it is kept. */
export function cureOf({ below, closing, start, today }: CashForecast, floor: number | null): Cure | null {
  if (floor !== null && below.length === 0) return null;
  let [from, until, least] = [0, 0, floor ?? 0];
  for (let day = today + 1; day <= start + closing.length; day++) {
    const stands = closing[day - start - 1]!;
    if (stands >= (floor ?? 0)) continue;
    if (from === 0) from = day;
    until = day;
    least = Math.min(least, stands);
  }
  return from === 0 ? null : { amount: (floor ?? 0) - least, from, until };
}
