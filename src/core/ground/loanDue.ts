import { toDayNumber, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import type { AccountId, ScheduleRow } from '@/core/model';
import { plus } from '@/core/money';
import { dueWithinYear, loanTable } from '@/core/schedule';

/* What of loans falls due within twelve months: current liabilities, as IAS 1 and ASC 470 part them. */

/** The accounts of loans that schedules tell the payments of. */
export const loansOf = (rows: readonly ScheduleRow[]): ReadonlySet<AccountId> =>
  new Set(rows.flatMap((r) => (r.kind === 'loan' ? [r.account] : [])));

/** What of an account's principal falls due in the twelve months after a period, by its schedules; credits positive. */
export function dueOf(
  rows: readonly ScheduleRow[],
  calendar: FiscalCalendar,
  account: AccountId | null,
  period: PeriodIndex,
): number {
  const end = toDayNumber(calendar.period(period).end);
  return rows.reduce(
    (t, r) =>
      r.kind === 'loan' && (account === null || r.account === account)
        ? plus(t, Math.max(0, dueWithinYear(r, loanTable(r, calendar), end)))
        : t,
    0,
  );
}
