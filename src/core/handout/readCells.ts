import { amountOfNumber, isAmount, minor, parseAmount, type NumberFormat } from '@/core/money';
import { cellText, type GridCell } from '@/core/files';
import { cutText, LIMITS, type SaidCell } from '@/core/model';

/** A cell that says nothing. */
export const BLANK: SaidCell = { is: 'blank', amount: null, raw: '' };

/**
 * What stands in a cell where an amount belongs. A number with more decimals than the currency has is rounded half away
 * from zero, since formulas make such; a text with more is no amount. Formulas without a saved result come as `=`,
 * percentages with their sign, and days as ISO texts (see `ReadOptions.told`).
 */
export function saidIn(cell: GridCell | undefined, digits: number, format: NumberFormat): SaidCell {
  if (typeof cell === 'number') {
    const exact = amountOfNumber(cell, digits);
    if (exact.ok) return amountCell(exact.value ?? 0);
    const rounded = Math.sign(cell) * Math.round(Number((Math.abs(cell) * 10 ** digits).toPrecision(15)));
    return isAmount(rounded) ? amountCell(rounded) : other('text', String(cell));
  }
  const text = cellText(cell);
  if (text === '') return BLANK;
  if (text.startsWith('=')) return other('formula', text);
  if (/^#[A-Z0-9/!?]+!?\??$/i.test(text)) return other('error', text);
  if (/^\d{4}-\d\d-\d\d$/.test(text)) return other('date', text);
  const read = parseAmount(text.replace(/^'/, ''), digits, format);
  if (!read.ok) return other('text', text);
  if (read.percent) return other('percent', text);
  return read.value === null ? BLANK : amountCell(read.value);
}

const amountCell = (amount: number): SaidCell => ({
  is: 'amount',
  amount: minor(amount === 0 ? 0 : amount),
  raw: '',
});
const other = (is: SaidCell['is'], raw: string): SaidCell => ({
  is,
  amount: null,
  raw: cutText(raw, LIMITS.saidText),
});

/** The same with its sign turned. */
export const turnedCell = (cell: SaidCell): SaidCell =>
  cell.amount === null || cell.amount === 0 ? cell : { ...cell, amount: minor(-cell.amount) };
