import { decimalText, numberFormatOf, parseAmount } from '@/core/money';

/** A number, written as the locale writes it, as a whole number of its last decimal; null when it cannot be read or is finer. */
export function readScaled(
  text: string,
  decimals: number,
  locale: string,
): { readonly value: number | null } | null {
  const read = parseAmount(text.trim(), decimals, numberFormatOf(locale));
  return read.ok && !read.percent ? { value: read.value } : null;
}

/** The same as text: 1250 of two decimals is "12.50", or "12,50" where one writes so. Blank for null. */
export const scaledText = (value: number | null, decimals: number, locale: string): string =>
  value === null ? '' : decimalText(value, decimals).replace('.', numberFormatOf(locale).decimal);
