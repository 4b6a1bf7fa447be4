import { minor, sumBlank, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { AccountId, SegmentId } from '@/core/model';
import { outlookOf } from '@/core/plan';
import { expectedIn } from './expected';
import type { Reckoned } from './reckoned';

/** What a budget plans of an account in a period, and whether it has a line of it: null outside of its periods. */
export function plannedAt(
  { amounts, facts }: Reckoned,
  account: AccountId,
  segment: SegmentId | 'all',
  period: PeriodIndex,
): { readonly amount: Minor | null; readonly line: boolean } {
  const months = amounts(account, segment);
  return { amount: months?.[period - facts.periods[0]!.index] ?? null, line: months !== null };
}

/**
 * The outlook of an account over segments of a budget, in one period: its actual; else what it is expected to come to where
 * someone said so; else its plan, with what explained variances bring back or go on with.
 */
export function outlookAt(
  whole: Reckoned,
  account: AccountId,
  segments: readonly SegmentId[],
  period: PeriodIndex,
): Minor | null {
  const { facts } = whole;
  const plain = sumBlank(
    segments.map((s) => outlookOf(facts, account, s, period, plannedAt(whole, account, s, period))),
  );
  return facts.isActual(period) ? plain : comingAt(whole, account, segments, period, plain);
}

/** What an account comes to over segments in a month that is to come, given what is planned of it. */
export function comingAt(
  whole: Reckoned,
  account: AccountId,
  segments: readonly SegmentId[],
  period: PeriodIndex,
  planned: Minor | null,
): Minor | null {
  const now = withShift(planned, whole.shift(account, segments, period));
  const way = whole.way(account);
  const expected = way && expectedIn(whole.facts, account, way, period);
  if (expected !== null) return expected;
  const carried = whole.carried(account, period);
  return carried === 0 ? now : sumBlank([now, carried]);
}

/** What is planned, with what money ahead makes of it beyond that today. */
const withShift = (planned: Minor | null, shift: number): Minor | null =>
  shift === 0 ? planned : sumBlank([planned, minor(shift)]);

/** The same in every period of the budget. */
export const outlookMonths = (
  whole: Reckoned,
  account: AccountId,
  segments: readonly SegmentId[],
): (Minor | null)[] => whole.facts.periods.map((p) => outlookAt(whole, account, segments, p.index));
