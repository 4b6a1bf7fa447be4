import type { KeyValue } from '@/platform/keyValue';
import { openBlock, type LedgerBlock } from '@/core/ledger';
import {
  BOOK_VERSION,
  openBook,
  openHistory,
  replay,
  type Book,
  type Change,
  type History,
  type OpenIssue,
} from '@/core/model';

/**
 * How much of the journal a save may carry: past `tail` values it is sealed into a piece that never changes, past
 * `since` values after the book was last written whole, the book is written whole again. A value is a figure or word
 * in the patches. Writing 8,000 lines whole takes a tenth of a second, replaying these values on opening much less.
 */
const LIMITS = { tail: 2_000, since: 200_000 };

/** The book written whole, and how many changes of its journal are in it. */
type Whole = { readonly book: unknown; readonly changes: number };

/** What a save leaves: the book is the one at `whole`, brought through the changes after it. */
type Slot = {
  readonly seq: number;
  readonly savedAt: string;
  readonly name: string;
  readonly whole: number;
  readonly sealed: number;
  readonly tail: readonly Change[];
};

/** How slots were written at first: each with the book in it. */
type FirstSlot = Omit<Slot, 'name' | 'whole'> & { readonly book: unknown };

export type ShelfItem = { readonly id: string; readonly name: string; readonly savedAt: string };

export type Kept =
  | {
      readonly ok: true;
      readonly history: History;
      readonly blocks: Map<string, LedgerBlock>;
      readonly savedAt: string;
    }
  | { readonly ok: false; readonly issue: OpenIssue | { readonly code: 'missing' } };

const slotKey = (book: string, n: number) => `book:${book}:${n}`;
const wholeKey = (book: string, n: number) => `whole:${book}:${n}`;
const blockKey = (block: string) => `block:${block}`;
const chunkKey = (book: string, n: number) => `journal:${book}:${n}`;

/** What is known to be on disk of a book. */
type Disk = {
  seq: number;
  /** Places of whole books that the two slots name; these are never written over. */
  named: [number, number];
  /** The whole book that the next save may name, and the last change in it. */
  whole: { readonly at: number; readonly changes: number; readonly last: Change | undefined } | null;
  /** Sealed pieces of the journal, and the changes in them. */
  sealed: number;
  sealedChanges: number;
};

const NOTHING = (): Disk => ({ seq: 0, named: [-1, -1], whole: null, sealed: 0, sealedChanges: 0 });

/**
 * Keeps books so that a tab killed at any moment leaves the last or the one-before-last state. A save writes what
 * never changes first (ledger blocks, sealed pieces of the journal, now and then the book whole) and then, in one
 * write, one of two slots in turn. Opening takes the newest slot that is whole and replays the journal after the
 * book it names; so a save costs what was changed, not what the book holds.
 */
export class Keeper {
  private disks = new Map<string, Disk>();
  private writtenBlocks = new Set<string>();
  private weights = new WeakMap<Change, number>();

  constructor(
    private readonly place: KeyValue,
    private readonly limits = LIMITS,
  ) {}

  /** Writes a book's state; rejects when the storage refuses, leaving the earlier states as they were. */
  async save(history: History, blocks: ReadonlyMap<string, LedgerBlock>, at: string): Promise<void> {
    const { book, journal } = history;
    const disk = this.disks.get(book.id) ?? NOTHING();
    this.disks.set(book.id, disk);
    for (const block of blocks.values()) {
      if (this.writtenBlocks.has(block.id)) continue;
      await this.place.set(blockKey(block.id), block);
      this.writtenBlocks.add(block.id);
    }
    if (this.weigh(journal, disk.sealedChanges) > this.limits.tail) {
      await this.place.set(chunkKey(book.id, disk.sealed), journal.slice(disk.sealedChanges));
      disk.sealed++;
      disk.sealedChanges = journal.length;
    }
    const { whole } = disk;
    const follows = whole && whole.changes <= journal.length && journal[whole.changes - 1] === whole.last;
    if (!follows || this.weigh(journal, whole.changes) > this.limits.since) {
      const free = [0, 1, 2].find((n) => !disk.named.includes(n))!;
      await this.place.set(wholeKey(book.id, free), { book, changes: journal.length } satisfies Whole);
      disk.whole = { at: free, changes: journal.length, last: journal.at(-1) };
    }
    const seq = disk.seq + 1;
    const slot: Slot = {
      seq,
      savedAt: at,
      name: book.name,
      whole: disk.whole!.at,
      sealed: disk.sealed,
      tail: journal.slice(disk.sealedChanges),
    };
    await this.place.set(slotKey(book.id, seq % 2), slot);
    disk.seq = seq;
    disk.named[seq % 2] = slot.whole;
  }

  private weigh(journal: readonly Change[], from: number): number {
    let sum = 0;
    for (let i = from; i < journal.length; i++) {
      const change = journal[i]!;
      let weight = this.weights.get(change);
      if (weight === undefined) {
        weight = valuesIn(change);
        this.weights.set(change, weight);
      }
      sum += weight;
    }
    return sum;
  }

