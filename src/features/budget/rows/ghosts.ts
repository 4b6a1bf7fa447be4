import type { Minor } from '@/core/money';
import type { AccountId, SegmentId } from '@/core/model';
import { totalOf } from '@/core/plan';
import { outlookMonths, reckoned, segmentsIn, yearBefore, type Ground, type Reckoned } from '@/core/ground';
import type { Setup } from '../sheet/setup';
import type { WorkColumn } from './worksheetRows';

type Months = readonly (Minor | null)[];

/** What the quiet rows show: their name, and an account's months. */
export type Ghost = { readonly label: string; readonly of: (account: AccountId) => Months };

/**
 * What the quiet rows show of the segment in sight, or of all of them: last year, the outlook, or another budget's
 * months of the same periods. Null where the person wants none.
 */
export function ghostFor(
  ground: Ground,
  whole: Reckoned,
  setup: Setup,
  segment: SegmentId | 'all',
): Ghost | null {
  if (setup.ghosts === 'none') return null;
  const { facts, budget } = whole;
  const segments = segmentsIn(budget, segment);
  if (setup.ghostOf === 'outlook')
    return {
      label: 'Outlook',
      of: (id) => outlookMonths(whole, id, segments),
    };
  const other = ground.book.budgets.find((b) => b.id === setup.ghostOf);
  if (!other) {
    const before = yearBefore(ground, whole);
    return { label: before.label, of: (id) => before.of(id, segment) };
  }
  const theirs = reckoned(ground, other);
  const first = theirs.facts.periods[0]?.index ?? 0;
  // A segment of theirs is the same one only on the same axis; otherwise their whole stands beside it, and says so.
  const alike = segment === 'all' || other.axis === budget.axis;
  return {
    label: alike ? other.name : `${other.name}, all of it`,
    of: (id) => {
      const amounts = theirs.amounts(id, alike ? segment : 'all');
      return facts.periods.map((p) => amounts?.[p.index - first] ?? null);
    },
  };
}

/** A quiet row's values by the sheet's columns. */
export function ghostCells(
  { of }: Ghost,
  account: AccountId,
  columns: readonly WorkColumn[],
  { facts }: Reckoned,
): Months {
  const months = of(account);
  const balance = facts.isBalance(account);
  return columns.map((c) =>
    c.shows !== 'plan'
      ? null
      : totalOf(c.span && c.kind === 'amount' ? months.slice(c.span.from, c.span.to) : months, [], balance),
  );
}
