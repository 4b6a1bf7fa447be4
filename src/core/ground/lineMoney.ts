import { fromDayNumber, type DayNumber, type Period, type PeriodIndex } from '@/core/calendar';
import { moneyOf, type Part } from '@/core/cash';
import { naturalSign, type AccountId, type SegmentId } from '@/core/model';
import { minor, plus, type Minor } from '@/core/money';
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
 * is planned ahead. `segment` undefined: the first segment that has something. Of a line that schedules make it is the money
 * of their rows, whatever else these pay with it.
 */
export function lineMoney(
  view: CashView,
  account: AccountId,
  segment: SegmentId | undefined,
  index: PeriodIndex | null,
): LineMoney | null {
  const { periods } = view.input;
  const months = index === null ? periods.map((_, i) => i) : [periods.findIndex((p) => p.index === index)];
  const lines = [...view.lines].filter(
    ([, { line }]) => line.account.id === account && (segment === undefined || line.segment === segment),
  );
  for (const month of months) {
    const parts: Part[] = [];
    let planned = 0;
    for (const [key, { line }] of lines) {
      const part = view.projected.parts.get(`line ${key}`);
      if (!line.amounts[month] || !part) continue;
      planned = plus(planned, line.amounts[month]);
      parts.push(part);
      // Of several segments the first that has something.
      if (segment === undefined) break;
    }
    for (const part of view.projected.parts.values()) {
      if (part.of !== 'schedule' || month < 0) continue;
      const own = postedOn(view, part, account, month);
      if (own === 0) continue;
      planned = plus(planned, own);
      parts.push(part);
    }
    if (parts.length > 0)
      return { period: periods[month]!, planned: minor(planned), moves: movesOf(view, parts, month) };
  }
  return null;
}

/** What a part posts to an account for a month, natural. */
function postedOn(view: CashView, { postings }: Part, account: AccountId, month: number): number {
  const place = view.projected.table.ids.indexOf(account);
  const kind = view.input.accounts.find((a) => a.id === account)?.kind;
  const { columns, first, count } = postings;
  let sum = 0;
  for (let i = first; i < first + count; i++)
    if (columns.account[i] === place && columns.month[i] === month) sum = plus(sum, columns.amount[i]!);
  return kind === undefined ? 0 : naturalSign(kind) * sum || 0;
}

function movesOf(view: CashView, parts: readonly Part[], month: number): LineMoney['moves'] {
  const causes = parts.flatMap((part) => moneyOf(view.projected, part)).filter((c) => c.month === month);
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
  return [...spans.values()];
}
