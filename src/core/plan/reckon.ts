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
 * A reckoner that remembers its last run: a line is computed again only when it, the facts, or the amounts of a
 * line that it needs are other objects than before. A run from scratch gives the same (a test holds it to that).
 */
export function createReckoner(): Reckoner {
  let facts: Facts | null = null;
  let last: { lines: Readonly<Record<AccountId, Line>>; result: Reckoning; order: Order } | null = null;

  return (lines, nextFacts) => {
    if (facts !== nextFacts) {
      facts = nextFacts;
      last = null;
    }
    if (last?.lines === lines) return last.result;
    const before = last;
    const ids = Object.keys(lines);
    const order =
      before && sameNeeds(before.lines, lines, ids)
        ? before.order
        : dependencyOrder(ids, (id) => needsOf(lines[id]!.method));
    const results = new Map<AccountId, LineResult>();
    for (const id of order.order) {
      const line = lines[id]!;
      const old = before?.result.lines.get(id);
      const steady =
        old &&
        before!.lines[id] === line &&
        order === before!.order &&
        needsUnchanged(line, before!.result.lines, results);
      results.set(
        id,
        steady
          ? old
          : reckonLine(line, nextFacts, order.cyclic.has(id), (a) => results.get(a)?.amounts ?? null),
      );
    }
    const result: Reckoning = { lines: results, cyclic: order.cyclic };
    last = { lines, result, order };
    return result;
  };
}

/** Whether the order of the last run still holds: the same lines, none of which needs other lines than before. */
function sameNeeds(
  old: Readonly<Record<AccountId, Line>>,
  now: Readonly<Record<AccountId, Line>>,
  ids: readonly AccountId[],
): boolean {
  let count = 0;
  for (const id in old) if (id in now) count++;
  if (count !== ids.length || Object.keys(old).length !== ids.length) return false;
  for (const id of ids) {
    if (old[id] === now[id] || old[id]!.method === now[id]!.method) continue;
    const a = needsOf(old[id]!.method);
    const b = needsOf(now[id]!.method);
    if (a.length !== b.length || a.some((n, i) => n !== b[i])) return false;
  }
  return true;
}

function needsUnchanged(
  line: Line,
  before: ReadonlyMap<AccountId, LineResult>,
  now: ReadonlyMap<AccountId, LineResult>,
): boolean {
  for (const need of needsOf(line.method))
    if (before.get(need)?.amounts !== now.get(need)?.amounts) return false;
  return true;
}

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
