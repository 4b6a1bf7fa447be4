import { compareRatio, ratio, sumBlank, type Minor } from '@/core/money';
import type { LedgerBlock } from '@/core/ledger';
import { bookBefore, type Book, type Budget, type Change, type History, type LineRef } from '@/core/model';
import { budgetRows, resultOf } from '@/core/report';
import { createMemory, makeGround, reckoned, type Memory } from '@/core/ground';

type Blocks = ReadonlyMap<string, LedgerBlock>;

/** A change that made a figure another, with the figure before and after it. */
export type FigureChange = {
  readonly change: Change;
  readonly before: Minor | null;
  readonly after: Minor | null;
};

/** What is looked at: a month of a line, the whole line, or (without a line) the budget's net profit. */
export type Figure = {
  readonly budget: string;
  readonly line: LineRef | null;
  readonly month: number | null;
};

/** Each change with the books before and after it, latest first, as far back as patches fit. */
function* backward({ book, journal }: History): Generator<{ change: Change; before: Book; after: Book }> {
  const all = new Map(journal.map((c) => [c.seq, c]));
  let after = book;
  for (const change of journal.toReversed()) {
    const before = bookBefore(after, change, all);
    if (!before) return;
    yield { change, before, after };
    after = before;
  }
}

/** Parts of a book on which a budget's figures depend. */
const PARTS = [
  'budgets',
  'sources',
  'accounts',
  'merged',
  'axes',
  'calendar',
  'closedThrough',
  'weights',
  'workWeek',
] as const;
const sameFigures = (a: Book, b: Book): boolean => PARTS.every((k) => a[k] === b[k]);

/**
 * The changes that moved something read off the books, latest first, each with it before and after, up to the change
 * that made its budget. What was before a change is what was after the change before it.
 */
function* moves<T>(
  history: History,
  budget: string,
  read: (book: Book) => T,
): Generator<{ readonly change: Change; readonly was: T; readonly is: T }> {
  const known = new WeakMap<Book, { readonly value: T }>();
  const valueIn = (book: Book): T => {
    let kept = known.get(book);
    if (!kept) known.set(book, (kept = { value: read(book) }));
    return kept.value;
  };
  for (const { change, before, after } of backward(history)) {
    if (sameFigures(before, after)) {
      known.set(before, { value: valueIn(after) });
      continue;
    }
    yield { change, was: valueIn(before), is: valueIn(after) };
    if (!before.budgets.some((b) => b.id === budget)) return;
  }
}

/**
 * The changes that made a figure what it is, latest first; the latest is what is shown. A figure changes by what is
 * typed, and by whatever its method follows.
 */
export function figureChanges(history: History, blocks: Blocks, figure: Figure): FigureChange[] {
  const memory = createMemory();
  const read = (book: Book) => figureOf(book, blocks, figure, memory);
  return [...moves(history, figure.budget, read)]
    .filter(({ was, is }) => was !== is)
    .map(({ change, was, is }) => ({ change, before: was, after: is }));
}

/** A driver's value of a month, in whole numbers of 10^−decimals, as fine as the driver was at the time. */
export type Quantity = { readonly value: number; readonly decimals: number };

/** A change that moved months of a driver. */
export type DriverChange = {
  readonly change: Change;
  readonly months: readonly {
    readonly month: number;
    readonly before: Quantity | null;
    readonly after: Quantity | null;
  }[];
};

/** Whether two values are one quantity: 40 of no decimals is 400 of one. */
function sameQuantity(a: Quantity | null, b: Quantity | null): boolean {
  if (!a || !b) return a === b;
  return compareRatio(ratio(a.value, 10 ** a.decimals), ratio(b.value, 10 ** b.decimals)) === 0;
}

/** The changes that moved months of a driver, latest first. A driver by formula moves with those that it follows. */
export function driverChanges(
  history: History,
  blocks: Blocks,
  { budget, driver }: { readonly budget: string; readonly driver: string },
): DriverChange[] {
  const memory = createMemory();
  const read = (book: Book) => driverMonths(book, blocks, budget, driver, memory);
  return [...moves(history, budget, read)]
    .map(({ change, was, is }) => ({
      change,
      months: Array.from({ length: Math.max(was.length, is.length) }, (_, month) => ({
        month,
        before: was[month] ?? null,
        after: is[month] ?? null,
      })).filter((m) => !sameQuantity(m.before, m.after)),
    }))
    .filter(({ months }) => months.length > 0);
}

/** A driver's months; none where the budget has no such driver. */
function driverMonths(
  book: Book,
  blocks: Blocks,
  budgetId: string,
  id: string,
  memory: Memory,
): readonly (Quantity | null)[] {
  const budget = book.budgets.find((b) => b.id === budgetId);
  const driver = budget?.drivers.find((d) => d.id === id);
  if (!budget || !driver) return [];
  const { values } = reckoned(makeGround(book, blocks, memory), budget).reckoning.drivers.get(id)!;
  return values.map((v) => (v === null ? null : { value: v, decimals: driver.decimals }));
}

function figureOf(
  book: Book,
  blocks: Blocks,
  { budget: id, line, month }: Figure,
  memory: Memory,
): Minor | null {
  const budget = book.budgets.find((b) => b.id === id);
  if (!budget) return null;
  const r = reckoned(makeGround(book, blocks, memory), budget);
  if (line) {
    const figures = r.figures(line.account, line.segment);
    if (month !== null) return figures?.amounts[month] ?? null;
    return r.facts.isBalance(line.account)
      ? (figures?.amounts.findLast((a) => a !== null) ?? null)
      : sumBlank([...(figures?.amounts ?? []), ...(figures?.wholes ?? [])]);
  }
  return resultOf(budgetRows(book.accounts, budget.covers), 'netProfit', r.facts, (id) => r.figures(id));
}

/** The changes of a budget itself, latest first, each with the budget as it was after it. */
export function budgetStates(history: History, id: string): { change: Change; budget: Budget }[] {
  const out: { change: Change; budget: Budget }[] = [];
  for (const { change, before, after } of backward(history)) {
    const is = after.budgets.find((b) => b.id === id);
    if (!is) break;
    if (before.budgets.find((b) => b.id === id) !== is) out.push({ change, budget: is });
  }
  return out;
}
