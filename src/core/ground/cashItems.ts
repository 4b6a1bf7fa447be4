import { lastOf } from '@/core/lastOf';
import { toDayNumber, type DayNumber } from '@/core/calendar';
import {
  ITEM_SOURCES,
  listSince,
  matchItems,
  medianDays,
  sharesOf,
  type ExpectedItem,
  type LedgerItem,
  type Matched,
  type MeasuredShares,
} from '@/core/cash';
import type { LedgerBlock, View } from '@/core/ledger';
import type { Account, AccountId, Book, Cash, CashSource, ItemChange, OpenItem } from '@/core/model';
import { delaysBy, sharesOfItem, sharesOn, type ItemShare, type ItemTerms } from './itemTerms';

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
  /** How it comes where its entry tells what it was invoiced for. */
  readonly comes: ItemComes;
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

/** What is left of a side's list by the ledger's entries since its day; null where no list of invoices has a day before. */
export type Since = ReturnType<typeof listSince> | null;

/** Lists of open items as they stand at the start: what the ledger's entries since their day paid and invoiced. */
export function listsSince(
  items: Cash['items'],
  lists: Cash['lists'],
  blocks: readonly LedgerBlock[],
  view: View,
  accounts: Book['accounts'],
  start: DayNumber,
): { readonly in: Since; readonly out: Since } {
  const of = (side: 'in' | 'out'): Since => {
    const invoices = items.filter((i) => i.side === side && i.kind === 'invoice');
    const days = lists
      .filter((l) => l.side === side && l.day !== null && invoices.some((i) => i.from === l.from))
      .map((l) => toDayNumber(l.day!));
    // The list that knows most is what entries are added to.
    const day = Math.max(...days);
    if (days.length === 0 || day >= start) return null;
    const kind = side === 'in' ? 'receivable' : 'payable';
    const owed = accounts.filter((a) => a.kind === kind);
    const usual = owed[0]?.id ?? null;
    const left = new Map<string, number>();
    const since = new Map<string, number>();
    for (const { id } of owed) {
      const own = invoices
        .filter((i) => (i.account ?? usual) === id)
        .map((i) => ({ ...i, dated: toDayNumber(i.dated) }));
      const told = listSince(own, blocks, view, id, side === 'in' ? 1 : -1, day, start);
      for (const [key, amount] of told.items) left.set(key, amount);
      for (const [key, amount] of told.since) since.set(key, amount);
    }
    return { items: left, since };
  };
  return { in: of('in'), out: of('out') };
}

/** Days after the closed day that an item is expected on whose day is past. */
const OVERDUE = 14;
const USUAL = 30;

/** How many days money took to come, as far as it had come by a day. */
type Measured = {
  readonly usual: number;
  /** Of one counterparty; null where he never paid. */
  readonly usualOf: (counterparty: string) => number | null;
  readonly delays: (forWhat: ItemTerms['forWhat']) => ReturnType<typeof delaysBy>;
};

/** The same for the same payments: what is tried of terms and plans changes nothing that was measured. */
const measured = new WeakMap<Sides['in']['settled'], Map<DayNumber, Measured>>();

function measuredUntil(all: Sides['in']['settled'], through: DayNumber): Measured {
  let byDay = measured.get(all);
  if (!byDay) measured.set(all, (byDay = new Map()));
  let of = byDay.get(through);
  if (!of) {
    const settled = all.filter((s) => s.paid <= through);
    const known = new Map<string, number | null>();
    of = {
      usual: medianDays(settled) ?? USUAL,
      usualOf(counterparty) {
        let days = known.get(counterparty);
        if (days === undefined)
          known.set(
            counterparty,
            (days = medianDays(settled.filter((s) => s.counterparty === counterparty))),
          );
        return days;
      },
      delays: lastOf((forWhat) => delaysBy(settled, forWhat)),
    };
    byDay.set(through, of);
  }
  return of;
}

