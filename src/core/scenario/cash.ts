import { toDayNumber, type DayNumber } from '@/core/calendar';
import type { Adjusts, AdjustsOf, Budget, Cash, DatedItem } from '@/core/model';
import { minor, roundRatio, multiplyRatio, ratio } from '@/core/money';
import { isOn, type Assumed, type Assumption, type AssumptionOf } from './assumed';
import { plusMonths } from './rows';
import { percentOfSize, ratioOfSize, sizeOfPercent } from './sizes';

/* What assumptions make of what a company's money follows beyond its budgets. */

type CashChange = AssumptionOf<'datedMoved' | 'rate'>;

/** Whether an adjustment changes the company's money, and with it every plan. */
export const isOfCompany = (what: Adjusts): boolean =>
  what.on === 'datedMoved' ||
  what.on === 'items' ||
  (what.on === 'rate' && ['lineRate', 'limit', 'floor'].includes(what.of));

const isCashChange = (a: Assumption): a is CashChange => isOfCompany(a.adjustment.what) && !isItemsChange(a);

/** The company's money as a case assumes it; the same object where it changes none of it. `start`: the last day that is known. */
export function cashIn(cash: Cash, assumed: Assumed, start: DayNumber | null): Cash {
  let out = cash;
  for (const a of assumed) if (isCashChange(a)) out = after(out, a, start);
  return out;
}

function after(cash: Cash, { adjustment: { what }, size }: CashChange, start: DayNumber | null): Cash {
  if (what.on === 'datedMoved') {
    const next = cash.dated.map((d) => (d.id === what.item ? movedItem(d, size, start) : d));
    return next.every((d, i) => d === cash.dated[i]) ? cash : { ...cash, dated: next };
  }
  const line = cash.creditLine;
  const value = (was: number) => Math.max(0, what.by === 'value' ? size : was + size);
  switch (what.of) {
    case 'floor':
      return { ...cash, floor: minor(value(cash.floor ?? 0)) };
    case 'limit':
      return line ? { ...cash, creditLine: { ...line, limit: minor(value(line.limit)) } } : cash;
    case 'lineRate':
      return line
        ? { ...cash, creditLine: { ...line, rate: percentOfSize(value(sizeOfPercent(line.rate))) } }
        : cash;
    case 'incomeTax':
    case 'interest':
      return cash;
  }
}

/** A dated item so many months later; one that came once and is over stays where it was. */
function movedItem(item: DatedItem, months: number, start: DayNumber | null): DatedItem {
  if (item.repeat === null && start !== null && toDayNumber(item.first) <= start) return item;
  const until = item.repeat?.until ?? null;
  return {
    ...item,
    first: plusMonths(item.first, months),
    repeat: item.repeat && { ...item.repeat, until: until && plusMonths(until, months) },
  };
}

/** An open item as it is expected, as far as assumptions look at it. */
type Item = {
  readonly key: string;
  readonly side: 'in' | 'out';
  readonly kind: string;
  readonly counterparty: string;
  readonly due: DayNumber;
  readonly expected: DayNumber;
  readonly open: number;
  readonly comes: {
    readonly shares: readonly ItemShare[];
    readonly ruled: boolean;
    readonly tax: { readonly owes: number } | null;
  };
};
type ItemShare = {
  readonly day: DayNumber;
  readonly amount: number;
  readonly to: 'bank' | 'lost' | 'tax';
  readonly owes: number;
};

/** What was taken into any of some plans about open items, each once: it counts for every plan. */
export function itemsTakenIn(budgets: readonly Pick<Budget, 'applied'>[]): readonly AssumptionOf<'items'>[] {
  const all = new Map<string, AssumptionOf<'items'>>();
  for (const { applied } of budgets)
    for (const a of applied) if (isItemsChange(a) && !all.has(a.adjustment.id)) all.set(a.adjustment.id, a);
  return [...all.values()];
}

/** What of a case is about open items. */
export const isItemsChange = (a: Assumption): a is AssumptionOf<'items'> => isOn(a, 'items');

/**
 * Open items as a case assumes them; the same list where it changes none. What is paid later counts from the day it is due,
 * and comes no sooner than it would have; what is never paid is written off on that day.
 */
export function itemsIn<T extends Item>(
  items: readonly T[],
  assumed: readonly AssumptionOf<'items'>[],
  start: DayNumber,
): readonly T[] {
  const out = items.map((item) => assumed.reduce((i, a) => changedItem(i, a, start), item));
  return out.every((i, k) => i === items[k]) ? items : out;
}

/** Whether an adjustment is about an open item. */
export const reachesItem = (
  what: AdjustsOf<'items'>,
  item: Pick<Item, 'key' | 'side' | 'kind' | 'counterparty'>,
): boolean =>
  item.side === what.side &&
  item.kind === 'invoice' &&
  (what.item === null || what.item === item.key) &&
  (what.counterparty === null || what.counterparty === item.counterparty);

function changedItem<T extends Item>(
  item: T,
  { adjustment: { what }, size }: AssumptionOf<'items'>,
  start: DayNumber,
): T {
  if (!reachesItem(what, item)) return item;
  const { comes } = item;
  const put = (shares: readonly ItemShare[], expected: DayNumber): T => ({
    ...item,
    expected,
    // It has a day of its own now, whatever fixes the balance that it is part of.
    comes: { ...comes, shares, ruled: false },
  });
  if (what.as === 'later') {
    const later = (due: DayNumber, expected: DayNumber): DayNumber =>
      size < 0 ? Math.max(start + 1, expected + size) : Math.max(expected, due + size);
    // Of what comes in shares each is due on its own day.
    const shares = comes.shares.map((s) => ({ ...s, day: later(s.day, s.day) }));
    if (shares.length > 0) return put(shares, Math.min(...shares.map((s) => s.day)));
    return put([], later(item.due, item.expected));
  }
  const paid =
    what.as === 'never' ? 0 : roundRatio(multiplyRatio(ratio(item.open), ratioOfSize(Math.max(0, size))));
  const day = Math.max(start + 1, item.due);
  const owes = comes.tax?.owes ?? 0;
  const owesPaid = item.open === 0 ? 0 : Math.round((owes * paid) / item.open);
  const shares: ItemShare[] = [
    { day, amount: paid, to: 'bank' as const, owes: owesPaid },
    { day, amount: item.open - paid - (owes - owesPaid), to: 'lost' as const, owes: 0 },
    { day, amount: owes - owesPaid, to: 'tax' as const, owes: 0 },
  ].filter((s) => s.amount !== 0);
  return put(shares, day);
}
