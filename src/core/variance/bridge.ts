import { sum, minor, type Minor } from '@/core/money';

export type BridgePart = {
  readonly key: string;
  readonly label: string;
  /** Effect on profit of actual − budget. */ readonly effect: Minor;
};

/** The steps that lead from budgeted to actual net profit; they add up exactly. */
export type Bridge = {
  readonly budget: Minor;
  readonly parts: readonly BridgePart[];
  readonly others: Minor;
  readonly actual: Minor;
};

/**
 * Leads from the budgeted result to the actual one: the `most` largest effects by size, in the order given, and the
 * rest as one step.
 */
export function bridgeOf(budget: Minor, parts: readonly BridgePart[], most: number): Bridge {
  const moved = parts.filter((p) => p.effect !== 0);
  const large = new Set([...moved].sort((a, b) => Math.abs(b.effect) - Math.abs(a.effect)).slice(0, most));
  const others = sum(moved.filter((p) => !large.has(p)).map((p) => p.effect));
  const actual = minor(budget + moved.reduce((t, p) => t + p.effect, 0));
  return { budget, parts: moved.filter((p) => large.has(p)), others, actual };
}
