import type { DayNumber } from '@/core/calendar';
import { evenPart } from '@/core/money';
import type { AccountId } from '@/core/model';

/**
 * Dated postings in columns. Amounts are debit-positive minor units; `month` is the place of the planned month that a
 * posting follows from, −1 for none; `from` the day of the invoice or other event that it settles.
 */
export type Columns = {
  readonly day: Int32Array;
  /** Place in the table of accounts. */
  readonly account: Int32Array;
  readonly amount: Float64Array;
  readonly month: Int16Array;
  /** What it is, and of which part of its line's terms (`whatIn`, `partIn`). */
  readonly what: Uint8Array;
  readonly from: Int32Array;
};

/** Postings of one cause: a stretch of columns that others share. Those of one event stand together and come to nothing. */
export type Postings = { readonly columns: Columns; readonly first: number; readonly count: number };

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

const CHUNK = 16_384;

const columnsOf = (size: number): Columns => ({
  day: new Int32Array(size),
  account: new Int32Array(size),
  amount: new Float64Array(size),
  month: new Int16Array(size),
  what: new Uint8Array(size),
  from: new Int32Array(size),
});

/** Gathers postings; one builder serves line after line, and gives each its stretch of a chunk. */
export class PostingBuilder {
  /** Nothing falls before this day: what would, falls on it, or is dropped. */
  earliest: DayNumber = -Infinity;
  /** How many were ever taken. */
  written = 0;
  private columns = columnsOf(0);
  private size = 0;
  private first = 0;
  private end = 0;

  /** `drops`: what would fall before the earliest day has happened, and is none of this builder's. */
  constructor(private readonly drops = false) {}

  /** Nothing is written for nothing. */
  add(day: DayNumber, account: number, amount: number, month: number, what: number, from: DayNumber): void {
    if (amount === 0 || (this.drops && day < this.earliest)) return;
    if (this.end === this.size) this.grow(1);
    const i = this.end++;
    const c = this.columns;
    c.day[i] = day < this.earliest ? this.earliest : day;
    c.account[i] = account;
    c.amount[i] = amount;
    c.month[i] = month;
    c.what[i] = what;
    c.from[i] = from;
  }

  /**
   * Two amounts (of a plan and its tax) in equal parts on days of planned periods: on `to`, and against it on `from`. The same as `add` time
   * after time, which a thousand lines on every working day make too many of.
   */
  spread(
    days: readonly DayNumber[],
    to: number,
    from: number,
    total: number,
    extra: number,
    month: number,
    what: number,
  ): void {
    const n = days.length;
    if (this.end + 2 * n > this.size) this.grow(2 * n);
    const { day: dayOf, account, amount, month: monthOf, what: whatOf, from: since } = this.columns;
    let i = this.end;
    // Equal parts are two amounts at most, the larger ones first.
    const [most, least] = [evenPart(total, n, 0), evenPart(total, n, n - 1)];
    const [mostExtra, leastExtra] = [evenPart(extra, n, 0), evenPart(extra, n, n - 1)];
    const larger = Math.abs(total - least * n);
    const largerExtra = Math.abs(extra - leastExtra * n);
    for (let k = 0; k < n; k++) {
      const part = (k < larger ? most : least) + (k < largerExtra ? mostExtra : leastExtra);
      if (part === 0) continue;
      const on = days[k]!;
      dayOf[i] = dayOf[i + 1] = on;
      account[i] = to;
      account[i + 1] = from;
      amount[i] = part;
      amount[i + 1] = -part;
      monthOf[i] = monthOf[i + 1] = month;
      whatOf[i] = whatOf[i + 1] = what;
      since[i] = since[i + 1] = on;
      i += 2;
    }
    this.end = i;
  }

  /** What was gathered since the last time. */
  take(): Postings {
    const { columns, first, end } = this;
    this.first = end;
    this.written += end - first;
    return { columns, first, count: end - first };
  }

  /** A new chunk: what is gathered moves into it, what was taken stays where it is. */
  private grow(more: number): void {
    const { columns: old, first, end } = this;
    this.size = Math.max(CHUNK, 2 * (end - first + more));
    this.columns = columnsOf(this.size);
    for (const name of Object.keys(old) as (keyof Columns)[])
      this.columns[name].set(old[name].subarray(first, end) as never);
    this.first = 0;
    this.end = end - first;
  }
}

export const NO_POSTINGS: Postings = { columns: columnsOf(0), first: 0, count: 0 };
