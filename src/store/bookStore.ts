import { create } from 'zustand';
import type { LedgerBlock } from '@/core/ledger';
import {
  LIMITS,
  cutText,
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
  type SetAside,
  type Step,
} from '@/core/model';
import { DEMO_FILE, DEMO_ID } from '@/demo/demoFile';
import { after, milliseconds, now, randomId } from '@/platform/clock';
import { browserKeyValue } from '@/platform/browserKeyValue';
import { browserTabLock, NO_LOCK, tabNews } from '@/platform/tabLock';
import { readSetting, writeSetting } from '@/platform/settings';
import {
  DESK_SETTINGS,
  Keeper,
  Library,
  type KeepIssue,
  type Opening,
  type SaveState,
  type ShelfItem,
  type TakingOver,
} from './keeping';
import { recordedName } from './person';
import { resetSession, say } from './session';

/** `held`: the book is open but not drawn, since drawing it did not come to an end the last time. */
export type Phase = 'loading' | 'ready' | 'held' | 'failed';

type State = {
  readonly phase: Phase;
  /** Why no book is open, as a code or the browser's own words. */
  readonly failure: string | null;
  readonly history: History | null;
  readonly blocks: ReadonlyMap<string, LedgerBlock>;
  readonly shelf: readonly ShelfItem[];
  readonly save: SaveState;
  /** Another tab holds the book: this one may only read. */
  readonly readOnly: boolean;
  /** Why what is open is not the newest state, or not all of it; empty as a rule. */
  readonly passedOver: readonly KeepIssue[];
  readonly setAside: readonly SetAside[];
  /** Books that are not shown and have changes which the storage refused so far. */
  readonly waiting: readonly { readonly id: string; readonly name: string }[];
};

const EMPTY: State = {
  phase: 'loading',
  failure: null,
  history: null,
  blocks: new Map(),
  shelf: [],
  save: { state: 'saving' },
  readOnly: false,
  passedOver: [],
  setAside: [],
  waiting: [],
};

/** The open book. Read it with selectors; change it only by the functions of this file. */
export const useBookStore = create<State>(() => EMPTY);

const set = useBookStore.setState;
const get = useBookStore.getState;

/** Where the name of a book stands while it is drawn for the first time. */
const DRAWING = 'tellan-drawing';

let keeper: Keeper | null = null;
let library: Library | null = null;
let booting: Promise<void> | null = null;
const lock = typeof navigator === 'undefined' ? null : browserTabLock();
const news = typeof BroadcastChannel === 'undefined' ? null : tabNews();

const wordOf = (error: unknown): string =>
  error instanceof Error ? error.message || error.name : String(error);

/** Opens the storage and the last book; makes the demo book on a first visit. Runs once however often it is called. */
export function boot(): Promise<void> {
  booting ??= start().catch((error: unknown) => set({ phase: 'failed', failure: wordOf(error) }));
  return booting;
}

async function start(): Promise<void> {
  keeper = new Keeper(browserKeyValue(), randomId('t'), milliseconds);
  library = new Library({
    keeper,
    lock: lock ?? NO_LOCK,
    news,
    settings: { ...DESK_SETTINGS, now, after },
    answerMs: 5000,
    onChange: mirror,
    onRemoved: () => void openNext('The book was deleted in another tab.'),
  });
  const shelf = await library.shelf();
  set({ shelf });
  if (shelf.length === 0) {
    await addDemoBook();
    return;
  }
  const last = await keeper.lastOpened();
  const order = [...shelf].sort((a, b) => Number(b.id === last) - Number(a.id === last));
  const undrawn = readSetting(DRAWING);
  const unopened: string[] = [];
  for (const { id, name } of order) {
    const opening = await library.open(id);
    if (!opening.ok) {
      unopened.push(name || id);
      continue;
    }
    shows(undrawn === id && !get().readOnly ? 'held' : 'ready');
    // Which one was wanted, and why it is not that one, must not be guessed from what is on the screen.
    if (unopened.length > 0)
      say(`Not opened: ${unopened.join(', ')}. The menu at the top says why.`, 'trouble');
    await refreshShelf();
    return;
  }
  set({ phase: 'failed', failure: 'noWholeBook' });
}

