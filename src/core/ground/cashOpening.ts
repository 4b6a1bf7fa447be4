import { toDayNumber, type DayNumber, type PeriodIndex } from '@/core/calendar';
import { taxPeriods } from '@/core/cash';
import type { Balances } from '@/core/ledger';
import {
  isProfitAndLoss,
  naturalSign,
  type Account,
  type AccountId,
  type Book,
  type Cash,
  type TaxScheme,
} from '@/core/model';
import type { ShownItem } from './cashItems';
import type { Ground } from './ground';

/* What stands at the start of a projection. */

/** Whether it comes from the ledger, was said, or is not known. */
export type OpeningFrom = 'ledger' | 'said' | 'unknown';

/** What accounts of the balance sheet stand at, debits positive: by the ledger, or as it was said. */
export function openingOf(
  balances: Balances,
  accounts: Book['accounts'],
  closed: PeriodIndex,
  said: Cash['opening'],
): { readonly of: ReadonlyMap<AccountId, number>; readonly from: OpeningFrom } {
  const of = new Map<AccountId, number>();
  let bank = false;
  for (const a of accounts) {
    if (isProfitAndLoss(a.kind)) continue;
    const stands = balances.balance(a.id, closed, true);
    if (a.kind === 'bank' && (balances.active(a.id) || stands !== 0)) bank = true;
    if (stands !== 0) of.set(a.id, stands);
  }
  if (bank || said === null) return { of, from: bank ? 'ledger' : 'unknown' };
  for (const a of accounts) {
    const amount = said.amounts[a.id];
    if (amount !== undefined) of.set(a.id, naturalSign(a.kind) * amount);
  }
  return { of, from: 'said' };
}

/** What stands on receivables and payables without an item. */
export function withoutItems(
  { accounts }: Book,
  opening: ReadonlyMap<AccountId, number>,
  shown: readonly ShownItem[],
): { readonly in: number; readonly out: number } {
  const side = (kind: Account['kind'], of: 'in' | 'out') =>
    accounts.filter((a) => a.kind === kind).reduce((t, a) => t + (opening.get(a.id) ?? 0), 0) -
    (of === 'in' ? 1 : -1) *
      shown.filter((i) => i.side === of && i.kind === 'invoice').reduce((t, i) => t + i.open, 0);
  return { in: side('receivable', 'in'), out: side('payable', 'out') };
}

/**
 * What stands owed of a tax at the start: the running period's part is what its months brought, as far as the ledger tells;
 * the rest belongs to periods that are over.
 */
export function taxStood(
  { calendar, balances }: Ground,
  scheme: TaxScheme,
  start: DayNumber,
  opening: ReadonlyMap<AccountId, number>,
): { ended: number; running: number } {
  const account = scheme.payable;
  const owed = account === null ? 0 : -(opening.get(account) ?? 0);
  if (account === null || owed === 0) return { ended: 0, running: 0 };
  const [next] = taxPeriods(scheme, start, start + 1);
  // No period is over that is not due yet: all that stands is the running one's.
  if (!next || next.to > start) return { ended: 0, running: owed };
  let brought = 0;
  for (let p = calendar.indexOfDay(next.to + 1); toDayNumber(calendar.period(p).end) <= start; p++)
    brought -= balances.movement(account, p) ?? 0;
  const running = Math.min(Math.max(0, brought), Math.max(0, owed));
  return { ended: owed - running, running };
}
