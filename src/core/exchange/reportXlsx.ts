import type { Cell, Worksheet } from 'exceljs';
import { minorDigits, TOO_LARGE_TEXT, unitOf } from '@/core/money';
import { columnLetters, neutralize } from '@/core/files';
import {
  beneathTitle,
  type Linked,
  type ReportCell,
  type ReportColumn,
  type ReportRow,
  type ReportTable,
} from '@/core/report';

const HEAD_ROWS = 5;
const LABEL_COLUMNS = 2;

/**
 * A report as an XLSX workbook: typed numbers in currency units, number formats, frozen heads, and live formulas
 * for totals, sums, differences and percentages, each with its value saved beside it.
 */
export const reportXlsx = (table: ReportTable): Promise<Uint8Array> => reportsXlsx([table]);

/** Several reports as one workbook, a sheet each; rows that are rows of another report refer to its sheet. */
export async function reportsXlsx(tables: readonly ReportTable[]): Promise<Uint8Array> {
  const { default: ExcelJS } = await import('exceljs');
  const workbook = new ExcelJS.Workbook();
  const names: string[] = [];
  for (const { title } of tables) names.push(freeName(sheetName(title), names));
  const placeOf = ({ report, row }: Linked, key: string) => {
    const t = tables.findIndex((x) => x.report === report);
    const r = tables[t]?.rows.findIndex((x) => x.key === row) ?? -1;
    const c = tables[t]?.columns.findIndex((x) => x.key === key) ?? -1;
    return r < 0 || c < 0 ? null : { t, r, c };
  };
  const others: Others = Object.assign(
    (linked: Linked, key: string) => {
      const at = placeOf(linked, key);
      return at && `'${names[at.t]!.replace(/'/g, "''")}'!${address(at.r, at.c)}`;
    },
    {
      value: (linked: Linked, key: string) => {
        const at = placeOf(linked, key);
        return at && (tables[at.t]!.rows[at.r]!.cells[at.c] ?? null);
      },
    },
  );
  tables.forEach((table, t) => {
    const sheet = workbook.addWorksheet(names[t]!, {
      views: [{ state: 'frozen', xSplit: LABEL_COLUMNS, ySplit: HEAD_ROWS }],
    });
    writeHead(sheet, table);
    table.rows.forEach((row, r) => writeRow(sheet, table, row, r, others));
    writeChecks(sheet, table, others);
    sheet.columns.forEach((column, i) => {
      column.width = i === 0 ? 9 : i === 1 ? 32 : table.columns[i - LABEL_COLUMNS]!.kind === 'text' ? 28 : 13;
    });
    sheet.pageSetup = {
      orientation: 'landscape',
      fitToPage: true,
      fitToWidth: 1,
      fitToHeight: 0,
      printTitlesRow: `${HEAD_ROWS - 1}:${HEAD_ROWS}`,
      printTitlesColumn: 'A:B',
    };
    // In a foot “&” begins a code: a name’s own is doubled (ECMA-376).
    const plain = (text: string) => text.replaceAll('&', '&&');
    sheet.headerFooter.oddFooter = `&L${plain(table.book)} · ${plain(table.title)}&R&P / &N`;
  });
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}

/** Where a row of another report stands, in the column of this key, and what it says; null where this workbook has it not. */
type Others = {
  (linked: Linked, column: string): string | null;
  readonly value: (linked: Linked, column: string) => ReportCell;
};

/** A name that no sheet has yet; spreadsheets do not tell capitals apart. */
function freeName(name: string, taken: readonly string[]): string {
  const has = (n: string) => taken.some((t) => t.toLowerCase() === n.toLowerCase());
  let free = name;
  for (let n = 2; has(free); n++) free = `${name.slice(0, 31 - ` ${n}`.length)} ${n}`;
  return free;
}

/**
 * A title as a sheet's name: at most 31 letters, none of those that spreadsheets keep for themselves, no apostrophe at
 * either end, and not the one name that they refuse (ECMA-376 and common practice).
 */
export function sheetName(title: string): string {
  const plain = title
    .replace(/[\\/?*[\]:\u0000-\u001f]/g, ' ')
    .slice(0, 31)
    .replace(/^[\s']+|[\s']+$/g, '');
  return plain === '' ? 'Report' : /^history$/i.test(plain) ? `${plain} report` : plain;
}

