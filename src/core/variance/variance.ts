import { divideRounded, minor, percentFraction, type Minor, type Percent } from '@/core/money';
import { profitSign, type AccountKind } from '@/core/model';

/** Favorable when the difference helps profit, unfavorable when it hurts; null when there is none. */
export type Sense = 'F' | 'U' | null;

export type Variance = {
  /** Actual − budget, in the line's natural sign. */
  readonly difference: Minor;
  /** Difference in tenths of a percent of |budget|; null where the budget is zero or blank. */
  readonly perMille: number | null;
  readonly sense: Sense;
};

/**
 * Compares an actual with a budget. `effect` is +1 where more means more profit (income, results), −1 for costs.
 * A blank on one side counts as zero; blank on both gives null: nothing was said.
 */
export function compare(actual: Minor | null, budget: Minor | null, effect: 1 | 0 | -1): Variance | null {
  if (actual === null && budget === null) return null;
  const plan = budget ?? 0;
  const difference = minor((actual ?? 0) - plan);
  const perMille = plan === 0 ? null : divideRounded(difference, 1000, Math.abs(plan), 'halfAwayFromZero');
  const help = difference * effect;
  return { difference, perMille, sense: help > 0 ? 'F' : help < 0 ? 'U' : null };
}

/** The effect on profit of an account's amounts. */
export const effectOf = (kind: AccountKind): 1 | 0 | -1 => profitSign(kind);

/** Whether a variance is to be explained: it exceeds both the amount and the percentage (any, where there is no budget). */
export function isFlagged(
  v: Variance | null,
  budget: Minor | null,
  over: { readonly amount: Minor; readonly percent: Percent },
): boolean {
  if (!v || Math.abs(v.difference) <= over.amount) return false;
  if (!budget) return true;
  const { numerator, denominator } = percentFraction(over.percent);
  // |difference| ÷ |budget| > percent ÷ 100, without dividing.
  return BigInt(Math.abs(v.difference)) * 100n * denominator > BigInt(Math.abs(budget)) * numerator;
}
