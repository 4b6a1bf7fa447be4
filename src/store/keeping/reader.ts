import type { KeyValue } from '@/platform/keyValue';
import { openBlock, type LedgerBlock } from '@/core/ledger';
import {
  isJournal,
  openBook,
  openHistory,
  replay,
  type Book,
  type Change,
  type History,
  type Opened,
  type OpenIssue,
  type SetAside,
} from '@/core/model';
import {
  blockKey,
  bookOfSave,
  goneKey,
  isOf,
  isWhole,
  newestFirst,
  oldBlockKey,
  pieceKeys,
  readSave,
  type Found,
  type Whole,
} from './layout';

export type ShelfItem = {
  readonly id: string;
  readonly name: string;
  readonly savedAt: string;
  /** No save of it can be read, so that its name is not known. */
  readonly unreadable?: true;
};

export type KeepIssue = OpenIssue | { readonly code: 'missing' | 'unreadable' | 'partMissing' };

export type Kept =
  | {
      readonly ok: true;
      readonly history: History;
      readonly blocks: Map<string, LedgerBlock>;
      readonly savedAt: string;
      /** Why newer states were not opened; empty when the newest was. */
      readonly passedOver: readonly KeepIssue[];
      /** What of the book could not be kept: it is opened without it. */
      readonly setAside: readonly SetAside[];
    }
  | { readonly ok: false; readonly issue: KeepIssue };

/** A book as it comes out of a place where it was written whole. */
export type FromWhole = {
  readonly opened: Extract<Opened, { ok: true }>;
  readonly whole: Whole;
  readonly key: string | null;
  /** By the whole journal. */
  readonly straight: boolean;
  /** As it was saved, not an earlier state. */
  readonly newest: boolean;
};

/** A book opened at one of its saves, and where that leads. */
export type OpenedSave = Omit<Extract<Kept, { ok: true }>, 'ok'> & {
  readonly record: NonNullable<Found['record']>;
  readonly journal: readonly Change[];
  readonly found: FromWhole;
};

/** Reads what is kept of books (see `layout`). It writes nothing: what cannot be read is left where it is. */
export class BookReader {
  constructor(private readonly place: KeyValue) {}

  /** Every save of a book, newest first. What stands at one and cannot be read leaves the others be. */
  async found(id: string): Promise<Found[]> {
    const keys = (await this.place.keys()).filter((k) => bookOfSave(k) === id);
    const saves = await Promise.all(keys.map(async (key) => readSave(key, await this.read(key))));
    return saves.sort(newestFirst);
  }

  /** A value of the storage; nothing where the storage cannot give it. */
  async read(key: string): Promise<unknown> {
    try {
      return await this.place.get(key);
    } catch {
      return null;
    }
  }

  /** Opens a book at a save: strictly, or at what can be had of it where parts of it are gone. */
  async openAt(id: string, { record }: Found, strict: boolean): Promise<OpenedSave | KeepIssue> {
    if (!record) return { code: 'unreadable' };
    const keys = pieceKeys(id, record.runs);
    const pieces: (readonly Change[] | null)[] = [];
    for (const key of keys) {
      const piece = await this.read(key);
      pieces.push(isJournal(piece) && piece.length > 0 ? piece : null);
      if (strict && pieces.at(-1) === null) return { code: 'partMissing' };
    }
    const lost = pieces.lastIndexOf(null);
    // The journal as far as it is whole, from its end: of what is before a lost piece nothing can be said.
    const journal = [...pieces.slice(lost + 1).flatMap((p) => p!), ...record.tail];
    const found = await this.atWholes(id, record.wholes, journal, lost < 0, strict);
    if ('code' in found) return found;
    const { opened, straight, newest } = found;
    const blocks = await this.blocks(opened.book, journal);
    const gone = opened.book.sources.filter((s) => !blocks.has(s.block));
    if (strict && gone.length > 0) return { code: 'partMissing' };
    const setAside: SetAside[] = [
      ...opened.setAside,
      ...gone.map((s): SetAside => ({ part: 'source', name: s.fileName, because: 'entriesMissing' })),
      ...(!straight ? [{ part: 'journal', name: '', because: 'entriesMissing' } as const] : []),
    ];
    const book =
      gone.length === 0
        ? opened.book
        : { ...opened.book, sources: opened.book.sources.filter((s) => !gone.includes(s)) };
    // What was done to a book speaks of it whole: with a part gone, or a piece of the journal, it cannot be taken back.
    const history = openHistory(book, journal, setAside.length === 0);
    const passedOver: KeepIssue[] = newest ? [] : [{ code: 'partMissing' }];
    return { history, blocks, savedAt: record.savedAt, passedOver, setAside, record, journal, found };
  }

