import type { GridCell } from '@/core/files';
import type { LineRef } from '@/core/model';
import type { PeriodId } from '@/core/calendar';

/*
 * What a handed-out sheet says of itself, in words that stand in hidden cells: one for the sheet, one at each row and one
 * over each column. They travel with rows that are sorted, columns that are inserted, and sheets that are renamed, copied or
 * saved by another program.
 */

/** Whose sheet it is; the checksum tells whether its lines and months are those that were handed out. */
export type Anchor = {
  readonly book: string;
  readonly round: string;
  readonly handout: string;
  readonly checksum: string;
};

export type ColumnMark =
  | { readonly of: 'month'; readonly period: PeriodId }
  | { readonly of: 'whole' | 'spread' | 'total' | 'comment' | 'code' | 'name' | 'sense' };
export type RowMark = { readonly of: 'line'; readonly line: LineRef } | { readonly of: 'own' | 'total' };

const WORD = 'tellan';
const SIMPLE = new Set(['whole', 'spread', 'total', 'comment', 'code', 'name', 'sense']);

export const anchorText = (a: Anchor): string =>
  [WORD, 'sheet', a.book, a.round, a.handout, a.checksum].join(' ');
export const columnText = (c: ColumnMark): string =>
  c.of === 'month' ? `${WORD} month ${c.period}` : `${WORD} ${c.of}`;
export const rowText = (r: RowMark): string =>
  r.of === 'line' ? `${WORD} line ${r.line.account} ${r.line.segment ?? '-'}` : `${WORD} row ${r.of}`;

const wordsOf = (cell: GridCell | undefined): readonly string[] | null => {
  if (typeof cell !== 'string' || !cell.includes(WORD)) return null;
  const words = cell.trim().replace(/^'/, '').split(/\s+/);
  return words[0] === WORD ? words.slice(1) : null;
};

export function readAnchor(cell: GridCell | undefined): Anchor | null {
  const [of, book, round, handout, checksum] = wordsOf(cell) ?? [];
  return of === 'sheet' && book && round && handout && checksum ? { book, round, handout, checksum } : null;
}

export function readColumnMark(cell: GridCell | undefined): ColumnMark | null {
  const [of, period] = wordsOf(cell) ?? [];
  if (of === 'month') return period ? { of, period: period as PeriodId } : null;
  return of !== undefined && SIMPLE.has(of) ? ({ of } as ColumnMark) : null;
}

export function readRowMark(cell: GridCell | undefined): RowMark | null {
  const [of, what, segment] = wordsOf(cell) ?? [];
  if (of === 'line' && what && segment)
    return { of, line: { account: what, segment: segment === '-' ? null : segment } };
  return of === 'row' && (what === 'own' || what === 'total') ? { of: what } : null;
}

/** A short sum over texts (FNV-1a, 32 bits), to see that they are the same; it keeps no secret. */
export function checksumOf(texts: readonly string[]): string {
  let h = 0x811c9dc5;
  for (const c of texts.join('\n')) h = Math.imul(h ^ c.codePointAt(0)!, 0x01000193);
  return (h >>> 0).toString(16).padStart(8, '0');
}
