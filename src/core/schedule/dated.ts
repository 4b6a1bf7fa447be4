import { civilOf, toDayNumber, type DayNumber } from '@/core/calendar';
import type { DatedItem } from '@/core/model';
import { monthDay } from './days';

/** The days of a dated item after a day and up to another. */
export function datesOf(
  { first, repeat }: Pick<DatedItem, 'first' | 'repeat'>,
  after: DayNumber,
  until: DayNumber,
): DayNumber[] {
  const start = toDayNumber(first);
  if (repeat === null) return start > after && start <= until ? [start] : [];
  const last = repeat.until === null ? until : Math.min(until, toDayNumber(repeat.until));
  const { year, month, date } = civilOf(start);
  const out: DayNumber[] = [];
  for (let n = 0; repeat.times === null || n < repeat.times; n++) {
    const day =
      repeat.unit === 'weeks'
        ? start + n * repeat.every * 7
        : // From the first day each time: the 31st comes back after a month that has none.
          monthDay(year, month + n * repeat.every, date);
    if (day > last) break;
    if (day > after) out.push(day);
  }
  return out;
}
