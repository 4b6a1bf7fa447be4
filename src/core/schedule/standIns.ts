import { hasNature, type Account, type AccountId, type CreditLine, type Nature } from '@/core/model';

/** Accounts that a book may not have, by what they are to the projection; they are no accounts of the book. */
export const STAND_INS = {
  bank: '~bank',
  receivable: '~receivable',
  payable: '~payable',
  inventory: '~inventory',
  prepaid: '~prepaid',
  deferred: '~deferred',
  withheld: '~withheld',
  tax: '~tax',
  badDebt: '~badDebt',
  against: '~against',
  other: '~other',
  creditLine: '~creditLine',
  interest: '~interest',
  gain: '~gain',
  incomeTax: '~incomeTax',
  /** What a bank has not cleared yet; what moved at a bank and is not posted. */
  underWay: '~underWay',
  moved: '~moved',
} as const;

/** Whether it is none of a book's accounts. */
export const isStandIn = (account: AccountId): boolean => account.startsWith('~');

/**
 * How an account is found that nobody named: the first in use of a nature, else of a kind. What has neither is a stand-in.
 */
const FOUND_BY: {
  readonly [S in keyof typeof STAND_INS]: { readonly nature?: Nature; readonly kind?: Account['kind'] };
} = {
  bank: { kind: 'bank' },
  receivable: { kind: 'receivable' },
  payable: { kind: 'payable' },
  inventory: { kind: 'inventory' },
  prepaid: { nature: 'prepaid' },
  deferred: { nature: 'deferred' },
  withheld: { nature: 'withheld' },
  tax: { nature: 'salesTax', kind: 'taxPayable' },
  badDebt: { nature: 'badDebt' },
  against: {},
  other: {},
  creditLine: { nature: 'creditLine' },
  interest: { nature: 'interest' },
  gain: { nature: 'gain', kind: 'otherIncome' },
  incomeTax: { nature: 'taxOwed' },
  underWay: {},
  moved: {},
};

const found = new WeakMap<readonly Account[], Map<keyof typeof STAND_INS, AccountId>>();

/** The account of a book that serves where none was named: by its nature, else by its kind, else a stand-in. */
export function accountFor(accounts: readonly Account[], what: keyof typeof STAND_INS): AccountId {
  let known = found.get(accounts);
  if (!known) found.set(accounts, (known = new Map()));
  let id = known.get(what);
  if (id === undefined) {
    const { nature, kind } = FOUND_BY[what];
    const inUse = accounts.filter((a) => a.active);
    // A gain stands among income only, though a loss has the same name elsewhere.
    const byNature =
      nature && inUse.find((a) => hasNature(a, nature) && (kind === undefined || a.kind === kind));
    const isOther = (a: Account) => what === 'tax' && (hasNature(a, 'taxOwed') || hasNature(a, 'withheld'));
    const byKind = kind && inUse.find((a) => a.kind === kind && !isOther(a));
    id = (byNature || byKind)?.id ?? STAND_INS[what];
    known.set(what, id);
  }
  return id;
}

const LOST = '~lost ';

/**
 * Where what is never paid stands in a projection, by the account of profit and loss that it is lost on. Whether that account
 * bears it, or what stands against the amounts planned of it, is told by who plans the month.
 */
export const lostOn = (account: AccountId): AccountId => `${LOST}${account}`;

/** The account that something is lost on; null for any other. */
export const lostOf = (account: AccountId): AccountId | null =>
  account.startsWith(LOST) ? account.slice(LOST.length) : null;

/** The bank that pays where none is named: the one the book says, else its first. */
export const payingBank = (said: AccountId | null, accounts: readonly Account[]): AccountId =>
  said ?? accountFor(accounts, 'bank');

/** The account that a credit line is drawn on: the one it says, else by its nature. */
export const lineAccount = (line: Pick<CreditLine, 'account'>, accounts: readonly Account[]): AccountId =>
  line.account ?? accountFor(accounts, 'creditLine');

/** The account that its interest is a cost of: the one it says, else by its nature. */
export const lineInterest = (line: Pick<CreditLine, 'interest'>, accounts: readonly Account[]): AccountId =>
  line.interest ?? accountFor(accounts, 'interest');
