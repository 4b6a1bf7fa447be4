import { dayNumberOf, daysInMonth, fromDayNumber, type DayNumber } from './day';
import { periodId, type FiscalCalendar, type Period } from './calendar';
import { MONTH_NAMES } from './months';

export type WeekPattern = '4-4-5' | '4-5-4' | '5-4-4';

/** A fiscal year of 52 or 53 whole weeks. */
export type WeekCalendarSpec = {
  /** Weeks in the three periods of a quarter. */
  readonly pattern: WeekPattern;
  /** The month (1–12) at whose end the year ends. */
  readonly endMonth: number;
  /** The weekday on which every year ends, by ISO 8601: 1 is Monday, 7 Sunday. */
  readonly endWeekday: number;
  /** The last such weekday in the month, or the one nearest to the month's last day (which may be in the next month). */
  readonly ending: 'last' | 'nearest';
};

/** ISO 8601 weekday of a day number: 1 Monday to 7 Sunday. 1970-01-01 was a Thursday. */
export const weekdayOf = (n: DayNumber): number => ((((n + 3) % 7) + 7) % 7) + 1;

/**
 * Last day of the year that is named `year`: the two ways that the US tax rule for 52-53-week years allows (Internal
 * Revenue Code 441(f), IRS Publication 538: the last such weekday of a month, or the one nearest to its end).
 */
export function weekYearEnd(spec: WeekCalendarSpec, year: number): DayNumber {
  const monthEnd = dayNumberOf(year, spec.endMonth, daysInMonth(year, spec.endMonth));
  const back = (weekdayOf(monthEnd) - spec.endWeekday + 7) % 7;
  return spec.ending === 'nearest' && back > 3 ? monthEnd - back + 7 : monthEnd - back;
}

/**
 * A calendar of twelve periods of whole weeks. The 53rd week, in the years that have one, lengthens the last period
 * (as in the published retail 4-5-4 calendar). A year is named for the calendar year of the month at whose end it
 * ends; its periods for the months that they stand for. A period's index is year × 12 + number − 1.
 */
export function weekCalendar(spec: WeekCalendarSpec): FiscalCalendar {
  const weeks = spec.pattern.split('-').map(Number);
  const ends = new Map<number, DayNumber>();
  const endOf = (year: number): DayNumber => {
    let end = ends.get(year);
    if (end === undefined) ends.set(year, (end = weekYearEnd(spec, year)));
    return end;
  };
  const made = new Map<number, Period>();

  function make(index: number): Period {
    const year = Math.floor(index / 12);
    const number = index - year * 12 + 1;
    let start = endOf(year - 1) + 1;
    for (let n = 1; n < number; n++) start += 7 * weeks[(n - 1) % 3]!;
    const end = number === 12 ? endOf(year) : start + 7 * weeks[(number - 1) % 3]! - 1;
    const month = (spec.endMonth + number - 1) % 12;
    const name = MONTH_NAMES[month]!;
    // A month after the ending one belongs to the calendar year before the year's name.
    const civilYear = month + 1 > spec.endMonth ? year - 1 : year;
    return {
      index,
      id: periodId(year, number),
      year,
      number,
      quarter: Math.ceil(number / 3),
      start: fromDayNumber(start),
      end: fromDayNumber(end),
      label: `${name} ${civilYear}`,
      short: name,
      tick: name[0]!,
    };
  }

  return {
    period(index) {
      let p = made.get(index);
      if (!p) made.set(index, (p = make(index)));
      return p;
    },
    indexOfDay(n) {
      let year = Math.floor(n / 365.2425) + 1970;
      while (endOf(year) < n) year++;
      while (endOf(year - 1) >= n) year--;
      let left = n - endOf(year - 1) - 1;
      let number = 1;
      while (number < 12 && left >= 7 * weeks[(number - 1) % 3]!) {
        left -= 7 * weeks[(number - 1) % 3]!;
        number++;
      }
      return year * 12 + number - 1;
    },
    firstOfYear: (year) => year * 12,
    periodsIn: () => 12,
  };
}

/** Weeks in the year: 52 or 53. */
export const weeksInYear = (spec: WeekCalendarSpec, year: number): number =>
  (weekYearEnd(spec, year) - weekYearEnd(spec, year - 1)) / 7;
