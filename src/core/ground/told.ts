import { fromDayNumber, periodsOf, toDayNumber, yearsBefore, type PeriodIndex } from '@/core/calendar';
import { actualOf, entriesOf, oddMonths, type Entry, type OddMonth } from '@/core/ledger';
import { minor, plus, type Minor } from '@/core/money';
import { natural, type Account, type Budget } from '@/core/model';
import { actualsOf } from './actuals';
import { flexibleOf } from './flexible';
import type { Ground } from './ground';
import { plannedAt } from './outlook';
import { reckoned } from './reckoned';

/** What the ledger itself tells of a line that is over or under, each with the entries that it is about. */
export type Told =
  /** Few entries make most of the actual. */
  | { readonly of: 'few'; readonly entries: readonly Entry[]; readonly amount: Minor; readonly all: Minor }
  /** A counterparty brought much more or less than in the same month a year before. */
  | {
      readonly of: 'party';
      readonly name: string;
      readonly now: Minor;
      readonly then: Minor;
      readonly entries: readonly Entry[];
    }
  /** Someone who was there a year before is not there now. */
  | {
      readonly of: 'missing';
      readonly name: string;
      readonly then: Minor;
      readonly entries: readonly Entry[];
    }
  /** Someone is there now who was not a year before. */
  | { readonly of: 'new'; readonly name: string; readonly now: Minor; readonly entries: readonly Entry[] }
  /** Entries dated just after the month's end, which may belong to it. */
  | { readonly of: 'late'; readonly amount: Minor; readonly entries: readonly Entry[] }
  /** Entries of one counterparty and amount twice in the month. */
  | {
      readonly of: 'twice';
      readonly name: string;
      readonly amount: Minor;
      readonly entries: readonly Entry[];
    }
  /** The month stands out against the account's own habit, or lies outside of what is usual. */
  | { readonly of: 'odd'; readonly kind: OddMonth['kind']; readonly usual: Minor; readonly actual: Minor }
  /** The budget at the quantities that were counted: how much of the difference is more or fewer units, and how much their rate. */
  | { readonly of: 'activity'; readonly activity: Minor; readonly rate: Minor };

/** So many days after its end an entry may still be the month's. */
const OVER_THE_END = 5;
/** So many entries are few; they are told when they make at least so much of the whole, in percent. */
const FEW = 3;
const MOST_OF_IT = 60;

const nameOf = (e: Entry): string => e.counterparty || e.memo || e.reference;

/** Facts about an account's month beside a difference, what weighs most first. Nothing is guessed: each is a sum of entries. */
export function toldOf(
  ground: Ground,
  account: Account,
  month: PeriodIndex,
  difference: Minor,
  budget: Budget | null,
): readonly Told[] {
  const { blocks, calendar, balances, view } = ground;
  const of = (p: PeriodIndex): Entry[] =>
    entriesOf(blocks, calendar, account.id, { first: p, last: p }, view).filter((e) => e.mark === 'activity');
  const size = (e: Entry): number => natural(account.kind, e.amount);
  const sumOf = (list: readonly Entry[]): Minor => minor(list.reduce((t, e) => plus(t, size(e)), 0));
  const now = of(month);
  const before = yearsBefore(calendar, month);
  const then = before === null ? [] : of(before);
  const all = sumOf(now);
  const told: { readonly fact: Told; readonly weight: number }[] = [];
  const worth = Math.max(1, Math.abs(difference) / 5);

  // Few entries, when there are others beside them.
  const largest = now.toSorted((a, b) => Math.abs(b.amount) - Math.abs(a.amount)).slice(0, FEW);
  for (let n = 1; n <= largest.length; n++) {
    const some = largest.slice(0, n);
    const amount = sumOf(some);
    if (now.length > n + 1 && all !== 0 && Math.abs(amount) * 100 >= MOST_OF_IT * Math.abs(all)) {
      told.push({ fact: { of: 'few', entries: some, amount, all }, weight: Math.abs(amount) });
      break;
    }
  }

  const parties = (list: readonly Entry[]) => {
    const out = new Map<string, Entry[]>();
    for (const e of list) out.set(nameOf(e), [...(out.get(nameOf(e)) ?? []), e]);
    return out;
  };
  const nows = parties(now);
  const thens = parties(then);
  // With names that never come again, nothing can be told by name.
  const comeAgain = [...thens.keys()].filter((n) => n !== '' && nows.has(n)).length;
  for (const [name, entries] of thens) {
    if (name === '') continue;
    const amount = sumOf(entries);
    const there = nows.get(name);
    if (!there) {
      if (comeAgain > 0 && Math.abs(amount) >= worth)
        told.push({ fact: { of: 'missing', name, then: amount, entries }, weight: Math.abs(amount) });
      continue;
    }
    const change = sumOf(there) - amount;
    if (Math.abs(change) >= worth && Math.abs(change) * 4 >= Math.abs(amount))
      told.push({
        fact: { of: 'party', name, now: sumOf(there), then: amount, entries: there },
        weight: Math.abs(change),
      });
  }

  for (const [name, entries] of nows) {
    const amount = sumOf(entries);
    if (name !== '' && !thens.has(name) && comeAgain > 0 && Math.abs(amount) >= worth)
      told.push({ fact: { of: 'new', name, now: amount, entries }, weight: Math.abs(amount) });
  }

  const seen = new Map<string, Entry>();
  for (const e of now) {
    const key = JSON.stringify([nameOf(e), e.amount, e.reference]);
    const other = seen.get(key);
    if (other && e.reference !== '' && Math.abs(e.amount) >= worth)
      told.push({
        fact: { of: 'twice', name: nameOf(e), amount: minor(size(e)), entries: [other, e] },
        weight: Math.abs(e.amount),
      });
    else seen.set(key, e);
  }

  const end = toDayNumber(calendar.period(month).end);
  const last = fromDayNumber(end + OVER_THE_END);
  const late = of(month + 1).filter((e) => e.day <= last && Math.abs(e.amount) >= worth);
  if (late.length > 0) {
    const amount = sumOf(late);
    // They tell of a month that is short of them, and of no other.
    if (Math.sign(amount) === -Math.sign(difference))
      told.push({ fact: { of: 'late', amount, entries: late }, weight: Math.abs(amount) });
  }

  const { range } = balances;
  if (range && month >= range.first && month <= range.last) {
    const months = periodsOf(calendar, { first: range.first, last: month });
    const odd = oddMonths(
      months.map((p) => actualOf(balances, account, p.index)),
      account.usual,
    ).find((o) => o.at === months.length - 1);
    if (odd)
      told.push({
        fact: { of: 'odd', kind: odd.kind, usual: odd.usual, actual: all },
        weight: Math.abs(all - odd.usual),
      });
  }

  if (budget?.axis === null) {
    const whole = reckoned(ground, budget);
    const planned = plannedAt(whole, account.id, null, month).amount;
    const flexible = flexibleOf(ground, whole).at(account.id, null, month);
    const actual = actualsOf(ground, null, 'all').shown(account, month);
    if (planned !== null && flexible !== null && flexible !== planned)
      told.push({
        fact: {
          of: 'activity',
          activity: minor(flexible - planned),
          rate: minor((actual ?? 0) - flexible),
        },
        weight: Math.abs(flexible - planned),
      });
  }

  return told
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_TOLD)
    .map((t) => t.fact);
}

/** More is no help. */
const MOST_TOLD = 5;
