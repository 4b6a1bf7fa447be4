import { civilOf } from '@/core/calendar';
import {
  ACTIVITY,
  journalOf,
  ownersOf,
  rowAt,
  type Journal,
  type LedgerBlock,
  type View,
} from '@/core/ledger';
import { isProfitAndLoss, type Account, type AccountId, type AccountKind } from '@/core/model';

/** How the entries of an account of profit and loss met money. */
export type Habit = {
  /** Of its amounts, what stood against the bank, a receivable or payable, and something without money, each in 0 … 1. */
  readonly bank: number;
  readonly account: number;
  readonly without: number;
  /** The middle day of the month of its entries, and entries in a month that has any. */
  readonly day: number;
  readonly perMonth: number;
  /** The account that stands against it most often where no money moves. */
  readonly against: AccountId | null;
};

type Sum = {
  bank: number;
  account: number;
  without: number;
  days: number[];
  months: Set<number>;
  against: Map<AccountId, number>;
};

const MONEY: Partial<Record<AccountKind, 'bank' | 'account'>> = {
  bank: 'bank',
  receivable: 'account',
  payable: 'account',
};

/** Reads off the ledger how each account's entries met money. */
export function habitsOf(
  blocks: readonly LedgerBlock[],
  view: View,
  accounts: readonly Account[],
): ReadonlyMap<AccountId, Habit> {
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const sums = new Map<AccountId, Sum>();
  for (const block of blocks) {
    const owners = ownersOf(block, view, byId);
    const journal = journalOf(block);
    for (let k = 0; k < journal.starts.length - 1; k++) readEntry(block, owners, journal, k, sums);
  }
  const out = new Map<AccountId, Habit>();
  for (const [id, s] of sums) {
    const all = s.bank + s.account + s.without;
    if (all === 0) continue;
    s.days.sort((a, b) => a - b);
    out.set(id, {
      bank: s.bank / all,
      account: s.account / all,
      without: s.without / all,
      day: s.days[s.days.length >> 1]!,
      perMonth: s.days.length / s.months.size,
      against: [...s.against].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null,
    });
  }
  return out;
}

function readEntry(
  block: LedgerBlock,
  owners: readonly (Account | undefined)[],
  journal: Journal,
  k: number,
  sums: Map<AccountId, Sum>,
): void {
  const [from, to] = [journal.starts[k]!, journal.starts[k + 1]!];
  const head = rowAt(journal, from);
  if (block.mark[head] !== ACTIVITY) return;
  let met: 'bank' | 'account' | 'without' = 'without';
  let other: AccountId | null = null;
  let any = false;
  let against = false;
  for (let i = from; i < to; i++) {
    const row = rowAt(journal, i);
    const a = owners[block.account[row]!];
    if (!a) continue;
    if (isProfitAndLoss(a.kind)) any = true;
    else {
      against = true;
      const way = MONEY[a.kind];
      // An invoice that is paid in the same entry met the bank.
      if (way === 'bank' || (way === 'account' && met === 'without')) met = way;
      if (!way) other = a.id;
    }
  }
  // An entry without its other side, as a statement by month has them, says nothing of how it met money.
  if (!any || !against) return;
  const { year, month, date } = civilOf(block.day[head]!);
  for (let i = from; i < to; i++) {
    const row = rowAt(journal, i);
    const a = owners[block.account[row]!];
    if (!a || !isProfitAndLoss(a.kind)) continue;
    let s = sums.get(a.id);
    if (!s)
      sums.set(
        a.id,
        (s = { bank: 0, account: 0, without: 0, days: [], months: new Set(), against: new Map() }),
      );
    const size = Math.abs(block.amount[row]!);
    s[met] += size;
    s.days.push(date);
    s.months.add(year * 12 + month);
    if (met === 'without' && other !== null) s.against.set(other, (s.against.get(other) ?? 0) + size);
  }
}
