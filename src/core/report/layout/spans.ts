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
  readonly of: 'month' | 'quarter' | 'toDate' | 'year' | 'rolling' | 'range' | 'budget' | 'week' | 'day';
  /**
   * `whole`: all its periods are planned, and compared once all have actuals; `soFar`: those alone count, on both sides,
   * that have actuals; `year`: what the year is expected to come to is compared with all of it.
   */
  readonly counts: 'whole' | 'soFar' | 'year';
  /** All its periods: what is compared may say something of a part of them alone. */
  readonly periods: readonly PeriodIndex[];
  /** Those of them that have actuals. */
  readonly known: readonly PeriodIndex[];
  /** The fiscal years that they lie in. */
  readonly years: readonly number[];
  readonly days: SpanDays | null;
};

export type SpanGround = {
  readonly calendar: FiscalCalendar;
  readonly month: PeriodIndex;
  /** What is chosen on the ruler, and the periods of the budget; null for no budget. */
  readonly ruler: PeriodRange;
  readonly budget: PeriodRange | null;
  readonly isActual: (period: PeriodIndex) => boolean;
  /** Whether the ledger has it and it is closed: actuals of others are of what is expected. */
  readonly isClosed: (period: PeriodIndex) => boolean;
  /** The last day of which the ledger has an entry; null for none. */
  readonly lastDay: DayNumber | null;
};

type Over = Extract<LayoutSpan, { of: 'each' }>['over'];

function overRange({ calendar, month, ruler, budget }: SpanGround, over: Over): PeriodRange {
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
    case 'ruler':
      return atMost(ruler);
    case 'budget':
      return atMost(budget ?? yearRange(calendar, calendar.period(month).year));
    default:
      return assertNever(over);
  }
}

/** Runs of periods that belong to one quarter, or to one fiscal year. */
function runsIn(calendar: FiscalCalendar, range: PeriodRange, by: 'quarter' | 'year'): PeriodRange[] {
  const runOf = (p: PeriodIndex) =>
    by === 'quarter' ? quarterRange(calendar, p) : yearRange(calendar, calendar.period(p).year);
  const out: PeriodRange[] = [];
  for (let p = range.first; p <= range.last; p = out.at(-1)!.last + 1)
    out.push({ first: p, last: Math.min(range.last, runOf(p).last) });
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
  const { calendar, month, isActual } = ground;
  const make = (
    of: ShownSpan['of'],
    counts: ShownSpan['counts'],
    range: PeriodRange,
    key: string,
  ): ShownSpan => {
    const periods = periodsOf(calendar, range).map((p) => p.index);
    const years = [...new Set(periods.map((p) => calendar.period(p).year))];
    return { key, of, counts, periods, known: periods.filter(isActual), years, days: null };
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
      const range = atMost({ first: Math.min(first, last), last: Math.max(first, last) });
      return [make('range', 'soFar', range, `r${span.first}${span.last}`)];
    }
    case 'ruler':
      return [make('range', 'soFar', overRange(ground, 'ruler'), 'ruler')];
    case 'budget':
      return [make('budget', 'year', overRange(ground, 'budget'), 'budget')];
    case 'each': {
      const range = overRange(ground, span.over);
      if (span.by === 'month')
        return periodsOf(calendar, range).map((p) =>
          make('month', 'whole', { first: p.index, last: p.index }, `p${p.index}`),
        );
      const { by } = span;
      if (by === 'quarter' || by === 'year')
        return runsIn(calendar, range, by).map((q) => make(by, 'whole', q, `${by[0]}${q.first}`));
      return periodsOf(calendar, range)
        .flatMap((p) =>
          daysIn(calendar, p.index, by).map((days): ShownSpan => ({
            key: `${by}${days.first}`,
            of: by,
            counts: 'whole',
            periods: [p.index],
            // Entries of days are looked at by their dates, closed or not.
            known: ground.lastDay !== null && days.first <= ground.lastDay ? [p.index] : [],
            years: [p.year],
            days,
          })),
        )
        .slice(0, MOST_DAY_SPANS);
    }
    default:
      return assertNever(span);
  }
}

/** No range is longer, and no more days or weeks stand side by side. */
const MOST_PERIODS = 120;
const MOST_DAY_SPANS = 400;
const atMost = ({ first, last }: PeriodRange): PeriodRange => ({
  first,
  last: Math.min(last, first + MOST_PERIODS - 1),
});
