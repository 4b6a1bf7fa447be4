import type { DayNumber } from '@/core/calendar';
import type { AccountId, Banks } from '@/core/model';
import { STAND_INS, WHAT } from '@/core/schedule';
import type { ProjectionInput } from '../input';
import { PostingBuilder, type Postings } from '../postings';
import type { Part, Projected } from '../projected';
import { addPart, nothingOwn, periodsByDay, type Sums } from '../sums';
import { eventsUntil, isNamed, profitPlaces, type Event, type Group } from './events';
import { matchMovements, type BankEntry, type Matching, type NamesOf } from './match';
import { isCovered, type BankStand, type Movement } from './stands';
import { add } from './words';

/** What a part of an event becomes: it moved, on an account; it lapsed; it falls on another day; it stays. */
type Portion = { readonly amount: number } & (
  | { readonly to: 'moved'; readonly day: DayNumber; readonly bank: number }
  | { readonly to: 'lapsed' }
  | { readonly to: 'later'; readonly day: DayNumber }
  | { readonly to: 'stays' }
);

/** Money that was planned for a day that is past and has not moved. */
export type Waiting = { readonly event: Event; readonly amount: number; readonly to: DayNumber };
/** Takings and costs at once of days that are past: what came and went stands in their place. */
export type Lapsed = { readonly part: Part; readonly amount: number };

/** A projection as it goes on from what banks say. */
export type Today = {
  /** The last day that any bank tells. */
  readonly day: DayNumber;
  readonly stands: readonly BankStand[];
  readonly matching: Matching;
  readonly waiting: readonly Waiting[];
  readonly lapsed: readonly Lapsed[];
  /**
   * By account: what the bank held at the closed day beyond the ledger's balance and its uncleared entries, and what it holds
   * on its last day beyond what is known to have moved.
   */
  readonly off: ReadonlyMap<AccountId, { readonly atStart: number; readonly atEnd: number }>;
  readonly projected: Projected;
};

export type TodayInput = {
  readonly stands: readonly BankStand[];
  readonly entries: readonly BankEntry[];
  readonly said: Banks['said'];
  readonly namesOf: NamesOf;
  /** The day itself where business is done on it, else the next such day. */
  readonly working: (day: DayNumber) => DayNumber;
};

/** Planned payments so many days ahead may have moved already. */
const AHEAD = 10;
/** Items are looked for however late they are expected. */
const FAR = 400;

/**
 * A projection from the closed day, as it goes on from what banks say of days after it. What moved stands on the day it moved;
 * what did not, though its day is past and its bank's movements are known, falls on the next working day; takings and costs
 * at once of such days lapse. What moved and is nothing planned stands against “moved, not posted” until the month is closed,
 * entries that the bank has not cleared against “under way”, so that every day balances and each bank holds on its day
 * what it says. The profit and loss of no month changes. The projection given is not written on.
 */
