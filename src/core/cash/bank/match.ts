import type { DayNumber } from '@/core/calendar';
import type { AccountId, Banks } from '@/core/model';
import { plainName } from '../listSince';
import type { Part } from '../projected';
import { isNamed, type Event } from './events';
import { isCovered, type BankStand, type Movement } from './stands';

/** An entry of the ledger's bank account up to the closed day: money into it positive. */
export type BankEntry = {
  readonly key: string;
  readonly account: AccountId;
  readonly day: DayNumber;
  readonly amount: number;
  readonly reference: string;
  readonly counterparty: string;
};

/** What a movement is, as far as it was found. Amounts with the movement's sign. */
export type Claim = { readonly movement: Movement; readonly amount: number } & (
  | { readonly of: 'event'; readonly event: Event }
  | { readonly of: 'entry'; readonly entry: BankEntry }
  | { readonly of: 'transfer' | 'reversal'; readonly other: Movement }
);

export type Matching = {
  readonly claims: readonly Claim[];
  /** What of each movement was found to be nothing that is planned. */
  readonly rest: ReadonlyMap<Movement, number>;
  /** What of each event has not moved. */
  readonly left: ReadonlyMap<Event, number>;
  /** Entries of the ledger that the bank had not cleared at the closed day, and the movements that cleared some. */
  readonly uncleared: ReadonlyMap<BankEntry, Movement | null>;
};

/** The number and the counterparty that a part goes by; null for one that has none. */
export type NamesOf = (part: Part) => { readonly number: string; readonly counterparty: string } | null;

/** An entry is cleared within so many days; a payment moves so many days off its own at most. */
const [CLEARED_WITHIN, NAMED_WITHIN, PLANNED_WITHIN, NEAR] = [60, 10, 7, 5];
/** Pay and taxes seldom come to the cent: so much of the plan is as good as the same (common practice: 5 %). */
const ALIKE = 0.05;
/** Shorter numbers stand in too many texts. */
const SHORTEST = 3;
/** Entries without a movement are looked for among so many of the latest. */
const LATEST = 60;

/** What said decisions name: an event by its part and day, or an item by its part alone. */
export const eventKey = ({ part, day, month, since }: Event): string =>
  part.of === 'item' || part.of === 'order' ? part.key : `${part.key} ${month} ${since} ${day}`;

/**
 * Tells what moved at the banks: first what someone said, entries of the ledger that the bank cleared late, open items by
 * the numbers and names in a movement's texts, transfers between own accounts, then planned payments by amount and day.
 */
