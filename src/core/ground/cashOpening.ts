import type { DayNumber, PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import {
  ACTIVITY,
  journalOf,
  ownersOf,
  rowAt,
  type Balances,
  type LedgerBlock,
  type View,
} from '@/core/ledger';
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

/** Accounts that pay or are paid with a tax: entries on others beside it make what is owed of it. */
const PAYS: ReadonlySet<Account['kind']> = new Set(['bank', 'taxPayable', 'otherLiability']);

/**
 * What the ledger credited to an account by day, owed positive, apart from the payments of returns: entries in which money
 * stands against taxes alone. A ledger of monthly totals tells no payments, and its movements are taken as they are.
 */
function creditsByDay(
  blocks: readonly LedgerBlock[],
  view: View,
  accounts: Book['accounts'],
  account: AccountId,
): ReadonlyMap<DayNumber, number> {
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const out = new Map<DayNumber, number>();
  for (const block of blocks) {
    const owners = ownersOf(block, view, byId);
    if (!owners.some((a) => a?.id === account)) continue;
    const journal = journalOf(block);
    for (let k = 0; k < journal.starts.length - 1; k++) {
      let credited = 0;
      let bank = false;
      let only = true;
      for (let i = journal.starts[k]!; i < journal.starts[k + 1]!; i++) {
        const row = rowAt(journal, i);
        const owner = owners[block.account[row]!];
        if (block.mark[row] !== ACTIVITY || !owner) continue;
        if (owner.id === account) credited -= block.amount[row]!;
        if (owner.kind === 'bank') bank = true;
        if (!PAYS.has(owner.kind)) only = false;
      }
      if (credited === 0 || (bank && only)) continue;
      const day = block.day[rowAt(journal, journal.starts[k]!)]!;
      out.set(day, (out.get(day) ?? 0) + credited);
    }
  }
  return out;
}

/** What the ledger credited to an account between two days, apart from payments; the same function while the ledger stays. */
export const creditedIn = ({ blocks, view, book, memory }: Ground) =>
  memory.of('credited', () => lastOf(creditsOf))(blocks, view, book.accounts);

function creditsOf(blocks: readonly LedgerBlock[], view: View, accounts: Book['accounts']) {
  const known = new Map<AccountId, ReadonlyMap<DayNumber, number>>();
  return (account: AccountId, from: DayNumber, to: DayNumber): number => {
    let byDay = known.get(account);
    if (!byDay) known.set(account, (byDay = creditsByDay(blocks, view, accounts, account)));
    let sum = 0;
    for (const [day, amount] of byDay) if (day >= from && day <= to) sum += amount;
    return sum;
  };
}

/** What the ledger credited to a tax between two days. */
export const taxCredits = (ground: Ground, { payable }: TaxScheme, from: DayNumber, to: DayNumber): number =>
  payable === null ? 0 : creditedIn(ground)(payable, from, to);
