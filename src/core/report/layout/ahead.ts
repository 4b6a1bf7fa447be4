import type { PeriodIndex } from '@/core/calendar';
import { aheadOf, type Ahead, type Ground } from '@/core/ground';
import type { Account } from '@/core/model';
import { onlyBudget, type Compared } from './compared';
import { aYearBefore, type Side, type Sides, type SidesInput } from './sides';

/*
 * Profit and loss, balance sheet and cash flow of closed periods and of those ahead, read off one list of postings: the
 * ledger's, then the projection's.
 */

/** The books ahead by the budget that is compared with. */
export const aheadFor = (ground: Ground, compared: Compared): Ahead | null =>
  aheadOf(ground, onlyBudget(compared));

/** A side that says nothing of segments, days or whole years. */
export const plainSide = (at: Side['at'], covers: Side['covers'] = () => true): Side => ({
  at,
  whole: () => null,
  tells: (scope) => scope === 'all',
  covers,
  days: () => null,
});

/** Sides whose outlook goes on by the projection; `at` reads one account in one period, `known` where it tells anything. */
export function aheadSides(
  input: SidesInput,
  base: Sides,
  at: Side['at'],
  known: (p: PeriodIndex) => boolean,
): Sides {
  const { ground, compared } = input;
  const outlook = plainSide(
    (account, scope, p) => (scope === 'all' && known(p) ? at(account, scope, p) : null),
    known,
  );
  const lastYear = aYearBefore(ground, outlook);
  const named = (
    which: typeof compared.first | typeof compared.second,
    otherwise: Side | null,
  ): Side | null => (which === 'lastYear' ? lastYear : which === 'outlook' ? outlook : otherwise);
  return {
    ...base,
    actual: outlook,
    outlook,
    lastYear,
    first: named(compared.first, base.first)!,
    second: named(compared.second, base.second),
  };
}

/** The periods that the books ahead tell. */
export const knownIn =
  (ahead: Ahead | null) =>
  (p: PeriodIndex): boolean =>
    ahead !== null && ahead.balances.has(p);

/** They know what the projection tells, and tell no segments apart. */
export const SETS_AHEAD = {
  knows: (ground: Ground, compared: Compared) => knownIn(aheadFor(ground, compared)),
  whole: true,
  ahead: true,
} as const;

/** The accounts of a book with what stands in for those that it has not. */
export const withStandIns = (ground: Ground, compared: Compared): readonly Account[] =>
  aheadFor(ground, compared)?.accounts ?? ground.book.accounts;
