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
  yearsBefore,
  indexOfId,
  fiscalYearLabel,
  type FiscalCalendar,
  type Period,
  type PeriodId,
  type PeriodIndex,
  type PeriodRange,
} from './calendar';
export { monthCalendar, MONTH_NAMES } from './months';