  /**
   * The book that a journal leads to from the first of these places that is whole: straight where the journal is all
   * there, else as far as can be told, where not only what is straight is asked for.
   */
  private async atWholes(
    id: string,
    places: readonly (string | Whole)[],
    journal: readonly Change[],
    all: boolean,
    strict: boolean,
  ): Promise<FromWhole | KeepIssue> {
    let issue: KeepIssue = { code: 'partMissing' };
    let older: FromWhole | null = null;
    for (const at of places) {
      const whole = typeof at === 'string' ? await this.read(at) : at;
      if (typeof at === 'string' && !isWhole(whole)) continue;
      const straight = all ? replayed(whole as Whole, journal) : null;
      if (strict && straight === null) continue;
      const { state, newest } =
        straight === null ? afterLoss(whole as Whole, journal) : { state: straight, newest: true };
      const opened = openBook(state);
      if (!opened.ok) issue = opened.issue;
      else if (opened.book.id !== id) issue = { code: 'unreadable' };
      else {
        const found: FromWhole = {
          opened,
          whole: whole as Whole,
          key: typeof at === 'string' ? at : null,
          straight: straight !== null,
          newest,
        };
        if (newest) return found;
        older ??= found;
      }
    }
    return older ?? issue;
  }

  /** Blocks that the book names, and those that only its journal names, which serve undo; those that are there. */
  private async blocks(book: Book, journal: readonly Change[]): Promise<Map<string, LedgerBlock>> {
    const blocks = new Map<string, LedgerBlock>();
    for (const id of new Set([...book.sources.map((s) => s.block), ...blocksInJournal(journal)])) {
      const block =
        openBlock(await this.read(blockKey(book.id, id))) ?? openBlock(await this.read(oldBlockKey(id)));
      if (block?.id === id) blocks.set(id, block);
    }
    return blocks;
  }

  /** Every book kept here, by its newest save that can be read; latest saved first, those that cannot be read last. */
  async shelf(): Promise<ShelfItem[]> {
    const keys = await this.place.keys();
    const gone = new Set(keys.filter((k) => k.startsWith(goneKey(''))));
    const ids = new Set(
      keys.map(bookOfSave).filter((id) => id !== null && !gone.has(goneKey(id))) as string[],
    );
    const items = await Promise.all(
      [...ids].map(async (id): Promise<ShelfItem> => {
        const save = (await this.found(id)).find((s) => s.record !== null);
        if (!save) return { id, name: '', savedAt: '', unreadable: true };
        return { id, name: save.record!.name, savedAt: save.record!.savedAt };
      }),
    );
    return items.sort((a, b) => (a.savedAt < b.savedAt ? 1 : a.savedAt > b.savedAt ? -1 : 0));
  }

  /** All that is kept of a book, key by key, whether or not it can be read: for a file, when nothing else is left. */
  async rescue(id: string): Promise<Record<string, unknown>> {
    const keys = (await this.place.keys()).filter((k) => isOf(id, k));
    const out: Record<string, unknown> = Object.create(null) as Record<string, unknown>;
    for (const key of keys) out[key] = await this.read(key);
    return out;
  }
}

export const versionOf = (saved: unknown): unknown => (saved as { version?: unknown } | null)?.version;

/** The saved book brought through the changes after it, in whichever version it was saved; null where they do not fit. */
function replayed({ book, changes }: Whole, journal: readonly Change[]): unknown {
  if (changes === journal.length || changes === Infinity) return book;
  if (changes > journal.length || typeof versionOf(book) !== 'number') return null;
  return replay(book as { version: number }, journal, changes);
}

/**
 * The same where a piece of the journal is lost and `rest` is left of it: the newest state, by the changes after the whole
 * book, told by their numbers, if all of them are there; else the whole book as it was written.
 */
function afterLoss(
  { book, changes }: Whole,
  rest: readonly Change[],
): { readonly state: unknown; readonly newest: boolean } {
  const after = rest.filter((c) => c.seq > changes);
  const gapless = after.length > 0 && after.every((c, i) => c.seq === changes + 1 + i);
  const state =
    gapless && typeof versionOf(book) === 'number'
      ? replay(book as { version: number }, rest, rest.length - after.length)
      : null;
  return state === null ? { state: book, newest: false } : { state, newest: true };
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
