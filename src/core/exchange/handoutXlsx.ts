import type { Cell, Workbook, Worksheet } from 'exceljs';
import { minorDigits, unitOf, type Minor } from '@/core/money';
import { columnLetters, neutralize } from '@/core/files';
import { columnText, type HandoutPage, type PageColumn, type PageRow } from '@/core/handout';
import { sheetName } from './reportXlsx';

/* A handout as a workbook (ECMA-376): a cover, the sheet to fill, and the year before. */

const MARKS = 1;
const MARK_ROW = 3;
const HEAD_ROW = 4;
const FIRST_ROW = 5;
const MOST = 1_000_000_000_000;
const PAPER = 'FFFFFDF8';
const PLAN = 'FFFBF1DA';
const INK = 'FF2A2622';

/** The workbook of a handout. Cells to fill are unlocked and tinted, the rest protected without a password. */
export async function handoutXlsx(page: HandoutPage): Promise<Uint8Array> {
  const { default: ExcelJS } = await import('exceljs');
  const workbook = new ExcelJS.Workbook();
  const [fill, cover, lastYear] = page.sheets;
  writeCover(workbook.addWorksheet(sheetName(cover)), page);
  await writeFill(workbook, sheetName(fill), page);
  if (page.lastYear) writeLastYear(workbook.addWorksheet(sheetName(lastYear)), page);
  workbook.views = [
    { x: 0, y: 0, width: 24_000, height: 14_000, firstSheet: 0, activeTab: 1, visibility: 'visible' },
  ];
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}

function writeCover(sheet: Worksheet, { title, cover }: HandoutPage): void {
  sheet.getColumn(1).width = 96;
  sheet.getCell(1, 1).value = neutralize(title);
  sheet.getCell(1, 1).font = { bold: true, size: 16 };
  cover.forEach((text, i) => {
    const cell = sheet.getCell(i + 3, 1);
    cell.value = neutralize(text);
    cell.alignment = { wrapText: true, vertical: 'top' };
  });
}

const formatOf = (currency: string): string => {
  const digits = minorDigits(currency);
  const body = digits ? `#,##0.${'0'.repeat(digits)}` : '#,##0';
  return `${body};-${body};0`;
};

async function writeFill(workbook: Workbook, name: string, page: HandoutPage): Promise<void> {
  const { columns, rows, currency } = page;
  const lead = columns.findIndex((c) => c.kind === 'input');
  const sheet = workbook.addWorksheet(name, {
    views: [{ state: 'frozen', xSplit: Math.min(3, lead) + MARKS, ySplit: HEAD_ROW }],
  });
  sheet.getCell(1, 2).value = neutralize(page.title);
  sheet.getCell(1, 2).font = { bold: true, size: 14, color: { argb: INK } };
  sheet.getCell(MARK_ROW, 1).value = page.anchor;
  columns.forEach((column, c) => {
    const at = c + 1 + MARKS;
    if (column.mark) sheet.getCell(MARK_ROW, at).value = columnText(column.mark);
    const head = sheet.getCell(HEAD_ROW, at);
    head.value = neutralize(column.head);
    head.font = { bold: true };
    head.alignment = { horizontal: isNumber(column) ? 'right' : 'left', wrapText: true };
    head.border = { bottom: { style: 'thin' } };
    sheet.getColumn(at).width = WIDTHS[column.kind];
  });
  sheet.getColumn(1).hidden = true;
  sheet.getRow(MARK_ROW).hidden = true;
  const format = formatOf(currency);
  rows.forEach((row, r) => {
    const at = r + FIRST_ROW;
    sheet.getCell(at, 1).value = row.mark;
    columns.forEach((column, c) => writeCell(sheet, page, row, r, column, c, format));
    if (row.of === 'total') {
      sheet.getRow(at).font = { bold: true };
      sheet.getRow(at).border = { top: { style: 'thin' } };
    }
  });
  await sheet.protect('', {
    selectLockedCells: true,
    selectUnlockedCells: true,
    formatColumns: true,
    formatRows: true,
    formatCells: true,
    sort: true,
    autoFilter: true,
    insertRows: true,
    insertColumns: true,
  });
  sheet.pageSetup = { orientation: 'landscape', fitToPage: true, fitToWidth: 1, fitToHeight: 0 };
}

const WIDTHS: Readonly<Record<PageColumn['kind'], number>> = {
  code: 9,
  name: 34,
  sense: 9,
  money: 13,
  input: 12,
  total: 13,
  spread: 18,
  comment: 40,
  note: 36,
};
const isNumber = ({ kind }: PageColumn): boolean => kind === 'money' || kind === 'input' || kind === 'total';

