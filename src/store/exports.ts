import type { Budget, SegmentId } from '@/core/model';
import { budgetRows, type ReportTable } from '@/core/report';
import { download, fileNameOf } from '@/platform/download';
import { writeXlsx } from '@/workers/client';
import type { ExportRequest } from '@/workers/protocol';
import { reckoned, type Ground } from './derived';
import { say } from './session';

const nameOf = (table: ReportTable, ending: string) =>
  `${fileNameOf(`${table.book} ${table.title}`)}.${ending}`;

/** Saves a report as CSV, UTF-8 with a byte-order mark so that spreadsheets read its letters right. */
export async function exportCsv(table: ReportTable): Promise<void> {
  // What writes files is loaded with the first one.
  const { reportCsv } = await import('@/core/exchange/reportCsv');
  download(nameOf(table, 'csv'), `\ufeff${reportCsv(table)}`, 'text/csv;charset=utf-8');
  say('The CSV file is in your downloads.');
}

/** Saves a report as XLSX, written in a worker. */
export const exportXlsx = (table: ReportTable): Promise<void> =>
  saveXlsx(nameOf(table, 'xlsx'), () => ({ table }));

/** Saves a budget as a workbook that reckons itself: one segment of it, or the only one. */
export const exportLivePlan = (ground: Ground, budget: Budget, segment: SegmentId | 'all'): Promise<void> =>
  saveXlsx(`${fileNameOf(`${ground.book.name} ${budget.name} with formulas`)}.xlsx`, async () => {
    const [{ planWorkbook }, { methodBadge }] = await Promise.all([
      import('@/core/exchange/planWorkbook'),
      import('./methodWords'),
    ]);
    const { book } = ground;
    const { facts, reckoning } = reckoned(ground, budget);
    const axis = book.axes.find((a) => a.id === budget.axis);
    const nameOf = (s: SegmentId) =>
      axis?.values.find((v) => v.id === s)?.name ?? (budget.axis === null ? '' : 'Unassigned');
    const sheets = planWorkbook({
      book: book.name,
      title: budget.name,
      subtitle: '',
      currency: book.currency,
      rows: budgetRows(book.accounts, budget.covers),
      accounts: book.accounts,
      lines: budget.lines,
      drivers: budget.drivers,
      facts,
      reckoning,
      approved: budget.approved,
      methodName: (line) => methodBadge(line.method),
      segments: (segment === 'all' ? budget.segments : [segment]).map((id) => ({ id, name: nameOf(id) })),
    });
    return { sheets, currency: book.currency };
  });

async function saveXlsx(name: string, make: () => ExportRequest | Promise<ExportRequest>): Promise<void> {
  try {
    const bytes = await writeXlsx(await make());
    download(name, bytes, 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet');
    say('The XLSX file is in your downloads.');
  } catch (error) {
    say(
      `The XLSX file could not be written: ${error instanceof Error ? error.message : String(error)}`,
      'trouble',
    );
  }
}
