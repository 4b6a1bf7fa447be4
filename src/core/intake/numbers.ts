import { parseAmount, type Minor, type NumberFormat } from '@/core/money';
import type { GridCell } from '@/core/files';
import { cutText } from '@/core/model';

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

/** Numbers of a file that can be read two ways, with nothing in it to tell which. */
export type NumberDoubt = {
  /** One of them as it is written, and how many there are. */
  readonly sample: string;
  readonly count: number;
  /** What it would be; the likelier first. */
  readonly readings: readonly { readonly format: NumberFormat; readonly amount: Minor }[];
};

/**
 * How a file writes amounts, with the doubt that is left: “1.200” is one thousand two hundred to one and one and a fifth to
 * another. A way in which more of its cells are no amounts is not its way; and where `expected` says of a cell what it held
 * before, the way in which more of them still do is.
 */
export function numbersIn(
  cells: readonly GridCell[],
  prefer: NumberFormat,
  digits: number,
  expected: (place: number) => Minor | null = () => null,
): { readonly format: NumberFormat; readonly doubt: NumberDoubt | null } {
  const { format, sure } = guessNumberFormat(cells, prefer);
  if (sure) return { format, doubt: null };
  const other = format.decimal === '.' ? COMMA : DOT;
  const [unread, kept] = [
    [0, 0],
    [0, 0],
  ] as [[number, number], [number, number]];
  const two: { readonly text: string; readonly amounts: readonly [Minor, Minor] }[] = [];
  cells.forEach((cell, place) => {
    if (typeof cell !== 'string' || cell === '') return;
    const both = [format, other].map((f) => parseAmount(cell, digits, f));
    const amounts = both.map((p) => (p.ok && !p.percent ? p.value : null));
    if (amounts[0] === amounts[1]) return;
    const was = expected(place);
    amounts.forEach((amount, way) => {
      if (amount === null) unread[way as 0 | 1]++;
      else if (amount === was) kept[way as 0 | 1]++;
    });
    if (amounts[0] !== null && amounts[1] !== null)
      two.push({ text: cell, amounts: amounts as [Minor, Minor] });
  });
  const firstLess = unread[1] - unread[0] || kept[0] - kept[1];
  const [first] = two;
  if (firstLess !== 0) return { format: firstLess > 0 ? format : other, doubt: null };
  if (!first) return { format, doubt: null };
  return {
    format,
    doubt: {
      sample: cutText(first.text, 40),
      count: two.length,
      readings: [format, other].map((f, way) => ({ format: f, amount: first.amounts[way as 0 | 1] })),
    },
  };
}

/** Whether a cell is, or reads as, an amount under some number format. */
export function looksLikeAmount(cell: GridCell): boolean {
  if (typeof cell === 'number') return true;
  if (!/\d/.test(cell) && !/^\s*[-–—]\s*$/.test(cell)) return false;
  return parseAmount(cell, 6, DOT).ok || parseAmount(cell, 6, COMMA).ok;
}
