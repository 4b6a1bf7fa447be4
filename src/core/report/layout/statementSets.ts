import type { PeriodIndex } from '@/core/calendar';
import { dueOf, loansOf, offBalance, type Ahead, type CashView, type Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { natural, newAccount, type Account, type AccountId, type ScheduleRow } from '@/core/model';
import { aheadFor, aheadSides, SETS_AHEAD } from './ahead';
import { onlyBudget, type Compared } from './compared';
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
    aheadSides(input, budgetSides(input), ({ balances, stands, off, schedules }) => {
      const { calendar } = input.ground;
      const parted = loansOf(schedules);
      /** What of a loan is due within twelve months: no more than it stands at. */
      const dueAt = (loan: AccountId, p: PeriodIndex) =>
        Math.min(dueOf(schedules, calendar, loan, p), Math.max(0, -balances.balance(loan, p, true)));
      return (account, _scope, p) => {
        if (!stands(p)) return null;
        if (isOff.has(account)) return minor(off(p));
        const loan = dueFor.get(account);
        if (loan !== undefined) return minor(dueAt(loan, p));
        const at = natural(account.kind, balances.balance(account.id, p, true));
        if (at === 0 && !balances.active(account.id)) return null;
        return parted.has(account.id) ? minor(at - dueAt(account.id, p)) : at;
      };
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

/** The loan that a line of what is due within a year is part of. */
const dueFor = new WeakMap<Account, AccountId>();
function dueAccounts({ accounts }: Ahead, schedules: readonly ScheduleRow[]): Account[] {
  const loans = loansOf(schedules);
  return accounts
    .filter((a) => loans.has(a.id))
    .map((a) => {
      const due = newAccount(`due ${a.id}`, a.code, `${a.name}, due within a year`, 'otherLiability');
      dueFor.set(due, a.id);
      return due;
    });
}

const withOff = new WeakMap<Ahead, readonly Account[]>();
/** The accounts of a balance sheet: the book’s with stand-ins, and what the books are off by where they are. */
export const balanceAccounts = (ground: Ground, compared: Compared): readonly Account[] => {
  const ahead = aheadFor(ground, compared);
  if (!ahead) return ground.book.accounts;
  let own = withOff.get(ahead);
  if (!own) {
    const first = ahead.balances.range?.first ?? ahead.start;
    const off = [first, ahead.start, ahead.last].some((p) => offBalance(ahead, p) !== 0);
    const due = dueAccounts(ahead, onlyBudget(compared)?.schedules ?? []);
    own = [...ahead.accounts, ...due, ...(off ? [offAccounts.get(ahead.view.opening)!] : [])];
    withOff.set(ahead, own);
  }
  return own;
};
