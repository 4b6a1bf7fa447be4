import type { RowOf, ScheduleKind, ScheduleRow } from './scheduleRow';

/** What no row can be, whatever was meant. */
export const ROW_FAULTS = [
  'soldBeforeBought',
  'residualAboveCost',
  'writtenOffAboveCost',
  'absurdRate',
  'endsBeforeBegins',
  'paidBeforeDrawn',
  'graceTooLong',
  'standsBeforeBought',
] as const;
export type RowFault = (typeof ROW_FAULTS)[number];

/** Rates a year beyond these are slips of the hand: 600 for 6.00. */
const isRate = (percent: string): boolean => Number(percent) >= 0 && Number(percent) <= 100;
const isBefore = (day: string | null, other: string | null): boolean =>
  day !== null && other !== null && day < other;

type Tell<K extends ScheduleKind> = (row: RowOf<K>) => readonly (RowFault | false)[];

/** Every kind of row says what is wrong with it, or the program does not compile. */
const TELLERS: { readonly [K in ScheduleKind]: Tell<K> } = {
  staff: (r) => [
    isBefore(r.until, r.from) && 'endsBeforeBegins',
    r.oncosts.some((o) => !isRate(o.percent)) && 'absurdRate',
    r.raises.some(({ change }) => change.of === 'percent' && Math.abs(Number(change.percent)) > 100) &&
      'absurdRate',
  ],
  loan: (r) => [
    ![r.rate, ...r.rates.map((x) => x.rate)].every(isRate) && 'absurdRate',
    r.first < r.begins.day && 'paidBeforeDrawn',
    // The months of interest alone are some of the payments.
    (r.repay.of === 'level' || r.repay.of === 'principal') && r.grace >= r.payments && 'graceTooLong',
  ],
  asset: (r) => [
    isBefore(r.sold?.day ?? null, r.bought) && 'soldBeforeBought',
    isBefore(r.standing?.day ?? null, r.bought) && 'standsBeforeBought',
    r.residual > r.cost && 'residualAboveCost',
    (r.standing?.accumulated ?? 0) > r.cost && 'writtenOffAboveCost',
    r.way.of === 'declining' && !(isRate(r.way.rate) && Number(r.way.rate) > 0) && 'absurdRate',
    r.tax !== null && !isRate(r.tax.rate) && 'absurdRate',
  ],
  release: () => [],
  incomeTax: (r) => [!isRate(r.rate) && 'absurdRate'],
  equity: (r) => [isBefore(r.repeat?.until ?? null, r.first) && 'endsBeforeBegins'],
};

/** What is wrong with a row; the first of several, null where nothing is. */
export const faultOfRow = (row: ScheduleRow): RowFault | null =>
  (TELLERS[row.kind] as Tell<ScheduleKind>)(row as never).find((f) => f !== false) || null;
