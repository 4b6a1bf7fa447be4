import { ofPart, WHAT } from '@/core/schedule';
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

/** A part of a line's months under one rule of terms. Places are of closed periods first, then of the planned ones. */
export type PartContext = {
  /** Its place in the line's terms. */
  readonly part: number;
  readonly periods: readonly Period[];
  readonly days: Days;
  /** First and last day of each period. */
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  /** How many periods the fiscal year of a period has. */
  readonly inYear: (place: number) => number;
  /** The place of the first planned period. */
  readonly first: number;
  /** The places whose events are posted now: planned ones, or closed ones for what they leave to come. */
  readonly from: number;
  readonly until: number;
  /** What each month does to money, in minor units: income positive, costs negative; credit notes the other way. */
  readonly money: readonly number[];
  /** The tax of each month, of the same sign: collected positive, paid to others negative. */
  readonly tax: readonly number[];
  /** The tax of an amount, of its sign. */
  readonly taxOf: (amount: number) => number;
  /** Whether the line's budget plans a period. */
  readonly plans: (place: number) => boolean;
  /** The tax falls due with the payment, not with the invoice. */
  readonly taxOnPayment: boolean;
  /** The days that the line's own method counts in a period; null where it counts none. */
  readonly own: (place: number) => readonly DayNumber[] | null;
  /** What a rule that looks ahead finds in a period, those after the plan's end included; of the sign of `money`. */
  readonly ahead: (place: number) => number;
  /** What is reckoned of an account as a whole and falls to this part, by period; null where the rule has none such. */
  readonly shared: Shared | null;
  readonly roles: Roles;
  readonly out: PostingBuilder;
  /** What closed periods leave to come. */
  readonly pending: PostingBuilder;
  /** What planned periods had paid before the start. */
  readonly early: PostingBuilder;
  /** The last closed day. */
  readonly start: DayNumber;
  /** Tax that falls into the return of a day: owed positive, to be had back negative. */
  readonly owe: (day: DayNumber, amount: number, place: number) => void;
};

/** What a rule that fixes a balance gives a part, by place: money that is settled, or what is bought; and the tax in it. */
export type Shared = {
  readonly amount: readonly number[];
  readonly tax: readonly number[];
  /** The tax in what of the balance at the start is this part's. */
  readonly taxStood: number;
};

/** How one kind of terms turns planned months into postings. */
export type TermsRuleOf<K extends TermsKind> = {
  readonly post: (rule: TermsOf<K>, context: PartContext) => void;
};

/**
 * Where the postings of a period's events go, and what month they say: those of closed periods are pending, of no month;
 * what is paid before its own period begins and before the start has been paid, if all went as planned.
 */
const placed = ({ first, start, out, pending, early }: PartContext, place: number, day: DayNumber) =>
  place < first ? ([pending, -1] as const) : ([day <= start ? early : out, place - first] as const);

/** Two postings of one event: money of the one side for the other. `money` is debit-positive on `to`; `what`: of `WHAT`. */
export function swap(
  c: PartContext,
  day: DayNumber,
  to: number,
  from: number,
  money: number,
  place: number,
  what: number,
  since: DayNumber = day,
): void {
  const [out, month] = placed(c, place, day);
  const code = ofPart(what, c.part);
  out.add(day, to, money, month, code, since);
  out.add(day, from, -money, month, code, since);
}

/** The same with a tax on top: `to` takes both, and what is owed of the tax stands against it. */
export function swapTaxed(
  c: PartContext,
  day: DayNumber,
  to: number,
  from: number,
  money: number,
  tax: number,
  place: number,
  what: number,
  since: DayNumber = day,
): void {
  const [out, month] = placed(c, place, day);
  const code = ofPart(what, c.part);
  out.add(day, to, money + tax, month, code, since);
  out.add(day, from, -money, month, code, since);
  out.add(day, c.roles.tax, -tax, month, ofPart(WHAT.tax, c.part), since);
}
