import { divideRounded, minor, plus, type Minor } from '@/core/money';
import type { FiscalCalendar, PeriodIndex } from '@/core/calendar';
import type { Covenant } from '@/core/model';
import type { OwnRatioValue } from './ownRatio';
import type { Ratio } from './ratios';

/** A ratio in a period, whoever made it: its value, and the quotient that it is, where it is one. */
export type Measure = {
  /** In thousandths: of one, of a day; of money in minor units. Null where it says nothing. */
  readonly value: number | null;
  readonly unit: Ratio['unit'];
  /** What is above the line and below it, in minor units, and how many of the ratio's whole numbers one of it is. */
  readonly parts: { readonly top: number; readonly bottom: number; readonly scale: number } | null;
};

const sumOf = (parts: Ratio['top']): number => parts.reduce((t, p) => plus(t, p.amount ?? 0), 0);

/** A ratio of the trade; `days` of the year that its flows are of. */
export const measureOf = (ratio: Ratio, days: number): Measure => ({
  value: ratio.value,
  unit: ratio.unit,
  parts:
    ratio.value === null || ratio.unit === 'money' || ratio.id === 'cashConversion'
      ? null
      : {
          top: sumOf(ratio.top),
          bottom: sumOf(ratio.bottom),
          scale: ratio.unit === 'days' ? 1000 * days : 1000,
        },
});

/** A ratio of the book's own. */
export const ownMeasure = ({ value, parts }: OwnRatioValue, unit: Ratio['unit']): Measure => ({
  value,
  unit,
  parts: value === null || unit === 'money' ? null : parts && { ...parts, scale: 1000 },
});

/** Whether a ratio is within a covenant's limit; null where it says nothing. */
export const keepsCovenant = (
  { bound, limit }: Pick<Covenant, 'bound' | 'limit'>,
  { value }: Pick<Measure, 'value'>,
): boolean | null => (value === null ? null : bound === 'least' ? value >= limit : value <= limit);

/**
 * By how much what is above the line (of an amount, the amount itself) could fall (of a least) or rise (of a most) before
 * the limit is met; negative where it is broken. Null of ratios that are no single quotient.
 */
export function headroomOf(
  { bound, limit }: Pick<Covenant, 'bound' | 'limit'>,
  { value, unit, parts }: Measure,
): Minor | null {
  if (value === null || (unit !== 'money' && parts === null)) return null;
  const [top, at] = parts
    ? [parts.top, divideRounded(minor(parts.bottom), limit, parts.scale, 'halfAwayFromZero')]
    : [value, limit];
  return minor(bound === 'least' ? top - at : at - top);
}

/** Whether a covenant is looked at at the end of a period: of any, or of the last of a quarter or fiscal year. */
export function isTested(
  { tested }: Pick<Covenant, 'tested'>,
  calendar: FiscalCalendar,
  period: PeriodIndex,
) {
  if (tested === 'period') return true;
  const [own, next] = [calendar.period(period), calendar.period(period + 1)];
  return own.year !== next.year || (tested === 'quarter' && own.quarter !== next.quarter);
}

/** How a covenant fares over periods from its first on. */
export type CovenantState = {
  readonly covenant: Covenant;
  /** How many periods it is looked at in, and those of them of which its ratio is not known. */
  readonly tested: number;
  readonly unknown: readonly PeriodIndex[];
  /** The first period that breaks it; null where none does, as far as its ratio is known. */
  readonly broken: PeriodIndex | null;
  /** The period with the least headroom, and that headroom. */
  readonly tightest: { readonly period: PeriodIndex; readonly room: Minor } | null;
};

export function covenantState(
  covenant: Covenant,
  periods: readonly PeriodIndex[],
  measureAt: (period: PeriodIndex) => Measure,
): CovenantState {
  let broken: PeriodIndex | null = null;
  let tightest: CovenantState['tightest'] = null;
  const unknown: PeriodIndex[] = [];
  for (const period of periods) {
    const measure = measureAt(period);
    const keeps = keepsCovenant(covenant, measure);
    if (keeps === null) unknown.push(period);
    if (broken === null && keeps === false) broken = period;
    const room = headroomOf(covenant, measure);
    if (room !== null && (tightest === null || room < tightest.room)) tightest = { period, room };
  }
  return { covenant, tested: periods.length, unknown, broken, tightest };
}