export function matchMovements(
  stands: readonly BankStand[],
  start: DayNumber,
  entries: readonly BankEntry[],
  events: ReadonlyMap<Part, readonly Event[]>,
  said: Banks['said'],
  namesOf: NamesOf,
  bookAt: (account: AccountId) => number,
): Matching {
  const movements = stands
    .flatMap((s) => s.movements.filter((m) => m.day > start))
    .sort((a, b) => a.day - b.day);
  const rest = new Map<Movement, number>(movements.map((m) => [m, m.amount]));
  const left = new Map<Event, number>();
  for (const all of events.values()) for (const e of all) left.set(e, e.amount);
  const claims: Claim[] = [];
  const isOpen = (m: Movement) => rest.get(m) !== 0 && said[m.key] === undefined;
  const claim = (movement: Movement, event: Event, asWhole: boolean): void => {
    const [has, needs] = [rest.get(movement)!, left.get(event)!];
    if (has * needs <= 0) return;
    const amount = asWhole || Math.abs(has) >= Math.abs(needs) ? needs : has;
    claims.push({ of: 'event', movement, event, amount });
    left.set(event, needs - amount);
    // What someone paid beyond or short of the plan stands beside it.
    rest.set(movement, has - amount);
  };
  const all = [...events.values()].flat();
  const byKey = new Map<string, Event[]>();
  for (const e of all) byKey.set(eventKey(e), [...(byKey.get(eventKey(e)) ?? []), e]);
  for (const m of movements)
    for (const e of byKey.get(said[m.key]?.as ?? '') ?? [])
      if (rest.get(m) !== 0) claim(m, e, e.part.of !== 'item');

  // What takes an earlier movement back is the same money, and pays for nothing.
  for (const m of movements.filter((o) => o.reverses && isOpen(o))) {
    const other = movements
      .filter((o) => o !== m && o.account === m.account && o.day <= m.day && rest.get(o) === -m.amount)
      .sort((a, b) => Number(sameWords(b, m)) - Number(sameWords(a, m)) || b.day - a.day)[0];
    if (!other) continue;
    claims.push({ of: 'reversal', movement: m, other, amount: m.amount });
    claims.push({ of: 'reversal', movement: other, other: m, amount: other.amount });
    rest.set(m, 0).set(other, 0);
  }

  const uncleared = new Map<BankEntry, Movement | null>();
  for (const stand of stands) {
    const own = entries.filter((e) => e.account === stand.account && e.day <= start);
    const free = movements.filter((m) => m.account === stand.account && isOpen(m));
    for (const [entry, movement] of unclearedOf(stand, start, own, free, said, bookAt(stand.account))) {
      uncleared.set(entry, movement);
      if (!movement) continue;
      claims.push({ of: 'entry', movement, entry, amount: movement.amount });
      rest.set(movement, 0);
    }
  }

  const items = [...events].filter(([part]) => part.of === 'item');
  const openOf = (es: readonly Event[]) => es.reduce((t, e) => t + left.get(e)!, 0);
  const settle = (m: Movement, es: readonly Event[]) => {
    for (const e of es) if (rest.get(m) !== 0) claim(m, e, false);
  };
  const named = items.map(([part, es]) => ({ es, names: namesOf(part) }));
  for (const m of movements) {
    if (!isOpen(m)) continue;
    const words = wordsOf(m);
    for (const { es, names } of named) {
      const number = plainName(names?.number ?? '');
      if (number.length >= SHORTEST && /\d/.test(number) && words.includes(number)) settle(m, es);
    }
  }
  const byParty = new Map<string, Event[]>();
  for (const { es, names } of named) {
    const party = plainName(names?.counterparty ?? '');
    if (party !== '') byParty.set(party, [...(byParty.get(party) ?? []), ...es]);
  }
  for (const m of movements) {
    if (!isOpen(m)) continue;
    const words = plainName(`${m.counterparty} ${m.memo}`);
    for (const [party, es] of byParty) {
      if (party.length < SHORTEST || !(words.includes(party) || party === plainName(m.counterparty)))
        continue;
      const own = es.filter((e) => left.get(e)! * m.amount > 0);
      // One of just that amount, else the oldest first, as payments are matched in the ledger.
      const just = own.filter((e) => left.get(e) === rest.get(m));
      settle(m, just.length > 0 ? just.slice(0, 1) : [...own].sort((a, b) => a.since - b.since));
    }
  }
  for (const m of movements) {
    if (!isOpen(m)) continue;
    const just = named.filter(({ es }) => openOf(es) === rest.get(m));
    const alike = movements.filter((o) => isOpen(o) && rest.get(o) === rest.get(m));
    if (just.length === 1 && alike.length === 1) settle(m, just[0]!.es);
  }

  for (const m of movements) {
    if (!isOpen(m)) continue;
    const other = movements.find(
      (o) =>
        o.account !== m.account &&
        isOpen(o) &&
        rest.get(o) === -rest.get(m)! &&
        Math.abs(o.day - m.day) <= NEAR,
    );
    if (!other || rest.get(m) !== m.amount) continue;
    claims.push({ of: 'transfer', movement: m, other, amount: m.amount });
    claims.push({ of: 'transfer', movement: other, other: m, amount: other.amount });
    rest.set(m, 0).set(other, 0);
  }

  const planned = all.filter((e) => e.part.of !== 'item');
  const untouched = (m: Movement) => isOpen(m) && rest.get(m) === m.amount;
  const byAmount = new Map<number, Event[]>();
  for (const e of planned)
    if (left.get(e) !== 0) byAmount.set(left.get(e)!, [...(byAmount.get(left.get(e)!) ?? []), e]);
  // The nearest in all first: or a payment takes another's that only looks alike.
  for (let off = 0; off <= NAMED_WITHIN; off++)
    for (const m of movements) {
      if (!untouched(m)) continue;
      const fits = (byAmount.get(m.amount) ?? []).filter(
        (e) =>
          left.get(e) === m.amount &&
          Math.abs(e.day - m.day) === off &&
          (off <= PLANNED_WITHIN || isNamed(e.part)),
      );
      const event = fits.find((e) => isNamed(e.part)) ?? fits[0];
      if (event) claim(m, event, true);
    }
  for (const m of movements) {
    if (!untouched(m)) continue;
    const close = planned.filter((e) => {
      const needs = left.get(e)!;
      return (
        isNamed(e.part) &&
        needs * m.amount > 0 &&
        Math.abs(e.day - m.day) <= NEAR &&
        Math.abs(m.amount - needs) <= ALIKE * Math.abs(needs)
      );
    });
    if (close.length === 1) claim(m, close[0]!, true);
  }
  return { claims, rest, left, uncleared };
}

