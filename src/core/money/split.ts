import { divideRounded, roundTo } from './round';
import { isTooLarge, minor, plus, sum, TOO_LARGE, type Minor } from './minor';

/**
 * Divides `total` over `weights` (whole numbers, none negative, not all zero) by the largest remainder; a tie
 * goes to the earliest part. The parts always add up to the total. Throws `RangeError` for unusable weights.
 */
export function splitByWeights(total: Minor, weights: readonly number[]): Minor[] {
  const all = weights.reduce((a, w) => {
    if (!Number.isSafeInteger(w) || w < 0) throw new RangeError(`Not a weight: ${w}`);
    return a + w;
  }, 0);
  if (all === 0) throw new RangeError('Every weight is zero');
  if (isTooLarge(total)) return weights.map(() => TOO_LARGE);
  const sign = total < 0 ? -1 : 1;
  const size = Math.abs(total);
  const rests: (number | bigint)[] = [];
  const floors = Number.isSafeInteger(all * size)
    ? floorsSmall(size, weights, all, rests)
    : floorsBig(size, weights, rests);
  let left = size;
  for (const floor of floors) left -= floor;
  for (const i of left === 0 ? [] : largest(rests, left)) floors[i]! += 1;
  return floors.map((floor) => minor(sign * floor));
}

/** Parts rounded down; what each was rounded down by, in parts of `all`, is put into `rests`. */
function floorsSmall(
  size: number,
  weights: readonly number[],
  all: number,
  rests: (number | bigint)[],
): number[] {
  return weights.map((w) => {
    const floor = Math.floor((size * w) / all);
    rests.push(size * w - floor * all);
    return floor;
  });
}

function floorsBig(size: number, weights: readonly number[], rests: (number | bigint)[]): number[] {
  const all = weights.reduce((a, w) => a + BigInt(w), 0n);
  return weights.map((w) => {
    const product = BigInt(size) * BigInt(w);
    rests.push(product % all);
    return Number(product / all);
  });
}

/** Places of the largest of some values, the earliest of equals. */
function largest(values: readonly (number | bigint)[], count: number): number[] {
  if (count === 1) {
    let at = 0;
    for (let i = 1; i < values.length; i++) if (values[i]! > values[at]!) at = i;
    return [at];
  }
  return values
    .map((_, i) => i)
    .sort((i, j) => compare(values[j]!, values[i]!) || i - j)
    .slice(0, count);
}

const compare = (a: number | bigint, b: number | bigint): number => (a < b ? -1 : a > b ? 1 : 0);

/** The i-th of `count` equal parts of a total in whole units; what is left over goes one unit each to the earliest. */
export function evenPart(total: number, count: number, i: number): number {
  const size = total < 0 ? -total : total;
  const low = Math.floor(size / count);
  const part = i < size - low * count ? low + 1 : low;
  // Never the zero below zero.
  return total < 0 && part !== 0 ? -part : part;
}

/** Divides `total` into `count` equal parts; what is left over goes one unit each to the earliest parts. */
export function splitEven(total: Minor, count: number): Minor[] {
  if (!(count >= 1)) throw new RangeError(`Not a number of parts: ${count}`);
  return Array.from({ length: count }, (_, i) =>
    isTooLarge(total) ? TOO_LARGE : minor(evenPart(total, count, i)),
  );
}

/**
 * Divides `total` in proportion to `shape`, whose parts may be negative (a month of refunds) as long as they do
 * not cancel out. Each part is total × part ÷ sum rounded toward zero; the rest goes by largest remainder.
 * Null when the shape is empty or sums to zero: there is nothing to be in proportion to.
 */
export function splitLike(total: Minor, shape: readonly number[]): Minor[] | null {
  const whole = shape.reduce(plus, 0);
  if (whole === 0) return null;
  if (isTooLarge(total) || !Number.isInteger(whole)) return shape.map(() => TOO_LARGE);
  if (shape.every((s) => s >= 0)) return splitByWeights(total, shape);
  if (shape.every((s) => s <= 0))
    return splitByWeights(
      total,
      shape.map((s) => (s === 0 ? 0 : -s)),
    );
  const parts = shape.map((s) => divideRounded(total, s, whole, 'floor'));
  const rests = shape.map((s) => {
    const rest = (BigInt(total) * BigInt(s)) % BigInt(whole);
    return rest < 0n === whole < 0 || rest === 0n ? rest : rest + BigInt(whole);
  });
  let left = total - sum(parts);
  const order = rests.map((_, i) => i);
  const size = (r: bigint) => (r < 0n ? -r : r);
  order.sort((i, j) => compare(size(rests[j]!), size(rests[i]!)) || i - j);
  for (const i of order) {
    if (left <= 0) break;
    parts[i] = minor(parts[i]! + 1);
    left -= 1;
  }
  return parts;
}

/**
 * Rounds every part to a multiple of `unit` so that the parts add up to the total rounded to that unit:
 * each part is taken down to the unit below and what is missing goes by largest remainder, earliest first.
 */
export function roundParts(parts: readonly Minor[], unit: number): Minor[] {
  if (unit <= 1) return [...parts];
  if (isTooLarge(sum(parts))) return parts.map(() => TOO_LARGE);
  const target = roundTo(sum(parts), unit);
  const floors = parts.map((p) => roundTo(p, unit, 'floor'));
  let missing = (target - sum(floors)) / unit;
  // A month that was nothing stays nothing while another month can take the leftover.
  const order = parts.map((_, i) => i).filter((i) => parts[i] !== floors[i]);
  order.sort((i, j) => parts[j]! - floors[j]! - (parts[i]! - floors[i]!) || i - j);
  const out = [...floors];
  for (const i of order) {
    if (missing <= 0) break;
    out[i] = minor(out[i]! + unit);
    missing -= 1;
  }
  return out;
}
