import {
  civilOf,
  dayNumberOf,
  daysInMonth,
  toDayNumber,
  weekdayOf,
  type DayNumber,
  type Period,
} from '@/core/calendar';
import { assertNever } from '@/core/assertNever';
import type { DayRule, DueRule, MovedTo, WorkWeek } from '@/core/model';
import { occurrenceNumbers } from './occurrences';

/** The days that rules fall on, remembered: a thousand lines ask for the same ones. */
export type Days = {
  /** In a period, in time; never none: a rule that gives no day falls on the period's last. `own`: the line's days. */
  readonly on: (rule: DayRule, period: Period, own: readonly DayNumber[] | null) => readonly DayNumber[];
  /** When something is due that follows from a day. */
  readonly due: (from: DayNumber, rule: DueRule, moved: MovedTo) => DayNumber;
  /** The day, or the working day next to it that a rule says. */
  readonly moved: (day: DayNumber, to: MovedTo) => DayNumber;
};

/** The days of a business that works in this week. */
export function daysOf(week: WorkWeek): Days {
  const off = new Set(week.holidays.map(toDayNumber));
  const works = new Set(week.weekdays);
  const known = new Map<DayRule, Map<number, readonly DayNumber[]>>();
  const isWorking = (day: DayNumber): boolean => works.has(weekdayOf(day)) && !off.has(day);

  function moved(day: DayNumber, to: MovedTo): DayNumber {
    if (to === 'stays' || works.size === 0) return day;
    const step = to === 'next' ? 1 : -1;
    // A business that closes for a year has no payment day to move to.
    for (let d = day, n = 0; n < 366; d += step, n++) if (isWorking(d)) return d;
    return day;
  }

  function ruled(rule: DayRule, period: Period): readonly DayNumber[] {
    switch (rule.of) {
      case 'monthDay':
        return occurrenceNumbers(period, { of: 'monthDays', days: [rule.day] }, week);
      case 'spread':
        return occurrenceNumbers(period, { of: 'workingDays' }, week);
      case 'days':
        return occurrenceNumbers(period, rule.on, week);
      case 'own':
        return [];
      default:
        return assertNever(rule);
    }
  }

  return {
    moved,
    on(rule, period, own) {
      if (rule.of === 'own' && own !== null && own.length > 0) return own;
      let periods = known.get(rule);
      if (!periods) known.set(rule, (periods = new Map()));
      let days = periods.get(period.index);
      if (!days) {
        days = ruled(rule, period);
        periods.set(period.index, (days = days.length > 0 ? days : [toDayNumber(period.end)]));
      }
      return days;
    },
    due: (from, rule, to) => moved(dueDay(from, rule), to),
  };
}

/**
 * When something is due: so many calendar days later, or on a day of the month that is so many months later; a day that
 * the month does not have is its last.
 */
export function dueDay(from: DayNumber, rule: DueRule): DayNumber {
  if (rule.of === 'days') return from + rule.days;
  const { year, month } = civilOf(from);
  return monthDay(year, month + rule.months, rule.day) + (rule.later ?? 0);
}

/** Twelve months after a day; after a month's last day that is a month's last day too: 28 February 2027 → 29 February 2028. */
export function yearAfter(day: DayNumber): DayNumber {
  const { year, month, date } = civilOf(day);
  return monthDay(year, month + 12, date === daysInMonth(year, month) ? 31 : date);
}

/** A day of a month that is counted on from a year's January: month 13 is the January after. */
export function monthDay(year: number, month: number, day: number): DayNumber {
  const y = year + Math.floor((month - 1) / 12);
  const m = ((((month - 1) % 12) + 12) % 12) + 1;
  return dayNumberOf(y, m, Math.min(day, daysInMonth(y, m)));
}
