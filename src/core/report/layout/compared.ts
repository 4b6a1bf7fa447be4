import type { PeriodIndex } from '@/core/calendar';
import { comparisonFor, type Comparison, type Ground } from '@/core/ground';
import type { Budget, KeptForecast, Layout } from '@/core/model';

/** What a layout's actuals are compared with in a month. */
export type Compared = {
  /** The budgets whose segments and kinds of account the actuals are of; null where no budget covers the month. */
  readonly comparison: Comparison | null;
  readonly first: 'comparison' | 'lastYear' | 'outlook';
  readonly second: Comparison | 'lastYear' | 'outlook' | null;
  /** A forecast of cash that stands in place of the first; null for none. */
  readonly kept: KeptForecast | null;
};

/** The budget that actuals stand beside, where it is a single one. */
export const onlyBudget = ({ comparison }: Compared): Budget | null =>
  comparison?.parts.length === 1 ? comparison.parts[0]!.budget : null;

/** The budget that is looked at ahead; null where it is what is in force, month by month. */
export const lookedAhead = (compared: Compared): Budget | null =>
  compared.comparison?.inForceIn == null ? onlyBudget(compared) : null;

/** How a kept forecast of cash is named among what is compared with. */
export const keptId = (id: string): string => `kept ${id}`;

/** Names of what is no budget. */
const OTHERS: ReadonlySet<string> = new Set(['lastYear', 'outlook']);

/** Resolves what a layout compares with; what is not there any more is the best budget in force. `chosen` goes before it. */
export function comparedWith(
  ground: Ground,
  month: PeriodIndex,
  { against, rows }: Pick<Layout, 'against' | 'rows'>,
  chosen: string | null,
): Compared {
  const named = chosen ?? against.first;
  const other = OTHERS.has(named) ? (named as 'lastYear' | 'outlook') : null;
  const comparison = comparisonFor(ground, month, other || named === 'inForce' ? null : named);
  const second = against.second === '' ? null : against.second;
  const kept = rows.set === 'cash' ? ground.book.cash.kept.find((k) => keptId(k.id) === named) : undefined;
  return {
    kept: kept ?? null,
    comparison,
    first: other ?? (comparison ? 'comparison' : 'lastYear'),
    second:
      second === null
        ? null
        : OTHERS.has(second)
          ? (second as 'lastYear' | 'outlook')
          : comparisonFor(ground, month, second === 'inForce' ? null : second),
  };
}
