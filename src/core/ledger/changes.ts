import { plus, minor, type Minor } from '@/core/money';
import type { PeriodIndex, PeriodRange } from '@/core/calendar';

/** Activity by account and period, debits positive; null where there is none. */
export type Movement<Key extends string = string> = (account: Key, period: PeriodIndex) => Minor | null;

export type AccountChange<Key extends string = string> = {
  readonly account: Key;
  /** The months that differ. */
  readonly cells: readonly {
    readonly period: PeriodIndex;
    readonly before: Minor | null;
    readonly after: Minor | null;
  }[];
  readonly difference: Minor;
};

/** What differs between two ledgers, by account and month: the accounts with any difference, in the order given. */
export function ledgerChanges<Key extends string>(
  accounts: readonly Key[],
  range: PeriodRange,
  before: Movement<Key>,
  after: Movement<Key>,
): AccountChange<Key>[] {
  return accounts.flatMap((account) => {
    const cells: { period: PeriodIndex; before: Minor | null; after: Minor | null }[] = [];
    let difference = 0;
    for (let period = range.first; period <= range.last; period++) {
      const was = before(account, period);
      const now = after(account, period);
      if (was === now) continue;
      cells.push({ period, before: was, after: now });
      difference = plus(difference, (now ?? 0) - (was ?? 0));
    }
    return cells.length === 0 ? [] : [{ account, cells, difference: minor(difference) }];
  });
}
