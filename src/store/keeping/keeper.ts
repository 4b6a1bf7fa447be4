import type { KeyValue } from '@/platform/keyValue';
import { openBlock, type LedgerBlock } from '@/core/ledger';
import {
  BOOK_VERSION,
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
  epochOf,
  goneKey,
  ownerKey,
  isOf,
  isOldBlock,
  isOldSlot,
  isWhole,
  newestFirst,
  oldBlockKey,
  pieceKeys,
  readSave,
  saveKey,
  wholeKey,
  type Found,
  type Run,
  type SaveRecord,
  type Whole,
} from './layout';

/**
 * How much of the journal a save may carry: past `tail` values it is sealed into a piece that never changes, past
 * `since` values after the book was last written whole, the book is written whole again. A value is a figure or word
 * in the patches. Writing 8,000 lines whole takes a tenth of a second, replaying these values on opening much less.
 */
const LIMITS = { tail: 2_000, since: 200_000 };

/** Every so many saves, and with the first two, all parts are looked for whatever the owner's mark says. */
const LOOK_AGAIN = 32;

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

/** A save whose parts were not there when it was read back: the storage lost them, or gave up under the write. */
export class NotConfirmed extends Error {
  constructor(readonly key: string) {
    super('what was written could not be read back');
    this.name = 'NotConfirmed';
  }
}

/** Another tab has taken the book over and saved it since: what this one writes is no longer the book. */
export class Overtaken extends Error {
  constructor() {
    super('another tab took the book over');
    this.name = 'Overtaken';
  }
}

/** A book as it comes out of a place where it was written whole. */
type FromWhole = {
  readonly opened: Extract<Opened, { ok: true }>;
  readonly whole: Whole;
  readonly key: string | null;
  /** By the whole journal. */
  readonly straight: boolean;
  /** As it was saved, not an earlier state. */
  readonly newest: boolean;
};

/** What is known to be on disk of a book. */
type Disk = {
  /** Names what this opening of the book writes, apart from all that was or is being written by others. */
  readonly writer: string;
  readonly epoch: number;
  seq: number;
  /** Saves that stand, latest last, with the parts that each names. */
  stand: { readonly key: string; readonly parts: readonly string[] }[];
  /** The whole book that the next save may name, and the last change in it. */
  whole: { readonly key: string; readonly changes: number; readonly last: Change | undefined } | null;
  /** An earlier whole book that the same journal follows; null until there are two. */
  spare: string | null;
  wholes: number;
  /** Sealed pieces of the journal, and the changes in them. */
  runs: readonly Run[];
  sealedChanges: number;
  blocks: Set<string>;
  /** Every save that was there when the book was opened. */
  readonly known: ReadonlySet<string>;
};

/**
 * Keeps books so that a tab killed at any moment leaves the last or the one-before-last state, whatever other tabs do.
 * Nothing that stands is ever written over (see `layout`). A save writes ledger blocks, sealed pieces of the journal and
 * now and then the book whole, and then, in one write, the record that names them; it reads the record back and sees
 * that its parts are there, and only then takes away what two saves ago was named. Opening takes the newest save that is
 * whole and replays the journal after the book it names; so a save costs what was changed, not what the book holds.
 */
export class Keeper {
  private readonly disks = new Map<string, Disk>();
  private readonly weights = new WeakMap<Change, number>();
  private openings = 0;

  /** `name` tells this tab's writings from any other's; `clock` gives milliseconds. */
  constructor(
    private readonly place: KeyValue,
    private readonly name: string,
    private readonly clock: () => number,
    private readonly limits = LIMITS,
  ) {}

  /** Writes a book's state and confirms it; rejects when the storage refuses, leaving the earlier states as they were. */
  async save(history: History, blocks: ReadonlyMap<string, LedgerBlock>, at: string): Promise<void> {
    const { id } = history.book;
    let disk = this.disks.get(id);
    if (!disk) this.disks.set(id, (disk = await this.fresh(id)));
    try {
      await this.write(disk, history, blocks, at);
    } catch (error) {
      if (!(error instanceof NotConfirmed)) throw error;
      // The storage is not the one that was written to (cleared under the app, say): all of it once more.
      disk.whole = disk.spare = null;
      disk.runs = [];
      disk.sealedChanges = 0;
      disk.blocks.clear();
      await this.write(disk, history, blocks, at);
    }
  }

