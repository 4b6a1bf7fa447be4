import type { Day, DayNumber } from './day';

/** A period's place in the endless row of a calendar's periods. Neighbours differ by one. */
export type PeriodIndex = number;

declare const periodIdBrand: unique symbol;

/**
 * A period's name in saved data: fiscal year and number in that year, `"2027-04"` for the fourth period of the
 * fiscal year 2027. It holds for any kind of calendar and sorts in time.
 */
export type PeriodId = string & { readonly [periodIdBrand]: 'PeriodId' };

/** The saved name of a period. */
export const periodId = (year: number, number: number): PeriodId =>
  `${String(year).padStart(4, '0')}-${String(number).padStart(2, '0')}` as PeriodId;

export type Period = {
  readonly index: PeriodIndex;
  readonly id: PeriodId;
  /** The fiscal year, named for the calendar year in which it ends. */
  readonly year: number;
  /** Number in the fiscal year, from 1. */
  readonly number: number;
  readonly quarter: number;
  /** First and last day, both inside the period. */
  readonly start: Day;
  readonly end: Day;
  /** "Oct 2026", "Oct" and "O": for a heading, a column and a tick. */
  readonly label: string;
  readonly short: string;
  readonly tick: string;
};

/**
 * A fiscal calendar as a small record of functions; ranges, quarters and labels follow from it. `months`, `weeks` and
 * `handMade` make it.
 */
export type FiscalCalendar = {
  /** The period at an index; any whole number is one. */
  readonly period: (index: PeriodIndex) => Period;
  /** The period that a day falls in. */
  readonly indexOfDay: (n: DayNumber) => PeriodIndex;
  /** First period of a fiscal year, and how many it has. */
  readonly firstOfYear: (year: number) => PeriodIndex;
  readonly periodsIn: (year: number) => number;
};

export type PeriodRange = { readonly first: PeriodIndex; readonly last: PeriodIndex };

/** The periods of a range in order. */
export function periodsOf(calendar: FiscalCalendar, range: PeriodRange): Period[] {
  const out: Period[] = [];
  for (let i = range.first; i <= range.last; i++) out.push(calendar.period(i));
  return out;
}

/** All periods of a fiscal year. */
export function yearRange(calendar: FiscalCalendar, year: number): PeriodRange {
  const first = calendar.firstOfYear(year);
  return { first, last: first + calendar.periodsIn(year) - 1 };
}

/** The quarter that a period lies in. */
export function quarterRange(calendar: FiscalCalendar, index: PeriodIndex): PeriodRange {
  const { quarter } = calendar.period(index);
  let first = index;
  let last = index;
  while (calendar.period(first - 1).quarter === quarter) first--;
  while (calendar.period(last + 1).quarter === quarter) last++;
  return { first, last };
}

/** From the first period of the fiscal year up to this one. */
export const yearToDate = (calendar: FiscalCalendar, index: PeriodIndex): PeriodRange => ({
  first: calendar.firstOfYear(calendar.period(index).year),
  last: index,
});

/** The same numbered period a year (or `years`) earlier; null when that year has no such period. */
export function yearsBefore(calendar: FiscalCalendar, index: PeriodIndex, years = 1): PeriodIndex | null {
  const p = calendar.period(index);
  const year = p.year - years;
  return p.number <= calendar.periodsIn(year) ? calendar.firstOfYear(year) + p.number - 1 : null;
}

/** How many periods the fiscal year of a period has. */
export const yearLength = (calendar: FiscalCalendar, index: PeriodIndex): number =>
  calendar.periodsIn(calendar.period(index).year);

/** Index of a saved period name; null when the text is not one of this calendar's periods. */
export function indexOfId(calendar: FiscalCalendar, id: string): PeriodIndex | null {
  const m = /^(\d{4})-(\d{2})$/.exec(id);
  if (!m) return null;
  const year = Number(m[1]);
  const number = Number(m[2]);
  return number >= 1 && number <= calendar.periodsIn(year) ? calendar.firstOfYear(year) + number - 1 : null;
}

/** "FY27": the fiscal year by the last two digits of the calendar year in which it ends. */
export const fiscalYearLabel = (year: number): string => `FY${twoDigits(year)}`;

/** "FY27", or "FY27–28" for periods of several years; `earlier` years before them when asked. */
export function fiscalYearsLabel(periods: readonly Period[], earlier = 0): string {
  const [first, last] = [periods[0], periods.at(-1)];
  if (!first || !last) return '';
  const from = fiscalYearLabel(first.year - earlier);
  return first.year === last.year ? from : `${from}–${twoDigits(last.year - earlier)}`;
}

/** A range of periods: "May 2026", "Jan 2026 – Mar 2026"; or by their short names. */
export function rangeLabel(
  calendar: Pick<FiscalCalendar, 'period'>,
  { first, last }: PeriodRange,
  as: 'label' | 'short' = 'label',
): string {
  const [a, b] = [calendar.period(first)[as], calendar.period(last)[as]];
  return first === last ? a : `${a} – ${b}`;
}

const twoDigits = (year: number): string => String(year % 100).padStart(2, '0');
