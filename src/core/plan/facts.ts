import { ZERO, type Minor } from '@/core/money';
import {
  calendarFrom,
  indexOfId,
  yearsBefore,
  type FiscalCalendar,
  type Period,
  type PeriodIndex,
} from '@/core/calendar';
import {
  isProfitAndLoss,
  natural,
  type Account,
  type AccountId,
  type Book,
  type Budget,
  type Ref,
  type SegmentId,
  type Weights,
  type WorkWeek,
} from '@/core/model';
import type { Balances } from '@/core/ledger';
import { payingBank } from '@/core/schedule';
import { quarterSpans, yearSpans, type Span } from './spans';

/** An account's past as the methods use it, in natural sign: months of profit and loss, closing balances otherwise. */
export type Past = {
  /** The same period a year earlier, for each period of the budget; null where the ledger is silent. */
  readonly lastYear: readonly (Minor | null)[];
  /** Every month of the base window that the ledger has any entry in; an account silent there counts as zero. */
  readonly known: readonly Minor[];
};

/** Another budget as a basis: its amount of an account in a period, null where it says nothing. */
export type OtherPlan = {
  /** Whether it plans the period at all. */
  readonly has: (period: PeriodIndex) => boolean;
  readonly amount: (account: AccountId, segment: SegmentId, period: PeriodIndex) => Minor | null;
  /** Whether it has a line of the account at all. */
  readonly plans: (account: AccountId, segment: SegmentId) => boolean;
};

/** What a budget is reckoned from. A new object whenever any of it changes, so identity tells. */
export type Facts = {
  readonly calendar: FiscalCalendar;
  readonly periods: readonly Period[];
  readonly years: readonly Span[];
  readonly quarters: readonly Span[];
  /** The months of `known`, in time. */
  readonly window: readonly Period[];
  readonly closedThrough: PeriodIndex | null;
  /** For each period the place of the same one a year earlier, negative before the budget; null where that year has none. */
  readonly yearBack: readonly (number | null)[];
  readonly past: (account: AccountId, segment?: SegmentId) => Past;
  /** The actual of a period, natural: a month's amount, or a balance account's closing balance. */
  readonly actual: (account: AccountId, segment: SegmentId, period: PeriodIndex) => Minor | null;
  /** Whether the ledger has any activity in the period. */
  readonly has: (period: PeriodIndex) => boolean;
  /**
   * Whether a period has actuals that can be relied on: closed (where nothing was ever closed, every one counts), and with
   * entries. Any other shows its plan.
   */
  readonly isActual: (period: PeriodIndex) => boolean;
  /** Whether the ledger has any activity of an account. */
  readonly hasPast: (account: AccountId, segment: SegmentId) => boolean;
  readonly isBalance: (account: AccountId) => boolean;
  readonly exists: (account: AccountId) => boolean;
  readonly accounts: readonly Account[];
  /** The account that pays where a schedule's row names none. */
  readonly bank: AccountId;
  /** The accounts that a reference adds up. */
  readonly members: (ref: Ref) => readonly AccountId[];
  readonly weights: (id: string) => readonly number[] | null;
  readonly workWeek: WorkWeek;
  /** Another budget that a method builds on; null when there is none such, or when it builds on this one. */
  readonly other: (budget: string) => OtherPlan | null;
  /** Minor units in one unit of the currency, for rounding months to 1, 10, 100 …. */
  readonly unit: number;
};

export type FactsInput = {
  readonly calendar: FiscalCalendar;
  readonly periods: readonly Period[];
  readonly accounts: readonly Account[];
  /** The account that pays by default; null: the first there is. */
  readonly bank: AccountId | null;
  /** The ledger of the whole company. */
  readonly balances: Balances;
  /** The ledger of one of the budget's segments; the whole company's when the budget has no axis. */
  readonly ofSegment: (segment: SegmentId) => Balances;
  readonly closedThrough: PeriodIndex | null;
  readonly unit: number;
  readonly weights: readonly Weights[];
  readonly workWeek: WorkWeek;
  readonly others: ReadonlyMap<string, OtherPlan>;
};

const NOTHING: Past = { lastYear: [], known: [] };

