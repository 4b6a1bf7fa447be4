import type { PeriodIndex } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Minor } from '@/core/money';
import type { Layout, LayoutSpan } from '@/core/model';
import { layoutReport, shippedLayout, type Compared, type ReportRow } from '@/core/report';
import { layoutWords } from '@/store/layoutWords';

type Months = readonly (Minor | null)[];

/** The months of a fiscal year of a report's rows: what was, what was planned, the year before, and what is expected. */
export type YearSeries = {
  readonly labels: readonly string[];
  readonly rows: readonly ReportRow[];
  readonly of: (row: ReportRow) => {
    readonly actual: Months;
    readonly budget: Months;
    readonly lastYear: Months;
    readonly outlook: Months;
  };
};

const EACH: LayoutSpan = { of: 'each', by: 'month', over: 'year' };
const SHOWN = [
  ['actual', 'first'],
  ['compared', 'first'],
  ['compared', 'lastYear'],
  ['outlook', 'first'],
] as const;

/** The year of a month by its months, for pictures. */
export function yearSeries(ground: Ground, compared: Compared, month: PeriodIndex): YearSeries {
  const base = shippedLayout('std-months')!;
  const layout: Layout = {
    ...base,
    filter: 'all',
    columns: SHOWN.map(([show, against]) => ({ show, against, span: EACH, hidden: false, unit: '' })),
  };
  const words = layoutWords(ground, layout, month, compared);
  const { table } = layoutReport({ ground, layout, month, compared, words });
  const every = SHOWN.length;
  const count = table.columns.length / every;
  const pick = (row: ReportRow, k: number): Months =>
    Array.from({ length: count }, (_, i) => (row.cells[i * every + k] ?? null) as Minor | null);
  const year = ground.calendar.period(month).year;
  const first = ground.calendar.firstOfYear(year);
  return {
    labels: Array.from({ length: count }, (_, i) => ground.calendar.period(first + i).short),
    rows: table.rows,
    of: (row) => ({
      actual: pick(row, 0),
      budget: pick(row, 1),
      lastYear: pick(row, 2),
      outlook: pick(row, 3),
    }),
  };
}

/** Sums from the first month on; blank after the last that says anything. */
export function cumulated(months: Months): Months {
  const last = months.findLastIndex((m) => m !== null);
  let sum = 0;
  return months.map((m, i) => {
    sum += m ?? 0;
    return i <= last ? (sum as Minor) : null;
  });
}
