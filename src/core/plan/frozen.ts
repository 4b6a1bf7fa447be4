import type { AccountId, Budget } from '@/core/model';
import type { Amounts } from './methods';
import type { Reckoning } from './reckon';

/** A budget's amounts of an account: as frozen when it is approved, as reckoned now while it is a draft. */
export function amountsOf(budget: Budget, reckoning: Reckoning, account: AccountId): Amounts | null {
  if (budget.approved) return budget.approved.amounts[account] ?? null;
  return reckoning.lines.get(account)?.amounts ?? null;
}
