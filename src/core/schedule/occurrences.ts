import {
  civilOf,
  dayNumberOf,
  daysInMonth,
  fromDayNumber,
  toDayNumber,
  weekdayOf,
  type Day,
  type DayNumber,
  type Period,
} from '@/core/calendar';
import { assertNever } from '@/core/assertNever';
import type { Occurrence, WorkWeek } from '@/core/model';

/** The days of a period on which something occurs, in time: paydays, weekly markets, working days. */
export const occurrencesIn = (period: Period, on: Occurrence, week: WorkWeek): Day[] =>
  occurrenceNumbers(period, on, week).map(fromDayNumber);

/** The same as day numbers. No date is read or written day by day: a thousand lines ask for three years of them. */
export function occurrenceNumbers(period: Period, on: Occurrence, week: WorkWeek): DayNumber[] {
  const from = toDayNumber(period.start);
  const to = toDayNumber(period.end);
  switch (on.of) {
    case 'weeks': {
      // Nothing occurs before the day it starts from.
      const start = toDayNumber(on.from);
      const step = on.every * 7;
      const first = from <= start ? start : start + Math.ceil((from - start) / step) * step;
      const out: DayNumber[] = [];
      for (let d = first; d <= to; d += step) out.push(d);
      return out;
    }
    case 'monthDays':
      return monthDays(from, to, on.days);
    case 'weekdays':
      return daysOf(from, to, on.weekdays, NO_DAYS);
    case 'workingDays':
      return daysOf(from, to, week.weekdays, holidaysOf(week));
    default:
      return assertNever(on);
  }
}

/** How many days of the working week a period has that are no holidays. */
export const workingDays = (period: Period, week: WorkWeek): number =>
  daysOf(toDayNumber(period.start), toDayNumber(period.end), week.weekdays, holidaysOf(week)).length;

const NO_DAYS: ReadonlySet<DayNumber> = new Set();

const holidays = new WeakMap<WorkWeek, ReadonlySet<DayNumber>>();
function holidaysOf(week: WorkWeek): ReadonlySet<DayNumber> {
  let set = holidays.get(week);
  if (!set) holidays.set(week, (set = new Set(week.holidays.map(toDayNumber))));
  return set;
}

/** The days of these weekdays, but for some. */
function daysOf(
  from: DayNumber,
  to: DayNumber,
  weekdays: readonly number[],
  off: ReadonlySet<DayNumber>,
): DayNumber[] {
  const out: DayNumber[] = [];
  let weekday = weekdayOf(from);
  for (let d = from; d <= to; d++) {
    if (weekdays.includes(weekday) && !off.has(d)) out.push(d);
    weekday = weekday === 7 ? 1 : weekday + 1;
  }
  return out;
}

/** Days of the month, month by month; beyond its end means its last day, once. */
function monthDays(from: DayNumber, to: DayNumber, days: readonly number[]): DayNumber[] {
  const out: DayNumber[] = [];
  let { year, month } = civilOf(from);
  for (;;) {
    const last = daysInMonth(year, month);
    const begin = dayNumberOf(year, month, 1);
    if (begin > to) return out;
    for (const date of new Set([...days].map((d) => Math.min(d, last)).sort((a, b) => a - b))) {
      const d = begin + date - 1;
      if (d >= from && d <= to) out.push(d);
    }
    if (month === 12) [year, month] = [year + 1, 1];
    else month += 1;
  }
}
