import type { PeriodId } from '@/core/calendar';
import {
  namesOfDriver,
  namesOfMethod,
  type Book,
  type Budget,
  type Command,
  type Driver,
  type Reference,
  type Series,
} from '@/core/model';
import { readScaled } from '@/components/readScaled';

/** The lines and drivers that follow a driver. */
export function usersOf(
  budget: Budget,
  id: string,
): ({ readonly account: string } | { readonly driver: string })[] {
  const follows = (names: readonly Reference[]) => names.some((n) => n.of === 'driver' && n.driver === id);
  return [
    ...budget.lines.filter((l) => follows(namesOfMethod(l.method))).map(({ account }) => ({ account })),
    ...budget.drivers.filter((d) => d.id !== id && follows(namesOfDriver(d))).map((d) => ({ driver: d.id })),
  ];
}

/** Names of the lines and drivers that are shaped by named weights, in whichever budget, each with its budget. */
export function shapedBy(book: Book, weights: string): { readonly name: string; readonly budget: string }[] {
  const names = new Map(book.accounts.map((a) => [a.id, a.name]));
  const shaped = (of: readonly Reference[]) => of.some((n) => n.of === 'weights' && n.weights === weights);
  return book.budgets.flatMap(({ name: budget, lines, drivers }) => [
    ...lines
      .filter((l) => shaped(namesOfMethod(l.method)))
      .map(({ account }) => ({ name: names.get(account) ?? account, budget })),
    ...drivers.filter((d) => shaped(namesOfDriver(d))).map(({ name }) => ({ name, budget })),
  ]);
}

/** A driver with finer or coarser values: the same quantities, rounded where the new decimals cannot hold them. */
export function rescaled(driver: Driver, decimals: number): Driver {
  const factor = 10 ** (decimals - driver.decimals);
  const to = (v: number) => Math.round(v * factor);
  const { series } = driver;
  const next: Series =
    series.kind === 'typed'
      ? {
          kind: 'typed',
          values: Object.fromEntries(
            Object.entries(series.values).map(([p, v]) => [p, v === null ? null : to(v)]),
          ),
        }
      : series.kind === 'step'
        ? {
            ...series,
            start: to(series.start),
            change:
              series.change.of === 'amount'
                ? { of: 'amount', amount: to(series.change.amount) }
                : series.change,
          }
        : series.kind === 'seasonal'
          ? { ...series, level: to(series.level) }
          : series;
  return { ...driver, decimals, opening: driver.opening === null ? null : to(driver.opening), series: next };
}

type Values = Extract<Command, { type: 'setDriverValues' }>['values'];

/**
 * A block from the clipboard laid over the drivers' months, its first cell on a driver's month. What reaches beyond the
 * drivers or the months, and what lies over drivers that are reckoned, is counted and left out; a cell that is no number
 * of its driver stops the whole paste.
 */
export function pastedValues(
  drivers: readonly Driver[],
  periods: readonly PeriodId[],
  at: { readonly driver: number; readonly month: number },
  block: readonly (readonly string[])[],
  locale: string,
): { readonly values: Values; readonly leftOut: number } | { readonly trouble: string } {
  const values: Values[number][] = [];
  let leftOut = 0;
  for (const [r, row] of block.entries())
    for (const [c, text] of row.entries()) {
      const driver = drivers[at.driver + r];
      const period = periods[at.month + c];
      if (driver?.series.kind !== 'typed' || period === undefined) {
        leftOut += 1;
        continue;
      }
      const read = readScaled(text, driver.decimals, locale);
      if (!read) return { trouble: `“${text}” is no number of ${driver.name}. Nothing was pasted.` };
      values.push({ driver: driver.id, period, value: read.value });
    }
  return { values, leftOut };
}
