import { calendarFrom } from '@/core/calendar';
import { balancesOf, type LedgerBlock } from '@/core/ledger';
import type { FileFacts } from '@/core/files';
import { applyCommand, newBook, type Book } from '@/core/model';
import {
  acceptDraft,
  basesOf,
  headsOf,
  matchAccounts,
  openDraft,
  proofOf,
  settle,
  stoodBy,
  type GuessContext,
} from '@/core/intake';
import { guessing } from './build';

export type Taken = { readonly book: Book; readonly blocks: readonly LedgerBlock[] };

/** A book with nothing in it, in euros and calendar years. */
export const EMPTY: Taken = {
  book: newBook({ id: 'k', name: 'N', currency: 'EUR', locale: 'en-US', firstMonth: 1 }),
  blocks: [],
};

/** Takes an opened file into a book as the page does; the book and its blocks after it. Null where there is nothing to take. */
export function takeFacts(file: FileFacts, into: Taken = EMPTY, change: Partial<GuessContext> = {}) {
  const { book } = into;
  const calendar = calendarFrom(book.calendar);
  const { guess, draft } = openDraft(
    file,
    0,
    { ...guessing, calendar: book.calendar, ...change },
    book.currency,
  );
  const choices = matchAccounts(draft, book.accounts);
  const balances = balancesOf(into.blocks, calendar);
  const bases = basesOf(draft.baseline, choices, balances, calendar, book.accounts);
  const settled = settle(draft, choices, book.calendar, bases);
  const proof = proofOf(draft, settled, choices, {
    calendar: book.calendar,
    fingerprint: 'f'.repeat(64),
    sheet: null,
    sources: book.sources,
    range: balances.range,
    bases,
    stood: stoodBy(draft, choices, balances, calendar, book.accounts),
  });
  const n = book.sources.length;
  const accepted = acceptDraft(book, {
    draft,
    choices,
    settled,
    format: file.format,
    heads: headsOf(file, guess.mapping),
    fileName: `f${n}`,
    fingerprint: n.toString(16).padStart(64, '0'),
    sheet: null,
    takenAt: 't',
    blockId: `l${n}`,
    replaces: [],
    closedThrough: null,
    controls: proof.controls.length,
    oneSided: proof.oneSided,
    untied: null,
    cursor: null,
  });
  if (!accepted) return null;
  const applied = applyCommand(book, accepted.command);
  return {
    proof,
    guess,
    draft,
    settled,
    refusal: applied.ok ? null : applied.refusal,
    book: applied.ok ? applied.book : book,
    blocks: [...into.blocks, accepted.block],
  };
}
