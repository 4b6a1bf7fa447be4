import {
  fromDayNumber,
  toDayNumber,
  type DayNumber,
  type FiscalCalendar,
  type Period,
} from '@/core/calendar';
import { defaultBank } from '@/core/cash';
import { CLOSING, OPENING, type LedgerBlock, type View } from '@/core/ledger';
import {
  isProfitAndLoss,
  type Account,
  type AccountId,
  type Book,
  type Cash,
  type CashSource,
  type DatedItem,
  type ItemChange,
} from '@/core/model';
import { minor } from '@/core/money';
import type { RowResult } from '@/core/plan';
import { datesOf, type Days, type RowPosting, type What } from '@/core/schedule';

/*
 * What was planned for closed months and did not happen: purchases, sales, drawings, installments, what owners were to pay
 * in or draw, dated items. It waits by name until its entry comes, or someone says what became of it.
 */

/** Something planned for one day of a closed month, by which it is known in the ledger. */
type Event = {
  readonly key: string;
  readonly of: RowEvent | 'dated';
  readonly name: string;
  readonly day: DayNumber;
  /** The account that tells it apart, and what it moves there, debits positive. */
  readonly account: AccountId;
  readonly amount: number;
  /** That account is a bank, where so much else goes by: only just this amount is it. */
  readonly exact: boolean;
  /** What comes in (+) or goes out (−) by it in the end. */
  readonly money: number;
  readonly source: CashSource;
  /** Its row: the budget's id and its own; null of a dated item. */
  readonly row: string | null;
  readonly postings: readonly RowPosting[];
};

/** What was planned for a closed month and has no entry, or one of a part. */
export type MissedEvent = Event & {
  /** The part of its money that is missing still: 1 where nothing came. */
  readonly missing: number;
  /** The day on which it counts until its entry comes. */
  readonly expected: DayNumber;
  readonly state: ItemChange['state'];
  readonly change: ItemChange | null;
};

/** What rows bring about that the ledger must show: its money's source, and the postings that belong to it. */
const EVENTS = {
  purchase: { source: 'other', with: ['purchase', 'tax', 'payment'] },
  sale: { source: 'disposals', with: ['sale'] },
  drawing: { source: 'loans', with: ['drawing'] },
  repayment: { source: 'loans', with: ['repayment', 'interest'] },
  equity: { source: 'owners', with: ['equity'] },
} as const satisfies {
  readonly [W in What]?: { readonly source: CashSource; readonly with: readonly What[] };
};
type RowEvent = keyof typeof EVENTS;
const isRowEvent = (what: What): what is RowEvent => what in EVENTS;

type Known = {
  readonly start: DayNumber;
  readonly accounts: ReadonlyMap<AccountId, Account>;
  readonly events: readonly Event[];
};
const known = new WeakMap<readonly RowPosting[], Map<string, Known>>();

/**
 * The events of a row up to a day that the ledger must show; the same list while the row's postings stay.
 *
 * @param postings those of the closed months that its budget ruled
 */
export function eventsOfRow(
  { row }: Pick<RowResult, 'row'>,
  budget: string,
  postings: readonly RowPosting[],
  accounts: ReadonlyMap<AccountId, Account>,
  start: DayNumber,
): readonly Event[] {
  if (row.kind !== 'asset' && row.kind !== 'loan' && row.kind !== 'equity') return NONE;
  let own = known.get(postings);
  if (!own) known.set(postings, (own = new Map()));
  const of = `${budget} ${row.id}`;
  const was = own.get(of);
  if (was?.start === start && was.accounts === accounts) return was.events;
  const days = new Map<string, RowPosting[]>();
  for (const p of postings) {
    if (!isRowEvent(p.what) || p.of > start || p.account !== row.account) continue;
    const key = `${p.what} ${p.of}`;
    days.set(key, [...(days.get(key) ?? []), p]);
  }
  const events = [...days].map(([key, main]): Event => {
    const day = main[0]!.of;
    const kind = main[0]!.what as RowEvent;
    const moves = pairsOf(postings, day, kind, accounts);
    const money = moves.reduce((t, p) => (accounts.get(p.account)?.kind === 'bank' ? t + p.amount : t), 0);
    return {
      key: `missed ${of} ${key}`,
      of: kind,
      name: row.name,
      day,
      account: row.account,
      amount: main.reduce((t, p) => t + p.amount, 0),
      exact: false,
      money,
      source: EVENTS[kind].source,
      row: of,
      postings: moves,
    };
  });
  own.set(of, { start, accounts, events });
  return events;
}

