import { accountsOfTerms, type Book, type Budget } from '@/core/model';

/** The budget that every screen follows, and the checks: the one chosen, else the latest draft, else the latest. */
export function chosenBudget(budgets: readonly Budget[], id: string | null): Budget | null {
  return (
    budgets.find((b) => b.id === id) ?? budgets.findLast((b) => b.state === 'draft') ?? budgets.at(-1) ?? null
  );
}

/** The terms of a budget that a new one starts from, of its own segments or of all; where it has none, the last that were said. */
export function termsFrom(
  { budgets, accounts }: Pick<Book, 'budgets' | 'accounts'>,
  other: Budget | null,
  segments: Budget['segments'],
): Budget['terms'] {
  const terms =
    other && other.terms.length > 0
      ? lastTerms({ budgets: [other], accounts })
      : lastTerms({ budgets, accounts });
  return terms.filter((t) => t.segment === undefined || segments.includes(t.segment));
}

/** The terms that the last budget with any has, as far as the book still has their accounts: what a new one begins with. */
export function lastTerms({ budgets, accounts }: Pick<Book, 'budgets' | 'accounts'>): Budget['terms'] {
  const known = new Set(accounts.map((a) => a.id));
  const last = budgets.findLast((b) => b.terms.length > 0);
  return (last?.terms ?? []).filter((t) => [...accountsOfTerms(t)].every((a) => known.has(a)));
}
