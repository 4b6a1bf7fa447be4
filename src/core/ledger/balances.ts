import { sum, plus, minor, ZERO, type Minor } from '@/core/money';
import {
  fromDayNumber,
  toDayNumber,
  type FiscalCalendar,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import type { Account, AccountId } from '@/core/model';
import { natural } from '@/core/model';
import { ACTIVITY, CLOSING, entryAt, OPENING, type Entry, type LedgerBlock } from './block';

/** Which entries count, and which account an entry's account has become. */
export type View = {
  /** Accounts that were merged into others. */
  readonly merged: ReadonlyMap<AccountId, AccountId>;
  /** Tells for a block which of its entries are looked at; null for all. */
  readonly keep: ((block: LedgerBlock) => ((i: number) => boolean) | null) | null;
};

/** Whose entries a block has, by their places in it: what was merged is the account that it was merged into. */
export const ownersOf = <T>(
  { accounts }: LedgerBlock,
  { merged }: View,
  byId: ReadonlyMap<AccountId, T>,
): (T | undefined)[] => accounts.map((a) => byId.get(merged.get(a) ?? a));

const WHOLE: View = { merged: new Map(), keep: null };

/** Movements and balances by account and period, debits positive. Openings and closings are never movements. */
export type Balances = {
  /** Activity of an account in a period, debits positive; null when the ledger says nothing of it. */
  readonly movement: (account: AccountId, period: PeriodIndex) => Minor | null;
  /** Year-end closing entries of an account in a period, debits positive. */
  readonly closing: (account: AccountId, period: PeriodIndex) => Minor;
  /** What the account stood at before its first activity. */
  readonly opening: (account: AccountId) => Minor;
  /** Opening and all activity up to the end of a period; with `closings`, year-end closings too. Debits positive. */
  readonly balance: (account: AccountId, period: PeriodIndex, closings: boolean) => Minor;
  /** First and last period with activity; null for an empty ledger. */
  readonly range: PeriodRange | null;
  /** Whether any account has activity in the period. */
  readonly has: (period: PeriodIndex) => boolean;
  /** Whether an account has any activity at all. */
  readonly active: (account: AccountId) => boolean;
  /** Entries that are activity. */
  readonly entries: number;
};

const EMPTY: Balances = {
  movement: () => null,
  closing: () => ZERO,
  opening: () => ZERO,
  balance: () => ZERO,
  range: null,
  has: () => false,
  active: () => false,
  entries: 0,
};

/**
 * Adds up the entries of the blocks by account and period: one pass over the columns. When several sources state an
 * account's opening balance, only those of the earliest day count; the later ones repeat what activity has reached.
 */
export function balancesOf(
  blocks: readonly LedgerBlock[],
  calendar: FiscalCalendar,
  view: View = WHOLE,
): Balances {
  const span = daySpan(blocks);
  if (!span) return EMPTY;
  const { low, high } = span;
  const first = calendar.indexOfDay(low);
  const width = calendar.indexOfDay(high) - first + 1;
  // One look-up table for all days of the ledger, so that no entry pays for calendar arithmetic.
  const placeOfDay = new Int32Array(high - low + 1);
  for (let d = low; d <= high; d++) placeOfDay[d - low] = calendar.indexOfDay(d) - first;

  const rowOf = new Map<AccountId, number>();
  const owner = (id: AccountId) => view.merged.get(id) ?? id;
  for (const b of blocks)
    for (const a of b.accounts) if (!rowOf.has(owner(a))) rowOf.set(owner(a), rowOf.size);
  const size = rowOf.size * width;
  const sums = new Float64Array(size);
  const counts = new Int32Array(size);
  const closings = new Float64Array(size);
  const inPeriod = new Int32Array(width);
  const inRow = new Int32Array(rowOf.size);
  const openings = new Map<number, { day: number; sum: number }>();
  let entries = 0;
  for (const b of blocks) {
    const rows = Int32Array.from(b.accounts, (a) => rowOf.get(owner(a))!);
    const keeps = view.keep?.(b) ?? null;
    for (let i = 0; i < b.count; i++) {
      if (keeps && !keeps(i)) continue;
      const row = rows[b.account[i]!]!;
      const mark = b.mark[i]!;
      if (mark === OPENING) {
        const day = b.day[i]!;
        const o = openings.get(row);
        if (!o || day < o.day) openings.set(row, { day, sum: b.amount[i]! });
        else if (day === o.day) o.sum = plus(o.sum, b.amount[i]!);
        continue;
      }
      const period = placeOfDay[b.day[i]! - low]!;
      const at = row * width + period;
      if (mark === CLOSING) {
        closings[at] = plus(closings[at]!, b.amount[i]!);
        continue;
      }
      sums[at] = plus(sums[at]!, b.amount[i]!);
      counts[at]! += 1;
      inPeriod[period]! += 1;
      inRow[row]! += 1;
      entries++;
    }
  }
  const cell = (account: AccountId, period: PeriodIndex): number => {
    const row = rowOf.get(account);
    const p = period - first;
    return row === undefined || p < 0 || p >= width ? -1 : row * width + p;
  };
  const opening = (account: AccountId) => minor(openings.get(rowOf.get(account) ?? -1)?.sum ?? 0);
  return {
    movement(account, period) {
      const at = cell(account, period);
      return at < 0 || counts[at] === 0 ? null : minor(sums[at]!);
    },
    closing(account, period) {
      const at = cell(account, period);
      return at < 0 ? ZERO : minor(closings[at]!);
    },
    opening,
    balance(account, period, withClosings) {
      const row = rowOf.get(account);
      let total: number = opening(account);
      if (row === undefined) return ZERO;
      for (let p = 0; p < width && p <= period - first; p++) {
        total = plus(total, sums[row * width + p]!);
        if (withClosings) total = plus(total, closings[row * width + p]!);
      }
      return minor(total);
    },
    range: activeRange(inPeriod, first),
    has: (period) => (inPeriod[period - first] ?? 0) > 0,
    active: (account) => (inRow[rowOf.get(account) ?? -1] ?? 0) > 0,
    entries,
  };
}

/** First and last day of any entry; null where there is none. */
export function daySpan(blocks: readonly LedgerBlock[]): { low: number; high: number } | null {
  let low = Infinity;
  let high = -Infinity;
  for (const { day, count } of blocks) {
    for (let i = 0; i < count; i++) {
      const d = day[i]!;
      if (d < low) low = d;
      if (d > high) high = d;
    }
  }
  return low <= high ? { low, high } : null;
}

function activeRange(inPeriod: Int32Array, first: PeriodIndex): PeriodRange | null {
  const from = inPeriod.findIndex((n) => n > 0);
  return from < 0 ? null : { first: first + from, last: first + inPeriod.findLastIndex((n) => n > 0) };
}

/** An account's actual in its natural sign (income and costs both positive); null when the ledger is silent. */
export function actualOf(balances: Balances, account: Account, period: PeriodIndex): Minor | null {
  const movement = balances.movement(account.id, period);
  return movement === null ? null : natural(account.kind, movement);
}

/** The entries of an account in a range of periods, by day then row: what an amount is made of. */
export function entriesOf(
  blocks: readonly LedgerBlock[],
  calendar: FiscalCalendar,
  account: AccountId,
  range: PeriodRange,
  view: View = WHOLE,
): Entry[] {
  const from = toDayNumber(calendar.period(range.first).start);
  const to = toDayNumber(calendar.period(range.last).end);
  const out: Entry[] = [];
  for (const block of blocks) {
    const places = new Set(
      block.accounts.flatMap((a, i) => ((view.merged.get(a) ?? a) === account ? [i] : [])),
    );
    if (places.size === 0) continue;
    const only = places.size === 1 ? [...places][0]! : -1;
    const keeps = view.keep?.(block) ?? null;
    for (let i = 0; i < block.count; i++) {
      const place = block.account[i]!;
      if (only >= 0 ? place !== only : !places.has(place)) continue;
      const day = block.day[i]!;
      if (day >= from && day <= to && (!keeps || keeps(i))) out.push(entryAt(block, i));
    }
  }
  return out.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.row - b.row));
}