/** Shows what the library has. */
function mirror(): void {
  const shown = library!.shown;
  const waiting = library!.waiting;
  const id = shown?.history.book.id;
  // Said before it is drawn: there at the next start, the drawing never came to an end.
  if (id && id !== get().history?.book.id && get().phase === 'ready') writeSetting(DRAWING, id);
  set({
    ...(shown ?? { history: null, blocks: EMPTY.blocks, save: EMPTY.save, readOnly: false }),
    passedOver: shown?.passedOver ?? [],
    setAside: shown?.setAside ?? [],
    waiting: waiting.length === 0 && get().waiting.length === 0 ? get().waiting : waiting,
  });
}

/** Draws the book that was opened. */
function shows(phase: 'ready' | 'held' = 'ready'): void {
  const { history } = get();
  resetSession();
  if (history && phase === 'ready' && get().phase !== 'ready') writeSetting(DRAWING, history.book.id);
  set({ phase, failure: null });
  if (history) remember(history);
}

/** Has a book opened at the next start. */
function remember({ book }: History): void {
  void keeper!.rememberOpened(book.id).catch(() => undefined);
}

/** Draws a book all the same of which the drawing did not come to an end; one change earlier if so asked. */
export function drawHeld(earlier: boolean): void {
  if (earlier) undoLast();
  shows();
}

/** What was opened last is on the screen: nothing keeps it from being opened at the next start. */
export const drawn = (): void => writeSetting(DRAWING, '');

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
async function adopt(
  history: History,
  blocks: ReadonlyMap<string, LedgerBlock>,
  setAside: readonly SetAside[] = [],
): Promise<void> {
  if (!library) throw new Error('This browser refused its storage');
  // Before it is said to be saved: a tab that is closed at that moment opens it again.
  remember(history);
  await library.adopt(history, blocks, setAside);
  shows();
  await refreshShelf();
}

/** Opens a kept book; what was open stays when it cannot be. `forLooking` leaves the right to change it to others. */
export async function openKept(id: string, forLooking = false): Promise<Opening> {
  const opening = await library!.open(id, forLooking);
  if (opening.ok) shows();
  await refreshShelf();
  return opening;
}

/** Works on the open book here instead of in the other tab; `byForce` although that one has not let it go. */
export const takeOver = (byForce = false): Promise<TakingOver> => library!.takeOver(byForce);

export async function refreshShelf(): Promise<void> {
  const shelf = await library!.shelf().catch(() => null);
  if (shelf) set({ shelf });
}

/** A new empty book; its id. */
export async function createBook(spec: Omit<NewBook, 'id'>): Promise<string> {
  const id = randomId('k');
  await adopt(
    openHistory(newBook({ ...spec, id, name: cutText(spec.name, LIMITS.bookName) }), []),
    new Map(),
  );
  return id;
}

/**
 * Puts a book read from a file onto the shelf, under a new id when one of the same id is there already. `setAside` is what
 * of the file could not be kept.
 */
export async function addBook(
  book: Book,
  blocks: readonly LedgerBlock[],
  history: History,
  setAside: readonly SetAside[] = [],
): Promise<void> {
  await refreshShelf();
  const taken = get().shelf.some((s) => s.id === book.id);
  if (taken) return adoptCopy(book, blocks, setAside);
  await adopt(history, new Map(blocks.map((b) => [b.id, b])), setAside);
}

/** A copy of the open book under another name, opened. */
export async function duplicateBook(name: string): Promise<void> {
  const { history, blocks } = get();
  if (!history) return;
  await adoptCopy({ ...history.book, name: cutText(name, LIMITS.bookName) }, [...blocks.values()]);
}