function writeCell(
  sheet: Worksheet,
  page: HandoutPage,
  row: PageRow,
  r: number,
  column: PageColumn,
  c: number,
  format: string,
): void {
  const cell = sheet.getCell(r + FIRST_ROW, c + 1 + MARKS);
  const value = row.cells[c] ?? null;
  const unit = unitOf(page.currency);
  if (isNumber(column)) {
    cell.numFmt = format;
    const formula = formulaOf(page, row, r, column, c);
    if (formula !== null) cell.value = { formula, result: ((value as Minor | null) ?? 0) / unit };
    else if (typeof value === 'number') cell.value = value / unit;
  } else if (typeof value === 'string' && value !== '') cell.value = neutralize(value);
  if (column.kind === 'comment' || column.kind === 'note')
    cell.alignment = { wrapText: true, vertical: 'top' };
  const theirs =
    row.of === 'own'
      ? column.kind === 'name' ||
        column.kind === 'sense' ||
        column.kind === 'comment' ||
        column.kind === 'input'
      : row.of === 'line' &&
        (column.kind === 'input' || column.kind === 'spread' || column.kind === 'comment');
  if (theirs) toFill(cell, page, column);
}

/** A cell that is theirs: unlocked, tinted, with what may stand in it. */
function toFill(cell: Cell, page: HandoutPage, { kind }: PageColumn): void {
  cell.protection = { locked: false };
  cell.fill = { type: 'pattern', pattern: 'solid', fgColor: { argb: kind === 'input' ? PLAN : PAPER } };
  cell.border = { bottom: { style: 'hair' }, right: { style: 'hair' } };
  if (kind === 'input')
    cell.dataValidation = {
      type: 'decimal',
      operator: 'between',
      formulae: [-MOST, MOST],
      allowBlank: true,
      showErrorMessage: true,
      errorStyle: 'warning',
    };
  if (kind === 'sense' || kind === 'spread')
    cell.dataValidation = {
      type: 'list',
      allowBlank: true,
      formulae: [listOf(kind === 'sense' ? page.senses : page.spreads)],
    };
}

/** Texts to choose from, as a list within a rule (ECMA-376 part 1, 18.3.1.32): quotes doubled, no commas within. */
const listOf = (texts: readonly string[]): string =>
  `"${texts.map((t) => t.replace(/,/g, ' ').replace(/"/g, '""')).join(',')}"`;

/** What follows from cells that are theirs: the total of a row, and those of the incomes and the costs. */
function formulaOf(
  { columns, rows }: HandoutPage,
  row: PageRow,
  r: number,
  column: PageColumn,
  c: number,
): string | null {
  const letter = (place: number) => columnLetters(place + 1 + MARKS);
  if (row.of === 'total') {
    const own = rows.flatMap((other, i) => (other.of === 'line' && other.income === row.income ? [i] : []));
    if (own.length === 0) return null;
    const parts = runsOf(own).map(([a, b]) => `${letter(c)}${a + FIRST_ROW}:${letter(c)}${b + FIRST_ROW}`);
    return `SUM(${parts.join(',')})`;
  }
  if (column.kind !== 'total') return null;
  const inputs = columns.flatMap((other, i) => (other.kind === 'input' ? [i] : []));
  const at = r + FIRST_ROW;
  return `SUM(${letter(inputs[0]!)}${at}:${letter(inputs.at(-1)!)}${at})`;
}

/** Places as runs of neighbors. */
function runsOf(places: readonly number[]): [number, number][] {
  const out: [number, number][] = [];
  for (const p of places) {
    const last = out.at(-1);
    if (last && last[1] === p - 1) last[1] = p;
    else out.push([p, p]);
  }
  return out;
}

function writeLastYear(sheet: Worksheet, page: HandoutPage): void {
  const { title, heads, rows } = page.lastYear!;
  const unit = unitOf(page.currency);
  const format = formatOf(page.currency);
  sheet.getCell(1, 1).value = neutralize(title);
  sheet.getCell(1, 1).font = { bold: true, size: 14 };
  heads.forEach((head, i) => {
    const cell = sheet.getCell(3, i + 1);
    cell.value = neutralize(head);
    cell.font = { bold: true };
    cell.alignment = { horizontal: i < 2 ? 'left' : 'right' };
    sheet.getColumn(i + 1).width = i === 0 ? 9 : i === 1 ? 34 : 12;
  });
  rows.forEach(({ code, name, amounts }, r) => {
    const at = r + 4;
    if (code) sheet.getCell(at, 1).value = neutralize(code);
    sheet.getCell(at, 2).value = neutralize(name);
    amounts.forEach((a, i) => {
      const cell = sheet.getCell(at, i + 3);
      cell.numFmt = format;
      if (a !== null) cell.value = a / unit;
    });
    const sum = sheet.getCell(at, amounts.length + 3);
    sum.numFmt = format;
    sum.value = {
      formula: `SUM(${columnLetters(3)}${at}:${columnLetters(amounts.length + 2)}${at})`,
      result: amounts.reduce((t: number, a) => t + (a ?? 0), 0) / unit,
    };
  });
  sheet.views = [{ state: 'frozen', xSplit: 2, ySplit: 3 }];
}
