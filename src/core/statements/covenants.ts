import { divideRounded, minor, plus, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { Covenant } from '@/core/model';
import type { Ratio } from './ratios';

/** Whether a ratio is within a covenant's limit; null where it says nothing. */
export const keepsCovenant = ({ bound, limit }: Covenant, { value }: Pick<Ratio, 'value'>): boolean | null =>
  value === null ? null : bound === 'least' ? value >= limit : value <= limit;

/**
 * By how much what is above the line could fall (of a least) or rise (of a most) before the limit is met; negative where
 * it is broken. Null of ratios that are no single quotient. `days` of the year that the ratio's flows are of.
 */
export function headroomOf({ bound, limit }: Covenant, ratio: Ratio, days: number): Minor | null {
  if (ratio.value === null || ratio.unit === 'money' || ratio.id === 'cashConversion') return null;
  const sum = (parts: Ratio['top']) => parts.reduce((t, p) => plus(t, p.amount ?? 0), 0);
  const scale = ratio.unit === 'days' ? 1000 * days : 1000;
  const at = divideRounded(minor(sum(ratio.bottom)), limit, scale, 'halfAwayFromZero');
  return minor(bound === 'least' ? sum(ratio.top) - at : at - sum(ratio.top));
}

/** How a covenant fares over periods from its first on. */
export type CovenantState = {
  readonly covenant: Covenant;
  /** The first period that breaks it; null where none does. */
  readonly broken: PeriodIndex | null;
  /** The period with the least headroom, and that headroom. */
  readonly tightest: { readonly period: PeriodIndex; readonly room: Minor } | null;
};

export function covenantState(
  covenant: Covenant,
  periods: readonly PeriodIndex[],
  ratioAt: (period: PeriodIndex) => Ratio,
  daysAt: (period: PeriodIndex) => number,
): CovenantState {
  let broken: PeriodIndex | null = null;
  let tightest: CovenantState['tightest'] = null;
  for (const period of periods) {
    const ratio = ratioAt(period);
    if (broken === null && keepsCovenant(covenant, ratio) === false) broken = period;
    const room = headroomOf(covenant, ratio, daysAt(period));
    if (room !== null && (tightest === null || room < tightest.room)) tightest = { period, room };
  }
  return { covenant, broken, tightest };
}
