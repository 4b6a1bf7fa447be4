import {
  periodsOf,
  indexOfId,
  quarterRange,
  toDayNumber,
  weekdayOf,
  yearRange,
  yearToDate,
  type DayNumber,
  type FiscalCalendar,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import { assertNever } from '@/core/assertNever';
import type { LayoutSpan } from '@/core/model';

/** Days of one period. */
export type SpanDays = { readonly first: DayNumber; readonly last: DayNumber; readonly period: PeriodIndex };

/** The periods, or the days of a period, that a column is about. */
export type ShownSpan = {
  readonly key: string;
  readonly of: 'month' | 'quarter' | 'toDate' | 'year' | 'rolling' | 'range' | 'week' | 'day';
  /**
   * `whole`: all its periods are planned, and compared once all have actuals; `soFar`: those alone count, on both sides,
   * that have actuals; `year`: what the year is expected to come to is compared with all of it.
   */
  readonly counts: 'whole' | 'soFar' | 'year';
  /** Its periods, as far as they are compared with anything. */
  readonly periods: readonly PeriodIndex[];
  /** Those of them that have actuals. */
  readonly known: readonly PeriodIndex[];
  readonly days: SpanDays | null;
};

export type SpanGround = {
  readonly calendar: FiscalCalendar;
  readonly month: PeriodIndex;
  readonly isActual: (period: PeriodIndex) => boolean;
  /** Whether what actuals are compared with says anything of a period. */
  readonly covers: (period: PeriodIndex) => boolean;
  /** The last day of which the ledger has an entry; null for none. */
  readonly lastDay: DayNumber | null;
};

type Over = Extract<LayoutSpan, { of: 'each' }>['over'];

function overRange({ calendar, month }: SpanGround, over: Over): PeriodRange {
  switch (over) {
    case 'month':
      return { first: month, last: month };
    case 'quarter':
      return quarterRange(calendar, month);
    case 'toDate':
      return yearToDate(calendar, month);
    case 'year':
      return yearRange(calendar, calendar.period(month).year);
    case 'rolling':
      return { first: month - 11, last: month };
    default:
      return assertNever(over);
  }
}

/** Runs of periods that belong to one quarter. */
function quartersIn(calendar: FiscalCalendar, range: PeriodRange): PeriodRange[] {
  const out: PeriodRange[] = [];
  for (let p = range.first; p <= range.last; p = out.at(-1)!.last + 1)
    out.push({ first: p, last: Math.min(range.last, quarterRange(calendar, p).last) });
  return out;
}

/** The days of a period, each by itself or by week from Monday; weeks that cross periods are parted (ISO 8601 weeks). */
export function daysIn(calendar: FiscalCalendar, period: PeriodIndex, by: 'week' | 'day'): SpanDays[] {
  const { start, end } = calendar.period(period);
  const [from, to] = [toDayNumber(start), toDayNumber(end)];
  const out: SpanDays[] = [];
  for (let d = from; d <= to; d = out.at(-1)!.last + 1)
    out.push({ first: d, last: by === 'day' ? d : Math.min(to, d + 7 - weekdayOf(d)), period });
  return out;
}

/** The spans that a column's periods come to: one, or one for each part of a longer one. */
export function spansOf(ground: SpanGround, span: LayoutSpan): ShownSpan[] {
  const { calendar, month, isActual, covers } = ground;
  const make = (
    of: ShownSpan['of'],
    counts: ShownSpan['counts'],
    range: PeriodRange,
    key: string,
  ): ShownSpan => {
    const all = periodsOf(calendar, range).map((p) => p.index);
    const periods = counts === 'whole' ? all : all.filter(covers);
    return { key, of, counts, periods, known: periods.filter(isActual), days: null };
  };
  switch (span.of) {
    case 'month': {
      const at = month - span.back;
      return [make('month', 'whole', { first: at, last: at }, span.back === 0 ? 'month' : `m${span.back}`)];
    }
    case 'quarter':
      return [
        make('quarter', 'soFar', { first: quarterRange(calendar, month).first, last: month }, 'quarter'),
      ];
    case 'toDate':
      return [make('toDate', 'soFar', yearToDate(calendar, month), 'toDate')];
    case 'year':
      return [make('year', 'year', yearRange(calendar, calendar.period(month).year), 'year')];
    case 'rolling':
      return [make('rolling', 'soFar', { first: month - 11, last: month }, 'rolling')];
    case 'range': {
      const first = indexOfId(calendar, span.first);
      const last = indexOfId(calendar, span.last);
      // A range of another calendar is one of nothing.
      if (first === null || last === null) return [];
      const [a, b] = [Math.min(first, last), Math.max(first, last)];
      return [
        make(
          'range',
          'soFar',
          { first: a, last: Math.min(b, a + MOST_PERIODS - 1) },
          `r${span.first}${span.last}`,
        ),
      ];
    }
    case 'each': {
      const range = overRange(ground, span.over);
      if (span.by === 'month')
        return periodsOf(calendar, range).map((p) =>
          make('month', 'whole', { first: p.index, last: p.index }, `p${p.index}`),
        );
      if (span.by === 'quarter')
        return quartersIn(calendar, range).map((q) => make('quarter', 'whole', q, `q${q.first}`));
      const by = span.by;
      return periodsOf(calendar, range).flatMap((p) =>
        daysIn(calendar, p.index, by).map((days): ShownSpan => ({
          key: `${by}${days.first}`,
          of: by,
          counts: 'whole',
          periods: [p.index],
          // Entries of days are looked at by their dates, closed or not.
          known: ground.lastDay !== null && days.first <= ground.lastDay ? [p.index] : [],
          days,
        })),
      );
    }
    default:
      return assertNever(span);
  }
}

/** No range is longer. */
const MOST_PERIODS = 120;