  /** Opens a book at its newest whole state. */
  async open(id: string): Promise<Kept> {
    const slots = (
      await Promise.all([0, 1].map((n) => this.place.get<Slot | FirstSlot>(slotKey(id, n))))
    ).filter((s): s is Slot | FirstSlot => s !== null);
    slots.sort((a, b) => b.seq - a.seq);
    let issue: OpenIssue | { code: 'missing' } = { code: 'missing' };
    for (const slot of slots) {
      const chunks = await Promise.all(
        Array.from({ length: slot.sealed }, (_, n) => this.place.get<Change[]>(chunkKey(id, n))),
      );
      if (chunks.includes(null)) continue;
      const journal = [...chunks.flatMap((c) => c!), ...slot.tail];
      const whole: Whole | null =
        'book' in slot
          ? { book: slot.book, changes: journal.length }
          : await this.place.get<Whole>(wholeKey(id, slot.whole));
      if (!whole) continue;
      const opened = openBook(replayed(whole, journal));
      if (!opened.ok) {
        issue = opened.issue;
        continue;
      }
      const blocks = await this.blocks(opened.book, journal);
      if (!blocks) continue;
      const disk = NOTHING();
      // The next save must not write over the slot that was just found whole, nor over a book that either names.
      disk.seq = slot.seq;
      for (const s of slots) if ('whole' in s) disk.named[s.seq % 2 === 0 ? 0 : 1] = s.whole;
      // A book of an older schema is written whole once more: changes to come speak of the new one.
      if ('whole' in slot && versionOf(whole.book) === BOOK_VERSION)
        disk.whole = { at: slot.whole, changes: whole.changes, last: journal[whole.changes - 1] };
      disk.sealed = slot.sealed;
      disk.sealedChanges = journal.length - slot.tail.length;
      this.disks.set(id, disk);
      return { ok: true, history: openHistory(opened.book, journal), blocks, savedAt: slot.savedAt };
    }
    return { ok: false, issue };
  }

  /** Blocks that the book names, and those that only its journal names, which serve undo and may be missing. */
  private async blocks(book: Book, journal: readonly Change[]): Promise<Map<string, LedgerBlock> | null> {
    const blocks = new Map<string, LedgerBlock>();
    const needed = new Set(book.sources.map((s) => s.block));
    for (const id of new Set([...needed, ...blocksInJournal(journal)])) {
      const block = await this.place.get<LedgerBlock>(blockKey(id));
      if (block) {
        blocks.set(id, openBlock(block));
        this.writtenBlocks.add(id);
      } else if (needed.has(id)) return null;
    }
    return blocks;
  }

  /** Every book kept here, by its newest slot; latest saved first. */
  async shelf(): Promise<ShelfItem[]> {
    const items = new Map<string, ShelfItem & { seq: number }>();
    for (const key of await this.place.keys()) {
      const id = /^book:(.+):[01]$/.exec(key)?.[1];
      if (!id) continue;
      const slot = await this.place.get<Slot | FirstSlot>(key);
      const name = slot && ('name' in slot ? slot.name : (slot.book as Partial<Book> | null)?.name);
      if (slot && typeof name === 'string' && slot.seq >= (items.get(id)?.seq ?? 0))
        items.set(id, { id, name, savedAt: slot.savedAt, seq: slot.seq });
    }
    return [...items.values()]
      .sort((a, b) => b.savedAt.localeCompare(a.savedAt))
      .map(({ id, name, savedAt }) => ({ id, name, savedAt }));
  }

  /** Removes a book with its blocks and journal. */
  async remove(id: string): Promise<void> {
    const kept = await this.open(id);
    const blocks = kept.ok ? [...kept.blocks.keys()] : [];
    for (const b of blocks) this.writtenBlocks.delete(b);
    for (const key of [slotKey(id, 0), slotKey(id, 1), ...blocks.map(blockKey)]) await this.place.remove(key);
    for (const key of await this.place.keys())
      if (key.startsWith(`journal:${id}:`) || key.startsWith(`whole:${id}:`)) await this.place.remove(key);
    // What the ledger feed's pulls left beside the book goes with it.
    await this.place.remove(`feedlog:${id}`);
    this.disks.delete(id);
  }

  lastOpened = (): Promise<string | null> => this.place.get<string>('lastOpened');
  rememberOpened = (id: string): Promise<void> => this.place.set('lastOpened', id);
}

const versionOf = (saved: unknown): unknown => (saved as { version?: unknown } | null)?.version;

/** The saved book brought through the changes after it, in whichever version it was saved; null where they do not fit. */
function replayed({ book, changes }: Whole, journal: readonly Change[]): unknown {
  if (changes === journal.length) return book;
  if (changes > journal.length || typeof versionOf(book) !== 'number') return null;
  return replay(book as { version: number }, journal, changes);
}

/** Figures and words in a change's patches. */
function valuesIn(value: unknown): number {
  if (typeof value !== 'object' || value === null) return 1;
  let sum = 0;
  for (const key in value) sum += valuesIn((value as Record<string, unknown>)[key]);
  return sum;
}

/** Blocks named anywhere in the journal's patches: what an undo or redo may bring back. */
function blocksInJournal(journal: readonly Change[]): Set<string> {
  const found = new Set<string>();
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    if ('block' in value && typeof value.block === 'string' && 'fingerprint' in value) found.add(value.block);
    for (const v of Object.values(value)) visit(v);
  };
  for (const c of journal)
    if ('patches' in c && (c.type === 'takeIn' || c.type === 'removeSource')) visit([c.patches, c.inverse]);
  return found;
}
