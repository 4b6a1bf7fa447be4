import { formatAmount, perMilleText, type Minor } from '@/core/money';
import type { Book, Layout } from '@/core/model';
import type { ReportRow } from '@/core/report';

export type MoneyFormat = {
  /** As the book's settings say: cents on or off, negatives in parentheses or with a minus, zero as a dash. */
  readonly text: (amount: Minor | null) => string;
  /** To the cent; with its currency where all else is told in thousands. */
  readonly exact: (amount: Minor | null) => string;
  /** As `text` in a sentence, where what rounds to nothing is told to the cent. */
  readonly told: (amount: Minor | null) => string;
  /** With a plus or minus before it, for differences and changes. */
  readonly signed: (amount: Minor | null) => string;
};

const made = new WeakMap<Book['settings'], Map<string, MoneyFormat>>();

/** How the open book shows money; the same object while its settings stay. */
export function moneyFormat(book: Pick<Book, 'settings' | 'currency' | 'locale'>): MoneyFormat {
  let byPlace = made.get(book.settings);
  if (!byPlace) made.set(book.settings, (byPlace = new Map()));
  const key = `${book.currency} ${book.locale}`;
  let format = byPlace.get(key);
  if (!format) {
    const { cents, negatives, thousands } = book.settings;
    const show = (a: Minor | null, exact: boolean) =>
      formatAmount(a, book.currency, book.locale, {
        cents: exact || cents,
        negatives,
        thousands: !exact && thousands,
      });
    const exact = (a: Minor | null) => {
      const text = show(a, true);
      return thousands && a !== null && a !== 0 ? `${book.currency}\u00a0${text}` : text;
    };
    format = {
      text: (a) => show(a, false),
      exact,
      told: (a) => (a !== 0 && /^[0.,]+$/.test(show(a, false)) ? exact(a) : show(a, false)),
      signed: (a) => {
        if (a === null || a === 0) return show(a, false);
        const size = formatAmount(Math.abs(a) as Minor, book.currency, book.locale, {
          cents,
          negatives: 'minus',
          thousands,
        });
        return `${a > 0 ? '+' : '−'}${size}`;
      },
    };
    byPlace.set(key, format);
  }
  return format;
}

/** The book's settings as a layout changes them; the same object while both stay. */
export function layoutSettings(
  { settings }: Pick<Book, 'settings'>,
  { unit, negatives }: Layout['numbers'],
): Book['settings'] {
  if (unit === 'book' && negatives === 'book') return settings;
  let own = changed.get(settings);
  if (!own) changed.set(settings, (own = new Map()));
  const key = `${unit} ${negatives}`;
  let now = own.get(key);
  if (!now) {
    const { thousands: _thousands, ...plain } = settings;
    now = {
      ...(unit === 'book' ? settings : { ...plain, cents: unit === 'cents' }),
      ...(unit === 'thousands' ? { thousands: true as const } : {}),
      ...(negatives === 'book' ? {} : { negatives }),
    };
    own.set(key, now);
  }
  return now;
}

/** In what figures are, where that is not plainly their currency; empty where it is. */
export const unitWords = ({ settings, currency }: Pick<Book, 'settings' | 'currency'>): string =>
  settings.thousands ? `in thousands of ${currency}` : '';

/** The same of a report by its layout, which may write them otherwise than the book does. */
export function layoutUnit(book: Pick<Book, 'settings' | 'currency'>, numbers: Layout['numbers']): string {
  const own = unitWords({ ...book, settings: layoutSettings(book, numbers) });
  return own || (book.settings.thousands ? `in ${book.currency}` : '');
}

/** Figures that are written as the book writes them. */
export const AS_THE_BOOK: Layout['numbers'] = { unit: 'book', negatives: 'book', red: 'book' };

/** How a layout writes money: as the book does, but for what it says itself. */
export const layoutMoney = (
  book: Pick<Book, 'settings' | 'currency' | 'locale'>,
  numbers: Layout['numbers'],
): MoneyFormat => moneyFormat({ ...book, settings: layoutSettings(book, numbers) });
const changed = new WeakMap<Book['settings'], Map<string, Book['settings']>>();

/** Figures of report rows as they are written: money, or quantities of the row's unit. */
export function figureTexts({ locale }: Pick<Book, 'locale'>, money: MoneyFormat) {
  const written =
    (asMoney: (amount: Minor | null) => string) =>
    (amount: Minor | null, { unit }: Pick<ReportRow, 'unit'>): string =>
      unit === undefined
        ? asMoney(amount)
        : amount === null
          ? ''
          : (amount / 10 ** unit.decimals).toLocaleString(locale, {
              minimumFractionDigits: unit.decimals,
              maximumFractionDigits: unit.decimals,
            });
  return { text: written(money.text), exact: written(money.exact) };
}

export const percentText = (perMille: number | null): string =>
  perMille === null ? '' : perMilleText(perMille);

/** The locale of the open book: days and counts are written as it writes them. */
let daysIn = 'en-GB';
export const setDayLocale = (locale: string): void => {
  daysIn = locale;
};
/** How many of something: "1,234", "1.234". */
export const countText = (n: number, locale = daysIn): string => n.toLocaleString(locale);

const dayFormats = new Map<string, Intl.DateTimeFormat>();

/** A day from ISO text, as the book's locale writes it: "Jun 12, 2026", "12 juin 2026". */
export function dayText(day: string, locale = daysIn): string {
  let format = dayFormats.get(locale);
  if (!format)
    dayFormats.set(
      locale,
      (format = new Intl.DateTimeFormat(locale, {
        day: 'numeric',
        month: 'short',
        year: 'numeric',
        timeZone: 'UTC',
      })),
    );
  const [year, month, date] = day.slice(0, 10).split('-').map(Number);
  if (!year || !month || !date) return '';
  return format.format(Date.UTC(year, month - 1, date));
}

const shortDays = new Map<string, Intl.DateTimeFormat>();

/** A day without its year, for heads of columns: "Oct 27". */
export function shortDay(day: string, locale = daysIn): string {
  let format = shortDays.get(locale);
  if (!format)
    shortDays.set(
      locale,
      (format = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', timeZone: 'UTC' })),
    );
  return format.format(Date.parse(`${day}T00:00:00Z`));
}

/** An instant in the person's own time: "12 Jun 2026, 14:05". */
export function timeText(at: string): string {
  const time = new Date(at);
  if (Number.isNaN(time.getTime())) return '';
  const [day, clock] = time.toLocaleString('sv-SE').split(' ');
  return `${dayText(day!)}, ${clock!.slice(0, 5)}`;
}
