import type { Minor } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import type { AccountId, Budget, Refusal, VarianceNote } from '@/core/model';
import { now, randomId } from '@/platform/clock';
import { dispatch } from './bookStore';
import { reckoned, type Ground } from './derived';

export { randomId };

/** Today's day in the person's own time zone: the one place where "today" comes from. */
export const today = (): string => new Date().toLocaleDateString('sv-SE');

/** The present instant, for what is recorded with a time. */
export const instant = now;

/** Approves a draft: freezes its amounts as they are shown now. */
export function approveBudget(ground: Ground, budget: Budget): Refusal | null {
  const { reckoning } = reckoned(ground, budget);
  const amounts: Record<AccountId, (Minor | null)[]> = {};
  for (const [id, line] of reckoning.lines) amounts[id] = [...line.amounts];
  return dispatch({ type: 'approveBudget', budget: budget.id, approved: { at: now(), amounts } });
}

/** Keeps, changes or (with an empty text) takes away the note on a variance. */
export function noteVariance(
  period: PeriodId,
  account: AccountId,
  text: string,
  reach: VarianceNote['reach'],
): Refusal | null {
  return dispatch({
    type: 'setVarianceNote',
    period,
    account,
    note: text.trim() ? { text: text.trim(), reach, at: now() } : null,
  });
}
