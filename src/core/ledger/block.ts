import { MOST_AMOUNT, type Minor } from '@/core/money';
import type { AccountId } from '@/core/model';
import { fromDayNumber, toDayNumber, type Day, type DayNumber } from '@/core/calendar';
import { cut, packTexts, textAt, TextPacker, type Texts } from './texts';

/** What an entry is to the year: activity counts in its month; openings and year-end closings never do. */
export const MARKS = ['activity', 'opening', 'closing'] as const;
export type Mark = (typeof MARKS)[number];
export const ACTIVITY = 0;
export const OPENING = 1;
export const CLOSING = 2;

/** One column of segments as the file has it: its heading, its values, and for each entry the place of its value. */
export type SegmentColumn = {
  readonly name: string;
  /** Value 0 is empty: the entry says nothing. */
  readonly values: readonly string[];
  readonly place: Int32Array;
};

/**
 * The entries of one source in columns, so that a million of them stay small. A block never changes: taking a
 * source away leaves the block for undo.
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
  /** Places in `texts`. */
  readonly counterparty: Int32Array;
  readonly reference: Int32Array;
  readonly memo: Int32Array;
  /** Place in `MARKS`. */
  readonly mark: Uint8Array;
  readonly segments: readonly SegmentColumn[];
  readonly accounts: readonly AccountId[];
  readonly texts: Texts;
};

export type Entry = {
  readonly block: string;
  readonly place: number;
  readonly day: Day;
  readonly account: AccountId;
  /** Debits positive. */
  readonly amount: Minor;
  readonly row: number;
  readonly counterparty: string;
  readonly reference: string;
  readonly memo: string;
  readonly mark: Mark;
  /** Heading and value of each segment column that says something of it. */
  readonly segments: readonly (readonly [column: string, value: string])[];
};

/** The i-th entry of a block, written out. */
export function entryAt(block: LedgerBlock, i: number): Entry {
  return {
    block: block.id,
    place: i,
    day: fromDayNumber(block.day[i]!),
    account: block.accounts[block.account[i]!]!,
    amount: block.amount[i]! as Minor,
    row: block.row[i]!,
    counterparty: textAt(block.texts, block.counterparty[i]!),
    reference: textAt(block.texts, block.reference[i]!),
    memo: textAt(block.texts, block.memo[i]!),
    mark: MARKS[block.mark[i]!]!,
    segments: block.segments.flatMap((s) => {
      const value = s.values[s.place[i]!]!;
      return value === '' ? [] : [[s.name, value] as const];
    }),
  };
}

/** All buffers of a block, so that it passes to another thread without a copy. */
export const buffersOf = (block: LedgerBlock): ArrayBuffer[] =>
  [
    block.day,
    block.account,
    block.amount,
    block.row,
    block.counterparty,
    block.reference,
    block.memo,
    block.mark,
    block.texts.bytes,
    block.texts.ends,
    ...block.segments.map((s) => s.place),
  ].map((c) => c.buffer as ArrayBuffer);

const INTS = ['day', 'account', 'row', 'counterparty', 'reference', 'memo'] as const;

/** Days that a ledger may have: 1900-01-01 to 2199-12-31, the years that a calendar knows. */
const [FIRST_DAY, LAST_DAY] = [toDayNumber('1900-01-01' as Day), toDayNumber('2199-12-31' as Day)];

/** A block whose parts are of any kind, as storage or a file gives it. */
type Loose = { readonly [K in keyof LedgerBlock]?: unknown };

/**
 * A block from storage or a file, checked so that every place in it leads somewhere and every day and amount is one;
 * null when it is not. One that was kept before entries had marks and segments, and texts were a list, is brought to
 * the present form; a present one stays the object that it is.
 */
export function openBlock(kept: unknown): LedgerBlock | null {
  if (typeof kept !== 'object' || kept === null) return null;
  let block = kept as Loose;
  const { id, count, accounts } = block;
  if (typeof id !== 'string' || !Number.isSafeInteger(count) || (count as number) < 0) return null;
  const n = count as number;
  if (isTextList(block.texts)) block = { ...block, texts: packTexts(block.texts) };
  block = { ...block, mark: block.mark ?? new Uint8Array(n), segments: block.segments ?? [] };
  const texts = block.texts as Partial<Texts> | undefined;
  if (!isColumn(texts?.bytes, 'Uint8Array') || !isColumn(texts?.ends, 'Uint32Array')) return null;
  if (!rises(texts!.ends!, texts!.bytes!.length)) return null;
  if (!isTextList(accounts) || !Array.isArray(block.segments)) return null;
  if (!INTS.every((name) => isColumn(block[name], 'Int32Array', n))) return null;
  const { day, account, amount, counterparty, reference, memo, mark } = block as LedgerBlock;
  const sound =
    isColumn(amount, 'Float64Array', n) &&
    amount.every((a) => Number.isInteger(a) && Math.abs(a) <= MOST_AMOUNT) &&
    isColumn(mark, 'Uint8Array', n) &&
    within(mark, 0, MARKS.length - 1) &&
    within(day, FIRST_DAY, LAST_DAY) &&
    within(account, 0, accounts.length - 1) &&
    [counterparty, reference, memo].every((c) => within(c, 0, texts!.ends!.length - 1)) &&
    (block.segments as Partial<SegmentColumn>[]).every(
      (s) =>
        typeof s?.name === 'string' &&
        isTextList(s.values) &&
        isColumn(s.place, 'Int32Array', n) &&
        within(s.place!, 0, s.values.length - 1),
    );
  if (!sound) return null;
  const present = (['texts', 'mark', 'segments'] as const).every((k) => block[k] === (kept as Loose)[k]);
  return present ? (kept as LedgerBlock) : (block as LedgerBlock);
}

