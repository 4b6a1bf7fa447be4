import { namesOfWay, type AmountChange } from '@/core/scenario';
import {
  lineKey,
  profitSign,
  type AccountId,
  type Driver,
  type Line,
  type Ref,
  type ScheduleRow,
  type SegmentId,
} from '@/core/model';
import { rowNeeds } from '@/core/schedule';
import type { Name } from '@/core/formula';
import type { Facts } from './facts';
import { needsOf } from './methods/table';
import { driverNeeds } from './drivers';
import type { LinePlaces } from './results';
import { touchedBy } from './rows';
import { madeAccounts, NOTHING_MADE, type Made } from './made';
import { NO_CHANGES, type PlanChanges } from './changes';
import { componentsOf, type Component, type Edge } from './order';

/** What a node of the graph is: a line, a driver, a row of a schedule, or the sum of a group's or kind's lines in a segment. */
export type Node =
  | { readonly kind: 'line'; readonly line: number }
  | { readonly kind: 'driver'; readonly driver: number }
  | { readonly kind: 'row'; readonly row: number }
  | {
      readonly kind: 'sum';
      readonly ref: Ref;
      readonly segment: SegmentId;
      readonly members: readonly number[];
    };

/** Lines, drivers and sums of a budget, with what each needs and the order that follows. */
export type Graph = {
  readonly nodes: readonly Node[];
  readonly components: readonly Component[];
  /** The places in `components` of what needs a node, by node. */
  readonly dependents: ReadonlyMap<number, readonly number[]>;
  readonly placeOf: Int32Array;
  /** The node of a line or of a sum; undefined when the budget has none. */
  readonly nodeOf: (ref: Ref, segment: SegmentId) => number | undefined;
  readonly driverNode: (id: string) => number | undefined;
  /** The places of the rows that post to an account. */
  readonly rowsOf: ReadonlyMap<AccountId, readonly number[]>;
  /** The lines whose sum is the profit that taxes are of; none where no row asks for it. */
  readonly taxed: readonly { readonly line: number; readonly sign: 1 | -1 }[];
};

/** What is reckoned: the lines of a budget, the drivers that they may follow, and the rows that make some of them. */
export type Plan = {
  readonly lines: readonly Line[];
  readonly drivers: readonly Driver[];
  readonly schedules?: readonly ScheduleRow[];
  /** What money ahead brings to lines; none where nothing of it is known. */
  readonly made?: Made;
  /** What a case makes of it; none where it is reckoned as it stands. */
  readonly changes?: PlanChanges;
  /** What was approved goes by its plan alone, whatever was closed since. */
  readonly approved?: object | null;
};

/** The accounts that income taxes go to: they are no part of the profit that is taxed. */
export const taxAccounts = (schedules: readonly ScheduleRow[]): ReadonlySet<AccountId> =>
  new Set(schedules.flatMap((r) => (r.kind === 'incomeTax' ? [r.account] : [])));

function taxedLines(
  lines: readonly Line[],
  schedules: readonly ScheduleRow[],
  { accounts }: Facts,
): Graph['taxed'] {
  const taxes = taxAccounts(schedules);
  const signs = new Map(accounts.map((a) => [a.id, taxes.has(a.id) ? 0 : profitSign(a.kind)]));
  return lines.flatMap(({ account }, line) => {
    const sign = signs.get(account) ?? 0;
    return sign === 0 ? [] : [{ line, sign }];
  });
}

const NO_NEEDS: readonly Edge[] = [];
const bothOf = (
  { first, ...own }: PlanChanges,
  of: 'lines' | 'drivers',
  key: string,
): readonly AmountChange[] => [...(first[of].get(key) ?? []), ...(own[of].get(key) ?? [])];

