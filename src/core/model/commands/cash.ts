import type { Draft } from 'immer';
import type { Day } from '@/core/calendar';
import type { Minor } from '@/core/money';
import type {
  Cash,
  DatedItem,
  Forecast,
  ItemChange,
  KeptForecast,
  OpenItem,
  TaxScheme,
  Terms,
} from '../cash';
import type { BankBalance, BankStatement, MovementSaid } from '../bank';
import { refuse } from '../refusal';
import type { AccountId, Book } from '../schema';
import { termsKey } from '../termsAccounts';
import { openBudget } from './budget';
import { mintId, passIds, putNamed, replaceNamed, type HandlersOf } from './handlers';

/* What changes how a budget becomes dated money. */

export type CashCommand =
  /** Terms in place of those of the same targets; `without` are targets that have none of their own any more. */
  | {
      readonly type: 'setTerms';
      readonly budget: string;
      readonly terms: readonly Terms[];
      readonly without: readonly Pick<Terms, 'of' | 'segment'>[];
    }
  /** Opening figures, banks, floor, credit line, which forecast is our own. */
  | {
      readonly type: 'setCash';
      readonly change: Partial<
        Omit<Cash, 'items' | 'lists' | 'dated' | 'changes' | 'kept' | 'taxes' | 'forecasts' | 'banks'>
      >;
    }
  /** A new tax, under an id that none ever had; another in the place of one; one that nothing carries, taken away. */
  | { readonly type: 'addTax'; readonly tax: Omit<TaxScheme, 'id'> }
  | { readonly type: 'setTax'; readonly tax: TaxScheme }
  | { readonly type: 'removeTax'; readonly tax: string }
  /** The same of named forecasts; one that is taken away is our own no more. */
  | { readonly type: 'addForecast'; readonly forecast: Omit<Forecast, 'id'> }
  | { readonly type: 'setForecast'; readonly forecast: Forecast }
  | { readonly type: 'removeForecast'; readonly forecast: string }
  /** Adds a dated item, or puts it in the place of the one with its id. */
  | { readonly type: 'setDatedItem'; readonly item: DatedItem }
  | { readonly type: 'removeDatedItem'; readonly item: string }
  /**
   * A list of open items in place of the one in force on each side that it speaks of (`listReplaced`). An item that was there
   * already keeps its id, and so what was decided of it; what is new waits where new items do, marked with who took it in
   * and when.
   */
  | {
      readonly type: 'takeOpenItems';
      readonly from: string;
      /** The sides of which the list is the whole. */
      readonly sides: readonly OpenItem['side'][];
      readonly items: readonly OpenItem[];
      /** The day that it is of. */
      readonly day: Day | null;
      readonly by: string;
      readonly at: string;
      /** What the list itself says of items, new or not, by id. */
      readonly byList?: Readonly<Record<string, ItemChange>>;
      /** What was decided before of items that are new to the list, by id: as the ledger's own entries they were there. */
      readonly decided?: Readonly<Record<string, ItemChange>>;
    }
  /** Takes a list back: the side's items are the ledger's own again, where no other list speaks of it. */
  | { readonly type: 'removeOpenList'; readonly from: string; readonly side: OpenItem['side'] }
  /** Keeps a forecast beside what will happen, or puts it in the place of the one with its id. */
  | { readonly type: 'keepForecast'; readonly kept: KeptForecast }
  | { readonly type: 'removeKeptForecast'; readonly kept: string }
  /** What a bank account held, in place of what was said of it before; null takes it back. */
  | {
      readonly type: 'setBankBalance';
      readonly account: AccountId;
      readonly balance: Omit<BankBalance, 'account'> | null;
    }
  /** The least that a bank account should hold; null: none of its own. */
  | { readonly type: 'setBankFloor'; readonly account: AccountId; readonly floor: Minor | null }
  /** A statement of a bank account, under an id that none ever had; `number`: the bank's own number of the account. */
  | {
      readonly type: 'takeBankStatement';
      readonly statement: Omit<BankStatement, 'id'>;
      readonly number: string | null;
    }
  /** Takes a statement back, with what was said of its movements. */
  | { readonly type: 'removeBankStatement'; readonly statement: string }
  /** What movements and uncleared entries are, by key; null takes it back. */
  | {
      readonly type: 'sayMovements';
      readonly movements: readonly { readonly key: string; readonly said: MovementSaid | null }[];
    }
  /** What is decided of open and dated items, by key; null takes it back. */
  | {
      readonly type: 'setItemChanges';
      readonly changes: readonly { readonly key: string; readonly change: ItemChange | null }[];
    };

/** Whether any line carries a tax by its terms, or any row of a schedule, in whatever budget. */
export const taxIsUsed = ({ budgets }: Pick<Book, 'budgets'>, tax: string): boolean =>
  budgets.some(
    (b) =>
      b.terms.some((t) => t.tax?.scheme === tax) ||
      b.schedules.some((r) => r.kind === 'asset' && r.tax?.scheme === tax),
  );

/**
 * The items that a list takes the place of, whatever its name: of each of its sides, those of every list that has items of
 * a kind that it has too, or its name. Orders that came by themselves stay beside a list of invoices.
 */
export function listReplaced(
  items: readonly OpenItem[],
  list: {
    readonly from: string;
    readonly sides: readonly OpenItem['side'][];
    readonly items: readonly Pick<OpenItem, 'side' | 'kind'>[];
  },
): OpenItem[] {
  return list.sides.flatMap((side) => {
    const kinds = new Set(list.items.filter((i) => i.side === side).map((i) => i.kind));
    const there = items.filter((i) => i.side === side);
    const gone = new Set(there.filter((i) => kinds.has(i.kind)).map((i) => i.from)).add(list.from);
    return there.filter((i) => gone.has(i.from));
  });
}

