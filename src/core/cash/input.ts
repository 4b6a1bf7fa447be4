import type { DayNumber, Period } from '@/core/calendar';
import type { Minor } from '@/core/money';
import type { RowPosting } from '@/core/schedule';
import type {
  Account,
  AccountId,
  CashSource,
  DatedItem,
  DayRule,
  OpenItem,
  SegmentId,
  TaxScheme,
  Terms,
  WorkWeek,
} from '@/core/model';

/** A line of the plan with the terms that it follows. */
export type PlannedLine = {
  readonly key: string;
  readonly account: Account;
  readonly segment: SegmentId;
  readonly terms: Terms;
  /** Natural amounts of the planned periods; null in those that its budget does not plan. */
  readonly amounts: readonly (Minor | null)[];
  /** What the closed periods before them came to where this budget ruled them, as many as `ProjectionInput.past`; empty: nothing is known. */
  readonly past: readonly (Minor | null)[];
  /**
   * What rules that look ahead find: what closed periods came to (as many as `ProjectionInput.past`), whoever ruled them and on
   * whatever terms, then the planned periods and those after them, whoever plans them; where nobody does, the same period a
   * year earlier, else the last planned. Null for terms that do not look ahead.
   */
  readonly ahead: readonly Minor[] | null;
  /** The days that its method counts, such as paydays; the same object while they stay. */
  readonly own: DayRule | null;
};

/** What a row of a schedule posts after the start, as far as the months are planned by its budget. */
export type ScheduledRow = {
  readonly key: string;
  readonly source: CashSource;
  /** The same list while nothing of it changes. */
  readonly postings: readonly RowPosting[];
  /** Where a tax that is not had back belongs. */
  readonly cost: AccountId | null;
  /** What its events of closed periods still move after the start; the same list while nothing of it changes. */
  readonly pending?: readonly RowPosting[];
  /** The tax of what it bought in closed periods, and the day it is paid. */
  readonly pastOwes?: readonly NonNullable<RowPosting['owes']>[];
};

/** Closing balances that a budget says of an account, by planned period, debits positive; null where nothing is said. */
export type BalanceTarget = {
  readonly key: string;
  readonly account: AccountId;
  readonly kind: Account['kind'];
  readonly against: AccountId;
  readonly amounts: readonly (number | null)[];
};

/** An open item as it is expected: an invoice, a bill, or an order. */
export type ExpectedItem = {
  readonly key: string;
  readonly side: 'in' | 'out';
  readonly kind: OpenItem['kind'];
  /** The receivable or payable; of an order, the account of the line that it stands for; of a disposal, what is sold. */
  readonly account: AccountId | null;
  /** When it is (or was) invoiced, and when its money is expected. */
  readonly dated: DayNumber;
  readonly expected: DayNumber;
  /** What of it is open: positive as a rule, negative for a credit note. */
  readonly open: Minor;
  /** One that is held or left out moves no money, and stays open. */
  readonly counted: boolean;
  /** An order stands in place of the plan of its account and month, or on top of it. */
  readonly onTop: boolean;
  /** How it is settled where not as a whole on the day it is expected: paid, lost, or taken back from a tax. They come to what is open. */
  readonly shares?: readonly {
    readonly day: DayNumber;
    readonly amount: number;
    readonly to: 'bank' | 'lost' | 'tax';
    /** The tax in it that falls due as it is paid. */
    readonly owes: number;
  }[];
  readonly badDebt?: AccountId | null;
  /** The tax that it holds, where what is owed of it falls due with payments; and what of it does when it is paid as a whole. */
  readonly tax?: { readonly scheme: string; readonly owes: number } | null;
  /** It is part of a balance that a rule fixes, and has no day of its own. */
  readonly ruled?: boolean;
};

export type ProjectionInput = {
  /** The last day that the ledger is closed through: the projection begins on the day after. */
  readonly start: DayNumber;
  /** The planned periods after it, in time. */
  readonly periods: readonly Period[];
  /** Closed periods up to the start, in time: what was invoiced in them may not be paid yet. */
  readonly past: readonly Period[];
  /** How many periods a fiscal year has, by closed and planned period. */
  readonly inYear: readonly number[];
  /** What an account stood at at the end of a closed period, by its place in `past`, debits positive. */
  readonly stoodAt: (account: AccountId, place: number) => number;
  readonly workWeek: WorkWeek;
  readonly accounts: readonly Account[];
  /** What accounts stand at at the start, debits positive. */
  readonly opening: ReadonlyMap<AccountId, number>;
  readonly lines: readonly PlannedLine[];
  readonly scheduled: readonly ScheduledRow[];
  /** What stands owed at the start and is paid on a day, as far as nothing else says when. */
  readonly settled: readonly {
    readonly account: AccountId;
    readonly day: DayNumber;
    readonly source: CashSource;
  }[];
  readonly balances: readonly BalanceTarget[];
  readonly items: readonly ExpectedItem[];
  readonly dated: readonly (DatedItem & { readonly key: string })[];
  readonly taxes: readonly TaxScheme[];
  /** What the ledger has credited to a tax in a range of days, payments of returns apart: owed positive. */
  readonly taxCredits: (scheme: TaxScheme, from: DayNumber, to: DayNumber) => number;
  /** The bank account that pays by default. */
  readonly bank: AccountId | null;
  /** The last day on which what stands on an account without items or terms has run off. */
  readonly runOffEnd: (account: AccountId) => DayNumber;
  /** Accounts on which something was running off when a month was last closed, until a day that is still ahead. */
  readonly runsOff: readonly AccountId[];
};
