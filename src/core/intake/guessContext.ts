import type { NumberFormat } from '@/core/money';
import {
  calendarFrom,
  day as dayOfText,
  dayOf,
  daysInMonth,
  firstMonthOf,
  toDayNumber,
  type CalendarSpec,
  type Day,
} from '@/core/calendar';
import type { MonthHead } from './dates';
import type { Kept } from './kept';

export type GuessContext = {
  /** How the book's locale writes numbers and dates: decides only where the file does not. */
  readonly numbers: NumberFormat;
  readonly dates: 'dmy' | 'mdy';
  readonly calendar: CalendarSpec;
  /** The fiscal year that months without a year are put in. */
  readonly year: number;
  readonly fileName: string;
  /** How files of earlier sources were read, latest last. */
  readonly kept: readonly Kept[];
};

/** How many rows of a file are looked at to guess what its columns hold. */
export const SAMPLE = 400;

/** The day on which a head's amounts are put: the last of its month or period, in the fiscal year meant when it names none. */
export function dayOfHead(head: MonthHead, context: GuessContext): Day | null {
  const calendar = calendarFrom(context.calendar);
  const year = head.year ?? context.year;
  if (head.of === 'period')
    return head.period > calendar.periodsIn(year)
      ? null
      : calendar.period(calendar.firstOfYear(year) + head.period - 1).end;
  const first = firstMonthOf(context.calendar);
  const civilYear = head.year ?? (first > 1 && head.month >= first ? context.year - 1 : context.year);
  if (context.calendar.kind === 'months')
    return dayOf(civilYear, head.month, daysInMonth(civilYear, head.month));
  // Where periods are no months, a month is the period that its middle lies in.
  const middle = dayOfText(`${civilYear}-${String(head.month).padStart(2, '0')}-15`);
  return calendar.period(calendar.indexOfDay(toDayNumber(middle))).end;
}
