import { toDayNumber, type PeriodRange } from '@/core/calendar';
import { lastKnown, type Ground } from '@/core/ground';
import type { Adjustment, Book, Case } from '@/core/model';
import { unitOf } from '@/core/money';
import { assumedIn, type Assumed, type SizeUnit } from '@/core/scenario';
import type { Ranged } from '@/core/whatif';

/* What questions about cases are asked with. */

/** Between which sizes is sought unless others are said. */
export function usualRange(unit: SizeUnit, ground: Ground, range: PeriodRange): readonly [number, number] {
  const { calendar, book } = ground;
  switch (unit) {
    case 'percent':
      return [-50_000, 50_000];
    case 'money':
    case 'quantity':
      return [-10_000 * unitOf(book.currency), 10_000 * unitOf(book.currency)];
    case 'days':
      return [-30, 90];
    case 'months':
      return [-12, 12];
    case 'count':
      return [0, 1_000];
    case 'payments':
      return [1, 120];
    case 'day': {
      const first = (lastKnown(ground) ?? range.first - 1) + 1;
      return [toDayNumber(calendar.period(first).start), toDayNumber(calendar.period(range.last).end)];
    }
    case 'yes':
      return [0, 1];
  }
}

/** What a case assumes, and an adjustment with a size among it, in the order of the list, though it be off there. */
export function assumedWith(book: Book, one: Case, adjustment: Adjustment, size: number): Assumed {
  const assumed = assumedIn(book, one);
  return book.adjustments.flatMap((a) =>
    a.id === adjustment.id
      ? [{ adjustment: { ...a, off: false }, size }]
      : assumed.filter((x) => x.adjustment.id === a.id),
  );
}

/** What a case assumes, with how low and how high each may come to be. */
export const rangedIn = (book: Pick<Book, 'adjustments'>, one: Case): readonly Ranged[] =>
  assumedIn(book, one).map((a) => {
    const { low, high } = one.sizes[a.adjustment.id]!;
    return { ...a, low, high };
  });
