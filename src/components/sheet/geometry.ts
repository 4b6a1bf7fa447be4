import type { Place, Rect } from '@/core/sheet';
import type { Minor } from '@/core/money';
import type { CellFormat } from './SheetRowView';
import type { LeadColumn, SheetColumn, SheetRow } from './types';

export const ROW = 25;
export const HEAD = 34;
export const NAME = 190;
/** No scrollbar is broader. */
export const SCROLLBAR = 18;

/** A range drawn out to a place to its right or below, whichever is farther. */
export function widened(rect: Rect, to: Place): Rect {
  const [down, right] = [to.row - rect.bottom, to.column - rect.right];
  if (down <= 0 && right <= 0) return rect;
  return down > right ? { ...rect, bottom: to.row } : { ...rect, right: to.column };
}

/**
 * The grid's columns: one template for the head and every row; and where each begins, and the last ends, when there is
 * no room to spare.
 */
export function templateOf(
  lead: readonly LeadColumn[],
  columns: readonly SheetColumn[],
  { month, total }: { readonly month: number; readonly total: number },
): { readonly style: Record<string, string>; readonly starts: readonly number[] } {
  const coarse = columns.length <= 8;
  const least = columns.map(({ kind }) => (coarse ? Math.max(84, total) : kind === 'amount' ? month : total));
  const widths = columns.map(({ kind }, c) =>
    coarse ? `minmax(${least[c]!}px, 132px)` : `minmax(${least[c]!}px, ${kind === 'amount' ? 1 : 1.15}fr)`,
  );
  const starts = [NAME + lead.reduce((w, l) => w + l.width, 0)];
  for (const w of least) starts.push(starts.at(-1)! + w);
  return {
    style: {
      '--columns': `${NAME}px ${lead.map((l) => `${l.width}px`).join(' ')} ${widths.join(' ')}`,
      '--width': `max(100%, ${starts.at(-1)!}px)`,
    },
    starts,
  };
}

/** Columns as wide as their largest amount needs: a book in yen has longer figures than one in dollars. */
export function widthsFor(
  rows: readonly SheetRow[],
  columns: readonly SheetColumn[],
  format: CellFormat,
): { month: number; total: number } {
  let month = 0;
  let total = 0;
  for (const { values } of rows) {
    for (let c = 0; c < values.length; c++) {
      const v = values[c]!;
      // What is too large is written in words, which fit.
      if (Number.isNaN(v)) continue;
      if (columns[c]?.kind === 'amount') month = Math.max(month, v < 0 ? -v * 10 : v);
      else total = Math.max(total, v < 0 ? -v * 10 : v);
    }
  }
  // Digits and marks of the condensed face at 13 px, a little over their measured width, and the cell's padding.
  const width = (v: number, column: SheetColumn | undefined) => {
    const text = column ? format(Math.round(v) as Minor, column) : '';
    const digits = text.replace(/\D/g, '').length;
    return Math.ceil(digits * 6.5 + (text.length - digits) * 3.2 + 6);
  };
  return {
    month: Math.max(46, width(month, columns[0])),
    total: Math.max(
      58,
      width(
        total,
        columns.findLast((c) => c.kind !== 'amount'),
      ),
    ),
  };
}
