import { enablePatches, produceWithPatches, setAutoFreeze, type Draft, type Patch } from 'immer';
import { wouldNotOpen } from '../openable';
import { patched, placedInverse, type PlacedPatch } from '../patch';
import { Refused, type Refusal } from '../refusal';
import type { Book } from '../schema';
import { bookHandlers, type BookCommand } from './book';
import { caseHandlers, type CaseCommand } from './cases';
import { cashHandlers, type CashCommand } from './cash';
import { budgetHandlers, type BudgetCommand } from './budget';
import { handoutHandlers, type HandoutCommand } from './handout';
import type { HandlersOf } from './handlers';
import { ledgerHandlers, type LedgerCommand } from './ledger';

export type { Cell, CellValue } from './budget';
export type { OwnTaken } from './handout';
export { listReplaced, taxIsUsed } from './cash';

enablePatches();
// Freezing would walk a whole budget after every key. The types are read-only, and the tests freeze.
setAutoFreeze(false);

/** Everything that can change a book. One user action is one command and one undo step. */
export type Command =
  BookCommand | LedgerCommand | BudgetCommand | CashCommand | CaseCommand | HandoutCommand;

export type CommandType = Command['type'];

export type Applied =
  | { readonly ok: true; readonly book: Book; readonly patches: Patch[]; readonly inverse: PlacedPatch[] }
  | { readonly ok: false; readonly refusal: Refusal };

/**
 * Checks and applies a command. Gives the new book with what changed and its inverse; the same book object when
 * nothing changed; or the refusal.
 */
export function applyCommand(book: Book, command: Command): Applied {
  try {
    const handler = HANDLERS[command.type] as (book: Draft<Book>, command: Command) => void;
    const [made, patches, inverse] = produceWithPatches(book, (draft) => handler(draft, command));
    // What the patches make, so that doing it again comes to the same to the letter: a key taken out and put in again is
    // for them the same key with another value, which stays where it was.
    const next = made === book ? book : patched(book, patches);
    const refusal = wouldNotOpen(book, next, patches);
    return refusal
      ? { ok: false, refusal }
      : { ok: true, book: next, patches, inverse: placedInverse(book, inverse) };
  } catch (error) {
    if (error instanceof Refused) return { ok: false, refusal: error.refusal };
    throw error;
  }
}

const HANDLERS: HandlersOf<Command> = {
  ...bookHandlers,
  ...ledgerHandlers,
  ...budgetHandlers,
  ...cashHandlers,
  ...caseHandlers,
  ...handoutHandlers,
};