  private async write(
    disk: Disk,
    { book, journal }: History,
    blocks: ReadonlyMap<string, LedgerBlock>,
    at: string,
  ): Promise<void> {
    for (const block of blocks.values()) {
      if (disk.blocks.has(block.id)) continue;
      await this.place.set(blockKey(book.id, block.id), block);
      disk.blocks.add(block.id);
    }
    if (this.weigh(journal, disk.sealedChanges) > this.limits.tail) await this.seal(disk, book.id, journal);
    const { whole } = disk;
    const follows = whole && whole.changes <= journal.length && journal[whole.changes - 1] === whole.last;
    if (!follows || disk.spare === null || this.weigh(journal, whole.changes) > this.limits.since) {
      const key = wholeKey(book.id, disk.writer, disk.wholes++);
      await this.place.set(key, { book, changes: journal.length } satisfies Whole);
      disk.spare = follows ? whole.key : null;
      disk.whole = { key, changes: journal.length, last: journal.at(-1) };
    }
    const record: SaveRecord = {
      savedAt: at,
      name: book.name,
      wholes: [disk.whole!.key, ...(disk.spare === null ? [] : [disk.spare])],
      runs: disk.runs,
      tail: journal.slice(disk.sealedChanges),
    };
    const key = saveKey(book.id, disk.epoch, ++disk.seq, disk.writer);
    await this.place.set(key, record);
    const parts = [...record.wholes, ...pieceKeys(book.id, record.runs)];
    const there = await this.confirm(disk, book.id, key, record, [
      ...parts,
      ...[...blocks.keys()].map((b) => blockKey(book.id, b)),
    ]);
    disk.stand.push({ key, parts });
    await this.clear(disk, there).catch(() => undefined);
  }

  private async seal(disk: Disk, book: string, journal: readonly Change[]): Promise<void> {
    const last = disk.runs.at(-1);
    const count = last?.[0] === disk.writer ? last[1] : 0;
    const [key] = pieceKeys(book, [[disk.writer, count + 1]]).slice(-1);
    await this.place.set(key!, journal.slice(disk.sealedChanges));
    const before = count > 0 ? disk.runs.slice(0, -1) : disk.runs;
    disk.runs = [...before, [disk.writer, count + 1]];
    disk.sealedChanges = journal.length;
  }

  /**
   * Reads a save back. As long as the book is still this writer's, nobody has taken away what it wrote; else, and now and
   * then all the same, every part that the save names is looked for: then gives all keys of the storage, otherwise null.
   */
  private async confirm(
    disk: Disk,
    book: string,
    key: string,
    record: SaveRecord,
    parts: readonly string[],
  ): Promise<Set<string> | null> {
    const back = await this.place.get<Partial<SaveRecord>>(key);
    const same =
      back?.savedAt === record.savedAt &&
      back.wholes?.[0] === record.wholes[0] &&
      back.tail?.length === record.tail.length &&
      back.tail.at(-1)?.seq === record.tail.at(-1)?.seq;
    if (!same) throw new NotConfirmed(key);
    const owner = await this.place.get(ownerKey(book));
    if (owner === disk.epoch && disk.seq > 2 && disk.seq % LOOK_AGAIN !== 0) return null;
    const there = new Set(await this.place.keys());
    if (there.has(goneKey(book))) {
      await this.place.remove(key);
      throw new Overtaken();
    }
    for (const part of parts) if (!there.has(part)) throw new NotConfirmed(part);
    for (const k of there) if (bookOfSave(k) === book && epochOf(k) > disk.epoch) throw new Overtaken();
    await this.place.set(ownerKey(book), disk.epoch);
    return there;
  }

  /**
   * Saves a book that was just taken from another tab as it was read, so that the other tab's writes count no more.
   * False when one of them came in between: then the book has to be read again.
   */
  async claim({ history, blocks, savedAt }: Extract<Kept, { ok: true }>): Promise<boolean> {
    const { id } = history.book;
    const disk = this.disks.get(id)!;
    await this.save(history, blocks, savedAt);
    const saves = (await this.place.keys()).filter((k) => bookOfSave(k) === id && epochOf(k) < disk.epoch);
    if (saves.every((k) => disk.known.has(k))) return true;
    // As long as this one stands, it hides what came in between.
    await this.place.remove(disk.stand.at(-1)!.key);
    return false;
  }

