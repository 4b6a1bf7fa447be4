import { ZERO, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { AccountId, SegmentId } from '@/core/model';
import type { Facts } from './facts';

/** What is planned of an account in a period, and whether it has a line at all. */
export type Planned = { readonly amount: Minor | null; readonly line: boolean };

/**
 * The outlook of an account in a period, natural: its actual where there are actuals, what is planned where there are none.
 * A month with actuals in which the account is silent came to nothing, if it has a line or a past; of one that has
 * neither nothing is known. The one opinion of methods, quiet rows, the year before and the variance.
 */
export function outlookOf(
  facts: Facts,
  account: AccountId,
  segment: SegmentId,
  period: PeriodIndex,
  planned: Planned,
): Minor | null {
  if (!facts.isActual(period)) return planned.amount;
  const actual = facts.actual(account, segment, period);
  return actual ?? (planned.line || facts.hasPast(account, segment) ? ZERO : null);
}
