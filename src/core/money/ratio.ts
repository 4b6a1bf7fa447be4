import { percentFraction, type Percent } from './percent';
import { minor, TOO_LARGE, UnsafeMoneyError, type Minor } from './minor';

/**
 * An exact fraction; the denominator is positive. Plain numbers while both stay safe, so that the common case costs
 * nothing, and big integers beyond.
 */
export type Ratio = { readonly n: number; readonly d: number } | { readonly n: bigint; readonly d: bigint };

const SAFE = Number.MAX_SAFE_INTEGER;

/** n ÷ d, of whole numbers; throws `RangeError` for a zero denominator, `UnsafeMoneyError` for what is no whole number. */
export function ratio(n: number, d = 1): Ratio {
  if (d === 0) throw new RangeError('A fraction over zero');
  if (!Number.isSafeInteger(n) || !Number.isSafeInteger(d)) throw new UnsafeMoneyError(n);
  return d < 0 ? { n: -n || 0, d: -d } : { n, d };
}

/** A percentage as a fraction of one: 4.5 % is 45 ÷ 1000. */
export function ratioOfPercent(p: Percent): Ratio {
  const { numerator, denominator } = percentFraction(p);
  return smallest(numerator, denominator * 100n);
}

/** A decimal text such as `0.25` as a fraction; null when it is none. */
export function ratioOfText(text: string): Ratio | null {
  const m = /^(\d{0,15})(?:\.(\d{0,12}))?$/.exec(text);
  if (!m || (!m[1] && !m[2])) return null;
  const part = m[2] ?? '';
  return smallest(BigInt((m[1] ?? '') + part || '0'), 10n ** BigInt(part.length));
}

const isBig = (r: Ratio): r is { readonly n: bigint; readonly d: bigint } => typeof r.n === 'bigint';
const big = (r: Ratio): { readonly n: bigint; readonly d: bigint } =>
  isBig(r) ? r : { n: BigInt(r.n), d: BigInt(r.d) };

/** Fractions of more digits than this come of no budget, and would take longer to reckon than anybody waits. */
const MOST_DIGITS = 10n ** 400n;

/** Throws `UnsafeMoneyError` where there is no end to its digits. */
function smallest(n: bigint, d: bigint): Ratio {
  if (n > MOST_DIGITS || -n > MOST_DIGITS || d > MOST_DIGITS) throw new UnsafeMoneyError(Infinity);
  const g = gcd(n < 0n ? -n : n, d);
  const [x, y] = g > 1n ? [n / g, d / g] : [n, d];
  const size = x < 0n ? -x : x;
  return size <= SAFE && y <= SAFE ? { n: Number(x), d: Number(y) } : { n: x, d: y };
}

function gcd(a: bigint, b: bigint): bigint {
  while (b > 0n) [a, b] = [b, a % b];
  return a;
}

/** a + b. */
export function addRatio(a: Ratio, b: Ratio): Ratio {
  if (!isBig(a) && !isBig(b)) {
    if (a.d === b.d) {
      const n = a.n + b.n;
      if (Number.isSafeInteger(n)) return { n: n || 0, d: a.d };
    }
    const [x, y, d] = [a.n * b.d, b.n * a.d, a.d * b.d];
    if (Number.isSafeInteger(x) && Number.isSafeInteger(y) && d <= SAFE && Number.isSafeInteger(x + y))
      return { n: x + y || 0, d };
  }
  const [x, y] = [big(a), big(b)];
  return smallest(x.n * y.d + y.n * x.d, x.d * y.d);
}

/** −a. */
export const negateRatio = (a: Ratio): Ratio => (isBig(a) ? { n: -a.n, d: a.d } : { n: -a.n || 0, d: a.d });

/** a × b. */
export function multiplyRatio(a: Ratio, b: Ratio): Ratio {
  if (!isBig(a) && !isBig(b)) {
    const [n, d] = [a.n * b.n, a.d * b.d];
    if (Number.isSafeInteger(n) && d <= SAFE) return { n: n || 0, d };
  }
  const [x, y] = [big(a), big(b)];
  return smallest(x.n * y.n, x.d * y.d);
}

/** a ÷ b; null when b is zero. */
export function divideRatio(a: Ratio, b: Ratio): Ratio | null {
  if (isZero(b)) return null;
  return multiplyRatio(
    a,
    isBig(b) ? (b.n < 0n ? { n: -b.d, d: -b.n } : { n: b.d, d: b.n }) : ratio(b.d, b.n),
  );
}

export const isZero = (a: Ratio): boolean => a.n === 0 || a.n === 0n;

/** Below, at or above zero as a is to b. */
export function compareRatio(a: Ratio, b: Ratio): number {
  const { n } = addRatio(a, negateRatio(b));
  return n < 0 ? -1 : n > 0 ? 1 : 0;
}

/** The whole number nearest to it, half away from zero; too large beyond 2^53. */
export function roundRatio(a: Ratio): Minor {
  if (!isBig(a) && a.d <= SAFE / 2) {
    const rest = a.n % a.d;
    const whole = (a.n - rest) / a.d;
    return minor(Math.abs(rest) * 2 >= a.d ? whole + Math.sign(a.n) : whole);
  }
  const { n, d } = big(a);
  const size = n < 0n ? -n : n;
  const whole = (size * 2n + d) / (d * 2n);
  return minor(Number(n < 0n ? -whole : whole));
}

/**
 * start × (1 + p)^times, exact, rounded once half away from zero: compound growth. One power and one division, since
 * taking the fraction to its lowest terms at every step would take longer than anybody waits.
 */
export function compounded(start: number, p: Percent, times: number): Minor {
  const { numerator, denominator } = percentFraction(p);
  const d = denominator * 100n;
  const factor = Math.abs(Number(d + numerator)) / Number(d);
  if (start !== 0 && times * Math.log10(factor) > 20) return TOO_LARGE;
  const power = BigInt(Math.max(0, times));
  return roundRatio({ n: BigInt(start) * (d + numerator) ** power, d: d ** power });
}
