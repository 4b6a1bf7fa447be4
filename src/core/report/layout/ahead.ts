import type { PeriodIndex } from '@/core/calendar';
import type { Flow } from '@/core/cash';
import {
  aheadOf,
  cashByFlow,
  flowsOfForecast,
  offBalance,
  plannedBooks,
  salesOfBudget,
  type Ahead,
  type Ground,
} from '@/core/ground';
import { once } from '@/core/lastOf';
import type { Balances } from '@/core/ledger';
import type { Account, Budget, ScheduleRow } from '@/core/model';
import type { Minor } from '@/core/money';
import type { Sales } from '@/core/statements';
import { lookedAhead, onlyBudget, type Compared } from './compared';
import { aYearBefore, type Side, type Sides, type SidesInput } from './sides';

/*
 * Profit and loss, balance sheet and cash flow of closed periods and of those ahead, read off one list of postings: the
 * ledger's, then the projection's.
 */

/** The books ahead by what is in force, or by the budget that is looked at. */
export const aheadFor = (ground: Ground, compared: Compared): Ahead | null =>
  aheadOf(ground, lookedAhead(compared));

/** The schedules that go on ahead: of the budget that is looked at, else of the last that is in force. */
export const schedulesAhead = (ahead: Ahead, compared: Compared): readonly ScheduleRow[] =>
  (lookedAhead(compared) ?? ahead.view.plans.at(-1)?.budget)?.schedules ?? [];

/** A side that says nothing of segments, days or whole years. */
export const plainSide = (at: Side['at'], covers: Side['covers'] = () => true): Side => ({
  at,
  whole: () => null,
  tells: (scope) => scope === 'all',
  covers,
  days: () => null,
});

/** What statements are read off: the books ahead, or what a budget by itself says. */
export type Books = {
  readonly balances: Balances;
  readonly accounts: readonly Account[];
  /** Where it tells anything, and where it tells what accounts stand at. */
  readonly known: (period: PeriodIndex) => boolean;
  readonly stands: (period: PeriodIndex) => boolean;
  readonly flows: (flow: Flow, period: PeriodIndex) => Minor | null;
  readonly sales: () => Sales;
  /** What all accounts together stand at: nothing, where they balance. */
  readonly off: (period: PeriodIndex) => number;
  /** The schedules that tell when loans fall due. */
  readonly schedules: readonly ScheduleRow[];
};

function booksAhead(ground: Ground, compared: Compared): Books | null {
  const ahead = aheadFor(ground, compared);
  if (!ahead) return null;
  // Only the direct form of the cash flow asks who money came from and went to.
  const closed = once(() => cashByFlow(ground, onlyBudget(compared)));
  const coming = once(() => flowsOfForecast(ground, ahead.view));
  return {
    balances: ahead.balances,
    accounts: ahead.accounts,
    sales: ahead.sales,
    known: knownIn(ahead),
    stands: knownIn(ahead),
    flows: (flow, p) => (p <= ahead.start ? closed()(flow, p) : p > ahead.last ? null : coming()(flow, p)),
    off: (p) => offBalance(ahead, p),
    schedules: schedulesAhead(ahead, compared),
  };
}

function booksOf(ground: Ground, budget: Budget): Books {
  const { balances, stands, flows } = plannedBooks(ground, budget);
  return {
    balances,
    stands,
    flows,
    known: balances.has,
    accounts: ground.book.accounts,
    sales: once(() => salesOfBudget(ground, budget)),
    off: () => 0,
    schedules: budget.schedules,
  };
}

/** Sides whose outlook goes on by the projection; `read` reads one account in one period of some books. */
export function aheadSides(input: SidesInput, base: Sides, read: (books: Books) => Side['at']): Sides {
  const { ground, compared } = input;
  const books = booksAhead(ground, compared);
  const known = (p: PeriodIndex) => books?.known(p) ?? false;
  const at: Side['at'] = books ? read(books) : () => null;
  const outlook = plainSide(
    (account, scope, p) => (scope === 'all' && known(p) ? at(account, scope, p) : null),
    known,
  );
  const lastYear = aYearBefore(ground, outlook);
  const named = (
    which: typeof compared.first | typeof compared.second,
    otherwise: Side | null,
  ): Side | null => {
    if (which === 'lastYear') return lastYear;
    if (which === 'outlook') return outlook;
    // A budget beside it says of all three statements what it said itself.
    const budget =
      which !== null && which !== 'comparison' && which.parts.length === 1 ? which.parts[0]!.budget : null;
    if (!budget) return otherwise;
    const planned = booksOf(ground, budget);
    const own = read(planned);
    return plainSide(
      (account, scope, p) => (scope === 'all' && planned.known(p) ? own(account, scope, p) : null),
      planned.known,
    );
  };
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

/** They know what the projection tells. */
export const SETS_AHEAD = {
  knows: (ground: Ground, compared: Compared) => knownIn(aheadFor(ground, compared)),
} as const;

/** The accounts of a book with what stands in for those that it has not. */
export const withStandIns = (ground: Ground, compared: Compared): readonly Account[] =>
  aheadFor(ground, compared)?.accounts ?? ground.book.accounts;
