import { minor, ZERO, type Minor } from '@/core/money';
import { fromDayNumber, type FiscalCalendar, type PeriodIndex, type PeriodRange } from '@/core/calendar';
import type { Account, AccountId } from '@/core/model';
import { naturalSign } from '@/core/model';
import { entryAt, type Entry, type LedgerBlock } from './block';

/** Movements by account and period, debits positive, with the periods that have any entry at all. */
export type Balances = {
  /** Movement of an account in a period, debits positive; null when the ledger says nothing of it. */
  readonly movement: (account: AccountId, period: PeriodIndex) => Minor | null;
  /** First and last period with entries; null for an empty ledger. */
  readonly range: PeriodRange | null;
  /** Whether any account has an entry in the period. */
  readonly has: (period: PeriodIndex) => boolean;
  readonly entries: number;
};

/** Adds up all entries of the blocks by account and period: one pass over the columns. */
export function balancesOf(blocks: readonly LedgerBlock[], calendar: FiscalCalendar): Balances {
  let low = Infinity;
  let high = -Infinity;
  for (const { day } of blocks) {
    for (let i = 0; i < day.length; i++) {
      const d = day[i]!;
      if (d < low) low = d;
      if (d > high) high = d;
    }
  }
  const entries = blocks.reduce((n, b) => n + b.count, 0);
  if (entries === 0) return { movement: () => null, range: null, has: () => false, entries };

  const first = calendar.indexOfDay(low);
  const last = calendar.indexOfDay(high);
  const width = last - first + 1;
  // One look-up table for all days of the ledger, so that no entry pays for calendar arithmetic.
  const placeOfDay = new Int32Array(high - low + 1);
  for (let d = low; d <= high; d++) placeOfDay[d - low] = calendar.indexOfDay(d) - first;

  const rowOf = new Map<AccountId, number>();
  for (const b of blocks) for (const a of b.accounts) if (!rowOf.has(a)) rowOf.set(a, rowOf.size);
  const sums = new Float64Array(rowOf.size * width);
  const counts = new Int32Array(rowOf.size * width);
  const inPeriod = new Int32Array(width);
  for (const b of blocks) {
    const rows = Int32Array.from(b.accounts, (a) => rowOf.get(a)! * width);
    for (let i = 0; i < b.count; i++) {
      const period = placeOfDay[b.day[i]! - low]!;
      const at = rows[b.account[i]!]! + period;
      sums[at]! += b.amount[i]!;
      counts[at]! += 1;
      inPeriod[period]! += 1;
    }
  }
  const inside = (p: PeriodIndex) => p >= first && p <= last;
  return {
    movement(account, period) {
      const row = rowOf.get(account);
      if (row === undefined || !inside(period)) return null;
      const at = row * width + period - first;
      return counts[at] === 0 ? null : minor(sums[at]!);
    },
    range: { first, last },
    has: (period) => inside(period) && inPeriod[period - first]! > 0,
    entries,
  };
}

/** An account's actual in its natural sign (income and costs both positive); null when the ledger is silent. */
export function actualOf(balances: Balances, account: Account, period: PeriodIndex): Minor | null {
  const movement = balances.movement(account.id, period);
  return movement === null ? null : naturalSign(account.kind) === 1 ? movement : minor(-movement);
}

/** The entries of an account in a range of periods, by day then row: what an amount is made of. */
export function entriesOf(
  blocks: readonly LedgerBlock[],
  calendar: FiscalCalendar,
  account: AccountId,
  range: PeriodRange,
): Entry[] {
  const out: Entry[] = [];
  for (const block of blocks) {
    const place = block.accounts.indexOf(account);
    if (place < 0) continue;
    for (let i = 0; i < block.count; i++) {
      if (block.account[i] !== place) continue;
      const period = calendar.indexOfDay(block.day[i]!);
      if (period >= range.first && period <= range.last) out.push(entryAt(block, i));
    }
  }
  return out.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.row - b.row));
}

/** Total debits, total credits (both positive) and the days covered by a block. Null for an empty one. */
export function totalsOf(
  block: LedgerBlock,
): { debit: Minor; credit: Minor; firstDay: string; lastDay: string } | null {
  if (block.count === 0) return null;
  let debit = 0;
  let credit = 0;
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < block.count; i++) {
    const a = block.amount[i]!;
    if (a > 0) debit += a;
    else credit -= a;
    low = Math.min(low, block.day[i]!);
    high = Math.max(high, block.day[i]!);
  }
  return {
    debit: minor(debit),
    credit: minor(credit),
    firstDay: fromDayNumber(low),
    lastDay: fromDayNumber(high),
  };
}

/** Sum of entries' amounts, debits positive. */
export const sumEntries = (entries: readonly Entry[]): Minor =>
  entries.reduce<Minor>((t, e) => minor(t + e.amount), ZERO);