export type BlockTotals = {
  readonly debit: Minor;
  readonly credit: Minor;
  readonly firstDay: string;
  readonly lastDay: string;
  /** Entries by mark. */
  readonly activity: number;
  readonly openings: number;
  readonly closings: number;
};

/** Total debits and credits (both positive) and the days covered: openings and closings aside, unless there is nothing else. Null for an empty block. */
export function totalsOf(block: LedgerBlock): BlockTotals | null {
  if (block.count === 0) return null;
  const byMark = [0, 0, 0];
  let debit = 0;
  let credit = 0;
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < block.count; i++) {
    const a = block.amount[i]!;
    if (a > 0) debit = plus(debit, a);
    else credit = plus(credit, -a);
    const mark = block.mark[i]!;
    byMark[mark]!++;
    // What closes the year before a first trial balance is dated in it, and covers none of its days.
    if (mark !== ACTIVITY) continue;
    const day = block.day[i]!;
    if (day < low) low = day;
    if (day > high) high = day;
  }
  // Nothing but openings and closings: then they are what the source covers.
  if (low > high) {
    low = block.day.reduce((x, d) => Math.min(x, d), Infinity);
    high = block.day.reduce((x, d) => Math.max(x, d), -Infinity);
  }
  return {
    debit: minor(debit),
    credit: minor(credit),
    firstDay: fromDayNumber(low),
    lastDay: fromDayNumber(high),
    activity: byMark[ACTIVITY]!,
    openings: byMark[OPENING]!,
    closings: byMark[CLOSING]!,
  };
}

/**
 * What debits of a source exceed its credits by: of entries without balances brought forward, which stand apart; of trial
 * balances with all they say; months across have no sides.
 */
export function sidesOff(
  { amount, mark, count }: LedgerBlock,
  shape: 'entries' | 'balances' | 'months',
): Minor {
  let off = 0;
  if (shape === 'months') return ZERO;
  for (let i = 0; i < count; i++)
    if (shape === 'balances' || mark[i] !== OPENING) off = plus(off, amount[i]!);
  return minor(off);
}

/** Sum of entries' amounts, debits positive. */
export const sumEntries = (entries: readonly Entry[]): Minor => sum(entries.map((e) => e.amount));
