import { minor, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import { isProfitAndLoss, type Account } from '@/core/model';
import {
  budgetRows,
  EVERY_LINE,
  varianceReport,
  type ReportTable,
  type VarianceReportInput,
} from '@/core/report';
import type { VarianceSpan } from '@/core/variance';
import { pct } from './build';

type Side = (account: Account, period: PeriodIndex) => Minor | null;

/** The span of a year of twelve months from `first`, looked at in `month`, with actuals up to `through`. */
export function spanOf(first: PeriodIndex, month: PeriodIndex, through: PeriodIndex): VarianceSpan {
  const year = Array.from({ length: 12 }, (_, i) => first + i);
  return {
    month,
    monthIsActual: month <= through,
    toDate: year.filter((p) => p <= Math.min(month, through)),
    year,
    over: through >= first + 11,
  };
}

/** A variance report of sides given by account and period; the outlook is the actual up to `through`. */
export function varianceTableOf({
  accounts,
  actual,
  budget,
  whole = () => null,
  span,
  ...rest
}: {
  readonly accounts: readonly Account[];
  readonly actual: Side;
  readonly budget: Side;
  readonly whole?: (account: Account) => Minor | null;
  readonly span: VarianceSpan;
} & Partial<VarianceReportInput>): ReportTable {
  return varianceReport({
    book: 'Book',
    currency: 'USD',
    title: 'Variance',
    subtitle: '',
    words: {
      heads: { month: 'Month', toDate: 'Year to date', year: 'Year' },
      used: (amount, of) => `${amount ?? 0} of ${of} used`,
      apart: 'apart',
      note: (n) => n.text,
    },
    rows: budgetRows(accounts, 'both'),
    filter: EVERY_LINE,
    sides: (a) => ({
      actual: (p) => actual(a, p),
      budget: (p) => budget(a, p),
      outlook: (p) => (span.toDate.includes(p) ? actual(a, p) : budget(a, p)),
      whole: whole(a),
      balance: !isProfitAndLoss(a.kind),
    }),
    span,
    flag: { amount: minor(1), percent: pct('1') },
    note: () => null,
    ...rest,
  });
}
