import type { PeriodIndex } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Layout } from '@/core/model';
import { comparedWith, layoutReport, type Compared, type LayoutReport } from '@/core/report';
import { layoutWords } from '@/store/layoutWords';
import { monthFacts, type MonthFacts } from '@/store/monthFacts';

/** What the variance screen looks at: a layout's report, and behind it every line of the month, the year so far and the year. */
export type Look = {
  readonly compared: Compared;
  readonly report: LayoutReport;
  readonly facts: MonthFacts;
};

/** The layout's report of a month; `chosen` is compared with before what the layout names. */
export function lookAt(ground: Ground, layout: Layout, month: PeriodIndex, chosen: string | null): Look {
  const compared = comparedWith(ground, month, layout, chosen);
  const words = layoutWords(ground, layout, month, compared);
  return {
    compared,
    report: layoutReport({ ground, layout, month, compared, words }),
    facts: monthFacts(ground, month, compared),
  };
}
