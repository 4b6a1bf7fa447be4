import type { DayNumber } from '@/core/calendar';
import {
  ACTIVITY,
  journalOf,
  ownersOf,
  rowAt,
  type Journal,
  type LedgerBlock,
  type View,
} from '@/core/ledger';
import type { Account, CashSource } from '@/core/model';
import type { DayRange } from './forecast';

/** Sources put together as far as a ledger tells them apart: whoever pays says nothing of what was planned or open. */
export const FLOWS = ['customers', 'suppliers', 'payroll', 'taxes', 'loans', 'owners', 'other'] as const;
export type Flow = (typeof FLOWS)[number];

export const FLOW_OF: Readonly<Record<CashSource, Flow>> = {
  openInvoices: 'customers',
  newSales: 'customers',
  salesOrders: 'customers',
  openBills: 'suppliers',
  newPurchases: 'suppliers',
  purchaseOrders: 'suppliers',
  payroll: 'payroll',
  taxes: 'taxes',
  loans: 'loans',
  creditLine: 'loans',
  owners: 'owners',
  otherReceipts: 'other',
  disposals: 'other',
  other: 'other',
  underWay: 'other',
  moved: 'other',
};

const byFlow = <T>(of: (flow: Flow) => T): Record<Flow, T> =>
  Object.fromEntries(FLOWS.map((f) => [f, of(f)])) as Record<Flow, T>;

/** Money that went through the banks, by flow and day (index 0 is the first day of the range). */
export type Happened = Readonly<Record<Flow, Float64Array>>;

/** Whose money it is that went through the banks, and which of a ledger's entries are asked for. */
type Asked = readonly [
  blocks: readonly LedgerBlock[],
  view: View,
  accounts: readonly Account[],
  flowOf: (account: Account) => Flow,
  range: DayRange,
];

/**
 * What the banks did in a range of closed days, by what stood against them in each journal entry. A tax beside a sale or a
 * purchase goes with it; between two banks nothing went in or out; an entry without its other side is other money.
 */
export function happenedIn(...asked: Asked): Happened {
  const [, , , , { from, to }] = asked;
  const days = Math.max(0, to - from + 1);
  const out = byFlow(() => new Float64Array(days));
  eachMove(asked, (flow, amount, day) => (out[flow][day - from]! += amount));
  return out;
}

/** A journal entry that moved the banks, by its first row. */
export type Move = { readonly block: LedgerBlock; readonly row: number; readonly amount: number };

/** The largest of the moves of each flow in a range of days, of those that go one way; null where none does. */
export function largestIn(...asked: Asked): (flow: Flow, way: 1 | -1) => Move | null {
  const largest = new Map<string, Move>();
  eachMove(asked, (flow, amount, _, block, row) => {
    const key = `${flow} ${Math.sign(amount)}`;
    const known = largest.get(key);
    if (!known || Math.abs(amount) > Math.abs(known.amount)) largest.set(key, { block, row, amount });
  });
  return (flow, way) => largest.get(`${flow} ${way}`) ?? null;
}

function eachMove(
  [blocks, view, accounts, flowOf, { from, to }]: Asked,
  take: (flow: Flow, amount: number, day: DayNumber, block: LedgerBlock, row: number) => void,
): void {
  const byId = new Map(accounts.map((a) => [a.id, a]));
  for (const block of blocks) {
    const owners = ownersOf(block, view, byId);
    const journal = journalOf(block);
    for (let k = 0; k < journal.starts.length - 1; k++) {
      const head = rowAt(journal, journal.starts[k]!);
      const day = block.day[head]!;
      if (day < from || day > to || block.mark[head] !== ACTIVITY) continue;
      const flows = flowsOf(block, owners, flowOf, journal, k);
      for (const [flow, amount] of flows) take(flow, amount, day, block, head);
    }
  }
}

/** Money into the banks of one entry, by flow. */
function flowsOf(
  block: LedgerBlock,
  owners: readonly (Account | undefined)[],
  flowOf: (account: Account) => Flow,
  journal: Journal,
  k: number,
): ReadonlyMap<Flow, number> {
  const flows = new Map<Flow, number>();
  let bank = 0;
  let any = false;
  let tax = 0;
  let against = 0;
  for (let i = journal.starts[k]!; i < journal.starts[k + 1]!; i++) {
    const row = rowAt(journal, i);
    const account = owners[block.account[row]!];
    const amount = block.amount[row]!;
    if (account?.kind === 'bank') {
      bank += amount;
      any = true;
      continue;
    }
    if (!account) continue;
    against -= amount;
    const flow = flowOf(account);
    if (flow === 'taxes') tax -= amount;
    else flows.set(flow, (flows.get(flow) ?? 0) - amount);
  }
  if (!any) return new Map();
  const most = [...flows].sort((a, b) => Math.abs(b[1]) - Math.abs(a[1]))[0]?.[0] ?? 'taxes';
  if (tax !== 0) flows.set(most, (flows.get(most) ?? 0) + tax);
  const left = bank - against;
  if (left !== 0) flows.set('other', (flows.get('other') ?? 0) + left);
  return flows;
}

/** Two readings of the same days beside each other: what was expected then, and what happened. */
export type ThenAndNow = {
  readonly ranges: readonly DayRange[];
  /** The bank at the end of each range. */
  readonly then: readonly number[];
  readonly now: readonly number[];
  /** What the banks held at the start is another figure now: the ledger was changed since. */
  readonly opening: number;
  /** Money in each range, by flow: as it was expected, as it was, and now less then. */
  readonly expected: Readonly<Record<Flow, readonly number[]>>;
  readonly happened: Readonly<Record<Flow, readonly number[]>>;
  readonly differences: Readonly<Record<Flow, readonly number[]>>;
};

/**
 * A kept forecast beside what happened, over ranges of days that begin on the day after its start. In each range the bank
 * now is the bank then, the opening's difference and the differences by flow up to it.
 */
export function thenAndNow(
  then: {
    readonly start: DayNumber;
    readonly opening: number;
    readonly sources: ReadonlyMap<CashSource, Float64Array>;
  },
  now: { readonly opening: number; readonly happened: Happened },
  ranges: readonly DayRange[],
): ThenAndNow {
  const sum = (days: Float64Array, { from, to }: DayRange) => {
    let total = 0;
    for (let d = from; d <= to; d++) total += days[d - then.start - 1] ?? 0;
    return total;
  };
  const expected = (flow: Flow, range: DayRange) =>
    [...then.sources].reduce((t, [source, days]) => (FLOW_OF[source] === flow ? t + sum(days, range) : t), 0);
  const was = byFlow((f) => ranges.map((r) => expected(f, r)));
  const is = byFlow((f) => ranges.map((r) => sum(now.happened[f], r)));
  const closings = (opening: number, by: Record<Flow, number[]>) => {
    let stands = opening;
    return ranges.map((_, i) => (stands += FLOWS.reduce((t, f) => t + by[f][i]!, 0)));
  };
  return {
    ranges,
    then: closings(then.opening, was),
    now: closings(now.opening, is),
    opening: now.opening - then.opening,
    expected: was,
    happened: is,
    differences: byFlow((f) => ranges.map((_, i) => is[f][i]! - was[f][i]!)),
  };
}
