import { sumBlank, type Minor } from '@/core/money';
import type { LedgerBlock } from '@/core/ledger';
import { across, type Book, type Budget, type Change, type History, type LineRef } from '@/core/model';
import { budgetRows, resultOf } from '@/core/report';
import { makeGround, reckoned, type Slots } from './derived';

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
    const before = across(after, change, all, 'back', book.version);
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
 * The changes that made a figure what it is, latest first: each figure before a change is the one after the change
 * before it, and the latest is what is shown. A figure changes by what is typed, and by whatever its method follows.
 */
export function figureChanges(
  history: History,
  blocks: ReadonlyMap<string, LedgerBlock>,
  figure: Figure,
): FigureChange[] {
  const slots: Slots = new Map();
  const known = new WeakMap<Book, Minor | null>();
  const valueIn = (book: Book): Minor | null => {
    if (!known.has(book)) known.set(book, figureOf(book, blocks, figure, slots));
    return known.get(book)!;
  };
  const out: FigureChange[] = [];
  for (const { change, before, after } of backward(history)) {
    if (sameFigures(before, after)) {
      known.set(before, valueIn(after));
      continue;
    }
    const [was, is] = [valueIn(before), valueIn(after)];
    if (was !== is) out.push({ change, before: was, after: is });
    if (!before.budgets.some((b) => b.id === figure.budget)) break;
  }
  return out;
}

function figureOf(
  book: Book,
  blocks: ReadonlyMap<string, LedgerBlock>,
  { budget: id, line, month }: Figure,
  slots: Slots,
): Minor | null {
  const budget = book.budgets.find((b) => b.id === id);
  if (!budget) return null;
  const r = reckoned(makeGround(book, blocks), budget, slots);
  if (line) {
    const figures = r.figures(line.account, line.segment);
    if (month !== null) return figures?.amounts[month] ?? null;
    return r.facts.isBalance(line.account)
      ? (figures?.amounts.findLast((a) => a !== null) ?? null)
      : sumBlank([...(figures?.amounts ?? []), ...(figures?.wholes ?? [])]);
  }
  const result = budget.covers === 'balanceSheet' ? 'netAssets' : 'netProfit';
  return resultOf(budgetRows(book.accounts, budget.covers), result, r.facts, (id) => r.figures(id));
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
