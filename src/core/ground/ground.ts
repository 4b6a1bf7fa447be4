import {
  indexOfId,
  monthCalendar,
  yearRange,
  type FiscalCalendar,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import { balancesOf, viewOfSegments, type Balances, type LedgerBlock, type View } from '@/core/ledger';
import type { Axis, Book, Budget, SegmentId } from '@/core/model';
import { calendarOf, type FactsInput, type FromAhead } from '@/core/plan';
import type { InCase } from './inCase';
import { createMemory, type Memory } from './memory';
import { throughMerges } from './merged';

/** A book with what follows from its ledger. */
export type Ground = {
  /** The book as it is shown: approved budgets are read through the merges of accounts. */
  readonly book: Book;
  readonly calendar: FiscalCalendar;
  /** The ledger of the whole company. */
  readonly balances: Balances;
  readonly blocks: readonly LedgerBlock[];
  /** Merged accounts, for whoever looks at entries. */
  readonly view: View;
  readonly closedThrough: PeriodIndex | null;
  readonly memory: Memory;
  /** What money ahead brings to a budget; null where it is not looked at. */
  readonly made: ((ground: Ground, budget: Budget) => FromAhead) | null;
  /** What a case assumes, on its own ground; null on the ground of the book as it is. */
  readonly inCase: InCase | null;
};

const makeLedger = () => ({
  blocks: lastOf((sources: Book['sources'], blocks: ReadonlyMap<string, LedgerBlock>) =>
    sources.map((s) => blocks.get(s.block)).filter((b): b is LedgerBlock => b !== undefined),
  ),
  view: lastOf((merged: Book['merged']): View => ({ merged: new Map(Object.entries(merged)), keep: null })),
  balances: lastOf(balancesOf),
  shown: lastOf((book: Book, budgets: Book['budgets']): Book =>
    budgets === book.budgets ? book : { ...book, budgets },
  ),
});

/** The ground of a book's state; what did not change since the last one made with the same memory is the same object. */
export function makeGround(
  book: Book,
  all: ReadonlyMap<string, LedgerBlock>,
  memory: Memory = createMemory(),
  made: Ground['made'] = null,
): Ground {
  const ledger = memory.of('ledger', makeLedger);
  const calendar = calendarOf(book);
  const blocks = ledger.blocks(book.sources, all);
  const view = ledger.view(book.merged);
  return {
    book: ledger.shown(book, throughMerges(book.budgets, book.merged, calendar)),
    calendar,
    blocks,
    view,
    balances: ledger.balances(blocks, calendar, view),
    closedThrough: book.closedThrough === null ? null : indexOfId(calendar, book.closedThrough),
    memory,
    made,
    inCase: null,
  };
}

/** The same ground for whoever tries what is not so: what follows from it is remembered apart. */
export const aside = (ground: Ground, memory: Memory): Ground => ({ ...ground, memory });

type OfSegment = FactsInput['ofSegment'];
const nothingKnown = balancesOf([], monthCalendar(1));
const unknownLedger: OfSegment = () => nothingKnown;

const makeWhole = () =>
  lastOf(
    (balances: Balances): OfSegment =>
      () =>
        balances,
  );

/** The ledger of each value of an axis, added up when it is first asked for. */
const makeSegments = () =>
  lastOf((blocks: readonly LedgerBlock[], calendar: FiscalCalendar, view: View, axis: Axis): OfSegment => {
    const made = new Map<SegmentId, Balances>();
    return (value) => {
      let balances = made.get(value);
      if (!balances)
        made.set(
          value,
          (balances = balancesOf(blocks, calendar, viewOfSegments(view, [{ axis, values: [value] }]))),
        );
      return balances;
    };
  });

/** The ledger by the values of an axis; of a budget without one, the whole. */
export function segmentLedgers(ground: Ground, axisId: string | null): OfSegment {
  const { book, blocks, calendar, view, memory, balances } = ground;
  if (axisId === null) return memory.of('whole', makeWhole)(balances);
  const axis = book.axes.find((a) => a.id === axisId);
  // Of an axis that is gone nothing is known: the whole company's ledger in each of its segments would be worse.
  return axis ? memory.of(`axis ${axisId}`, makeSegments)(blocks, calendar, view, axis) : unknownLedger;
}

/** All periods worth showing on the ruler: whole fiscal years of the ledger and of every budget. */
export function rulerRange({ calendar, balances, book }: Ground): PeriodRange | null {
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
