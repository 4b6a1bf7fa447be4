import { unitOf } from '@/core/money';
import { columnLetters } from '@/core/files/columnLetters';
import type { Account, AccountId, Driver, Line, SegmentId } from '@/core/model';
import type { Facts, Figures, Reckoning } from '@/core/plan';
import { rowName, type StatementRow, type Term } from '@/core/report';

/** A cell of a workbook: a constant, or a formula with the value that it comes to. */
export type PlanCell =
  | string
  | number
  | null
  | { readonly formula: string; readonly result: number }
  | { readonly percent: number };

export type PlanSheet = {
  readonly name: string;
  readonly rows: readonly (readonly PlanCell[])[];
  /** Rows of heads, and columns before the figures. */
  readonly heads: number;
  readonly lead: number;
  /** Places of subtotals and results, to be set off. */
  readonly totals: readonly number[];
  readonly money: boolean;
};

/** What every sheet of a budget needs to know of it. */
export type PageInput = {
  readonly book: string;
  readonly title: string;
  readonly subtitle: string;
  readonly currency: string;
  readonly rows: readonly StatementRow[];
  readonly facts: Facts;
};

export type PlanInput = PageInput & {
  readonly accounts: readonly Account[];
  readonly lines: readonly Line[];
  readonly drivers: readonly Driver[];
  readonly reckoning: Reckoning;
  readonly segment: SegmentId;
  readonly methodName: (line: Line) => string;
  /** Added to the sheets' names, where a workbook holds several segments: letters, digits and spaces only. */
  readonly suffix?: string;
  /** Figures to stand in the place of what lines reckon to, as values; null or absent: lines are formulas. */
  readonly asValues?: ((account: AccountId) => Figures | null) | null;
};

/** Heads, and where the columns stand: code, line, method, percentage, amount, then the months. */
export const HEADS = 4;
export const LEAD = 5;
/** Head of the column of amounts that are said of whole years. */
export const UNPHASED = 'Unphased';
export const PERCENT = 3;
export const AMOUNT = 4;

export const at = (column: number, row: number): string => `${columnLetters(column + 1)}${row + 1}`;
export const fixed = (column: number, row: number): string => `$${columnLetters(column + 1)}${row + 1}`;

/** What every sheet of a budget begins with. */
export const headRows = (
  p: PageInput,
  title: string,
  lead: readonly string[],
  tail: readonly string[] = [],
): PlanCell[][] => [
  [p.book],
  [`${title} · ${p.currency}`],
  [p.subtitle],
  [...lead, ...p.facts.periods.map((x) => x.label), ...tail],
];

/** A sum of amounts in units of the currency without the dust of binary fractions; `unit` minor units in one. */
export const exactSum = (values: readonly number[], unit: number): number =>
  Math.round(values.reduce((a, b) => a + b, 0) * unit) / unit;

/**
 * The sheet of a budget: lines as they are given (up to their last month, and what is said of whole years where
 * `spread`), subtotals and results as formulas over them, and each row's total.
 */
export function budgetSheet(
  p: PageInput,
  name: string,
  lead: readonly string[],
  spread: boolean,
  line: (account: Account, row: number) => PlanCell[],
): PlanSheet {
  const unit = unitOf(p.currency);
  const lastMonth = LEAD + p.facts.periods.length - 1;
  const last = spread ? lastMonth + 1 : lastMonth;
  const columns = Array.from({ length: last - LEAD + 1 }, (_, i) => LEAD + i);
  const done: PlanCell[][] = [];
  const rowOf = (row: StatementRow, r: number): PlanCell[] => {
    const { label } = rowName(row);
    if (row.kind === 'section') return ['', label];
    const cells: PlanCell[] = row.kind === 'line' ? line(row.account, r) : ['', label, '', null, null];
    done[r] = cells;
    if (row.kind !== 'line') for (const c of columns) cells[c] = totalCell(row.terms, c, done, unit);
    const balance = row.kind === 'line' && p.facts.isBalance(row.account.id);
    if (balance) cells[last + 1] = { formula: at(lastMonth, r), result: valueOf(cells[lastMonth]) };
    else if (columns.some((c) => (cells[c] ?? null) !== null))
      cells[last + 1] = {
        formula: `SUM(${at(LEAD, r)}:${at(last, r)})`,
        result: exactSum(
          columns.map((c) => valueOf(cells[c])),
          unit,
        ),
      };
    else cells[last + 1] = null;
    return Array.from(cells, (c) => c ?? null);
  };
  const tail = [...(spread ? [UNPHASED] : []), 'Total'];
  return {
    name,
    rows: [
      ...headRows(p, p.title, ['Code', 'Line', ...lead], tail),
      ...p.rows.map((row, i) => rowOf(row, HEADS + i)),
    ],
    heads: HEADS,
    lead: LEAD,
    money: true,
    totals: p.rows.flatMap((r, i) => (r.kind === 'line' || r.kind === 'section' ? [] : [HEADS + i])),
  };
}

/** A total of other rows of its column, as a formula; `rows` are those written so far. */
function totalCell(
  terms: readonly Term[],
  column: number,
  rows: readonly (readonly PlanCell[] | undefined)[],
  unit: number,
): PlanCell {
  if (terms.length === 0) return null;
  const run = terms.every((t, k) => t.sign === 1 && t.row === terms[0]!.row + k);
  const formula = run
    ? `SUM(${at(column, HEADS + terms[0]!.row)}:${at(column, HEADS + terms.at(-1)!.row)})`
    : terms.map((t, k) => `${t.sign < 0 ? '-' : k ? '+' : ''}${at(column, HEADS + t.row)}`).join('');
  return {
    formula,
    result: exactSum(
      terms.map((t) => t.sign * valueOf(rows[HEADS + t.row]?.[column])),
      unit,
    ),
  };
}

export const valueOf = (cell: PlanCell | undefined): number =>
  typeof cell === 'number' ? cell : cell && typeof cell === 'object' && 'result' in cell ? cell.result : 0;
