import type { Ground } from '@/core/ground';
import type { Adjusts, Reach, ReachName, RowField, ScheduleKind, ScheduleRow } from '@/core/model';
import { fieldOf } from '@/core/scenario';
import { isProfitAndLoss, ROW_FIELDS } from '@/core/model';
import { FIELD_WORDS } from '@/store/caseWords';
import { KIND_NAMES } from '@/store/kindNames';

/* What can be tried, as it is chosen in the dialog. */

export const TRIED = [
  'percent',
  'amount',
  'new',
  'growth',
  'onBefore',
  'formula',
  'linesMoved',
  'termsDays',
  'termsLost',
  'termsNew',
  'itemsLater',
  'itemsPaid',
  'itemsNever',
  'staff',
  'loan',
  'asset',
  'equity',
  'rowGone',
  'rowMoved',
  'rowField',
  'pay',
  'oncosts',
  'driver',
  'datedMoved',
  'incomeTax',
  'interest',
  'lineRate',
  'limit',
  'floor',
] as const;
export type Tried = (typeof TRIED)[number];

const LABELS: Readonly<Record<Tried, string>> = {
  percent: 'Amounts: so many percent more or less',
  amount: 'Amounts: so much more or less each month',
  new: 'Amounts: a new amount',
  growth: 'Amounts: growth, month by month',
  onBefore: 'Amounts: so much on the month before',
  formula: 'Amounts: a formula',
  linesMoved: 'Amounts: months later or earlier',
  termsDays: 'Payment: days later or earlier',
  termsLost: 'Payment: a part that is never paid',
  termsNew: 'Payment: other terms',
  itemsLater: 'What is open: paid later',
  itemsPaid: 'What is open: paid in part',
  itemsNever: 'What is open: never paid',
  staff: 'A hire',
  loan: 'A loan',
  asset: 'Something is bought',
  equity: 'Owners pay in',
  rowGone: 'A row of a schedule: taken out',
  rowMoved: 'A row of a schedule: later or earlier',
  rowField: 'A row of a schedule: another value',
  pay: 'A raise for all staff',
  oncosts: 'On top of all pay: points more',
  driver: 'A driver: another quantity',
  datedMoved: 'A dated item: later or earlier',
  incomeTax: 'Income tax: another rate',
  interest: 'Loans: points of interest more',
  lineRate: 'Credit line: points of interest more',
  limit: 'Credit line: another limit',
  floor: 'Floor of the bank: another',
};

export const ADDED: ReadonlySet<Tried> = new Set(['staff', 'loan', 'asset', 'equity']);
export const OF_LINES: ReadonlySet<Tried> = new Set([
  'percent',
  'amount',
  'new',
  'growth',
  'onBefore',
  'formula',
  'linesMoved',
  'termsDays',
  'termsLost',
  'termsNew',
]);
export const OF_ONE_LINE: ReadonlySet<Tried> = new Set(['amount', 'new', 'onBefore']);
export const OF_ITEMS: ReadonlySet<Tried> = new Set(['itemsLater', 'itemsPaid', 'itemsNever']);
export const OF_ROW: ReadonlySet<Tried> = new Set(['rowGone', 'rowMoved', 'rowField']);

/** The rows of schedules of the plans, each once. */
export const rowsOf = ({ book }: Ground): readonly ScheduleRow[] => [
  ...new Map(book.budgets.flatMap((b) => b.schedules).map((r) => [r.id, r])).values(),
];

/** What can be tried in this book. */
export function choicesOf(ground: Ground): { readonly value: Tried; readonly label: string }[] {
  const { cash, budgets } = ground.book;
  const rows = rowsOf(ground);
  const has = (kind: ScheduleKind) => rows.some((r) => r.kind === kind);
  const there: Partial<Record<Tried, boolean>> = {
    rowGone: rows.length > 0,
    rowMoved: rows.length > 0,
    rowField: rows.length > 0,
    pay: has('staff'),
    oncosts: has('staff'),
    driver: budgets.some((b) => b.drivers.length > 0),
    datedMoved: cash.dated.length > 0,
    incomeTax: has('incomeTax'),
    interest: has('loan'),
    lineRate: cash.creditLine !== null,
    limit: cash.creditLine !== null,
  };
  return TRIED.filter((t) => there[t] ?? true).map((value) => ({ value, label: LABELS[value] }));
}

export const fieldsOf = (row: ScheduleRow): { readonly value: RowField; readonly label: string }[] =>
  ROW_FIELDS.filter((f) => fieldOf(row, f) !== null).map((value) => ({ value, label: FIELD_WORDS[value] }));

/** The lines that can be named, each under a key of its own. */
export function reachChoices({
  book,
}: Ground): { readonly group: string; readonly items: { value: string; label: string }[] }[] {
  const own = book.accounts.filter((a) => a.active && isProfitAndLoss(a.kind));
  const groups = [
    ...new Map(own.filter((a) => a.group !== '').map((a) => [`${a.kind}:${a.group}`, a])).values(),
  ];
  const kinds = [...new Set(own.map((a) => a.kind))];
  return [
    {
      group: 'All together',
      items: [
        { value: 'income', label: 'All income' },
        { value: 'costs', label: 'All costs' },
        ...kinds.map((k) => ({ value: `kind:${k}`, label: `All ${KIND_NAMES[k].toLowerCase()}` })),
      ],
    },
    ...(groups.length > 0
      ? [
          {
            group: 'Groups',
            items: groups.map((a) => ({ value: `group:${a.kind}:${a.group}`, label: a.group })),
          },
        ]
      : []),
    {
      group: 'Lines',
      items: own.map((a) => ({ value: `account:${a.id}`, label: `${a.code} ${a.name}`.trim() })),
    },
  ];
}

export function reachKey(l: ReachName): string {
  switch (l.of) {
    case 'account':
      return `account:${l.account}`;
    case 'group':
      return `group:${l.kind}:${l.group}`;
    case 'kind':
      return `kind:${l.kind}`;
    default:
      return l.of;
  }
}

export function reachOfKeys(keys: readonly string[]): Reach {
  return {
    lines: keys.map((key): ReachName => {
      const [of, a, ...b] = key.split(':');
      if (of === 'account') return { of, account: a! };
      if (of === 'group') return { of, kind: a as never, group: b.join(':') };
      if (of === 'kind') return { of, kind: a as never };
      return { of: of as 'costs' | 'income' };
    }),
  };
}

/** What an adjustment tries, as it is chosen. */
export function triedBy(what: Adjusts): Tried {
  switch (what.on) {
    case 'amounts':
      return what.way.as;
    case 'rowAdded':
      return what.row.kind === 'release' || what.row.kind === 'incomeTax' ? 'asset' : what.row.kind;
    case 'items':
      return what.as === 'later' ? 'itemsLater' : what.as === 'paid' ? 'itemsPaid' : 'itemsNever';
    case 'rate':
      return what.of;
    default:
      return what.on;
  }
}
