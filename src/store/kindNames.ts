import type { AccountKind } from '@/core/model';

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
