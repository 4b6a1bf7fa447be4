import { create } from 'zustand';
import type { LedgerBlock } from '@/core/ledger';
import {
  newBook,
  openHistory,
  perform,
  redo,
  undo,
  type Book,
  type Command,
  type History,
  type NewBook,
  type Refusal,
} from '@/core/model';
import { DEMO_FILE, DEMO_ID } from '@/demo/demoFile';
import { now, randomId } from '@/platform/clock';
import { browserKeyValue } from '@/platform/browserKeyValue';
import { browserTabLock, tabNews } from '@/platform/tabLock';
import { Keeper, type Kept, type ShelfItem } from './keeper';
import { personNow } from './person';
import { resetSession } from './session';

export type SaveState =
  | { readonly state: 'saved'; readonly at: string }
  | { readonly state: 'saving' }
  | { readonly state: 'failed'; readonly why: string };

export type Phase = 'loading' | 'ready' | 'failed';

type State = {
  readonly phase: Phase;
  /** Why opening failed, as a code or the browser's own words. */
  readonly failure: string | null;
  readonly history: History | null;
  readonly blocks: ReadonlyMap<string, LedgerBlock>;
  readonly shelf: readonly ShelfItem[];
  readonly save: SaveState;
  /** Another tab holds the book: this one may only read. */
  readonly readOnly: boolean;
};

const EMPTY: State = {
  phase: 'loading',
  failure: null,
  history: null,
  blocks: new Map(),
  shelf: [],
  save: { state: 'saving' },
  readOnly: false,
};

/** The open book. Read it with selectors; change it only by the functions of this file. */
export const useBookStore = create<State>(() => EMPTY);

const set = useBookStore.setState;
const get = useBookStore.getState;

/** A save follows a change by this much, so that a burst of typing is one write and a second never passes unsaved. */
const SAVE_AFTER_MS = 250;

let keeper: Keeper | null = null;
let booting: Promise<void> | null = null;
const lock = typeof navigator === 'undefined' ? null : browserTabLock();
const news = typeof BroadcastChannel === 'undefined' ? null : tabNews();

/** Opens the storage and the last book; makes the demo book on a first visit. Runs once however often it is called. */
export function boot(): Promise<void> {
  booting ??= start().catch((error: unknown) => {
    set({ phase: 'failed', failure: error instanceof Error ? error.message : String(error) });
  });
  return booting;
}

async function start(): Promise<void> {
  keeper = new Keeper(browserKeyValue());
  news?.listen((id) => void followOtherTab(id));
  const shelf = await keeper.shelf();
  if (shelf.length === 0) {
    await addDemoBook();
    return;
  }
  const last = await keeper.lastOpened();
  const order = [...shelf].sort((a, b) => Number(b.id === last) - Number(a.id === last));
  for (const { id } of order) if (await openKept(id)) return;
  set({ phase: 'failed', failure: 'noWholeBook', shelf });
}

/** Puts the demo book that ships onto the shelf, as a book of its own, and opens it. */
export async function addDemoBook(): Promise<void> {
  const [{ parseBookFile }, answer] = await Promise.all([
    import('@/core/exchange/bookJson'),
    fetch(DEMO_FILE),
  ]);
  if (!answer.ok) throw new Error(`The demo book could not be loaded (${answer.status})`);
  // The book and its blocks get ids of their own: two demo books may stand on one shelf.
  const text = (await answer.text()).replaceAll(DEMO_ID, randomId('demo-'));
  const read = parseBookFile(text);
  if (!read.ok) throw new Error(`The demo book cannot be read (${read.issue.code})`);
  await adopt(openHistory(read.book, read.journal), new Map(read.blocks.map((b) => [b.id, b])));
}

/** Puts a book that was just made or read from a file onto the shelf and opens it. */
async function adopt(history: History, blocks: ReadonlyMap<string, LedgerBlock>): Promise<void> {
  await flush();
  await hold(history.book.id, false);
  resetSession();
  set({ phase: 'ready', failure: null, history, blocks, save: { state: 'saving' } });
  await write();
  await refreshShelf();
  await keeper!.rememberOpened(history.book.id).catch(() => undefined);
}

/** Opens a kept book; false when no whole state of it is there. */
export async function openKept(id: string): Promise<boolean> {
  await flush();
  const kept = await keeper!.open(id);
  if (!kept.ok) {
    set({ failure: kept.issue.code });
    return false;
  }
  await hold(id, false);
  resetSession();
  show(kept);
  await keeper!.rememberOpened(id).catch(() => undefined);
  await refreshShelf();
  return true;
}

const show = (kept: Extract<Kept, { ok: true }>) =>
  set({
    phase: 'ready',
    failure: null,
    history: kept.history,
    blocks: kept.blocks,
    save: { state: 'saved', at: kept.savedAt },
  });

