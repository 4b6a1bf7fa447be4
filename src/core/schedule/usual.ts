import type { Account, AccountId, AccountKind } from '@/core/model';

/** What a schedule may need an account for. */
export type Purpose =
  | 'wages'
  | 'oncosts'
  | 'withheld'
  | 'loan'
  | 'interest'
  | 'accrued'
  | 'asset'
  | 'accumulated'
  | 'depreciation'
  | 'gain'
  | 'prepaid'
  | 'deferred'
  | 'tax'
  | 'taxOwed'
  | 'equity';

/**
 * Kinds of account that serve a purpose, and words in the names of those that usually do (common practice of charts of
 * accounts); what no word names is taken by kind alone where `any` says so.
 */
const USUAL: Record<
  Purpose,
  {
    readonly kinds: readonly AccountKind[];
    readonly words: RegExp;
    readonly any: boolean;
    readonly not?: RegExp;
  }
> = {
  wages: {
    kinds: ['expense', 'costOfSales'],
    words: /wage|salar|payroll(?! tax)|\bpay\b|staff|lohn|gehalt/i,
    not: /on-?cost|tax|training|pension|insurance/i,
    any: false,
  },
  oncosts: {
    kinds: ['expense', 'costOfSales'],
    words: /on-?cost|payroll tax|social|pension|employer|benefit/i,
    any: false,
  },
  withheld: {
    kinds: ['otherLiability', 'taxPayable', 'payable'],
    words: /payroll|withh|wage|paye|social/i,
    any: false,
  },
  loan: { kinds: ['loan'], words: /loan|mortgage|note/i, any: true },
  interest: { kinds: ['otherExpense', 'expense'], words: /interest/i, any: false },
  accrued: { kinds: ['otherLiability', 'payable'], words: /accrued interest|interest payable/i, any: false },
  asset: {
    kinds: ['fixedAsset'],
    words: /equipment|vehicle|machine|boat|building|furniture|plant/i,
    not: /accumulated|depreciation/i,
    any: true,
  },
  accumulated: { kinds: ['fixedAsset'], words: /accumulated|depreciation|amorti[sz]ation/i, any: false },
  depreciation: { kinds: ['expense', 'costOfSales'], words: /depreciation|amorti[sz]ation/i, any: false },
  gain: { kinds: ['otherIncome', 'otherExpense'], words: /gain|disposal|sale of/i, any: true },
  prepaid: { kinds: ['otherAsset'], words: /prepaid|in advance|deferred/i, any: true },
  deferred: { kinds: ['otherLiability'], words: /deferred|in advance|unearned|deposit/i, any: true },
  tax: {
    kinds: ['otherExpense', 'expense'],
    words: /income tax|corporation tax|tax on profit|profit tax/i,
    any: false,
  },
  taxOwed: {
    kinds: ['taxPayable', 'otherLiability'],
    words: /income tax|corporation tax|tax on profit/i,
    any: false,
  },
  equity: { kinds: ['equity'], words: /share|capital|contribution|drawing/i, any: true },
};

/** The accounts that may serve a purpose, in use ones only. */
export const accountsFor = (accounts: readonly Account[], purpose: Purpose): readonly Account[] =>
  accounts.filter((a) => a.active && USUAL[purpose].kinds.includes(a.kind));

/** The account that likely serves it; null where none does. */
export function usualAccount(accounts: readonly Account[], purpose: Purpose): AccountId | null {
  const { words, not, any } = USUAL[purpose];
  const all = accountsFor(accounts, purpose);
  const named = all.find((a) => words.test(a.name) && !not?.test(a.name));
  return (named ?? (any ? all.find((a) => !not?.test(a.name)) : undefined))?.id ?? null;
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
