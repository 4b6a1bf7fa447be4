import type { FiscalCalendar, PeriodIndex } from '@/core/calendar';
import { ACTIVITY, journalOf, ownersOf, rowAt, type LedgerBlock, type View } from '@/core/ledger';
import { isProfitAndLoss, namesNature, type Account, type AccountId, type FlowClass } from '@/core/model';
import { plus } from '@/core/money';
import { flowClassOf } from './cashFlow';

/*
 * Sales of assets. Their entries take the cost out of an asset, what was written off out of the account that gathers it, and
 * leave a gain or loss: the statement of cash flows tells in investing what came in, and takes the rest out of operations
 * (IAS 7.16 and 7.20, ASC 230-10-45-12 and 45-28).
 */

/** What the sale of an asset moved beside money, debits positive: what was written off, and the gain or loss. */
export type AssetSale = {
  readonly period: PeriodIndex;
  readonly asset: AccountId;
  readonly legs: readonly { readonly account: AccountId; readonly amount: number }[];
};

/** What sales change of the lines of the statement, debits positive. */
export type Sales = {
  /** What of an account's movement in a period a sale told in another line; of a sold asset, what comes to it of those. */
  readonly shift: (account: AccountId, period: PeriodIndex) => number;
  /** What gains and losses of sales an account of profit and loss has, which is no money of operations. */
  readonly gain: (account: AccountId, period: PeriodIndex) => number;
  /** The accounts of profit and loss that have any. */
  readonly gains: ReadonlySet<AccountId>;
};

export const NO_SALES: Sales = { shift: () => 0, gain: () => 0, gains: new Set() };

/** The sales of a list, by account and period. `isFlow`: whether an account is one of profit and loss. */
export function salesOf(list: readonly AssetSale[], isFlow: (account: AccountId) => boolean): Sales {
  if (list.length === 0) return NO_SALES;
  const shifts = new Map<string, number>();
  const backs = new Map<string, number>();
  const gains = new Set<AccountId>();
  const add = (map: Map<string, number>, account: AccountId, period: PeriodIndex, amount: number) => {
    const key = `${account} ${period}`;
    map.set(key, plus(map.get(key) ?? 0, amount));
  };
  for (const { period, asset, legs } of list)
    for (const { account, amount } of legs) {
      add(shifts, asset, period, amount);
      if (isFlow(account)) {
        add(backs, account, period, amount);
        gains.add(account);
      } else add(shifts, account, period, -amount);
    }
  return {
    gains,
    shift: (account, period) => shifts.get(`${account} ${period}`) ?? 0,
    gain: (account, period) => backs.get(`${account} ${period}`) ?? 0,
  };
}

/** One set of sales up to a period, another after it. */
export const joinedSales = (before: Sales, after: Sales, start: PeriodIndex): Sales => ({
  gains: new Set([...before.gains, ...after.gains]),
  shift: (account, p) => (p <= start ? before : after).shift(account, p),
  gain: (account, p) => (p <= start ? before : after).gain(account, p),
});

/** Accounts of profit and loss that the entry of a sale posts to: what else a compound entry has is no part of it. */
const OF_SALES = ['gain', 'depreciation', 'accumulated'] as const;
const isOfSales = ({ kind, name }: Account): boolean =>
  kind === 'otherIncome' || kind === 'otherExpense' || OF_SALES.some((n) => namesNature(name, n));

/**
 * The sales that a ledger's entries tell: entries (rows of one day and reference) that take something out of an asset and
 * either what was written off of it or a gain or loss. An entry of several assets is told with the one that loses the most.
 */
export function ledgerSales(
  blocks: readonly LedgerBlock[],
  view: View,
  accounts: readonly Account[],
  said: Readonly<Record<AccountId, FlowClass>>,
  calendar: FiscalCalendar,
): AssetSale[] {
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const classes = new Map(accounts.map((a) => [a.id, flowClassOf(a, said)]));
  const isAsset = (a: Account) => a.kind === 'fixedAsset' && classes.get(a.id) === 'investing';
  const isLeg = (a: Account): boolean => {
    const of = classes.get(a.id);
    if (isProfitAndLoss(a.kind)) return of !== 'investing' && of !== 'financing' && isOfSales(a);
    return a.kind === 'fixedAsset' && of === 'adjustment';
  };
  const out: AssetSale[] = [];
  for (const block of blocks) {
    const owners = ownersOf(block, view, byId);
    const loses = owners.map((a) => a !== undefined && isAsset(a));
    const { account, amount, mark, count, day } = block;
    const isCredit = (i: number) => loses[account[i]!]! && amount[i]! < 0 && mark[i] === ACTIVITY;
    let any = false;
    for (let i = 0; i < count && !any; i++) any = isCredit(i);
    if (!any) continue;
    const journal = journalOf(block);
    for (let k = 0; k < journal.starts.length - 1; k++) {
      let most = -1;
      for (let at = journal.starts[k]!; at < journal.starts[k + 1]!; at++) {
        const i = rowAt(journal, at);
        if (isCredit(i) && (most < 0 || amount[i]! < amount[most]!)) most = i;
      }
      if (most < 0) continue;
      const legs: { account: AccountId; amount: number }[] = [];
      for (let at = journal.starts[k]!; at < journal.starts[k + 1]!; at++) {
        const i = rowAt(journal, at);
        const of = owners[account[i]!];
        if (of && mark[i] === ACTIVITY && isLeg(of)) legs.push({ account: of.id, amount: amount[i]! });
      }
      if (legs.length > 0)
        out.push({ period: calendar.indexOfDay(day[most]!), asset: owners[account[most]!]!.id, legs });
    }
  }
  return out;
}
