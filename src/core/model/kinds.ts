import type { Minor } from '@/core/money';

/** The kinds of account, in the order in which statements list them. */
export const ACCOUNT_KINDS = [
  'income',
  'costOfSales',
  'expense',
  'otherIncome',
  'otherExpense',
  'bank',
  'receivable',
  'inventory',
  'otherAsset',
  'fixedAsset',
  'payable',
  'taxPayable',
  'otherLiability',
  'loan',
  'equity',
] as const;

export type AccountKind = (typeof ACCOUNT_KINDS)[number];

const CREDIT_NATURED: ReadonlySet<AccountKind> = new Set([
  'income',
  'otherIncome',
  'payable',
  'taxPayable',
  'otherLiability',
  'loan',
  'equity',
]);

/** +1 when the account's natural balance is a debit (costs, assets), −1 when it is a credit (income, debts). */
export const naturalSign = (kind: AccountKind): 1 | -1 => (CREDIT_NATURED.has(kind) ? -1 : 1);

/**
 * An amount of an account turned from debit-positive to its natural sign, or back: the same turn both ways. The one place
 * where signs are turned.
 */
export const natural = (kind: AccountKind, amount: Minor): Minor =>
  naturalSign(kind) === 1 || amount === 0 ? amount : (-amount as Minor);

const PROFIT_AND_LOSS: ReadonlySet<AccountKind> = new Set([
  'income',
  'costOfSales',
  'expense',
  'otherIncome',
  'otherExpense',
]);

/** Whether the account belongs to the profit-and-loss statement (and so to a budget of it). */
export const isProfitAndLoss = (kind: AccountKind): boolean => PROFIT_AND_LOSS.has(kind);

/** Whether more of it means more profit: +1 for income kinds, −1 for costs and expenses, 0 off the statement. */
export function profitSign(kind: AccountKind): 1 | 0 | -1 {
  if (!isProfitAndLoss(kind)) return 0;
  return kind === 'income' || kind === 'otherIncome' ? 1 : -1;
}