export function fromToday(
  projected: Projected,
  input: Pick<ProjectionInput, 'start' | 'periods' | 'accounts' | 'opening'>,
  told: TodayInput,
): Today {
  const { stands } = told;
  const { start, table } = projected;
  const day = Math.max(...stands.map((s) => s.day));
  const isProfit = profitPlaces(table, input.accounts);
  // Of lines and rows only a few days ahead may have moved already.
  const events = eventsUntil(projected, isProfit, (part) => day + (part.of === 'item' ? FAR : AHEAD));
  const bookAt = (account: AccountId) => input.opening.get(account) ?? 0;
  const { entries, said, namesOf } = told;
  const matching = matchMovements({ stands, start, entries, events, said, namesOf, bookAt });
  const places = { moved: table.of(STAND_INS.moved), underWay: table.of(STAND_INS.underWay) };
  const standOf = new Map(stands.map((s) => [table.of(s.account), s]));
  const later = told.working(day + 1);
  const isPast = (e: Event): boolean => {
    const stand = standOf.get(e.bank);
    return stand !== undefined && e.day <= stand.day && isCovered(stand.covered, e.day);
  };
  const anonymous = coveredTogether(matching, standOf, isPast, (m) => said[m.key] !== undefined);
  const portions = new Map<Event, Portion[]>();
  for (const c of matching.claims)
    if (c.of === 'event')
      add(portions, c.event, {
        to: 'moved',
        amount: c.amount,
        day: c.movement.day,
        bank: table.of(c.movement.account),
      });
  const waiting: Waiting[] = [];
  const lapsed = new Map<Part, number>();
  for (const [event, left] of matching.left) {
    if (left === 0) continue;
    if (!isPast(event)) {
      if (portions.has(event)) add(portions, event, { to: 'stays', amount: left });
      continue;
    }
    const together = event.atOnce ? left : (anonymous.get(event) ?? 0);
    if (together !== 0) {
      add(portions, event, { to: 'lapsed', amount: together });
      lapsed.set(event.part, (lapsed.get(event.part) ?? 0) + together);
    }
    if (left === together) continue;
    add(portions, event, { to: 'later', amount: left - together, day: later });
    waiting.push({ event, amount: left - together, to: later });
  }
  const out = new PostingBuilder();
  const changed = new Map<Part, Part>();
  const byPart = new Map<Part, Map<Group, Portion[]>>();
  for (const [event, own] of portions) {
    const groups = byPart.get(event.part) ?? new Map<Group, Portion[]>();
    shareOut(event, own, groups);
    byPart.set(event.part, groups);
  }
  const periodOfDay = periodsByDay(input.periods, start, projected.days);
  const periodOf = (on: DayNumber): number => periodOfDay[on - start - 1] ?? -1;
  for (const [part, groups] of byPart) {
    rewrite(part.postings, groups, out, places.moved, isProfit, periodOf);
    changed.set(part, { ...part, postings: out.take() });
  }
  const added: Part[] = [];
  const pair = (on: DayNumber, bank: number, against: number, amount: number, what: number) => {
    out.add(on, bank, amount, -1, what, on);
    out.add(on, against, -amount, -1, what, on);
  };
  const put = (of: 'moved' | 'underWay', key: string) => {
    const postings = out.take();
    if (postings.count > 0) added.push({ of, key: `${of} ${key}`, source: of, postings });
  };
  for (const [entry, movement] of matching.uncleared) {
    const bank = table.of(entry.account);
    pair(start + 1, bank, places.underWay, -entry.amount, WHAT.underWay);
    pair(movement?.day ?? later, bank, places.underWay, entry.amount, WHAT.underWay);
    put('underWay', entry.key);
  }
  const claimed = new Map<Movement, number>();
  for (const c of matching.claims)
    if (c.of === 'event' || c.of === 'entry')
      claimed.set(c.movement, (claimed.get(c.movement) ?? 0) + c.amount);
  for (const movement of matching.rest.keys()) {
    pair(
      movement.day,
      table.of(movement.account),
      places.moved,
      movement.amount - (claimed.get(movement) ?? 0),
      WHAT.moved,
    );
    put('moved', movement.key);
  }
  const off = new Map<AccountId, { atStart: number; atEnd: number }>();
  const bankParts = [...projected.parts.values()].map((p) => changed.get(p) ?? p);
  for (const { account, day: end, amount, atStart } of stands) {
    const bank = table.of(account);
    let opened = 0;
    if (atStart !== null) {
      const uncleared = [...matching.uncleared.keys()].reduce(
        (t, e) => (e.account === account ? t + e.amount : t),
        0,
      );
      opened = atStart - (bookAt(account) - uncleared);
    }
    let stood = bookAt(account) + opened;
    for (const { postings } of [...bankParts, ...added]) stood += sumOn(postings, bank, end);
    pair(start + 1, bank, places.moved, opened, WHAT.moved);
    pair(end, bank, places.moved, amount - stood, WHAT.moved);
    put('moved', `off ${account}`);
    off.set(account, { atStart: opened, atEnd: amount - stood });
  }
  return {
    day,
    stands,
    matching,
    waiting,
    lapsed: [...lapsed].map(([part, amount]) => ({ part, amount })).filter((l) => l.amount !== 0),
    off,
    projected: withParts(projected, input.periods.length, periodOfDay, changed, added),
  };
}

/**
 * What came and went of debts that no item names, by event: movements without a name stand first for takings and costs at
 * once of their direction, and what is left of them for the oldest debts; those of which someone said what they are, for none.
 */
function coveredTogether(
  { left, rest }: Matching,
  standOf: ReadonlyMap<number, BankStand>,
  isPast: (e: Event) => boolean,
  isSaid: (m: Movement) => boolean,
): ReadonlyMap<Event, number> {
  const out = new Map<Event, number>();
  const past = [...left].filter(([e, amount]) => amount !== 0 && isPast(e));
  for (const [bank, { account }] of standOf)
    for (const sign of [1, -1]) {
      let moved = 0;
      for (const [m, amount] of rest)
        if (m.account === account && amount * sign > 0 && !isSaid(m)) moved += Math.abs(amount);
      const own = past.filter(([e, amount]) => e.bank === bank && amount * sign > 0);
      for (const [e, amount] of own) if (e.atOnce) moved -= Math.abs(amount);
      const debts = own.filter(([e]) => !e.atOnce && !isNamed(e.part)).sort(([a], [b]) => a.day - b.day);
      for (const [e, amount] of debts) {
        if (moved <= 0) break;
        const part = Math.min(moved, Math.abs(amount));
        moved -= part;
        out.set(e, sign * part);
      }
    }
  return out;
}

