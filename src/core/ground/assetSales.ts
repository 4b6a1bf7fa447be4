import { indexOfId, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import { isProfitAndLoss, type AccountId, type Budget } from '@/core/model';
import { saleOf, STAND_INS } from '@/core/schedule';
import { flowClassOf, ledgerSales, salesOf, type AssetSale, type Sales } from '@/core/statements';
import type { Ground } from './ground';

/* Sales of assets, of the ledger's entries and of schedules: what the statement of cash flows has to know of them. */

const makeSold = () => lastOf(ledgerSales);

/** Whether it is of profit and loss. */
const flowOf = ({ book }: Ground) => {
  const flows = new Set<AccountId>(book.accounts.filter((a) => isProfitAndLoss(a.kind)).map((a) => a.id));
  return (id: AccountId) => flows.has(id) || id === STAND_INS.gain;
};

/** The sales that the ledger tells. */
export const salesInLedger = (ground: Ground): Sales => {
  const { memory, blocks, view, book, calendar } = ground;
  const sold = memory.of('assetSales', makeSold);
  return salesOf(sold(blocks, view, book.accounts, book.flowClasses, calendar), flowOf(ground));
};

/** The sales that schedules of budgets plan, each in the months that its budget plans. */
export function salesPlanned(
  ground: Ground,
  plans: readonly { readonly budget: Budget; readonly covers: (period: PeriodIndex) => boolean }[],
): Sales {
  const { calendar, book } = ground;
  const classes = new Map(book.accounts.map((a) => [a.id, flowClassOf(a, book.flowClasses)]));
  const isFlow = flowOf(ground);
  /** Whether the leg stands in operations, from where the sale takes it: what was said to be told elsewhere is there already. */
  const isApart = (id: AccountId): boolean => {
    const of = classes.get(id) ?? 'adjustment';
    return isFlow(id) ? of !== 'investing' && of !== 'financing' : of === 'adjustment';
  };
  const list = plans.flatMap(({ budget, covers }) =>
    budget.schedules.flatMap((row): AssetSale[] => {
      const sale = row.kind === 'asset' ? saleOf(row, calendar, book.accounts) : null;
      if (row.kind !== 'asset' || !sale || !covers(sale.period)) return [];
      if ((classes.get(row.account) ?? 'investing') !== 'investing') return [];
      const legs = [sale.accumulated, sale.gain].filter((l) => l.amount !== 0 && isApart(l.account));
      return [{ period: sale.period, asset: row.account, legs }];
    }),
  );
  return salesOf(list, isFlow);
}

/** What a budget by itself plans of sales, in all its months. */
export function salesOfBudget(ground: Ground, budget: Budget): Sales {
  const first = indexOfId(ground.calendar, budget.first) ?? 0;
  return salesPlanned(ground, [{ budget, covers: (p) => p >= first && p < first + budget.length }]);
}
