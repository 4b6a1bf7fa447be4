import { toDayNumber, calendarFrom, type Day } from '@/core/calendar';
import { cellText, type FileFacts, type Grid, type GridCell } from '@/core/files';
import { parseMonthHead } from './dates';
import { placeAccounts, widthOf } from './guessAccounts';
import { dayOfHead, SAMPLE, type GuessContext } from './guessContext';
import { guessNumberFormat } from './numbers';
import type { Doubt, Guess, Mapping, MonthsRole } from './mapping';

/** The columns that name a month, in the row of heads, and the side that each is of where a second row says so. */
export type MonthHeader = {
  /** The last row of heads: the row of months, or the one beneath it that says debit, credit, actual, budget. */
  readonly row: number;
  readonly days: ReadonlyMap<number, Day>;
  readonly sides: ReadonlyMap<number, 'debit' | 'credit'>;
  /** Months of another year or of another column kind beside these, left out. */
  readonly comparative: readonly number[];
  readonly noYear: boolean;
};

const TOTAL_HEAD = /^(ytd|year to date|(grand )?total|year|sum|annual|fy\s?\d+)\b/i;
const SIDE = { debit: /^(debits?|dr\.?)$/i, credit: /^(credits?|cr\.?)$/i } as const;
const ACTUAL = /^(actuals?|amount|balance|this year|current)?$/i;
const OTHER = /budget|plan|forecast|prior|last year|previous|\bpy\b|\bly\b|varian|change|diff|%/i;

export function guessMonths(file: FileFacts, sheet: number, context: GuessContext): Guess | null {
  const grid = file.grids[sheet]!;
  const header = findMonthHeader(grid, context);
  if (!header) return null;
  const width = widthOf(grid);
  const body = grid.head.slice(header.row + 1, header.row + 1 + SAMPLE);
  const firstMonth = Math.min(...header.days.keys(), ...header.comparative);
  const headOf = (i: number) =>
    cellText(grid.head[header.row]![i]) || cellText(grid.head[header.row - 1]?.[i]);
  const columns: MonthsRole[] = Array.from({ length: width }, (_, i): MonthsRole => {
    const day = header.days.get(i);
    if (day) return { as: 'month', day };
    return { as: i > 0 && TOTAL_HEAD.test(headOf(i)) ? 'total' : 'ignore' };
  });
  // A second total column is one of a comparative year: only the first is held against ours.
  let totals = 0;
  columns.forEach((c, i) => {
    if (c.as === 'total' && totals++ > 0) columns[i] = { as: 'ignore' };
  });
  placeAccounts(
    columns,
    columns.slice(0, firstMonth).flatMap((c, i) => (c.as === 'total' ? [] : [i])),
    body,
  );
  const cells = body.flatMap((r) => [...header.days.keys()].map((i) => r[i] ?? ''));
  const numbers = guessNumberFormat(cells, context.numbers);
  const doubts: Doubt[] = [];
  if (!numbers.sure) doubts.push('numbers');
  if (header.noYear) doubts.push('year');
  if (header.comparative.length > 0) doubts.push('comparative');
  return {
    mapping: {
      shape: 'months',
      delimiter: file.delimiter,
      sheet,
      headerRow: header.row,
      columns,
      numbers: numbers.format,
      sign: guessSign(body, columns),
    },
    doubts,
    keptFrom: null,
  };
}

