import type { DayNumber } from '@/core/calendar';
import type { AccountId, Banks } from '@/core/model';
import { plainName } from '../listSince';
import type { Part } from '../projected';
import { isNamed, type Event } from './events';
import type { BankStand, Movement } from './stands';
import { unclearedOf } from './uncleared';
import { add, hasParty, namesIn, NEAR, sameWords, SHORTEST } from './words';

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

/** Named payments move so many days off their own at most, others fewer. */
const [NAMED_WITHIN, PLANNED_WITHIN] = [10, 7];
/** Pay and taxes seldom come to the cent: so much of the plan is as good as the same (common practice: 5 %). */
const ALIKE = 0.05;

/** What said decisions name: an event by its part and day, or an item by its part alone. */
export const eventKey = ({ part, day, month, since }: Event): string =>
  part.of === 'item' || part.of === 'order' ? part.key : `${part.key} ${month} ${since} ${day}`;

export type MatchInput = {
  readonly stands: readonly BankStand[];
  readonly start: DayNumber;
  readonly entries: readonly BankEntry[];
  readonly events: ReadonlyMap<Part, readonly Event[]>;
  readonly said: Banks['said'];
  readonly namesOf: NamesOf;
  /** What the ledger has on an account at the closed day. */
  readonly bookAt: (account: AccountId) => number;
};

/**
 * Tells what moved at the banks, the surest first: what someone said, reversals, entries of the ledger that the bank cleared
 * late, open items by their number or by name and amount, transfers between own accounts, planned payments of just the
 * amount, items of a counterparty in turn, then pay, taxes and the like that come to nearly the amount.
 */
export function matchMovements(input: MatchInput): Matching {
  const matcher = new Matcher(input);
  matcher.asSaid();
  matcher.reversals();
  matcher.entries();
  matcher.itemsNamed();
  matcher.transfers();
  matcher.plannedJust();
  matcher.itemsInTurn();
  matcher.plannedNearly();
  return matcher;
}

/** An open item with the events of its money, in time, and its number and counterparty as `plainName` gives them. */
type Item = {
  readonly events: readonly Event[];
  readonly since: DayNumber;
  readonly number: string;
  readonly party: string;
};

class Matcher implements Matching {
  readonly claims: Claim[] = [];
  readonly rest: Map<Movement, number>;
  readonly left = new Map<Event, number>();
  readonly uncleared = new Map<BankEntry, Movement | null>();
  private readonly movements: readonly Movement[];
  private readonly items: readonly Item[];
  /** Movements of which someone said what they are. */
  private readonly settled = new Set<Movement>();

  constructor(private readonly of: MatchInput) {
    this.movements = of.stands
      .flatMap((s) => s.movements.filter((m) => m.day > of.start))
      .sort((a, b) => a.day - b.day);
    this.rest = new Map(this.movements.map((m) => [m, m.amount]));
    for (const all of of.events.values()) for (const e of all) this.left.set(e, e.amount);
    this.items = [...of.events].flatMap(([part, events]) => {
      if (part.of !== 'item') return [];
      const names = of.namesOf(part);
      const [number, party] = [plainName(names?.number ?? ''), plainName(names?.counterparty ?? '')];
      return [{ events, since: events[0]!.since, number, party }];
    });
  }

  asSaid(): void {
    const byKey = new Map<string, Event[]>();
    for (const e of this.left.keys()) add(byKey, eventKey(e), e);
    for (const m of this.movements) {
      const said = this.of.said[m.key];
      const events = said && byKey.get(said.as);
      // What was said to be something that is not there any more is found anew.
      if (said && (said.as === '' || events)) this.settled.add(m);
      for (const e of events ?? []) this.claim(m, e, e.part.of !== 'item');
    }
  }

  /** What takes an earlier movement back is the same money, and pays for nothing. */
  reversals(): void {
    for (const m of this.movements) {
      if (!m.reverses || !this.isOpen(m)) continue;
      const [other] = this.movements
        .filter((o) => o !== m && o.account === m.account && o.day <= m.day && this.rest.get(o) === -m.amount)
        .sort((a, b) => Number(sameWords(b, m)) - Number(sameWords(a, m)) || b.day - a.day);
      if (other) this.pair(m, other, 'reversal');
    }
  }

  entries(): void {
    const { stands, start, entries, said, bookAt } = this.of;
    for (const stand of stands) {
      const own = entries.filter((e) => e.account === stand.account && e.day <= start);
      const free = this.movements.filter((m) => m.account === stand.account && this.isOpen(m));
      for (const [entry, movement] of unclearedOf(stand, start, own, free, said, bookAt(stand.account))) {
        this.uncleared.set(entry, movement);
        if (!movement) continue;
        this.claims.push({ of: 'entry', movement, entry, amount: movement.amount });
        this.rest.set(movement, 0);
      }
    }
  }

  /** Open items that a movement names by their number, or by their counterparty and just their amount. */
  itemsNamed(): void {
    const byNumber = new Map<string, Item[]>();
    for (const item of this.items)
      if (item.number.length >= SHORTEST && /\d/.test(item.number)) add(byNumber, item.number, item);
    for (const m of this.movements)
      if (this.isOpen(m))
        for (const name of namesIn(m)) for (const item of byNumber.get(name) ?? []) this.settle(m, item);
    this.byParty((m, own) => {
      const just = own.find((i) => this.openOf(i.events) === this.rest.get(m));
      if (just) this.settle(m, just);
    });
  }

