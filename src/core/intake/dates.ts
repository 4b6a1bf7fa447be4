import { civilOf, dayNumberOf, dayOf, daysInMonth, MONTH_NAMES, type DayNumber } from '@/core/calendar';
import type { GridCell } from '@/core/files';

/** Which of three numbers of a date comes first. */
export type DateOrder = 'ymd' | 'dmy' | 'mdy';

const MONTHS = new Map(MONTH_NAMES.map((m, i) => [m.toLowerCase(), i + 1]));
const monthOfName = (text: string): number | undefined => MONTHS.get(text.slice(0, 3).toLowerCase());
/** Whether the word is a month's name or a usual shortening of it ("Sept", "June"), not just its first letters. */
const FULL = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
];
const namesMonth = (word: string): boolean =>
  word.length >= 3 && FULL.some((m) => m.startsWith(word.toLowerCase()));

/** Two digits are 1970–2069, as spreadsheets commonly read them. */
const fullYear = (text: string): number => {
  const n = Number(text);
  return text.length > 2 ? n : n < 70 ? 2000 + n : 1900 + n;
};

/** Longer texts name no date; what looks for one in them must not take long to say so. */
const LONGEST_DATE = 60;

const NUMERIC = /^(\d{1,4})[/.\-\s](\d{1,2})[/.\-\s](\d{2,4})(?:[T\s].*)?$/;
const DAY_NAME_YEAR = /^(\d{1,2})[/.\-\s]*([A-Za-z]{3,9})[/.\-\s,]*(\d{2,4})$/;
const NAME_DAY_YEAR = /^([A-Za-z]{3,9})[.\s-]+(\d{1,2}),?\s+(\d{2,4})$/;

/** Reads one date in the given order; ISO text, text months and spreadsheet serials are read in any order. */
export function parseDate(cell: GridCell, order: DateOrder): DayNumber | null {
  if (typeof cell === 'number') return serialDay(cell);
  if (cell.length > LONGEST_DATE) return null;
  const text = cell.trim();
  const numeric = NUMERIC.exec(text);
  if (numeric) {
    const [, a, b, c] = numeric as unknown as [string, string, string, string];
    if (a.length === 4) return checked(Number(a), Number(b), Number(c));
    if (a.length > 2 || c.length === 3) return null;
    if (order === 'ymd') return c.length <= 2 ? checked(fullYear(a), Number(b), Number(c)) : null;
    return order === 'dmy'
      ? checked(fullYear(c), Number(b), Number(a))
      : checked(fullYear(c), Number(a), Number(b));
  }
  const dmy = DAY_NAME_YEAR.exec(text);
  if (dmy && namesMonth(dmy[2]!)) return checked(fullYear(dmy[3]!), monthOfName(dmy[2]!)!, Number(dmy[1]));
  const mdy = NAME_DAY_YEAR.exec(text);
  if (mdy && namesMonth(mdy[1]!)) return checked(fullYear(mdy[3]!), monthOfName(mdy[1]!)!, Number(mdy[2]));
  const packed = /^(\d{4})(\d{2})(\d{2})$/.exec(text);
  return packed ? checked(Number(packed[1]), Number(packed[2]), Number(packed[3])) : null;
}

function checked(year: number, month: number, date: number): DayNumber | null {
  return isYear(year) && dayOf(year, month, date) ? dayNumberOf(year, month, date) : null;
}

/** Days of the 1900 date system of spreadsheets (ECMA-376 part 1, 18.17.4.1): serial 25569 is 1970-01-01. */
const serialDay = (n: number): DayNumber | null => (n >= 14611 && n <= 109574 ? Math.floor(n) - 25569 : null);

export type DateGuess = {
  readonly order: DateOrder;
  /** False when every date reads in both orders. */ readonly sure: boolean;
};

/** The order that the whole column allows; when both do, the locale's, unsure. Null when it is no column of dates. */
export function guessDateOrder(cells: readonly GridCell[], prefer: 'dmy' | 'mdy'): DateGuess | null {
  const filled = cells.filter((c) => c !== '').slice(0, 20000);
  if (filled.length === 0) return null;
  const fits = (order: DateOrder) => filled.filter((c) => parseDate(c, order) !== null).length;
  const counts = { ymd: fits('ymd'), dmy: fits('dmy'), mdy: fits('mdy') };
  const best = Math.max(counts.ymd, counts.dmy, counts.mdy);
  // A few total or heading rows among the dates must not hide the column.
  if (best < Math.max(1, filled.length * 0.6)) return null;
  const other = prefer === 'dmy' ? 'mdy' : 'dmy';
  if (counts.dmy === best && counts.mdy === best) {
    const iso =
      counts.ymd === best &&
      filled.every(
        (c) => parseDate(c, 'ymd') === parseDate(c, 'dmy') && parseDate(c, 'ymd') === parseDate(c, 'mdy'),
      );
    const same = filled.every((c) => parseDate(c, 'dmy') === parseDate(c, 'mdy'));
    return { order: iso ? 'ymd' : prefer, sure: iso || same };
  }
  if (counts.ymd === best) return { order: 'ymd', sure: true };
  return { order: counts[prefer] === best ? prefer : other, sure: true };
}

/** What a column head says of time. */
export type MonthHead =
  | {
      readonly of: 'month';
      readonly month: number;
      /** Null when the head names no year. */ readonly year: number | null;
    }
  | { readonly of: 'period'; readonly period: number; readonly year: number | null };

const PERIOD =
  /^(?:(?:fy\s?)?(\d{4}|\d{2})[\s\-/.]*)?(?:period|per|prd|pd|p|month|mth|m)\.?\s*0?(\d{1,2})(?:[\s\-/.]*(?:of\s+)?(?:fy\s?)?(\d{4}|\d{2}))?$/i;

