import { indexOfId, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import {
  isProfitAndLoss,
  type Account,
  type AccountId,
  type Book,
  type Budget,
  type ScheduleRow,
} from '@/core/model';
import { saleOf, STAND_INS } from '@/core/schedule';
import { flowClassOf, ledgerSales, salesOf, type AssetSale, type Sales } from '@/core/statements';
import type { Ground } from './ground';

/* Sales of assets, of the ledger's entries and of schedules: what the statement of cash flows has to know of them. */

const makeSold = () => lastOf(ledgerSales);

const makeFlows = () =>
  lastOf((accounts: readonly Account[]) => {
    const flows = new Set<AccountId>(accounts.filter((a) => isProfitAndLoss(a.kind)).map((a) => a.id));
    return (id: AccountId) => flows.has(id) || id === STAND_INS.gain;
  });

/** Whether an account is of profit and loss. */
const flowOf = ({ memory, book }: Ground) => memory.of('flowAccounts', makeFlows)(book.accounts);

/** The sales that the ledger tells. */
export const salesInLedger = (ground: Ground): Sales => {
  const { memory, blocks, view, book, calendar } = ground;
  const sold = memory.of('assetSales', makeSold);
  return salesOf(sold(blocks, view, book.accounts, book.flowClasses, calendar), flowOf(ground));
};

/** The sale that a row of a schedule plans; null for most. What was found of a row is kept as long as the accounts stay. */
const makePlanned = () =>
  lastOf(
    (
      accounts: readonly Account[],
      said: Book['flowClasses'],
      calendar: FiscalCalendar,
      isFlow: (account: AccountId) => boolean,
    ) => {
      const classes = new Map(accounts.map((a) => [a.id, flowClassOf(a, said)]));
      /** Whether the leg stands in operations, from where the sale takes it: what was said to be told elsewhere is there already. */
      const isApart = (id: AccountId): boolean => {
        const of = classes.get(id) ?? 'adjustment';
        return isFlow(id) ? of !== 'investing' && of !== 'financing' : of === 'adjustment';
      };
      const find = (row: ScheduleRow): AssetSale | null => {
        if (row.kind !== 'asset' || (classes.get(row.account) ?? 'investing') !== 'investing') return null;
        const sale = saleOf(row, calendar, accounts);
        if (!sale) return null;
        const legs = [sale.accumulated, sale.gain].filter((l) => l.amount !== 0 && isApart(l.account));
        return { period: sale.period, asset: row.account, legs };
      };
      const found = new WeakMap<ScheduleRow, AssetSale | null>();
      return (row: ScheduleRow): AssetSale | null => {
        let sale = found.get(row);
        if (sale === undefined) found.set(row, (sale = find(row)));
        return sale;
      };
    },
  );

/** The sales that schedules of budgets plan, each in the months that its budget plans. */
export function salesPlanned(
  ground: Ground,
  plans: readonly { readonly budget: Budget; readonly covers: (period: PeriodIndex) => boolean }[],
): Sales {
  const { memory, calendar, book } = ground;
  const isFlow = flowOf(ground);
  const planned = memory.of('plannedSales', makePlanned)(book.accounts, book.flowClasses, calendar, isFlow);
  const list = plans.flatMap(({ budget, covers }) =>
    budget.schedules.flatMap((row): AssetSale[] => {
      const sale = planned(row);
      return sale && covers(sale.period) ? [sale] : [];
    }),
  );
  return salesOf(list, isFlow);
}

/** What a budget by itself plans of sales, in all its months. */
export function salesOfBudget(ground: Ground, budget: Budget): Sales {
  const first = indexOfId(ground.calendar, budget.first) ?? 0;
  return salesPlanned(ground, [{ budget, covers: (p) => p >= first && p < first + budget.length }]);
}
