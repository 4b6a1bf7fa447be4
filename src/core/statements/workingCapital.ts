import { divideRounded, minor, plus, type Minor } from '@/core/money';
import { toDayNumber, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import type { Balances } from '@/core/ledger';
import type { Account, AccountKind } from '@/core/model';

/** What business binds money in: who owes it, what lies in stock, and what is owed for both. */
export const CAPITAL_PARTS = ['receivable', 'inventory', 'payable'] as const;
export type CapitalPart = (typeof CAPITAL_PARTS)[number];

/** What a part stands at at a period's end, and how many days of its flow that is; null where nothing is known of it. */
export type CapitalFigure = {
  /** Receivables, stock and payables all positive. */
  readonly stands: Minor | null;
  /** Income of receivables, cost of sales of the others: of the periods that are looked at. */
  readonly flow: Minor | null;
  /** In thousandths of a day. */
  readonly days: number | null;
};

const FLOW_OF: Readonly<Record<CapitalPart, AccountKind>> = {
  receivable: 'income',
  inventory: 'costOfSales',
  payable: 'costOfSales',
};

/**
 * Working capital at the end of a period in days of the flows of so many periods up to it (common practice: balance ÷ flow ×
 * days; over a year it is what the ratios say). Short spans follow the season, long ones the year.
 */
export function workingCapital(
  balances: Balances,
  accounts: readonly Account[],
  calendar: FiscalCalendar,
  period: PeriodIndex,
  span: number,
): Readonly<Record<CapitalPart, CapitalFigure>> {
  const first = period - span + 1;
  let whole = true;
  for (let p = first; p <= period; p++) whole &&= balances.has(p);
  const days = toDayNumber(calendar.period(period).end) - toDayNumber(calendar.period(first).start) + 1;
  const of = (kind: AccountKind, amount: (a: Account) => number): number =>
    accounts.reduce((t, a) => (a.kind === kind ? plus(t, amount(a)) : t), 0);
  const figure = (part: CapitalPart): CapitalFigure => {
    const kind = FLOW_OF[part];
    const debit = balances.has(period) ? of(part, (a) => balances.balance(a.id, period, true)) : null;
    const stands = debit === null ? null : minor(part === 'payable' ? -debit : debit);
    const moved = whole
      ? of(kind, (a) => {
          let sum = 0;
          for (let p = first; p <= period; p++) sum = plus(sum, balances.movement(a.id, p) ?? 0);
          return sum;
        })
      : null;
    const flow = moved === null ? null : minor(kind === 'income' ? -moved : moved);
    return {
      stands,
      flow,
      days:
        stands === null || flow === null || flow <= 0
          ? null
          : divideRounded(stands, 1000 * days, flow, 'halfAwayFromZero'),
    };
  };
  return {
    receivable: figure('receivable'),
    inventory: figure('inventory'),
    payable: figure('payable'),
  };
}

/** Days from paying for what is sold to being paid for it, in thousandths; a part that is nothing waits for none. */
export function conversionDays(of: Readonly<Record<CapitalPart, CapitalFigure>>): number | null {
  const [r, i, p] = CAPITAL_PARTS.map((part) =>
    of[part].days === null && of[part].stands === 0 ? 0 : of[part].days,
  );
  return r == null || i == null || p == null ? null : r + i - p;
}
