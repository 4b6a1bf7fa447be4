import { fromDayNumber, toDayNumber, type Day, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import type { Balances } from '@/core/ledger';
import type { Account, AccountId, Cash, RowOf, ScheduleKind, ScheduleRow } from '@/core/model';
import { plus } from '@/core/money';
import { accountFor, dueWithinYear, loanTable } from '@/core/schedule';

/* What of loans falls due within twelve months: current liabilities, as IAS 1.69 and ASC 470-10-45 part them. */

/** What is known of how debts are paid back. */
export type Debts = {
  readonly rows: readonly ScheduleRow[];
  readonly creditLine: Cash['creditLine'];
  readonly calendar: FiscalCalendar;
  readonly accounts: readonly Account[];
};

type Due<K extends ScheduleKind> = (row: RowOf<K>, calendar: FiscalCalendar, day: number) => number;

/** Every kind of row says what of its debt is due within a year, or that its accounts are current as they stand; else nothing compiles. */
const DUE: { readonly [K in ScheduleKind]: Due<K> | 'current' } = {
  loan: (row, calendar, day) => Math.max(0, dueWithinYear(row, loanTable(row, calendar), day)),
  staff: 'current',
  asset: 'current',
  release: 'current',
  incomeTax: 'current',
  equity: 'current',
};
const dueOfRow = (row: ScheduleRow): Due<ScheduleKind> | null => {
  const due = DUE[row.kind];
  return due === 'current' ? null : (due as Due<ScheduleKind>);
};

/** The account that a credit line is drawn on. */
const lineAccount = (accounts: readonly Account[], line: NonNullable<Cash['creditLine']>): AccountId =>
  line.account ?? accountFor(accounts, 'creditLine');

/** The accounts of debts of which a part is due within a year and a part later. */
export const debtsOf = ({ rows, creditLine, accounts }: Debts): ReadonlySet<AccountId> =>
  new Set([
    ...rows.flatMap((r) => (dueOfRow(r) ? [r.account] : [])),
    ...(creditLine ? [lineAccount(accounts, creditLine)] : []),
  ]);

/**
 * What of an account's debt falls due in the twelve months after a period, credits positive: by its schedules; all that is
 * drawn of a credit line, unless it is granted for longer. Never more than it stands at.
 */
export function dueOf(
  { rows, creditLine, calendar, accounts }: Debts,
  balances: Pick<Balances, 'balance'>,
  account: AccountId,
  period: PeriodIndex,
): number {
  const { end } = calendar.period(period);
  const stands = Math.max(0, -balances.balance(account, period, true));
  if (creditLine && lineAccount(accounts, creditLine) === account && !isLater(creditLine.until, end))
    return stands;
  const day = toDayNumber(end);
  const due = rows.reduce((t, r) => {
    const of = r.account === account ? dueOfRow(r) : null;
    return of ? plus(t, of(r, calendar, day)) : t;
  }, 0);
  return Math.min(due, stands);
}

/** Whether a day lies more than twelve months after another. */
function isLater(until: Day | null | undefined, end: Day): boolean {
  if (!until) return false;
  const [year, rest] = [Number(end.slice(0, 4)), end.slice(4)];
  // Twelve months after a month's last day is that month's last day: 28 February 2027 → 29 February 2028.
  const isLast = fromDayNumber(toDayNumber(end) + 1).slice(5, 7) !== end.slice(5, 7);
  const after = `${year + 1}${isLast ? `${rest.slice(0, 4)}31` : rest}`;
  return until > after;
}

/** What of all debts falls due in the twelve months after a period. */
export const dueInAll = (debts: Debts, balances: Pick<Balances, 'balance'>, period: PeriodIndex): number =>
  [...debtsOf(debts)].reduce((t, account) => plus(t, dueOf(debts, balances, account, period)), 0);