async function hold(id: string, steal: boolean): Promise<void> {
  const mine = lock ? await lock.acquire(id, steal, () => set({ readOnly: true })) : true;
  set({ readOnly: !mine });
}

/** Takes the book over from the other tab, at the state that tab saved last. */
export async function takeOver(): Promise<void> {
  const id = get().history?.book.id;
  if (!id) return;
  await hold(id, true);
  const kept = await keeper!.open(id);
  if (kept.ok) show(kept);
}

async function followOtherTab(id: string): Promise<void> {
  if (!get().readOnly || get().history?.book.id !== id) return;
  const kept = await keeper!.open(id);
  if (kept.ok && get().readOnly) show(kept);
}

export const refreshShelf = async (): Promise<void> => set({ shelf: await keeper!.shelf() });

/** A new empty book; its id. */
export async function createBook(spec: Omit<NewBook, 'id'>): Promise<string> {
  const id = randomId('k');
  await adopt(openHistory(newBook({ ...spec, id }), []), new Map());
  return id;
}

/** Puts a book read from a file onto the shelf, under a new id when one of the same id is there already. */
export async function addBook(book: Book, blocks: readonly LedgerBlock[], history: History): Promise<void> {
  const taken = get().shelf.some((s) => s.id === book.id);
  if (taken) return adoptCopy(book, blocks);
  await adopt(history, new Map(blocks.map((b) => [b.id, b])));
}

/** A copy of the open book under another name, opened. */
export async function duplicateBook(name: string): Promise<void> {
  const { history, blocks } = get();
  if (!history) return;
  await adoptCopy({ ...history.book, name }, [...blocks.values()]);
}

/** A copy owns its ledger blocks, so that deleting one book never takes another's entries; its journal starts anew. */
async function adoptCopy(book: Book, blocks: readonly LedgerBlock[]): Promise<void> {
  const id = randomId('k');
  const renamed = new Map(blocks.map((b) => [b.id, { ...b, id: randomId('l') }]));
  const sources = book.sources.map((s) => ({ ...s, block: renamed.get(s.block)!.id }));
  const used = sources.map((s) => s.block);
  const owned = [...renamed.values()].filter((b) => used.includes(b.id));
  await adopt(openHistory({ ...book, id, sources }, []), new Map(owned.map((b) => [b.id, b])));
}

/** Deletes a book for good and opens the next on the shelf, or a fresh demo book when none is left. */
export async function deleteBook(id: string): Promise<void> {
  await flush();
  const others = (await keeper!.shelf()).filter((s) => s.id !== id);
  await keeper!.remove(id);
  if (get().history?.book.id === id) {
    set({ history: null });
    for (const other of others) if (await openKept(other.id)) return;
    await addDemoBook();
  }
  await refreshShelf();
}

/** Does a command; the refusal when it could not be done. `block` comes with an intake; `why` goes to the journal. */
export function dispatch(command: Command, block?: LedgerBlock, why = ''): Refusal | null {
  const { history, readOnly, blocks } = get();
  if (!history || readOnly) return { code: 'readOnly' };
  const step = perform(history, command, now(), { why, by: personNow().name });
  if (!step.ok) return step.refusal;
  if (step.history === history) return null;
  set({ history: step.history, blocks: block ? new Map(blocks).set(block.id, block) : blocks });
  saveSoon();
  return null;
}

export function undoLast(): void {
  stepTo(undo);
}

export function redoLast(): void {
  stepTo(redo);
}

function stepTo(step: (history: History, at: string, by?: string) => History): void {
  const { history, readOnly } = get();
  if (!history || readOnly) return;
  const next = step(history, now(), personNow().name || undefined);
  if (next === history) return;
  set({ history: next });
  saveSoon();
}

let timer: ReturnType<typeof setTimeout> | null = null;
let writing: Promise<void> | null = null;

function saveSoon(): void {
  set({ save: { state: 'saving' } });
  timer ??= setTimeout(() => void write(), SAVE_AFTER_MS);
}

/** Writes what is unsaved now; waits until it is on disk. */
export async function flush(): Promise<void> {
  if (timer) await write();
  else await writing;
}

async function write(): Promise<void> {
  if (timer) clearTimeout(timer);
  timer = null;
  await writing;
  const { history, blocks } = get();
  if (!history || get().readOnly) return;
  writing = (async () => {
    try {
      const at = now();
      await keeper!.save(history, blocks, at);
      // A change made meanwhile has its own save coming.
      if (get().history === history) set({ save: { state: 'saved', at } });
      news?.tell(history.book.id);
    } catch (error) {
      set({
        save: { state: 'failed', why: error instanceof Error ? error.message || error.name : String(error) },
      });
    }
  })();
  await writing;
  writing = null;
}

/** Whether leaving now would lose something. */
export const hasUnsaved = (): boolean =>
  get().save.state !== 'saved' && !get().readOnly && get().history !== null;
