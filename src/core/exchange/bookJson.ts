import * as z from 'zod/mini';
import { atLeast, whole } from '@/core/bounded';
import { MOST_AMOUNT } from '@/core/money';
import {
  bookSchema,
  changeSchema,
  idSchema,
  isJournal,
  openBook,
  type Book,
  type Change,
  type OpenIssue,
  type SetAside,
} from '@/core/model';
import { openBlock, packTexts, unpackTexts, type LedgerBlock } from '@/core/ledger';

/** Whole numbers that fit a column of entries. */
const column = z.array(z.int32());
const blockSchema = z.strictObject({
  id: z.string(),
  count: atLeast(0),
  /** Days since 1970-01-01. */
  day: column,
  /** Place in `accounts`. */
  account: column,
  /** Minor units, debits positive. */
  amount: z.array(whole(-MOST_AMOUNT, MOST_AMOUNT)),
  /** Row of the file, from 1. */
  row: column,
  /** Places in `texts`. */
  counterparty: column,
  reference: column,
  memo: column,
  /** 0 activity, 1 opening, 2 year-end closing. Absent in older files: all activity. */
  mark: z.optional(column),
  segments: z.optional(
    z.array(z.strictObject({ name: z.string(), values: z.array(z.string()), place: column })),
  ),
  accounts: z.array(idSchema),
  texts: z.array(z.string()),
});

/** The `.tellan.json` file: the book, its ledger blocks in columns, and its journal. */
export const bookFileSchema = z.strictObject({
  format: z.literal('tellan.file'),
  version: z.literal(1),
  book: bookSchema,
  ledger: z.array(blockSchema),
  journal: z.array(changeSchema),
});

/** The same without the book, which is brought to the present version and checked on its own. */
const partsSchema = z.strictObject({ ...bookFileSchema.shape, book: z.null() });

export type WholeBook = {
  readonly book: Book;
  readonly blocks: readonly LedgerBlock[];
  readonly journal: readonly Change[];
};

/** The whole book as JSON text; `parseBookFile` opens it identically. Blocks that no source or undo step names stay out. */
export function bookFile({ book, blocks, journal }: WholeBook): string {
  const ledger = blocks.map((b) => ({
    ...b,
    day: [...b.day],
    account: [...b.account],
    amount: [...b.amount],
    row: [...b.row],
    counterparty: [...b.counterparty],
    reference: [...b.reference],
    memo: [...b.memo],
    mark: [...b.mark],
    segments: b.segments.map((s) => ({ ...s, place: [...s.place] })),
    texts: unpackTexts(b.texts),
  }));
  return JSON.stringify({ format: 'tellan.file', version: 1, book, ledger, journal });
}

export type BookFileIssue =
  OpenIssue | { readonly code: 'notJson' } | { readonly code: 'brokenLedger'; readonly block: string };
export type BookFileRead =
  | ({ readonly ok: true } & WholeBook & { readonly setAside: readonly SetAside[] })
  | { readonly ok: false; readonly issue: BookFileIssue };

const refused = (issue: BookFileIssue): BookFileRead => ({ ok: false, issue });

/** Opens a `.tellan.json` text; every part is checked. What can be done without is set aside and told; else nothing opens. */
export function parseBookFile(text: string): BookFileRead {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return refused({ code: 'notJson' });
  }
  if (typeof raw !== 'object' || raw === null || (raw as { format?: unknown }).format !== 'tellan.file')
    return refused({ code: 'notABook' });
  try {
    return openFile(raw);
  } catch (error) {
    // Only what is nested thousands deep gets here: it overflows whatever looks through it.
    return refused({ code: 'invalid', path: '', message: error instanceof Error ? error.message : '' });
  }
}

function openFile(raw: object): BookFileRead {
  const opened = openBook((raw as { book?: unknown }).book);
  if (!opened.ok) return opened;
  const parsed = partsSchema.safeParse({ ...raw, book: null });
  if (!parsed.success) {
    const first = parsed.error.issues[0]!;
    return refused({ code: 'invalid', path: first.path.join('.'), message: first.message });
  }
  const blocks = new Map<string, LedgerBlock>();
  for (const b of parsed.data.ledger) {
    const block = b.texts[0] === '' && !blocks.has(b.id) ? openBlock(columnsOf(b)) : null;
    if (!block) return refused({ code: 'brokenLedger', block: b.id });
    blocks.set(b.id, block);
  }
  const missing = opened.book.sources.find((s) => !blocks.has(s.block));
  if (missing) return refused({ code: 'brokenLedger', block: missing.block });
  const journal: unknown = parsed.data.journal;
  if (!isJournal(journal)) return refused({ code: 'invalid', path: 'journal', message: 'not in its order' });
  return { ok: true, book: opened.book, blocks: [...blocks.values()], journal, setAside: opened.setAside };
}

const columnsOf = (b: z.infer<typeof blockSchema>): unknown => ({
  ...b,
  day: Int32Array.from(b.day),
  account: Int32Array.from(b.account),
  amount: Float64Array.from(b.amount),
  row: Int32Array.from(b.row),
  counterparty: Int32Array.from(b.counterparty),
  reference: Int32Array.from(b.reference),
  memo: Int32Array.from(b.memo),
  // A mark beyond what a byte holds must not turn into another.
  mark: b.mark && Uint8Array.from(b.mark, (m) => Math.min(255, Math.max(0, m))),
  segments: b.segments?.map((s) => ({ ...s, place: Int32Array.from(s.place) })),
  texts: packTexts(b.texts),
});
