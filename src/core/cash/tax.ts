import { civilOf, type DayNumber } from '@/core/calendar';
import type { TaxScheme } from '@/core/model';
import { dueDay, monthDay } from '@/core/schedule';

/** A tax period with the day its return is due. */
export type TaxPeriod = { readonly from: DayNumber; readonly to: DayNumber; readonly due: DayNumber };

/** The tax periods that are not over before a day, or not due by it, up to another day. */
export function taxPeriods(
  { every, ends, due, exceptions }: TaxScheme,
  after: DayNumber,
  until: DayNumber,
): TaxPeriod[] {
  const out: TaxPeriod[] = [];
  const { year } = civilOf(after);
  // From a period that was surely due before: terms of five years are the longest.
  for (let month = ends - 12 * 6; ; month += every) {
    const to = monthDay(year, month, 31);
    const from = monthDay(year, month - every, 31) + 1;
    if (from > until) return out;
    const endMonth = ((((month - 1) % 12) + 12) % 12) + 1;
    const rule = exceptions.find((e) => e.ends === endMonth)?.due ?? due;
    const dueOn = Math.max(to, dueDay(to, rule));
    if (to > after || dueOn > after) out.push({ from, to, due: dueOn });
  }
}

/** A return: what is owed for a period, negative for what is had back. */
export type TaxReturn = TaxPeriod & { readonly scheme: string; readonly owed: number };

/**
 * The returns of a tax, from what is owed by day (index 0 is the day after `after`) and from what stood owed at the start.
 * `stood` is told apart by what was credited in the periods that are not due yet (`credited` of a range of days up to
 * `after`); what is left of it is of earlier periods, or was paid ahead, and falls to the first return.
 */
export function taxReturns(
  scheme: TaxScheme,
  after: DayNumber,
  byDay: Float64Array,
  stood: number,
  credited: (from: DayNumber, to: DayNumber) => number,
): TaxReturn[] {
  let left = stood;
  const all = taxPeriods(scheme, after, after + byDay.length).map((period) => {
    let owed = 0;
    if (period.from <= after) {
      owed = credited(period.from, Math.min(period.to, after));
      left -= owed;
    }
    for (let d = Math.max(period.from, after + 1); d <= period.to && d <= after + byDay.length; d++)
      owed += byDay[d - after - 1]!;
    return { ...period, scheme: scheme.id, owed };
  });
  return all.map((r, i) => (i === 0 ? { ...r, owed: r.owed + left } : r)).filter((r) => r.owed !== 0);
}