/** The graph of a budget. Lines come first, then drivers, then rows, then the sums that any of them needs. */
export function graphOf(
  { lines, drivers, schedules = [], made = NOTHING_MADE, changes = NO_CHANGES }: Plan,
  places: LinePlaces,
  facts: Facts,
): Graph {
  const unfollowed = madeAccounts(made);
  const driverAt = new Map(drivers.map((d, i) => [d.id, lines.length + i]));
  const nodes: Node[] = [
    ...lines.map((_, line): Node => ({ kind: 'line', line })),
    ...drivers.map((_, driver): Node => ({ kind: 'driver', driver })),
    ...schedules.map((_, row): Node => ({ kind: 'row', row })),
  ];
  const sums = new Map<string, number>();
  const sumKey = (ref: Exclude<Ref, { of: 'account' }>, segment: SegmentId) =>
    `${ref.kind}:${ref.of === 'group' ? ref.group : ''}:${ref.of}:${segment ?? ''}`;

  const nodeOf = (ref: Ref, segment: SegmentId): number | undefined =>
    ref.of !== 'account'
      ? sums.get(sumKey(ref, segment))
      : unfollowed.has(ref.account)
        ? undefined
        : places.of({ account: ref.account, segment });

  function makeSum(ref: Ref, segment: SegmentId): void {
    if (ref.of === 'account' || sums.has(sumKey(ref, segment))) return;
    const members = facts
      .members(ref)
      .filter((account) => !unfollowed.has(account))
      .map((account) => places.of({ account, segment }))
      .filter((n): n is number => n !== undefined);
    if (members.length === 0) return;
    sums.set(sumKey(ref, segment), nodes.push({ kind: 'sum', ref, segment, members }) - 1);
  }

  const needs: (readonly Edge[])[] = [];
  const edge = (name: Name, segment: SegmentId, lag: number): Edge[] => {
    if (name.of !== 'driver') makeSum(name, segment);
    const node = name.of === 'driver' ? driverAt.get(name.driver) : nodeOf(name, segment);
    return node === undefined ? [] : [{ node, lag }];
  };
  const rowsOf = new Map<AccountId, number[]>();
  schedules.forEach((row, i) => {
    for (const account of touchedBy(row, facts)) rowsOf.set(account, [...(rowsOf.get(account) ?? []), i]);
  });
  const firstRow = lines.length + drivers.length;
  const taxed = schedules.some((r) => rowNeeds(r).profit) ? taxedLines(lines, schedules, facts) : [];
  const rowAt = new Map(schedules.map((r, i) => [r.id, firstRow + i]));
  /** What a line needs because a case changes it. */
  const changeNeeds = (line: Line): readonly Edge[] =>
    bothOf(changes, 'lines', lineKey(line)).flatMap((c) => {
      if (c.as === 'rows')
        return c.rows.flatMap((id) => rowAt.get(id) ?? []).map((node) => ({ node, lag: 0 }));
      return c.as === 'way' ? namesOfWay(c.way).flatMap((n) => edge(n.name, line.segment, n.lag)) : [];
    });
  for (const line of lines) {
    const more = changes === NO_CHANGES ? NO_NEEDS : changeNeeds(line);
    if (line.method.kind === 'schedule') {
      needs.push([...(rowsOf.get(line.account) ?? []).map((i) => ({ node: firstRow + i, lag: 0 })), ...more]);
      continue;
    }
    const list = needsOf(line.method);
    const own = list.length ? list.flatMap((n) => edge(n.name, line.segment, n.lag)) : NO_NEEDS;
    needs.push(more.length ? [...own, ...more] : own);
  }
  for (const driver of drivers) {
    const more = bothOf(changes, 'drivers', driver.id).flatMap((c) =>
      c.as === 'way' ? namesOfWay(c.way).filter((n) => n.name.of === 'driver') : [],
    );
    needs.push([...driverNeeds(driver), ...more].flatMap((n) => edge(n.name, null, n.lag)));
  }
  for (const row of schedules) {
    const { drivers: named, profit } = rowNeeds(row);
    const own = named.flatMap((id) => driverAt.get(id) ?? []);
    const all = profit ? taxed.map((t) => t.line) : [];
    needs.push([...own, ...all].map((node) => ({ node, lag: 0 })));
  }
  for (let n = needs.length; n < nodes.length; n++) {
    const node = nodes[n]!;
    needs.push(node.kind === 'sum' ? node.members.map((m) => ({ node: m, lag: 0 })) : NO_NEEDS);
  }

  const components = componentsOf(nodes.length, (n) => needs[n]!).map((c): Component =>
    // A row is reckoned in one: what it needs cannot wait for a part of it.
    c.kind === 'byMonth' && c.nodes.some((n) => nodes[n]!.kind === 'row') ? { ...c, kind: 'cycle' } : c,
  );
  const placeOf = new Int32Array(nodes.length);
  components.forEach((c, at) => {
    if (c.kind === 'one') placeOf[c.node] = at;
    else for (const n of c.nodes) placeOf[n] = at;
  });
  const dependents = new Map<number, number[]>();
  needs.forEach((edges, n) => {
    for (const e of edges) {
      const there = dependents.get(e.node);
      if (there) there.push(placeOf[n]!);
      else dependents.set(e.node, [placeOf[n]!]);
    }
  });
  return {
    nodes,
    components,
    dependents,
    placeOf,
    nodeOf,
    driverNode: (id) => driverAt.get(id),
    rowsOf,
    taxed,
  };
}
