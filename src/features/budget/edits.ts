import {
  minorDigits,
  numberFormatOf,
  parseAmount,
  parsePercent,
  uplift,
  ZERO,
  type Minor,
} from '@/core/money';
import { blankLine, type Book, type CellValue, type Command } from '@/core/model';
import { spreadTotal, totalCommand, type LineResult } from '@/core/plan';
import type { PeriodGroup } from '@/core/report';
import { layOver, type Place, type Rect } from '@/core/sheet';
import type { SheetColumn, SheetRow } from '@/components/sheet/types';
import type { Reckoned } from '@/store/derived';

/** What an edit of the sheet works on. */
export type EditContext = {
  readonly book: Book;
  readonly reckoned: Reckoned;
  readonly rows: readonly SheetRow[];
  readonly columns: readonly SheetColumn[];
  readonly groups: readonly PeriodGroup[];
};

export type Edit = { readonly command: Command; readonly word: string | null } | { readonly trouble: string };

/** Reads a typed or pasted amount. `+5%` and `−5%` change what stands there; a bare percentage is refused. */
function readCell(
  text: string,
  current: Minor | null,
  book: Book,
): { readonly value: Minor | null } | { readonly trouble: string } {
  const t = text.trim();
  if (t.endsWith('%')) {
    const p = /^[+\-−(]/.test(t) ? parsePercent(t) : null;
    return p === null
      ? { trouble: 'Write +5% or −5% to change what is there' }
      : { value: current === null ? null : uplift(current, p) };
  }
  const parsed = parseAmount(t, minorDigits(book.currency), numberFormatOf(book.locale));
  if (parsed.ok) return { value: parsed.value };
  if (parsed.code === 'tooManyDecimals')
    return { trouble: `${book.currency} has ${minorDigits(book.currency)} decimals at most` };
  return { trouble: parsed.code === 'tooLarge' ? 'Too large an amount' : 'Not an amount' };
}

const groupAt = (c: EditContext, column: number): PeriodGroup | null => {
  const kind = c.columns[column]?.kind;
  if (kind === 'total') return { label: '', from: 0, to: c.reckoned.facts.periods.length };
  return kind === 'amount' ? c.groups[column]! : null;
};

const lineOf = (c: EditContext, row: number) => {
  const account = c.rows[row]!.key;
  const line = c.reckoned.budget.lines[account] ?? blankLine(account);
  const blank = c.reckoned.facts.periods.map(() => null);
  const result: LineResult = c.reckoned.reckoning.lines.get(account) ?? {
    amounts: blank,
    method: blank,
    typed: [],
    total: null,
    issue: null,
  };
  return { account, line, result };
};

/** A text typed into a cell: a month, or a total to be spread. */
export function typeEdit(c: EditContext, { row, column }: Place, text: string): Edit {
  const group = groupAt(c, column);
  if (!group) return { trouble: 'This column is reckoned' };
  const { line, result } = lineOf(c, row);
  const read = readCell(text, c.rows[row]!.values[column] ?? null, c.book);
  if ('trouble' in read) return read;
  const { budget, facts } = c.reckoned;
  if (group.to - group.from > 1)
    return {
      command: totalCommand(budget.id, line, result, facts, group.from, group.to, read.value),
      word: null,
    };
  const cells = [{ account: line.account, period: facts.periods[group.from]!.id, value: read.value }];
  return {
    command: { type: 'setCells', budget: budget.id, how: read.value === null ? 'cleared' : 'typed', cells },
    word: null,
  };
}

/** Sets cells of lines and columns to values; a quarter's or year's value is spread over its months in proportion. */
function cellsFor(c: EditContext, row: number, column: number, value: Minor | null): CellValue[] {
  const group = groupAt(c, column);
  if (!group || !c.rows[row]?.enterable) return [];
  const { account, result } = lineOf(c, row);
  const months = c.reckoned.facts.periods.slice(group.from, group.to);
  const parts =
    value === null
      ? months.map(() => null)
      : months.length === 1
        ? [value]
        : spreadTotal(value, result.amounts.slice(group.from, group.to));
  return months.map((p, i) => ({ account, period: p.id, value: parts[i]! }));
}

/** Columns of a range that can be entered: the total only when no month is with it, which it would contradict. */
function enteredColumns(c: EditContext, left: number, right: number): number[] {
  const all = Array.from({ length: right - left + 1 }, (_, i) => left + i);
  const amounts = all.filter((i) => c.columns[i]?.kind === 'amount');
  return amounts.length > 0 ? amounts : all.filter((i) => c.columns[i]?.kind === 'total');
}

const lineRows = (c: EditContext, rect: Rect): number[] =>
  Array.from({ length: rect.bottom - rect.top + 1 }, (_, i) => rect.top + i).filter(
    (r) => c.rows[r]?.enterable,
  );

const many = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** A block pasted at a range. Refused whole, with the place, when one of its cells cannot be read. */
export function pasteEdit(c: EditContext, rect: Rect, block: readonly (readonly string[])[]): Edit {
  const laid = layOver(block, rect.bottom - rect.top + 1, rect.right - rect.left + 1);
  const last = Math.min(c.columns.length - 1, rect.left + Math.max(...laid.map((r) => r.length)) - 1);
  const columns = new Set(enteredColumns(c, rect.left, last));
  const cells: CellValue[] = [];
  let outside = 0;
  for (const [i, texts] of laid.entries()) {
    const row = rect.top + i;
    for (const [j, text] of texts.entries()) {
      const column = rect.left + j;
      if (!columns.has(column) || !c.rows[row]?.enterable) {
        if (c.columns[column]?.kind !== 'info' && c.columns[column]?.kind !== 'total') outside++;
        continue;
      }
      const read = readCell(text ?? '', c.rows[row]!.values[column] ?? null, c.book);
      if ('trouble' in read)
        return {
          trouble: `Nothing was pasted: row ${i + 1}, column ${j + 1} of the block holds “${text.slice(0, 40)}”. ${read.trouble}.`,
        };
      cells.push(...cellsFor(c, row, column, read.value));
    }
  }
  if (cells.length === 0) return { trouble: 'Nothing was pasted: the block meets no month of a line.' };
  const left = outside > 0 ? ` ${many(outside, 'cell')} outside the lines and months left out.` : '';
  return {
    command: { type: 'setCells', budget: c.reckoned.budget.id, how: 'pasted', cells },
    word: `Pasted ${many(cells.length, 'month')}.${left}`,
  };
}

/** Fills each line of the range to the right with its first column. */
export function fillEdit(c: EditContext, rect: Rect): Edit {
  const columns = enteredColumns(c, rect.left, rect.right);
  if (columns.length < 2) return { trouble: 'Select the month to fill from and the months to its right.' };
  const [first, ...rest] = columns;
  const cells = lineRows(c, rect).flatMap((r) =>
    rest.flatMap((col) => cellsFor(c, r, col, c.rows[r]!.values[first!] ?? null)),
  );
  return {
    command: { type: 'setCells', budget: c.reckoned.budget.id, how: 'filled', cells },
    word: `Filled ${many(cells.length, 'month')}.`,
  };
}

/** Makes the range blank. */
export function clearEdit(c: EditContext, rect: Rect): Edit {
  const cells = lineRows(c, rect).flatMap((r) =>
    enteredColumns(c, rect.left, rect.right).flatMap((col) => cellsFor(c, r, col, null)),
  );
  if (cells.length === 0) return { trouble: 'Nothing here can be made blank.' };
  return {
    command: { type: 'setCells', budget: c.reckoned.budget.id, how: 'cleared', cells },
    word: `${many(cells.length, 'month')} made blank.`,
  };
}

/** Restores the typed months of the range to what their method gives. */
export function restoreEdit(c: EditContext, rect: Rect): Edit {
  const cells = lineRows(c, rect).flatMap((r) => {
    const { account, result } = lineOf(c, r);
    return enteredColumns(c, rect.left, rect.right).flatMap((col) => {
      const g = groupAt(c, col)!;
      return c.reckoned.facts.periods
        .slice(g.from, g.to)
        .flatMap((p, i) => (result.typed[g.from + i] ? [{ account, period: p.id }] : []));
    });
  });
  if (cells.length === 0) return { trouble: 'Nothing in the selection is typed over a method.' };
  return {
    command: { type: 'restoreCells', budget: c.reckoned.budget.id, cells },
    word: `${many(cells.length, 'month')} restored to the method.`,
  };
}

/** Count and sum of the amounts in a range, for the foot of the screen. */
export function countAndSum(c: EditContext, rect: Rect): { readonly count: number; readonly sum: Minor } {
  let count = 0;
  let sum: number = ZERO;
  for (const r of lineRows(c, rect))
    for (const col of enteredColumns(c, rect.left, rect.right)) {
      const v = c.rows[r]!.values[col];
      if (v === null || v === undefined) continue;
      count++;
      sum += v;
    }
  return { count, sum: sum as Minor };
}