/** Every open item with the day it is expected on: those of files, and of the ledger where a side has none. */
export function shownItems(
  cash: Cash,
  sides: Sides,
  start: DayNumber,
  by: ItemTerms,
  lists: ReturnType<typeof listsSince>,
): readonly ShownItem[] {
  const out: ShownItem[] = [];
  const looked =
    cash.newItems === 'counted' || cash.lookedThrough === null ? null : toDayNumber(cash.lookedThrough);
  for (const side of ['in', 'out'] as const) {
    const { items } = sides[side];
    // What was measured when a month was closed stays: newer habits change no day that is expected.
    const through = cash.measuredThrough === null ? Infinity : toDayNumber(cash.measuredThrough);
    const { usual, usualOf, delays: delaysOf } = measuredUntil(sides[side].settled, through);
    const show = (
      item: Omit<ShownItem, 'expected' | 'change' | 'state' | 'plainState' | 'comes'>,
      comes: ItemComes = WHOLE,
      falls: DayNumber = item.due,
    ): void => {
      const change = cash.changes[item.key] ?? null;
      // What is past is expected after the closed day; a day that someone said goes before all.
      const late = (day: DayNumber) => (day > start ? day : start + OVERDUE);
      const shares = change?.day ? [] : comes.shares.map((s) => ({ ...s, day: late(s.day) }));
      const first = shares.length > 0 ? Math.min(...shares.map((s) => s.day)) : late(falls);
      const expected = change?.day ? toDayNumber(change.day) : first;
      // What the ledger brought since someone last looked waits, until he does.
      const isNew = item.from === null && looked !== null && item.dated > looked;
      const plainState = isNew ? 'waiting' : 'counted';
      const ruled = comes.ruled && change === null;
      out.push({
        ...item,
        expected,
        change,
        plainState,
        state: change?.state ?? plainState,
        comes: { ...comes, shares, ruled },
      });
    };
    const filed = cash.items.filter((i) => i.side === side);
    const since = lists[side];
    for (const i of filed) {
      const open = (since?.items.get(i.id) ?? i.open) as OpenItem['open'];
      if (open === 0) continue;
      const [dated, due] = [toDayNumber(i.dated), toDayNumber(i.due)];
      // Whoever is known to pay later than he should does so again; nobody is expected before he has to pay.
      const days = i.kind === 'invoice' ? usualOf(i.counterparty) : null;
      const falls = Math.max(due, dated + (days ?? 0));
      show({ ...i, open, key: `item ${i.id}`, dated, due }, WHOLE, falls);
    }
    // What a list says of a side is all of it up to its day: the ledger's own entries would be the same items again.
    const isListed = filed.some((i) => i.kind === 'invoice');
    if (isListed && since === null) continue;
    const delays = delaysOf(by.forWhat);
    for (const item of items) {
      const left = since === null ? item.open : (since.since.get(item.key) ?? 0);
      if (left === 0) continue;
      const i = { ...item, open: left as OpenItem['open'] };
      const comes = comesBy(i, by, delays);
      const shown = {
        key: `ledger ${i.key}`,
        side,
        kind: 'invoice' as const,
        number: i.reference,
        counterparty: i.counterparty,
        dated: i.dated,
        amount: i.amount,
        open: i.open,
        account: i.account,
        from: null,
      };
      // What comes in shares is due with the first of them that is open.
      const due = comes.shares[0]?.day ?? i.dated + (usualOf(i.counterparty) ?? usual);
      show({ ...shown, due }, comes);
    }
  }
  return out;
}

/** How an item of the ledger comes by its terms: in shares, or as a part of a balance that a rule fixes. */
export type ItemComes = {
  readonly shares: readonly ItemShare[];
  readonly ruled: boolean;
  readonly badDebt: AccountId | null;
  readonly tax: { readonly scheme: string; readonly owes: number } | null;
};

const WHOLE: ItemComes = { shares: [], ruled: false, badDebt: null, tax: null };

function comesBy(item: LedgerItem, by: ItemTerms, delays: ReturnType<typeof delaysBy>): ItemComes {
  const of = by.forWhat(item.key);
  const terms = of && by.termsOf(of.account, item.dated);
  if (!terms) return WHOLE;
  const parts = sharesOn(terms, (through) => by.debtOf(item.side, through) === item.account);
  if (parts === null) return { ...WHOLE, ruled: true };
  const tax = of.tax < item.amount ? of.tax : 0;
  const scheme = by.taxes.find((t) => t.id === terms.tax?.scheme && t.on === 'payment');
  const owed = scheme && (scheme.owed === 'net' || item.side === 'in') ? { scheme: scheme.id } : null;
  if (parts.length === 0) {
    const owes = Math.round((tax * item.open) / item.amount);
    return { ...WHOLE, tax: owed && { ...owed, owes } };
  }
  const shares = sharesOfItem(item, tax, parts, {
    days: by.days,
    onPayment: scheme !== undefined,
    delay: delays(of.account, item.counterparty),
  });
  const badDebt = parts.map((p) => p.badDebt).find((a) => a !== null);
  const owes = shares.reduce((t, s) => t + s.owes, 0);
  return { shares, ruled: false, badDebt: badDebt ?? null, tax: owed && { ...owed, owes } };
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
      ...(i.comes.shares.length > 0 ? { shares: i.comes.shares } : {}),
      badDebt: i.comes.badDebt,
      tax: i.comes.tax,
      ruled: i.comes.ruled,
      counted: state === 'counted' && !(i.kind === 'order' && without.includes(source)),
      onTop: (onTop as readonly CashSource[]).includes(source),
    };
  });