const itemKey = (id: string) => `item ${id}`;

/** What makes an item the same one in two readings of a list: its number, or without one its day and amount. */
const sameness = (i: OpenItem): string =>
  [i.side, i.kind, i.counterparty, i.number, i.number === '' ? `${i.dated} ${i.amount}` : ''].join('\n');

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
  addTax(book, { tax }) {
    if (tax.name.trim() === '') refuse('emptyName');
    book.cash.taxes.push({ ...tax, id: mintId(book, 't') } as Draft<TaxScheme>);
  },
  setTax(book, { tax }) {
    replaceNamed(book.cash.taxes, tax);
  },
  removeTax(book, { tax }) {
    if (taxIsUsed(book, tax)) refuse('taxInUse');
    book.cash.taxes = book.cash.taxes.filter((t) => t.id !== tax);
  },
  addForecast(book, { forecast }) {
    if (forecast.name.trim() === '') refuse('emptyName');
    book.cash.forecasts.push({ ...forecast, id: mintId(book, 'f') } as Draft<Forecast>);
  },
  setForecast(book, { forecast }) {
    replaceNamed(book.cash.forecasts, forecast);
  },
  removeForecast(book, { forecast }) {
    book.cash.forecasts = book.cash.forecasts.filter((f) => f.id !== forecast);
    if (book.cash.own === forecast) book.cash.own = null;
  },
  setDatedItem(book, { item }) {
    putNamed(book, book.cash.dated, item);
  },
  removeDatedItem(book, { item }) {
    book.cash.dated = book.cash.dated.filter((d) => d.id !== item);
    delete book.cash.changes[`dated ${item}`];
  },
  takeOpenItems(book, { from, sides, items, day, by, at, decided, byList }) {
    const { cash } = book;
    const before = listReplaced(cash.items, { from, sides, items });
    const listed = new Set(before.map((i) => `${i.side} ${i.from}`));
    cash.lists = cash.lists.filter(
      (l) => !(sides.includes(l.side) && l.from === from) && !listed.has(`${l.side} ${l.from}`),
    );
    for (const side of sides) cash.lists.push({ from, side, day, by, at });
    const gone = new Set(before);
    const there = new Map<string, string[]>();
    for (const i of before) there.set(sameness(i), [...(there.get(sameness(i)) ?? []), i.id]);
    const isNew = new Set<string>();
    const own: Record<string, ItemChange> = {};
    const taken = items.map((i) => {
      const id = there.get(sameness(i))?.shift();
      if (id === undefined) isNew.add(i.id);
      if (byList?.[i.id]) own[id ?? i.id] = byList[i.id]!;
      return { ...i, id: id ?? i.id };
    });
    const stays = new Set(taken.map((i) => i.id));
    for (const { id } of before) if (!stays.has(id)) delete cash.changes[itemKey(id)];
    // The first items of a file are what one begins with: only what a refresh brings is new.
    if (cash.newItems !== 'counted' && before.length > 0)
      for (const id of isNew) cash.changes[itemKey(id)] = { day: null, state: 'waiting', reason: '', by, at };
    for (const id of isNew) {
      const change = decided?.[id];
      if (change) cash.changes[itemKey(id)] = change;
    }
    for (const [id, change] of Object.entries(own)) cash.changes[itemKey(id)] = change;
    cash.items = [...cash.items.filter((i) => !gone.has(i)), ...(taken as Draft<OpenItem>[])];
    book.nextId += items.length;
    passIds(
      book,
      items.map((i) => i.id),
    );
  },
  removeOpenList(book, { from, side }) {
    const { cash } = book;
    const goes = (i: { readonly from: string; readonly side: string }) => i.from === from && i.side === side;
    for (const { id } of cash.items.filter(goes)) delete cash.changes[itemKey(id)];
    cash.items = cash.items.filter((i) => !goes(i));
    cash.lists = cash.lists.filter((l) => !goes(l));
  },
  keepForecast(book, { kept }) {
    putNamed(book, book.cash.kept, kept);
  },
  removeKeptForecast(book, { kept }) {
    book.cash.kept = book.cash.kept.filter((k) => k.id !== kept);
  },
  setBankBalance(book, { account, balance }) {
    const { banks } = book.cash;
    banks.balances = banks.balances.filter((b) => b.account !== account);
    if (balance) banks.balances.push({ ...balance, account });
  },
  setBankFloor(book, { account, floor }) {
    const { floors } = book.cash.banks;
    if (floor === null) delete floors[account];
    else floors[account] = floor;
  },
  takeBankStatement(book, { statement, number }) {
    const { banks } = book.cash;
    if (statement.last < statement.first) refuse('notSound');
    const isSame = (s: BankStatement) =>
      s.account === statement.account &&
      s.number === statement.number &&
      s.first === statement.first &&
      s.last === statement.last;
    if (banks.statements.some(isSame)) refuse('alreadyTakenIn');
    banks.statements.push({ ...statement, id: mintId(book, 's') } as Draft<BankStatement>);
    if (number !== null) banks.numbers[number] = statement.account;
  },
  removeBankStatement(book, { statement }) {
    const { banks } = book.cash;
    banks.statements = banks.statements.filter((s) => s.id !== statement);
    for (const key of Object.keys(banks.said)) if (key.startsWith(`${statement} `)) delete banks.said[key];
  },
  sayMovements(book, { movements }) {
    for (const { key, said } of movements)
      if (said) book.cash.banks.said[key] = said;
      else delete book.cash.banks.said[key];
  },
  setItemChanges(book, { changes }) {
    for (const { key, change } of changes)
      if (change) book.cash.changes[key] = change;
      else delete book.cash.changes[key];
  },
};
