import {
  calendarFrom,
  indexOfId,
  toDayNumber,
  type CalendarSpec,
  type Day,
  type PeriodId,
} from '@/core/calendar';
import { hasRival, type Ruled } from './inForce';

type Old = Record<string, unknown>;

/**
 * Version 10: which budgets are in force from when. What was approved later took the place of what was approved before,
 * from the month in which it was; drafts are in force where nothing approved is, the latest before the others. No guesses
 * of terms are kept yet.
 */
export function toVersion10(old: Old): Old {
  const calendar = calendarFrom(old.calendar as CalendarSpec);
  const budgets = (Array.isArray(old.budgets) ? old.budgets : []) as (Ruled & {
    approved: { at: string } | null;
  })[];
  const approved = budgets
    .filter((b) => b.approved !== null)
    .sort((a, b) => (a.approved!.at < b.approved!.at ? -1 : a.approved!.at > b.approved!.at ? 1 : 0));
  const inForce: { budget: string; from: PeriodId }[] = [];
  const ruled = (b: Ruled) => hasRival({ budgets, inForce }, calendar, b);
  for (const b of approved) {
    const first = indexOfId(calendar, b.first);
    if (first === null) continue;
    const then = calendar.indexOfDay(toDayNumber(b.approved!.at.slice(0, 10) as Day));
    const from = ruled(b) ? Math.min(Math.max(first, then), first + b.length - 1) : first;
    inForce.push({ budget: b.id, from: calendar.period(from).id });
  }
  const drafts = budgets
    .filter((b) => b.approved === null && !ruled(b))
    .map((b) => ({ budget: b.id, from: b.first }));
  const cash = old.cash as Old;
  return {
    ...old,
    version: 10,
    budgets: budgets.map((b) => ({ ...b, guessed: [] })),
    inForce: [...drafts, ...inForce],
    cash: { ...cash, runOffEnds: {}, measuredThrough: null },
  };
}
