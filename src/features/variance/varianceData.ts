import type { PeriodIndex } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Layout } from '@/core/model';
import {
  comparedWith,
  layoutReport,
  shippedLayout,
  type Compared,
  type LayoutReport,
  type ReportRow,
} from '@/core/report';
import { layoutWords } from '@/store/layoutWords';

/** What the variance screen looks at: a layout's report, and behind it every line of the month, the year so far and the year. */
export type Look = {
  readonly compared: Compared;
  readonly report: LayoutReport;
  /** Every line with month, year to date and full year, whatever the layout shows. */
  readonly facts: LayoutReport;
  /** The last result of them: net profit, or what is owned less what is owed. */
  readonly net: ReportRow | null;
};

const FACTS: Layout = { ...shippedLayout('std-months')!, filter: 'all' };

/** The layout's report of a month; `chosen` is compared with before what the layout names. */
export function lookAt(ground: Ground, layout: Layout, month: PeriodIndex, chosen: string | null): Look {
  const compared = comparedWith(ground, month, layout, chosen);
  const report = layoutReport({
    ground,
    layout,
    month,
    compared,
    words: layoutWords(ground, layout, month, compared),
  });
  const covers = compared.comparison?.covers ?? 'profitAndLoss';
  const set = covers === 'both' ? 'both' : covers === 'balanceSheet' ? 'balanceSheet' : 'profitAndLoss';
  const all: Layout = { ...FACTS, against: layout.against, rows: { ...FACTS.rows, set } };
  const facts = layoutReport({
    ground,
    layout: all,
    month,
    compared,
    words: layoutWords(ground, all, month, compared),
  });
  const key = set === 'balanceSheet' ? 'netAssets' : 'netProfit';
  return { compared, report, facts, net: facts.table.rows.find((r) => r.key === key) ?? null };
}
