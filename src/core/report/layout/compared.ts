import type { PeriodIndex } from '@/core/calendar';
import { comparisonFor, type Comparison, type Ground } from '@/core/ground';
import type { Layout } from '@/core/model';

/** What a layout's actuals are compared with in a month. */
export type Compared = {
  /** The budgets whose segments and kinds of account the actuals are of; null where no budget covers the month. */
  readonly comparison: Comparison | null;
  readonly first: 'comparison' | 'lastYear' | 'outlook';
  readonly second: Comparison | 'lastYear' | 'outlook' | null;
};

/** Names of what is no budget. */
const OTHERS: ReadonlySet<string> = new Set(['lastYear', 'outlook']);

/** Resolves what a layout compares with; what is not there any more is the best budget in force. `chosen` goes before it. */
export function comparedWith(
  ground: Ground,
  month: PeriodIndex,
  { against }: Pick<Layout, 'against'>,
  chosen: string | null,
): Compared {
  const named = chosen ?? against.first;
  const other = OTHERS.has(named) ? (named as 'lastYear' | 'outlook') : null;
  const comparison = comparisonFor(ground, month, other || named === 'inForce' ? null : named);
  const second = against.second === '' ? null : against.second;
  return {
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
