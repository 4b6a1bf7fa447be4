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
  const safe = Number.isSafeInteger(all) && weights.every((w) => Number.isSafeInteger(w * size));
  const parts = safe ? floorsSmall(size, weights, all) : floorsBig(size, weights);
  let left = size - parts.reduce((a, p) => a + p.floor, 0);
  const order = parts.map((_, i) => i);
  order.sort((i, j) => compare(parts[j]!.rest, parts[i]!.rest) || i - j);
  for (const i of order) {
    if (left === 0) break;
    parts[i]!.floor += 1;
    left -= 1;
  }
  return parts.map((p) => minor(sign * p.floor));
}

type Part = { floor: number; readonly rest: number | bigint };

function floorsSmall(size: number, weights: readonly number[], all: number): Part[] {
  return weights.map((w) => {
    const rest = (size * w) % all;
    return { floor: (size * w - rest) / all, rest };
  });
}

function floorsBig(size: number, weights: readonly number[]): Part[] {
  const all = weights.reduce((a, w) => a + BigInt(w), 0n);
  return weights.map((w) => {
    const product = BigInt(size) * BigInt(w);
    return { floor: Number(product / all), rest: product % all };
  });
}

const compare = (a: number | bigint, b: number | bigint): number => (a < b ? -1 : a > b ? 1 : 0);

/** Divides `total` into `count` equal parts; what is left over goes one unit each to the earliest parts. */
export function splitEven(total: Minor, count: number): Minor[] {
  if (!(count >= 1)) throw new RangeError(`Not a number of parts: ${count}`);
  // What is left over is less than a unit each: no weights need be compared. Days of a month ask for this by the thousand.
  const sign = total < 0 ? -1 : 1;
  const size = Math.abs(total);
  const rest = size % count;
  const low = (size - rest) / count;
  const out: Minor[] = [];
  for (let i = 0; i < count; i++)
    out.push(isTooLarge(total) ? TOO_LARGE : minor(sign * (i < rest ? low + 1 : low)));
  return out;
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
