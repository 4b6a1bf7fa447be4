import type { PeriodIndex } from '@/core/calendar';
import {
  debtsOf,
  dueOf,
  type Debts,
  offBalance,
  plannedAt,
  reckoned,
  segmentLedgers,
  type Ahead,
  type CashView,
  type Ground,
} from '@/core/ground';
import { actualOf } from '@/core/ledger';
import { minor, plus, sumBlank, type Minor } from '@/core/money';
import { natural, newAccount, type Account, type AccountId, type Axis, type SegmentId } from '@/core/model';
import { aheadFor, aheadSides, schedulesAhead, SETS_AHEAD } from './ahead';
import type { Compared } from './compared';
import type { RowSet } from './rowSet';
import { aYearBefore, budgetSides, sidesOf, type Side, type Sides, type SidesInput } from './sides';

/** Profit and loss by the postings, which is what the other two statements follow from. */
export const profitStatement: Partial<RowSet> = {
  ...SETS_AHEAD,
  sides(input) {
    const base = sidesOf(input);
    const sides = aheadSides(input, base, ({ balances }) => (account, _scope, p) => {
      const moved = balances.movement(account.id, p);
      return moved === null ? null : natural(account.kind, moved);
    });
    const ahead = input.axis && aheadFor(input.ground, input.compared);
    return ahead ? bySegment(input, input.axis!, ahead, sides, base) : sides;
  },
};

/**
 * Profit and loss of each value of an axis: closed periods by the ledger, those ahead by the budgets that plan them, where
 * they plan by the same axis. What of the company's amount no value has is unassigned, so that they add up to it: what the
 * projection makes of itself (a credit line's interest, bad debts) and budgets that tell no segments apart.
 */
function bySegment({ ground }: SidesInput, axis: Axis, ahead: Ahead, sides: Sides, base: Sides): Sides {
  const ledgerOf = segmentLedgers(ground, axis.id);
  const plans = ahead.view.plans.map(({ budget, periods }) => ({
    whole: reckoned(ground, budget),
    periods: new Set(periods.map((p) => p.index)),
  }));
  const ofValue = (account: Account, value: SegmentId, p: PeriodIndex): Minor | null => {
    if (p <= ahead.start) return actualOf(ledgerOf(value), account, p);
    const plan = plans.find((x) => x.periods.has(p));
    return plan?.whole.budget.axis === axis.id ? plannedAt(plan.whole, account.id, value, p).amount : null;
  };
  const { outlook: company } = sides;
  const outlook: Side = {
    ...company,
    tells: () => true,
    at(account, scope, p) {
      if (scope === 'all') return company.at(account, scope, p);
      if (!company.covers(p)) return null;
      if (scope !== null) return ofValue(account, scope, p);
      const all = company.at(account, 'all', p);
      const named = sumBlank(axis.values.map((v) => ofValue(account, v.id, p)));
      if (all === null || named === null) return all;
      return all === named ? null : minor(plus(all, -named));
    },
  };
  const lastYear = aYearBefore(ground, outlook);
  /** What stands beside it tells segments apart as it does in any report. */
  const beside = (own: Side, plain: Side | null): Side =>
    plain
      ? {
          ...own,
          tells: plain.tells,
          at: (account, scope, p) => (scope === 'all' ? own : plain).at(account, scope, p),
        }
      : own;
  const named = (own: Side, plain: Side | null): Side =>
    own === company ? outlook : own === sides.lastYear ? lastYear : beside(own, plain);
  return {
    ...sides,
    actual: outlook,
    outlook,
    lastYear,
    first: named(sides.first, base.first),
    second: sides.second && named(sides.second, base.second),
  };
}

/** The balance sheet: what accounts stand at at the ends of periods, stand-ins among them. */
export const balanceStatement: Partial<RowSet> = {
  ...SETS_AHEAD,
  sides: (input) =>
    aheadSides(input, budgetSides(input), ({ balances, stands, off, schedules }) => {
      const { calendar } = input.ground;
      const { accounts, cash } = input.ground.book;
      const debts: Debts = { rows: schedules, creditLine: cash.creditLine, calendar, accounts };
      const parted = debtsOf(debts);
      const dueAt = (debt: AccountId, p: PeriodIndex) => dueOf(debts, balances, debt, p);
      return (account, _scope, p) => {
        if (!stands(p)) return null;
        if (isOff.has(account)) return minor(off(p));
        const loan = dueFor.get(account);
        if (loan !== undefined) return minor(dueAt(loan, p));
        const tax = overFor.get(account);
        if (tax !== undefined) {
          const over = balances.balance(tax, p, true);
          return over > 0 ? over : null;
        }
        const at = natural(account.kind, balances.balance(account.id, p, true));
        // Tax that was paid beyond what is owed stands among the assets.
        if (account.kind === 'taxPayable' && at < 0) return minor(0);
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
function dueAccounts({ accounts }: Ahead, debts: Debts): Account[] {
  const all = debtsOf(debts);
  return accounts
    .filter((a) => all.has(a.id))
    .map((a) => {
      const due = newAccount(`due ${a.id}`, a.code, `${a.name}, due within a year`, 'otherLiability');
      dueFor.set(due, a.id);
      return due;
    });
}

/** The tax that a line of what was paid beyond it belongs to. */
const overFor = new WeakMap<Account, AccountId>();
/** Taxes that stand the other way at the end of any period have a line among the assets. */
function overAccounts({ accounts, balances, last }: Ahead): Account[] {
  const { range } = balances;
  if (!range) return [];
  return accounts
    .filter((a) => {
      if (a.kind !== 'taxPayable') return false;
      for (let p = range.first; p <= last; p++) if (balances.balance(a.id, p, true) > 0) return true;
      return false;
    })
    .map((a) => {
      const over = newAccount(`over ${a.id}`, a.code, `${a.name}, paid beyond what is owed`, 'otherAsset');
      overFor.set(over, a.id);
      return over;
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
    const due = dueAccounts(ahead, {
      rows: schedulesAhead(ahead, compared),
      creditLine: ground.book.cash.creditLine,
      calendar: ground.calendar,
      accounts: ground.book.accounts,
    });
    own = [
      ...ahead.accounts,
      ...due,
      ...overAccounts(ahead),
      ...(off ? [offAccounts.get(ahead.view.opening)!] : []),
    ];
    withOff.set(ahead, own);
  }
  return own;
};
