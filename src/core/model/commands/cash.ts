import type { Draft } from 'immer';
import type { Cash, DatedItem, ItemChange, OpenItem, Terms } from '../cash';
import { refuse } from '../refusal';
import { termsKey } from '../termsAccounts';
import { openBudget } from './budget';
import type { HandlersOf } from './handlers';

/* What changes how a budget becomes dated money. */

export type CashCommand =
  /** Terms in place of those of the same targets; `without` are targets that have none of their own any more. */
  | {
      readonly type: 'setTerms';
      readonly budget: string;
      readonly terms: readonly Terms[];
      readonly without: readonly Pick<Terms, 'of' | 'segment'>[];
    }
  /** Opening figures, banks, floor, credit line, taxes, named forecasts. */
  | { readonly type: 'setCash'; readonly change: Partial<Omit<Cash, 'items' | 'dated' | 'changes'>> }
  /** Adds a dated item, or puts it in the place of the one with its id. */
  | { readonly type: 'setDatedItem'; readonly item: DatedItem }
  | { readonly type: 'removeDatedItem'; readonly item: string }
  /** Open items in place of those that came from the same file or feed. */
  | { readonly type: 'takeOpenItems'; readonly from: string; readonly items: readonly OpenItem[] }
  /** What is decided of open and dated items, by key; null takes it back. */
  | {
      readonly type: 'setItemChanges';
      readonly changes: readonly { readonly key: string; readonly change: ItemChange | null }[];
    };

export const cashHandlers: HandlersOf<CashCommand> = {
  setTerms(book, { budget, terms, without }) {
    const b = openBudget(book, budget);
    const gone = new Set([...terms, ...without].map(termsKey));
    b.terms = b.terms.filter((t) => !gone.has(termsKey(t)));
    b.terms.push(...(terms as Draft<Terms>[]));
  },
  setCash(book, { change }) {
    Object.assign(book.cash, change);
  },
  setDatedItem(book, { item }) {
    if (item.name.trim() === '') refuse('emptyName');
    const at = book.cash.dated.findIndex((d) => d.id === item.id);
    if (at >= 0) book.cash.dated[at] = item as Draft<DatedItem>;
    else {
      book.cash.dated.push(item as Draft<DatedItem>);
      book.nextId += 1;
    }
  },
  removeDatedItem(book, { item }) {
    book.cash.dated = book.cash.dated.filter((d) => d.id !== item);
    delete book.cash.changes[`dated ${item}`];
  },
  takeOpenItems(book, { from, items }) {
    book.cash.items = [...book.cash.items.filter((i) => i.from !== from), ...(items as Draft<OpenItem>[])];
    book.nextId += items.length;
  },
  setItemChanges(book, { changes }) {
    for (const { key, change } of changes)
      if (change) book.cash.changes[key] = change;
      else delete book.cash.changes[key];
  },
};