function writeHead(sheet: Worksheet, table: ReportTable): void {
  sheet.getCell(1, 1).value = neutralize(table.book);
  sheet.getCell(1, 1).font = { bold: true, size: 14 };
  sheet.getCell(2, 1).value = neutralize(table.title);
  sheet.getCell(3, 1).value = neutralize(beneathTitle(table, table.currency));
  const line = sheet.getRow(HEAD_ROWS);
  sheet.getCell(HEAD_ROWS, 1).value = 'Code';
  sheet.getCell(HEAD_ROWS, 2).value = 'Line';
  table.columns.forEach((c, i) => {
    const column = i + 1 + LABEL_COLUMNS;
    if (c.group && c.group !== table.columns[i - 1]?.group)
      sheet.getCell(HEAD_ROWS - 1, column).value = neutralize(c.group);
    sheet.getCell(HEAD_ROWS, column).value = neutralize(c.label);
    sheet.getCell(HEAD_ROWS, column).alignment = { horizontal: c.kind === 'text' ? 'left' : 'right' };
  });
  line.font = { bold: true };
  line.border = { bottom: { style: 'thin' } };
}

function writeRow(sheet: Worksheet, table: ReportTable, row: ReportRow, r: number, others: Others): void {
  const line = sheet.getRow(r + 1 + HEAD_ROWS);
  line.getCell(1).value = neutralize(row.code);
  line.getCell(2).value = neutralize(row.label);
  if (row.kind !== 'line' && row.kind !== 'detail') line.font = { bold: true };
  if (row.kind === 'detail') line.getCell(2).alignment = { indent: 2 };
  if (row.kind === 'section' || row.kind === 'blank') return;
  table.columns.forEach((column, i) =>
    writeCell(line.getCell(i + 1 + LABEL_COLUMNS), table, row, r, column, i, others),
  );
  if (row.kind === 'subtotal') line.border = { top: { style: 'thin' } };
  if (row.kind === 'result') line.border = { top: { style: 'thin' }, bottom: { style: 'double' } };
}

function writeCell(
  cell: Cell,
  table: ReportTable,
  row: ReportRow,
  r: number,
  column: ReportColumn,
  i: number,
  others: Others,
): void {
  const value = row.cells[i] ?? null;
  if (value === null || value === '') return;
  if (column.kind === 'text' || column.kind === 'sense') {
    cell.value = neutralize(String(value));
    cell.alignment = { horizontal: column.kind === 'sense' ? 'center' : 'left' };
    return;
  }
  const isMoney = column.kind === 'money';
  if (Number.isNaN(value)) {
    cell.value = TOO_LARGE_TEXT;
    return;
  }
  const unit = row.unit ? 10 ** row.unit.decimals : unitOf(table.currency);
  const number = isMoney ? Number(value) / unit : Number(value) / 1000;
  cell.numFmt = !isMoney
    ? '0.0%;-0.0%'
    : row.unit
      ? decimalFormat(row.unit.decimals)
      : moneyFormat(table.currency);
  // Where rows stand apart, a total's difference is that of its rows, not of its own two sides.
  const apart = row.apart?.includes(column.key) ?? false;
  const own = apart ? null : columnFormula(table, row, r, column);
  const adds = isMoney && !column.ratio && (!column.formula || apart);
  const carried = row.carries !== undefined && i > 0 ? address(row.carries, i - 1) : null;
  const linked = isMoney
    ? (linkedFormula(row, column, others) ?? grownFormula(table, row, r, i, others))
    : null;
  const formula = linked ?? own ?? carried ?? (adds && addsUp(table, row, i) ? totalFormula(row, i) : null);
  cell.value = formula ? { formula, result: number } : number;
}

const decimalFormat = (digits: number): string => (digits ? `#,##0.${'0'.repeat(digits)}` : '#,##0');

const moneyFormat = (currency: string): string => {
  const digits = minorDigits(currency);
  const body = digits ? `#,##0.${'0'.repeat(digits)}` : '#,##0';
  return `${body};(${body});"–"`;
};

/** A row of others: their sum; null where one of them is not in the workbook. */
const linkedFormula = ({ linked }: ReportRow, { key }: ReportColumn, others: Others): string | null =>
  linked ? sumOfOthers(linked, key, others) : null;

function sumOfOthers(of: readonly Linked[], key: string, others: Others): string | null {
  const cells = of.map((l) => others(l, key));
  return cells.length === 0 || cells.some((c) => c === null) ? null : cells.join('+');
}

/** The columns right before each other in time, of the same kind: one goes on where the other ended. */
const follows = (column: ReportColumn, before: ReportColumn | undefined): boolean =>
  before?.periods !== undefined &&
  column.periods !== undefined &&
  before.of === column.of &&
  before.periods.last === column.periods.first - 1;

