import { calendarFrom, fromDayNumber, indexOfId } from '@/core/calendar';
import type { TaxReturn } from '@/core/cash';
import { minor } from '@/core/money';
import type { Budget, Layout, SegmentId } from '@/core/model';
import type { Paper } from '@/core/exchange/pdf';
import { fileTable, type ReportTable } from '@/core/report';
import { now } from '@/platform/clock';
import { download, fileNameOf } from '@/platform/download';
import { writeFile } from '@/workers/client';
import type { ExportRequest } from '@/workers/protocol';
import type { Ground } from '@/core/ground';
import { dayText, layoutSettings, moneyFormat, unitWords } from './format';
import { today } from './actions';
import { useBookStore } from './bookStore';
import { say } from './session';

const nameOf = (table: ReportTable, ending: string) =>
  `${fileNameOf(`${table.book} ${table.title}`)}.${ending}`;

/** A report as it leaves: with the day that it is as of, and the month through which its books are closed. */
function asOf(table: ReportTable): ReportTable {
  const book = useBookStore.getState().history?.book;
  const id = book?.closedThrough ?? null;
  const calendar = book && calendarFrom(book.calendar);
  const closed = id !== null && calendar ? indexOfId(calendar, id) : null;
  const through = closed === null ? '' : `, closed through ${calendar!.period(closed).label}`;
  return {
    ...table,
    subtitle: [table.subtitle, `as of ${dayText(today())}${through}`].filter(Boolean).join(' · '),
  };
}

/** Saves a report as CSV, UTF-8 with a byte-order mark so that spreadsheets read its letters right. */
export async function exportCsv(table: ReportTable): Promise<void> {
  if (isTooWide(table)) return;
  // What writes files is loaded with the first one.
  const { reportCsv } = await import('@/core/exchange/reportCsv');
  download(nameOf(table, 'csv'), `\ufeff${reportCsv(fileTable(asOf(table)))}`, 'text/csv;charset=utf-8');
  say('The CSV file is in your downloads.');
}

/** Saves a report as XLSX, or several as one workbook named after the first; written in a worker. */
export const exportXlsx = async (...tables: readonly [ReportTable, ...ReportTable[]]): Promise<void> =>
  tables.some(isTooWide)
    ? undefined
    : saveXlsx(nameOf(tables[0], 'xlsx'), () => ({ reports: tables.map((t) => fileTable(asOf(t))) }));

/** Saves the due days of tax returns as a calendar file. */
export async function exportCalendar({ book }: Ground, returns: readonly TaxReturn[]): Promise<void> {
  const { calendarFile } = await import('@/core/exchange/calendarFile');
  const money = moneyFormat(book);
  const nameOf = (id: string) => book.cash.taxes.find((t) => t.id === id)?.name ?? id;
  const events = returns.map((r) => ({
    uid: `${book.id}-${r.scheme}-${r.to}@tellan`,
    day: r.due,
    summary: `${nameOf(r.scheme)}: ${money.text(minor(r.owed))}`,
    description: `${dayText(fromDayNumber(r.from))} – ${dayText(fromDayNumber(r.to))}`,
  }));
  download(
    `${fileNameOf(`${book.name} due days`)}.ics`,
    calendarFile(`${book.name}: due days`, events, now()),
    'text/calendar;charset=utf-8',
  );
  say('The calendar file is in your downloads.');
}

/** Saves a budget as a workbook that reckons itself: one segment of it, or the only one. */
export const exportLivePlan = (ground: Ground, budget: Budget, segment: SegmentId | 'all'): Promise<void> =>
  saveXlsx(`${fileNameOf(`${ground.book.name} ${budget.name} with formulas`)}.xlsx`, async () => {
    const [{ livePlan }, { lineBadge }] = await Promise.all([
      import('@/core/exchange/livePlan'),
      import('./methodWords'),
    ]);
    const { currency } = ground.book;
    const sheets = livePlan(ground, budget, segment, lineBadge);
    return { sheets, currency };
  });

const saveXlsx = (name: string, make: () => ExportRequest | Promise<ExportRequest>): Promise<void> =>
  save(name, 'XLSX', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', make);

/** Saves a report, or several one after another, as PDF, laid out in a worker; figures are written as `numbers` says. */
export const exportPdf = async (
  { book }: Ground,
  reports: readonly [ReportTable, ...ReportTable[]],
  numbers: Layout['numbers'],
  paper: Paper,
): Promise<void> => {
  if (reports.some(isTooWide)) return;
  let leftOut: readonly string[] = [];
  const make = async (): Promise<ExportRequest> => {
    const [{ scriptsIn, unknownIn }, { pdfFonts }] = await Promise.all([
      import('@/core/exchange/pdf/fonts'),
      import('./pdfFonts'),
    ]);
    const { cents, negatives, thousands } = layoutSettings(book, numbers);
    const tables = reports.map((t) => fileTable(asOf(t), true));
    const texts = tables.flatMap((t) => [...textsOf(t)]);
    const unknown = unknownIn(texts);
    if (unknown.letters.length > 0)
      throw new Error(
        `its faces have no “${unknown.letters.slice(0, 12).join('')}”. The workbook and the CSV have every letter`,
      );
    leftOut = unknown.signs;
    return {
      pdf: {
        tables,
        fonts: await pdfFonts(scriptsIn(texts)),
        made: now(),
        page: ['Page', 'of'],
        style: {
          locale: book.locale,
          amounts: { cents, negatives, ...(thousands ? { thousands } : {}) },
          unit: unitWords({ ...book, settings: layoutSettings(book, numbers) }) || book.currency,
          paper,
          notes: 'Notes',
        },
      },
    };
  };
  return save(nameOf(reports[0], 'pdf'), 'PDF', 'application/pdf', make, () =>
    leftOut.length === 0 ? '' : ` Signs that its faces do not have were left out: ${leftOut.join(' ')}`,
  );
};

/** All words of a report, to know which letters it has. */
function* textsOf({ book, title, subtitle, columns, rows }: ReportTable): Generator<string> {
  yield* [book, title, subtitle];
  for (const c of columns) yield* [c.group, c.label, c.lacks ?? ''];
  for (const r of rows) {
    yield r.label;
    for (const cell of r.cells) if (typeof cell === 'string') yield cell;
  }
}

/** Files of a report that is not made are none. */
const isTooWide = (table: ReportTable): boolean => {
  if (table.tooWide !== undefined)
    say('No file was written: the layout asks for more columns than anybody can read.', 'trouble');
  return table.tooWide !== undefined;
};

async function save(
  name: string,
  kind: string,
  type: string,
  make: () => ExportRequest | Promise<ExportRequest>,
  more = () => '',
): Promise<void> {
  try {
    download(name, await writeFile(await make()), type);
    say(`The ${kind} file is in your downloads.${more()}`);
  } catch (error) {
    say(
      `The ${kind} file could not be written: ${error instanceof Error ? error.message : String(error)}`,
      'trouble',
    );
  }
}
