import { indexOfId } from '@/core/calendar';
import { actualsOf, reckoned, type Ground } from '@/core/ground';
import type { Adjusts } from '@/core/model';
import { divideRounded, minor } from '@/core/money';
import { reaches } from '@/core/scenario';

/** By how much the lines of an adjustment came out otherwise than an earlier budget planned them. */
export type Miss = {
  readonly budget: string;
  /** How many closed months are compared. */
  readonly months: number;
  /** What happened less what was planned, in thousandths of a percent of the plan. */
  readonly size: number;
};

/** Of fewer closed months nothing is told. */
const FEWEST = 3;

/**
 * How far the book's own approved budgets missed what an adjustment is about: the lines that it reaches, over the closed months
 * that each planned. Of what is said in percent alone; of a budget that planned nothing of them nothing is told.
 */
export function missesOf(ground: Ground, what: Adjusts): readonly Miss[] {
  if (what.on !== 'amounts' || what.way.as !== 'percent') return [];
  const { book, calendar, closedThrough } = ground;
  if (closedThrough === null) return [];
  const accounts = new Map(book.accounts.map((a) => [a.id, a]));
  return book.budgets.flatMap((budget): Miss[] => {
    const first = indexOfId(calendar, budget.first);
    if (!budget.approved || first === null) return [];
    const whole = reckoned(ground, budget);
    const months = Math.min(budget.length, closedThrough - first + 1);
    let [planned, happened] = [0, 0];
    for (const { account: id, segment } of budget.approved.lines) {
      const account = accounts.get(id);
      if (!account || !reaches(what.reach, account, segment)) continue;
      const own = budget.axis === null ? ('all' as const) : segment;
      const amounts = whole.amounts(id, own);
      const actual = actualsOf(ground, budget.axis, own);
      for (let m = 0; m < months; m++) {
        planned += amounts?.[m] ?? 0;
        happened += actual.shown(account, first + m) ?? 0;
      }
    }
    if (months < FEWEST || planned <= 0) return [];
    return [
      {
        budget: budget.name,
        months,
        size: divideRounded(minor(happened - planned), 100_000, planned, 'halfAwayFromZero'),
      },
    ];
  });
}

/** A low and a high around a size, as far from it as plans were missed; null where they tell nothing. */
export function spreadFrom(
  misses: readonly Miss[],
  size: number,
): { readonly low: number; readonly high: number } | null {
  if (misses.length === 0) return null;
  const all = misses.map((m) => size + m.size);
  return { low: Math.min(size, ...all), high: Math.max(size, ...all) };
}
