import { reportCsv } from '@/core/exchange/reportCsv';
import type { ReportTable } from '@/core/report';
import { download, fileNameOf } from '@/platform/download';
import { writeXlsx } from '@/workers/client';
import { say } from './session';

const nameOf = (table: ReportTable, ending: string) =>
  `${fileNameOf(`${table.book} ${table.title}`)}.${ending}`;

/** Saves a report as CSV, UTF-8 with a byte-order mark so that spreadsheets read its letters right. */
export function exportCsv(table: ReportTable): void {
  download(nameOf(table, 'csv'), `\ufeff${reportCsv(table)}`, 'text/csv;charset=utf-8');
  say('The CSV file is in your downloads.');
}

/** Saves a report as XLSX, written in a worker. */
export async function exportXlsx(table: ReportTable): Promise<void> {
  try {
    const bytes = await writeXlsx(table);
    download(
      nameOf(table, 'xlsx'),
      bytes,
      'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    );
    say('The XLSX file is in your downloads.');
  } catch (error) {
    say(
      `The XLSX file could not be written: ${error instanceof Error ? error.message : String(error)}`,
      'trouble',
    );
  }
}
