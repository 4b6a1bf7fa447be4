import { toDayNumber, type DayNumber } from '@/core/calendar';
import { evenPart } from '@/core/money';
import type { AccountId, CashSource, DatedItem } from '@/core/model';
import { datesOf, WHAT, accountFor, lostOn, STAND_INS } from '@/core/schedule';
import type { ExpectedItem, PlannedLine, ProjectionInput } from './input';
import { type AccountTable, type PostingBuilder } from './postings';
import { defaultBank, type Part } from './projected';
import type { TaxReturn } from './tax';

/** What orders cover of the plan: by line, then month. The first line of an account takes its orders. */
export function coveredByOrders({
  items,
  lines,
  periods,
}: ProjectionInput): ReadonlyMap<string, readonly number[]> {
  const orders = items.filter((i) => i.kind === 'order' && i.counted && !i.onTop && i.account !== null);
  const out = new Map<string, number[]>();
  if (orders.length === 0) return out;
  const ends = periods.map((p) => toDayNumber(p.end));
  const lineOf = new Map<AccountId, PlannedLine>();
  for (const l of lines) if (!lineOf.has(l.account.id)) lineOf.set(l.account.id, l);
  for (const order of orders) {
    const line = lineOf.get(order.account!);
    const month = ends.findIndex((end) => order.dated <= end);
    if (!line || month < 0) continue;
    const months = out.get(line.key) ?? periods.map(() => 0);
    months[month]! += order.open;
    out.set(line.key, months);
  }
  return out;
}

/** Where the money of open items belongs, by kind and side. */
export const ITEM_SOURCES: Record<ExpectedItem['kind'], Record<ExpectedItem['side'], CashSource>> = {
  invoice: { in: 'openInvoices', out: 'openBills' },
  order: { in: 'salesOrders', out: 'purchaseOrders' },
  disposal: { in: 'disposals', out: 'disposals' },
};

const DATED_SOURCE: Record<DatedItem['group'], (direction: DatedItem['direction']) => CashSource> = {
  owners: () => 'owners',
  loans: () => 'loans',
  taxes: () => 'taxes',
  disposals: () => 'disposals',
  other: (direction) => (direction === 'in' ? 'otherReceipts' : 'other'),
};

/** The receivable or payable of an open item. */
const owedOn = (accounts: ProjectionInput['accounts'], item: ExpectedItem): AccountId =>
  (item.kind === 'invoice' ? item.account : null) ??
  (item.side === 'in' ? accountFor(accounts, 'receivable') : accountFor(accounts, 'payable'));

/** What accounts stand at at the start without items that have days of their own, by place, debits positive. */
export function withoutItems(
  table: AccountTable,
  { accounts, opening, items }: Pick<ProjectionInput, 'accounts' | 'opening' | 'items'>,
): ReadonlyMap<number, number> {
  const out = new Map<number, number>();
  for (const [account, amount] of opening) out.set(table.of(account), amount);
  for (const item of items) {
    if (item.kind !== 'invoice' || item.ruled) continue;
    const place = table.of(owedOn(accounts, item));
    out.set(place, (out.get(place) ?? 0) - (item.side === 'in' ? 1 : -1) * item.open);
  }
  return out;
}

/** Accounts with items that have days of their own, by place: those say what is to come of them. */
export const itemized = (
  table: AccountTable,
  { accounts, items }: Pick<ProjectionInput, 'accounts' | 'items'>,
): ReadonlySet<number> =>
  new Set(items.filter((i) => i.kind === 'invoice' && !i.ruled).map((i) => table.of(owedOn(accounts, i))));

/** A pair of postings that follows from no planned month. */
const pairIn =
  (out: PostingBuilder) =>
  (day: DayNumber, to: number, from: number, amount: number, what: number, since: DayNumber): void => {
    out.add(day, to, amount, -1, what, since);
    out.add(day, from, -amount, -1, what, since);
  };

