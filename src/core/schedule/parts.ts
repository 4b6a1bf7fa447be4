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

/** Whether percentages leave anything of 100. */
export const leaveSome = (percents: readonly Percent[]): boolean =>
  percents.reduce((left, percent) => left - weightOf(percent), HUNDRED) > 0;

/** An amount in parts by percent, and what they leave of 100; by largest remainder, earliest first. */
export function splitByPercents(
  amount: number,
  percents: readonly Percent[],
): { parts: number[]; rest: number } {
  if (percents.length === 1 && percents[0] === '100') return { parts: [amount], rest: 0 };
  if (amount === 0) return { parts: percents.map(() => 0), rest: 0 };
  const weights = percents.map(weightOf);
  let left = HUNDRED;
  for (const weight of weights) left -= weight;
  weights.push(Math.max(0, left));
  const parts: number[] = splitByWeights(minor(amount), weights);
  const rest = parts.pop()!;
  return { parts, rest };
}

/** Divides by the same percentages time after time: equal parts of a month differ by a unit at most, so few are new. */
export function dividerOf(
  percents: readonly Percent[],
): (amount: number) => ReturnType<typeof splitByPercents> {
  const known = new Map<number, ReturnType<typeof splitByPercents>>();
  return (amount) => {
    let parts = known.get(amount);
    if (parts === undefined) known.set(amount, (parts = splitByPercents(amount, percents)));
    return parts;
  };
}
