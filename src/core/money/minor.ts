declare const minorBrand: unique symbol;

/** An amount of money as a whole number of minor units (cents, yen, fils). Never a fraction, never `-0`. */
export type Minor = number & { readonly [minorBrand]: 'Minor' };

/** Thrown when a number that is not a safe whole number is used as money: a programmer's mistake. */
export class UnsafeMoneyError extends Error {
  constructor(readonly value: number) {
    super(`Not a safe whole number of minor units: ${value}`);
    this.name = 'UnsafeMoneyError';
  }
}

/** Makes money of a whole number of minor units; throws `UnsafeMoneyError` for fractions and beyond 2^53. */
export function minor(value: number): Minor {
  if (!Number.isSafeInteger(value)) throw new UnsafeMoneyError(value);
  return (value === 0 ? 0 : value) as Minor;
}

export const ZERO = minor(0);

/**
 * The largest single figure, in minor units, of either sign: 99,999,999,999.99 where there are two decimals. More is
 * refused at every door. Sums of some nine hundred such figures are exact; what a sum comes to beyond 2^53 is
 * `TOO_LARGE`.
 */
export const MOST_AMOUNT = 9_999_999_999_999;

/** a + b, checked. */
export const add = (a: Minor, b: Minor): Minor => minor(a + b);

/** a − b, checked. */
export const subtract = (a: Minor, b: Minor): Minor => minor(a - b);

/** −a, without ever giving `-0`. */
export const negate = (a: Minor): Minor => minor(-a);

/** Sum of all amounts; zero for none. Throws when any partial sum is unsafe. */
export function sum(amounts: Iterable<Minor>): Minor {
  let total = 0;
  for (const a of amounts) {
    total += a;
    if (!Number.isSafeInteger(total)) throw new UnsafeMoneyError(total);
  }
  return minor(total);
}

/** Sum where a blank (`null`) says nothing; blank when every amount is blank. */
export function sumBlank(amounts: Iterable<Minor | null>): Minor | null {
  let total = 0;
  let any = false;
  for (const a of amounts) {
    if (a === null) continue;
    any = true;
    total += a;
  }
  return any ? minor(total) : null;
}
