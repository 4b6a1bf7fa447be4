import {
  addRatio,
  multiplyRatio,
  ratio,
  ratioOfPercent,
  roundRatio,
  type Minor,
  type Percent,
  type Ratio,
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
  if (change.of === 'amount') return roundRatio(ratio(start + change.amount * times));
  const p = ratioOfPercent(change.percent);
  if (!change.compounding)
    return roundRatio(multiplyRatio(ratio(start), addRatio(ratio(1), multiplyRatio(p, ratio(times)))));
  let grown: Ratio = ratio(start);
  const factor = addRatio(ratio(1), p);
  for (let n = 0; n < times; n++) grown = multiplyRatio(grown, factor);
  return roundRatio(grown);
}
