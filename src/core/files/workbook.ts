import type { CellValue, Worksheet } from 'exceljs';
import { gridOf, type Grid, type GridCell } from './grid';

/** The sheets of an XLSX workbook (ECMA-376); formulas give their saved result. Throws when it is no workbook. */
export async function readWorkbook(bytes: Uint8Array): Promise<Grid[]> {
  const { default: ExcelJS } = await import('exceljs');
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load(bytes.slice().buffer);
  return workbook.worksheets.filter((s) => s.state === 'visible').map(sheetGrid);
}

function sheetGrid(sheet: Worksheet): Grid {
  const rows: GridCell[][] = [];
  for (let r = 1; r <= sheet.rowCount; r++) {
    const row: GridCell[] = [];
    const source = sheet.findRow(r);
    source?.eachCell({ includeEmpty: true }, (cell, column) => {
      // The covered cells of a merge repeat its first cell; they hold nothing of their own.
      const value = cell.isMerged && cell.master !== cell ? '' : plainCell(cell.value);
      // Names are indented by a style here and by blanks elsewhere: the blanks serve both.
      const indent = column <= 3 && typeof value === 'string' ? (cell.alignment?.indent ?? 0) : 0;
      row[column - 1] = indent > 0 ? ' '.repeat(2 * indent) + value : value;
    });
    for (let i = 0; i < row.length; i++) row[i] ??= '';
    rows.push(row);
  }
  return gridOf(sheet.name, rows);
}

function plainCell(value: CellValue): GridCell {
  if (value === null || value === undefined) return '';
  if (typeof value === 'number' || typeof value === 'string') return value;
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  // A date cell holds no zone: exceljs puts its civil date into UTC, and it is read back from there.
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if ('richText' in value) return value.richText.map((t) => t.text).join('');
  if ('error' in value) return value.error;
  if ('result' in value || 'formula' in value || 'sharedFormula' in value)
    return plainCell((value as { result?: CellValue }).result ?? '');
  if ('text' in value) return plainCell(value.text as CellValue);
  return '';
}
