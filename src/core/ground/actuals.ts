import type { PeriodIndex } from '@/core/calendar';
import { sumBlank, type Minor } from '@/core/money';
import { isProfitAndLoss, natural, type Account, type SegmentId } from '@/core/model';
import { segmentLedgers, type Ground } from './ground';
import { reclassifiedOf } from './reclassified';

/** Actuals of the company or one of its segments, natural: a month's amount, or what a balance account stands at. */
export type Actuals = {
  /** As the ledger has them; null where it is silent. */
  readonly ledger: (account: Account, period: PeriodIndex) => Minor | null;
  /** What of them belongs elsewhere, or came from elsewhere; null for nothing. */
  readonly moved: (account: Account, period: PeriodIndex) => Minor | null;
  /** With wrong entries where they belong: what is compared. */
  readonly shown: (account: Account, period: PeriodIndex) => Minor | null;
};

/** Actuals of the whole company, or of one value of an axis (null among them is the unassigned). */
export function actualsOf(ground: Ground, axisId: string | null, segment: SegmentId | 'all'): Actuals {
  const whole = axisId === null || segment === 'all';
  const ledger = whole ? ground.balances : segmentLedgers(ground, axisId)(segment);
  const { range } = ground.balances;
  const wrong = reclassifiedOf(ground, axisId, segment);
  const inLedger = (account: Account, period: PeriodIndex): Minor | null => {
    if (isProfitAndLoss(account.kind)) {
      const movement = ledger.movement(account.id, period);
      return movement === null ? null : natural(account.kind, movement);
    }
    // The company's range: what a segment stands at does not end with its last entry.
    if (!range || period < range.first || period > range.last) return null;
    return natural(account.kind, ledger.balance(account.id, period, true));
  };
  const moved = (account: Account, period: PeriodIndex): Minor | null => {
    if (wrong.entries.length === 0) return null;
    const of = isProfitAndLoss(account.kind) ? wrong.movement : wrong.balance;
    const amount = of(account.id, period);
    return amount === 0 ? null : natural(account.kind, amount);
  };
  return {
    ledger: inLedger,
    moved,
    shown: (account, period) => sumBlank([inLedger(account, period), moved(account, period)]),
  };
}
