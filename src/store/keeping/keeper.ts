import type { KeyValue } from '@/platform/keyValue';
import type { LedgerBlock } from '@/core/ledger';
import { BOOK_VERSION, type Change, type History } from '@/core/model';
import {
  blockKey,
  bookOfSave,
  epochOf,
  goneKey,
  ownerKey,
  isOf,
  isOldBlock,
  isOldSlot,
  pieceKeys,
  saveKey,
  wholeKey,
  type Found,
  type Run,
  type SaveRecord,
  type Whole,
} from './layout';
import { BookReader, versionOf, type KeepIssue, type Kept, type OpenedSave, type ShelfItem } from './reader';

/**
 * How much of the journal a save may carry: past `tail` values it is sealed into a piece that never changes, past
 * `since` values after the book was last written whole, the book is written whole again. A value is a figure or word
 * in the patches. Writing 8,000 lines whole takes a tenth of a second, replaying these values on opening much less.
 */
const LIMITS = { tail: 2_000, since: 200_000 };

/** Every so many saves, and with the first two, all parts are looked for whatever the owner's mark says. */
const LOOK_AGAIN = 32;

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

  private readonly reader: BookReader;

  /** `name` tells this tab's writings from any other's; `clock` gives milliseconds. */
  constructor(
    private readonly place: KeyValue,
    private readonly name: string,
    private readonly clock: () => number,
    private readonly limits = LIMITS,
  ) {
    this.reader = new BookReader(place);
  }

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
    const saves = found ?? (await this.reader.found(id));
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

  /** Opens a book at its newest whole state; where none is whole, at what can be had of the newest. */
  async open(id: string): Promise<Kept> {
    const saves = await this.reader.found(id);
    const issues: KeepIssue[] = [];
    for (const strict of [true, false])
      for (const save of saves) {
        const kept = await this.openAt(id, save, saves, strict).catch((): KeepIssue => ({
          code: 'unreadable',
        }));
        if (!('code' in kept)) {
          const { history, blocks, savedAt, setAside, passedOver } = kept;
          return { ok: true, history, blocks, savedAt, setAside, passedOver: strict ? issues : passedOver };
        }
        if (strict) issues.push(kept);
      }
    return { ok: false, issue: issues[0] ?? { code: 'missing' } };
  }

  /** Opens a book at a save; saves follow it from here on, and newer ones that were passed over are left where they are. */
  private async openAt(
    id: string,
    save: Found,
    saves: readonly Found[],
    strict: boolean,
  ): Promise<OpenedSave | KeepIssue> {
    const kept = await this.reader.openAt(id, save, strict);
    if ('code' in kept) return kept;
    const { record, journal, found, blocks, setAside } = kept;
    const disk = await this.fresh(id, saves);
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
      if (found.key !== null && versionOf(found.whole.book) === BOOK_VERSION) {
        disk.whole = { key: found.key, changes: found.whole.changes, last: journal[found.whole.changes - 1] };
        const spares = record.wholes.slice(record.wholes.indexOf(found.key) + 1);
        disk.spare = spares.find((w): w is string => typeof w === 'string' && there.has(w)) ?? null;
      }
      disk.runs = record.runs.filter(([, count]) => count > 0);
      disk.sealedChanges = journal.length - record.tail.length;
    }
    for (const b of blocks.keys()) if (there.has(blockKey(id, b))) disk.blocks.add(b);
    this.disks.set(id, disk);
    return kept;
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

  shelf = (): Promise<ShelfItem[]> => this.reader.shelf();
  rescue = (id: string): Promise<Record<string, unknown>> => this.reader.rescue(id);

  /** Forgets what is known of a book's place on disk: another tab may write it from here on. */
  forget(id: string): void {
    this.disks.delete(id);
  }

  async lastOpened(): Promise<string | null> {
    const last = await this.reader.read('lastOpened');
    return typeof last === 'string' ? last : null;
  }
  rememberOpened = (id: string): Promise<void> => this.place.set('lastOpened', id);
}

/** Figures and words in a change's patches. */
function valuesIn(value: unknown): number {
  if (typeof value !== 'object' || value === null) return 1;
  let sum = 0;
  for (const key in value) sum += valuesIn((value as Record<string, unknown>)[key]);
  return sum;
}
