import type { DayNumber, FiscalCalendar, PeriodIndex, PeriodRange } from '@/core/calendar';
import type { Account, AccountId, RowOf, ScheduleKind, SegmentId, WorkWeek } from '@/core/model';
import type { Ratio } from '@/core/money';
import type { Days } from './days';
import type { What } from './what';

/**
 * A posting that a row makes: debit-positive minor units on a day. `of` is the day of the event that it belongs to, which
 * decides whose month it is: what is withheld from pay of June belongs to June wherever it is paid. The postings of one
 * event come to nothing.
 */
export type RowPosting = {
  readonly day: DayNumber;
  readonly of: DayNumber;
  readonly account: AccountId;
  readonly segment: SegmentId;
  readonly amount: number;
  readonly what: What;
  /** The tax of a purchase and the day it is paid: what is had back is negative. */
  readonly owes?: { readonly scheme: string; readonly amount: number; readonly paid: DayNumber };
};

/** What keeps a row from giving what it promises; the postings beside it are what could be given. */
export type RowIssue =
  | 'driverMissing'
  /** A payment that does not even pay the interest. */
  | 'paymentTooSmall'
  /** Principal is left after the last payment that was typed. */
  | 'principalLeft'
  | 'tooLarge'
  | 'cycle';

export type RowMade = { readonly postings: readonly RowPosting[]; readonly issue: RowIssue | null };

/** What rows may look at. */
export type RowGround = {
  readonly calendar: FiscalCalendar;
  readonly workWeek: WorkWeek;
  readonly days: Days;
  /** The periods that postings are asked of, by their events. */
  readonly range: PeriodRange;
  readonly accounts: readonly Account[];
  /** The account that pays where a row names none. */
  readonly bank: AccountId;
  /** A driver's value in a period; null where nothing is said, undefined where there is no such driver. */
  readonly driver: (id: string, period: PeriodIndex) => Ratio | null | undefined;
  /** Profit of a period before the taxes on it: the ledger's where it is closed, else as planned; null where nothing is known. */
  readonly profit: (period: PeriodIndex) => number | null;
  /** What the ledger has of an account in a closed period, natural; null in any other. */
  readonly booked: (account: AccountId, period: PeriodIndex) => number | null;
};

/** What a row must have reckoned before. */
export type RowNeeds = { readonly drivers: readonly string[]; readonly profit: boolean };

/** How one kind of row makes postings. */
export type RowRuleOf<K extends ScheduleKind> = {
  readonly needs: (row: RowOf<K>) => RowNeeds;
  readonly make: (row: RowOf<K>, ground: RowGround) => RowMade;
};

export const NEEDS_NOTHING: RowNeeds = { drivers: [], profit: false };

/** Gathers postings in pairs, each of which comes to nothing. */
export class RowBook {
  readonly postings: RowPosting[] = [];

  /** `amount` from one account to another on a day, for an event of (another) day; nothing is written for nothing. */
  pair(
    day: DayNumber,
    to: readonly [AccountId, SegmentId],
    from: readonly [AccountId, SegmentId],
    amount: number,
    what: What,
    of: DayNumber = day,
  ): void {
    if (amount === 0) return;
    this.postings.push({ day, of, account: to[0], segment: to[1], amount, what });
    this.postings.push({ day, of, account: from[0], segment: from[1], amount: -amount, what });
  }
}
