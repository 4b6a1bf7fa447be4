import type { PeriodIndex } from '@/core/calendar';
import type { Cause } from '@/core/cash';
import type { Ahead, Ground } from '@/core/ground';
import type { Account, Budget, Command, ScheduleRow, Terms } from '@/core/model';
import { minor, type Minor, type Percent } from '@/core/money';
import { rowOfKey } from '@/store/scheduleWords';

/** One thing behind a figure that can be tried otherwise: an amount, a term, a field of a schedule's row. */
export type Tunable = {
  readonly key: string;
  /** What it is, with whose it is: "Rigger: pay". */
  readonly label: string;
  /** The budget that it belongs to. */
  readonly budget: Budget;
} & (
  | { readonly as: 'money'; readonly value: Minor | null; readonly command: (value: Minor | null) => Command }
  | { readonly as: 'percent'; readonly value: Percent; readonly command: (value: Percent) => Command }
  | {
      readonly as: 'whole';
      readonly value: number;
      readonly most: number;
      readonly command: (value: number) => Command;
    }
  | { readonly as: 'hundredths'; readonly value: number; readonly command: (value: number | null) => Command }
);

/** So many things are offered: the largest causes come first. */
const MOST = 12;

/** What of a figure's causes can be tried otherwise: everything that a draft says of them. */
export function tunablesOf(
  { book, calendar }: Ground,
  ahead: Ahead,
  account: Account,
  period: PeriodIndex | null,
  causes: readonly Cause[],
): readonly Tunable[] {
  const out: Tunable[] = [];
  const plans = new Map(ahead.view.plans.map((p) => [p.budget.id, new Set(p.periods.map((x) => x.index))]));
  if (period !== null) {
    const own = [...ahead.view.lines.values()].filter(
      ({ budget, line }) =>
        line.account.id === account.id && budget.state === 'draft' && plans.get(budget.id)?.has(period),
    );
    // Of several segments none is the one that is meant.
    const only = own.length === 1 ? own[0]! : null;
    if (only)
      out.push({
        key: 'amount',
        label: `${account.name} in ${calendar.period(period).label}`,
        budget: only.budget,
        as: 'money',
        value: null,
        command: (value) => ({
          type: 'setCells',
          budget: only.budget.id,
          how: 'typed',
          cells: [
            {
              account: account.id,
              segment: only.line.segment,
              period: calendar.period(period).id,
              value,
            },
          ],
        }),
      });
  }
  const met = new Set<string>();
  for (const { part } of causes) {
    if (met.has(part.key)) continue;
    met.add(part.key);
    const key = part.key.slice(part.key.indexOf(' ') + 1);
    if (part.of === 'schedule') {
      const own = rowOfKey(book, key);
      if (own?.budget.state === 'draft') out.push(...ofRow(own.row, own.budget));
    } else if (part.of === 'line') {
      const own = ahead.view.lines.get(key);
      if (own?.budget.state === 'draft')
        out.push(...ofTerms(own.line.account, own.line.segment, own.line.terms, own.budget));
    }
  }
  return out.slice(0, MOST);
}

const putRow = (budget: Budget, row: ScheduleRow): Command => ({
  type: 'putScheduleRows',
  budget: budget.id,
  rows: [row],
  lines: [],
});

/** The figures of a row that are most often asked about. */
function ofRow(row: ScheduleRow, budget: Budget): Tunable[] {
  const base = (what: string) => ({ key: `${row.id} ${what}`, label: `${row.name}: ${what}`, budget });
  const money = (what: string, value: Minor, put: (value: Minor) => ScheduleRow): Tunable => ({
    ...base(what),
    as: 'money',
    value,
    command: (v) => putRow(budget, put(v ?? minor(0))),
  });
  const percent = (what: string, value: Percent, put: (value: Percent) => ScheduleRow): Tunable => ({
    ...base(what),
    as: 'percent',
    value,
    command: (v) => putRow(budget, put(v)),
  });
  switch (row.kind) {
    case 'staff':
      return [
        money('pay', row.pay.amount, (amount) => ({ ...row, pay: { ...row.pay, amount } })),
        {
          ...base('how many'),
          as: 'hundredths',
          value: row.count,
          command: (v) => putRow(budget, { ...row, count: v ?? 0 }),
        },
      ];
    case 'loan':
      return [
        percent('rate', row.rate, (rate) => ({ ...row, rate })),
        money('amount', row.begins.amount, (amount) => ({ ...row, begins: { ...row.begins, amount } })),
      ];
    case 'asset':
      return [money('cost', row.cost, (cost) => ({ ...row, cost }))];
    case 'release':
      return [money('amount', row.amount, (amount) => ({ ...row, amount }))];
    case 'incomeTax':
      return [percent('rate', row.rate, (rate) => ({ ...row, rate }))];
    case 'equity':
      return [money('amount', row.amount, (amount) => ({ ...row, amount }))];
  }
}

/** The days of a line's terms, said of the line alone where they were the group's, the kind's or guessed. */
function ofTerms(account: Account, segment: string | null, terms: Terms, budget: Budget): Tunable[] {
  const [first, ...others] = terms.parts;
  const { rule } = first!;
  const base = { key: `terms ${account.id}`, budget, as: 'whole' as const, most: 1000 };
  const put = (next: typeof rule): Command => ({
    type: 'setTerms',
    budget: budget.id,
    without: [],
    terms: [
      {
        ...terms,
        of: { of: 'account', account: account.id },
        ...(terms.segment === undefined ? {} : { segment }),
        parts: [{ ...first!, rule: next }, ...others],
      },
    ],
  });
  if (rule.kind === 'daysOutstanding')
    return [
      {
        ...base,
        label: `${account.name}: days outstanding`,
        value: rule.days,
        command: (days: number) => put({ ...rule, days }),
      },
    ];
  if (rule.kind !== 'onAccount') return [];
  // The largest share is what most of the money follows.
  const at = rule.shares.reduce(
    (best, s, i) => (Number(s.percent) > Number(rule.shares[best]!.percent) ? i : best),
    0,
  );
  const { due } = rule.shares[at]!;
  if (due.of !== 'days') return [];
  return [
    {
      ...base,
      label: `${account.name}: days until paid${rule.shares.length > 1 ? ` (${rule.shares[at]!.percent}%)` : ''}`,
      value: due.days,
      command: (days: number) =>
        put({
          ...rule,
          shares: rule.shares.map((s, i) => (i === at ? { ...s, due: { of: 'days', days } } : s)),
        }),
    },
  ];
}
