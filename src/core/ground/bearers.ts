import type { AccountId, Book, Budget, Terms } from '@/core/model';
import { accountFor, leaveSome, lineInterest } from '@/core/schedule';

/* The accounts of profit and loss that money ahead may bring something to. */

const losing = new WeakMap<readonly Terms[], readonly Terms[]>();
/** The terms of a list that never collect all. */
function losingOf(terms: readonly Terms[]): readonly Terms[] {
  let own = losing.get(terms);
  if (!own)
    losing.set(
      terms,
      (own = terms.filter((t) =>
        t.parts.some(({ rule }) => rule.kind === 'onAccount' && leaveSome(rule.shares.map((s) => s.percent))),
      )),
    );
  return own;
}

/** Whether money ahead may bring anything to any plan of a book, or to its outlook. */
export const mayMake = ({ cash, budgets }: Pick<Book, 'cash' | 'budgets'>): boolean =>
  cash.creditLine !== null ||
  cash.dated.length + cash.items.length > 0 ||
  budgets.some((b) => losingOf(b.terms).length > 0);

/** The accounts that a budget's terms lose on, and the one of the credit line's interest. */
export function bearersOf({ cash, accounts }: Book, budget: Budget): ReadonlySet<AccountId> {
  const out = new Set<AccountId>();
  for (const { parts } of losingOf(budget.terms))
    for (const { rule } of parts)
      if (rule.kind === 'onAccount') out.add(rule.badDebt ?? accountFor(accounts, 'badDebt'));
  if (cash.creditLine) out.add(lineInterest(cash.creditLine, accounts));
  return out;
}
