import {
  hasNature,
  kindsOf,
  type Account,
  type AccountId,
  type AccountKind,
  type Nature,
} from '@/core/model';

/** What a schedule may need an account for. */
export type Purpose = Exclude<Nature, 'salesTax' | 'badDebt' | 'creditLine'>;

/** Purposes that any account of the kind serves where no name tells. */
const ANY: ReadonlySet<Purpose> = new Set(['loan', 'asset', 'gain', 'prepaid', 'deferred', 'equity']);

/** The accounts that may serve a purpose, in use ones only. */
export const accountsFor = (accounts: readonly Account[], purpose: Purpose): readonly Account[] =>
  accounts.filter((a) => a.active && kindsOf(purpose).includes(a.kind));

/** The account that likely serves it; null where none does. */
export function usualAccount(accounts: readonly Account[], purpose: Purpose): AccountId | null {
  const all = accountsFor(accounts, purpose);
  const named = all.find((a) => hasNature(a, purpose));
  const isOther = (a: Account) =>
    a.nature !== undefined || (purpose === 'asset' && hasNature(a, 'accumulated'));
  return (named ?? (ANY.has(purpose) ? all.find((a) => !isOther(a)) : undefined))?.id ?? null;
}

/** The kind that an account added for a purpose has, and what it is called. */
export const NEW_ACCOUNT: Record<Purpose, { readonly name: string; readonly kind: AccountKind }> = {
  wages: { name: 'Wages', kind: 'expense' },
  oncosts: { name: 'Payroll on-costs', kind: 'expense' },
  withheld: { name: 'Withheld from pay', kind: 'otherLiability' },
  loan: { name: 'Loan', kind: 'loan' },
  interest: { name: 'Interest', kind: 'otherExpense' },
  accrued: { name: 'Accrued interest', kind: 'otherLiability' },
  asset: { name: 'Equipment', kind: 'fixedAsset' },
  accumulated: { name: 'Accumulated depreciation', kind: 'fixedAsset' },
  depreciation: { name: 'Depreciation', kind: 'expense' },
  gain: { name: 'Gain on what is sold', kind: 'otherIncome' },
  prepaid: { name: 'Prepaid expenses', kind: 'otherAsset' },
  deferred: { name: 'Received in advance', kind: 'otherLiability' },
  tax: { name: 'Income tax', kind: 'otherExpense' },
  taxOwed: { name: 'Income tax owed', kind: 'taxPayable' },
  equity: { name: 'Paid-in capital', kind: 'equity' },
};
