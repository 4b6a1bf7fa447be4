import type { Period } from '@/core/calendar';

/** A run of a budget's periods, from ≤ i < to: a fiscal year, a quarter. */
export type Span = { readonly from: number; readonly to: number };

/** The runs of neighbouring periods that are alike. */
function runs(periods: readonly Period[], alike: (a: Period, b: Period) => boolean): Span[] {
  const out: { from: number; to: number }[] = [];
  periods.forEach((p, i) => {
    const last = out.at(-1);
    if (last && alike(periods[i - 1]!, p)) last.to = i + 1;
    else out.push({ from: i, to: i + 1 });
  });
  return out;
}

/** The fiscal years of a budget, as far as it covers them. */
export const yearSpans = (periods: readonly Period[]): Span[] => runs(periods, (a, b) => a.year === b.year);

/** Its quarters. */
export const quarterSpans = (periods: readonly Period[]): Span[] =>
  runs(periods, (a, b) => a.year === b.year && a.quarter === b.quarter);

export const spanSize = (s: Span): number => s.to - s.from;
