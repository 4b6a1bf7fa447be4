import { isJournal, type Change } from '@/core/model';

/*
 * How a book lies in the browser's storage. Every part has a place of its own and is written once: a save never
 * touches what an earlier one, or another tab, wrote. In the order in which they are written:
 *
 *   block:BOOK:BLOCK           ledger entries of one source
 *   journal:BOOK:WRITER:N      a sealed piece of the journal
 *   whole:BOOK:WRITER:N        the book whole
 *   save:BOOK:EPOCH:SEQ:WRITER what a save leaves: it names its parts and carries the journal's tail
 *   owner:BOOK                 the epoch of whoever opened it for change last
 *   gone:BOOK                  the book was deleted: whatever of it still arrives does not count
 *
 * Up to the third form a book had two slots in turn (`book:BOOK:0` and `:1`), numbered places for whole books and
 * pieces, and blocks outside any book (`block:BLOCK`). Those still open; the first two saves take their place.
 */

/** Sealed pieces of one writer, by how many of them there are; '' wrote them in the older form. */
export type Run = readonly [writer: string, count: number];

/** The book written whole, and how many changes of its journal are in it. */
export type Whole = { readonly book: unknown; readonly changes: number };

/**
 * What a save leaves: the book as it was last written whole, brought through the changes after it. `wholes` names that
 * place and, behind it, an earlier one, from which the same journal leads to the same book when the later is spoiled.
 */
export type SaveRecord = {
  readonly savedAt: string;
  readonly name: string;
  readonly wholes: readonly string[];
  readonly runs: readonly Run[];
  readonly tail: readonly Change[];
};

/** A save found in storage, of whichever form. A later epoch wins whatever the number: its writer took the book over. */
export type Found = {
  readonly key: string;
  readonly epoch: number;
  readonly seq: number;
  readonly record: (Omit<SaveRecord, 'wholes'> & { readonly wholes: readonly (string | Whole)[] }) | null;
};

export const saveKey = (book: string, epoch: number, seq: number, writer: string): string =>
  `save:${book}:${epoch}:${seq}:${writer}`;
export const wholeKey = (book: string, writer: string, n: number): string => `whole:${book}:${writer}:${n}`;
export const blockKey = (book: string, block: string): string => `block:${book}:${block}`;
export const ownerKey = (book: string): string => `owner:${book}`;
export const goneKey = (book: string): string => `gone:${book}`;
/** Where blocks lay that no book owned. */
export const oldBlockKey = (block: string): string => `block:${block}`;
const pieceKey = (book: string, writer: string, n: number): string =>
  writer === '' ? `journal:${book}:${n}` : `journal:${book}:${writer}:${n}`;
export const pieceKeys = (book: string, runs: readonly Run[]): string[] =>
  runs.flatMap(([writer, count]) => Array.from({ length: count }, (_, n) => pieceKey(book, writer, n)));

const SAVE = /^save:([^:]+):(\d{1,15}):(\d{1,15}):([^:]+)$/;
const SLOT = /^book:([^:]+):([01])$/;
const OLD_BLOCK = /^block:[^:]+$/;

/** The book that a key belongs to as one of its saves; null for any other key. */
export const bookOfSave = (key: string): string | null => (SAVE.exec(key) ?? SLOT.exec(key))?.[1] ?? null;
/** The epoch of a save, 0 for one of the older form. */
export const epochOf = (key: string): number => Number(SAVE.exec(key)?.[2] ?? 0);
export const isOldSlot = (key: string): boolean => SLOT.test(key);
export const isOldBlock = (key: string): boolean => OLD_BLOCK.test(key);
/** Whether a key is of a book, whatever part of it. */
export const isOf = (book: string, key: string): boolean =>
  /^(save|book|whole|journal|block|owner|feedlog):/.test(key) &&
  key.split(':')[1] === book &&
  !isOldBlock(key);

type Bag = Record<string, unknown>;
const isBag = (v: unknown): v is Bag => typeof v === 'object' && v !== null && !Array.isArray(v);
const isCount = (v: unknown): v is number => Number.isSafeInteger(v) && (v as number) >= 0;
/** No book has more pieces: a count beyond is a spoiled one, and would be waited for without end. */
const MOST_PIECES = 1_000_000;

const isRuns = (v: unknown): v is readonly Run[] =>
  Array.isArray(v) &&
  v.every((r) => Array.isArray(r) && typeof r[0] === 'string' && isCount(r[1]) && r[1] <= MOST_PIECES) &&
  v.reduce((n: number, r: Run) => n + r[1], 0) <= MOST_PIECES;

/** Reads what stands at a key; `record` is null where it is no whole save. */
export function readSave(key: string, value: unknown): Found {
  const named = SAVE.exec(key);
  if (named) {
    const [, book, epoch, seq] = named;
    const ok =
      isBag(value) &&
      typeof value.savedAt === 'string' &&
      typeof value.name === 'string' &&
      Array.isArray(value.wholes) &&
      value.wholes.length > 0 &&
      value.wholes.every((w) => typeof w === 'string' && w.startsWith(`whole:${book}:`)) &&
      isRuns(value.runs) &&
      isJournal(value.tail);
    return {
      key,
      epoch: Number(epoch),
      seq: Number(seq),
      record: ok ? (value as unknown as SaveRecord) : null,
    };
  }
  const broken: Found = { key, epoch: 0, seq: 0, record: null };
  const book = SLOT.exec(key)?.[1];
  if (!book || !isBag(value) || !isCount(value.seq)) return broken;
  const { seq, savedAt, sealed, tail } = value;
  const kept = isBag(value.book) ? value.book : null;
  const name = kept ? kept.name : value.name;
  if (
    typeof savedAt !== 'string' ||
    typeof name !== 'string' ||
    !isCount(sealed) ||
    sealed > MOST_PIECES ||
    !isJournal(tail) ||
    (!kept && !isCount(value.whole))
  )
    return { ...broken, seq };
  return {
    key,
    epoch: 0,
    seq,
    record: {
      savedAt,
      name,
      runs: [['', sealed]],
      tail,
      // The first form had the book in the slot itself, as it was after all changes.
      wholes: [kept ? { book: kept, changes: Infinity } : `whole:${book}:${value.whole as number}`],
    },
  };
}

export const isWhole = (value: unknown): value is Whole =>
  isBag(value) && isBag(value.book) && isCount(value.changes);

/** Newest first. */
export const newestFirst = (a: Found, b: Found): number => b.epoch - a.epoch || b.seq - a.seq;
