import { isAmount, multiplyRatio, ratio, roundRatio, UnsafeMoneyError, type Ratio } from '@/core/money';
import { indexOfId } from '@/core/calendar';
import { assertNever } from '@/core/assertNever';
import { evaluate } from '@/core/formula';
import type { Driver } from '@/core/model';
import type { Facts } from './facts';
import { formulaOf } from './methods/formula';
import type { LineIssue, Need } from './rule';
import { stepped, stepsTaken } from './steps';

/** A driver's months, in whole numbers of 10^−decimals of its unit. What is shown is what is reckoned with. */
export type DriverResult = { readonly values: readonly (number | null)[]; readonly issue: LineIssue | null };

/** A driver's value of a month; null where nothing is said, undefined where there is no such driver. */
export type DriverValue = (id: string, i: number) => Ratio | null | undefined;

const scaleOf = (driver: Driver): number => 10 ** driver.decimals;

/** A value of the driver as a fraction. */
export const driverRatio = (driver: Driver, value: number): Ratio => ratio(value, scaleOf(driver));

/** The drivers that a driver follows. It may follow its own earlier months. */
export function driverNeeds({ series }: Driver): readonly Need[] {
  if (series.kind !== 'formula') return [];
  const parsed = formulaOf(series.formula);
  return parsed.ok
    ? parsed.names.filter((n) => n.name.of === 'driver').map(({ name, prior }) => ({ name, lag: prior }))
    : [];
}

export const isMonthlyDriver = (driver: Driver): boolean => driver.series.kind === 'formula';

/** All months of a driver that follows nothing but itself. */
export function computeDriver(driver: Driver, facts: Facts): DriverResult {
  const made = seriesOf(driver, facts);
  return made && made.values.every(fits) ? made : { values: blankOf(facts), issue: 'tooLarge' };
}

const fits = (value: number | null): boolean => value === null || isAmount(value);

/** Null where its way leads through figures that are beyond reckoning. */
function seriesOf({ series }: Driver, facts: Facts): DriverResult | null {
  try {
    switch (series.kind) {
      case 'typed':
        return { values: facts.periods.map((p) => series.values[p.id] ?? null), issue: null };
      case 'step': {
        const first = indexOfId(facts.calendar, series.first) ?? Infinity;
        const at = (index: number) =>
          stepped(series.start, series.change, stepsTaken(index, first, series.every));
        return { values: facts.periods.map((p) => at(p.index)), issue: null };
      }
      case 'seasonal': {
        const weights = facts.weights(series.weights);
        const all = weights?.reduce((a, b) => a + b, 0) ?? 0;
        if (!weights || all === 0) return { values: blankOf(facts), issue: 'weightsMissing' };
        // The level is the average month: each is level × weight ÷ the average weight.
        const values = facts.periods.map((p) =>
          roundRatio(
            multiplyRatio(ratio(series.level), ratio((weights[p.number - 1] ?? 0) * weights.length, all)),
          ),
        );
        return { values, issue: null };
      }
      case 'formula':
        throw new Error('A driver by formula is reckoned by month');
      default:
        return assertNever(series);
    }
  } catch (error) {
    if (error instanceof UnsafeMoneyError) return null;
    throw error;
  }
}

const blankOf = (facts: Facts): null[] => facts.periods.map(() => null);

/** One month of a driver that follows others. */
export function computeDriverMonth(
  driver: Driver,
  i: number,
  valueOf: DriverValue,
): { readonly value: number | null; readonly issue: LineIssue | null } {
  if (driver.series.kind !== 'formula') throw new Error('Only a driver by formula is reckoned by month');
  const parsed = formulaOf(driver.series.formula);
  // A driver follows drivers: amounts of lines belong to the lines.
  if (!parsed.ok || parsed.names.some((n) => n.name.of !== 'driver'))
    return { value: null, issue: 'badFormula' };
  const drivers = parsed.names.flatMap((n) => (n.name.of === 'driver' ? [n.name.driver] : []));
  if (drivers.some((id) => valueOf(id, i) === undefined)) return { value: null, issue: 'driverMissing' };
  try {
    const { value, error } = evaluate(parsed.expression, (name, prior) =>
      name.of === 'driver' ? (valueOf(name.driver, i - prior) ?? null) : null,
    );
    if (error) return { value: null, issue: error };
    const whole = value === null ? null : roundRatio(multiplyRatio(value, ratio(scaleOf(driver))));
    return fits(whole) ? { value: whole, issue: null } : { value: null, issue: 'tooLarge' };
  } catch (error) {
    if (error instanceof UnsafeMoneyError) return { value: null, issue: 'tooLarge' };
    throw error;
  }
}
