import type { NumberFormat } from '@/core/money';
import type { DateOrder } from './dates';

export type Shape = 'months' | 'entries';

/** What a column of an entries file holds. */
export type EntryRole =
  | 'date'
  | 'account'
  | 'code'
  | 'name'
  | 'type'
  | 'debit'
  | 'credit'
  | 'amount'
  | 'counterparty'
  | 'reference'
  | 'memo'
  | 'ignore';

/** What a column of a months-across file holds; months carry which one. */
export type MonthsRole =
  | { readonly as: 'account' | 'code' | 'name' | 'total' | 'ignore' }
  | { readonly as: 'month'; readonly year: number; readonly month: number };

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
  | { readonly shape: 'entries'; readonly columns: readonly EntryRole[]; readonly dates: DateOrder }
);

/** What the program is not sure of and the person should look at. */
export type Doubt = 'shape' | 'numbers' | 'dates' | 'year' | 'columns' | 'sign';

export type Guess = { readonly mapping: Mapping; readonly doubts: readonly Doubt[] };
