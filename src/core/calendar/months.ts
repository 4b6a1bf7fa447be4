import { civilOf, dayOf, daysInMonth } from './day';
import { periodId, type FiscalCalendar, type Period } from './calendar';

export const MONTH_NAMES = [
  'Jan',
  'Feb',
  'Mar',
  'Apr',
  'May',
  'Jun',
  'Jul',
  'Aug',
  'Sep',
  'Oct',
  'Nov',
  'Dec',
] as const;

/**
 * The calendar of twelve calendar months that starts in `firstMonth` (1–12). A fiscal year is named for the
 * calendar year in which it ends (common practice): one that starts in July 2026 is FY27; one that starts in
 * January 2026 is FY26. A period's index is year × 12 + month − 1 of its calendar month.
 */
export function monthCalendar(firstMonth: number): FiscalCalendar {
  const known = calendars.get(firstMonth);
  if (known) return known;
  if (!Number.isInteger(firstMonth) || firstMonth < 1 || firstMonth > 12)
    throw new RangeError(`Not a month: ${firstMonth}`);
  const lead = firstMonth === 1 ? 0 : 1;
  const firstOfYear = (year: number) => (year - lead) * 12 + firstMonth - 1;
  const made = new Map<number, Period>();

  function make(index: number): Period {
    const civilYear = Math.floor(index / 12);
    const month = index - civilYear * 12 + 1;
    const number = ((month - firstMonth + 12) % 12) + 1;
    const year = civilYear + (lead === 1 && month >= firstMonth ? 1 : 0);
    const name = MONTH_NAMES[month - 1]!;
    return {
      index,
      id: periodId(year, number),
      year,
      number,
      quarter: Math.ceil(number / 3),
      start: dayOf(civilYear, month, 1)!,
      end: dayOf(civilYear, month, daysInMonth(civilYear, month))!,
      label: `${name} ${civilYear}`,
      short: name,
      tick: name[0]!,
    };
  }

  const calendar: FiscalCalendar = {
    period(index) {
      let p = made.get(index);
      if (!p) made.set(index, (p = make(index)));
      return p;
    },
    indexOfDay(n) {
      const { year, month } = civilOf(n);
      return year * 12 + month - 1;
    },
    firstOfYear,
    periodsIn: () => 12,
  };
  calendars.set(firstMonth, calendar);
  return calendar;
}
const calendars = new Map<number, FiscalCalendar>();
