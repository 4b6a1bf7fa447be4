import { sumBlank, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';

/** An account's actual, budget and outlook by period; the one shape that comparisons read. All in natural sign. */
export type Sides = {
  readonly actual: (period: PeriodIndex) => Minor | null;
  readonly budget: (period: PeriodIndex) => Minor | null;
  readonly outlook: (period: PeriodIndex) => Minor | null;
  /** What the budget says of the year as a whole, beyond its months; null where it says nothing of the kind. */
  readonly whole: Minor | null;
  /** It is what the account stands at: over several periods the last of them counts. */
  readonly balance: boolean;
};

/** The periods of a comparison. */
export type VarianceSpan = {
  readonly month: PeriodIndex;
  /** Whether the month has actuals; one that has none has no result. */
  readonly monthIsActual: boolean;
  /** Those of the fiscal year so far, within the budget, that have actuals. */
  readonly toDate: readonly PeriodIndex[];
  /** Those of the month's fiscal year that the budget plans. */
  readonly year: readonly PeriodIndex[];
  /** Whether every one of these has actuals. */
  readonly over: boolean;
};

/** Two amounts side by side. `apart`: they are shown, but make no difference and count in no result. */
export type Pair = {
  readonly actual: Minor | null;
  readonly budget: Minor | null;
  readonly apart: boolean;
};

/** One line of a variance report: month, year to date and full year (whose `actual` is the outlook). */
export type VarianceAmounts = {
  readonly month: Pair;
  readonly toDate: Pair;
  readonly year: Pair;
  /** Of an amount for the year as a whole: the amount, and how much of it is used. */
  readonly used: { readonly of: Minor; readonly amount: Minor | null } | null;
};

/**
 * Month, year to date and full year of one line. What a budget says of a year as a whole has no part in any month: until
 * the year to date is all of the year, such a line stands apart, neither over nor under.
 */
export function varianceAmounts(sides: Sides, span: VarianceSpan): VarianceAmounts {
  const { whole } = sides;
  const over = (periods: readonly PeriodIndex[], of: (p: PeriodIndex) => Minor | null): Minor | null =>
    sides.balance ? (periods.length > 0 ? of(periods.at(-1)!) : null) : sumBlank(periods.map(of));
  const allToDate = span.toDate.length === span.year.length;
  const planned = over(span.year, sides.budget);
  const said = whole === null ? null : sumBlank([planned, whole]);
  const coming = over(span.year, sides.outlook);
  const actualToDate = over(span.toDate, sides.actual);
  return {
    month: {
      actual: span.monthIsActual ? sides.actual(span.month) : null,
      budget: sides.budget(span.month),
      apart: !span.monthIsActual || whole !== null,
    },
    toDate: {
      actual: actualToDate,
      budget:
        allToDate && said !== null ? said : span.toDate.length === 0 ? null : over(span.toDate, sides.budget),
      apart: span.toDate.length === 0 || (whole !== null && !allToDate),
    },
    year: {
      actual: said === null ? coming : span.over ? coming : larger(coming, said),
      budget: said ?? planned,
      apart: whole !== null && !span.over,
    },
    used: said === null ? null : { of: said, amount: actualToDate },
  };
}

/** The larger in size; what has been spent beyond an amount for the year is what the year comes to at least. */
const larger = (reached: Minor | null, said: Minor): Minor =>
  reached !== null && Math.abs(reached) > Math.abs(said) ? reached : said;