/** A copy with ledger blocks of its own; its journal starts anew. */
async function adoptCopy(
  book: Book,
  blocks: readonly LedgerBlock[],
  setAside: readonly SetAside[] = [],
): Promise<void> {
  const id = randomId('k');
  const used = new Set(book.sources.map((s) => s.block));
  const owned = blocks.filter((b) => used.has(b.id));
  await adopt(openHistory({ ...book, id }, []), new Map(owned.map((b) => [b.id, b])), setAside);
}

/** Deletes a book for good and opens the next on the shelf, or a fresh demo book when none is left. */
export async function deleteBook(id: string): Promise<void> {
  try {
    if (!(await library!.remove(id)))
      return say('This book is being worked on in another tab. Close it there first.', 'trouble');
  } catch (error) {
    return say(`The book could not be deleted: ${wordOf(error)}.`, 'trouble');
  }
  await refreshShelf();
  if (!get().history) await openNext(null);
}

/** Opens the next book of the shelf, or a fresh demo book when none is left. */
async function openNext(word: string | null): Promise<void> {
  await refreshShelf();
  const { shelf } = get();
  let open = false;
  for (const { id } of shelf) if ((open = (await openKept(id)).ok)) break;
  if (!open && shelf.length === 0) await addDemoBook();
  else if (!open) set({ phase: 'failed', failure: 'noWholeBook' });
  if (word) say(word);
}

/** All that is kept of a book, whether or not it can be read. */
export const rescueBook = (id: string): Promise<Record<string, unknown>> => library!.rescue(id);

/** Does a command; the refusal when it could not be done. `block` comes with an intake; `why` goes to the journal. */
export function dispatch(command: Command, block?: LedgerBlock, why = ''): Refusal | null {
  const { history, readOnly, blocks } = get();
  if (!history) return { code: 'readOnly' };
  const step: Step = readOnly ? { ok: false, refusal: { code: 'readOnly' } } : tried(history, command, why);
  if (!step.ok) {
    sayWhy(step.refusal, history.book);
    return step.refusal;
  }
  if (step.history === history) return null;
  library!.change(step.history, block ? new Map(blocks).set(block.id, block) : blocks);
  mirror();
  return null;
}

/** Tells why a command was not done; most visits are refused nothing, so the words come with the first refusal. */
function sayWhy(refusal: Refusal, book: Book): void {
  import('./refusalWords').then(
    ({ refusalWords }) => say(refusalWords(refusal, book), 'trouble'),
    () => say('That could not be done. Nothing was changed.', 'trouble'),
  );
}

function tried(history: History, command: Command, why: string): Step {
  try {
    return perform(history, command, now(), { why: cutText(why, LIMITS.reason), by: recordedName() });
  } catch (error) {
    // A fault of the program: the book stays as it was, and the person is told.
    const fault = { path: command.type, message: wordOf(error) };
    return { ok: false, refusal: { code: 'broken', fault } };
  }
}

export const undoLast = (): void => stepTo(undo, 'taken back');
export const redoLast = (): void => stepTo(redo, 'done again');

function stepTo(step: typeof undo, what: string): void {
  const { history, readOnly } = get();
  if (!history || readOnly) return;
  const next = step(history, now(), recordedName() || undefined);
  if (next === history) {
    const any = step === undo ? history.done.length : history.undone.length;
    if (any > 0) say(`This change cannot be ${what}: the book is not as it was then.`, 'trouble');
    return;
  }
  library!.change(next);
  mirror();
}

/** Writes what is unsaved now; waits until it is on disk. */
export const flush = async (): Promise<void> => library?.flush();

/** Whether leaving now would lose something. */
export const hasUnsaved = (): boolean => library?.unsaved ?? false;

export type { KeepIssue, SaveState, ShelfItem } from './keeping';
