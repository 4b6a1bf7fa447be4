import { unitOf, type Minor } from '@/core/money';
import {
  indexOfId,
  monthCalendar,
  yearRange,
  type FiscalCalendar,
  type Period,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import {
  actualOf,
  balancesOf,
  viewOfSegments,
  type Balances,
  type LedgerBlock,
  type View,
} from '@/core/ledger';
import type { Account, AccountId, Axis, Book, Budget, SegmentId } from '@/core/model';
import {
  budgetPeriods,
  calendarOf,
  createReckoner,
  factsFor,
  figuresOf,
  type Facts,
  type FactsInput,
  type Figures,
  type OtherPlan,
  type Reckoner,
  type Reckoning,
} from '@/core/plan';
import { lastOf } from './lastOf';

export type Ground = {
  readonly book: Book;
  readonly calendar: FiscalCalendar;
  readonly balances: Balances;
  readonly blocks: readonly LedgerBlock[];
  /** Merged accounts, for whoever looks at entries. */
  readonly view: View;
  readonly closedThrough: PeriodIndex | null;
  readonly actual: (account: Account, period: PeriodIndex) => Minor | null;
};

const blocksOf = lastOf((sources: Book['sources'], blocks: ReadonlyMap<string, LedgerBlock>) =>
  sources.map((s) => blocks.get(s.block)).filter((b): b is LedgerBlock => b !== undefined),
);
const viewFor = lastOf((merged: Book['merged']): View => ({
  merged: new Map(Object.entries(merged)),
  keep: null,
}));
const balancesFor = lastOf((blocks: readonly LedgerBlock[], calendar: FiscalCalendar, view: View) =>
  balancesOf(blocks, calendar, view),
);

/** A book with what follows from its ledger. */
export const makeGround = (book: Book, all: ReadonlyMap<string, LedgerBlock>): Ground => {
  const calendar = calendarOf(book);
  const blocks = blocksOf(book.sources, all);
  const view = viewFor(book.merged);
  const balances = balancesFor(blocks, calendar, view);
  return {
    book,
    view,
    calendar,
    balances,
    blocks,
    closedThrough: book.closedThrough === null ? null : indexOfId(calendar, book.closedThrough),
    actual: (account, period) => actualOf(balances, account, period),
  };
};
/** A budget with its reckoning. */
export type Reckoned = {
  readonly budget: Budget;
  readonly facts: Facts;
  readonly reckoning: Reckoning;
  /** Figures and months of an account, in one segment or over all of them (unless said otherwise). */
  readonly figures: (account: AccountId, segment?: SegmentId | 'all') => Figures | null;
  readonly amounts: (account: AccountId, segment?: SegmentId | 'all') => readonly (Minor | null)[] | null;
};

type Slot = {
  readonly facts: (
    calendar: FiscalCalendar,
    periods: readonly Period[],
    accounts: Book['accounts'],
    balances: Balances,
    ofSegment: FactsInput['ofSegment'],
    closedThrough: PeriodIndex | null,
    unit: number,
    weights: Book['weights'],
    workWeek: Book['workWeek'],
    others: FactsInput['others'],
  ) => Facts;
  readonly reckon: Reckoner;
  readonly periods: (c: FiscalCalendar, first: string, length: number) => Period[];
  readonly named: (lines: Budget['lines']) => readonly string[];
  readonly others: (...parts: readonly (Reckoned | string | null)[]) => FactsInput['others'];
  readonly whole: (b: Budget, f: Facts, r: Reckoning) => Reckoned;
};
/** What is remembered of budgets, by book and budget. Whoever looks at other states of a book brings his own. */
export type Slots = Map<string, Slot>;
const slots: Slots = new Map();

const makeSlot = (): Slot => ({
  facts: lastOf(
    (calendar, periods, accounts, balances, ofSegment, closedThrough, unit, weights, workWeek, others) =>
      factsFor({
        calendar,
        periods,
        accounts,
        balances,
        ofSegment,
        closedThrough,
        unit,
        weights,
        workWeek,
        others,
      }),
  ),
  reckon: createReckoner(),
  periods: lastOf((c, first, length) => budgetPeriods(c, { first: first as Budget['first'], length })),
  named: lastOf(budgetsNamedIn),
  others: lastOf((axis, ...others) => otherPlans(axis as string | null, others as Reckoned[])),
  whole: lastOf(reckonedAs),
});

/** A budget with a reckoning of it: as approved where it is, as reckoned while it is a draft. */
export function reckonedAs(budget: Budget, facts: Facts, reckoning: Reckoning): Reckoned {
  return {
    budget,
    facts,
    reckoning,
    figures: (account, segment = 'all') => figuresOf(budget, reckoning, account, segment),
    amounts: (account, segment = 'all') => figuresOf(budget, reckoning, account, segment)?.amounts ?? null,
  };
}

/** Budgets that are being reckoned: one that leads back to itself is no basis. */
const open = new Set<string>();

/** Reckons a budget; parts that did not change are remembered by budget. */
export function reckoned(ground: Ground, budget: Budget, kept: Slots = slots): Reckoned {
  const { book, calendar } = ground;
  const key = `${book.id}/${budget.id}`;
  let slot = kept.get(key);
  if (!slot) kept.set(key, (slot = makeSlot()));
  const periods = slot.periods(calendar, budget.first, budget.length);
  open.add(budget.id);
  const others = slot.named(budget.lines).flatMap((id) => {
    const other = open.has(id) ? undefined : book.budgets.find((b) => b.id === id);
    return other ? [reckoned(ground, other, kept)] : [];
  });
  open.delete(budget.id);
  const facts = slot.facts(
    calendar,
    periods,
    book.accounts,
    ground.balances,
    segmentLedgers(ground, budget.axis),
    ground.closedThrough,
    unitOf(book.currency),
    book.weights,
    book.workWeek,
    slot.others(budget.axis, ...others),
  );
  return slot.whole(budget, facts, slot.reckon(budget, facts));
}

/** The budgets that lines take over. */
function budgetsNamedIn(lines: Budget['lines']): readonly string[] {
  const ids = new Set<string>();
  for (const { method } of lines)
    if (method.kind === 'lastYear' && method.from.of !== 'actuals') ids.add(method.from.budget);
  return [...ids];
}

/** Other budgets as bases of one with this axis: by segment where both have it, else as a whole. */
function otherPlans(axis: string | null, others: readonly Reckoned[]): FactsInput['others'] {
  return new Map(
    others.map((r): [string, OtherPlan] => {
      const first = r.facts.periods[0]?.index ?? 0;
      const alike = r.budget.axis === axis;
      return [
        r.budget.id,
        {
          has: (period) => period >= first && period < first + r.facts.periods.length,
          amount: (account, segment, period) => {
            const of = alike ? segment : axis === null ? 'all' : null;
            return of === null && !alike ? null : (r.amounts(account, of)?.[period - first] ?? null);
          },
        },
      ];
    }),
  );
}

/** The ledger of each value of an axis, added up when it is first asked for. */
const segmentLedgersOf = lastOf(
  (
    blocks: readonly LedgerBlock[],
    calendar: FiscalCalendar,
    view: View,
    axis: Axis,
  ): FactsInput['ofSegment'] => {
    const made = new Map<SegmentId, Balances>();
    return (value) => {
      let balances = made.get(value);
      if (!balances)
        made.set(value, (balances = balancesOf(blocks, calendar, viewOfSegments(view, [{ axis, value }]))));
      return balances;
    };
  },
);
const nothingKnown = balancesOf([], monthCalendar(1));
const unknownLedger: FactsInput['ofSegment'] = () => nothingKnown;
const wholeLedger = lastOf(
  (balances: Balances): FactsInput['ofSegment'] =>
    () =>
      balances,
);

/** The ledger by the values of an axis; of a budget without one, the whole. */
export function segmentLedgers(ground: Ground, axisId: string | null): FactsInput['ofSegment'] {
  if (axisId === null) return wholeLedger(ground.balances);
  const axis = ground.book.axes.find((a) => a.id === axisId);
  // Of an axis that is gone nothing is known: the whole company's ledger in each of its segments would be worse.
  return axis ? segmentLedgersOf(ground.blocks, ground.calendar, ground.view, axis) : unknownLedger;
}

/** All periods worth showing on the ruler: whole fiscal years of the ledger and of every budget. */
export function rulerRange(ground: Ground): PeriodRange | null {
  const { calendar, balances, book } = ground;
  const ends: PeriodIndex[] = balances.range ? [balances.range.first, balances.range.last] : [];
  for (const b of book.budgets) {
    const first = indexOfId(calendar, b.first);
    if (first !== null) ends.push(first, first + b.length - 1);
  }
  if (ends.length === 0) return null;
  const low = calendar.period(Math.min(...ends)).year;
  const high = calendar.period(Math.max(...ends)).year;
  return { first: yearRange(calendar, low).first, last: yearRange(calendar, high).last };
}
