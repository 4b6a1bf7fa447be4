import { indexOfId, type FiscalCalendar, type PeriodId, type PeriodIndex } from '@/core/calendar';
import type { Budget } from './budget';

/*
 * Which plan is in force for each month: the book keeps from which period on each budget rules. Of two that cannot both
 * rule a month it is the one that was put in force later. A closed month keeps the budget that ruled it when it was closed,
 * since a budget is put in force from the first month that is open, or that nothing ruled.
 */

/** What tells which months and parts of the business a budget rules. */
export type Ruled = Pick<Budget, 'id' | 'first' | 'length' | 'covers' | 'axis' | 'segments'>;

/** A budget that is in force from a period on. */
export type InForce = { readonly budget: string; readonly from: PeriodId };

type Plans = { readonly budgets: readonly Ruled[]; readonly inForce: readonly InForce[] };

/** Whether two budgets cannot both rule a month: they plan the same statements of the same part of the business. */
export const areRivals = (a: Ruled, b: Ruled): boolean =>
  (a.covers === 'both' || b.covers === 'both' || a.covers === b.covers) &&
  (a.axis !== b.axis || a.segments.some((s) => b.segments.includes(s)));

/** The budgets that were put in force for a period, the latest first; some of them may be rivals. */
export function putInForceAt<B extends Ruled>(
  { budgets, inForce }: { readonly budgets: readonly B[]; readonly inForce: readonly InForce[] },
  calendar: FiscalCalendar,
  period: PeriodIndex,
): B[] {
  const out: B[] = [];
  for (const { budget, from } of inForce.toReversed()) {
    const b = budgets.find((x) => x.id === budget);
    const since = indexOfId(calendar, from);
    const first = b ? indexOfId(calendar, b.first) : null;
    if (!b || since === null || first === null || out.includes(b)) continue;
    if (period >= Math.max(since, first) && period < first + b.length) out.push(b);
  }
  return out;
}

/** Whether a rival of a budget is in force in any of its periods. */
export function hasRival(plans: Plans, calendar: FiscalCalendar, b: Ruled): boolean {
  return rivalsOf(plans, calendar, b).length > 0;
}

/** The rivals of a budget that are in force in any of its periods from one on (its first, unless said). */
export function rivalsOf<B extends Ruled>(
  plans: { readonly budgets: readonly B[]; readonly inForce: readonly InForce[] },
  calendar: FiscalCalendar,
  b: Ruled,
  from?: PeriodIndex,
): B[] {
  const first = indexOfId(calendar, b.first);
  const out = new Set<B>();
  if (first !== null)
    for (let p = Math.max(first, from ?? first); p < first + b.length; p++)
      for (const other of putInForceAt(plans, calendar, p))
        if (other.id !== b.id && areRivals(other, b)) out.add(other);
  return [...out];
}

/**
 * The first period that a budget would rule if it were put in force now: after the last closed one that a rival rules; null
 * where none is left.
 */
export function rulesFrom(
  plans: Plans & { readonly closedThrough: PeriodId | null },
  calendar: FiscalCalendar,
  b: Ruled,
): PeriodIndex | null {
  const first = indexOfId(calendar, b.first);
  if (first === null) return null;
  const closed = plans.closedThrough === null ? null : indexOfId(calendar, plans.closedThrough);
  const last = first + b.length - 1;
  for (let p = Math.min(closed ?? first - 1, last); p >= first; p--)
    if (putInForceAt(plans, calendar, p).some((other) => other.id !== b.id && areRivals(other, b)))
      return p === last ? null : p + 1;
  return first;
}

/** Whether a budget rules every period that it has from one on. */
export function rulesOn(plans: Plans, calendar: FiscalCalendar, b: Ruled, from: PeriodIndex): boolean {
  const first = indexOfId(calendar, b.first);
  if (first === null) return false;
  for (let p = from; p < first + b.length; p++) if (!rules(plans, calendar, b, p)) return false;
  return true;
}

/** Whether a budget rules a period: it was put in force for it, and no rival later. */
export function rules(plans: Plans, calendar: FiscalCalendar, b: Ruled, period: PeriodIndex): boolean {
  for (const other of putInForceAt(plans, calendar, period)) {
    if (other.id === b.id) return true;
    if (areRivals(other, b)) return false;
  }
  return false;
}
