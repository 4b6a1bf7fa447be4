import type { PeriodIndex } from '@/core/calendar';
import { reckoned, type Comparison, type Ground } from '@/core/ground';
import { divideRounded, type Minor } from '@/core/money';
import type { Quantity } from '@/core/model';

/** A driver's quantity by period, planned and counted, in whole numbers of 10^−decimals of its unit. */
export type UnitSeries = {
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  readonly planned: (period: PeriodIndex) => number | null;
  readonly counted: (period: PeriodIndex) => number | null;
};

export const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** In whole numbers of another count of decimals; rounded half away from zero where there are fewer. */
const scaled = (value: number, from: number, to: number): number =>
  from === to
    ? value
    : from < to
      ? value * 10 ** (to - from)
      : divideRounded(value, 1, 10 ** (from - to), 'halfAwayFromZero');

/** The drivers of a comparison's budgets, and what was counted that no budget plans; each name once. */
export function unitsOf(ground: Ground, comparison: Comparison | null): UnitSeries[] {
  const { book, calendar } = ground;
  const out: UnitSeries[] = [];
  const countedOf = (q: Quantity | undefined, decimals: number) => (p: PeriodIndex) => {
    const value = q?.values[calendar.period(p).id];
    return value === undefined || value === null ? null : scaled(value, q!.decimals, decimals);
  };
  const find = (name: string) => book.quantities.find((q) => sameName(q.name, name));
  for (const { budget } of comparison?.parts ?? []) {
    const { reckoning, facts } = reckoned(ground, budget);
    for (const { driver, values } of reckoning.drivers.values()) {
      if (out.some((u) => sameName(u.name, driver.name))) continue;
      const first = facts.periods[0]?.index ?? 0;
      out.push({
        name: driver.name,
        unit: driver.unit,
        decimals: driver.decimals,
        planned: (p) => values[p - first] ?? null,
        counted: countedOf(find(driver.name), driver.decimals),
      });
    }
  }
  for (const q of book.quantities)
    if (!out.some((u) => sameName(u.name, q.name)))
      out.push({ ...q, planned: () => null, counted: countedOf(q, q.decimals) });
  return out;
}

/** An amount for one unit: the amount by the quantity of the same periods; null where nothing is counted. */
export function perUnit(amount: Minor | null, quantity: number | null, decimals: number): Minor | null {
  if (amount === null || quantity === null || quantity === 0) return null;
  return divideRounded(amount, 10 ** decimals, quantity, 'halfAwayFromZero');
}
