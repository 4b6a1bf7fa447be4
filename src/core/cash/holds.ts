import type { DayNumber } from '@/core/calendar';
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
  /** Paid or received on another day: a week later, or (of money that comes too late) on the low point's day. */
  readonly to: DayNumber;
  readonly low: Low;
};

const WEEK = 7;
/** So far before and after the low point something is looked for. */
const [BEFORE, AFTER] = [45, 60];

/**
 * The largest things about the low point: payments before it that a week would move past it or lessen, receipts before it
 * that would break it if they came a week later, and receipts after it that come too late. Each is tried alone, by a
 * forecast of its own.
 */
export function holdsOf(
  projected: Projected,
  forecast: CashForecast,
  rules: ForecastRules,
  count: number,
): Hold[] {
  const { low, start } = forecast;
  if (!low) return [];
  const counted = (source: Cause['part']['source']) =>
    forecast.bySource.has(source) && source !== 'creditLine';
  const near = { from: Math.max(start + 1, low.day - BEFORE), to: low.day + AFTER };
  return causesIn(projected, near, counted)
    .filter((c) => c.day <= low.day || c.amount > 0)
    .sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount))
    .slice(0, count)
    .flatMap((cause): Hold[] => {
      const to = cause.day > low.day ? low.day : cause.day + WEEK;
      const shift = { source: cause.part.source, from: cause.day, to, amount: cause.amount };
      const tried = forecastOf(projected, rules, [shift]).low;
      return tried ? [{ cause, to, low: tried }] : [];
    });
}
