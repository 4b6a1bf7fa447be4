import {
  addRatio,
  compounded,
  minor,
  multiplyRatio,
  ratio,
  ratioOfPercent,
  roundRatio,
  type Minor,
  type Percent,
} from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';

/** A change that comes once and again: an amount, or a percentage of the start or of what it has become. */
export type StepChange =
  | { readonly of: 'amount'; readonly amount: number }
  | { readonly of: 'percent'; readonly percent: Percent; readonly compounding: boolean };

/** How many steps have been taken by a period. */
export const stepsTaken = (period: PeriodIndex, first: PeriodIndex, every: number): number =>
  period < first ? 0 : Math.floor((period - first) / every) + 1;

/**
 * The amount after so many steps: exact, rounded once, half away from zero. Compounding is start × (1 + p)^n, as in
 * the formula of compound interest.
 */
export function stepped(start: number, change: StepChange, times: number): Minor {
  if (change.of === 'amount') return minor(start + change.amount * times);
  if (change.compounding) return compounded(start, change.percent, times);
  const p = ratioOfPercent(change.percent);
  return roundRatio(multiplyRatio(ratio(start), addRatio(ratio(1), multiplyRatio(p, ratio(times)))));
}
