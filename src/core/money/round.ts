import { assertNever } from '../assertNever';
import { minor, TOO_LARGE, type Minor } from './minor';

/** How a quotient that does not come out even is rounded. */
export type Rounding = 'halfAwayFromZero' | 'halfEven' | 'towardZero' | 'floor';

/**
 * amount × numerator ÷ denominator, exactly, then rounded as named; too large when any of them is. Throws on a zero
 * denominator.
 */
export function divideRounded(
  amount: number,
  numerator: number,
  denominator: number,
  rounding: Rounding,
): Minor {
  if (denominator === 0) throw new RangeError('Division of money by zero');
  const product = amount * numerator;
  if (Number.isSafeInteger(product) && Number.isSafeInteger(denominator)) {
    return divideSmall(product, denominator, rounding);
  }
  if (!Number.isInteger(amount) || !Number.isInteger(numerator) || !Number.isInteger(denominator))
    return TOO_LARGE;
  let n = BigInt(amount) * BigInt(numerator);
  let d = BigInt(denominator);
  if (d < 0n) [n, d] = [-n, -d];
  return minor(Number(roundedQuotient(n, d, rounding)));
}

/**
 * The common case: everything stays within 2^53, so the quotient of plain numbers cut off is exact (it is at least 1 ÷ d
 * from the next whole number, and rounded by less than that). The remainder operator would be ten times slower.
 */
function divideSmall(product: number, denominator: number, rounding: Rounding): Minor {
  const n = denominator < 0 ? -product : product;
  const d = Math.abs(denominator);
  const whole = Math.trunc(n / d);
  const rest = n - whole * d;
  if (rest === 0) return minor(whole);
  return minor(
    whole + step(n < 0 ? -1 : 1, Math.abs(rest) - (d - Math.abs(rest)), whole % 2 !== 0, rounding),
  );
}

function roundedQuotient(n: bigint, d: bigint, rounding: Rounding): bigint {
  const whole = n / d;
  const rest = n % d;
  if (rest === 0n) return whole;
  const size = rest < 0n ? -rest : rest;
  const half = size * 2n - d;
  return (
    whole + BigInt(step(n < 0n ? -1 : 1, half < 0n ? -1 : half > 0n ? 1 : 0, whole % 2n !== 0n, rounding))
  );
}

/** What to add to the truncated quotient; `half` is below, at or above zero as the rest is to one half. */
function step(sign: 1 | -1, half: number, odd: boolean, rounding: Rounding): number {
  switch (rounding) {
    case 'halfAwayFromZero':
      return half >= 0 ? sign : 0;
    case 'halfEven':
      return half > 0 || (half === 0 && odd) ? sign : 0;
    case 'towardZero':
      return 0;
    case 'floor':
      return sign < 0 ? -1 : 0;
    default:
      return assertNever(rounding);
  }
}

/** The amount rounded to a multiple of `unit` minor units: roundTo(1250, 100) is 1300. */
export function roundTo(amount: Minor, unit: number, rounding: Rounding = 'halfAwayFromZero'): Minor {
  return unit <= 1 ? amount : minor(divideRounded(amount, 1, unit, rounding) * unit);
}
