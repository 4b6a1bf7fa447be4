import { indexOfId, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import type { When } from '@/core/model';

/**
 * For the how many-th time an adjustment comes in a period, from 1; 0 where it does not. The count goes from its first period,
 * whatever has closed since. Of `stays`: after its last time it goes on as often as it came.
 */
export function timesIn(
  calendar: FiscalCalendar,
  { from, until, every, times }: When,
  stays = false,
): (period: PeriodIndex) => number {
  const first = indexOfId(calendar, from);
  const end = until === null ? Infinity : (indexOfId(calendar, until) ?? Infinity);
  if (first === null) return () => 0;
  const most = Math.min(times ?? Infinity, end < first ? 0 : Math.floor((end - first) / every) + 1);
  return (period) => {
    if (period < first) return 0;
    const k = Math.floor((period - first) / every) + 1;
    if (stays) return Math.min(k, most);
    return (period - first) % every === 0 && k <= most ? k : 0;
  };
}

/** The periods of a range in which it comes. */
export function periodsOfWhen(
  calendar: FiscalCalendar,
  when: When,
  { first, last }: { readonly first: PeriodIndex; readonly last: PeriodIndex },
): PeriodIndex[] {
  const times = timesIn(calendar, when);
  const out: PeriodIndex[] = [];
  for (let p = first; p <= last; p++) if (times(p) > 0) out.push(p);
  return out;
}
