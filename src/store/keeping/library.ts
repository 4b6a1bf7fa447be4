import type { LedgerBlock } from '@/core/ledger';
import { openBook, type History, type SetAside } from '@/core/model';
import type { Held, NewsChannel, TabLock } from '@/platform/tabLock';
import { Desk, type DeskSettings, type SaveState } from './desk';
import type { Keeper } from './keeper';
import type { Kept, KeepIssue, ShelfItem } from './reader';

/** The book that this tab shows. */
export type Shown = {
  readonly history: History;
  readonly blocks: ReadonlyMap<string, LedgerBlock>;
  readonly save: SaveState;
  /** Another tab holds the book: this one may only read. */
  readonly readOnly: boolean;
  /** Why it is not the newest state, or not all of it; both empty as a rule. */
  readonly passedOver: readonly KeepIssue[];
  readonly setAside: readonly SetAside[];
};

/** What is to be said of a book as it was opened. */
type Notes = Pick<Shown, 'passedOver' | 'setAside'>;

export type Opening = { readonly ok: true } | { readonly ok: false; readonly issue: KeepIssue };
/** `kept`: the other tab has changes that it cannot save; `silent`: it does not answer. */
export type TakingOver =
  | { readonly ok: true }
  | { readonly ok: false; readonly why: 'kept' | 'silent' | 'unreadable'; readonly detail: string };

export type LibraryParts = {
  readonly keeper: Keeper;
  readonly lock: TabLock;
  readonly news: NewsChannel | null;
  readonly settings: DeskSettings;
  /** How long another tab has to let a book go when it is asked to. */
  readonly answerMs: number;
  readonly onChange: () => void;
  /** The book that is shown here was deleted in another tab. */
  readonly onRemoved: () => void;
};

/**
 * The books of this browser as one tab sees them: which is shown, which are being written, and who may change which.
 * A book is read for change only once its right is held, so nothing that another tab saves comes in between; whoever
 * wants a book that another tab holds asks for it, and that tab writes what it has before it lets go.
 */
export class Library {
  /** Books that this tab may change: the one that is shown, and those with something still to write. */
  private readonly desks = new Map<string, Desk>();
  private current: { readonly desk: Desk | null; readonly kept: Shown } | null = null;
  private turn: Promise<unknown> = Promise.resolve();
  private answered: { readonly book: string; readonly told: (why: string) => void } | null = null;

  constructor(private readonly parts: LibraryParts) {
    parts.news?.listen((news) => {
      switch (news.is) {
        case 'saved':
          return void this.follow(news.book);
        case 'wanted':
          return void this.giveUp(news.book);
        case 'kept':
          if (this.answered?.book === news.book) this.answered.told(news.why);
          return;
        case 'removed':
          return void this.dropRemoved(news.book);
      }
    });
  }

  /** What is shown now; null when no book is. */
  get shown(): Shown | null {
    if (!this.current) return null;
    const { desk, kept } = this.current;
    if (!desk) return kept;
    const { history, blocks, save } = desk;
    return { ...kept, history, blocks, save, readOnly: desk.isLost };
  }

  /** Names of books that are not shown and have something to write that the storage refused, with why. */
  get waiting(): readonly { readonly id: string; readonly name: string }[] {
    return [...this.desks.values()]
      .filter((d) => d !== this.current?.desk && d.unsaved)
      .map((d) => ({ id: d.id, name: d.history.book.name }));
  }

  /** Whether leaving now would lose something. */
  get unsaved(): boolean {
    return [...this.desks.values()].some((d) => d.unsaved && !d.isLost) || this.shown?.save.state === 'lost';
  }

  shelf = (): Promise<ShelfItem[]> => this.parts.keeper.shelf();

