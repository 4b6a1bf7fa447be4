import type { Minor } from '@/core/money';
import type { DayNumber, PeriodIndex, PeriodRange } from '@/core/calendar';
import type { AccountId, SegmentId } from '@/core/model';
import type { Sense } from '@/core/variance';
import type { StatementRow, Term } from './statement';

/** How a column follows from others of its row, so that a workbook can carry the formula. */
export type ColumnFormula =
  /** The parts of a span, and what is said of its years beyond them. */
  | { readonly op: 'sum'; readonly of: readonly string[]; readonly beyond?: string }
  | { readonly op: 'minus'; readonly left: string; readonly right: string }
  | { readonly op: 'share'; readonly part: string; readonly of: string };

export type ReportColumn = {
  readonly key: string;
  /** What of the report it belongs to, for whoever draws it: of a variance the month, the year to date, the full year. */
  readonly block?: string;
  /** Words above a group of columns, and of the column. */
  readonly group: string;
  readonly label: string;
  /** `bar` a difference in minor units that is drawn, and left out of files;
   `money` in minor units; `perMille` in tenths of a percent; `sense` F or U; `text` words. */
  readonly kind: 'money' | 'perMille' | 'sense' | 'text' | 'bar';
  readonly of: 'actual' | 'plan' | 'outlook' | 'difference' | 'prior' | 'note';
  readonly formula: ColumnFormula | null;
  /** Words so short that they stand in the table of a document too; others stand behind it. */
  readonly short?: true;
  /** Its figures are ratios: those of a total are not the sum of those of its rows. */
  readonly ratio?: boolean;
  /** How its figures come about, in the open. */
  readonly hint?: string;
  /** The column of the layout that it was made from. */
  readonly place?: number;
  /** The periods of its span. */
  readonly periods?: PeriodRange;
  /** The periods that it is of, where what is compared says nothing of some of them. */
  readonly only?: readonly PeriodIndex[];
  /** Why it is of those alone. */
  readonly lacks?: string;
  /** It is of one value of the layout's axis, beside the whole. */
  readonly part?: boolean;
  /** That value; null for what is unassigned. */
  readonly scope?: SegmentId;
  /** What entries make its figures, where they do: of periods or days, of one value of the layout's axis. */
  readonly opens?: {
    readonly range: PeriodRange;
    readonly days: { readonly first: DayNumber; readonly last: DayNumber } | null;
    readonly scope: SegmentId | 'all';
  };
};

/** `blank` only parts what stands above and below; `detail` is what a line is made of, by segment, and counts in no total. */
export type RowKind = StatementRow['kind'] | 'blank' | 'detail';

export type ReportCell = Minor | number | string | Sense | null;

/** A row of another report, by the layout that it is of. */
export type Linked = { readonly report: string; readonly row: string };

export type ReportRow = {
  readonly kind: RowKind;
  /** Stable across filters: an account id, or the name of the section or result. */
  readonly key: string;
  readonly account: AccountId | null;
  readonly code: string;
  readonly label: string;
  readonly cells: readonly ReportCell[];
  /** For totals: the rows of this table that they add. */
  readonly terms: readonly Term[];
  /** Rows of other reports of the same columns that its figures are the sum of. */
  readonly linked?: readonly Linked[];
  /** Rows that together come to the same by another way: files hold it against them, in a row of checks. */
  readonly tied?: readonly Linked[];
  /** What it grows by from one period to the next, such as the result that stands in equity by the profit of the period. */
  readonly grows?: Linked;
  /** A row that begins each column where another row ended the one before. */
  readonly carries?: number;
  /** A row of balances: a column that sums others shows the last of them instead. */
  readonly lastOf?: boolean;
  /** Whether a column that sums others sums this row; yes where nothing is said. */
  readonly addsUp?: boolean;
  /** The same of what its span begins with: the first of them. */
  readonly firstOf?: boolean;
  /** Columns whose formula does not hold here, since rows that count in this one stand apart from them. */
  readonly apart?: readonly string[];
  readonly flagged: boolean;
  /** +1 where more of it helps profit, −1 where it hurts; 0 or nothing where it does neither. */
  readonly effect?: 1 | 0 | -1;
  /** Its figures are quantities of a unit, with so many decimals, and no money. */
  readonly unit?: { readonly name: string; readonly decimals: number };
  /** The value of the layout's axis that a detail is of. */
  readonly scope?: SegmentId | 'all';
  /** The row of the layout's own that it came from. */
  readonly own?: number | null;
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
  /** The layout that it is of, by which others of one workbook refer to it. */
  readonly report?: string;
  readonly title: string;
  /** What it says, in a line. */
  readonly message?: string;
  /** What its signs mean, where it has any. */
  readonly notation?: string;
  readonly subtitle: string;
  readonly book: string;
  readonly currency: string;
  readonly columns: readonly ReportColumn[];
  readonly rows: readonly ReportRow[];
  /** So many columns were asked for that nobody reads them: none is made. */
  readonly tooWide?: number;
};

/** What stands beneath a report's title wherever it goes: what it is of, in what, and why some columns are of fewer periods. */
export const beneathTitle = ({ message, subtitle, notation, columns }: ReportTable, unit: string): string =>
  [...new Set([message ?? '', subtitle, unit, ...columns.map((c) => c.lacks ?? ''), notation ?? ''])]
    .filter(Boolean)
    .join(' · ');

/** A row as plain data: one may make its cells when it is asked for them, so each is named, and nothing else passes. */
export const plainRow = (row: ReportRow, cells = row.cells): ReportRow => ({
  kind: row.kind,
  key: row.key,
  account: row.account,
  code: row.code,
  label: row.label,
  cells,
  terms: row.terms,
  flagged: row.flagged,
  ...(row.carries === undefined ? {} : { carries: row.carries }),
  ...(row.lastOf === undefined ? {} : { lastOf: row.lastOf }),
  ...(row.linked === undefined ? {} : { linked: row.linked }),
  ...(row.tied === undefined ? {} : { tied: row.tied }),
  ...(row.grows === undefined ? {} : { grows: row.grows }),
  ...(row.addsUp === false ? { addsUp: false } : {}),
  ...(row.firstOf === undefined ? {} : { firstOf: row.firstOf }),
  ...(row.apart === undefined ? {} : { apart: row.apart }),
  ...(row.effect === undefined ? {} : { effect: row.effect }),
  ...(row.unit === undefined ? {} : { unit: row.unit }),
});

/** A report as files have it: plain data for another thread; without the columns that are only drawn, unless it draws. */
export function fileTable(table: ReportTable, draws = false): ReportTable {
  const kept = table.columns.flatMap((c, i) => (c.kind === 'bar' && !draws ? [] : [i]));
  const columns = kept.map((i) => table.columns[i]!);
  return {
    ...table,
    columns,
    rows: table.rows.map((row) =>
      plainRow(row, row.cells.length === 0 ? [] : kept.map((i) => row.cells[i] ?? null)),
    ),
  };
}

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
  liabilitiesAndEquity: 'Liabilities and equity',
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