  /** Takes away what no save of the last two names. What could not be opened stays: it may be read by someone yet. */
  private async clear(disk: Disk, there: Set<string> | null): Promise<void> {
    const named = new Set(disk.stand.slice(-2).flatMap((s) => s.parts));
    while (disk.stand.length > 2) {
      const { key, parts } = disk.stand[0]!;
      for (const k of [key, ...parts]) {
        if (named.has(k)) continue;
        await this.place.remove(k);
        there?.delete(k);
      }
      disk.stand.shift();
    }
    // Blocks that no book owned are done with once no book of the older form is left.
    if (there && ![...there].some(isOldSlot))
      for (const k of there) if (isOldBlock(k)) await this.place.remove(k);
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

  private async fresh(id: string, found?: readonly Found[]): Promise<Disk> {
    const saves = found ?? (await this.found(id));
    return {
      writer: `${this.name}${(++this.openings).toString(36)}`,
      // By the clock, so that it is later also than that of a tab which opened the book and has saved nothing yet.
      epoch: Math.max(this.clock(), 1 + Math.max(0, ...saves.map((s) => s.epoch))),
      seq: 0,
      stand: [],
      whole: null,
      spare: null,
      wholes: 0,
      runs: [],
      sealedChanges: 0,
      blocks: new Set(),
      known: new Set(saves.map((s) => s.key)),
    };
  }

  /** Every save of a book, newest first. What stands at one and cannot be read leaves the others be. */
  private async found(id: string): Promise<Found[]> {
    const keys = (await this.place.keys()).filter((k) => bookOfSave(k) === id);
    const saves = await Promise.all(keys.map(async (key) => readSave(key, await this.read(key))));
    return saves.sort(newestFirst);
  }

  /** A value of the storage; nothing where the storage cannot give it. */
  private async read(key: string): Promise<unknown> {
    try {
      return await this.place.get(key);
    } catch {
      return null;
    }
  }

  /** Opens a book at its newest whole state; where none is whole, at what can be had of the newest. */
  async open(id: string): Promise<Kept> {
    const saves = await this.found(id);
    const issues: KeepIssue[] = [];
    for (const strict of [true, false])
      for (const save of saves) {
        const kept = await this.openAt(id, save, saves, strict).catch((): KeepIssue => ({
          code: 'unreadable',
        }));
        if (!('code' in kept)) return strict ? { ...kept, passedOver: issues } : kept;
        if (strict) issues.push(kept);
      }
    return { ok: false, issue: issues[0] ?? { code: 'missing' } };
  }

  private async openAt(
    id: string,
    save: Found,
    saves: readonly Found[],
    strict: boolean,
  ): Promise<Extract<Kept, { ok: true }> | KeepIssue> {
    const { record } = save;
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
    const { opened, whole, straight, newest } = found;
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
    const disk = await this.fresh(id, saves);
    // Newer ones that were passed over are left where they are.
    disk.stand = saves
      .slice(saves.indexOf(save))
      .filter((s) => s.record !== null)
      .reverse()
      .map((s) => ({
        key: s.key,
        parts: [...s.record!.wholes.filter((w) => typeof w === 'string'), ...pieceKeys(id, s.record!.runs)],
      }));
    const there = new Set(await this.place.keys());
    if (setAside.length === 0) {
      // A book of an older schema is written whole once more: changes to come speak of the new one.
      if (found.key !== null && versionOf(whole.book) === BOOK_VERSION) {
        disk.whole = { key: found.key, changes: whole.changes, last: journal[whole.changes - 1] };
        const behind = record.wholes.slice(record.wholes.indexOf(found.key) + 1);
        disk.spare = behind.find((w): w is string => typeof w === 'string' && there.has(w)) ?? null;
      }
      disk.runs = record.runs.filter(([, count]) => count > 0);
      disk.sealedChanges = journal.length - record.tail.length;
    }
    for (const b of blocks.keys()) if (there.has(blockKey(id, b))) disk.blocks.add(b);
    this.disks.set(id, disk);
    const passedOver: KeepIssue[] = newest ? [] : [{ code: 'partMissing' }];
    return { ok: true, history, blocks, savedAt: record.savedAt, passedOver, setAside };
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

  /** Removes a book with all that is of it. That it is gone is written first: a removal cut short leaves no book behind. */
  async remove(id: string): Promise<void> {
    await this.place.set(goneKey(id), true);
    this.disks.delete(id);
    for (const key of await this.place.keys()) if (isOf(id, key)) await this.place.remove(key);
  }

  /** Makes room for a book that was removed here before and comes back from a file. */
  async admit(id: string): Promise<void> {
    const keys = await this.place.keys();
    if (!keys.includes(goneKey(id))) return;
    for (const key of keys) if (isOf(id, key)) await this.place.remove(key);
    await this.place.remove(goneKey(id));
  }

  /** Forgets what is known of a book's place on disk: another tab may write it from here on. */
  forget(id: string): void {
    this.disks.delete(id);
  }

  /** All that is kept of a book, key by key, whether or not it can be read: for a file, when nothing else is left. */
  async rescue(id: string): Promise<Record<string, unknown>> {
    const keys = (await this.place.keys()).filter((k) => isOf(id, k));
    const out: Record<string, unknown> = Object.create(null) as Record<string, unknown>;
    for (const key of keys) out[key] = await this.read(key);
    return out;
  }

  async lastOpened(): Promise<string | null> {
    const last = await this.read('lastOpened');
    return typeof last === 'string' ? last : null;
  }
  rememberOpened = (id: string): Promise<void> => this.place.set('lastOpened', id);
}

const versionOf = (saved: unknown): unknown => (saved as { version?: unknown } | null)?.version;

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
