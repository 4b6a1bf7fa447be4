import { toDayNumber, type PeriodIndex } from '@/core/calendar';
import { lineOf, naturalSign, type AccountId, type Budget, type ScheduleRow } from '@/core/model';
import { plus } from '@/core/money';
import { lineOfMove } from '@/core/plan';
import { assetAt, isStandIn, leftInAdvance, loanTable, principalAt } from '@/core/schedule';
import type { Ground } from './ground';
import { reckoned } from './reckoned';

/** What schedules say that an account stands at when the ledger ends, beside what it stands at there; natural amounts. */
export type ScheduleTie = {
  readonly account: AccountId;
  readonly period: PeriodIndex;
  readonly ledger: number;
  readonly schedules: number;
};

/** What rows say of balance accounts at the end of a period: owed principal, cost, what was written off, what is left in advance. */
function standing(
  rows: readonly ScheduleRow[],
  { calendar }: Ground,
  period: PeriodIndex,
): ReadonlyMap<AccountId, number> {
  const out = new Map<AccountId, number>();
  const add = (account: AccountId | null, amount: number) =>
    account !== null && out.set(account, plus(out.get(account) ?? 0, amount));
  const end = toDayNumber(calendar.period(period).end);
  for (const row of rows)
    switch (row.kind) {
      case 'loan':
        // One that is drawn later says nothing of today, but that it is not there.
        if (toDayNumber(row.begins.day) <= end)
          add(row.account, principalAt(row, loanTable(row, calendar), end));
        break;
      case 'asset': {
        const { cost, accumulated } = assetAt(row, calendar, period);
        if (cost === 0) break;
        add(row.account, cost);
        add(row.accumulated, -accumulated);
        break;
      }
      case 'release': {
        // Only what has begun, or begins next month, stands there by now.
        if (row.from > calendar.period(period + 1).id) break;
        add(row.against, leftInAdvance(row, calendar, period));
        break;
      }
      case 'staff':
      case 'incomeTax':
      case 'equity':
        break;
    }
  return out;
}

/** Where a budget's schedules and the ledger say different things of the same account at the last closed day, and where they agree. */
export function scheduleTies(ground: Ground, budget: Budget): readonly ScheduleTie[] {
  const { book, balances, closedThrough } = ground;
  if (closedThrough === null || !balances.range || budget.schedules.length === 0) return [];
  const out: ScheduleTie[] = [];
  for (const [account, schedules] of standing(budget.schedules, ground, closedThrough)) {
    const own = book.accounts.find((a) => a.id === account);
    if (!own) continue;
    const ledger = naturalSign(own.kind) * balances.balance(account, closedThrough, true);
    out.push({ account, period: closedThrough, ledger: ledger || 0, schedules });
  }
  return out;
}

/** Accounts of profit and loss that a budget's schedules post to although its lines say something else, the first of each. */
export function linesApart(
  ground: Ground,
  budget: Budget,
): readonly { readonly account: AccountId; readonly period: PeriodIndex; readonly by: number }[] {
  const { reckoning, facts } = reckoned(ground, budget);
  const out: { account: AccountId; period: PeriodIndex; by: number }[] = [];
  if (budget.approved) return out;
  const posted = new Set([...reckoning.rows.values()].flatMap((r) => [...r.moves.keys()]));
  for (const key of posted) {
    const ref = lineOfMove(key);
    const { account } = ref;
    if (isStandIn(account) || facts.isBalance(account)) continue;
    if (lineOf(budget, ref)?.method.kind === 'schedule') continue;
    const made = reckoning.scheduled(ref);
    const shown = reckoning.lines.get(ref)?.amounts;
    const at = made?.findIndex((m, i) => (m ?? 0) !== 0 && (shown?.[i] ?? 0) !== m) ?? -1;
    if (at >= 0)
      out.push({ account, period: facts.periods[at]!.index, by: plus(made![at]!, -(shown?.[at] ?? 0)) });
  }
  return out;
}