/**
 * The month or fiscal period that a column head names: `Jan 2026`, `2026-01`, `01/2026`, `Jan-26`, `31 Jan 26`, `Jan`,
 * `Period 4`, `FY26 P04`. A word like “Actual” beside it changes nothing.
 */
export function parseMonthHead(cell: GridCell | undefined): MonthHead | null {
  if (cell === undefined || cell === '') return null;
  if (typeof cell === 'string' && cell.length > 2 * LONGEST_DATE) return null;
  if (typeof cell === 'number') {
    const day = serialDay(cell);
    return day === null ? null : monthOfDay(day);
  }
  const t = cell
    .trim()
    .replace(/^actuals?\b[\s:\-–]*|[\s:\-–]*\(?\bactuals?\)?$/gi, '')
    .replace(/^(month|period) (ended|ending|to)\s+/i, '');
  const day = parseDate(t, 'dmy') ?? parseDate(t, 'mdy');
  if (day !== null) return monthOfDay(day);
  const span = monthOfSpan(t);
  if (span) return span;
  const named = /^([A-Za-z]{3,9})\.?(?:[\s\-/.,'’]*(\d{4}|\d{2}))?$/.exec(t);
  if (named && namesMonth(named[1]!)) {
    const month = monthOfName(named[1]!)!;
    return named[2] ? valid(month, fullYear(named[2])) : { of: 'month', month, year: null };
  }
  // Not with a point between: 2026.01 is more often an amount.
  const yearFirst = /^(\d{4})[-/\s]?(\d{2})$/.exec(t) ?? /^(\d{4})[-/\s](\d{1,2})$/.exec(t);
  if (yearFirst) return valid(Number(yearFirst[2]), Number(yearFirst[1]));
  const yearNamed = /^(\d{4})[-/.\s]([A-Za-z]{3,9})$/.exec(t);
  if (yearNamed && namesMonth(yearNamed[2]!)) return valid(monthOfName(yearNamed[2]!)!, Number(yearNamed[1]));
  const monthFirst = /^(\d{1,2})[-/.\s](\d{4})$/.exec(t);
  if (monthFirst) return valid(Number(monthFirst[1]), Number(monthFirst[2]));
  const period = PERIOD.exec(t);
  if (!period || Number(period[2]) < 1 || Number(period[2]) > 53) return null;
  const text = period[1] ?? period[3];
  const year = text ? fullYear(text) : null;
  return year === null || isYear(year) ? { of: 'period', period: Number(period[2]), year } : null;
}

/** The month that a span of days fills: `Jan 1 - 31, 2026`, `1 Jan - 31 Jan 2026`, `01/01/2026 to 31/01/2026`. */
function monthOfSpan(text: string): MonthHead | null {
  const short = /^([A-Za-z]{3,9})\.?\s*\d{1,2}\s*[-–]\s*(\d{1,2}),?\s*(\d{4}|\d{2})$/.exec(text);
  if (short && namesMonth(short[1]!)) return valid(monthOfName(short[1]!)!, fullYear(short[3]!));
  const ends = /^(.+?)\s*(?:\bto\b|–|\s-\s)\s*(.+)$/.exec(text);
  if (!ends) return null;
  for (const order of ['dmy', 'mdy'] as const) {
    const to = parseDate(ends[2]!, order);
    if (to === null) continue;
    const end = civilOf(to);
    const from = parseDate(ends[1]!, order) ?? parseDate(`${ends[1]!.replace(/,$/, '')} ${end.year}`, order);
    if (from === null) continue;
    const start = civilOf(from);
    if (start.year === end.year && start.month === end.month) return monthOfDay(to);
  }
  return null;
}

const isYear = (year: number): boolean => year >= 1900 && year <= 2199;

const valid = (month: number, year: number): MonthHead | null =>
  month >= 1 && month <= 12 && isYear(year) ? { of: 'month', month, year } : null;

function monthOfDay(n: DayNumber): MonthHead {
  const { month, year } = civilOf(n);
  return { of: 'month', month, year };
}

/** The first month or day that a free text names (a title, a sheet's or a file's name): `Trial balance as of 31 March 2026`. */
export function findMonthInText(text: string): MonthHead | null {
  const words = text
    .slice(0, 300)
    .replace(/\.[A-Za-z]{3,4}$/, '')
    .replace(/[_()]/g, ' ');
  for (const pattern of [
    /\d{4}-\d{2}-\d{2}/,
    /\d{1,2}[\s\-/.]+[A-Za-z]{3,9}[\s\-/.,]+\d{2,4}/,
    /[A-Za-z]{3,9}\.?\s+\d{1,2},?\s+\d{4}/,
    /\d{1,2}[/.]\d{1,2}[/.]\d{4}/,
    /[A-Za-z]{3,9}[\s\-']*\d{4}/,
    /\d{4}[\s\-]*[A-Za-z]{3,9}/,
    /\d{4}-\d{2}/,
    /\b\d{2}[-/]\d{4}/,
    /(?:FY\s?\d{2,4}[\s-]*)?\bP(?:eriod)?\s?\d{1,2}\b/i,
    /\b[A-Za-z]{3,9}[\s\-']*\d{2}\b/,
    /\b[A-Za-z]{3,9}\b/,
  ]) {
    for (const [found] of words.matchAll(new RegExp(pattern, 'gi'))) {
      const head = parseMonthHead(found);
      if (head) return head;
    }
  }
  return null;
}

/** The last day of a month, where an amount given for the whole month is put. */
export const monthEnd = (year: number, month: number): DayNumber =>
  dayNumberOf(year, month, daysInMonth(year, month));
