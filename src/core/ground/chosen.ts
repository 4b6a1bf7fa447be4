import { isInForce } from './comparison';
import { accountsOfTerms, type Book, type Budget } from '@/core/model';

/** The budget to show: the one chosen, else the latest draft, else the latest. */
export function chosenBudget(budgets: readonly Budget[], id: string | null): Budget | null {
  return (
    budgets.find((b) => b.id === id) ?? budgets.findLast((b) => b.state === 'draft') ?? budgets.at(-1) ?? null
  );
}

/** The budget that a company goes by: the last in force; where none is, the one chosen. */
export const leadingBudget = (budgets: readonly Budget[], id: string | null): Budget | null =>
  chosenBudget(budgets.filter(isInForce), null) ?? chosenBudget(budgets, id);

/** The terms that the last budget with any has, as far as the book still has their accounts: what a new one begins with. */
export function lastTerms({ budgets, accounts }: Pick<Book, 'budgets' | 'accounts'>): Budget['terms'] {
  const known = new Set(accounts.map((a) => a.id));
  const last = budgets.findLast((b) => b.terms.length > 0);
  return (last?.terms ?? []).filter((t) => [...accountsOfTerms(t)].every((a) => known.has(a)));
}
