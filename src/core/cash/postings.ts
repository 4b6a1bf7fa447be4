import type { DayNumber } from '@/core/calendar';
import type { AccountId } from '@/core/model';

/** What a posting is to the event that it belongs to. */
export const WHATS = [
  'accrual',
  'invoice',
  'payment',
  'tax',
  'badDebt',
  'stock',
  'advance',
  'item',
  'order',
  'dated',
  'drawing',
  'repayment',
  'interest',
  'opening',
] as const;
export type What = (typeof WHATS)[number];
const placeOfWhat = Object.fromEntries(WHATS.map((w, i) => [w, i])) as Record<What, number>;
export const whatPlace = (what: What): number => placeOfWhat[what];

/**
 * Dated postings in columns. Those of one event stand together and come to nothing. Amounts are debit-positive minor units;
 * `month` is the place of the planned month that a posting follows from, −1 for none; `from` the day of the invoice or
 * other event that it settles.
 */
export type Postings = {
  readonly count: number;
  readonly day: Int32Array;
  /** Place in the table of accounts. */
  readonly account: Int32Array;
  readonly amount: Float64Array;
  readonly month: Int16Array;
  /** Place in `WHATS`. */
  readonly what: Uint8Array;
  readonly from: Int32Array;
};

/** Account ids as small numbers, for columns. */
export class AccountTable {
  readonly ids: AccountId[] = [];
  private readonly places = new Map<AccountId, number>();

  of(id: AccountId): number {
    let place = this.places.get(id);
    if (place === undefined) {
      place = this.ids.length;
      this.ids.push(id);
      this.places.set(id, place);
    }
    return place;
  }
}

/** Gathers postings; one builder serves line after line. */
export class PostingBuilder {
  /** Nothing falls before this day: what would, falls on it. */
  earliest: DayNumber = -Infinity;
  private count = 0;
  private size = 1024;
  private day = new Int32Array(1024);
  private account = new Int32Array(1024);
  private amount = new Float64Array(1024);
  private month = new Int16Array(1024);
  private what = new Uint8Array(1024);
  private from = new Int32Array(1024);

  /** Nothing is written for nothing. */
  add(day: DayNumber, account: number, amount: number, month: number, what: number, from: DayNumber): void {
    if (amount === 0) return;
    if (this.count === this.size) this.grow();
    const i = this.count++;
    this.day[i] = day < this.earliest ? this.earliest : day;
    this.account[i] = account;
    this.amount[i] = amount;
    this.month[i] = month;
    this.what[i] = what;
    this.from[i] = from;
  }

  /** What was gathered, and nothing is left of it here. */
  take(): Postings {
    const n = this.count;
    this.count = 0;
    return {
      count: n,
      day: this.day.slice(0, n),
      account: this.account.slice(0, n),
      amount: this.amount.slice(0, n),
      month: this.month.slice(0, n),
      what: this.what.slice(0, n),
      from: this.from.slice(0, n),
    };
  }

  private grow(): void {
    this.size *= 2;
    const larger = <T extends Int32Array | Float64Array | Int16Array | Uint8Array>(old: T, next: T): T => {
      next.set(old as never);
      return next;
    };
    this.day = larger(this.day, new Int32Array(this.size));
    this.account = larger(this.account, new Int32Array(this.size));
    this.amount = larger(this.amount, new Float64Array(this.size));
    this.month = larger(this.month, new Int16Array(this.size));
    this.what = larger(this.what, new Uint8Array(this.size));
    this.from = larger(this.from, new Int32Array(this.size));
  }
}
