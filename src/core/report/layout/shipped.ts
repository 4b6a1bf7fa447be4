import type { Book, Layout, LayoutColumn, LayoutSpan } from '@/core/model';

const MONTH: LayoutSpan = { of: 'month', back: 0 };
const TO_DATE: LayoutSpan = { of: 'toDate' };
const YEAR: LayoutSpan = { of: 'year' };

const column = (
  show: LayoutColumn['show'],
  span: LayoutSpan,
  against: LayoutColumn['against'] = 'first',
): LayoutColumn => ({ show, span, against, hidden: false, unit: '' });

const BASE: Omit<Layout, 'id' | 'name' | 'columns'> = {
  group: '',
  against: { first: 'inForce', second: '' },
  rows: { set: 'profitAndLoss', detail: 'account', order: 'incomeFirst', sort: 'chart', kinds: [], own: [] },
  segments: { axis: null, place: 'none', values: [] },
  filter: 'withFigures',
  numbers: { unit: 'book', negatives: 'book', red: 'book' },
  days: 'working',
};

/** A month, the year to date and the full year, with every difference. */
const standard: LayoutColumn[] = [
  column('actual', MONTH),
  column('compared', MONTH),
  column('difference', MONTH),
  column('percent', MONTH),
  column('sense', MONTH),
  column('bar', MONTH),
  column('actual', TO_DATE),
  column('compared', TO_DATE),
  column('difference', TO_DATE),
  column('percent', TO_DATE),
  column('sense', TO_DATE),
  column('compared', YEAR),
  column('outlook', YEAR),
  column('difference', YEAR),
  column('sense', YEAR),
  column('note', MONTH),
];

/** The layouts of the statements stage, of what is chosen on the ruler. */
const ACROSS = column('actual', { of: 'each', by: 'month', over: 'ruler' });
const ofRuler = (id: string, name: string, set: Layout['rows']['set'], columns: LayoutColumn[]): Layout => ({
  ...BASE,
  id,
  name,
  group: 'Statements',
  rows: { ...BASE.rows, set },
  columns,
});
export const STATEMENT_LAYOUTS = {
  profit: 'std-profit',
  balance: 'std-balance',
  flow: 'std-flow',
  direct: 'std-flow-direct',
} as const;

