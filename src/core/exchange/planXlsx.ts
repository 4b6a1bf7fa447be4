import type { Cell } from 'exceljs';
import { minorDigits } from '@/core/money';
import { neutralize } from '@/core/files';
import type { PlanCell, PlanSheet } from './planLayout';

/** A budget as a workbook that reckons itself: the budget, what its lines follow, and its drivers. */
export async function planXlsx(sheets: readonly PlanSheet[], currency: string): Promise<Uint8Array> {
  const { default: ExcelJS } = await import('exceljs');
  const workbook = new ExcelJS.Workbook();
  const digits = minorDigits(currency);
  const body = digits ? `#,##0.${'0'.repeat(digits)}` : '#,##0';
  const format = `${body};(${body});"–"`;
  for (const sheet of sheets) {
    const page = workbook.addWorksheet(sheet.name, {
      views: [{ state: 'frozen', xSplit: sheet.lead, ySplit: sheet.heads }],
    });
    sheet.rows.forEach((row, r) => {
      const line = page.getRow(r + 1);
      row.forEach((cell, c) => write(line.getCell(c + 1), cell, sheet.money ? format : '#,##0.######'));
      if (r === sheet.heads - 1 || sheet.totals.includes(r)) line.font = { bold: true };
      if (sheet.totals.includes(r)) line.border = { top: { style: 'thin' } };
    });
    page.columns.forEach((column, i) => (column.width = i === 1 ? 30 : i === 2 ? 15 : i === 0 ? 9 : 12));
  }
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}

function write(cell: Cell, value: PlanCell, format: string): void {
  if (value === null || value === '') return;
  if (typeof value === 'string') {
    cell.value = neutralize(value);
    return;
  }
  if (typeof value === 'object' && 'percent' in value) {
    cell.value = value.percent;
    cell.numFmt = '0.00%';
    return;
  }
  cell.value = value;
  cell.numFmt = format;
}
