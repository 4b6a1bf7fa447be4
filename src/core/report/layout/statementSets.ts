import { offBalance, type Ahead, type CashView, type Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { natural, newAccount, type Account } from '@/core/model';
import { aheadFor, aheadSides, SETS_AHEAD } from './ahead';
import type { Compared } from './compared';
import type { RowSet } from './rowSet';
import { budgetSides, sidesOf } from './sides';

/** Profit and loss by the postings, which is what the other two statements follow from. */
export const profitStatement: Partial<RowSet> = {
  ...SETS_AHEAD,
  sides: (input) =>
    aheadSides(input, sidesOf(input), ({ balances }) => (account, _scope, p) => {
      const moved = balances.movement(account.id, p);
      return moved === null ? null : natural(account.kind, moved);
    }),
};

/** The balance sheet: what accounts stand at at the ends of periods, stand-ins among them. */
export const balanceStatement: Partial<RowSet> = {
  ...SETS_AHEAD,
  sides: (input) =>
    aheadSides(input, budgetSides(input), ({ balances, stands, off }) => (account, _scope, p) => {
      if (!stands(p)) return null;
      if (isOff.has(account)) return minor(off(p));
      const at = balances.balance(account.id, p, true);
      return at === 0 && !balances.active(account.id) ? null : natural(account.kind, at);
    }),
};

/** A row of equity that carries what the books are off by, so that one named line does and all others are what they are. */
const OFF_NAMES: Readonly<Record<CashView['opening'], string>> = {
  ledger: 'Does not balance',
  said: 'Owners’ part at the start (balancing figure)',
  unknown: 'Balances that are not known',
};
const offAccounts = new Map(
  Object.entries(OFF_NAMES).map(([from, name]) => [from, newAccount(`off-${from}`, '', name, 'equity')]),
);
const isOff = new Set<Account>(offAccounts.values());
const withOff = new WeakMap<Ahead, readonly Account[]>();
/** The accounts of a balance sheet: the book’s with stand-ins, and what the books are off by where they are. */
export const balanceAccounts = (ground: Ground, compared: Compared): readonly Account[] => {
  const ahead = aheadFor(ground, compared);
  if (!ahead) return ground.book.accounts;
  let own = withOff.get(ahead);
  if (!own) {
    const first = ahead.balances.range?.first ?? ahead.start;
    const off = [first, ahead.start, ahead.last].some((p) => offBalance(ahead, p) !== 0);
    own = off ? [...ahead.accounts, offAccounts.get(ahead.view.opening)!] : ahead.accounts;
    withOff.set(ahead, own);
  }
  return own;
};