const wordsOf = (m: Movement): string =>
  // Each text by itself: a number is none that two of them make.
  [m.reference, m.memo, m.counterparty].map(plainName).join('\n');

const sameWords = (a: Movement, b: Movement): boolean =>
  plainName(a.counterparty) === plainName(b.counterparty) &&
  plainName(a.reference) === plainName(b.reference);

/** What of a sum two of a few entries come to, the latest first. */
function comingTo(entries: readonly BankEntry[], sum: number): readonly BankEntry[] | null {
  for (const e of entries) if (e.amount === sum) return [e];
  for (const [i, a] of entries.entries())
    for (const b of entries.slice(i + 1)) if (a.amount + b.amount === sum) return [a, b];
  return null;
}

/**
 * The entries of an account that its bank had not cleared at the closed day, with the movement that cleared each later. Days
 * that a statement covers tell by themselves; of earlier ones movements after the closed day do, and what the bank held then.
 */
function unclearedOf(
  { covered, movements, atStart }: BankStand,
  start: DayNumber,
  entries: readonly BankEntry[],
  free: readonly Movement[],
  said: Banks['said'],
  book: number,
): ReadonlyMap<BankEntry, Movement | null> {
  const out = new Map<BankEntry, Movement | null>();
  const taken = new Set<Movement>();
  const clearing = (e: BankEntry, among: readonly Movement[], byWords: boolean): Movement | undefined =>
    among
      .filter(
        (m) =>
          !taken.has(m) &&
          m.amount === e.amount &&
          m.day >= e.day - NEAR &&
          m.day <= e.day + CLEARED_WITHIN &&
          (!byWords || hasWordsOf(m, e)),
      )
      .sort((a, b) => Number(hasWordsOf(b, e)) - Number(hasWordsOf(a, e)) || a.day - b.day)[0];
  const before = movements.filter((m) => m.day <= start);
  const latest = [...entries].sort((a, b) => b.day - a.day);
  const told = latest.filter((e) => isCovered(covered, e.day));
  const cleared = new Set<BankEntry>();
  // The surer ones first, or an entry takes the movement of another of the same amount.
  for (const byWords of [true, false])
    for (const e of [...told].reverse()) {
      if (out.has(e) || cleared.has(e)) continue;
      const m = clearing(e, before, byWords);
      if (m) {
        taken.add(m);
        cleared.add(e);
      }
    }
  for (const e of told) if (!cleared.has(e)) out.set(e, null);
  for (const e of latest) if (said[`entry ${e.key}`]?.as === 'open') out.set(e, null);
  // What was written before any statement and cleared after the closed day.
  for (const e of latest) {
    if (isCovered(covered, e.day) || out.has(e)) continue;
    const m = clearing(e, free, true);
    if (!m) continue;
    taken.add(m);
    out.set(e, m);
  }
  const missing = () =>
    atStart === null ? 0 : book - atStart - [...out.keys()].reduce((t, e) => t + e.amount, 0);
  for (const e of latest) {
    if (missing() === 0 || out.has(e) || cleared.has(e)) continue;
    if (e.amount * missing() <= 0 || Math.abs(e.amount) > Math.abs(missing())) continue;
    const m = clearing(e, free, false);
    if (!m) continue;
    taken.add(m);
    out.set(e, m);
  }
  if (missing() !== 0) {
    const others = latest.filter((e) => !out.has(e) && !cleared.has(e)).slice(0, LATEST);
    for (const e of comingTo(others, missing()) ?? []) out.set(e, null);
  }
  for (const byWords of [true, false])
    for (const [e, m] of out) {
      if (m) continue;
      const by = clearing(e, free, byWords);
      if (!by) continue;
      taken.add(by);
      out.set(e, by);
    }
  return out;
}

function hasWordsOf(m: Movement, e: BankEntry): boolean {
  const words = wordsOf(m);
  const [number, party] = [plainName(e.reference), plainName(e.counterparty)];
  return (
    (number.length >= SHORTEST && words.includes(number)) ||
    (party.length >= SHORTEST && words.includes(party))
  );
}