/** Shares what becomes of an event over its groups, in their order. */
function shareOut({ groups }: Event, portions: readonly Portion[], out: Map<Group, Portion[]>): void {
  const left = portions.map((p) => p.amount);
  for (const group of groups) {
    let needs = group.amount;
    portions.forEach((portion, i) => {
      // A group may go against the event's direction, as a discount's tax does: it goes with the first portion.
      if (needs === 0 || left[i] === 0) return;
      const isSame = needs * left[i]! > 0;
      const takes = !isSame || Math.abs(needs) <= Math.abs(left[i]!) ? needs : left[i]!;
      left[i]! -= takes;
      needs -= takes;
      add(out, group, { ...portion, amount: takes });
    });
    if (needs !== 0) add(out, group, { ...portions.at(-1)!, amount: needs });
  }
}

/** Writes postings anew, with what became of some of their groups. */
function rewrite(
  { columns, first, count }: Postings,
  groups: ReadonlyMap<Group, readonly Portion[]>,
  out: PostingBuilder,
  moved: number,
  isProfit: (place: number) => boolean,
  periodOf: (day: DayNumber) => number,
): void {
  const { day, account, amount, month, what, from } = columns;
  const starts = new Map([...groups].map(([g, portions]) => [g.first, { g, portions }]));
  for (let i = first; i < first + count; i++) {
    const found = starts.get(i);
    if (!found) {
      out.add(day[i]!, account[i]!, amount[i]!, month[i]!, what[i]!, from[i]!);
      continue;
    }
    const { g, portions } = found;
    const left = amount.slice(g.first, g.first + g.count);
    let needs = g.amount;
    portions.forEach((portion, n) => {
      const isLast = n === portions.length - 1;
      const share = needs === 0 ? 1 : portion.amount / needs;
      needs -= portion.amount;
      // Each posting's part; the bank's is exact, and what rounding leaves goes to the last of the others.
      const own = left.map((v) => (isLast ? v : Math.round(v * share)));
      own[g.bank - g.first] = portion.amount;
      const other = g.bank - g.first === g.count - 1 ? g.count - 2 : g.count - 1;
      own[other]! -= own.reduce((a, b) => a + b, 0);
      own.forEach((v, k) => (left[k]! -= v));
      emit(portion, g, own);
    });
    i = g.first + g.count - 1;
  }

  function emit(portion: Portion, { first: at, bank, count: n }: Group, own: Float64Array): void {
    const on = portion.to === 'moved' || portion.to === 'later' ? portion.day : day[at]!;
    const place = portion.to === 'moved' ? portion.bank : account[bank]!;
    // What is earned or spent stays in its period, whenever the money moves.
    let crosses = false;
    if (periodOf(on) !== periodOf(day[at]!))
      for (let i = at; i < at + n; i++) crosses ||= isProfit(account[i]!);
    const apart = crosses || portion.to === 'lapsed';
    for (let i = at; i < at + n; i++) {
      const through = i !== bank ? account[i]! : apart ? moved : place;
      out.add(crosses ? day[i]! : on, through, own[i - at]!, month[i]!, what[i]!, from[i]!);
    }
    if (!crosses) return;
    out.add(on, place, portion.amount, month[bank]!, what[bank]!, from[bank]!);
    out.add(on, moved, -portion.amount, month[bank]!, what[bank]!, from[bank]!);
  }
}

/** What a part's postings bring to an account up to a day. */
function sumOn({ columns, first, count }: Postings, place: number, until: DayNumber): number {
  let sum = 0;
  for (let i = first; i < first + count; i++)
    if (columns.account[i] === place && columns.day[i]! <= until) sum += columns.amount[i]!;
  return sum;
}

/** A projection with some parts in other postings and others added: what was handed out before stays. */
function withParts(
  projected: Projected,
  months: number,
  periodOfDay: Int16Array,
  changed: ReadonlyMap<Part, Part>,
  added: readonly Part[],
): Projected {
  const { start: begin, days: length, table } = projected;
  const isBank = Uint8Array.from(table.ids, (_, place) => Number(projected.isBank(place)));
  const [bySource, moved] = [{ ...projected.bySource }, [...projected.moved]];
  const sums: Sums = { bySource, moved, own: nothingOwn(), begin, length, isBank, periodOfDay, months };
  const parts = new Map(projected.parts);
  const put = (part: Part) => {
    addPart(sums, part, 1);
    parts.set(part.key, part);
  };
  for (const [was, now] of changed) {
    addPart(sums, was, -1);
    put(now);
  }
  added.forEach(put);
  return { ...projected, bySource, moved, parts };
}
