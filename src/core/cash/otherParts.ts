import { toDayNumber, type DayNumber } from '@/core/calendar';
import type { AccountId, CashSource, DatedItem } from '@/core/model';
import { datesOf, WHAT, firstOf, STAND_INS } from '@/core/schedule';
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

/** Parts that follow from no line: open items, orders, dated items, balances that have no items. */
export function otherParts(
  table: AccountTable,
  input: ProjectionInput,
  days: number,
  out: PostingBuilder,
): Part[] {
  const parts: Part[] = [];
  const bank = table.of(defaultBank(input));
  const until = input.start + days;
  const unsettled = new Map<AccountId, number>();
  for (const a of input.accounts)
    if (a.kind === 'receivable' || a.kind === 'payable') unsettled.set(a.id, input.opening.get(a.id) ?? 0);
  const pair = (day: DayNumber, to: number, from: number, amount: number, what: number, since: DayNumber) => {
    out.add(day, to, amount, -1, what, since);
    out.add(day, from, -amount, -1, what, since);
  };
  for (const item of input.items) {
    const sign = item.side === 'in' ? 1 : -1;
    const open =
      (item.kind === 'invoice' ? item.account : null) ??
      (item.side === 'in'
        ? firstOf(input.accounts, 'receivable', STAND_INS.receivable)
        : firstOf(input.accounts, 'payable', STAND_INS.payable));
    const through = table.of(open);
    const money = sign * item.open;
    if (!item.counted) {
      if (item.kind === 'invoice') unsettled.set(open, (unsettled.get(open) ?? 0) - money);
      continue;
    }
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
    } else unsettled.set(open, (unsettled.get(open) ?? 0) - money);
    pair(day, bank, through, money, item.kind === 'order' ? WHAT.order : WHAT.item, item.dated);
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
  for (const [account, left] of unsettled) {
    if (left === 0) continue;
    const kind = input.accounts.find((a) => a.id === account)?.kind;
    const place = table.of(account);
    // What stands without items runs off in equal parts.
    for (let i = 0, given = 0; i < input.runOff; i++) {
      const part = Math.trunc((left * (i + 1)) / input.runOff) - given;
      given += part;
      pair(input.start + 1 + i, bank, place, part, WHAT.opening, input.start);
    }
    parts.push({
      of: 'runOff',
      key: `runOff ${account}`,
      source: kind === 'receivable' ? 'openInvoices' : 'openBills',
      postings: out.take(),
    });
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
    const payable = table.of(scheme.payable ?? firstOf(input.accounts, 'taxPayable', STAND_INS.tax));
    const bank = table.of(defaultBank(input));
    out.add(r.due, bank, -r.owed, -1, WHAT.tax, r.to);
    out.add(r.due, payable, r.owed, -1, WHAT.tax, r.to);
    return { of: 'tax', key: `tax ${r.scheme} ${r.to}`, source: 'taxes', postings: out.take() };
  });
}
