import { countText } from '@/store/format';
import {
  mostAmountText,
  numberFormatOf,
  readTyped,
  parsePercent,
  typedDigits,
  uplift,
  ZERO,
  type Minor,
} from '@/core/money';
import { blankLine, type Book, type CellValue, type Command, type Line, type LineRef } from '@/core/model';
import { spreadTotal, totalCommand, typedBeyond, type LineResult } from '@/core/plan';
import { layOver, type Place, type Rect } from '@/core/sheet';
import type { Reckoned } from '@/core/ground';
import type { WorkColumn, WorkRow } from '../rows/worksheetRows';

/** What an edit of the sheet works on. */
export type EditContext = {
  readonly book: Book;
  readonly reckoned: Reckoned;
  readonly rows: readonly WorkRow[];
  readonly columns: readonly WorkColumn[];
  readonly line: (ref: LineRef) => Line | undefined;
};

/** A command with a word about it, and what may be meant instead; or what is in its way. */
export type Edit =
  | { readonly command: Command; readonly word: string | null; readonly otherwise?: Otherwise }
  | { readonly trouble: string };

/** What someone may have meant instead, done after the command. */
export type Otherwise = {
  readonly label: string;
  readonly commands: readonly Command[];
  /** What is said once it is done. */
  readonly done: string;
};

type How = Extract<Command, { type: 'setCells' }>['how'];

const ADDED_UP = 'Segments are added up here. Choose one segment to change its figures.';

