import { minor, splitByWeights } from '@/core/money';
import type { Percent } from '@/core/money';

const MILLION = 1_000_000;

/** A percentage as a whole number of millionths of a percent. */
export function weightOf(percent: Percent): number {
  const [whole = '0', part = ''] = percent.split('.');
  return Math.abs(Number(whole)) * MILLION + Number(part.padEnd(6, '0').slice(0, 6));
}

const HUNDRED = 100 * MILLION;

/** An amount in parts by percent, and what they leave of 100; by largest remainder, earliest first. */
export function splitByPercents(
  amount: number,
  percents: readonly Percent[],
): { parts: number[]; rest: number } {
  if (percents.length === 1 && percents[0] === '100') return { parts: [amount], rest: 0 };
  const weights = percents.map(weightOf);
  const left = HUNDRED - weights.reduce((a, b) => a + b, 0);
  const parts: number[] = splitByWeights(minor(amount), [...weights, Math.max(0, left)]);
  const rest = parts.pop()!;
  return { parts, rest };
}

/** An amount in so many equal parts; what is left over goes to the earliest. */
export function evenParts(amount: number, count: number): number[] {
  if (count === 1) return [amount];
  const sign = amount < 0 ? -1 : 1;
  const size = Math.abs(amount);
  const rest = size % count;
  const low = (size - rest) / count;
  return Array.from({ length: count }, (_, i) => sign * (i < rest ? low + 1 : low) || 0);
}
