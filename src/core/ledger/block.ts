import type { Minor } from '@/core/money';
import type { AccountId } from '@/core/model';
import { fromDayNumber, type Day, type DayNumber } from '@/core/calendar';

/**
 * The entries of one source in columns, so that a million of them stay small. A block never changes: taking a
 * source away leaves the block for undo. Texts are kept once and pointed at; text 0 is empty.
 */
export type LedgerBlock = {
  readonly id: string;
  readonly count: number;
  readonly day: Int32Array;
  /** Place in `accounts`. */
  readonly account: Int32Array;
  /** Minor units, debits positive. */
  readonly amount: Float64Array;
  /** Row of the file (from 1) that the entry came from. */
  readonly row: Int32Array;
  readonly counterparty: Int32Array;
  readonly reference: Int32Array;
  readonly memo: Int32Array;
  readonly accounts: readonly AccountId[];
  readonly texts: readonly string[];
};

export type Entry = {
  readonly block: string;
  readonly day: Day;
  readonly account: AccountId;
  /** Debits positive. */
  readonly amount: Minor;
  readonly row: number;
  readonly counterparty: string;
  readonly reference: string;
  readonly memo: string;
};

/** The i-th entry of a block, written out. */
export function entryAt(block: LedgerBlock, i: number): Entry {
  return {
    block: block.id,
    day: fromDayNumber(block.day[i]!),
    account: block.accounts[block.account[i]!]!,
    amount: block.amount[i]! as Minor,
    row: block.row[i]!,
    counterparty: block.texts[block.counterparty[i]!]!,
    reference: block.texts[block.reference[i]!]!,
    memo: block.texts[block.memo[i]!]!,
  };
}

/** Gathers entries and gives the block; columns grow by doubling. */
export class BlockBuilder {
  private count = 0;
  private capacity: number;
  private day: Int32Array<ArrayBuffer>;
  private account: Int32Array<ArrayBuffer>;
  private amount: Float64Array<ArrayBuffer>;
  private row: Int32Array<ArrayBuffer>;
  private counterparty: Int32Array<ArrayBuffer>;
  private reference: Int32Array<ArrayBuffer>;
  private memo: Int32Array<ArrayBuffer>;
  private readonly texts: string[] = [''];
  private readonly places = new Map<string, number>([['', 0]]);

  constructor(capacity = 1024) {
    this.capacity = Math.max(16, capacity);
    this.day = new Int32Array(this.capacity);
    this.account = new Int32Array(this.capacity);
    this.amount = new Float64Array(this.capacity);
    this.row = new Int32Array(this.capacity);
    this.counterparty = new Int32Array(this.capacity);
    this.reference = new Int32Array(this.capacity);
    this.memo = new Int32Array(this.capacity);
  }

  get size(): number {
    return this.count;
  }

  /** The place of a text, kept once. Neighboring rows mostly repeat one another, so the last place is tried first. */
  text(value: string, last = 0): number {
    if (value === '') return 0;
    if (value === this.texts[last]) return last;
    let place = this.places.get(value);
    if (place === undefined) {
      place = this.texts.length;
      this.texts.push(value);
      this.places.set(value, place);
    }
    return place;
  }

  add(
    day: DayNumber,
    account: number,
    amount: number,
    row: number,
    counterparty = 0,
    reference = 0,
    memo = 0,
  ): void {
    if (this.count === this.capacity) this.grow();
    const i = this.count++;
    this.day[i] = day;
    this.account[i] = account;
    this.amount[i] = amount;
    this.row[i] = row;
    this.counterparty[i] = counterparty;
    this.reference[i] = reference;
    this.memo[i] = memo;
  }

  build(id: string, accounts: readonly AccountId[]): LedgerBlock {
    const n = this.count;
    return {
      id,
      count: n,
      day: this.day.slice(0, n),
      account: this.account.slice(0, n),
      amount: this.amount.slice(0, n),
      row: this.row.slice(0, n),
      counterparty: this.counterparty.slice(0, n),
      reference: this.reference.slice(0, n),
      memo: this.memo.slice(0, n),
      accounts,
      texts: this.texts,
    };
  }

  private grow(): void {
    this.capacity *= 2;
    const int = (old: Int32Array): Int32Array<ArrayBuffer> => {
      const next = new Int32Array(this.capacity);
      next.set(old);
      return next;
    };
    this.day = int(this.day);
    this.account = int(this.account);
    this.row = int(this.row);
    this.counterparty = int(this.counterparty);
    this.reference = int(this.reference);
    this.memo = int(this.memo);
    const amount = new Float64Array(this.capacity);
    amount.set(this.amount);
    this.amount = amount;
  }
}
