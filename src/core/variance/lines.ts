import { sumBlank, ZERO, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';

/** An account's actual and budget by period; the one shape that comparisons read. */
export type TwoSides = {
  readonly actual: (period: PeriodIndex) => Minor | null;
  readonly budget: (period: PeriodIndex) => Minor | null;
  /** What the budget says of the year as a whole, beyond its months; null where it says nothing of the kind. */
  readonly whole?: Minor | null;
};

/** The amounts of one line of a variance report, in natural sign. */
export type VarianceAmounts = {
  readonly month: { readonly actual: Minor | null; readonly budget: Minor | null };
  readonly toDate: { readonly actual: Minor | null; readonly budget: Minor | null };
  readonly year: { readonly budget: Minor | null; readonly outlook: Minor | null };
};

export type VarianceSpan = {
  /** The month looked at, the first month of its year to date, and the budget's first and last period. */
  readonly month: PeriodIndex;
  readonly yearStart: PeriodIndex;
  readonly first: PeriodIndex;
  readonly last: PeriodIndex;
  /** Actuals count up to here in the outlook: the month looked at, but never beyond what is closed. */
  readonly actualThrough: PeriodIndex;
};

const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);

/**
 * Month, year to date and full year of one line. The outlook is the actuals so far and the plan for the rest. What a
 * budget says of a year as a whole has no part of it in any month: the year to date stands beside the full amount, and
 * the outlook is that amount, until the actuals have gone beyond it.
 */
export function varianceAmounts({ actual, budget, whole }: TwoSides, span: VarianceSpan): VarianceAmounts {
  const rest = whole ?? null;
  const toDate = range(span.yearStart, span.month);
  const year = range(span.first, span.last);
  const planned = year.map(budget);
  // In a closed month an account without an entry did nothing: its outlook is zero there, not its plan.
  const outlook = year.map((p, i) =>
    p <= span.actualThrough ? (actual(p) ?? (planned[i] === null ? null : ZERO)) : planned[i]!,
  );
  return {
    month: { actual: actual(span.month), budget: budget(span.month) },
    toDate: { actual: sumBlank(toDate.map(actual)), budget: sumBlank([...toDate.map(budget), rest]) },
    year: {
      budget: sumBlank([...planned, rest]),
      outlook: rest === null ? sumBlank(outlook) : larger(sumBlank(outlook), sumBlank([...planned, rest])!),
    },
  };
}

/** The larger in size; what has been spent beyond an amount for the year is what the year comes to at least. */
const larger = (reached: Minor | null, said: Minor): Minor =>
  reached !== null && Math.abs(reached) > Math.abs(said) ? reached : said;