/** Reads a typed or pasted amount. `+5%` and `−5%` change what stands there; a bare percentage is refused. */
export function readCell(
  text: string,
  current: Minor | null,
  book: Book,
): { readonly value: Minor | null; readonly said?: string } | { readonly trouble: string } {
  const t = text.trim();
  const p = /^=?[+\-−(]/.test(t) && t.endsWith('%') ? parsePercent(t.replace(/^=/, '')) : null;
  if (p !== null) return { value: current === null ? null : uplift(current, p), said: t };
  if (/^[\d.,\s]+%$/.test(t)) return { trouble: 'Write +5% or −5% to change what is there' };
  // A sheet in thousands is typed in thousands.
  const digits = typedDigits(book.currency, book.settings.thousands);
  const parsed = readTyped(t, digits, numberFormatOf(book.locale));
  if (parsed.ok && !parsed.percent) return { value: parsed.value, ...(parsed.sum ? { said: t } : {}) };
  if (!parsed.ok && parsed.code === 'tooManyDecimals')
    return {
      trouble: `${book.settings.thousands ? `In thousands, ${book.currency}` : book.currency} has ${digits} decimals at most`,
    };
  return {
    trouble:
      !parsed.ok && parsed.code === 'tooLarge'
        ? `${mostAmountText(book.currency, book.locale)} is the most that an amount can be`
        : 'Not an amount, nor a sum such as 52000/12',
  };
}

/** The periods that a column stands for, where it can be entered. */
export const spanAt = (c: EditContext, column: number) => {
  const col = c.columns[column];
  return col && col.kind !== 'info' ? col.span : null;
};

/** The line behind a row with its result, blank where it has none yet; null where no line can be changed. */
export function lineAt(
  c: EditContext,
  row: number,
): { readonly ref: LineRef; readonly line: Line; readonly result: LineResult } | null {
  const ref = c.rows[row]?.ref;
  if (!ref) return null;
  return {
    ref,
    line: c.line(ref) ?? blankLine(ref),
    result: c.reckoned.reckoning.lines.get(ref) ?? nothingSaid(c),
  };
}

/** The result of a line that says nothing. */
function nothingSaid({ reckoned }: EditContext): LineResult {
  const blank = reckoned.facts.periods.map(() => null);
  return { amounts: blank, method: blank, typed: [], wholes: [], total: null, issue: null };
}

/** A text typed into a cell: a month, or a total to be spread. */
export function typeEdit(c: EditContext, { row, column }: Place, text: string): Edit {
  const span = spanAt(c, column);
  if (!span) return { trouble: 'This column is reckoned' };
  const at = lineAt(c, row);
  if (!at) return { trouble: ADDED_UP };
  const read = readCell(text, c.rows[row]!.values[column] ?? null, c.book);
  if ('trouble' in read) return read;
  const { budget, facts } = c.reckoned;
  if (span.to - span.from > 1 || c.columns[column]!.kind === 'total') {
    const total = (among: 'free' | 'all') =>
      withSaid(
        totalCommand(budget.id, at.line, at.result, facts, span.from, span.to, read.value, among),
        read.said,
      );
    const beyond =
      read.value !== null &&
      typedBeyond(read.value, at.result, facts, at.ref.account, span.from, span.to) !== null;
    return {
      command: total('free'),
      word: beyond
        ? 'Months that were typed come to more than this: the others make up for it, below zero.'
        : null,
      ...(beyond && {
        otherwise: {
          label: 'Divide it over all of them',
          commands: [total('all')],
          done: 'All months have their part of it, those that were typed as well.',
        },
      }),
    };
  }
  const cells = [{ ...at.ref, period: facts.periods[span.from]!.id, value: read.value }];
  const how = read.value === null ? 'cleared' : 'typed';
  return {
    command: withSaid({ type: 'setCells', budget: budget.id, how, cells }, read.said),
    word: null,
    ...onTopInstead(c, at, span.from, read.value),
  };
}

/** Over a month that schedules, terms or the credit line make, an amount may be meant instead of theirs, or on top. */
function onTopInstead(
  { reckoned: { budget, facts, reckoning } }: EditContext,
  { ref, line }: NonNullable<ReturnType<typeof lineAt>>,
  month: number,
  value: Minor | null,
): { readonly word?: string; readonly otherwise?: Otherwise } {
  const { method } = line;
  if (method.kind !== 'schedule' || value === null || facts.isBalance(ref.account)) return {};
  const made = reckoning.scheduled(ref)?.[month] ?? 0;
  if (made === 0) return {};
  const period = facts.periods[month]!.id;
  return {
    word: 'Instead of what makes this month.',
    otherwise: {
      label: 'Put it on top',
      done: 'On top of what is made, from now on.',
      commands: [
        { type: 'restoreCells', budget: budget.id, cells: [{ ...ref, period }] },
        {
          type: 'setMethods',
          budget: budget.id,
          lines: [{ ...ref, method: { ...method, beside: { ...method.beside, [period]: value } } }],
        },
      ],
    },
  };
}

/** What was typed stays with the change, where its figures do not show it. */
const withSaid = (command: Command, said: string | undefined): Command =>
  said && (command.type === 'setCells' || command.type === 'setMethods') ? { ...command, said } : command;

export const cellsEdit = (
  c: EditContext,
  how: How,
  cells: readonly CellValue[],
  word: string | null,
): Edit => ({ command: { type: 'setCells', budget: c.reckoned.budget.id, how, cells }, word });

/** A line's months of a column set to a value; a quarter's or year's value is spread over them in proportion. */
export function cellsFor(c: EditContext, row: number, column: number, value: Minor | null): CellValue[] {
  const span = spanAt(c, column);
  const at = lineAt(c, row);
  if (!span || !at) return [];
  const { facts } = c.reckoned;
  // A balance is one at the end of the span, and is not divided.
  const from = facts.isBalance(at.ref.account) && value !== null ? span.to - 1 : span.from;
  const months = facts.periods.slice(from, span.to);
  const parts =
    value === null
      ? months.map(() => null)
      : months.length === 1
        ? [value]
        : spreadTotal(value, at.result.amounts.slice(from, span.to));
  return months.map((p, i) => ({ ...at.ref, period: p.id, value: parts[i]! }));
}

/** Columns of a range that can be entered: the total only when no month is with it, which it would contradict. */
export function enteredColumns(c: EditContext, left: number, right: number): number[] {
  const all = Array.from({ length: right - left + 1 }, (_, i) => left + i);
  const amounts = all.filter((i) => c.columns[i]?.kind === 'amount');
  return amounts.length > 0 ? amounts : all.filter((i) => c.columns[i]?.kind === 'total');
}

export const lineRows = (c: EditContext, rect: Rect): number[] =>
  Array.from({ length: rect.bottom - rect.top + 1 }, (_, i) => rect.top + i).filter((r) => c.rows[r]?.ref);

/** The periods of a range, each line's alike: places in the budget, in order. */
export const periodsOf = (c: EditContext, rect: Rect): number[] =>
  enteredColumns(c, rect.left, rect.right).flatMap((col) => {
    const span = spanAt(c, col)!;
    return Array.from({ length: span.to - span.from }, (_, i) => span.from + i);
  });

export const many = (n: number, one: string): string => `${countText(n)} ${one}${n === 1 ? '' : 's'}`;

/** A block laid at a range: what would be set, and what it leaves out. Refused whole when one cell cannot be read. */
export function pastedCells(
  c: EditContext,
  rect: Rect,
  block: readonly (readonly string[])[],
): { readonly cells: CellValue[]; readonly outside: number } | { readonly trouble: string } {
  const laid = layOver(block, rect.bottom - rect.top + 1, rect.right - rect.left + 1);
  const last = Math.min(c.columns.length - 1, rect.left + Math.max(...laid.map((r) => r.length)) - 1);
  const columns = new Set(enteredColumns(c, rect.left, last));
  const cells: CellValue[] = [];
  let outside = 0;
  for (const [i, texts] of laid.entries()) {
    const row = rect.top + i;
    for (const [j, text] of texts.entries()) {
      const column = rect.left + j;
      if (!columns.has(column) || !c.rows[row]?.ref) {
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
  return { cells, outside };
}

/** A block pasted at a range. */
export function pasteEdit(c: EditContext, rect: Rect, block: readonly (readonly string[])[]): Edit {
  const pasted = pastedCells(c, rect, block);
  if ('trouble' in pasted) return pasted;
  const { cells, outside } = pasted;
  const left = outside > 0 ? ` ${many(outside, 'cell')} outside the lines and months left out.` : '';
  const lines = new Set(cells.map((x) => `${x.account} ${x.segment}`)).size;
  return cellsEdit(
    c,
    'pasted',
    cells,
    `Pasted ${many(cells.length, 'month')} of ${many(lines, 'line')}.${left}`,
  );
}

/** Fills each line of the range to the right with its first column. */
export function fillEdit(c: EditContext, rect: Rect): Edit {
  const columns = enteredColumns(c, rect.left, rect.right);
  if (columns.length < 2) return { trouble: 'Select the month to fill from and the months to its right.' };
  const [first, ...rest] = columns;
  const cells = lineRows(c, rect).flatMap((r) =>
    rest.flatMap((col) => cellsFor(c, r, col, c.rows[r]!.values[first!] ?? null)),
  );
  if (cells.length === 0) return { trouble: ADDED_UP };
  return cellsEdit(c, 'filled', cells, `Filled ${many(cells.length, 'month')}.`);
}

/** A range drawn out by its handle: to the right its months come again and again, downward its lines do. */
export function dragFillEdit(c: EditContext, from: Rect, to: Rect): Edit {
  const cells: CellValue[] = [];
  const valueAt = (r: number, col: number) => c.rows[r]?.values[col] ?? null;
  if (to.right > from.right) {
    const source = enteredColumns(c, from.left, from.right);
    const target = enteredColumns(c, from.right + 1, to.right).filter(
      (col) => c.columns[col]!.kind === 'amount',
    );
    for (const r of lineRows(c, from))
      target.forEach((col, k) => cells.push(...cellsFor(c, r, col, valueAt(r, source[k % source.length]!))));
  } else {
    const source = lineRows(c, from);
    const target = lineRows(c, { ...to, top: from.bottom + 1 });
    const columns = enteredColumns(c, from.left, from.right);
    target.forEach((r, k) => {
      for (const col of columns) cells.push(...cellsFor(c, r, col, valueAt(source[k % source.length]!, col)));
    });
  }
  if (cells.length === 0) return { trouble: 'There is no month of a line to fill there.' };
  return cellsEdit(c, 'filled', cells, `Filled ${many(cells.length, 'month')}.`);
}

/** Makes the range blank. */
export function clearEdit(c: EditContext, rect: Rect): Edit {
  const cells = lineRows(c, rect).flatMap((r) =>
    enteredColumns(c, rect.left, rect.right).flatMap((col) => cellsFor(c, r, col, null)),
  );
  if (cells.length === 0) return { trouble: 'Nothing here can be made blank.' };
  return cellsEdit(c, 'cleared', cells, `${many(cells.length, 'month')} made blank.`);
}

/** Restores the typed months of the range to what their method gives. */
export function restoreEdit(c: EditContext, rect: Rect): Edit {
  const { periods } = c.reckoned.facts;
  const months = periodsOf(c, rect);
  const cells = lineRows(c, rect).flatMap((r) => {
    const { ref, result } = lineAt(c, r)!;
    return months.flatMap((i) => (result.typed[i] ? [{ ...ref, period: periods[i]!.id }] : []));
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
  const columns = enteredColumns(c, rect.left, rect.right);
  for (let r = rect.top; r <= rect.bottom; r++) {
    if (c.rows[r]?.kind !== 'line') continue;
    for (const col of columns) {
      const v = c.rows[r]!.values[col];
      if (v === null || v === undefined) continue;
      count++;
      sum += v;
    }
  }
  return { count, sum: sum as Minor };
}

/** The lines of a range, by their place. */
export const refsIn = (c: EditContext, rect: Rect): LineRef[] =>
  lineRows(c, rect).map((r) => c.rows[r]!.ref!);