/** By its tag, not by its class: what another thread or frame made has a class of its own. */
const isColumn = (value: unknown, tag: string, length?: number): boolean =>
  Object.prototype.toString.call(value) === `[object ${tag}]` &&
  (length === undefined || (value as { length: number }).length === length);

const isTextList = (value: unknown): value is string[] =>
  Array.isArray(value) && value.every((v) => typeof v === 'string');

function within(column: Int32Array | Uint8Array, low: number, high: number): boolean {
  for (let i = 0; i < column.length; i++) if (column[i]! < low || column[i]! > high) return false;
  return true;
}

/** Ends of texts never go back and stay within the bytes; the first text is empty. */
function rises(ends: Uint32Array, most: number): boolean {
  if (ends.length === 0 || ends[0] !== 0) return false;
  for (let i = 1; i < ends.length; i++) if (ends[i]! < ends[i - 1]!) return false;
  return ends[ends.length - 1]! <= most;
}

type Ints = Record<(typeof INTS)[number], Int32Array>;

/** Gathers entries and gives the block; columns grow by doubling. */
export class BlockBuilder {
  private count = 0;
  private capacity: number;
  private ints: Ints;
  private amount: Float64Array;
  private mark: Uint8Array;
  private readonly packer: TextPacker;
  private readonly segments: {
    readonly name: string;
    readonly values: string[];
    readonly places: Map<string, number>;
    place: Int32Array;
    last: number;
  }[];

  constructor(capacity = 1024, segmentNames: readonly string[] = []) {
    this.capacity = Math.max(16, capacity);
    this.packer = new TextPacker(capacity);
    const int = () => new Int32Array(this.capacity);
    this.ints = {
      day: int(),
      account: int(),
      row: int(),
      counterparty: int(),
      reference: int(),
      memo: int(),
    };
    this.amount = new Float64Array(this.capacity);
    this.mark = new Uint8Array(this.capacity);
    this.segments = segmentNames.map((name) => ({
      name,
      values: [''],
      places: new Map([['', 0]]),
      place: int(),
      last: 0,
    }));
  }

  /** The place of a text that hardly comes again: a reference. */
  once(value: string): number {
    return value === '' ? 0 : this.packer.append(value);
  }

  /** The place of a text. */
  text(value: string): number {
    return this.packer.place(value);
  }

  add(
    day: DayNumber,
    account: number,
    amount: number,
    row: number,
    counterparty = 0,
    reference = 0,
    memo = 0,
    mark = ACTIVITY,
  ): void {
    if (this.count === this.capacity) this.grow();
    const i = this.count++;
    const { ints } = this;
    ints.day[i] = day;
    ints.account[i] = account;
    this.amount[i] = amount;
    ints.row[i] = row;
    ints.counterparty[i] = counterparty;
    ints.reference[i] = reference;
    ints.memo[i] = memo;
    this.mark[i] = mark;
  }

  /** Puts the entry that was added last into a segment of the n-th segment column. */
  segment(n: number, value: string): void {
    if (value === '') return;
    const column = this.segments[n]!;
    // Neighboring rows mostly stand in the same segment.
    if (value === column.values[column.last]) {
      column.place[this.count - 1] = column.last;
      return;
    }
    let place = column.places.get(value);
    if (place === undefined) {
      place = column.values.length;
      column.values.push(value);
      column.places.set(value, place);
    }
    column.place[this.count - 1] = column.last = place;
  }

  build(id: string, accounts: readonly AccountId[]): LedgerBlock {
    const n = this.count;
    const { ints } = this;
    return {
      id,
      count: n,
      day: cut(ints.day, n),
      account: cut(ints.account, n),
      amount: cut(this.amount, n),
      row: cut(ints.row, n),
      counterparty: cut(ints.counterparty, n),
      reference: cut(ints.reference, n),
      memo: cut(ints.memo, n),
      mark: cut(this.mark, n),
      segments: this.segments.map((s) => ({ name: s.name, values: s.values, place: cut(s.place, n) })),
      accounts,
      texts: this.packer.pack(),
    };
  }

  private grow(): void {
    this.capacity *= 2;
    const int = (old: Int32Array): Int32Array => {
      const next = new Int32Array(this.capacity);
      next.set(old);
      return next;
    };
    for (const name of INTS) this.ints[name] = int(this.ints[name]);
    for (const s of this.segments) s.place = int(s.place);
    const amount = new Float64Array(this.capacity);
    amount.set(this.amount);
    this.amount = amount;
    const mark = new Uint8Array(this.capacity);
    mark.set(this.mark);
    this.mark = mark;
  }
}
