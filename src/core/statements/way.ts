import { minor, plus, type Minor } from '@/core/money';
import type { PeriodRange } from '@/core/calendar';
import type { Balances } from '@/core/ledger';
import { isProfitAndLoss, type Account, type AccountId, type FlowClass } from '@/core/model';
import { cashAccounts, flowAmount, flowLines, isPaid, type FlowLine } from './cashFlow';
import type { Sales } from './sales';

/** The way from a range's profit to the change of the bank: profit + all steps = change = closing − opening. */
export type Way = {
  readonly profit: Minor;
  /** Money that each line brought (positive) or took; those that did neither are left out. */
  readonly steps: readonly { readonly line: FlowLine; readonly amount: Minor }[];
  readonly change: Minor;
  readonly opening: Minor;
  readonly closing: Minor;
};

export function wayToCash(
  balances: Balances,
  accounts: readonly Account[],
  said: Readonly<Record<AccountId, FlowClass>>,
  sales: Sales,
  { first, last }: PeriodRange,
): Way {
  const moved = (id: AccountId): number => {
    let sum = 0;
    for (let p = first; p <= last; p++) sum = plus(sum, balances.movement(id, p) ?? 0);
    return sum;
  };
  const total = (of: readonly Account[], amount: (id: AccountId) => number): number =>
    of.reduce((t, a) => plus(t, amount(a.id)), 0);
  const banks = cashAccounts(accounts, said);
  const all = flowLines(accounts, said, sales.gains);
  // A cost that is added back only to be told as paid moves nothing on the way: what is owed of it does.
  const told = new Set(
    all.flatMap((l) => (isProfitAndLoss(l.account.kind) && isPaid(l.section) ? [l.account] : [])),
  );
  const lines = all.filter((l) => !told.has(l.account));
  const closing = total(banks, (id) => balances.balance(id, last, true));
  const change = total(banks, moved);
  return {
    profit: minor(
      -total(
        accounts.filter((a) => isProfitAndLoss(a.kind)),
        moved,
      ),
    ),
    steps: lines.flatMap((line) => {
      let amount = 0;
      for (let p = first; p <= last; p++) amount = plus(amount, flowAmount(line, balances, sales, p) ?? 0);
      return amount === 0 ? [] : [{ line, amount: minor(amount) }];
    }),
    change: minor(change),
    opening: minor(closing - change),
    closing: minor(closing),
  };
}
