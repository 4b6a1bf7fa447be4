import type { KeyValue } from '@/platform/keyValue';
import { openBlock, type LedgerBlock } from '@/core/ledger';
import { openBook, openHistory, type Book, type Change, type History, type OpenIssue } from '@/core/model';

/** Changes in one sealed piece of the journal: pieces never change, so a save writes only the tail. */
const CHUNK = 200;

type Slot = {
  readonly seq: number;
  readonly savedAt: string;
  readonly book: unknown;
  readonly sealed: number;
  readonly tail: readonly Change[];
};

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
const blockKey = (block: string) => `block:${block}`;
const chunkKey = (book: string, n: number) => `journal:${book}:${n}`;

/**
 * Keeps books so that a tab killed at any moment leaves the last or the one-before-last state. A save writes what
 * never changes first (ledger blocks, sealed pieces of the journal) and then, in one write, one of two slots in
 * turn. Opening takes the newest slot that is whole.
 */
export class Keeper {
  private seq = new Map<string, number>();
  private writtenBlocks = new Set<string>();
  private sealed = new Map<string, number>();

  constructor(private readonly place: KeyValue) {}

  /** Writes a book's state; rejects when the storage refuses, leaving the earlier states as they were. */
  async save(history: History, blocks: ReadonlyMap<string, LedgerBlock>, at: string): Promise<void> {
    const { book, journal } = history;
    for (const block of blocks.values()) {
      if (this.writtenBlocks.has(block.id)) continue;
      await this.place.set(blockKey(block.id), block);
      this.writtenBlocks.add(block.id);
    }
    const whole = Math.floor(journal.length / CHUNK);
    for (let n = this.sealed.get(book.id) ?? 0; n < whole; n++) {
      await this.place.set(chunkKey(book.id, n), journal.slice(n * CHUNK, (n + 1) * CHUNK));
      this.sealed.set(book.id, n + 1);
    }
    const seq = (this.seq.get(book.id) ?? 0) + 1;
    const slot: Slot = { seq, savedAt: at, book, sealed: whole, tail: journal.slice(whole * CHUNK) };
    await this.place.set(slotKey(book.id, seq % 2), slot);
    this.seq.set(book.id, seq);
  }

  /** Opens a book at its newest whole state. */
  async open(id: string): Promise<Kept> {
    const slots = (await Promise.all([0, 1].map((n) => this.place.get<Slot>(slotKey(id, n))))).filter(
      (s): s is Slot => s !== null,
    );
    slots.sort((a, b) => b.seq - a.seq);
    let issue: OpenIssue | { code: 'missing' } = { code: 'missing' };
    for (const slot of slots) {
      const opened = openBook(slot.book);
      if (!opened.ok) {
        issue = opened.issue;
        continue;
      }
      const rest = await this.parts(opened.book, slot);
      if (!rest) continue;
      // The next save must not write over the slot that was just found whole.
      this.seq.set(id, slot.seq);
      this.sealed.set(id, slot.sealed);
      return {
        ok: true,
        history: openHistory(opened.book, rest.journal),
        blocks: rest.blocks,
        savedAt: slot.savedAt,
      };
    }
    return { ok: false, issue };
  }

  private async parts(
    book: Book,
    slot: Slot,
  ): Promise<{ journal: Change[]; blocks: Map<string, LedgerBlock> } | null> {
    const chunks = await Promise.all(
      Array.from({ length: slot.sealed }, (_, n) => this.place.get<Change[]>(chunkKey(book.id, n))),
    );
    if (chunks.includes(null)) return null;
    const journal = [...chunks.flatMap((c) => c!), ...slot.tail];
    const blocks = new Map<string, LedgerBlock>();
    // Blocks that only the journal still names serve undo; they may be missing, the book's own may not.
    const needed = new Set(book.sources.map((s) => s.block));
    for (const id of new Set([...needed, ...blocksInJournal(journal)])) {
      const block = await this.place.get<LedgerBlock>(blockKey(id));
      if (block) {
        blocks.set(id, openBlock(block));
        this.writtenBlocks.add(id);
      } else if (needed.has(id)) return null;
    }
    return { journal, blocks };
  }

  /** Every book kept here, by its newest slot; latest saved first. */
  async shelf(): Promise<ShelfItem[]> {
    const items = new Map<string, ShelfItem & { seq: number }>();
    for (const key of await this.place.keys()) {
      const id = /^book:(.+):[01]$/.exec(key)?.[1];
      if (!id) continue;
      const slot = await this.place.get<Slot>(key);
      const name = (slot?.book as Partial<Book> | null)?.name;
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
      if (key.startsWith(`journal:${id}:`)) await this.place.remove(key);
    // What the ledger feed's pulls left beside the book goes with it.
    await this.place.remove(`feedlog:${id}`);
    this.seq.delete(id);
    this.sealed.delete(id);
  }

  lastOpened = (): Promise<string | null> => this.place.get<string>('lastOpened');
  rememberOpened = (id: string): Promise<void> => this.place.set('lastOpened', id);
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
