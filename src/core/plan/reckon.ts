import { sumBlank, type Minor } from '@/core/money';
import type { AccountId, Line } from '@/core/model';
import type { Facts } from './facts';
import { computeMethod, needsOf, type Amounts, type LineIssue } from './methods';
import { dependencyOrder } from './order';

export type LineResult = {
  readonly amounts: Amounts;
  /** What the method alone gives, to restore a typed month to. */
  readonly method: Amounts;
  /** Which periods were typed over. */
  readonly typed: readonly boolean[];
  readonly total: Minor | null;
  readonly issue: LineIssue | null;
};

/** Results by account. Backed by one list that is copied whole on a change, which a map of a thousand keys is too slow for. */
export class LineResults {
  constructor(
    private readonly places: ReadonlyMap<AccountId, number>,
    private readonly list: readonly (LineResult | null)[],
  ) {}

  get(account: AccountId): LineResult | undefined {
    const place = this.places.get(account);
    return place === undefined ? undefined : (this.list[place] ?? undefined);
  }

  *[Symbol.iterator](): IterableIterator<[AccountId, LineResult]> {
    for (const [account, place] of this.places) {
      const result = this.list[place];
      if (result) yield [account, result];
    }
  }
}

export type Reckoning = {
  readonly lines: LineResults;
  /** Lines in a cycle, blank but for what was typed; all others stand. */
  readonly cyclic: ReadonlySet<AccountId>;
};

/** `accounts` are the lines to reckon, in order; the same list object while they stay, else every line is reckoned anew. */
export type Reckoner = (lines: Lines, facts: Facts, accounts?: readonly AccountId[]) => Reckoning;

type Lines = Readonly<Record<AccountId, Line>>;

const CYCLE: LineIssue = 'cycle';

/**
 * A reckoner that remembers its last run: a line is computed again only when it is another object than before, or
 * when the amounts of a line that it needs changed. A run from scratch gives the same (a test holds it to that).
 */
export function createReckoner(): Reckoner {
  let facts: Facts | null = null;
  let last: Run | null = null;

  return (lines, nextFacts, accounts = Object.keys(lines)) => {
    if (facts !== nextFacts || last?.accounts !== accounts) last = null;
    facts = nextFacts;
    if (last?.lines !== lines)
      last = (last && rerun(last, lines, nextFacts)) ?? run(lines, nextFacts, accounts);
    return last.result;
  };
}

type Run = {
  readonly lines: Lines;
  readonly accounts: readonly AccountId[];
  /** The lines and their results, place by place with `accounts`; null where an account has no line. */
  readonly list: readonly (Line | null)[];
  readonly results: readonly (LineResult | null)[];
  readonly places: ReadonlyMap<AccountId, number>;
  readonly order: readonly number[];
  /** The places of the lines that need a line, by its place. */
  readonly dependents: ReadonlyMap<number, readonly number[]>;
  readonly result: Reckoning;
};

function run(lines: Lines, facts: Facts, accounts: readonly AccountId[]): Run {
  const places = new Map(accounts.map((id, i) => [id, i]));
  const list = accounts.map((id) => lines[id] ?? null);
  const ids = accounts.filter((_, i) => list[i] !== null);
  const { order, cyclic } = dependencyOrder(ids, (id) => needsOf(lines[id]!.method));
  const dependents = new Map<number, number[]>();
  for (const id of ids)
    for (const need of needsOf(lines[id]!.method)) {
      const place = places.get(need);
      if (place === undefined) continue;
      const those = dependents.get(place);
      if (those) those.push(places.get(id)!);
      else dependents.set(place, [places.get(id)!]);
    }
  const results: (LineResult | null)[] = accounts.map(() => null);
  const amountsOf = (id: AccountId) => results[places.get(id) ?? -1]?.amounts ?? null;
  const placesInOrder = order.map((id) => places.get(id)!);
  for (const i of placesInOrder)
    results[i] = reckonLine(list[i]!, facts, cyclic.has(accounts[i]!), amountsOf);
  return {
    lines,
    accounts,
    list,
    results,
    places,
    order: placesInOrder,
    dependents,
    result: { lines: new LineResults(places, results), cyclic },
  };
}

/** Only what changed since a run, and what depends on it; null when lines came, went or need other lines than before. */
function rerun(before: Run, lines: Lines, facts: Facts): Run | null {
  const { accounts, places, order, dependents } = before;
  const dirty = new Set<number>();
  const list = [...before.list];
  for (let i = 0; i < accounts.length; i++) {
    const now = lines[accounts[i]!] ?? null;
    const was = list[i]!;
    if (was === now) continue;
    if (!was || !now || !sameNeeds(was, now)) return null;
    list[i] = now;
    dirty.add(i);
  }
  const results = [...before.results];
  const { cyclic } = before.result;
  const amountsOf = (id: AccountId) => results[places.get(id) ?? -1]?.amounts ?? null;
  for (const i of order) {
    if (!dirty.has(i)) continue;
    const old = results[i]!;
    const next = reckonLine(list[i]!, facts, cyclic.has(accounts[i]!), amountsOf);
    // Equal amounts keep their identity, so that whatever was made from them still stands.
    const steady = sameAmounts(old.amounts, next.amounts);
    results[i] = steady ? { ...next, amounts: old.amounts } : next;
    if (!steady) for (const d of dependents.get(i) ?? []) dirty.add(d);
  }
  return { ...before, lines, list, results, result: { lines: new LineResults(places, results), cyclic } };
}

function sameNeeds(a: Line, b: Line): boolean {
  if (a.method === b.method) return true;
  const [x, y] = [needsOf(a.method), needsOf(b.method)];
  return x.length === y.length && x.every((n, i) => n === y[i]);
}

const sameAmounts = (a: Amounts, b: Amounts): boolean =>
  a.length === b.length && a.every((v, i) => v === b[i]);

function reckonLine(
  line: Line,
  facts: Facts,
  inCycle: boolean,
  amountsOf: (account: AccountId) => Amounts | null,
): LineResult {
  const { periods } = facts;
  const computed = inCycle
    ? { amounts: periods.map(() => null), issue: CYCLE }
    : computeMethod(line.method, { account: line.account, facts, line: amountsOf });
  const typed = periods.map((p) => Object.hasOwn(line.overrides, p.id));
  const amounts = typed.includes(true)
    ? computed.amounts.map((a, i) => (typed[i] ? line.overrides[periods[i]!.id]! : a))
    : computed.amounts;
  return { amounts, method: computed.amounts, typed, total: sumBlank(amounts), issue: computed.issue };
}