/** The layouts that come with the program. A book that changes one keeps its own under the same id. */
export const SHIPPED: readonly Layout[] = [
  { ...BASE, id: 'std-months', name: 'Month and year', columns: standard },
  {
    ...BASE,
    id: 'std-across',
    name: 'Months across',
    columns: [
      column('actual', { of: 'each', by: 'month', over: 'toDate' }),
      column('difference', { of: 'each', by: 'month', over: 'toDate' }),
      column('actual', TO_DATE),
      column('compared', TO_DATE),
      column('difference', TO_DATE),
      column('sense', TO_DATE),
    ],
  },
  {
    ...BASE,
    id: 'std-segments',
    name: 'By segment',
    segments: { axis: null, place: 'across', values: [] },
    columns: [
      column('actual', TO_DATE),
      column('compared', TO_DATE),
      column('difference', TO_DATE),
      column('sense', TO_DATE),
      column('compared', TO_DATE, 'lastYear'),
    ],
  },
  {
    ...BASE,
    id: 'std-costs',
    name: 'Costs, largest first',
    rows: { ...BASE.rows, kinds: ['costOfSales', 'expense', 'otherExpense'], sort: 'size' },
    columns: [
      column('actual', MONTH),
      column('compared', MONTH),
      column('difference', MONTH),
      column('bar', MONTH),
      column('sense', MONTH),
      column('actual', TO_DATE),
      column('compared', TO_DATE),
      column('difference', TO_DATE),
      column('percent', TO_DATE),
      column('sense', TO_DATE),
      column('reached', YEAR),
      column('note', MONTH),
    ],
  },
  {
    ...BASE,
    id: 'std-weekly',
    name: 'Weekly',
    days: 'own',
    columns: [
      column('actual', { of: 'each', by: 'week', over: 'month' }),
      column('compared', { of: 'each', by: 'week', over: 'month' }),
      column('difference', { of: 'each', by: 'week', over: 'month' }),
      column('actual', MONTH),
      column('compared', MONTH),
      column('difference', MONTH),
      column('sense', MONTH),
    ],
  },
  {
    ...BASE,
    id: 'std-owners',
    name: 'Owners’ one page',
    rows: { ...BASE.rows, detail: 'group' },
    numbers: { ...BASE.numbers, unit: 'whole' },
    columns: [
      column('actual', TO_DATE),
      column('compared', TO_DATE),
      column('difference', TO_DATE),
      column('sense', TO_DATE),
      column('compared', TO_DATE, 'lastYear'),
      column('outlook', YEAR),
      column('compared', YEAR),
      column('share', TO_DATE),
    ],
  },
  {
    ...BASE,
    id: 'std-lastyear',
    name: 'Beside last year',
    against: { first: 'inForce', second: 'lastYear' },
    columns: [
      column('actual', MONTH),
      column('compared', MONTH, 'lastYear'),
      column('difference', MONTH, 'lastYear'),
      column('percent', MONTH, 'lastYear'),
      column('sense', MONTH, 'lastYear'),
      column('actual', TO_DATE),
      column('compared', TO_DATE, 'lastYear'),
      column('difference', TO_DATE, 'lastYear'),
      column('percent', TO_DATE, 'lastYear'),
      column('sense', TO_DATE, 'lastYear'),
      column('actual', { of: 'rolling' }),
      column('compared', { of: 'rolling' }, 'lastYear'),
    ],
  },
  {
    ...BASE,
    id: 'std-balances',
    name: 'Balances against plan',
    rows: { ...BASE.rows, set: 'balanceSheet' },
    columns: [
      column('actual', MONTH),
      column('compared', MONTH),
      column('difference', MONTH),
      column('compared', MONTH, 'lastYear'),
      column('difference', MONTH, 'lastYear'),
    ],
  },
  {
    ...BASE,
    id: 'std-cash',
    name: 'Cash by source',
    rows: { ...BASE.rows, set: 'cash' },
    columns: [
      column('actual', MONTH),
      column('compared', MONTH),
      column('difference', MONTH),
      column('sense', MONTH),
      column('actual', TO_DATE),
      column('compared', TO_DATE),
      column('difference', TO_DATE),
      column('sense', TO_DATE),
      column('compared', TO_DATE, 'lastYear'),
    ],
  },
  {
    ...BASE,
    id: 'std-activity',
    name: 'Activity and rate',
    filter: 'withBudget',
    columns: [
      column('compared', TO_DATE),
      column('activity', TO_DATE),
      column('activitySense', TO_DATE),
      column('mix', TO_DATE),
      column('flexible', TO_DATE),
      column('rate', TO_DATE),
      column('rateSense', TO_DATE),
      column('actual', TO_DATE),
      column('difference', TO_DATE),
      column('sense', TO_DATE),
    ],
  },
  {
    ...BASE,
    id: 'std-units',
    name: 'Units',
    filter: 'all',
    rows: { ...BASE.rows, set: 'units' },
    columns: [
      column('actual', MONTH),
      column('compared', MONTH),
      column('difference', MONTH),
      column('percent', MONTH),
      column('actual', TO_DATE),
      column('compared', TO_DATE),
      column('difference', TO_DATE),
      column('percent', TO_DATE),
    ],
  },
  {
    ...BASE,
    id: 'std-budget',
    name: 'Budget by month',
    group: 'Budgets',
    filter: 'all',
    rows: { ...BASE.rows, set: 'budget' },
    columns: [
      column('compared', { of: 'each', by: 'month', over: 'budget' }),
      column('unphased', { of: 'budget' }),
      column('compared', { of: 'budget' }),
      column('compared', { of: 'budget' }, 'lastYear'),
      column('change', { of: 'budget' }),
      column('changePercent', { of: 'budget' }),
      { ...column('method', MONTH), hidden: true },
      { ...column('planNote', MONTH), hidden: true },
    ],
  },
  {
    ...BASE,
    id: 'std-ledger',
    name: 'Ledger by month',
    group: 'Ledger',
    filter: 'all',
    rows: { ...BASE.rows, set: 'ledger' },
    columns: [
      column('actual', { of: 'each', by: 'month', over: 'ruler' }),
      column('actual', { of: 'ruler' }),
    ],
  },
  ofRuler(STATEMENT_LAYOUTS.profit, 'Profit and loss', 'profitStatement', [
    ACROSS,
    column('actual', { of: 'ruler' }),
  ]),
  ofRuler(STATEMENT_LAYOUTS.balance, 'Balance sheet', 'balanceStatement', [ACROSS]),
  ofRuler(STATEMENT_LAYOUTS.flow, 'Cash flow', 'cashFlow', [ACROSS, column('actual', { of: 'ruler' })]),
  ofRuler(STATEMENT_LAYOUTS.direct, 'Cash flow, direct', 'cashFlowDirect', [
    ACROSS,
    column('actual', { of: 'ruler' }),
  ]),
];

/** The layout as it ships; null for one of a book's own. */
export const shippedLayout = (id: string): Layout | null => SHIPPED.find((l) => l.id === id) ?? null;

/** All layouts of a book: those that ship, as it has changed them, then its own. */
export function layoutsOf({ layouts }: Pick<Book, 'layouts'>): readonly Layout[] {
  const own = new Map(layouts.map((l) => [l.id, l]));
  return [...SHIPPED.map((l) => own.get(l.id) ?? l), ...layouts.filter((l) => shippedLayout(l.id) === null)];
}
