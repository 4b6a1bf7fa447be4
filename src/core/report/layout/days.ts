import {
  toDayNumber,
  weekdayOf,
  type DayNumber,
  type FiscalCalendar,
  type PeriodIndex,
} from '@/core/calendar';
import { splitByWeights, type Minor } from '@/core/money';
import { ownersOf, ACTIVITY, type LedgerBlock, type View } from '@/core/ledger';
import type { AccountId, Layout, Line, WorkWeek } from '@/core/model';
import { occurrenceNumbers } from '@/core/schedule';

/**
 * How a month's amount is shared among its days, as parts that add up to it: equal on each day that the company works
 * (every day where it works on none), on every day, or on the line's own days where it has any.
 */
export function daySharing(
  calendar: FiscalCalendar,
  week: WorkWeek,
  days: Layout['days'],
): (period: PeriodIndex, amount: Minor, line: Line | null) => readonly Minor[] {
  const weights = new Map<string, readonly number[]>();
  const holidays = new Set(week.holidays.map(toDayNumber));
  const works = new Set<number>(week.weekdays);
  const ofPeriod = (period: PeriodIndex, by: 'working' | 'calendar'): readonly number[] => {
    const key = `${by}${period}`;
    let list = weights.get(key);
    if (!list) {
      const { start, end } = calendar.period(period);
      const from = toDayNumber(start);
      const all = Array.from({ length: toDayNumber(end) - from + 1 }, (_, i) => from + i);
      list = all.map((d) => Number(by === 'calendar' || (works.has(weekdayOf(d)) && !holidays.has(d))));
      if (list.every((w) => w === 0)) list = all.map(() => 1);
      weights.set(key, list);
    }
    return list;
  };
  return (period, amount, line) => {
    if (days === 'own' && line?.method.kind === 'occurrence') {
      const from = toDayNumber(calendar.period(period).start);
      const own = occurrenceNumbers(calendar.period(period), line.method.on, week);
      if (own.length > 0) {
        const at = ofPeriod(period, 'calendar').map(() => 0);
        for (const d of own) at[d - from] = (at[d - from] ?? 0) + 1;
        return splitByWeights(amount, at);
      }
    }
    return splitByWeights(amount, ofPeriod(period, days === 'calendar' ? 'calendar' : 'working'));
  };
}

/** Activity of accounts by day in a range, debits positive; null of an account without any. */
export function activityByDay(
  blocks: readonly LedgerBlock[],
  view: View,
  first: DayNumber,
  last: DayNumber,
  accounts: ReadonlyMap<AccountId, unknown>,
): (account: AccountId) => Float64Array | null {
  const ids = new Map([...accounts.keys()].map((id) => [id, id] as const));
  const out = new Map<AccountId, Float64Array>();
  for (const block of blocks) {
    const owners = ownersOf(block, view, ids);
    const keeps = view.keep?.(block) ?? null;
    for (let i = 0; i < block.count; i++) {
      const day = block.day[i]!;
      if (day < first || day > last || block.mark[i] !== ACTIVITY || (keeps && !keeps(i))) continue;
      const owner = owners[block.account[i]!];
      if (owner === undefined) continue;
      let days = out.get(owner);
      if (!days) out.set(owner, (days = new Float64Array(last - first + 1)));
      days[day - first]! += block.amount[i]!;
    }
  }
  return (account) => out.get(account) ?? null;
}
