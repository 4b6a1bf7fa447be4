import type { PeriodIndex } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type { Layout } from '@/core/model';
import { layoutReport, shippedLayout, type Compared, type ReportRow, type ReportTable } from '@/core/report';
import { layoutWords } from './layoutWords';

const STANDARD: Layout = { ...shippedLayout('std-months')!, filter: 'all' };

/** Every line of a month with the year to date and the full year, whatever a layout shows. */
export type MonthFacts = {
  readonly table: ReportTable;
  /** The last result: net profit, or what is owned less what is owed. */
  readonly net: ReportRow | null;
};

/** The facts of a month beside what it is compared with. */
export function monthFacts(ground: Ground, month: PeriodIndex, compared: Compared): MonthFacts {
  const covers = compared.comparison?.covers ?? 'profitAndLoss';
  const set = covers === 'both' ? 'both' : covers === 'balanceSheet' ? 'balanceSheet' : 'profitAndLoss';
  const layout: Layout = { ...STANDARD, rows: { ...STANDARD.rows, set } };
  const words = layoutWords(ground, layout, month, compared);
  const { table } = layoutReport({ ground, layout, month, compared, words });
  const key = set === 'balanceSheet' ? 'netAssets' : 'netProfit';
  return { table, net: table.rows.find((r) => r.key === key) ?? null };
}
