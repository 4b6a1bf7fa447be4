declare const minorBrand: unique symbol;

/**
 * An amount of money as a whole number of minor units (cents, yen, fils). Never a fraction, never `-0`. Sums and results
 * beyond 2^53 are `TOO_LARGE`.
 */
export type Minor = number & { readonly [minorBrand]: 'Minor' };

/** Thrown when a fraction is used as money: a programmer's mistake. */
export class UnsafeMoneyError extends Error {
  constructor(readonly value: number) {
    super(`Not a whole number of minor units: ${value}`);
    this.name = 'UnsafeMoneyError';
  }
}

/**
 * What a sum or result is that cannot be told exactly, being beyond 2^53 minor units. It is not a number (IEEE 754), so
 * whatever is reckoned with it is too large as well, and nothing compares with it; it is shown as words. Nothing that is
 * kept is ever too large: see `MOST_AMOUNT`.
 */
export const TOO_LARGE = NaN as Minor;

export const isTooLarge = (amount: Minor | null): boolean => Number.isNaN(amount);

/**
 * The largest single figure, in minor units, of either sign: 99,999,999,999.99 where there are two decimals. More is
 * refused at every door, and no method gives more. Sums of nine hundred such figures are exact; a hundred thousand lines
 * over ten years are, as long as they average 7.5 million a month.
 */
export const MOST_AMOUNT = 9_999_999_999_999;

/** Whether an amount may stand as a single figure. */
export const isAmount = (value: number): boolean => Number.isInteger(value) && Math.abs(value) <= MOST_AMOUNT;

/** Makes money of a whole number of minor units; `TOO_LARGE` beyond 2^53. Throws `UnsafeMoneyError` for fractions. */
export function minor(value: number): Minor {
  if (Number.isSafeInteger(value)) return (value === 0 ? 0 : value) as Minor;
  if (Number.isFinite(value) && !Number.isInteger(value)) throw new UnsafeMoneyError(value);
  return TOO_LARGE;
}

/** a + b as a running sum: once it has been beyond 2^53 it stays too large, since cents may have been lost. */
export function plus(a: number, b: number): number {
  const total = a + b;
  return Math.abs(total) <= Number.MAX_SAFE_INTEGER ? total : NaN;
}

export const ZERO = minor(0);

/** a + b. */
export const add = (a: Minor, b: Minor): Minor => minor(a + b);

/** a − b. */
export const subtract = (a: Minor, b: Minor): Minor => minor(a - b);

/** −a, without ever giving `-0`. */
export const negate = (a: Minor): Minor => minor(-a);

/** Sum of all amounts; zero for none. Too large when any partial sum is. */
export function sum(amounts: Iterable<Minor>): Minor {
  let total = 0;
  for (const a of amounts) total = plus(total, a);
  return minor(total);
}

/** Sum where a blank (`null`) says nothing; blank when every amount is blank. */
export function sumBlank(amounts: Iterable<Minor | null>): Minor | null {
  let total = 0;
  let any = false;
  for (const a of amounts) {
    if (a === null) continue;
    any = true;
    total = plus(total, a);
  }
  return any ? minor(total) : null;
}

/** Whether two figures are the same: blanks, zeros, and those that are too large. */
export const sameFigure = (a: Minor | null | undefined, b: Minor | null | undefined): boolean =>
  Object.is(a, b);
