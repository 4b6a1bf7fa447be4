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
  /** Natural amounts of the planned periods; null where nothing is said. */
  readonly amounts: readonly (Minor | null)[];
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
};

export type ProjectionInput = {
  /** The last day that the ledger is closed through: the projection begins on the day after. */
  readonly start: DayNumber;
  /** The planned periods after it, in time. */
  readonly periods: readonly Period[];
  readonly workWeek: WorkWeek;
  readonly accounts: readonly Account[];
  /** What accounts stand at at the start, debits positive. */
  readonly opening: ReadonlyMap<AccountId, number>;
  readonly lines: readonly PlannedLine[];
  readonly scheduled: readonly ScheduledRow[];
  /** What stands owed at the start and is paid whole on a day. */
  readonly settled: readonly {
    readonly account: AccountId;
    readonly day: DayNumber;
    readonly source: CashSource;
  }[];
  readonly balances: readonly BalanceTarget[];
  readonly items: readonly ExpectedItem[];
  readonly dated: readonly (DatedItem & { readonly key: string })[];
  readonly taxes: readonly TaxScheme[];
  /** Of what stands owed of a tax at the start, what belongs to periods that are over, and to the running one. */
  readonly taxStood: (scheme: TaxScheme) => { readonly ended: number; readonly running: number };
  /** The bank account that pays by default. */
  readonly bank: AccountId | null;
  /** Days over which receivables and payables without items run off. */
  readonly runOff: number;
};
