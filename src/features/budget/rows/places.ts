import type { Selection } from '@/core/sheet';

/** The first row that can be entered. */
export const firstLine = (rows: readonly { readonly enterable: boolean }[]): number =>
  Math.max(
    0,
    rows.findIndex((r) => r.enterable),
  );

/** The first column that can be entered. */
export const firstMonth = (columns: readonly { readonly kind: string }[]): number =>
  Math.max(
    0,
    columns.findIndex((c) => c.kind !== 'info'),
  );

/** A set with one of its members taken out, or put in. */
export function toggled(set: ReadonlySet<string>, key: string): ReadonlySet<string> {
  const out = new Set(set);
  if (!out.delete(key)) out.add(key);
  return out;
}

/** A selection kept within a sheet that has become smaller. */
export function within(s: Selection, rows: number, columns: number): Selection {
  const fit = (p: Selection['focus']) => ({
    row: Math.min(p.row, Math.max(0, rows - 1)),
    column: Math.min(p.column, Math.max(0, columns - 1)),
  });
  const fits = (p: Selection['focus']) => p.row < rows && p.column < columns;
  return fits(s.anchor) && fits(s.focus) ? s : { anchor: fit(s.anchor), focus: fit(s.focus) };
}