/** Costs written as negatives beside positive income mean that the file signs by profit. */
function guessSign(body: readonly (readonly GridCell[])[], columns: readonly MonthsRole[]): Mapping['sign'] {
  const months = columns.flatMap((c, i) => (c.as === 'month' ? [i] : []));
  let negative = 0;
  let positive = 0;
  for (const row of body) {
    for (const i of months) {
      const cell = row[i];
      const text = cellText(cell);
      if (!/[1-9]/.test(text)) continue;
      if (typeof cell === 'number' ? cell < 0 : /^[\s$€£]*[-−(]|-\s*$/.test(text)) negative++;
      else positive++;
    }
  }
  return negative > (negative + positive) * 0.4 ? 'profitPositive' : 'natural';
}

/** The row, among the first forty, whose cells name the most months that follow one another. */
export function findMonthHeader(grid: Grid, context: GuessContext): MonthHeader | null {
  let best: MonthHeader | null = null;
  grid.head.slice(0, 40).forEach((_, row) => {
    const found = headerAt(grid, row, context);
    if (found && found.days.size > (best?.days.size ?? 0)) best = found;
  });
  return best;
}

function headerAt(grid: Grid, row: number, context: GuessContext): MonthHeader | null {
  const cells = grid.head[row]!;
  const calendar = calendarFrom(context.calendar);
  const heads: { column: number; day: Day; noYear: boolean }[] = [];
  cells.forEach((cell, column) => {
    const head = parseMonthHead(cell) ?? plainNumberHead(cells, column);
    const day = head && dayOfHead(head, context);
    if (day) heads.push({ column, day, noYear: head.year === null });
  });
  if (heads.length < 2) return null;
  const place = (day: Day) => calendar.indexOfDay(toDayNumber(day));
  const below = grid.head[row + 1] ?? [];
  const width = Math.max(cells.length, below.length);
  // Which month each column belongs to: a merged head names only its first column.
  const monthAt = (column: number) => heads.findLast((h) => h.column <= column);
  const sides = new Map<number, 'debit' | 'credit'>();
  const days = new Map<number, Day>();
  for (let c = heads[0]!.column; c < width; c++) {
    const text = cellText(below[c]);
    const side = SIDE.debit.test(text) ? 'debit' : SIDE.credit.test(text) ? 'credit' : null;
    const month = monthAt(c)!;
    if (side && c - month.column < 2 && (c === month.column || cellText(cells[c]) === '')) {
      sides.set(c, side);
      days.set(c, month.day);
    }
  }
  const noYear = heads.some((h) => h.noYear);
  if (sides.size > 0) return { row: row + 1, days, sides, comparative: [], noYear };
  // A second row of heads may say which columns are actuals and which are a budget or another year.
  const kinds = heads.map((h) => cellText(below[h.column]));
  const second =
    Array.from({ length: width }, (_, c) => cellText(below[c])).some((t) => OTHER.test(t)) &&
    kinds.some((k) => k !== '' && ACTUAL.test(k));
  const kept = second ? heads.filter((_, i) => ACTUAL.test(kinds[i]!)) : heads;
  const chain = longestChain(kept.map((h) => ({ ...h, place: place(h.day) })));
  // Days and amounts of an entry may look like two months; those of a statement lie within a year of one another.
  if (chain.length < 2 || chain.some((h, i) => i > 0 && Math.abs(h.place - chain[i - 1]!.place) > 13))
    return null;
  for (const h of chain) days.set(h.column, h.day);
  const comparative = heads.filter((h) => !days.has(h.column)).map((h) => h.column);
  return { row: second ? row + 1 : row, days, sides, comparative, noYear };
}

/** The numbers 1 to 12 (or 13) across a row are periods; fewer numbers may be anything. */
function plainNumberHead(cells: readonly GridCell[], column: number) {
  const n = Number(cellText(cells[column]));
  if (!Number.isInteger(n) || n < 1 || n > 13) return null;
  const first = column - n + 1;
  for (let i = 1; i <= 12; i++) if (Number(cellText(cells[first + i - 1])) !== i) return null;
  return { of: 'period' as const, period: n, year: null };
}

/**
 * All the months when each is later than the one before (some may be missing); else, since another year's stand among
 * them, the longest run of months each following the one before; of equal runs, the latest in time.
 */
function longestChain<T extends { readonly place: number }>(heads: readonly T[]): T[] {
  if (heads.every((h, i) => i === 0 || h.place > heads[i - 1]!.place)) return [...heads];
  let best: T[] = [];
  heads.forEach((start, i) => {
    const chain = [start];
    for (const h of heads.slice(i + 1)) if (h.place === chain.at(-1)!.place + 1) chain.push(h);
    const later = best.length > 0 && chain.at(-1)!.place > best.at(-1)!.place;
    if (chain.length > best.length || (chain.length === best.length && later)) best = chain;
  });
  // Months that run backwards, the latest first, are read as well.
  if (
    best.length < 2 &&
    heads.length >= 2 &&
    heads.every((h, i) => i === 0 || h.place === heads[i - 1]!.place - 1)
  )
    return [...heads];
  return best;
}
