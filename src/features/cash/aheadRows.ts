import { civilOf, fromDayNumber, type PeriodIndex } from '@/core/calendar';
import { minor, type Minor } from '@/core/money';
import { byDays, byPeriods, byWholeWeeks, cashTable, type CashTable, type DayRange } from '@/core/cash';
import { closingsAt, type CashView, type Ground } from '@/core/ground';
import { cashReport, type ReportTable } from '@/core/report';
import type { SheetColumn, SheetRow } from '@/components/sheet/types';
import { dayText } from '@/store/format';

export type Grain = 'months' | 'weeks' | 'days';

/** So many weeks and days are shown from the month that is looked at. */
const [WEEKS, DAYS] = [13, 31];

/** The spans of days that are shown, with their heads. */
export function spansOf(
  { calendar }: Ground,
  { input, forecast }: CashView,
  grain: Grain,
  from: PeriodIndex,
): {
  readonly ranges: readonly DayRange[];
  readonly heads: readonly { key: string; group: string; label: string }[];
} {
  const periods = input.periods.filter((p) => p.index >= from);
  if (grain === 'months')
    return {
      ranges: byPeriods(periods),
      heads: periods.map((p) => ({ key: p.id, group: '', label: p.label })),
    };
  // What is known is no forecast: weeks and days begin on the day after it.
  const first = Math.max(byPeriods([calendar.period(from)])[0]!.from, forecast.today + 1);
  const end = byPeriods(input.periods).at(-1)!.to;
  const all = grain === 'weeks' ? byWholeWeeks(first, WEEKS) : byDays(first, DAYS);
  // Nothing is said of days that no month of the plan has.
  const ranges = all.filter((r) => r.from <= end).map((r) => ({ from: r.from, to: Math.min(r.to, end) }));
  return {
    ranges,
    heads: ranges.map((r) => ({
      key: fromDayNumber(r.from),
      group: grain === 'weeks' ? 'Week of' : '',
      label: shortDay(r.from),
    })),
  };
}

/** The bank accounts that hold or move anything, where all sources count: postings are of all of them. */
function banksOf({ book }: Ground, view: CashView, ranges: readonly DayRange[]) {
  const banks = book.accounts.filter((a) => a.kind === 'bank');
  if (banks.length < 2 || view.without.length > 0) return [];
  const stands = closingsAt(
    view,
    ranges.map((r) => r.to),
  );
  return banks.flatMap(({ id, name }) => {
    const closing = stands.get(id);
    return closing ? [{ id, name, closing: [...closing] }] : [];
  });
}

/** A day without its year. */
const shortDay = (day: number): string => {
  const { year } = civilOf(day);
  return dayText(fromDayNumber(day)).replace(new RegExp(`[,./ -]*${year}[,./ -]*`), '');
};

export type AheadData = {
  readonly table: CashTable;
  readonly report: ReportTable;
  readonly rows: readonly SheetRow[];
  readonly columns: readonly SheetColumn[];
};

/** The bank ahead as a table, as a report for files, and as rows of a sheet. */
export function aheadData(ground: Ground, view: CashView, grain: Grain, from: PeriodIndex): AheadData {
  const { ranges, heads } = spansOf(ground, view, grain, from);
  const table = cashTable(view.forecast, ranges);
  const { book } = ground;
  const report = cashReport({
    table,
    heads,
    banks: banksOf(ground, view, ranges),
    book: book.name,
    currency: book.currency,
    title: 'Cash ahead',
    subtitle: `from ${dayText(fromDayNumber(ranges[0]!.from))} to ${dayText(fromDayNumber(ranges.at(-1)!.to))}`,
  });
  return {
    table,
    report,
    columns: heads.map((h) => ({ key: h.key, label: h.label, kind: 'amount' })),
    rows: report.rows.map((r): SheetRow => ({
      key: r.key,
      kind: r.kind,
      label: r.label,
      code: '',
      badge: '',
      badgeTone: 'quiet',
      hasNote: false,
      values: r.cells.map((c) => (typeof c === 'number' ? minor(c) : null)) as (Minor | null)[],
      typed: r.cells.map(() => false),
      enterable: r.kind !== 'section',
    })),
  };
}