  /** One thing at a time: opening, taking over and removing each look at who holds what. */
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.turn.then(work, work);
    this.turn = next.catch(() => undefined);
    return next;
  }

  /** Opens a kept book: for change when no other tab holds it, else for reading. What was shown stays when it cannot be. */
  open(id: string, forLooking = false): Promise<Opening> {
    return this.inTurn(async () => {
      await this.leave();
      const there = this.desks.get(id);
      // Something of it is not on disk yet: what this tab has is newer than anything there.
      if (there && !there.isLost) return this.show(there, null);
      const held = forLooking ? null : await this.parts.lock.take(id);
      const kept = await this.parts.keeper.open(id);
      if (!kept.ok) {
        held?.letGo();
        this.parts.keeper.forget(id);
        return kept;
      }
      return this.show(held && this.desk(kept.history, kept.blocks, held, kept.savedAt), kept);
    });
  }

  /** Puts a book that was just made or read onto the shelf, opened for change. Throws when it would not open again. */
  adopt(
    history: History,
    blocks: ReadonlyMap<string, LedgerBlock>,
    setAside: readonly SetAside[] = [],
  ): Promise<void> {
    const opened = openBook(history.book);
    if (!opened.ok) throw new Error(`This book would not open again (${opened.issue.code})`);
    return this.inTurn(async () => {
      await this.leave();
      const { id } = history.book;
      const held = await this.parts.lock.take(id);
      if (!held) throw new Error('Another tab has a book of this name open');
      await this.parts.keeper.admit(id);
      const desk = this.desk(history, blocks, held, null);
      this.show(desk, { passedOver: [], setAside });
      await desk.flush();
    });
  }

  /** Takes up another state of the book that is shown, unless this tab may only read it. */
  change(history: History, blocks?: ReadonlyMap<string, LedgerBlock>): void {
    const desk = this.current?.desk;
    if (desk && !desk.isLost) desk.change(history, blocks);
  }

  /** Writes all that is unsaved now. */
  async flush(): Promise<void> {
    await Promise.all([...this.desks.values()].map((d) => d.flush()));
  }

  /**
   * Works on the shown book here. The tab that holds it is asked to write what it has and let go; only `byForce` takes
   * the book from a tab that does not.
   */
  takeOver(byForce = false): Promise<TakingOver> {
    return this.inTurn(async () => {
      const shown = this.shown;
      if (!shown?.readOnly) return { ok: true };
      const { id } = shown.history.book;
      const { lock, keeper, answerMs } = this.parts;
      let kept: string | null = null;
      let held: Held | null = null;
      if (byForce) held = await lock.seize(id);
      else {
        const refused = new Promise<null>((resolve) => {
          const told = (why: string) => {
            kept = why;
            resolve(null);
          };
          this.answered = { book: id, told };
        });
        const got = lock.wait(id, answerMs);
        const stop = this.askFor(id);
        held = await Promise.race([got, refused]);
        stop();
        this.answered = null;
        // The right may still come after the answer: it is not wanted any more.
        if (!held) void got.then((late) => late?.letGo());
        if (!held) return { ok: false, why: kept === null ? 'silent' : 'kept', detail: kept ?? '' };
      }
      let read = await keeper.open(id);
      // The tab that it was taken from may be writing at this moment: what arrived before this tab's first save counts.
      while (byForce && read.ok && !(await keeper.claim(read))) read = await keeper.open(id);
      if (!read.ok) {
        held.letGo();
        return { ok: false, why: 'unreadable', detail: read.issue.code };
      }
      this.show(this.desk(read.history, read.blocks, held, read.savedAt), read);
      return { ok: true };
    });
  }

  /** Deletes a book for good; false when another tab works on it. What is shown closes when it is that one. */
  remove(id: string): Promise<boolean> {
    return this.inTurn(async () => {
      const own = this.desks.get(id);
      const desk = own?.isLost ? undefined : own;
      const held = desk ? null : await this.parts.lock.take(id);
      if (!held && !desk) return false;
      // A write under way would put a part of the book back after it is gone.
      if (desk) await desk.flush();
      desk?.halt();
      try {
        await this.parts.keeper.remove(id);
      } finally {
        desk?.close();
        held?.letGo();
        this.desks.delete(id);
      }
      if (this.current?.kept.history.book.id === id) this.current = null;
      this.parts.news?.tell({ is: 'removed', book: id });
      this.parts.onChange();
      return true;
    });
  }

  /** All that is kept of a book, for a file. */
  rescue = (id: string): Promise<Record<string, unknown>> => this.parts.keeper.rescue(id);

  private desk(
    history: History,
    blocks: ReadonlyMap<string, LedgerBlock>,
    held: Held,
    savedAt: string | null,
  ): Desk {
    const desk: Desk = new Desk(this.parts.keeper, this.parts.settings, history, blocks, held, savedAt, (d) =>
      this.onDesk(d),
    );
    this.desks.set(desk.id, desk);
    // Whoever had it before may be gone without having told those who read it what it saved last.
    if (savedAt !== null) this.parts.news?.tell({ is: 'saved', book: desk.id });
    return desk;
  }

  /** Shows a book: one that may be changed here, or one that was read. */
  private show(desk: Desk, kept: Notes | null): Opening;
  private show(desk: Desk | null, kept: Extract<Kept, { ok: true }>): Opening;
  private show(desk: Desk | null, kept: Notes | Extract<Kept, { ok: true }> | null): Opening {
    const from = desk ?? (kept as Extract<Kept, { ok: true }>);
    const before = this.current?.desk;
    this.current = {
      desk,
      kept: {
        history: from.history,
        blocks: from.blocks,
        save: desk?.save ?? { state: 'saved', at: (kept as Extract<Kept, { ok: true }>).savedAt },
        readOnly: desk === null,
        passedOver: kept?.passedOver ?? [],
        setAside: kept?.setAside ?? [],
      },
    };
    if (before && before !== desk) this.putAway(before);
    this.parts.onChange();
    return { ok: true };
  }

  /** What is shown is left for another book: what it has is written, or goes on being tried. */
  private async leave(): Promise<void> {
    const desk = this.current?.desk;
    // A disk that does not answer must not keep anyone from another book.
    if (!desk) return;
    await new Promise<void>((done) => {
      const stop = this.parts.settings.after(LEAVE_MS, done);
      void desk.flush().finally(() => {
        stop();
        done();
      });
    });
  }

  /** Lets a book go that is not shown, once all of it is on disk. */
  private putAway(desk: Desk): void {
    if (desk === this.current?.desk || (desk.unsaved && !desk.isLost)) return;
    if (!desk.isLost) desk.close();
    // The book may have come back meanwhile, to another desk: that one is not put away with this.
    if (this.desks.get(desk.id) !== desk) return;
    this.desks.delete(desk.id);
    this.parts.keeper.forget(desk.id);
  }

  private onDesk(desk: Desk): void {
    if (desk.save.state === 'saved' && !desk.isLost) this.parts.news?.tell({ is: 'saved', book: desk.id });
    this.putAway(desk);
    this.parts.onChange();
    // What the one who took it has saved may have been told before it was known here that it was taken.
    if (desk.isLost) void this.follow(desk.id);
  }

  /** Another tab wants a book that this one holds: it goes there once all of it is on disk. */
  private async giveUp(id: string): Promise<void> {
    const desk = this.desks.get(id);
    if (!desk || desk.isLost) return;
    await desk.flush();
    if (desk.isLost) return;
    if (desk.unsaved) {
      const why = desk.save.state === 'failed' ? desk.save.why : 'it is still being written';
      this.parts.news?.tell({ is: 'kept', book: id, why });
      return;
    }
    // Whoever asked may have given up meanwhile: a book is not let go into nobody's hands.
    if (!(await this.parts.lock.awaited(id)) || desk.isLost || desk.unsaved) return;
    desk.close();
    this.parts.keeper.forget(id);
    if (desk !== this.current?.desk) this.desks.delete(id);
    this.parts.onChange();
  }

  /** Asks for a book again and again: the tab that holds it may be opening it, or busy, when it is asked first. */
  private askFor(id: string): () => void {
    let stop: () => void;
    const ask = () => {
      this.parts.news?.tell({ is: 'wanted', book: id });
      stop = this.parts.settings.after(ASK_AGAIN_MS, ask);
    };
    ask();
    return () => stop();
  }

  private dropRemoved(id: string): Promise<void> {
    return this.inTurn(async () => {
      // What is here and nowhere else stays on the screen.
      const shown = this.shown;
      if (shown?.history.book.id !== id || !shown.readOnly || shown.save.state === 'lost') return;
      this.desks.delete(id);
      this.current = null;
      this.parts.onChange();
      this.parts.onRemoved();
    });
  }

  /** Another tab saved the book that is shown here for reading: show what it saved. */
  private follow(id: string): Promise<void> {
    return this.inTurn(async () => {
      // What is here and nowhere else stays on the screen.
      const follows = () => {
        const shown = this.shown;
        return shown?.readOnly && shown.history.book.id === id && shown.save.state !== 'lost';
      };
      if (!follows()) return;
      const kept = await this.parts.keeper.open(id);
      this.parts.keeper.forget(id);
      if (!kept.ok || !follows()) return;
      this.desks.delete(id);
      this.show(null, kept);
    });
  }
}

const LEAVE_MS = 4000;
const ASK_AGAIN_MS = 700;
