import { indexOfId, toDayNumber, type PeriodId, type PeriodIndex } from '@/core/calendar';
import { NO_BANKS, type Book } from '@/core/model';
import { coversPeriod } from '@/core/plan';
import type { Ground } from './ground';
import { createMemory } from './memory';

/**
 * The book as it was when no more than this was closed: what happened later is not known in it, nor what was explained of it,
 * lists of open items of a later day, or what banks told of later days; nor what was put in force later in place of a plan that
 * ruled then. Plans that nobody replaced are as they are now.
 */
export function asOf(ground: Ground, closed: PeriodIndex): Ground {
  const { book, calendar } = ground;
  const end = toDayNumber(calendar.period(closed).end);
  const { banks } = book.cash;
  const before = banks.statements.filter((s) => toDayNumber(s.last) <= end);
  const later = new Set(
    book.cash.lists.flatMap((l) =>
      l.day !== null && toDayNumber(l.day) > end ? [`${l.side} ${l.from}`] : [],
    ),
  );
  const isThen = (l: { readonly side: string; readonly from: string }) => !later.has(`${l.side} ${l.from}`);
  const cash = {
    ...book.cash,
    lists: book.cash.lists.filter(isThen),
    items: book.cash.items.filter(isThen),
    banks: before.length === banks.statements.length ? banks : { ...NO_BANKS, statements: before },
  };
  const varianceNotes = Object.fromEntries(
    Object.entries(book.varianceNotes).filter(([id]) => (indexOfId(calendar, id as PeriodId) ?? 0) <= closed),
  );
  const from = (f: Book['inForce'][number]) => indexOfId(calendar, f.from) ?? 0;
  const ruled = book.inForce.filter((f) => from(f) <= closed + 1);
  const replaces = (f: Book['inForce'][number]) =>
    ruled.some((r) => {
      const plan = book.budgets.find((b) => b.id === r.budget);
      return plan !== undefined && coversPeriod(calendar, plan, from(f));
    });
  const inForce = book.inForce.filter((f) => from(f) <= closed + 1 || !replaces(f));
  // The ledger is the same: later months are in it, and not closed.
  return {
    ...ground,
    book: { ...book, closedThrough: calendar.period(closed).id, cash, inForce, varianceNotes },
    closedThrough: closed,
    memory: createMemory(),
    inCase: null,
  };
}
