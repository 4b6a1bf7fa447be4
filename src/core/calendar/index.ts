export { dateOrderOf } from './dateOrder';
export {
  dayOf,
  parseIsoDay,
  day,
  daysInMonth,
  partsOf,
  dayNumberOf,
  toDayNumber,
  fromDayNumber,
  civilOf,
  isLeapYear,
  type Day,
  type DayNumber,
} from './day';
export {
  periodsOf,
  yearRange,
  quarterRange,
  yearToDate,
  yearLength,
  yearsBefore,
  indexOfId,
  fiscalYearsLabel,
  fiscalYearLabel,
  rangeLabel,
  periodId,
  type FiscalCalendar,
  type Period,
  type PeriodId,
  type PeriodIndex,
  type PeriodRange,
} from './calendar';
export { monthCalendar, MONTH_NAMES } from './months';
export {
  weekCalendar,
  weekdayOf,
  weeksInYear,
  weekYearEnd,
  type WeekCalendarSpec,
  type WeekPattern,
} from './weeks';
export { handMadeCalendar, periodFaults, type HandMadePeriod, type PeriodFault } from './handMade';
export { calendarFrom, firstMonthOf, type CalendarSpec } from './spec';
