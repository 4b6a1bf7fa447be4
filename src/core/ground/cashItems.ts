import { toDayNumber, type DayNumber } from '@/core/calendar';
import {
  ITEM_SOURCES,
  matchItems,
  medianDays,
  sharesOf,
  type ExpectedItem,
  type Matched,
  type MeasuredShares,
} from '@/core/cash';
import type { LedgerBlock, View } from '@/core/ledger';
import type { Account, AccountId, Book, Cash, CashSource, ItemChange, OpenItem } from '@/core/model';

/* Open items: what the ledger or a file shows unpaid, and what is expected of it. */

/** An invoice, bill or order with what is expected of it. */
export type ShownItem = {
  readonly key: string;
  readonly side: 'in' | 'out';
  readonly kind: OpenItem['kind'];
  readonly number: string;
  readonly counterparty: string;
  readonly dated: DayNumber;
  /** When it is due; of one that only the ledger shows, after the days that are usual. */
  readonly due: DayNumber;
  readonly amount: number;
  readonly open: number;
  readonly account: AccountId | null;
  /** The file or feed that it came from; null for the ledger itself. */
  readonly from: string | null;
  readonly expected: DayNumber;
  readonly state: ItemChange['state'];
  /** The state that it has while nobody decides anything of it. */
  readonly plainState: 'counted' | 'waiting';
  readonly change: ItemChange | null;
};

export type Sides = {
  readonly in: Matched;
  readonly out: Matched;
  readonly shares: { readonly in: MeasuredShares; readonly out: MeasuredShares };
};

/** Receivables and payables of the ledger, matched up to a day. */
export function matchSides(
  blocks: readonly LedgerBlock[],
  view: View,
  accounts: Book['accounts'],
  start: DayNumber,
): Sides {
  const side = (kind: Account['kind'], sign: 1 | -1): Matched => {
    const all = accounts
      .filter((a) => a.kind === kind)
      .map((a) => matchItems(blocks, view, a.id, sign, start));
    return {
      items: all.flatMap((m) => m.items),
      settled: all.flatMap((m) => m.settled),
      ahead: all.reduce((t, m) => t + m.ahead, 0),
    };
  };
  const [receivables, payables] = [side('receivable', 1), side('payable', -1)];
  return {
    in: receivables,
    out: payables,
    shares: { in: sharesOf(receivables.settled), out: sharesOf(payables.settled) },
  };
}

/** Days after the closed day that an overdue item is expected on where nothing is known of whose it is. */
const OVERDUE = 14;
const USUAL = 30;

/** Every open item with the day it is expected on: those of files, and of the ledger where a side has none. */
export function shownItems(cash: Cash, sides: Sides, start: DayNumber): readonly ShownItem[] {
  const out: ShownItem[] = [];
  const looked =
    cash.newItems === 'counted' || cash.lookedThrough === null ? null : toDayNumber(cash.lookedThrough);
  for (const side of ['in', 'out'] as const) {
    const { settled, items } = sides[side];
    const usual = medianDays(settled) ?? USUAL;
    const known = new Map<string, number | null>();
    const usualOf = (counterparty: string): number | null => {
      let days = known.get(counterparty);
      if (days === undefined)
        known.set(counterparty, (days = medianDays(settled.filter((s) => s.counterparty === counterparty))));
      return days;
    };
    const overdue = (counterparty: string): DayNumber => {
      const own = usualOf(counterparty);
      return start + (own === null ? OVERDUE : Math.max(1, own - usual));
    };
    const show = (item: Omit<ShownItem, 'expected' | 'change' | 'state' | 'plainState'>): void => {
      const change = cash.changes[item.key] ?? null;
      const expected = change?.day
        ? toDayNumber(change.day)
        : item.due > start
          ? item.due
          : overdue(item.counterparty);
      // What the ledger brought since someone last looked waits, until he does.
      const isNew = item.from === null && looked !== null && item.dated > looked;
      const plainState = isNew ? 'waiting' : 'counted';
      out.push({ ...item, expected, change, plainState, state: change?.state ?? plainState });
    };
    const filed = cash.items.filter((i) => i.side === side);
    for (const i of filed)
      show({ ...i, key: `item ${i.id}`, dated: toDayNumber(i.dated), due: toDayNumber(i.due) });
    // What a file says of a side is all of it: the ledger's own entries would be the same items again.
    if (filed.some((i) => i.kind === 'invoice')) continue;
    for (const i of items)
      show({
        key: `ledger ${i.key}`,
        side,
        kind: 'invoice',
        number: i.reference,
        counterparty: i.counterparty,
        dated: i.dated,
        due: i.dated + (usualOf(i.counterparty) ?? usual),
        amount: i.amount,
        open: i.open,
        account: i.account,
        from: null,
      });
  }
  return out;
}

/** The items of a forecast; orders of a source that it leaves out do not stand in place of the plan either. */
export const expectedItems = (
  shown: readonly ShownItem[],
  newItems: Cash['newItems'],
  onTop: Cash['ordersOnTop'],
  without: readonly CashSource[],
): readonly ExpectedItem[] =>
  shown.map((i) => {
    const source = ITEM_SOURCES[i.kind][i.side];
    const state = i.state === 'waiting' && newItems !== 'wait' ? 'counted' : i.state;
    return {
      ...i,
      open: i.open as ExpectedItem['open'],
      counted: state === 'counted' && !(i.kind === 'order' && without.includes(source)),
      onTop: (onTop as readonly CashSource[]).includes(source),
    };
  });
