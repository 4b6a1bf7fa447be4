import { minor, plus, ZERO } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { Balances } from '@/core/ledger';
import type { AccountId } from '@/core/model';

/** What the periods after the last known one bring. */
export type Ahead = {
  /** The last period that the ledger tells; what it has of later ones is not counted. */
  readonly start: PeriodIndex;
  readonly count: number;
  /** What accounts of the balance sheet stand at at its end, debits positive. */
  readonly opening: ReadonlyMap<AccountId, number>;
  /** What they stand at at the end of each period after it, debits positive; of profit and loss, what has gathered since. */
  readonly standing: ReadonlyMap<AccountId, Float64Array>;
  /** Whether an account is one of the balance sheet. */
  readonly isBalance: (account: AccountId) => boolean;
};

/**
 * The ledger up to a period and what is expected after it as one row of balances, so that whoever reads the one reads both.
 * No year is closed ahead: results of coming years gather beside equity.
 */
export function joinedBalances(
  ledger: Balances,
  { start, count, opening, standing, isBalance }: Ahead,
): Balances {
  const last = start + count;
  /** What an account stands at so many periods after the start; of profit and loss, what it has gathered since. */
  const at = (account: AccountId, periods: number): number => {
    const stood = isBalance(account) ? (opening.get(account) ?? 0) : 0;
    return periods <= 0 ? stood : (standing.get(account)?.[Math.min(periods, count) - 1] ?? stood);
  };
  return {
    movement(account, period) {
      if (period <= start) return ledger.movement(account, period);
      if (period > last || !standing.has(account)) return null;
      return minor(at(account, period - start) - at(account, period - start - 1));
    },
    closing: (account, period) => (period <= start ? ledger.closing(account, period) : ZERO),
    opening: ledger.opening,
    balance(account, period, closings) {
      if (isBalance(account))
        return period < start
          ? ledger.balance(account, period, closings)
          : minor(at(account, period - start));
      const before = ledger.balance(account, Math.min(period, start), closings);
      return minor(plus(before, at(account, period - start)));
    },
    range:
      count === 0 ? ledger.range : { first: Math.min(ledger.range?.first ?? start + 1, start + 1), last },
    has: (period) => (period <= start ? ledger.has(period) : period <= last),
    active: (account) => ledger.active(account) || standing.has(account),
    entries: ledger.entries,
  };
}
