import { lastOf } from '@/core/lastOf';
import type { Account, Book } from '@/core/model';
import type { Facts, LinePlaces } from '@/core/plan';
import type { Ground } from './ground';
import type { Reckoned } from './reckoned';

const makeChoice = () =>
  lastOf(
    (accounts: Book['accounts'], places: LinePlaces, facts: Facts, approved: boolean): readonly Account[] => {
      if (approved || accounts.every((a) => a.active)) return accounts;
      const kept = accounts.filter(
        (a) => a.active || places.has(a.id) || facts.past(a.id).lastYear.some((v) => v !== null && v !== 0),
      );
      return kept.length === accounts.length ? accounts : kept;
    },
  );

/**
 * The accounts that a budget's sheets show: those in use, and of the others only those that it has a line of or that had
 * figures the year before. The same list until one comes or goes.
 */
export const planAccounts = (
  { book, memory }: Ground,
  { budget, facts, reckoning }: Reckoned,
): readonly Account[] =>
  memory.of(`accounts ${budget.id}`, makeChoice)(
    book.accounts,
    reckoning.lines.places,
    facts,
    budget.approved !== null,
  );
