import { WHAT } from '@/core/schedule';
import type { DayNumber, Period } from '@/core/calendar';
import type { TermsKind, TermsOf } from '@/core/model';
import type { Days } from '@/core/schedule';
import { type PostingBuilder } from './postings';

/** Accounts that postings go through, by their places in the table of accounts. */
export type Roles = {
  readonly line: number;
  readonly bank: number;
  /** Receivable of income, payable of costs. */
  readonly open: number;
  readonly badDebt: number;
  readonly inventory: number;
  /** What is paid or received before its time. */
  readonly advance: number;
  readonly withheld: number;
  /** The other account of a line without money. */
  readonly against: number;
  /** Tax owed. */
  readonly tax: number;
};

/** A part of a line's months under one rule of terms. */
export type PartContext = {
  readonly periods: readonly Period[];
  readonly days: Days;
  /** First and last day of each period. */
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  /** What each month does to money, in minor units: income positive, costs negative; credit notes the other way. */
  readonly money: readonly number[];
  /** The tax of each month, of the same sign: collected positive, paid to others negative. */
  readonly tax: readonly number[];
  /** The tax falls due with the payment, not with the invoice. */
  readonly taxOnPayment: boolean;
  /** The days that the line's own method counts in the i-th month; null where it counts none. */
  readonly own: (i: number) => readonly DayNumber[] | null;
  /** What of the stock at the start is this line's, in minor units. */
  readonly stock: number;
  readonly roles: Roles;
  readonly out: PostingBuilder;
  /** Tax that falls into the return of a day: owed positive, to be had back negative. */
  readonly owe: (day: DayNumber, amount: number) => void;
};

/** How one kind of terms turns planned months into postings. */
export type TermsRuleOf<K extends TermsKind> = {
  readonly post: (rule: TermsOf<K>, context: PartContext) => void;
};

/** Two postings of one event: money of the one side for the other. `money` is debit-positive on `to`; `what`: of `WHAT`. */
export function swap(
  { out }: PartContext,
  day: DayNumber,
  to: number,
  from: number,
  money: number,
  month: number,
  what: number,
  since: DayNumber = day,
): void {
  out.add(day, to, money, month, what, since);
  out.add(day, from, -money, month, what, since);
}

/** The same with a tax on top: `to` takes both, and what is owed of the tax stands against it. */
export function swapTaxed(
  { out, roles }: PartContext,
  day: DayNumber,
  to: number,
  from: number,
  money: number,
  tax: number,
  month: number,
  what: number,
  since: DayNumber = day,
): void {
  out.add(day, to, money + tax, month, what, since);
  out.add(day, from, -money, month, what, since);
  out.add(day, roles.tax, -tax, month, WHAT.tax, since);
}
