import type { AccountKind, Nature } from '@/core/model';

/** What kinds of account are called, wherever one is chosen. */
export const KIND_NAMES: Record<AccountKind, string> = {
  income: 'Income',
  costOfSales: 'Cost of sales',
  expense: 'Expense',
  otherIncome: 'Other income',
  otherExpense: 'Other expense',
  bank: 'Bank',
  receivable: 'Receivable',
  inventory: 'Inventory',
  otherAsset: 'Other asset',
  fixedAsset: 'Fixed asset',
  payable: 'Payable',
  taxPayable: 'Tax payable',
  otherLiability: 'Other liability',
  loan: 'Loan',
  equity: 'Equity',
};

/** What accounts may serve as, wherever it is chosen. */
export const NATURE_NAMES: Record<Nature, string> = {
  wages: 'Pay',
  oncosts: 'On-costs of pay',
  withheld: 'Withheld from pay',
  loan: 'Loan',
  creditLine: 'Credit line',
  interest: 'Interest',
  accrued: 'Interest owed',
  asset: 'Asset in use',
  accumulated: 'Written off so far',
  depreciation: 'Depreciation',
  gain: 'Gain or loss on sales of assets',
  prepaid: 'Paid in advance',
  deferred: 'Received in advance',
  tax: 'Income tax',
  taxOwed: 'Income tax owed',
  salesTax: 'Sales tax',
  badDebt: 'Bad debts',
  equity: 'Owners’ capital',
};
