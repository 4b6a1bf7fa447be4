import { isProfitAndLoss, type Layout } from '@/core/model';
import { withStandIns } from './ahead';
import { cashFlowSet } from './cashFlowSet';
import { cashSet } from './cashSet';
import { reportOfSet, type LayoutInput, type LayoutReport } from './layoutReport';
import { ledgerSet, ofAccounts } from './plainSets';
import type { RowSet } from './rowSet';
import { budgetSides } from './sides';
import { balanceAccounts, balanceStatement, profitStatement } from './statementSets';
import { unitSet } from './unitSet';

const SETS: Readonly<Record<Layout['rows']['set'], RowSet>> = {
  profitAndLoss: ofAccounts((a) => isProfitAndLoss(a.kind)),
  balanceSheet: ofAccounts((a) => !isProfitAndLoss(a.kind)),
  both: ofAccounts(() => true),
  budget: ofAccounts(
    (a, covers) => covers === 'both' || isProfitAndLoss(a.kind) === (covers === 'profitAndLoss'),
    { sides: budgetSides },
  ),
  ledger: ledgerSet,
  profitStatement: ofAccounts((a) => isProfitAndLoss(a.kind), profitStatement, withStandIns),
  balanceStatement: ofAccounts((a) => !isProfitAndLoss(a.kind), balanceStatement, balanceAccounts),
  cashFlow: cashFlowSet(false),
  cashFlowDirect: cashFlowSet(true),
  cash: cashSet,
  units: unitSet,
};

/** A layout's report of a month. */
export const layoutReport = (input: LayoutInput): LayoutReport =>
  reportOfSet(SETS[input.layout.rows.set], input);
