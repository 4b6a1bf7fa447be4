import { isProfitAndLoss, type Account, type Budget, type Layout } from '@/core/model';
import type { Ground } from '@/core/ground';
import type { Compared } from './compared';
import { reportOfSet, type LayoutInput } from './layoutReport';
import { unitsOf } from './quantities';
import { layoutRows, type PlainRow } from './rows';
import type { RowSet } from './rowSet';
import { ledgerSides } from './sides';

/** Accounts and rows of a book stay while it does: another month looks at the same ones. */
export function ofAccounts(
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

/** The ledger's accounts, whatever is planned. */
export const ledgerSet = ofAccounts(() => true, {
  sides: ledgerSides,
  rollOf: () => 'sum',
  knows: (_g, _c, ledger) => ledger.has,
});

/** The ledger drawn as a layout says, by itself: nothing of cash and statements is brought along where only it is shown. */
export const ledgerReport = (input: LayoutInput) => reportOfSet(ledgerSet, input);
