import type { DayNumber } from '@/core/calendar';
import type { AccountId, CashSource } from '@/core/model';
import { payingBank } from '@/core/schedule';
import type { ProjectionInput } from './input';
import type { AccountTable, Postings } from './postings';
import type { TaxReturn } from './tax';

/** Postings of one cause: a line, an open item, a tax, a dated item, a balance without items. */
export type Part = {
  readonly of:
    | 'line'
    | 'pending'
    | 'item'
    | 'order'
    | 'dated'
    | 'tax'
    | 'runOff'
    | 'schedule'
    | 'settled'
    | 'balance'
    | 'underWay'
    | 'moved';
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
  /** Money into the banks by day (index 0 is the day after the start), by source. */
  readonly bySource: Readonly<Record<CashSource, Float64Array>>;
  /** What each account, by its place in the table, moves in each planned period. */
  readonly moved: readonly (Float64Array | undefined)[];
  readonly parts: ReadonlyMap<string, Part>;
  readonly returns: readonly TaxReturn[];
  /** What terms never collected of closed periods, by the account it is lost on and closed period, debits positive. */
  readonly lostBefore: ReadonlyMap<AccountId, readonly number[]>;
  /** What receivables and payables stood at that no item and no terms tell when it comes, by account, debits positive. */
  readonly untold: ReadonlyMap<AccountId, number>;
  /** Counts up with every reckoning that changed anything. */
  readonly version: number;
};

/** The bank that pays by default: the one said, else the first there is. */
export const defaultBank = ({ bank, accounts }: Pick<ProjectionInput, 'bank' | 'accounts'>): AccountId =>
  payingBank(bank, accounts);
