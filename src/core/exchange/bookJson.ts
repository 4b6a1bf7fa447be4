import { z } from 'zod';
import { bookSchema, openBook, type Book, type Change, type OpenIssue } from '@/core/model';
import { MARKS, packTexts, unpackTexts, type LedgerBlock } from '@/core/ledger';

const column = z.array(z.int());
const blockSchema = z.strictObject({
  id: z.string(),
  count: z.int().min(0),
  /** Days since 1970-01-01. */
  day: column,
  /** Place in `accounts`. */
  account: column,
  /** Minor units, debits positive. */
  amount: column,
  /** Row of the file, from 1. */
  row: column,
  /** Places in `texts`. */
  counterparty: column,
  reference: column,
  memo: column,
  /** 0 activity, 1 opening, 2 year-end closing. Absent in older files: all activity. */
  mark: column.optional(),
  segments: z
    .array(z.strictObject({ name: z.string(), values: z.array(z.string()), place: column }))
    .optional(),
  accounts: z.array(z.string()),
  texts: z.array(z.string()),
});

const patch = z.looseObject({
  op: z.enum(['add', 'remove', 'replace']),
  path: z.array(z.union([z.string(), z.number()])),
});
const changeSchema = z.union([
  z.strictObject({
    seq: z.int(),
    at: z.string(),
    type: z.enum(['undo', 'redo']),
    of: z.int(),
    by: z.string().optional(),
  }),
  z.strictObject({
    seq: z.int(),
    at: z.string(),
    type: z.string(),
    why: z.string().optional(),
    by: z.string().optional(),
    how: z.string().optional(),
    version: z.int().optional(),
    patches: z.array(patch),
    inverse: z.array(patch),
  }),
]);

/** The `.tellan.json` file: the book, its ledger blocks in columns, and its journal. */
export const bookFileSchema = z.strictObject({
  format: z.literal('tellan.file'),
  version: z.literal(1),
  book: bookSchema,
  ledger: z.array(blockSchema),
  journal: z.array(changeSchema),
});

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
  ({ readonly ok: true } & WholeBook) | { readonly ok: false; readonly issue: BookFileIssue };

/** Opens a `.tellan.json` text; every part is checked, and nothing is given when any part is wrong. */
export function parseBookFile(text: string): BookFileRead {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return { ok: false, issue: { code: 'notJson' } };
  }
  if (typeof raw !== 'object' || raw === null || (raw as { format?: unknown }).format !== 'tellan.file')
    return { ok: false, issue: { code: 'notABook' } };
  const opened = openBook((raw as { book?: unknown }).book);
  if (!opened.ok) return opened;
  const parsed = bookFileSchema.safeParse({ ...raw, book: opened.book });
  if (!parsed.success) {
    const first = parsed.error.issues[0]!;
    return { ok: false, issue: { code: 'invalid', path: first.path.join('.'), message: first.message } };
  }
  const blocks: LedgerBlock[] = [];
  for (const b of parsed.data.ledger) {
    const mark = b.mark ?? new Array<number>(b.count).fill(0);
    const segments = b.segments ?? [];
    const columns = [b.day, b.account, b.amount, b.row, b.counterparty, b.reference, b.memo, mark];
    const inside = (list: readonly number[], limit: number) => list.every((i) => i >= 0 && i < limit);
    const sound =
      columns.every((c) => c.length === b.count) &&
      inside(b.account, b.accounts.length) &&
      inside(mark, MARKS.length) &&
      segments.every((s) => s.place.length === b.count && inside(s.place, s.values.length)) &&
      [b.counterparty, b.reference, b.memo].every((c) => inside(c, b.texts.length));
    if (!sound) return { ok: false, issue: { code: 'brokenLedger', block: b.id } };
    blocks.push({
      ...b,
      day: Int32Array.from(b.day),
      account: Int32Array.from(b.account),
      amount: Float64Array.from(b.amount),
      row: Int32Array.from(b.row),
      counterparty: Int32Array.from(b.counterparty),
      reference: Int32Array.from(b.reference),
      memo: Int32Array.from(b.memo),
      mark: Uint8Array.from(mark),
      segments: segments.map((s) => ({ ...s, place: Int32Array.from(s.place) })),
      texts: packTexts(b.texts),
    });
  }
  const held = new Set(blocks.map((b) => b.id));
  const missing = opened.book.sources.find((s) => !held.has(s.block));
  if (missing) return { ok: false, issue: { code: 'brokenLedger', block: missing.block } };
  return { ok: true, book: opened.book, blocks, journal: parsed.data.journal as unknown as Change[] };
}

/** The JSON Schema (draft 2020-12) of the file, for other programs. */
export const bookFileJsonSchema = (): unknown =>
  z.toJSONSchema(bookFileSchema, { target: 'draft-2020-12', io: 'input' });
