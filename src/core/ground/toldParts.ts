import { divideRounded, minor, plus, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { Entry } from '@/core/ledger';

/** An entry with its natural amount, whom it is of, and the period that it falls in. */
export type Sized = {
  readonly entry: Entry;
  readonly size: Minor;
  readonly name: string;
  readonly period: PeriodIndex;
};

/** A part of a difference, natural: what it adds to actual − planned; with the entries that it is about. */
export type ToldPart = { readonly amount: Minor; readonly entries: readonly Entry[] } & (
  | {
      /** Who comes every month did not come, or not as often; `on`: the day of another month that has it instead. */
      readonly of: 'missing';
      readonly name: string;
      readonly each: Minor;
      readonly came: number;
      readonly planned: number;
      readonly on: Entry['day'] | null;
    }
  | {
      /** More often than planned: the same entry twice, one that was missing the month before, or one more. */
      readonly of: 'extra';
      readonly name: string;
      readonly because: 'twice' | 'late' | 'more';
      readonly times: number;
      readonly planned: number;
    }
  /** An entry beyond all of a year before; what it is more than the plan has of one, or than a usual one. */
  | { readonly of: 'unusual'; readonly name: string; readonly size: Minor; readonly usual: Minor }
  /** A large entry of the month that the plan goes by which did not come again; `on`: the day on which it did. */
  | {
      readonly of: 'lump';
      readonly name: string;
      readonly then: Entry['day'];
      readonly on: Entry['day'] | null;
    }
  /** An entry that comes as often as the plan has it, and is larger or smaller. */
  | {
      readonly of: 'entry';
      readonly name: string;
      readonly day: Entry['day'];
      readonly size: Minor;
      readonly planned: Minor;
    }
  /** Somebody came to more or less than the plan has of them. */
  | { readonly of: 'name'; readonly name: string; readonly now: Minor; readonly planned: Minor }
  /** More or fewer entries than the plan goes by, each as it has them. */
  | { readonly of: 'number'; readonly now: number; readonly planned: number; readonly each: Minor }
  /** Entries that are larger or smaller than the plan has them. */
  | { readonly of: 'size'; readonly count: number; readonly each: Minor; readonly planned: Minor }
  /** Nothing was booked where something was planned. */
  | { readonly of: 'nothing'; readonly planned: Minor }
  /** What no single thing makes; `all`: of the whole difference. */
  | { readonly of: 'rest'; readonly count: number; readonly all: boolean }
);

export type PartsInput = {
  /** Entries of the month. */
  readonly now: readonly Sized[];
  /** Those of the twelve months before it and of the two after it, as far as there are any. */
  readonly around: readonly Sized[];
  readonly month: PeriodIndex;
  /** What the plan has of the month, at the activity that there was. */
  readonly planned: Minor;
  /** Entries of the month that the plan goes by; null where it goes by none. */
  readonly basis: readonly Sized[] | null;
  /** How often the plan has it paid in the month, where it says so. */
  readonly paydays: number | null;
  /** Whether all that comes every month is planned for: not where the plan knows more of it than the entries do. */
  readonly regular: boolean;
};

/** A habit is what was so in all of the months before, or in all but one of them; in fewer than three there is none. */
const HABIT_OF = 6;
const HABIT = 3;
/** Who comes more often is a shop, and none of its days is regular. */
const MOST_TIMES = 3;
/** What is told of a single thing is at least so much of the difference, in percent. */
const WORTH = 10;
/** So many entries are told one by one. */
const FEW = 6;
/** More is no help. */
const MOST_TOLD = 5;

const total = (list: readonly Sized[]): Minor => minor(list.reduce((t, e) => plus(t, e.size), 0));
const middle = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[Math.floor((values.length - 1) / 2)] ?? 0;
const times = (amount: number, by: number, of: number): Minor =>
  divideRounded(amount, by, of, 'halfAwayFromZero');

function byName(list: readonly Sized[]): Map<string, Sized[]> {
  const out = new Map<string, Sized[]>();
  for (const e of list) {
    const there = out.get(e.name);
    if (there) there.push(e);
    else out.set(e.name, [e]);
  }
  return out;
}

/**
 * Who came in each of the months before but one at most, as often but for a third of them, always about as much: how often in
 * a month, and how much each time. Customers who happen to come back are no habit.
 */
function regulars({
  around,
  month,
}: PartsInput): Map<string, { readonly often: number; readonly each: Minor }> {
  const out = new Map<string, { often: number; each: Minor }>();
  const before = around.filter((e) => e.period < month && e.period >= month - HABIT_OF);
  const months = month - Math.min(month, ...before.map((e) => e.period));
  for (const [name, list] of byName(before)) {
    if (name === '') continue;
    const counts = new Map<PeriodIndex, number>();
    for (const e of list) counts.set(e.period, (counts.get(e.period) ?? 0) + 1);
    const often = middle([...counts.values()]);
    const each = middle(list.map((e) => e.size));
    const steady = list.every((e) => Math.abs(e.size - each) * 4 <= Math.abs(each));
    const others = [...counts.values()].filter((n) => n !== often).length;
    const comes = counts.size >= HABIT && counts.size >= months - 1 && others * 3 <= counts.size;
    if (comes && often <= MOST_TIMES && steady) out.set(name, { often, each: minor(each) });
  }
  return out;
}

/**
 * Why a month came to something else than was planned, by its entries: parts that add up to the difference exactly, largest
 * first. What is ordinary is no part: it goes into the rest.
 */
export function partsOf(input: PartsInput): readonly ToldPart[] {
  const { now, around, month, planned, basis, paydays } = input;
  const difference = minor(plus(total(now), -planned));
  if (difference === 0) return [];
  const worth = Math.max(1, (Math.abs(difference) * WORTH) / 100);
  const parts: ToldPart[] = [];
  const used = new Set<Sized>();
  /** What is still to be explained on either side. */
  let expected: number = planned;
  let goesBy = basis;
  const usual = regulars(input);
  const named = byName(now);
  const comesIn = (period: PeriodIndex, name: string) =>
    around.filter((e) => e.period === period && e.name === name);
  /** A plan that goes by a month has of somebody what its part of that month was. */
  const share = (list: readonly Sized[]): Minor => {
    const all = basis ? total(basis) : 0;
    return all === 0 ? minor(0) : times(planned, total(list), all);
  };

  // The same entry twice is no other thing that happened.
  const seen = new Map<string, Sized>();
  for (const e of now) {
    if (e.entry.reference === '' || Math.abs(e.size) < worth) continue;
    const key = JSON.stringify([e.name, e.size, e.entry.reference]);
    const first = seen.get(key);
    if (first) {
      used.add(e);
      parts.push({
        of: 'extra',
        because: 'twice',
        name: e.name,
        times: 2,
        planned: 1,
        amount: e.size,
        entries: [first.entry, e.entry],
      });
    } else seen.set(key, e);
  }

  for (const [name, { often, each }] of input.regular ? usual : []) {
    const came = (named.get(name) ?? []).filter((e) => !used.has(e));
    const thens = basis?.filter((e) => e.name === name) ?? null;
    const should = paydays ?? thens?.length ?? often;
    if (came.length < should && thens?.length !== 0) {
      const short = should - came.length;
      const gone = thens?.slice(-short) ?? [];
      const amount = minor(gone.length === short ? -share(gone) : -each * short);
      if (Math.abs(amount) < worth) continue;
      const [next, last] = [comesIn(month + 1, name), comesIn(month - 1, name)];
      // The month beside it has one more than as a rule: that is where it went.
      const on =
        next.length > often ? next[0]!.entry.day : last.length > often ? last.at(-1)!.entry.day : null;
      const entries = (on === null ? last : next.length > often ? next : last).map((e) => e.entry);
      parts.push({ of: 'missing', name, each, came: came.length, planned: should, on, amount, entries });
      expected += amount;
      goesBy = goesBy && goesBy.filter((e) => !gone.includes(e));
      continue;
    }
    const more = came.slice(should);
    const amount = total(more);
    if (more.length === 0 || Math.abs(amount) < worth) continue;
    for (const e of more) used.add(e);
    const late = comesIn(month - 1, name).length < often;
    parts.push({
      of: 'extra',
      because: late ? 'late' : 'more',
      name,
      times: came.length,
      planned: should,
      amount,
      entries: more.map((e) => e.entry),
    });
  }

  // Beyond all that there was in a year, and beyond what the plan goes by.
  const before = around.filter((e) => e.period < month);
  const largest = Math.max(...before.map((e) => Math.abs(e.size)), 0);
  const ordinary =
    basis && basis.length > 0 ? times(planned, 1, basis.length) : minor(middle(before.map((e) => e.size)));
  if (before.length >= 6)
    for (const e of now) {
      const more = minor(e.size - ordinary);
      if (used.has(e) || Math.abs(e.size) * 2 <= largest * 3 || Math.abs(more) < worth * 2) continue;
      used.add(e);
      // It stands in the place of one of those that were planned.
      expected -= ordinary;
      goesBy = goesBy && goesBy.slice(0, -1);
      parts.push({
        of: 'unusual',
        name: e.name,
        size: e.size,
        usual: ordinary,
        amount: more,
        entries: [e.entry],
      });
    }

  const biggest = Math.max(...now.map((e) => Math.abs(e.size)), 0);
  for (const e of basis ?? []) {
    const amount = minor(-share([e]));
    if (Math.abs(amount) < worth * 2 || Math.abs(amount) * 2 <= biggest * 3 || named.has(e.name)) continue;
    const others = Math.max(...basis!.map((x) => (x === e ? 0 : Math.abs(x.size))));
    if (!goesBy!.includes(e) || Math.abs(e.size) * 2 <= others * 3) continue;
    const other = around.find(
      (a) =>
        a.name === e.name &&
        a.name !== '' &&
        Math.abs(a.period - month) <= 2 &&
        Math.abs(a.size) * 2 >= Math.abs(amount),
    );
    parts.push({
      of: 'lump',
      name: e.name,
      then: e.entry.day,
      on: other?.entry.day ?? null,
      amount,
      entries: [other?.entry ?? e.entry],
    });
    expected += amount;
    goesBy = goesBy!.filter((x) => x !== e);
  }

  const rest = now.filter((e) => !used.has(e));
  parts.push(...ordinaryParts(rest, goesBy, minor(expected)));

  const told = parts
    .filter((p) => Math.abs(p.amount) >= worth)
    .toSorted((a, b) => Math.abs(b.amount) - Math.abs(a.amount))
    .slice(0, MOST_TOLD);
  const left = minor(difference - told.reduce((t, p) => t + p.amount, 0));
  if (left === 0) return told;
  // Of few entries the rest is told as well as anything: it is what they are.
  return [...told, { of: 'rest', amount: left, count: rest.length, all: told.length === 0, entries: [] }];
}

/** What is left when everything single is told: by name, by number and size, or as it is. */
function ordinaryParts(
  now: readonly Sized[],
  basis: readonly Sized[] | null,
  expected: Minor,
): readonly ToldPart[] {
  const all = total(now);
  const left = minor(all - expected);
  if (left === 0) return [];
  if (now.length === 0) return [{ of: 'nothing', planned: expected, amount: left, entries: [] }];
  const named = byName(now);
  const entriesOf = (list: readonly Sized[] | undefined) => (list ?? []).map((e) => e.entry);
  if (expected === 0)
    return [...named].map(([name, list]) => ({
      of: 'name',
      name,
      now: total(list),
      planned: minor(0),
      amount: total(list),
      entries: entriesOf(list),
    }));
  const then = basis ? total(basis) : 0;
  if (!basis || basis.length === 0 || Math.sign(then) !== Math.sign(expected)) return [];
  const thens = byName(basis);
  const names = new Set([...named.keys(), ...thens.keys()]);
  // As many entries of the same people: one stands beside the other.
  const pairs = now.map((e) => {
    const place = named.get(e.name)!.indexOf(e);
    return [e, thens.get(e.name)?.[place]] as const;
  });
  if (now.length === basis.length && now.length <= FEW && pairs.every(([, then]) => then))
    return pairs.map(([e, of]): ToldPart => {
      const planned = times(expected, of!.size, then);
      const { name, size, entry } = e;
      const entries = [entry, of!.entry];
      return { of: 'entry', name, day: entry.day, size, planned, amount: minor(size - planned), entries };
    });
  const again = total(basis.filter((e) => named.has(e.name)));
  const few = names.size <= 12 && !names.has('');
  // Where most of it is of people who come again, who came to more or less is the answer.
  if (few && Math.abs(again) * 100 >= Math.abs(then) * 60 && names.size > 1)
    return [...names].map((name): ToldPart => {
      const list = named.get(name);
      const planned = times(expected, total(thens.get(name) ?? []), then);
      const came = total(list ?? []);
      return {
        of: 'name',
        name,
        now: came,
        planned,
        amount: minor(came - planned),
        entries: entriesOf(list ?? thens.get(name)),
      };
    });
  const each = times(expected, 1, basis.length);
  const number = minor(times(expected, now.length, basis.length) - expected);
  const parts: ToldPart[] = [];
  if (number !== 0)
    parts.push({
      of: 'number',
      now: now.length,
      planned: basis.length,
      each,
      amount: number,
      entries: entriesOf(now),
    });
  parts.push({
    of: 'size',
    count: now.length,
    each: times(all, 1, now.length),
    planned: each,
    amount: minor(left - number),
    entries: entriesOf(now),
  });
  return parts;
}
