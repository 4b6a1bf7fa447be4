import { toDayNumber, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import type { Book, Budget, ScheduleRow } from '@/core/model';
import {
  addedId,
  boundedSize,
  cashIn,
  changesTerms,
  countedIn,
  isItemsChange,
  isOn,
  itemsIn,
  itemsTakenIn,
  rowsIn,
  steadyPart,
  termsIn,
  type Assumed,
  type Assumption,
  type AssumptionOf,
  type TermsIn,
} from '@/core/scenario';
import { NOTHING_MADE, type Made } from '@/core/plan';
import type { ShownItem } from './cashItems';
import type { Ground } from './ground';
import { createMemory, type Memory } from './memory';

/*
 * A book as a case assumes it. Nothing is copied and nothing is reckoned in another way: the case's ground has other inputs
 * (rows, terms, dated items, limits), and what follows from them follows as always, remembered apart for each case.
 */

/** What a case's ground knows of where it comes from. */
export type InCase = {
  readonly base: Ground;
  readonly assumed: Assumed;
  /** The last period that no case changes. */
  readonly closed: PeriodIndex | null;
  readonly terms: TermsIn | null;
  readonly items: readonly AssumptionOf<'items'>[];
  /** What money ahead makes of a budget of the base, by its id; nothing where it is not looked at. */
  readonly madeOfBase: (budget: string) => Made;
};

/** The last period that is known: the closed one; of a book that closed nothing the ledger's last. */
export const lastKnown = ({ closedThrough, balances }: Pick<Ground, 'closedThrough' | 'balances'>) =>
  closedThrough ?? balances.range?.last ?? null;

const isOfRows = (a: Assumption): boolean =>
  isOn(a, 'rowMoved', 'rowAdded', 'rowGone', 'rowField', 'pay', 'oncosts', 'rate');
const isOfCash = (a: Assumption): boolean => isOn(a, 'datedMoved', 'rate');
const isOfTerms = (a: Assumption): boolean => changesTerms(a.adjustment);

const makeCase = () => ({
  /** The ground as it is, on which plans have nothing of what money ahead makes: a case finds that for itself. */
  base: lastOf(
    (
      book: Book,
      calendar: Ground['calendar'],
      blocks: Ground['blocks'],
      view: Ground['view'],
      balances: Ground['balances'],
      closedThrough: Ground['closedThrough'],
      memory: Memory,
    ): Ground => ({
      book,
      calendar,
      blocks,
      view,
      balances,
      closedThrough,
      memory,
      made: null,
      inCase: null,
    }),
  ),
  memory: createMemory(),
  all: steadyPart(() => true),
  rows: steadyPart(isOfRows),
  cash: steadyPart(isOfCash),
  terms: steadyPart(isOfTerms),
  items: steadyPart(isItemsChange) as (assumed: Assumed) => readonly AssumptionOf<'items'>[],
  termsIn: lastOf(termsIn),
  cashIn: lastOf(cashIn),
  book: lastOf((book: Book, budgets: Book['budgets'], cash: Book['cash']): Book =>
    budgets === book.budgets && cash === book.cash ? book : { ...book, budgets, cash },
  ),
  budgets: lastOf((...all: readonly Budget[]): Budget[] => [...all]),
  budget: new Map<
    string,
    (budget: Budget, assumed: Assumed, calendar: Ground['calendar'], closed: PeriodIndex | null) => Budget
  >(),
  ground: lastOf(
    (
      base: Ground,
      book: Book,
      assumed: Assumed,
      closed: PeriodIndex | null,
      terms: TermsIn | null,
      items: readonly AssumptionOf<'items'>[],
      memory: Memory,
    ): Ground => ({
      ...base,
      book,
      memory,
      made: null,
      inCase: { base, assumed, closed, terms, items, madeOfBase: () => NOTHING_MADE },
    }),
  ),
});

const budgetIn = (
  budget: Budget,
  assumed: Assumed,
  calendar: Ground['calendar'],
  closed: PeriodIndex | null,
): Budget => {
  const schedules = rowsIn(budget, countedIn(assumed, budget), { calendar, closedThrough: closed });
  return schedules === budget.schedules ? budget : { ...budget, schedules: [...schedules] };
};

/**
 * The ground on which assumptions hold, remembered under a name: what they do not reach is as it is in the book. None of the
 * assumptions: the ground itself.
 */
export function groundAssuming(base: Ground, name: string, asked: Assumed): Ground {
  if (asked.length === 0) return base;
  const place = base.memory.of(`case ${name}`, makeCase);
  // What a file says beyond all bounds must stop nothing.
  const assumed = place.all(
    asked.map((a) => {
      const size = boundedSize(a.adjustment.what, a.size);
      return size === a.size ? a : { ...a, size };
    }),
  );
  const { book, calendar } = base;
  const closed = lastKnown(base);
  const start = closed === null ? null : toDayNumber(calendar.period(closed).end);
  const rows = place.rows(assumed);
  const budgets = book.budgets.map((b) => {
    let of = place.budget.get(b.id);
    if (!of) place.budget.set(b.id, (of = lastOf(budgetIn)));
    return of(b, rows, calendar, closed);
  });
  const list = budgets.every((b, i) => b === book.budgets[i]) ? book.budgets : place.budgets(...budgets);
  // What was written into the company's money with a plan counts for every plan.
  const written = new Set(book.budgets.flatMap((b) => b.applied.map((a) => a.adjustment.id)));
  const ofCompany = assumed.filter((a) => !written.has(a.adjustment.id));
  const own = place.book(book, list, place.cashIn(book.cash, place.cash(ofCompany), start));
  const terms = place.termsIn(place.terms(assumed), calendar);
  return place.ground(
    place.base(book, calendar, base.blocks, base.view, base.balances, base.closedThrough, base.memory),
    own,
    assumed,
    closed,
    terms,
    place.items(ofCompany),
    place.memory,
  );
}

/** The budget of the same name on a case's ground. */
export const budgetOn = ({ book }: Ground, budget: Budget | null): Budget | null =>
  budget && (book.budgets.find((b) => b.id === budget.id) ?? null);

/** The rows that a case adds to a budget; the same list for the same rows. */
export function rowsAdded({ assumed }: InCase, { schedules }: Budget): readonly ScheduleRow[] {
  const ids = new Set(assumed.flatMap((a) => (isOn(a, 'rowAdded') ? [addedId(a.adjustment.id)] : [])));
  if (ids.size === 0) return NO_ROWS;
  const key = [...ids].join();
  const known = added.get(schedules);
  if (known?.key === key) return known.rows;
  const rows = schedules.filter((r) => ids.has(r.id));
  added.set(schedules, { key, rows });
  return rows;
}
const NO_ROWS: readonly ScheduleRow[] = [];
const added = new WeakMap<
  readonly ScheduleRow[],
  { readonly key: string; readonly rows: readonly ScheduleRow[] }
>();

const NO_TERMS = {};
const together = new WeakMap<object, WeakMap<object, TermsIn | null>>();

/** What terms lines of a budget have by the month of the invoice: what was taken into it, then what a case assumes; null: their own. */
export function termsOn({ inCase, calendar }: Ground, { applied }: Budget): TermsIn | null {
  if (applied.length === 0) return inCase?.terms ?? null;
  const assumed = inCase?.terms ?? NO_TERMS;
  let known = together.get(assumed);
  if (!known) together.set(assumed, (known = new WeakMap()));
  let of = known.get(applied);
  if (of === undefined) {
    const own = termsIn(applied, calendar);
    const more = inCase && termsIn(countedIn(inCase.assumed, { applied }), calendar);
    of =
      own && more
        ? (terms, account, segment, period) =>
            more(own(terms, account, segment, period), account, segment, period)
        : (own ?? more);
    known.set(applied, of);
  }
  return of;
}

/** What is assumed of open items: what was taken into plans, then what a case assumes. */
export function assumedOfItems({ book, inCase }: Pick<Ground, 'book' | 'inCase'>): {
  readonly taken: readonly AssumptionOf<'items'>[];
  readonly tried: readonly AssumptionOf<'items'>[];
} {
  let taken = takenIn.get(book.budgets);
  if (!taken) takenIn.set(book.budgets, (taken = itemsTakenIn(book.budgets)));
  return { taken, tried: inCase?.items ?? NO_ITEM_CHANGES };
}
const takenIn = new WeakMap<Book['budgets'], readonly AssumptionOf<'items'>[]>();

/** Open items as they are assumed. */
export const itemsAssumed = (
  changes: readonly AssumptionOf<'items'>[],
  items: readonly ShownItem[],
  start: number,
): readonly ShownItem[] => (changes.length === 0 ? items : itemsIn(items, changes, start));

/** None, always the same. */
const NO_ITEM_CHANGES: readonly AssumptionOf<'items'>[] = [];
