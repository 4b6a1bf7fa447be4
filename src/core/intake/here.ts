import type { LedgerBlock } from '@/core/ledger';
import type { AccountId } from '@/core/model';

/** What of a block tells its entries apart: a part that is light to send. */
export type EntryColumns = Pick<LedgerBlock, 'accounts' | 'count' | 'account' | 'day' | 'amount'>;

/**
 * How many entries of a file stand already among others: each of theirs matches one of ours of the same day, account and
 * amount. `owners`: the book's account of each of the file's places, null for one that the book has not. `owner`: what an
 * account that was merged is now.
 */
export function entriesHere(
  { count, account, day, amount }: Pick<EntryColumns, 'count' | 'account' | 'day' | 'amount'>,
  owners: readonly (AccountId | null)[],
  blocks: readonly EntryColumns[],
  owner: (account: AccountId) => AccountId,
): number {
  const key = (of: AccountId, i: number, from: Pick<EntryColumns, 'day' | 'amount'>) =>
    `${of} ${from.day[i]} ${from.amount[i]}`;
  const ours = new Map<string, number>();
  for (const block of blocks) {
    const ids = block.accounts.map(owner);
    for (let i = 0; i < block.count; i++) {
      const k = key(ids[block.account[i]!]!, i, block);
      ours.set(k, (ours.get(k) ?? 0) + 1);
    }
  }
  let here = 0;
  for (let i = 0; i < count; i++) {
    const of = owners[account[i]!];
    if (!of) continue;
    const k = key(of, i, { day, amount });
    const left = ours.get(k) ?? 0;
    if (left === 0) continue;
    ours.set(k, left - 1);
    here++;
  }
  return here;
}
