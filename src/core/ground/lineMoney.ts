import { fromDayNumber, type DayNumber, type Period, type PeriodIndex } from '@/core/calendar';
import { moneyOf } from '@/core/cash';
import type { AccountId, SegmentId } from '@/core/model';
import type { Minor } from '@/core/money';
import type { CashView } from './cash';

/** What the money of a line's month does: when how much of it moves. */
export type LineMoney = {
  readonly period: Period;
  readonly planned: Minor;
  /** Days, or where there are many the months that they fall into: the first and last day, and what moves. */
  readonly moves: readonly { readonly from: DayNumber; readonly to: DayNumber; readonly amount: number }[];
};

/** More days than these are told by the month. */
const DAYS = 8;

/**
 * The money of a line in a period; of the first period ahead that has any where none is given. Null where nothing of the line
 * is planned ahead. `segment` undefined: the first segment that has something.
 */
export function lineMoney(
  view: CashView,
  account: AccountId,
  segment: SegmentId | undefined,
  index: PeriodIndex | null,
): LineMoney | null {
  const { periods } = view.input;
  for (const [key, { line }] of view.lines) {
    if (line.account.id !== account || (segment !== undefined && line.segment !== segment)) continue;
    const month =
      index === null ? line.amounts.findIndex((a) => a) : periods.findIndex((p) => p.index === index);
    const planned = line.amounts[month];
    const part = view.projected.parts.get(`line ${key}`);
    if (!planned || !part) continue;
    const causes = moneyOf(view.projected, part).filter((c) => c.month === month);
    const spans = new Map<string, { from: DayNumber; to: DayNumber; amount: number }>();
    const byDay = new Set(causes.map((c) => c.day)).size <= DAYS;
    for (const { day, amount } of causes.toSorted((a, b) => a.day - b.day)) {
      const name = byDay ? String(day) : fromDayNumber(day).slice(0, 7);
      const span = spans.get(name);
      if (!span) spans.set(name, { from: day, to: day, amount });
      else {
        span.to = day;
        span.amount += amount;
      }
    }
    return { period: periods[month]!, planned, moves: [...spans.values()] };
  }
  return null;
}