  /** Open items of a named counterparty, the oldest first, as payments are matched in the ledger; then lone amounts. */
  itemsInTurn(): void {
    this.byParty((m, own) => {
      for (const item of [...own].sort((a, b) => a.since - b.since)) this.settle(m, item);
    });
    // Without a word that is known: the only item and the only movement of an amount.
    const ofAmount = new Map<number, Item[]>();
    for (const item of this.items) add(ofAmount, this.openOf(item.events), item);
    const open = this.movements.filter(this.isOpen);
    const alike = new Map<number, Movement[]>();
    for (const m of open) add(alike, this.rest.get(m)!, m);
    for (const m of open) {
      const rest = this.rest.get(m)!;
      const just = ofAmount.get(rest) ?? [];
      if (just.length === 1 && alike.get(rest)!.length === 1) this.settle(m, just[0]!);
    }
  }

  private byParty(settle: (m: Movement, own: readonly Item[]) => void): void {
    const parties = new Map<string, Item[]>();
    for (const item of this.items) if (item.party.length >= SHORTEST) add(parties, item.party, item);
    for (const m of this.movements) {
      if (!this.isOpen(m)) continue;
      // Whoever is just so called is asked first: the others are looked for in a thousand names.
      const just = parties.get(plainName(m.counterparty));
      if (just) settle(m, just);
      else
        for (const [party, own] of parties) {
          if (!hasParty(m, party)) continue;
          settle(m, own);
          if (!this.isOpen(m)) break;
        }
    }
  }

  transfers(): void {
    const byAmount = new Map<number, Movement[]>();
    for (const m of this.movements) if (this.isUntouched(m)) add(byAmount, m.amount, m);
    for (const m of this.movements) {
      if (!this.isUntouched(m)) continue;
      const other = byAmount
        .get(-m.amount)
        ?.find((o) => o.account !== m.account && this.isUntouched(o) && Math.abs(o.day - m.day) <= NEAR);
      if (other) this.pair(m, other, 'transfer');
    }
  }

  /** Planned payments of just the amount, the nearest in all first: or one takes another's that only looks alike. */
  plannedJust(): void {
    const byAmount = new Map<number, Event[]>();
    for (const e of this.planned()) add(byAmount, this.left.get(e)!, e);
    for (let off = 0; off <= NAMED_WITHIN; off++)
      for (const m of this.movements) {
        if (!this.isUntouched(m)) continue;
        const fits = (byAmount.get(m.amount) ?? []).filter(
          (e) =>
            this.left.get(e) === m.amount &&
            Math.abs(e.day - m.day) === off &&
            (off <= PLANNED_WITHIN || isNamed(e.part)),
        );
        const event = fits.find((e) => isNamed(e.part)) ?? fits[0];
        if (event) this.claim(m, event, true);
      }
  }

  /** Pay, taxes and the like that come to nearly the amount: of several at once, as one payment, or one by itself. */
  plannedNearly(): void {
    const named = this.planned().filter((e) => isNamed(e.part));
    const bundles = new Map<string, Event[]>();
    for (const e of named) add(bundles, `${e.part.source} ${e.day} ${Math.sign(e.amount)}`, e);
    this.close([...bundles.values()].filter((es) => es.length > 1));
    this.close(
      named.map((e) => [e]),
      true,
    );
  }

  private planned(): Event[] {
    return [...this.left.keys()].filter((e) => e.part.of !== 'item' && this.left.get(e) !== 0);
  }

  /** Movements that come to nearly as much as some events of a day; of several that do the closest, or none (`alone`). */
  private close(all: readonly (readonly Event[])[], alone = false): void {
    for (const m of this.movements) {
      if (!this.isUntouched(m)) continue;
      const off = (es: readonly Event[]) => Math.abs(m.amount - this.openOf(es));
      const found = all
        .filter((es) => Math.abs(es[0]!.day - m.day) <= NEAR && this.openOf(es) * m.amount > 0)
        .filter((es) => off(es) <= ALIKE * Math.abs(this.openOf(es)))
        .sort((a, b) => off(a) - off(b) || Math.abs(a[0]!.day - m.day) - Math.abs(b[0]!.day - m.day));
      if (alone && found.length > 1) continue;
      for (const e of found[0] ?? []) this.claim(m, e, true);
    }
  }

  private readonly isOpen = (m: Movement): boolean => this.rest.get(m) !== 0 && !this.settled.has(m);
  private readonly isUntouched = (m: Movement): boolean => this.isOpen(m) && this.rest.get(m) === m.amount;
  private readonly openOf = (events: readonly Event[]): number =>
    events.reduce((t, e) => t + this.left.get(e)!, 0);

  private settle(m: Movement, { events }: Item): void {
    for (const e of events) this.claim(m, e, false);
  }

  /** Takes what a movement pays of an event: as much as it has left, or the event as a whole. */
  private claim(movement: Movement, event: Event, asWhole: boolean): void {
    const [has, needs] = [this.rest.get(movement)!, this.left.get(event)!];
    if (movement.amount * needs <= 0 || (has === 0 && !asWhole)) return;
    const amount = asWhole || Math.abs(has) >= Math.abs(needs) ? needs : has;
    this.claims.push({ of: 'event', movement, event, amount });
    this.left.set(event, needs - amount);
    // What someone paid beyond or short of the plan stands beside it.
    this.rest.set(movement, has - amount);
  }

  private pair(movement: Movement, other: Movement, of: 'transfer' | 'reversal'): void {
    this.claims.push({ of, movement, other, amount: movement.amount });
    this.claims.push({ of, movement: other, other: movement, amount: other.amount });
    this.rest.set(movement, 0).set(other, 0);
  }
}
