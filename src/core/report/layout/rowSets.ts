import { isProfitAndLoss, type Account, type Budget, type Layout } from '@/core/model';
import type { Ground } from '@/core/ground';
import { cashSet } from './cashSet';
import { unitsOf } from './quantities';
import { layoutRows, type PlainRow } from './rows';
import type { Compared } from './compared';
import type { RowSet } from './rowSet';
import { budgetSides, ledgerSides } from './sides';
import { withStandIns } from './ahead';
import { cashFlowSet } from './cashFlowSet';
import { balanceAccounts, balanceStatement, profitStatement } from './statementSets';
import { unitSet } from './unitSet';

/** Accounts and rows of a book stay while it does: another month looks at the same ones. */
function ofAccounts(
  fits: (account: Account, covers: Budget['covers']) => boolean,
  more: Partial<RowSet> = {},
  all: (ground: Ground, compared: Compared) => readonly Account[] = ({ book }) => book.accounts,
): RowSet {
  const chosen = new WeakMap<readonly Account[], Map<string, readonly Account[]>>();
  const made = new WeakMap<
    readonly Account[],
    { readonly of: Layout['rows']; readonly rows: readonly PlainRow[] }
  >();
  return {
    accounts(ground, compared) {
      const covers = compared.comparison?.covers ?? 'both';
      const accounts = all(ground, compared);
      let byCovers = chosen.get(accounts);
      if (!byCovers) chosen.set(accounts, (byCovers = new Map()));
      let own = byCovers.get(covers);
      if (!own) byCovers.set(covers, (own = accounts.filter((a) => fits(a, covers))));
      return own;
    },
    rows(rows, accounts, sizeOf) {
      if (sizeOf) return layoutRows(rows, accounts, sizeOf);
      const kept = made.get(accounts);
      if (kept && sameRows(kept.of, rows)) return kept.rows;
      const own = layoutRows(rows, accounts);
      made.set(accounts, { of: rows, rows: own });
      return own;
    },
    rollOf: (a) => (isProfitAndLoss(a.kind) ? 'sum' : 'last'),
    units: (ground, { comparison }) => unitsOf(ground, comparison),
    ...more,
  };
}

/** Whether two say the same rows, whatever is filtered out of them later. */
const sameRows = (a: Layout['rows'], b: Layout['rows']): boolean =>
  a === b ||
  (a.set === b.set &&
    a.detail === b.detail &&
    a.order === b.order &&
    (a.own === b.own || a.own.length + b.own.length === 0));

const SETS: Readonly<Record<Layout['rows']['set'], RowSet>> = {
  profitAndLoss: ofAccounts((a) => isProfitAndLoss(a.kind)),
  balanceSheet: ofAccounts((a) => !isProfitAndLoss(a.kind)),
  both: ofAccounts(() => true),
  budget: ofAccounts(
    (a, covers) => covers === 'both' || isProfitAndLoss(a.kind) === (covers === 'profitAndLoss'),
    { sides: budgetSides },
  ),
  ledger: ofAccounts(() => true, {
    sides: ledgerSides,
    rollOf: () => 'sum',
    knows: (_g, _c, ledger) => ledger.has,
  }),
  profitStatement: ofAccounts((a) => isProfitAndLoss(a.kind), profitStatement, withStandIns),
  balanceStatement: ofAccounts((a) => !isProfitAndLoss(a.kind), balanceStatement, balanceAccounts),
  cashFlow: cashFlowSet(false),
  cashFlowDirect: cashFlowSet(true),
  cash: cashSet,
  units: unitSet,
};

/** Whether the actuals of a set of rows go on by what is expected. */
export const goesAhead = (set: Layout['rows']['set']): boolean => SETS[set].ahead === true;

/** Whether a set of rows can tell segments apart. */
export const tellsSegments = (set: Layout['rows']['set']): boolean => SETS[set].whole !== true;

export const rowSetOf = (set: Layout['rows']['set']): RowSet => SETS[set];
