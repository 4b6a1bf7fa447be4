import type { NumberFormat } from '@/core/money';
import type { Day } from '@/core/calendar';
import type { DateOrder } from './dates';

/** How the ledger's figures stand in a file: accounts with months across, one row an entry, or trial balances. */
export type Shape = 'months' | 'entries' | 'balances';

/** What a column of an entries file holds. Any number of columns may be segments. */
export type EntryRole =
  | 'date'
  | 'account'
  | 'code'
  | 'name'
  | 'type'
  | 'debit'
  | 'credit'
  | 'amount'
  | 'mark'
  | 'balance'
  | 'counterparty'
  | 'reference'
  | 'memo'
  | 'segment'
  | 'ignore';

/** What a column of a months-across file holds; months carry the day on which their amounts are put. */
export type MonthsRole =
  | { readonly as: 'account' | 'code' | 'name' | 'total' | 'ignore' }
  | { readonly as: 'month'; readonly day: Day };

/** What a column of trial balances holds; figures carry the day of their trial balance, or null for their sheet's. */
export type BalanceRole =
  | { readonly as: 'account' | 'code' | 'name' | 'type' | 'ignore' }
  | { readonly as: 'debit' | 'credit' | 'balance'; readonly day: Day | null };

/** A sheet of trial balances and the day it is of; null until the person says. */
export type BalanceSheetOf = { readonly sheet: number; readonly day: Day | null };

/** How the file signs its amounts. Natural: income and costs both positive. */
export type SignRule = 'natural' | 'profitPositive' | 'debitPositive' | 'creditPositive';

/** Everything needed to read the file: the program's guess, corrected by the person. */
export type Mapping = {
  readonly delimiter: string | null;
  readonly sheet: number;
  /** Index of the header row; rows above it are titles. −1 when the file has no header. */
  readonly headerRow: number;
  readonly numbers: NumberFormat;
  readonly sign: SignRule;
} & (
  | { readonly shape: 'months'; readonly columns: readonly MonthsRole[] }
  | {
      readonly shape: 'entries';
      readonly columns: readonly EntryRole[];
      readonly dates: DateOrder;
      /** Where the account stands: in columns, or as a heading row above its entries. */
      readonly accountIn: 'columns' | 'headings';
      /** Rows without a date belong to the dated row above: only the first row of each entry has it. */
      readonly carryDate: boolean;
    }
  | {
      readonly shape: 'balances';
      readonly columns: readonly BalanceRole[];
      readonly sheets: readonly BalanceSheetOf[];
      /** Balances since the fiscal year's start (profit and loss) or ever (balance sheet), not of the period alone. */
      readonly cumulative: boolean;
    }
);

export type MonthsMapping = Extract<Mapping, { shape: 'months' }>;
export type EntriesMapping = Extract<Mapping, { shape: 'entries' }>;
export type BalancesMapping = Extract<Mapping, { shape: 'balances' }>;

/** What the program is not sure of and the person should look at. */
export type Doubt =
  'shape' | 'numbers' | 'dates' | 'year' | 'columns' | 'sign' | 'cumulative' | 'day' | 'comparative';

export type Guess = {
  readonly mapping: Mapping;
  readonly doubts: readonly Doubt[];
  /** Columns whose heading could mean what another one holds. */
  readonly unsure?: readonly number[];
  /** The earlier source whose mapping was taken over; null for a fresh guess. */
  readonly keptFrom: string | null;
};
