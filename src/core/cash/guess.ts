import { percent } from '@/core/money';
import {
  hasNature,
  profitSign,
  type Account,
  type AccountId,
  type Terms,
  type TermsOf,
  type TermsRule,
} from '@/core/model';
import type { Habit } from './habits';
import type { MeasuredShares } from './matching';

/** Where guessed terms come from, and how sure they are. */
export type Guess = {
  readonly terms: Terms;
  readonly from: 'history' | 'name' | 'kind';
  readonly sure: boolean;
};

export type GuessGround = {
  readonly habit: Habit | undefined;
  /** How fast receivables come in, and payables are paid, as measured. */
  readonly shares: { readonly in: MeasuredShares; readonly out: MeasuredShares };
  /** A sales tax moves in the ledger, and nobody has said what it is: no line's guess can be sure. */
  readonly untaxed: boolean;
  /** Whether an account is a stock, and how many days of cost it holds now; null for any other. */
  readonly stockDays: (account: AccountId) => number | null;
};

const monthEnd = { of: 'monthDay', day: 31 } as const;
const spread = { of: 'spread' } as const;

/** Terms of an account of which nobody said any: from how its entries met money, else from its name, else from its kind. */
export function guessTerms(account: Account, { habit, shares, untaxed, stockDays }: GuessGround): Guess {
  // What is lost of what customers owe is no payment, and what a tax comes on top of is not all there is.
  const doubtful = hasNature(account, 'badDebt') || (untaxed && account.kind === 'income');
  const made = (rule: TermsRule, from: Guess['from'], sure: boolean): Guess => ({
    terms: {
      of: { of: 'account', account: account.id },
      parts: [{ percent: percent('100'), rule }],
      bank: null,
      tax: null,
    },
    from,
    sure: sure && !doubtful,
  });
  const stock = habit?.against ?? null;
  const days = stock === null || habit!.without <= 0.5 ? null : stockDays(stock);
  if (days !== null)
    return made(
      {
        kind: 'fromStock',
        target: { of: 'days', days },
        bought: { of: 'monthDay', day: 12 },
        shares: sharesAsTerms(shares.out),
        moved: 'stays',
        inventory: stock,
        through: null,
      },
      'history',
      false,
    );
  if (hasNature(account, 'depreciation') || (habit && habit.without > 0.9))
    return made(
      { kind: 'withoutMoney', against: habit?.against ?? null },
      habit && habit.without > 0.9 ? 'history' : 'name',
      true,
    );
  const side = profitSign(account.kind) > 0 ? 'in' : 'out';
  if (habit && habit.account > 0.5 && shares[side].length > 0)
    return made(
      {
        kind: 'onAccount',
        invoiced: habit.perMonth > 2.5 ? spread : { of: 'monthDay', day: habit.day },
        shares: sharesAsTerms(shares[side]),
        moved: 'stays',
        badDebt: null,
        through: null,
      },
      'history',
      habit.account > 0.9,
    );
  if (hasNature(account, 'wages'))
    return made(
      { kind: 'atOnce', on: { of: 'own' }, moved: 'previous' },
      'name',
      habit !== undefined && habit.bank > 0.9,
    );
  if (habit)
    return made(
      {
        kind: 'atOnce',
        on: habit.perMonth > 2.5 ? spread : { of: 'monthDay', day: habit.day },
        moved: 'stays',
      },
      'history',
      habit.bank > 0.9,
    );
  return made(
    { kind: 'atOnce', on: profitSign(account.kind) > 0 ? spread : monthEnd, moved: 'stays' },
    'kind',
    false,
  );
}

/** Measured shares as terms; where nothing was measured, all of it after 30 days. */
const sharesAsTerms = (shares: MeasuredShares): TermsOf<'onAccount'>['shares'] =>
  (shares.length > 0 ? shares : [{ percent: 100, days: 30 }]).map((s) => ({
    percent: percent(String(s.percent)),
    due: { of: 'days' as const, days: s.days },
  }));
