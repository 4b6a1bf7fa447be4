import type { Minor } from '@/core/money';
import type { AccountId } from '@/core/model';
import type { Sense } from '@/core/variance';
import type { StatementRow, Term } from './statement';

/** How a column follows from others of its row, so that a workbook can carry the formula. */
export type ColumnFormula =
  | { readonly op: 'sum'; readonly of: readonly string[] }
  | { readonly op: 'minus'; readonly left: string; readonly right: string }
  | { readonly op: 'share'; readonly part: string; readonly of: string };

export type ReportColumn = {
  readonly key: string;
  /** What of the report it belongs to, for whoever draws it: of a variance the month, the year to date, the full year. */
  readonly block?: string;
  /** Words above a group of columns, and of the column. */
  readonly group: string;
  readonly label: string;
  /** `money` in minor units; `perMille` in tenths of a percent; `sense` F or U; `text` words. */
  readonly kind: 'money' | 'perMille' | 'sense' | 'text';
  readonly of: 'actual' | 'plan' | 'outlook' | 'difference' | 'prior' | 'note';
  readonly formula: ColumnFormula | null;
};

export type ReportCell = Minor | number | string | Sense | null;

export type ReportRow = {
  readonly kind: StatementRow['kind'];
  /** Stable across filters: an account id, or the name of the section or result. */
  readonly key: string;
  readonly account: AccountId | null;
  readonly code: string;
  readonly label: string;
  readonly cells: readonly ReportCell[];
  /** For totals: the rows of this table that they add. */
  readonly terms: readonly Term[];
  /** A row that begins each column where another row ended the one before. */
  readonly carries?: number;
  /** A row of balances: a column that sums others shows the last of them instead. */
  readonly lastOf?: boolean;
  /** Columns whose formula does not hold here, since rows that count in this one stand apart from them. */
  readonly apart?: readonly string[];
  readonly flagged: boolean;
};

const places = new WeakMap<readonly ReportColumn[], ReadonlyMap<string, number>>();

/** A row's cell in the column of this key; null where the report has no such column. */
export function cellOf({ columns }: Pick<ReportTable, 'columns'>, row: ReportRow, key: string): ReportCell {
  let table = places.get(columns);
  if (!table) places.set(columns, (table = new Map(columns.map((c, i) => [c.key, i]))));
  return row.cells[table.get(key) ?? -1] ?? null;
}

/** One report as data: the screen and every file draw this, so they cannot disagree. */
export type ReportTable = {
  readonly title: string;
  readonly subtitle: string;
  readonly book: string;
  readonly currency: string;
  readonly columns: readonly ReportColumn[];
  readonly rows: readonly ReportRow[];
};

/** The trade's names of sections and results. */
export const ROW_NAMES = {
  income: 'Income',
  costOfSales: 'Cost of sales',
  expense: 'Expenses',
  otherIncome: 'Other income',
  otherExpense: 'Other expenses',
  grossMargin: 'Gross margin',
  operatingProfit: 'Operating profit',
  netProfit: 'Net profit',
  assets: 'Assets',
  liabilities: 'Liabilities',
  equity: 'Equity',
  netAssets: 'Net assets',
  outsideEquity: 'Result not yet in equity',
} as const;

/** Key and label of a statement row. */
export function rowName(row: StatementRow): { readonly key: string; readonly label: string } {
  switch (row.kind) {
    case 'line':
      return { key: row.account.id, label: row.account.name };
    case 'section':
      return { key: `section-${row.section}`, label: ROW_NAMES[row.section] };
    case 'group':
      return { key: `group-${row.section}-${row.group}`, label: `Total ${row.group}` };
    case 'subtotal':
      return { key: `total-${row.section}`, label: `Total ${ROW_NAMES[row.section].toLowerCase()}` };
    case 'result':
      return { key: row.result, label: ROW_NAMES[row.result] };
  }
}
