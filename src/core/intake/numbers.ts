import { parseAmount, type NumberFormat } from '@/core/money';
import type { GridCell } from '@/core/files';

const COMMA: NumberFormat = { decimal: ',', group: '.' };
const DOT: NumberFormat = { decimal: '.', group: ',' };

export type NumberGuess = { readonly format: NumberFormat; readonly sure: boolean };

/** How the file writes numbers, from cells that look like amounts; unsure when nothing in it decides. */
export function guessNumberFormat(cells: readonly GridCell[], prefer: NumberFormat): NumberGuess {
  let comma = 0;
  let dot = 0;
  let space = false;
  let apostrophe = false;
  for (const cell of cells) {
    if (typeof cell !== 'string' || !/\d/.test(cell)) continue;
    const t = cell.replace(/[^\d.,'’\s\u00a0\u2009\u202f]/g, '').trim();
    if (/\d[\s\u00a0\u2009\u202f]\d{3}/.test(t)) space = true;
    if (/\d['’]\d{3}/.test(t)) apostrophe = true;
    const last = Math.max(t.lastIndexOf(','), t.lastIndexOf('.'));
    if (last < 0) continue;
    const mark = t[last]!;
    const after = t.slice(last + 1).replace(/\D/g, '').length;
    const marks = t.split(mark).length - 1;
    const both = t.includes(',') && t.includes('.');
    // Three digits after a single mark may be thousands or decimals; anything else tells.
    const isDecimal = both ? true : marks > 1 ? false : after !== 3;
    if (!both && marks === 1 && after === 3) continue;
    if ((mark === ',') === isDecimal) comma++;
    else dot++;
  }
  const base = comma > dot ? COMMA : dot > comma ? DOT : prefer.decimal === ',' ? COMMA : DOT;
  const group = space ? ' ' : apostrophe ? "'" : base.group;
  return {
    format: { decimal: base.decimal, group },
    sure: comma !== dot || (comma === 0 && !ambiguous(cells)),
  };
}

const ambiguous = (cells: readonly GridCell[]): boolean =>
  cells.some((c) => typeof c === 'string' && /^\D*\d{1,3}[.,]\d{3}\D*$/.test(c));

/** Whether a cell is, or reads as, an amount under some number format. */
export function looksLikeAmount(cell: GridCell): boolean {
  if (typeof cell === 'number') return true;
  if (!/\d/.test(cell) && !/^\s*[-–—]\s*$/.test(cell)) return false;
  return parseAmount(cell, 6, DOT).ok || parseAmount(cell, 6, COMMA).ok;
}
