import type { Account, AccountId } from '@/core/model';

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
} as const;

/** Whether it is none of a book's accounts. */
export const isStandIn = (account: AccountId): boolean => account.startsWith('~');

const firsts = new WeakMap<readonly Account[], Map<Account['kind'], AccountId>>();

/** The first account of a kind that is in use; a stand-in where the book has none. */
export function firstOf(accounts: readonly Account[], kind: Account['kind'], otherwise: string): AccountId {
  let known = firsts.get(accounts);
  if (!known) {
    firsts.set(accounts, (known = new Map()));
    for (const a of accounts) if (a.active && !known.has(a.kind)) known.set(a.kind, a.id);
  }
  return known.get(kind) ?? otherwise;
}

/** The bank that pays where none is named: the one the book says, else its first. */
export const payingBank = (said: AccountId | null, accounts: readonly Account[]): AccountId =>
  said ?? firstOf(accounts, 'bank', STAND_INS.bank);