/** Open items, orders and dated items; what falls due of a tax with an item goes into `owe`, what never will into `takenBack`. */
export function otherParts(
  table: AccountTable,
  input: ProjectionInput,
  days: number,
  out: PostingBuilder,
  owe: (scheme: string, day: DayNumber, amount: number) => void,
  takenBack: (scheme: string, amount: number) => void,
): Part[] {
  const parts: Part[] = [];
  const bank = table.of(defaultBank(input));
  const until = input.start + days;
  const pair = pairIn(out);
  for (const item of input.items) {
    if (!item.counted || item.ruled) continue;
    const sign = item.side === 'in' ? 1 : -1;
    const through = table.of(owedOn(input.accounts, item));
    const money = sign * item.open;
    const day = Math.max(item.expected, input.start + 1);
    if (item.kind === 'disposal') {
      // Nothing is owed before it is sold: the money stands against what is sold, always on top of the plan.
      pair(day, bank, table.of(item.account ?? STAND_INS.other), money, WHAT.item, item.dated);
      parts.push({ of: 'item', key: `item ${item.key}`, source: 'disposals', postings: out.take() });
      continue;
    }
    if (item.kind === 'order') {
      const of = table.of(item.account ?? STAND_INS.other);
      pair(Math.max(item.dated, input.start + 1), through, of, money, WHAT.order, item.dated);
      pair(day, bank, through, money, WHAT.order, item.dated);
    } else {
      const scheme = input.taxes.find((t) => t.id === item.tax?.scheme);
      const places = {
        bank,
        lost: table.of(lostOn(item.badDebt ?? accountFor(input.accounts, 'badDebt'))),
        tax: table.of(scheme?.payable ?? accountFor(input.accounts, 'tax')),
      };
      const whole = [{ day, amount: item.open, to: 'bank' as const, owes: item.tax?.owes ?? 0 }];
      for (const { day: due, amount, to, owes } of item.shares ?? whole) {
        const on = Math.max(due, input.start + 1);
        const what = to === 'bank' ? WHAT.item : WHAT.badDebt;
        pair(on, places[to], through, sign * amount, what, item.dated);
        if (!item.tax) continue;
        if (to === 'bank') owe(item.tax.scheme, on, sign * owes);
        if (to === 'tax') takenBack(item.tax.scheme, sign * amount);
      }
    }
    parts.push({
      of: item.kind === 'order' ? 'order' : 'item',
      key: `item ${item.key}`,
      source: ITEM_SOURCES[item.kind][item.side],
      postings: out.take(),
    });
  }
  for (const item of input.dated) {
    const to = table.of(item.bank ?? defaultBank(input));
    const from = table.of(item.against ?? STAND_INS.other);
    const money = item.direction === 'in' ? item.amount : -item.amount;
    for (const day of datesOf(item, input.start, until)) pair(day, to, from, money, WHAT.dated, day);
    parts.push({
      of: 'dated',
      key: `dated ${item.key}`,
      source: DATED_SOURCE[item.group](item.direction),
      postings: out.take(),
    });
  }
  return parts;
}

/**
 * What nothing tells when it comes: receivables and payables run off in equal parts over calendar days up to a kept end,
 * what was withheld from pay is paid on the first day on which anything withheld by then is due.
 */
export function untoldParts(
  table: AccountTable,
  input: ProjectionInput,
  left: ReadonlyMap<AccountId, number>,
  out: PostingBuilder,
): Part[] {
  const parts: Part[] = [];
  const bank = table.of(defaultBank(input));
  const pair = pairIn(out);
  for (const { id, kind } of input.accounts) {
    const stands = left.get(id) ?? 0;
    if ((kind !== 'receivable' && kind !== 'payable') || stands === 0) continue;
    const days = Math.max(1, input.runOffEnd(id) - input.start);
    const place = table.of(id);
    // The larger parts come first, so that what is left runs on in the same parts after each closing.
    for (let i = 0; i < days; i++)
      pair(input.start + 1 + i, bank, place, evenPart(stands, days, i), WHAT.opening, input.start);
    const source = kind === 'receivable' ? 'openInvoices' : 'openBills';
    parts.push({ of: 'runOff', key: `runOff ${id}`, source, postings: out.take() });
  }
  for (const { account, day, source } of input.settled) {
    const stands = left.get(account) ?? 0;
    if (stands === 0) continue;
    const on = Math.max(day, input.start + 1);
    pair(on, bank, table.of(account), stands, WHAT.opening, input.start);
    parts.push({ of: 'settled', key: `settled ${account}`, source, postings: out.take() });
  }
  return parts;
}

/** The payments of a tax's returns. */
export function returnParts(
  table: AccountTable,
  input: ProjectionInput,
  returns: readonly TaxReturn[],
  out: PostingBuilder,
): Part[] {
  return returns.map((r) => {
    const scheme = input.taxes.find((t) => t.id === r.scheme)!;
    const payable = table.of(scheme.payable ?? accountFor(input.accounts, 'tax'));
    const bank = table.of(defaultBank(input));
    out.add(r.due, bank, -r.owed, -1, WHAT.tax, r.to);
    out.add(r.due, payable, r.owed, -1, WHAT.tax, r.to);
    return { of: 'tax', key: `tax ${r.scheme} ${r.to}`, source: 'taxes', postings: out.take() };
  });
}
