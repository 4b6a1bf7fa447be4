import { toDayNumber, type DayNumber, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import type { Balances } from '@/core/ledger';
import type { Account, AccountId, CreditLine, RowOf, ScheduleKind, ScheduleRow } from '@/core/model';
import { plus } from '@/core/money';
import { dueWithinYear, lineAccount, loanTable, yearAfter } from '@/core/schedule';

/* What of loans falls due within twelve months: current liabilities, as IAS 1.69 and ASC 470-10-45 part them. */

/** What is known of how debts are paid back. */
export type Debts = {
  readonly rows: readonly ScheduleRow[];
  readonly creditLine: CreditLine | null;
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

/** The accounts of debts of which a part is due within a year and a part later. */
export const debtsOf = ({ rows, creditLine, accounts }: Debts): ReadonlySet<AccountId> =>
  new Set([
    ...rows.flatMap((r) => (dueOfRow(r) ? [r.account] : [])),
    ...(creditLine ? [lineAccount(creditLine, accounts)] : []),
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
  const day = toDayNumber(calendar.period(period).end);
  const stands = Math.max(0, -balances.balance(account, period, true));
  if (creditLine && lineAccount(creditLine, accounts) === account && !isGrantedOn(creditLine, yearAfter(day)))
    return stands;
  const due = rows.reduce((t, r) => {
    const of = r.account === account ? dueOfRow(r) : null;
    return of ? plus(t, of(r, calendar, day)) : t;
  }, 0);
  return Math.min(due, stands);
}

/** Whether a credit line is granted for longer than up to a day. */
const isGrantedOn = ({ until }: CreditLine, day: DayNumber): boolean =>
  until !== undefined && until !== null && toDayNumber(until) > day;

/** What of all debts falls due in the twelve months after a period. */
export const dueInAll = (debts: Debts, balances: Pick<Balances, 'balance'>, period: PeriodIndex): number =>
  [...debtsOf(debts)].reduce((t, account) => plus(t, dueOf(debts, balances, account, period)), 0);
