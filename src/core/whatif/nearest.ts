/* Which case are we in? Months that have closed since a case was made, beside what it said of them. */

/** A month's net profit and what the bank held at its end, in minor units. */
export type MonthTold = { readonly profit: number; readonly bank: number };

export type Distance = {
  /** The sum of what all months were off, either way: net profit and closing bank alike. */
  readonly sum: number;
  readonly months: readonly { readonly profit: number; readonly bank: number }[];
};

/** How far what was said of months is from what happened in them: each difference what was said less what was. */
export function distanceOf(said: readonly MonthTold[], was: readonly MonthTold[]): Distance {
  const months = was.map((w, i) => ({ profit: said[i]!.profit - w.profit, bank: said[i]!.bank - w.bank }));
  return { sum: months.reduce((t, m) => t + Math.abs(m.profit) + Math.abs(m.bank), 0), months };
}
