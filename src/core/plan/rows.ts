import type { PeriodIndex, PeriodRange } from '@/core/calendar';
import {
  accountsOfRow,
  natural,
  profitSign,
  type AccountId,
  type LineRef,
  type ScheduleRow,
  type SegmentId,
} from '@/core/model';
import { minor, plus, ZERO, type Minor } from '@/core/money';
import { daysOf, accountFor, makeRow, type Days, type RowGround, type RowMade } from '@/core/schedule';
import type { Facts } from './facts';
import type { Amounts } from './rule';

/** A schedule's row as it was reckoned: its postings, and what they move on each account and segment by period. */
export type RowResult = RowMade & {
  readonly row: ScheduleRow;
  /** Debit-positive movements of the periods from `first` on. */
  readonly first: PeriodIndex;
  readonly moves: ReadonlyMap<string, readonly number[]>;
};

const moveKey = (account: AccountId, segment: SegmentId): string => `${account}:${segment ?? ''}`;

/** The line that a row's movements are of. */
export function lineOfMove(key: string): LineRef {
  const cut = key.lastIndexOf(':');
  return { account: key.slice(0, cut), segment: key.slice(cut + 1) || null };
}

/** The accounts that a row posts to and a line may follow. */
export function touchedBy(row: ScheduleRow, facts: Facts): ReadonlySet<AccountId> {
  const named = accountsOfRow(row);
  if (row.kind !== 'asset' || !row.sold || row.sold.gain !== null) return named;
  return new Set([...named, accountFor(facts.accounts, 'gain')]);
}

const days = new WeakMap<Facts['workWeek'], Days>();
const daysFor = (week: Facts['workWeek']): Days => {
  let known = days.get(week);
  if (!known) days.set(week, (known = daysOf(week)));
  return known;
};

/** What rows of a budget look at, but for drivers, profit and what is booked. */
export const rowGround = (
  facts: Facts,
  range: PeriodRange,
  asked: Pick<RowGround, 'driver' | 'profit' | 'booked'>,
): RowGround => ({
  calendar: facts.calendar,
  workWeek: facts.workWeek,
  days: daysFor(facts.workWeek),
  range,
  accounts: facts.accounts,
  bank: facts.bank,
  ...asked,
});

/** The periods that rows are reckoned of: the budget's, and those before it that no ledger tells yet. */
export function rowRange({ periods, closedThrough }: Facts): PeriodRange {
  const first = periods[0]!.index;
  return {
    first: closedThrough === null ? first : Math.min(first, closedThrough + 1),
    last: periods.at(-1)!.index,
  };
}

/** Reckons a row. */
export function reckonRow(row: ScheduleRow, ground: RowGround): RowResult {
  const made = makeRow(row, ground);
  const { first, last } = ground.range;
  const moves = new Map<string, number[]>();
  const known = new Map<AccountId, Map<SegmentId, number[]>>();
  const monthsOf = (account: AccountId, segment: SegmentId): number[] => {
    let own = known.get(account);
    if (!own) known.set(account, (own = new Map()));
    let months = own.get(segment);
    if (!months) {
      own.set(segment, (months = new Array<number>(last - first + 1).fill(0)));
      moves.set(moveKey(account, segment), months);
    }
    return months;
  };
  // Postings of one event stand together: its period is looked up once.
  let [day, at] = [NaN, -1];
  for (const { of, account, segment, amount } of made.postings) {
    if (of !== day) [day, at] = [of, ground.calendar.indexOfDay(of) - first];
    if (at < 0 || at > last - first) continue;
    const months = monthsOf(account, segment);
    months[at] = plus(months[at]!, amount);
  }
  return { ...made, row, first, moves };
}

/** What the rows that post to an account come to on it in a segment, in the periods of a budget: amounts of profit and loss, closing balances else. */
export function scheduledAmounts(
  rows: readonly RowResult[],
  facts: Facts,
  account: AccountId,
  segment: SegmentId,
): Amounts {
  const kind = facts.accounts.find((a) => a.id === account)?.kind;
  if (kind === undefined || rows.length === 0) return facts.periods.map(() => null);
  const key = moveKey(account, segment);
  const series = rows.flatMap((r) => {
    const months = r.moves.get(key);
    return months ? [{ months, first: r.first }] : [];
  });
  const movement = (period: PeriodIndex): number => {
    let sum = 0;
    for (const { months, first } of series) sum = plus(sum, months[period - first] ?? 0);
    return sum;
  };
  if (profitSign(kind) !== 0) return facts.periods.map((p) => natural(kind, minor(movement(p.index))));
  const { first } = rowRange(facts);
  let stands = natural(kind, facts.actual(account, segment, first - 1) ?? ZERO) as number;
  for (let p = first; p < facts.periods[0]!.index; p++) stands = plus(stands, movement(p));
  return facts.periods.map((p): Minor => {
    stands = plus(stands, movement(p.index));
    return natural(kind, minor(stands));
  });
}

/** A period's profit before taxes as the ledger has it. */
export function bookedProfit(
  facts: Facts,
  taxes: ReadonlySet<AccountId>,
  period: PeriodIndex,
): number | null {
  if (!facts.has(period)) return null;
  let sum = 0;
  for (const { id, kind } of facts.accounts) {
    const sign = profitSign(kind);
    if (sign !== 0 && !taxes.has(id)) sum = plus(sum, sign * (facts.actual(id, null, period) ?? 0));
  }
  return sum;
}
