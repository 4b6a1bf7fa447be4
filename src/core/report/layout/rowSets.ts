import { isProfitAndLoss, type Account, type Layout } from '@/core/model';
import { cashSet } from './cashSet';
import { unitsOf } from './quantities';
import { layoutRows } from './rows';
import type { RowSet } from './rowSet';
import { unitSet } from './unitSet';

const ofAccounts = (fits: (account: Account) => boolean): RowSet => ({
  accounts: ({ book }) => book.accounts.filter(fits),
  rows: layoutRows,
  rollOf: (a) => (isProfitAndLoss(a.kind) ? 'sum' : 'last'),
  units: (ground, { comparison }) => unitsOf(ground, comparison),
});

const SETS: Readonly<Record<Layout['rows']['set'], RowSet>> = {
  profitAndLoss: ofAccounts((a) => isProfitAndLoss(a.kind)),
  balanceSheet: ofAccounts((a) => !isProfitAndLoss(a.kind)),
  both: ofAccounts(() => true),
  cash: cashSet,
  units: unitSet,
};

export const rowSetOf = (set: Layout['rows']['set']): RowSet => SETS[set];
