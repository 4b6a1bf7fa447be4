import { toDayNumber, weekdayOf, type DayNumber, type Period } from '@/core/calendar';
import type { DayRange } from './forecast';

/** The periods of a calendar as ranges of days. */
export const byPeriods = (periods: readonly Period[]): DayRange[] =>
  periods.map((p) => ({ from: toDayNumber(p.start), to: toDayNumber(p.end) }));

/** So many weeks, from Monday to Sunday (ISO 8601), from a day on; the first is what is left of its week. */
export function byWeeks(from: DayNumber, count: number): DayRange[] {
  const out: DayRange[] = [];
  for (let at = from; out.length < count;) {
    const to = at + 7 - weekdayOf(at);
    out.push({ from: at, to });
    at = to + 1;
  }
  return out;
}

/** So many weeks of seven whole days, the first from a day on. */
export const byWholeWeeks = (from: DayNumber, count: number): DayRange[] =>
  Array.from({ length: count }, (_, i) => ({ from: from + 7 * i, to: from + 7 * i + 6 }));

export const byDays = (from: DayNumber, count: number): DayRange[] =>
  Array.from({ length: count }, (_, i) => ({ from: from + i, to: from + i }));
