import { useDeferredValue } from 'react';
import { unitOf, type Minor } from '@/core/money';
import {
  indexOfId,
  yearRange,
  type FiscalCalendar,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import { actualOf, balancesOf, type Balances, type LedgerBlock, type View } from '@/core/ledger';
import type { Account, AccountId, Book, Budget } from '@/core/model';
import {
  amountsOf,
  budgetPeriods,
  calendarOf,
  createReckoner,
  factsFor,
  type Facts,
  type Reckoner,
  type Reckoning,
} from '@/core/plan';
import { runChecks, type Check } from '@/core/checks';
import { useBookStore } from './bookStore';

/** Remembers the last answer for the last inputs, compared by identity. */
function lastOf<A extends readonly unknown[], R>(make: (...args: A) => R): (...args: A) => R {
  let args: A | null = null;
  let result: R;
  return (...next) => {
    if (!args || next.some((x, i) => x !== args![i])) {
      result = make(...next);
      args = next;
    }
    return result;
  };
}

export type Ground = {
  readonly book: Book;
  readonly calendar: FiscalCalendar;
  readonly balances: Balances;
  readonly blocks: readonly LedgerBlock[];
  /** Merged accounts, for whoever looks at entries. */
  readonly view: View;
  readonly closedThrough: PeriodIndex | null;
  readonly actual: (account: Account, period: PeriodIndex) => Minor | null;
};

const blocksOf = lastOf((sources: Book['sources'], blocks: ReadonlyMap<string, LedgerBlock>) =>
  sources.map((s) => blocks.get(s.block)).filter((b): b is LedgerBlock => b !== undefined),
);
const viewFor = lastOf((merged: Book['merged']): View => ({
  merged: new Map(Object.entries(merged)),
  keep: null,
}));
const balancesFor = lastOf((blocks: readonly LedgerBlock[], calendar: FiscalCalendar, view: View) =>
  balancesOf(blocks, calendar, view),
);

/** The open book with what follows from its ledger. */
const makeGround = (book: Book, all: ReadonlyMap<string, LedgerBlock>): Ground => {
  const calendar = calendarOf(book);
  const blocks = blocksOf(book.sources, all);
  const view = viewFor(book.merged);
  const balances = balancesFor(blocks, calendar, view);
  return {
    book,
    view,
    calendar,
    balances,
    blocks,
    closedThrough: book.closedThrough === null ? null : indexOfId(calendar, book.closedThrough),
    actual: (account, period) => actualOf(balances, account, period),
  };
};
const groundOf = lastOf(makeGround);
/** The checks run a moment behind the screen, so they remember a ground of their own. */
const groundOfChecks = lastOf(makeGround);

/** A budget with its reckoning. */
export type Reckoned = {
  readonly budget: Budget;
  readonly facts: Facts;
  readonly reckoning: Reckoning;
  readonly amounts: (account: AccountId) => readonly (Minor | null)[] | null;
};

type Slot = {
  readonly facts: (...args: Parameters<typeof factsFor>) => Facts;
  readonly reckon: Reckoner;
  readonly periods: (c: FiscalCalendar, first: string, length: number) => ReturnType<typeof budgetPeriods>;
  readonly whole: (b: Budget, f: Facts, r: Reckoning) => Reckoned;
};
const slots = new Map<string, Slot>();
const idsOf = lastOf((accounts: readonly Account[]) => accounts.map((a) => a.id));

/** Reckons a budget; parts that did not change are remembered by budget. */
export function reckoned(ground: Ground, budget: Budget): Reckoned {
  const key = `${ground.book.id}/${budget.id}`;
  let slot = slots.get(key);
  if (!slot) {
    slot = {
      facts: lastOf(factsFor),
      reckon: createReckoner(),
      periods: lastOf((c, first, length) => budgetPeriods(c, { first: first as Budget['first'], length })),
      whole: lastOf((b, facts, reckoning) => ({
        budget: b,
        facts,
        reckoning,
        amounts: (account) => amountsOf(b, reckoning, account),
      })),
    };
    slots.set(key, slot);
  }
  const periods = slot.periods(ground.calendar, budget.first, budget.length);
  const facts = slot.facts(
    ground.calendar,
    periods,
    ground.book.accounts,
    ground.balances,
    ground.closedThrough,
    unitOf(ground.book.currency),
  );
  return slot.whole(budget, facts, slot.reckon(budget.lines, facts, idsOf(ground.book.accounts)));
}

const checksOf = lastOf((ground: Ground, blocks: ReadonlyMap<string, LedgerBlock>): Check[] =>
  runChecks({
    book: ground.book,
    blocks,
    balances: ground.balances,
    budgets: ground.book.budgets.map((b) => {
      const r = reckoned(ground, b);
      return {
        id: b.id,
        name: b.name,
        width: r.facts.periods.length,
        accounts: Object.keys(b.lines),
        amounts: r.amounts,
      };
    }),
  }),
);

/** The open book's ground at this moment, for what is no part of a screen. */
export function groundNow(): Ground | null {
  const { history, blocks } = useBookStore.getState();
  return history ? groundOf(history.book, blocks) : null;
}

/** The open book's ground, or null while none is open. */
export const useGround = (): Ground | null =>
  useBookStore((s) => (s.history ? groundOf(s.history.book, s.blocks) : null));

/** The ground of an open book; for screens that are shown only when one is. */
export function useOpenGround(): Ground {
  const ground = useGround();
  if (!ground) throw new Error('No book is open');
  return ground;
}

/**
 * The state of every check of the open book. It may lag a keystroke behind: the checks add up the whole book, and
 * must never hold up the figure that was just typed.
 */
export function useChecks(): readonly Check[] {
  const history = useDeferredValue(useBookStore((s) => s.history));
  const blocks = useDeferredValue(useBookStore((s) => s.blocks));
  return history ? checksOf(groundOfChecks(history.book, blocks), blocks) : NONE;
}
const NONE: readonly Check[] = [];

/** All periods worth showing on the ruler: whole fiscal years of the ledger and of every budget. */
export function rulerRange(ground: Ground): PeriodRange | null {
  const { calendar, balances, book } = ground;
  const ends: PeriodIndex[] = balances.range ? [balances.range.first, balances.range.last] : [];
  for (const b of book.budgets) {
    const first = indexOfId(calendar, b.first);
    if (first !== null) ends.push(first, first + b.length - 1);
  }
  if (ends.length === 0) return null;
  const low = calendar.period(Math.min(...ends)).year;
  const high = calendar.period(Math.max(...ends)).year;
  return { first: yearRange(calendar, low).first, last: yearRange(calendar, high).last };
}
