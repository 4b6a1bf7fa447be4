import { assertNever } from '@/core/assertNever';
import type { FiscalCalendar } from './calendar';
import { handMadeCalendar, type HandMadePeriod } from './handMade';
import { monthCalendar } from './months';
import { weekCalendar, type WeekCalendarSpec } from './weeks';

/** What a book says of its fiscal calendar. */
export type CalendarSpec =
  | { readonly kind: 'months'; readonly firstMonth: number }
  | ({ readonly kind: 'weeks' } & WeekCalendarSpec)
  | { readonly kind: 'handMade'; readonly periods: readonly HandMadePeriod[] };

const made = new WeakMap<CalendarSpec, FiscalCalendar>();

/** The calendar of a specification: the same record for the same object. */
export function calendarFrom(spec: CalendarSpec): FiscalCalendar {
  let calendar = made.get(spec);
  if (!calendar) made.set(spec, (calendar = make(spec)));
  return calendar;
}

function make(spec: CalendarSpec): FiscalCalendar {
  switch (spec.kind) {
    case 'months':
      return monthCalendar(spec.firstMonth);
    case 'weeks':
      return weekCalendar(spec);
    case 'handMade':
      return handMadeCalendar(spec.periods);
    default:
      return assertNever(spec);
  }
}

/** The calendar month (1–12) in which a fiscal year begins, nearly: what months without a year are dated by. */
export const firstMonthOf = (spec: CalendarSpec): number =>
  spec.kind === 'months'
    ? spec.firstMonth
    : spec.kind === 'weeks'
      ? (spec.endMonth % 12) + 1
      : Number(spec.periods[0]?.start.slice(5, 7) ?? 1);