/** The calendar of a book. */
export const calendarOf = (book: Pick<Book, 'calendar'>): FiscalCalendar => calendarFrom(book.calendar);

/** Whether a budget covers a period. */
export function coversPeriod(
  calendar: FiscalCalendar,
  { first, length }: Pick<Budget, 'first' | 'length'>,
  period: PeriodIndex,
): boolean {
  const start = indexOfId(calendar, first);
  return start !== null && period >= start && period < start + length;
}

/** Whether a period has actuals that can be relied on: closed, if anything ever was, and with entries. */
export const isActual = (
  balances: Balances,
  closedThrough: PeriodIndex | null,
  period: PeriodIndex,
): boolean => balances.has(period) && (closedThrough === null || period <= closedThrough);

/** The periods that a budget covers. */
export function budgetPeriods(calendar: FiscalCalendar, budget: Pick<Budget, 'first' | 'length'>): Period[] {
  const first = indexOfId(calendar, budget.first);
  if (first === null) return [];
  return Array.from({ length: budget.length }, (_, i) => calendar.period(first + i));
}

/**
 * Gathers what the methods need of the ledger. The base window is the months with actuals of the year before the budget; for a business with
 * no entries there yet, it is the months closed so far.
 */
export function factsFor(input: FactsInput): Facts {
  const { calendar, periods, accounts, balances, closedThrough } = input;
  const window = baseWindow(calendar, periods, balances, closedThrough);
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const made = new Map<string, Past>();
  const members = new Map<string, readonly AccountId[]>();
  const before = periods.map((p) => yearsBefore(calendar, p.index));

  function actual(id: AccountId, segment: SegmentId, index: PeriodIndex): Minor | null {
    const account = byId.get(id);
    if (!account) return null;
    const ledger = input.ofSegment(segment);
    if (isProfitAndLoss(account.kind)) {
      const movement = ledger.movement(id, index);
      return movement === null ? null : natural(account.kind, movement);
    }
    // The company's range: what a segment stands at does not end with its last entry.
    const { range } = balances;
    if (!range || index < range.first || index > range.last) return null;
    return natural(account.kind, ledger.balance(id, index, true));
  }

  return {
    calendar,
    periods,
    years: yearSpans(periods),
    quarters: quarterSpans(periods),
    window,
    closedThrough,
    yearBack: before.map((index) => (index === null ? null : index - periods[0]!.index)),
    actual,
    has: (index) => balances.has(index),
    isActual: (index) => isActual(balances, closedThrough, index),
    hasPast: (id, segment) => input.ofSegment(segment).active(id),
    isBalance: (id) => !isProfitAndLoss(byId.get(id)?.kind ?? 'income'),
    exists: (id) => byId.has(id),
    accounts,
    bank: payingBank(input.bank, accounts),
    members(ref) {
      if (ref.of === 'account') return [ref.account];
      const key = `${ref.kind}:${ref.of === 'group' ? ref.group : '*'}`;
      let list = members.get(key);
      if (!list) {
        list = accounts
          .filter((a) => a.kind === ref.kind && (ref.of === 'kind' || a.group === ref.group))
          .map((a) => a.id);
        members.set(key, list);
      }
      return list;
    },
    weights: (id) => input.weights.find((w) => w.id === id)?.weights ?? null,
    workWeek: input.workWeek,
    other: (id) => input.others.get(id) ?? null,
    unit: input.unit,
    past(id, segment = null) {
      if (!byId.has(id)) return NOTHING;
      const key = segment === null ? id : `${id}:${segment}`;
      let past = made.get(key);
      if (!past) {
        past = {
          lastYear: before.map((index) => (index === null ? null : actual(id, segment, index))),
          known: window.map((p) => actual(id, segment, p.index) ?? ZERO),
        };
        made.set(key, past);
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
    for (let i = from; i <= to; i++) if (isActual(balances, closedThrough, i)) out.push(calendar.period(i));
    return out;
  };
  const yearBefore = between(first - span, first - 1);
  if (yearBefore.length > 0) return yearBefore;
  const last = Math.min(closedThrough ?? balances.range.last, balances.range.last);
  return between(last - span + 1, last);
}
