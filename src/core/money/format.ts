import { minorDigits } from './currency';
import { isTooLarge, minor, MOST_AMOUNT, type Minor } from './minor';
import type { NumberFormat } from './parse';

export type AmountStyle = {
  /** Show minor units; off rounds the shown figure half away from zero (the stored one is untouched). */
  readonly cents: boolean;
  /** Show thousands and their tenths, rounded half away from zero: what a small company loses in a month is no "0". */
  readonly thousands?: boolean | undefined;
  readonly negatives: 'parentheses' | 'minus';
  /** What zero looks like; an en dash unless said otherwise. */
  readonly zero?: string;
};

/** The decimal and thousands marks of a locale, as the runtime's CLDR data has them. */
export function numberFormatOf(locale: string): NumberFormat {
  const cached = formats.get(locale);
  if (cached) return cached;
  const parts = new Intl.NumberFormat(locale, { useGrouping: true }).formatToParts(-1234567.5);
  const decimal = parts.find((p) => p.type === 'decimal')?.value === ',' ? ',' : '.';
  const raw = parts.find((p) => p.type === 'group')?.value ?? '';
  const group = /[\s\u00a0\u202f]/.test(raw) ? ' ' : raw === '’' ? "'" : (raw as NumberFormat['group']);
  const format: NumberFormat = { decimal, group: group === decimal ? '' : group };
  formats.set(locale, format);
  return format;
}
const formats = new Map<string, NumberFormat>();

/** Text of an amount in its locale: 123456 with cents is "1,234.56", without "1,235"; blank is empty. */
export function formatAmount(
  amount: Minor | null,
  currency: string,
  locale: string,
  style: AmountStyle,
): string {
  if (amount === null) return '';
  if (isTooLarge(amount)) return TOO_LARGE_TEXT;
  if (amount === 0) return style.zero ?? '–';
  const digits = minorDigits(currency);
  const { decimal, group } = numberFormatOf(locale);
  const decimals = style.thousands ? 1 : style.cents ? digits : 0;
  // The smallest step that is shown, in minor units; of a whole number of them a half is told exactly.
  const step = 10 ** (digits + (style.thousands ? 3 : 0) - decimals);
  const size = Math.abs(amount);
  const steps = Math.floor(size / step) + ((size % step) * 2 >= step && step > 1 ? 1 : 0);
  const whole = Math.floor(steps / 10 ** decimals);
  const fraction = decimals > 0 ? decimal + String(steps % 10 ** decimals).padStart(decimals, '0') : '';
  const mark = group === ' ' ? '\u00a0' : group;
  const text = groupThousands(String(whole), mark) + fraction;
  // What rounds to nothing is not nothing: 0 is told from the dash of a true zero, and has no sign.
  if (steps === 0) return text;
  if (amount >= 0) return text;
  return style.negatives === 'parentheses' ? `(${text})` : `−${text}`;
}

/** Tenths of a percent as text: 234 is "+23.4%". Beyond a thousand percent only the sign of it is of use. */
export function perMilleText(perMille: number): string {
  const size = Math.abs(perMille) > 9999 ? '>999' : (Math.abs(perMille) / 10).toFixed(1);
  return `${perMille > 0 ? '+' : perMille < 0 ? '−' : ''}${size}%`;
}

/** What stands in place of a sum that cannot be told exactly. */
export const TOO_LARGE_TEXT = 'too large';

function groupThousands(digits: string, mark: string): string {
  if (digits.length < 4 || mark === '') return digits;
  return digits.replace(/\B(?=(\d{3})+$)/g, mark);
}

/**
 * The amount as a person would type it in the locale, for editing and the clipboard: "-1234.56", no grouping; of thousands
 * "-1.23456".
 */
export function editText(
  amount: Minor | null,
  currency: string,
  locale: string,
  thousands: boolean = false,
): string {
  if (amount === null || isTooLarge(amount)) return '';
  return decimalText(amount, typedDigits(currency, thousands))
    .replace('.', numberFormatOf(locale).decimal)
    .replace(thousands ? /([.,]\d*?)0+$/ : /([.,])0+$/, '$1')
    .replace(/[.,]$/, '');
}

/** How many decimals an amount has where it is typed: those of its currency, and three more where it is typed in thousands. */
export const typedDigits = (currency: string, thousands: boolean = false): number =>
  minorDigits(currency) + (thousands ? 3 : 0);

/** The amount as a plain decimal with a dot, all digits of the currency: 5 in USD is "0.05". For files. */
export const plainDecimal = (amount: Minor, currency: string): string =>
  isTooLarge(amount) ? TOO_LARGE_TEXT : decimalText(amount, minorDigits(currency));

/** A whole number of some last decimal as text with a dot, all its decimals written: 5 of two is "0.05". */
export function decimalText(whole: number, digits: number): string {
  const text = String(Math.abs(whole)).padStart(digits + 1, '0');
  const body = digits === 0 ? text : `${text.slice(0, -digits)}.${text.slice(-digits)}`;
  return whole < 0 ? `-${body}` : body;
}

/** The largest amount there may be, as the locale writes it. */
export const mostAmountText = (currency: string, locale: string): string =>
  formatAmount(minor(MOST_AMOUNT), currency, locale, { cents: true, negatives: 'minus' });
