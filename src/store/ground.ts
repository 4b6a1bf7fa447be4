import { useDeferredValue, useMemo } from 'react';
import { useDebouncedValue } from '@mantine/hooks';
import { checkBook, type Check } from '@/core/checks';
import type { LedgerBlock } from '@/core/ledger';
import { useBookStore } from './bookStore';
import { setDayLocale } from './format';
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

useBookStore.subscribe(({ history }) => setDayLocale(history?.book.locale ?? 'en-GB'));

/** The open book's ground at this moment, for what is no part of a screen. */
export function groundNow(): Ground | null {
  const { history, blocks } = useBookStore.getState();
  return history ? groundOf(history.book, blocks) : null;
}

/** The open book's ground, or null while none is open. */
export const useGround = (): Ground | null =>
  useBookStore((s) => (s.history ? groundOf(s.history.book, s.blocks) : null));

/** The ground of an open book; for screens that are shown only when one is. */
export function useOpenGround(): Ground {
  const ground = useGround();
  if (!ground) throw new Error('No book is open');
  return ground;
}

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
  return settled.history
    ? checksOf(groundOfChecks(settled.history.book, settled.blocks), settled.blocks)
    : NONE;
}
const NONE: readonly Check[] = [];
const CHECK_REST_MS = 300;
