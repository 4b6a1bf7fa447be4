import { useDeferredValue, useMemo } from 'react';
import { useDebouncedValue } from '@mantine/hooks';
import { create } from 'zustand';
import { checkBook, type Check } from '@/core/checks';
import type { LedgerBlock } from '@/core/ledger';
import { useBookStore } from './bookStore';
import { setDayLocale } from './format';
import { useSession } from './session';
import { createMemory, makeGround, type Ground } from '@/core/ground';
import type { Book } from '@/core/model';
import { lastOf } from '@/core/lastOf';

/** What follows from the open book is remembered as long as it is open. */
const memoryOf = lastOf((_book: string) => createMemory());
const made = (book: Book, blocks: ReadonlyMap<string, LedgerBlock>): Ground =>
  makeGround(book, blocks, memoryOf(book.id));
const groundOf = lastOf(made);
/** The checks run a moment behind the screen, so they remember a ground of their own. */
const groundOfChecks = lastOf(made);

const checksOf = lastOf(checkBook);

/** The checks of the money ahead come with the first screen of a book that says something of its money. */
export type CashChecks = (ground: Ground, budget: string | null) => Check[];
export const useCashChecks = create<{ readonly reckon: CashChecks | null }>(() => ({ reckon: null }));
const cashChecksOf = lastOf((reckon: CashChecks, ground: Ground, budget: string | null) =>
  reckon(ground, budget),
);
export const saysOfCash = ({ cash, budgets }: Book): boolean =>
  cash.floor !== null ||
  cash.creditLine !== null ||
  cash.taxes.length + cash.items.length + cash.dated.length > 0 ||
  cash.banks.balances.length + cash.banks.statements.length > 0 ||
  budgets.some((b) => b.terms.length > 0);
const allOf = lastOf((book: readonly Check[], cash: readonly Check[]) => [...book, ...cash]);

useBookStore.subscribe(({ history }) => setDayLocale(history?.book.locale ?? 'en-GB'));

/** The open book's ground at this moment, for what is no part of a screen. */
export function groundNow(): Ground | null {
  const { history, blocks } = useBookStore.getState();
  return history ? groundOf(history.book, blocks) : null;
}

/** The open book's ground, or null while none is open. */
export const useGround = (): Ground | null =>
  useBookStore((s) => (s.history ? groundOf(s.history.book, s.blocks) : null));

/**
 * The state of every check of the open book, once the hand rests: the checks add up the whole book, and must never
 * hold up the figure that was just typed.
 */
export function useChecks(): readonly Check[] {
  const history = useBookStore((s) => s.history);
  const blocks = useBookStore((s) => s.blocks);
  // The two are one state: a book must never be checked against another's entries.
  const state = useMemo(() => ({ history, blocks }), [history, blocks]);
  const settled = useDeferredValue(useDebouncedValue(state, CHECK_REST_MS)[0]);
  const { reckon } = useCashChecks();
  const plan = useDeferredValue(useSession((s) => s.planId));
  if (!settled.history) return NONE;
  const ground = groundOfChecks(settled.history.book, settled.blocks);
  const ofBook = checksOf(ground, settled.blocks);
  return reckon && saysOfCash(settled.history.book)
    ? allOf(ofBook, cashChecksOf(reckon, ground, plan))
    : ofBook;
}
const NONE: readonly Check[] = [];
const CHECK_REST_MS = 300;
