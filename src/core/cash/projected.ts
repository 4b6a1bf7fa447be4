import type { DayNumber } from '@/core/calendar';
import type { Account, AccountId, CashSource } from '@/core/model';
import type { ProjectionInput } from './input';
import type { AccountTable, Postings } from './postings';
import type { TaxReturn } from './tax';

/** Postings of one cause: a line, an open item, a tax, a dated item, a balance without items. */
export type Part = {
  readonly of: 'line' | 'item' | 'order' | 'dated' | 'tax' | 'runOff';
  readonly key: string;
  readonly source: CashSource;
  readonly postings: Postings;
};

export type Projected = {
  readonly start: DayNumber;
  readonly days: number;
  readonly table: AccountTable;
  readonly isBank: (place: number) => boolean;
  /** What the bank accounts hold at the start. */
  readonly opening: number;
  /** Money into the banks by day (index 0 is the day after the start), by source. The same arrays are written on by the next reckoning. */
  readonly bySource: Readonly<Record<CashSource, Float64Array>>;
  readonly parts: ReadonlyMap<string, Part>;
  readonly returns: readonly TaxReturn[];
  /** Counts up with every reckoning that changed anything. */
  readonly version: number;
};

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
} as const;

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

/** The bank that pays by default: the one said, else the first there is. */
export const defaultBank = ({ bank, accounts }: Pick<ProjectionInput, 'bank' | 'accounts'>): AccountId =>
  bank ?? firstOf(accounts, 'bank', STAND_INS.bank);