/**
 * A row that grows: what it was in the column before, and what it grew by. Where entries moved it otherwise (a year that was
 * closed), it stays the sum of its rows.
 */
function grownFormula(
  { columns }: ReportTable,
  { grows, cells, terms }: ReportRow,
  r: number,
  i: number,
  others: Others,
): string | null {
  if (!grows || terms.length === 0 || !follows(columns[i]!, columns[i - 1])) return null;
  const by = others(grows, columns[i]!.key);
  const grew = others.value(grows, columns[i]!.key);
  const [was, is] = [cells[i - 1], cells[i]];
  if (by === null || [was, is, grew].some((v) => typeof v !== 'number')) return null;
  return Number(was) + Number(grew) === Number(is) ? `${address(r, i - 1)}+${by}` : null;
}

/** Beneath the report, what rows come to by another way: nothing is left where the figures tie. */
function writeChecks(sheet: Worksheet, table: ReportTable, others: Others): void {
  const { columns, rows, currency } = table;
  let at = rows.length + 1 + HEAD_ROWS;
  rows.forEach((row, r) => {
    if (!row.tied) return;
    const cells = columns.map((c) =>
      c.kind === 'money' && !c.formula ? sumOfOthers(row.tied!, c.key, others) : null,
    );
    if (cells.every((c) => c === null)) return;
    const line = sheet.getRow(++at);
    line.getCell(2).value = neutralize(`Check: ${row.label}`);
    line.font = { italic: true };
    columns.forEach((column, i) => {
      const value = row.cells[i];
      if (cells[i] === null || typeof value !== 'number') return;
      const tied = row.tied!.map((l) => others.value(l, column.key));
      const off = value - tied.reduce<number>((t, v) => t + (typeof v === 'number' ? v : 0), 0);
      const cell = line.getCell(i + 1 + LABEL_COLUMNS);
      cell.value = {
        formula: `ROUND(${address(r, i)}-(${cells[i]}),${minorDigits(currency)})`,
        result: off / unitOf(currency),
      };
      cell.numFmt = moneyFormat(currency);
    });
  });
}

/** A1 address of a report cell. */
const address = (row: number, column: number): string =>
  `${columnLetters(column + 1 + LABEL_COLUMNS)}${row + 1 + HEAD_ROWS}`;

function columnFormula(table: ReportTable, row: ReportRow, r: number, column: ReportColumn): string | null {
  const at = (key: string) =>
    address(
      r,
      table.columns.findIndex((c) => c.key === key),
    );
  const f = column.formula;
  if (!f || (row.addsUp === false && f.op === 'sum')) return null;
  switch (f.op) {
    case 'sum':
      return row.lastOf
        ? at(f.of.at(-1)!)
        : row.firstOf
          ? at(f.of[0]!)
          : sumFormula(table, r, f.beyond ? [...f.of, f.beyond] : f.of);
    case 'minus':
      return `${at(f.left)}-${at(f.right)}`;
    case 'share':
      // Of nothing, and of what is below it, no part can be told.
      return `IF(${at(f.of)}<=0,"",${at(f.part)}/${at(f.of)})`;
  }
}

/** Columns of a row added up: a run of neighbours as one SUM, otherwise each by itself. */
function sumFormula({ columns }: ReportTable, r: number, of: readonly string[]): string {
  const places = of.map((key) => columns.findIndex((c) => c.key === key));
  const run = places.every((p, k) => p === places[0]! + k);
  const cells = run
    ? `${address(r, places[0]!)}:${address(r, places.at(-1)!)}`
    : places.map((p) => address(r, p)).join(',');
  return `SUM(${cells})`;
}

/** Of a row that another way leads to as well, only columns in which its own rows do: a difference of balances has no opening. */
const addsUp = ({ rows }: ReportTable, { tied, terms, cells }: ReportRow, i: number): boolean =>
  !tied ||
  terms.reduce((t, { row, sign }) => t + sign * Number(rows[row]!.cells[i] ?? 0), 0) === Number(cells[i]);

/** Totals add their rows: a run of neighbours as one SUM, otherwise term by term. */
function totalFormula(row: ReportRow, i: number): string | null {
  const { terms } = row;
  if (terms.length === 0) return null;
  const run = terms.every((t, k) => t.sign === 1 && t.row === terms[0]!.row + k);
  if (run) return `SUM(${address(terms[0]!.row, i)}:${address(terms.at(-1)!.row, i)})`;
  return terms.map((t, k) => `${t.sign < 0 ? '-' : k === 0 ? '' : '+'}${address(t.row, i)}`).join('');
}
