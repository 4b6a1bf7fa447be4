import type { Budget } from './budget';
import type { Book } from './schema';

/** What a budget is of: which months, which statements, which segments. */
type Scope = Pick<Budget, 'first' | 'length' | 'covers' | 'axis' | 'segments'>;

/** Whether two budgets are of the same months, the same statements and the same segments: one can take the other's place. */
export const sameScope = (a: Scope, b: Scope): boolean =>
  a.first === b.first &&
  a.length === b.length &&
  a.covers === b.covers &&
  a.axis === b.axis &&
  a.segments.length === b.segments.length &&
  a.segments.every((s) => b.segments.includes(s));

/** The budgets in force that approving one would supersede; anything else stays in force beside it. */
export const supersededBy = (
  { budgets }: { readonly budgets: Book['budgets'] },
  budget: Scope & Pick<Budget, 'id'>,
): Budget[] => budgets.filter((b) => b.id !== budget.id && b.state === 'approved' && sameScope(b, budget));
