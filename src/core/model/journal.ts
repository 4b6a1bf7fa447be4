import type { Patch } from 'immer';
import { aboutOf, type About } from './about';
import { applyCommand, type Command, type CommandType } from './commands';
import { BOOK_VERSION } from './migrate';
import { cutText } from './limits';
import { patched, type PlacedPatch } from './patch';
import { wouldNotOpen } from './openable';
import type { Refusal } from './refusal';
import type { Book } from './schema';

/** One change in a book's life. The journal only grows: an undo is a change of its own that names what it undid. */
export type Change =
  | {
      readonly seq: number;
      /** ISO 8601 instant. */
      readonly at: string;
      readonly type: CommandType;
      /** The person's reason, where one was asked for. */
      readonly why?: string;
      /** Who did it; absent while the browser knows no name. */
      readonly by?: string;
      /** How, where a command can come about in several ways: typed, pasted, filled …. */
      readonly how?: string;
      /** What was typed, where the figures do not show it: "52000/12". */
      readonly said?: string;
      /** What it was about, as it was called at the time; absent where that is the whole book, and in journals of before. */
      readonly about?: About;
      /** Version of the book's schema that the patches speak of; absent up to 2. */
      readonly version?: number;
      readonly patches: readonly Patch[];
      readonly inverse: readonly PlacedPatch[];
    }
  | {
      readonly seq: number;
      readonly at: string;
      readonly type: 'undo' | 'redo';
      readonly of: number;
      readonly by?: string;
    };

type Doing = Extract<Change, { patches: readonly Patch[] }>;

/** The book with its journal and, derived from it, what can be undone and redone (latest last). */
export type History = {
  readonly book: Book;
  readonly journal: readonly Change[];
  readonly done: readonly Doing[];
  readonly undone: readonly Doing[];
};

/**
 * A book's history from its saved journal. Changes of an older schema stay told, but their patches fit no more; nor does
 * any when the book is not quite the one that the journal led to (`fits` false).
 */
export function openHistory(book: Book, journal: readonly Change[], fits = true): History {
  if (!fits) return { book, journal, done: [], undone: [] };
  const done: Doing[] = [];
  const undone: Doing[] = [];
  for (const change of journal) {
    if (change.type === 'undo') {
      if (done.at(-1)?.seq === change.of) undone.push(done.pop()!);
    } else if (change.type === 'redo') {
      if (undone.at(-1)?.seq === change.of) done.push(undone.pop()!);
    } else if ('patches' in change) {
      if (change.version !== BOOK_VERSION) done.length = 0;
      else done.push(change);
      undone.length = 0;
    }
  }
  return { book, journal, done, undone };
}

export type Step =
  { readonly ok: true; readonly history: History } | { readonly ok: false; readonly refusal: Refusal };

/** Who does something, and why. */
export type Doer = { readonly by?: string; readonly why?: string };

/** Does a command at an instant; the same history when the command changed nothing. */
export function perform(history: History, command: Command, at: string, doer: Doer = {}): Step {
  const applied = applyCommand(history.book, command);
  if (!applied.ok) return applied;
  if (applied.book === history.book || applied.patches.length === 0) return { ok: true, history };
  const about = aboutOf(history.book, command);
  const change: Doing = {
    seq: nextSeq(history),
    at,
    type: command.type,
    ...(doer.why?.trim() ? { why: doer.why.trim() } : {}),
    ...(doer.by ? { by: doer.by } : {}),
    ...('how' in command ? { how: command.how } : {}),
    ...('said' in command && command.said ? { said: cutText(command.said, 120) } : {}),
    ...(about ? { about } : {}),
    version: BOOK_VERSION,
    patches: applied.patches,
    inverse: applied.inverse,
  };
  return {
    ok: true,
    history: {
      book: applied.book,
      journal: [...history.journal, change],
      done: [...history.done, change],
      undone: [],
    },
  };
}

/**
 * Takes back the latest change that stands; the same history when there is none, or when it cannot be taken back: a
 * journal that came in a file may hold anything.
 */
export function undo(history: History, at: string, by?: string): History {
  const last = history.done.at(-1);
  const book = last && stepped(history.book, last.inverse);
  if (!last || !book) return history;
  return {
    book,
    journal: [
      ...history.journal,
      { seq: nextSeq(history), at, type: 'undo', of: last.seq, ...(by ? { by } : {}) },
    ],
    done: history.done.slice(0, -1),
    undone: [...history.undone, last],
  };
}

/** Does again what was last undone; the same history when there is nothing, or when it cannot be done again. */
export function redo(history: History, at: string, by?: string): History {
  const last = history.undone.at(-1);
  const book = last && stepped(history.book, last.patches);
  if (!last || !book) return history;
  return {
    book,
    journal: [
      ...history.journal,
      { seq: nextSeq(history), at, type: 'redo', of: last.seq, ...(by ? { by } : {}) },
    ],
    done: [...history.done, last],
    undone: history.undone.slice(0, -1),
  };
}

/** The book after patches; null where they lead nowhere, or to what is no book that would open again. */
function stepped(book: Book, patches: readonly Patch[]): Book | null {
  try {
    const next = patched(book, patches);
    return wouldNotOpen(book, next, patches) === null ? next : null;
  } catch {
    return null;
  }
}

/**
 * Brings a document from before a change to after it, or back. `all` holds the journal's changes by number, since an
 * undo or redo only names another. Null where that one is not in it, speaks of another version than `version`, or does
 * not fit the document.
 */
export function across<T extends object>(
  doc: T,
  change: Change,
  all: ReadonlyMap<number, Change>,
  way: 'forth' | 'back',
  version: number,
): T | null {
  const patches = patchesOf(change, all, way, version);
  try {
    return patches && patched(doc, patches);
  } catch {
    return null;
  }
}

/** The book before a change of its journal; null where the change does not lead back to one that would open. */
export function bookBefore(book: Book, change: Change, all: ReadonlyMap<number, Change>): Book | null {
  const patches = patchesOf(change, all, 'back', book.version);
  return patches && stepped(book, patches);
}

function patchesOf(
  change: Change,
  all: ReadonlyMap<number, Change>,
  way: 'forth' | 'back',
  version: number,
): readonly PlacedPatch[] | null {
  const of = 'of' in change ? all.get(change.of) : change;
  if (!of || !('patches' in of) || (of.version ?? 2) !== version) return null;
  const inverse = (change.type === 'undo') === (way === 'forth');
  return inverse ? of.inverse : of.patches;
}

/**
 * A saved document, of whatever schema version, brought through the last changes of its journal, from place `from`
 * on. Null where a change is not of the document's version or its patches do not fit.
 */
export function replay<T extends { readonly version: number }>(
  saved: T,
  journal: readonly Change[],
  from: number,
): T | null {
  const all = new Map(journal.map((c) => [c.seq, c]));
  let doc: T | null = saved;
  for (const change of journal.slice(from)) doc = doc && across(doc, change, all, 'forth', saved.version);
  return doc;
}

const nextSeq = (history: History): number => (history.journal.at(-1)?.seq ?? 0) + 1;
