import { sumBlank, type Minor } from '@/core/money';
import type { AccountId, Line } from '@/core/model';
import type { Facts } from './facts';
import { computeMethod, needsOf, type Amounts, type LineIssue } from './methods';
import { dependencyOrder, type Order } from './order';

export type LineResult = {
  readonly amounts: Amounts;
  /** What the method alone gives, to restore a typed month to. */
  readonly method: Amounts;
  /** Which periods were typed over. */
  readonly typed: readonly boolean[];
  readonly total: Minor | null;
  readonly issue: LineIssue | null;
};

export type Reckoning = {
  readonly lines: ReadonlyMap<AccountId, LineResult>;
  /** Lines in a cycle, blank but for what was typed; all others stand. */
  readonly cyclic: ReadonlySet<AccountId>;
};

export type Reckoner = (lines: Readonly<Record<AccountId, Line>>, facts: Facts) => Reckoning;

const CYCLE: LineIssue = 'cycle';

/**
 * A reckoner that remembers its last run: a line is computed again only when it is another object than before, or
 * when the amounts of a line that it needs changed. A run from scratch gives the same (a test holds it to that).
 */
export function createReckoner(): Reckoner {
  let facts: Facts | null = null;
  let last: Run | null = null;

  return (lines, nextFacts) => {
    if (facts !== nextFacts) last = null;
    facts = nextFacts;
    if (last?.lines !== lines) last = (last && rerun(last, lines, nextFacts)) ?? run(lines, nextFacts);
    return last.result;
  };
}

type Lines = Readonly<Record<AccountId, Line>>;

type Run = {
  readonly lines: Lines;
  readonly ids: readonly AccountId[];
  readonly order: Order;
  /** The lines that need a line. */
  readonly dependents: ReadonlyMap<AccountId, readonly AccountId[]>;
  readonly result: Reckoning;
};

function run(lines: Lines, facts: Facts): Run {
  const ids = Object.keys(lines);
  const order = dependencyOrder(ids, (id) => needsOf(lines[id]!.method));
  const dependents = new Map<AccountId, AccountId[]>();
  for (const id of ids)
    for (const need of needsOf(lines[id]!.method)) {
      const list = dependents.get(need);
      if (list) list.push(id);
      else dependents.set(need, [id]);
    }
  const results = new Map<AccountId, LineResult>();
  for (const id of order.order)
    results.set(
      id,
      reckonLine(lines[id]!, facts, order.cyclic.has(id), (a) => results.get(a)?.amounts ?? null),
    );
  return { lines, ids, order, dependents, result: { lines: results, cyclic: order.cyclic } };
}

/** Only what changed since a run, and what depends on it; null when lines came, went or need other lines than before. */
function rerun(before: Run, lines: Lines, facts: Facts): Run | null {
  const { ids, order, dependents } = before;
  const dirty = new Set<AccountId>();
  let count = 0;
  for (const id in lines) {
    count++;
    const was = before.lines[id];
    if (was === lines[id]) continue;
    if (!was || !sameNeeds(was, lines[id]!)) return null;
    dirty.add(id);
  }
  if (count !== ids.length) return null;
  const results = new Map(before.result.lines);
  for (const id of order.order) {
    if (!dirty.has(id)) continue;
    const old = results.get(id)!;
    const next = reckonLine(lines[id]!, facts, order.cyclic.has(id), (a) => results.get(a)?.amounts ?? null);
    // Equal amounts keep their identity, so that whatever was made from them still stands.
    const steady = sameAmounts(old.amounts, next.amounts);
    results.set(id, steady ? { ...next, amounts: old.amounts } : next);
    if (!steady) for (const d of dependents.get(id) ?? []) dirty.add(d);
  }
  return { ...before, lines, result: { lines: results, cyclic: order.cyclic } };
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
