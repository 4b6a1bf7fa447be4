import { divideRounded, sum, type Minor } from '@/core/money';
import { yearsBefore, type PeriodIndex } from '@/core/calendar';
import type { AccountId, Rest, SegmentId } from '@/core/model';
import type { Facts } from './facts';

/** A month of an earlier year as a basis: the ledger's, or what stands in for one that is not there yet. */
export type Before =
  | { readonly of: 'actual'; readonly period: PeriodIndex; readonly value: Minor | null }
  | { readonly of: 'average'; readonly months: number; readonly value: Minor | null };

/** Years to look back for a month that has actuals. */
const FARTHEST = 10;

/**
 * An account's month of an earlier year. A budget is often begun before that year is over: a month that has no actuals yet
 * is then what `rest` says, the same month of the latest year that has it or the average month; without `rest` it is
 * whatever the ledger has of it.
 */
export function beforeOf(
  facts: Facts,
  account: AccountId,
  segment: SegmentId,
  period: PeriodIndex,
  rest: Rest | undefined,
): Before {
  if (rest === undefined || facts.isActual(period))
    return { of: 'actual', period, value: facts.actual(account, segment, period) };
  if (rest === 'average') {
    const { known } = facts.past(account, segment);
    const value = known.length === 0 ? null : divideRounded(sum(known), 1, known.length, 'halfAwayFromZero');
    return { of: 'average', months: known.length, value };
  }
  for (let years = 1; years <= FARTHEST; years++) {
    const earlier = yearsBefore(facts.calendar, period, years);
    if (earlier !== null && facts.isActual(earlier))
      return { of: 'actual', period: earlier, value: facts.actual(account, segment, earlier) };
  }
  return { of: 'actual', period, value: null };
}

/** The months of a budget whose counterparts a year before it have no actuals yet: what a start has to fill. */
export const monthsMissing = ({ periods, calendar, isActual }: Facts): PeriodIndex[] =>
  periods.flatMap((p) => {
    const before = yearsBefore(calendar, p.index);
    return before !== null && before < periods[0]!.index && !isActual(before) ? [before] : [];
  });
