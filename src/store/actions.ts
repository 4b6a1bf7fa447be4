import { minor, type Minor } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import type { AccountId, Budget, Line, Refusal, VarianceNote } from '@/core/model';
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

/**
 * Merges one account into another. A budget that has a line of each gets one line of their amounts by month, as they
 * are reckoned now; frozen budgets add what was approved.
 */
export function mergeAccounts(ground: Ground, from: AccountId, into: AccountId): Refusal | null {
  const lines = ground.book.budgets.flatMap((budget) => {
    if (budget.state !== 'draft' || !budget.lines[from] || !budget.lines[into]) return [];
    const { facts, amounts } = reckoned(ground, budget);
    const [a, b] = [amounts(from), amounts(into)];
    const byPeriod: Record<PeriodId, Minor> = {};
    facts.periods.forEach((p, i) => {
      const x = a?.[i] ?? null;
      const y = b?.[i] ?? null;
      if (x !== null || y !== null) byPeriod[p.id] = minor((x ?? 0) + (y ?? 0));
    });
    const note = [budget.lines[into].note, budget.lines[from].note].filter(Boolean).join('\n').slice(0, 4000);
    const line: Line = {
      account: into,
      method: { kind: 'byMonth', amounts: byPeriod },
      overrides: {},
      note,
    };
    return [{ budget: budget.id, line }];
  });
  return dispatch({ type: 'mergeAccounts', from, into, lines });
}
