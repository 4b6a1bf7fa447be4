import { plus, minor, ZERO, type Minor } from '@/core/money';
import { yearRange, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import { isProfitAndLoss, type Account } from '@/core/model';
import type { Balances } from './balances';

export type TrialRow = {
  readonly account: Account;
  /** One of the two is zero. */
  readonly debit: Minor;
  readonly credit: Minor;
};

export type TrialBalance = {
  readonly rows: readonly TrialRow[];
  /** Results of earlier years that no closing entry has moved to equity, debits positive. */
  readonly unclosed: Minor;
  readonly debit: Minor;
  readonly credit: Minor;
};

/**
 * The trial balance at the end of a period, before that year's closing entries (common practice): profit and loss
 * since the fiscal year's start, the balance sheet with its openings and all activity. Results of earlier years that
 * were never closed stand in a row of their own, so that debits meet credits when the openings are complete.
 */
export function trialBalance(
  accounts: readonly Account[],
  balances: Balances,
  calendar: FiscalCalendar,
  period: PeriodIndex,
): TrialBalance {
  const first = calendar.firstOfYear(calendar.period(period).year);
  const before = yearRange(calendar, calendar.period(period).year - 1).last;
  let unclosed = 0;
  let debit = 0;
  let credit = 0;
  const rows = accounts.flatMap((account): TrialRow[] => {
    const through = balances.balance(account.id, period, false);
    let value: number;
    if (isProfitAndLoss(account.kind)) {
      value = 0;
      for (let p = first; p <= period; p++) value = plus(value, balances.movement(account.id, p) ?? 0);
      unclosed = plus(unclosed, balances.balance(account.id, before, true));
    } else {
      const closedBefore =
        balances.balance(account.id, before, true) - balances.balance(account.id, before, false);
      value = through + closedBefore;
    }
    if (value === 0) return [];
    if (value > 0) debit = plus(debit, value);
    else credit = plus(credit, -value);
    return [{ account, debit: value > 0 ? minor(value) : ZERO, credit: value < 0 ? minor(-value) : ZERO }];
  });
  if (unclosed > 0) debit = plus(debit, unclosed);
  else credit = plus(credit, -unclosed);
  return { rows, unclosed: minor(unclosed), debit: minor(debit), credit: minor(credit) };
}
