import { decimalText, plainDecimal, type Minor } from '@/core/money';
import { neutralize, writeDelimited } from '@/core/files';
import {
  beneathTitle,
  type ReportCell,
  type ReportColumn,
  type ReportRow,
  type ReportTable,
} from '@/core/report';

/**
 * A report as CSV (RFC 4180), natural signs, plain decimals with a dot and all digits of the currency. Blank is an
 * empty field, zero is 0. Text that a spreadsheet would run is neutralized.
 */
export function reportCsv(table: ReportTable): string {
  const head = [
    'Code',
    'Line',
    ...table.columns.map((c) => (c.group && c.group !== c.label ? `${c.group} ${c.label}` : c.label)),
  ];
  const rows = table.rows.map((r) => [
    neutralize(r.code),
    neutralize(r.label),
    ...table.columns.map((c, i) => cellTextOf(r.cells[i] ?? null, c, table.currency, r.unit)),
  ]);
  return writeDelimited([
    [neutralize(`${table.book} · ${table.title}`)],
    [neutralize(beneathTitle(table, table.currency))],
    head.map(neutralize),
    ...rows,
  ]);
}

function cellTextOf(
  cell: ReportCell,
  column: ReportColumn,
  currency: string,
  unit: ReportRow['unit'],
): string {
  if (cell === null || cell === '') return '';
  switch (column.kind) {
    case 'money':
      return unit ? decimalText(Number(cell), unit.decimals) : plainDecimal(cell as Minor, currency);
    case 'perMille':
      return Number.isNaN(cell) ? '' : (Number(cell) / 10).toFixed(1);
    case 'sense':
      return String(cell);
    case 'text':
      return neutralize(String(cell));
    case 'bar':
      return '';
  }
}
