import { minor, splitByWeights } from '@/core/money';
import type { Percent } from '@/core/money';

const MILLION = 1_000_000;

/** A percentage as a whole number of millionths of a percent. */
export function weightOf(percent: Percent): number {
  let weight = weights.get(percent);
  if (weight === undefined) {
    if (weights.size >= MOST) weights.clear();
    weights.set(percent, (weight = readWeight(percent)));
  }
  return weight;
}
/** A budget has few percentages and many months: each text is read once. */
const weights = new Map<Percent, number>();
const MOST = 1000;

function readWeight(percent: Percent): number {
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
  if (amount === 0) return { parts: percents.map(() => 0), rest: 0 };
  const all = percents.map(weightOf);
  const left = HUNDRED - all.reduce((a, b) => a + b, 0);
  const parts: number[] = splitByWeights(minor(amount), [...all, Math.max(0, left)]);
  const rest = parts.pop()!;
  return { parts, rest };
}
