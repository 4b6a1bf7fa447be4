import { fiscalYearLabel, type Period } from '@/core/calendar';

export type Grain = 'months' | 'quarters' | 'year';

/** Runs of neighbouring periods that the chosen grain shows as one column. */
export type PeriodGroup = { readonly label: string; readonly from: number; readonly to: number };

/** Groups a budget's periods into months, quarters or years. */
export function groupPeriods(periods: readonly Period[], grain: Grain): PeriodGroup[] {
  if (grain === 'months') return periods.map((p, i) => ({ label: p.short, from: i, to: i + 1 }));
  const keyOf = (p: Period) =>
    grain === 'quarters' ? `Q${p.quarter} ${fiscalYearLabel(p.year)}` : fiscalYearLabel(p.year);
  const groups: { label: string; from: number; to: number }[] = [];
  periods.forEach((p, i) => {
    const last = groups.at(-1);
    if (last?.label === keyOf(p)) last.to = i + 1;
    else groups.push({ label: keyOf(p), from: i, to: i + 1 });
  });
  return groups;
}
