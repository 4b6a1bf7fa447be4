declare const dayBrand: unique symbol;

/** A calendar day `YYYY-MM-DD` (ISO 8601). Compares and sorts as text; never passes through a time zone. */
export type Day = string & { readonly [dayBrand]: 'Day' };

/** Whole days since 1970-01-01 in the proleptic Gregorian calendar, for columns of entries. */
export type DayNumber = number;

/** The day of a civil date, or null when there is no such day (2026-02-30). Years 1 to 9999. */
export function dayOf(year: number, month: number, date: number): Day | null {
  if (!Number.isInteger(year) || year < 1 || year > 9999) return null;
  if (!(month >= 1 && month <= 12) || !(date >= 1 && date <= daysInMonth(year, month))) return null;
  return `${String(year).padStart(4, '0')}-${pad2(month)}-${pad2(date)}` as Day;
}

const pad2 = (n: number): string => (n < 10 ? `0${n}` : String(n));

/** The day that a text names in ISO 8601 form, or null. */
export function parseIsoDay(text: string): Day | null {
  const m = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  return m ? dayOf(Number(m[1]), Number(m[2]), Number(m[3])) : null;
}

/** A day known when the program is written; throws when there is no such day. */
export function day(text: string): Day {
  const d = parseIsoDay(text);
  if (!d) throw new Error(`Not a day: ${text}`);
  return d;
}

export const isLeapYear = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;

const LENGTHS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const;

/** Days in a month (1–12) of a Gregorian year. */
export const daysInMonth = (year: number, month: number): number =>
  month === 2 && isLeapYear(year) ? 29 : LENGTHS[month - 1]!;

/** Year, month (1–12) and date of a day. */
export function partsOf(d: Day): { readonly year: number; readonly month: number; readonly date: number } {
  return { year: Number(d.slice(0, 4)), month: Number(d.slice(5, 7)), date: Number(d.slice(8, 10)) };
}

/** Day number of a civil date; the "days from civil" method of era-based counting, exact for all years. */
export function dayNumberOf(year: number, month: number, date: number): DayNumber {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + date - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146097 + dayOfEra - 719468;
}

/** Day number of a day. */
export function toDayNumber(d: Day): DayNumber {
  const { year, month, date } = partsOf(d);
  return dayNumberOf(year, month, date);
}

/** Year, month and date of a day number. */
export function civilOf(n: DayNumber): {
  readonly year: number;
  readonly month: number;
  readonly date: number;
} {
  const z = n + 719468;
  const era = Math.floor(z / 146097);
  const dayOfEra = z - era * 146097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) /
      365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const mp = Math.floor((5 * dayOfYear + 2) / 153);
  const month = mp < 10 ? mp + 3 : mp - 9;
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    date: dayOfYear - Math.floor((153 * mp + 2) / 5) + 1,
  };
}

/** The day of a day number. */
export function fromDayNumber(n: DayNumber): Day {
  const { year, month, date } = civilOf(n);
  return `${String(year).padStart(4, '0')}-${pad2(month)}-${pad2(date)}` as Day;
}
