import type { PeriodIndex } from '@/core/calendar';
import { countedOf, reckoned, type Comparison, type Ground } from '@/core/ground';
import { divideRounded, type Minor } from '@/core/money';
import { sameName } from '@/core/model';

/** A driver's quantity by period, planned and counted, in whole numbers of 10^−decimals of its unit. */
export type UnitSeries = {
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  readonly planned: (period: PeriodIndex) => number | null;
  readonly counted: (period: PeriodIndex) => number | null;
};

/** The drivers of a comparison's budgets, and what was counted that no budget plans; each name once. */
export function unitsOf(ground: Ground, comparison: Comparison | null): UnitSeries[] {
  const out: UnitSeries[] = [];
  const counted = countedOf(ground);
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
        counted: (p) => counted(driver.name, driver.decimals, p),
      });
    }
  }
  for (const q of ground.book.quantities)
    if (!out.some((u) => sameName(u.name, q.name)))
      out.push({ ...q, planned: () => null, counted: (p) => counted(q.name, q.decimals, p) });
  return out;
}

/** An amount for one unit: the amount by the quantity of the same periods; null where nothing is counted. */
export function perUnit(amount: Minor | null, quantity: number | null, decimals: number): Minor | null {
  if (amount === null || quantity === null || quantity === 0) return null;
  return divideRounded(amount, 10 ** decimals, quantity, 'halfAwayFromZero');
}
