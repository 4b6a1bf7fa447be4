import type { Served } from '@/core/statements';
import type { Ground } from './ground';

/** Accounts whose use the schedules of the book's budgets tell. */
export function servedBy({ book }: Ground): Served {
  const of = {
    interest: new Set<string>(),
    accrued: new Set<string>(),
    tax: new Set<string>(),
    taxOwed: new Set<string>(),
  };
  for (const { schedules } of book.budgets)
    for (const row of schedules) {
      if (row.kind === 'loan') {
        of.interest.add(row.interest);
        if (row.accrued !== null) of.accrued.add(row.accrued);
      }
      if (row.kind === 'incomeTax') {
        of.tax.add(row.account);
        if (row.payable !== null) of.taxOwed.add(row.payable);
      }
    }
  return of;
}
