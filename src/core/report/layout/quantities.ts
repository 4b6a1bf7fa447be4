import type { PeriodIndex } from '@/core/calendar';
import { countedOf, reckoned, type Comparison, type Ground } from '@/core/ground';
import { divideRounded, plus, type Minor } from '@/core/money';
import { sameName, type OverMonths } from '@/core/model';

/** A driver's quantity by period, planned and counted, in whole numbers of 10^−decimals of its unit. */
export type UnitSeries = {
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  /** How it goes over several months; null where nobody has said it. */
  readonly over: OverMonths | null;
  readonly planned: (period: PeriodIndex) => number | null;
  readonly counted: (period: PeriodIndex) => number | null;
};

/** The drivers of a comparison's budgets, and what was counted that no budget plans; each name once. */
export function unitsOf(ground: Ground, comparison: Comparison | null): UnitSeries[] {
  const out: UnitSeries[] = [];
  const counted = countedOf(ground);
  const overOf = (name: string) => ground.book.quantities.find((q) => sameName(q.name, name))?.over ?? null;
  for (const { budget } of comparison?.parts ?? []) {
    const { reckoning, facts } = reckoned(ground, budget);
    for (const { driver, values } of reckoning.drivers.values()) {
      if (out.some((u) => sameName(u.name, driver.name))) continue;
      const first = facts.periods[0]?.index ?? 0;
      out.push({
        name: driver.name,
        unit: driver.unit,
        decimals: driver.decimals,
        over: overOf(driver.name),
        planned: (p) => values[p - first] ?? null,
        counted: (p) => counted(driver.name, driver.decimals, p),
      });
    }
  }
  for (const q of ground.book.quantities)
    if (!out.some((u) => sameName(u.name, q.name)))
      out.push({
        ...q,
        over: q.over ?? null,
        planned: () => null,
        counted: (p) => counted(q.name, q.decimals, p),
      });
  return out;
}

/**
 * What a quantity comes to over months that have these values: hours add up, members are as many as on the mean (rounded half
 * away from zero) or as at the end. A blank says nothing. Prices, and what nobody has said this of, make nothing of several.
 */
export function overMonths(over: OverMonths | null, values: readonly (number | null)[]): number | null {
  const said = values.filter((v) => v !== null);
  if (said.length === 0) return null;
  if (values.length === 1) return said[0]!;
  const sum = () => said.reduce((t, v) => plus(t, v), 0);
  switch (over) {
    case 'sum':
      return sum();
    case 'mean':
      return divideRounded(sum(), 1, said.length, 'halfAwayFromZero');
    case 'last':
      return said.at(-1)!;
    case 'none':
    case null:
      return null;
  }
}

/** An amount for one unit: the amount by the quantity of the same periods; null where nothing is counted. */
export function perUnit(amount: Minor | null, quantity: number | null, decimals: number): Minor | null {
  if (amount === null || quantity === null || quantity === 0) return null;
  return divideRounded(amount, 10 ** decimals, quantity, 'halfAwayFromZero');
}
