import { ZERO, type Minor } from '@/core/money';
import {
  calendarFrom,
  indexOfId,
  yearsBefore,
  type FiscalCalendar,
  type Period,
  type PeriodIndex,
} from '@/core/calendar';
import { naturalSign, type Account, type AccountId, type Book, type Budget } from '@/core/model';
import type { Balances } from '@/core/ledger';

/** An account's past as the methods use it, in natural sign. */
export type Past = {
  /** The same period a year earlier, for each period of the budget; null where the ledger is silent. */
  readonly lastYear: readonly (Minor | null)[];
  /** Every month of the base window that the ledger has any entry in; an account silent there counts as zero. */
  readonly known: readonly Minor[];
};

/** What a budget is reckoned from. A new object whenever the ledger changes, so identity tells. */
export type Facts = {
  readonly periods: readonly Period[];
  /** The months of `known`, in time. */
  readonly window: readonly Period[];
  readonly past: (account: AccountId) => Past;
  /** Minor units in one unit of the currency, for rounding months to 1, 10, 100 …. */
  readonly unit: number;
};

const NOTHING: Past = { lastYear: [], known: [] };

/** The calendar of a book. */
export const calendarOf = (book: Pick<Book, 'calendar'>): FiscalCalendar => calendarFrom(book.calendar);

/** The periods that a budget covers. */
export function budgetPeriods(calendar: FiscalCalendar, budget: Pick<Budget, 'first' | 'length'>): Period[] {
  const first = indexOfId(calendar, budget.first);
  if (first === null) return [];
  return Array.from({ length: budget.length }, (_, i) => calendar.period(first + i));
}

/**
 * Gathers what the methods need of the ledger. The base window is the year before the budget; for a business with
 * no entries there yet, it is the months closed so far.
 */
export function factsFor(
  calendar: FiscalCalendar,
  periods: readonly Period[],
  accounts: readonly Account[],
  balances: Balances,
  closedThrough: PeriodIndex | null,
  unit: number,
): Facts {
  const window = baseWindow(calendar, periods, balances, closedThrough);
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const made = new Map<AccountId, Past>();
  const before = periods.map((p) => yearsBefore(calendar, p.index));

  function make(account: Account): Past {
    const sign = naturalSign(account.kind);
    const natural = (index: PeriodIndex | null): Minor | null => {
      const movement = index === null ? null : balances.movement(account.id, index);
      return movement === null ? null : ((movement * sign || 0) as Minor);
    };
    return { lastYear: before.map(natural), known: window.map((p) => natural(p.index) ?? ZERO) };
  }

  return {
    periods,
    window,
    unit,
    past(id) {
      let past = made.get(id);
      if (!past) {
        const account = byId.get(id);
        past = account ? make(account) : NOTHING;
        made.set(id, past);
      }
      return past;
    },
  };
}

function baseWindow(
  calendar: FiscalCalendar,
  periods: readonly Period[],
  balances: Balances,
  closedThrough: PeriodIndex | null,
): Period[] {
  const first = periods[0]?.index;
  if (first === undefined || !balances.range) return [];
  const span = calendar.periodsIn(calendar.period(first).year - 1);
  const between = (from: number, to: number) => {
    const out: Period[] = [];
    for (let i = from; i <= to; i++) if (balances.has(i)) out.push(calendar.period(i));
    return out;
  };
  const yearBefore = between(first - span, first - 1);
  if (yearBefore.length > 0) return yearBefore;
  const last = Math.min(closedThrough ?? balances.range.last, balances.range.last);
  return between(last - span + 1, last);
}
