import { useDeferredValue, useMemo } from 'react';
import { useDebouncedValue } from '@mantine/hooks';
import { create } from 'zustand';
import { checkBook, type Check } from '@/core/checks';
import type { LedgerBlock } from '@/core/ledger';
import { useBookStore } from './bookStore';
import { setDayLocale } from './format';
import { whenIdle } from './whenIdle';
import { useSession } from './session';
import { createMemory, makeGround, mayMake, type Ground } from '@/core/ground';
import { NOTHING_AHEAD, sameAhead, type FromAhead } from '@/core/plan';
import type { Book } from '@/core/model';
import { lastOf } from '@/core/lastOf';

/** What follows from the open book is remembered as long as it is open. */
const memoryOf = lastOf((_book: string) => createMemory());
const makeOpen = (book: Book, blocks: ReadonlyMap<string, LedgerBlock>, made: Ground['made']): Ground =>
  makeGround(book, blocks, memoryOf(book.id), made);
const groundOf = lastOf(makeOpen);
/** What is no screen, and the checks, which run a moment behind it, remember a ground of their own. */
const groundAtRest = lastOf(makeOpen);

type Reckon = NonNullable<Ground['made']>;
/** What money ahead was last found to make of budgets, by id. */
type MadeKnown = Map<string, FromAhead>;

/**
 * What money ahead makes of plans (what is never paid, the interest of the credit line). It comes with the first screen that
 * shows a plan with any such thing, and is reckoned anew once the hand rests: a figure that is typed never waits for it.
 */
export const useMadeAhead = create<{ readonly reckon: Reckon | null; readonly known: MadeKnown }>(() => ({
  reckon: null,
  known: new Map(),
}));
const madeShown = lastOf(
  (reckon: Reckon | null, known: MadeKnown, _book: string): Reckon =>
    (ground, budget) => {
      if (!mayMake(ground.book)) return NOTHING_AHEAD;
      if (!reckon) {
        // A plan is shown, and is not whole without it.
        queueMicrotask(loadMade);
        return NOTHING_AHEAD;
      }
      const made = known.get(budget.id);
      if (made !== undefined) return made;
      // Nothing that is shown or typed waits for it.
      known.set(budget.id, NOTHING_AHEAD);
      makeSoon();
      return NOTHING_AHEAD;
    },
);

let loading = false;
function loadMade(): void {
  if (loading) return;
  loading = true;
  import('@/core/ground/cash')
    .then(({ madeAhead }) => useMadeAhead.setState({ reckon: madeAhead, known: new Map() }))
    .catch(() => (loading = false));
}

/** Reckons anew what money ahead makes of the budgets that were asked for. */
function makeAnew(): void {
  const { reckon, known } = useMadeAhead.getState();
  const ground = groundNow();
  if (!reckon || !ground) return;
  const next: MadeKnown = new Map();
  for (const budget of ground.book.budgets)
    if (known.has(budget.id)) {
      // The same amounts are the same object: a screen that asks while it shows them must not be shown anew for them.
      const [was, made] = [known.get(budget.id)!, reckon(ground, budget)];
      next.set(budget.id, sameAhead(was, made) ? was : made);
    }
  if (next.size !== known.size || [...next].some(([id, made]) => known.get(id) !== made))
    useMadeAhead.setState({ known: next });
}

let stop = (): void => undefined;
/** Once the hand rests and the page is idle: nothing that is pressed waits for it. */
function makeSoon(): void {
  stop();
  stop = whenIdle([makeAnew], MADE_REST_MS);
}
useBookStore.subscribe(({ history }, { history: was }) => {
  if (history === was) return;
  // Another book has budgets of the same names.
  if (history?.book.id !== was?.book.id) useMadeAhead.setState({ known: new Map() });
  if (history && mayMake(history.book)) makeSoon();
  else stop();
});
const MADE_REST_MS = 150;

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

/** The open book's ground at this moment, for what is no part of a screen: nothing of it is a moment behind. */
export function groundNow(): Ground | null {
  const { history, blocks } = useBookStore.getState();
  return history ? groundAtRest(history.book, blocks, useMadeAhead.getState().reckon) : null;
}

/** The open book's ground, or null while none is open. */
export function useGround(): Ground | null {
  const { reckon, known } = useMadeAhead();
  return useBookStore((s) =>
    s.history ? groundOf(s.history.book, s.blocks, madeShown(reckon, known, s.history.book.id)) : null,
  );
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
  const { reckon } = useCashChecks();
  const { reckon: makes } = useMadeAhead();
  const plan = useDeferredValue(useSession((s) => s.planId));
  if (!settled.history) return NONE;
  const ground = groundAtRest(settled.history.book, settled.blocks, makes);
  const ofBook = checksOf(ground, settled.blocks);
  return reckon && saysOfCash(settled.history.book)
    ? allOf(ofBook, cashChecksOf(reckon, ground, plan))
    : ofBook;
}
const NONE: readonly Check[] = [];
const CHECK_REST_MS = 300;
