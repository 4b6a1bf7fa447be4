import { divideRounded, ZERO, type Minor } from '@/core/money';

/** How much of an amount is used, in tenths of a percent of its size; null of nothing. */
export const usedPerMille = (amount: Minor | null, of: Minor): number | null =>
  of === 0 ? null : divideRounded(amount ?? ZERO, 1000, of, 'halfAwayFromZero');