const NONE: readonly Event[] = [];

/**
 * What of an event can still happen: pairs that touch no profit and loss, which stays as it was closed. Of a sale that is its
 * price; its gain comes with its entry.
 */
function pairsOf(
  postings: readonly RowPosting[],
  day: DayNumber,
  kind: RowEvent,
  accounts: ReadonlyMap<AccountId, Account>,
): readonly RowPosting[] {
  const out: RowPosting[] = [];
  const belongs: readonly What[] = EVENTS[kind].with;
  for (let i = 0; i + 1 < postings.length; i += 2) {
    const pair = [postings[i]!, postings[i + 1]!];
    if (pair[0]!.of !== day || !belongs.includes(pair[0]!.what)) continue;
    const kinds = pair.map((p) => accounts.get(p.account)?.kind);
    if (kinds.some((k) => k !== undefined && isProfitAndLoss(k))) continue;
    // What is written off goes out of the books with the entry of the sale; its price is what is waited for.
    if (kind === 'sale' && !kinds.includes('bank')) continue;
    out.push(...pair);
  }
  return out;
}

/** So many closed months back dated items are looked for: what nobody missed for longer is no plan any more. */
const MONTHS_BACK = 6;

/** Dated items of closed months, one by one; `dated` are those that count. */
export function datedEvents(
  dated: readonly Dated[],
  bank: Cash['bank'],
  accounts: Book['accounts'],
  past: readonly Period[],
): readonly Event[] {
  const months = past.slice(-MONTHS_BACK);
  if (months.length === 0) return NONE;
  const [after, start] = [toDayNumber(months[0]!.start) - 1, toDayNumber(months.at(-1)!.end)];
  return dated.flatMap((d) => {
    const sign = d.direction === 'in' ? 1 : -1;
    const isBare = d.against === null;
    return datesOf(d, after, start).map((day): Event => ({
      key: `missed dated ${d.id} ${day}`,
      of: 'dated',
      name: d.name,
      day,
      account: d.against ?? d.bank ?? defaultBank({ bank, accounts }),
      amount: isBare ? sign * d.amount : -sign * d.amount,
      exact: isBare,
      money: sign * d.amount,
      source: 'other',
      row: null,
      postings: [],
    }));
  });
}

type Entry = { readonly day: DayNumber; readonly period: number; readonly amount: number; left: number };

/**
 * What of each event the ledger does not show, from 0 (all came) to 1 (nothing came). On its account an entry of just its
 * amount is it, in its month first, else from the month before up to the last one closed; else what moved the same way in its
 * month or later and is no other event's: half of it is taken for the whole at another price. A month that moved the account
 * by just what was planned for it moved as planned.
 */
export function missingOf(
  blocks: readonly LedgerBlock[],
  view: View,
  calendar: FiscalCalendar,
  start: DayNumber,
  ...lists: readonly (readonly Event[])[]
): readonly (readonly [Event, number])[] {
  const events = lists.flat();
  const out: [Event, number][] = [];
  const byAccount = new Map<AccountId, Event[]>();
  for (const e of events) {
    const own = byAccount.get(e.account);
    if (own) own.push(e);
    else byAccount.set(e.account, [e]);
  }
  if (events.length === 0) return NOTHING_MISSING;
  const entries = entriesOn(new Set(byAccount.keys()), blocks, view, calendar, start);
  for (const [account, own] of byAccount) {
    const rows = entries.get(account) ?? [];
    const periodOf = (e: Event) => calendar.indexOfDay(e.day);
    let open = own.toSorted((a, b) => a.day - b.day);
    for (const period of new Set(open.map(periodOf))) {
      const [planned, moved] = [
        open.filter((e) => periodOf(e) === period),
        rows.filter((r) => r.period === period),
      ];
      const sum = planned.reduce((t, e) => t + e.amount, 0);
      if (moved.length === 0 || moved.reduce((t, r) => t + r.amount, 0) !== sum) continue;
      moved.forEach((r) => (r.left = 0));
      open = open.filter((e) => periodOf(e) !== period);
    }
    const rest = open.filter((e) => {
      const same = rows.filter((r) => r.left === e.amount && r.period >= periodOf(e) - 1);
      const it =
        same.find((r) => r.period === periodOf(e)) ?? same.find((r) => r.period > periodOf(e)) ?? same[0];
      if (it) it.left = 0;
      return it === undefined;
    });
    for (const e of rest) {
      let came = 0;
      if (!e.exact)
        for (const r of rows) {
          if (r.period < periodOf(e) || Math.sign(r.left) !== Math.sign(e.amount)) continue;
          const part = Math.sign(e.amount) * Math.min(Math.abs(r.left), Math.abs(e.amount - came));
          r.left -= part;
          came += part;
        }
      if (Math.abs(came) * 2 < Math.abs(e.amount)) out.push([e, 1 - came / e.amount]);
    }
  }
  return out;
}

