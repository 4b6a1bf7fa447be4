import {
  daysInMonth,
  civilOf,
  fromDayNumber,
  toDayNumber,
  weekdayOf,
  type Day,
  type Period,
} from '@/core/calendar';
import { assertNever } from '@/core/assertNever';
import type { Occurrence, WorkWeek } from '@/core/model';

/** The days of a period on which something occurs: paydays, weekly markets, working days. */
export function occurrencesIn(period: Period, on: Occurrence, week: WorkWeek): Day[] {
  const occurs = test(on, week);
  const out: Day[] = [];
  for (let d = toDayNumber(period.start); d <= toDayNumber(period.end); d++)
    if (occurs(d)) out.push(fromDayNumber(d));
  return out;
}

function test(on: Occurrence, week: WorkWeek): (day: number) => boolean {
  switch (on.of) {
    case 'weeks': {
      // Nothing occurs before the day it starts from.
      const from = toDayNumber(on.from);
      const step = on.every * 7;
      return (d) => d >= from && (d - from) % step === 0;
    }
    case 'monthDays': {
      const days = new Set(on.days);
      return (d) => {
        const { year, month, date } = civilOf(d);
        if (days.has(date)) return true;
        const last = daysInMonth(year, month);
        return date === last && on.days.some((n) => n > last);
      };
    }
    case 'weekdays':
      return (d) => on.weekdays.includes(weekdayOf(d));
    case 'workingDays': {
      const off = new Set(week.holidays.map(toDayNumber));
      return (d) => week.weekdays.includes(weekdayOf(d)) && !off.has(d);
    }
    default:
      return assertNever(on);
  }
}
