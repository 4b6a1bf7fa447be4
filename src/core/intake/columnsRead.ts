import { cellText, type GridCell } from '@/core/files';
import { parseDate } from './dates';
import type { BalanceRole, EntryRole, Mapping, MonthsRole } from './mapping';
import { looksLikeAmount } from './numbers';

/** What a column of a file is taken for. */
export type ColumnRead = {
  /** Place in the row, from 0. */
  readonly column: number;
  readonly head: string;
  readonly role: EntryRole | MonthsRole | BalanceRole;
  /** The first texts in it that differ from each other. */
  readonly texts: readonly string[];
  /** It is left out, and its texts come again and again as those of a segment do. */
  readonly mayBeSegment: boolean;
};

const TEXTS = 3;

/** Columns that hold something, as a mapping reads them; `rows` are the first rows of the sheet, heads and all. */
export function columnsRead(mapping: Mapping, rows: readonly (readonly GridCell[])[]): ColumnRead[] {
  const { headerRow, columns, shape } = mapping;
  const heads = rows[headerRow] ?? [];
  const body = rows.slice(headerRow + 1);
  return columns.flatMap((role, column): ColumnRead[] => {
    const cells = body.map((r) => cellText(r[column])).filter((t) => t !== '');
    const head = cellText(heads[column]);
    if (head === '' && cells.length === 0) return [];
    const different = [...new Set(cells)];
    const as = typeof role === 'string' ? role : role.as;
    return [
      {
        column,
        head,
        role,
        texts: different.slice(0, TEXTS),
        mayBeSegment:
          shape === 'entries' &&
          as === 'ignore' &&
          different.length >= 2 &&
          different.length * 2 <= cells.length &&
          !different.some(
            (t) => looksLikeAmount(t) || parseDate(t, 'dmy') !== null || parseDate(t, 'mdy') !== null,
          ),
      },
    ];
  });
}