const NOTHING_MISSING: readonly (readonly [Event, number])[] = [];

/** The entries of some accounts up to a day. */
function entriesOn(
  accounts: ReadonlySet<AccountId>,
  blocks: readonly LedgerBlock[],
  view: View,
  calendar: FiscalCalendar,
  start: DayNumber,
): ReadonlyMap<AccountId, Entry[]> {
  const out = new Map<AccountId, Entry[]>();
  for (const block of blocks) {
    const of = block.accounts.map((a) => view.merged.get(a) ?? a);
    const watched = of.map((a) => accounts.has(a));
    if (!watched.includes(true)) continue;
    for (let i = 0; i < block.count; i++) {
      const place = block.account[i]!;
      const mark = block.mark[i];
      if (!watched[place] || block.day[i]! > start || mark === CLOSING || mark === OPENING) continue;
      const [day, amount] = [block.day[i]!, block.amount[i]!];
      const entry = { day, period: calendar.indexOfDay(day), amount, left: amount };
      const own = out.get(of[place]!);
      if (own) own.push(entry);
      else out.set(of[place]!, [entry]);
    }
  }
  for (const own of out.values()) own.sort((a, b) => a.day - b.day);
  return out;
}

/** What has no entry, with what someone decided of it; by itself it counts on the first working day. */
export function missedEvents(
  missing: ReturnType<typeof missingOf>,
  changes: Cash['changes'],
  days: Days,
  start: DayNumber,
): readonly MissedEvent[] {
  if (missing.length === 0) return NOTHING;
  const next = days.moved(start + 1, 'next');
  return missing.map(([event, part]): MissedEvent => {
    const change = changes[event.key] ?? null;
    const day = change?.day ? toDayNumber(change.day) : next;
    return {
      ...event,
      missing: part,
      expected: day > start ? day : next,
      state: change?.state ?? 'counted',
      change,
    };
  });
}

const NOTHING: readonly MissedEvent[] = [];

/** What an event's row posts when it happens on its later day, as far as it is missing. */
function postedLater({ postings, day, expected, missing }: MissedEvent): readonly RowPosting[] {
  const later = expected - day;
  const part = (amount: number) => Math.sign(amount) * Math.round(Math.abs(amount) * missing);
  return postings.map((p) => ({
    ...p,
    day: p.day + later,
    of: p.of + later,
    amount: part(p.amount),
    ...(p.owes ? { owes: { ...p.owes, amount: part(p.owes.amount), paid: p.owes.paid + later } } : {}),
  }));
}

/** Dated items with those of closed months that count later. */
export const datedLater = (dated: readonly Dated[], missed: readonly MissedEvent[]): readonly Dated[] => [
  ...dated,
  ...missed.flatMap((m): Dated[] => {
    const item =
      m.of === 'dated' &&
      m.state === 'counted' &&
      dated.find((d) => m.key.startsWith(`missed dated ${d.id} `));
    return item
      ? [
          {
            ...item,
            key: `${item.id} ${m.day}`,
            amount: minor(Math.round(item.amount * m.missing)),
            first: fromDayNumber(m.expected),
            repeat: null,
          },
        ]
      : [];
  }),
];
type Dated = DatedItem & { readonly key: string };

/** What it posts on its later day, as far as it counts; the same list for the same event. */
export function countedLater(event: MissedEvent): readonly RowPosting[] {
  if (event.state !== 'counted') return NO_POSTINGS;
  let own = later.get(event);
  if (!own) later.set(event, (own = postedLater(event)));
  return own;
}
const later = new WeakMap<MissedEvent, readonly RowPosting[]>();
const NO_POSTINGS: readonly RowPosting[] = [];
