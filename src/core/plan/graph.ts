import type { Driver, Line, Ref, SegmentId } from '@/core/model';
import type { Name } from '@/core/formula';
import type { Facts } from './facts';
import { needsOf } from './methods/table';
import { driverNeeds } from './drivers';
import type { LinePlaces } from './results';
import { componentsOf, type Component, type Edge } from './order';

/** What a node of the graph is: a line, a driver, or the sum of a group's or kind's lines in a segment. */
export type Node =
  | { readonly kind: 'line'; readonly line: number }
  | { readonly kind: 'driver'; readonly driver: number }
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
};

const NO_NEEDS: readonly Edge[] = [];

/** The graph of a budget. Lines come first, then drivers, then the sums that any of them needs. */
export function graphOf(
  { lines, drivers }: { readonly lines: readonly Line[]; readonly drivers: readonly Driver[] },
  places: LinePlaces,
  facts: Facts,
): Graph {
  const driverAt = new Map(drivers.map((d, i) => [d.id, lines.length + i]));
  const nodes: Node[] = [
    ...lines.map((_, line): Node => ({ kind: 'line', line })),
    ...drivers.map((_, driver): Node => ({ kind: 'driver', driver })),
  ];
  const sums = new Map<string, number>();
  const sumKey = (ref: Exclude<Ref, { of: 'account' }>, segment: SegmentId) =>
    `${ref.kind}:${ref.of === 'group' ? ref.group : ''}:${ref.of}:${segment ?? ''}`;

  const nodeOf = (ref: Ref, segment: SegmentId): number | undefined =>
    ref.of === 'account' ? places.of({ account: ref.account, segment }) : sums.get(sumKey(ref, segment));

  function makeSum(ref: Ref, segment: SegmentId): void {
    if (ref.of === 'account' || sums.has(sumKey(ref, segment))) return;
    const members = facts
      .members(ref)
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
  for (const line of lines) {
    const list = needsOf(line.method);
    needs.push(list.length ? list.flatMap((n) => edge(n.name, line.segment, n.lag)) : NO_NEEDS);
  }
  for (const driver of drivers) needs.push(driverNeeds(driver).flatMap((n) => edge(n.name, null, n.lag)));
  for (let n = needs.length; n < nodes.length; n++) {
    const node = nodes[n]!;
    needs.push(node.kind === 'sum' ? node.members.map((m) => ({ node: m, lag: 0 })) : NO_NEEDS);
  }

  const components = componentsOf(nodes.length, (n) => needs[n]!);
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
  return { nodes, components, dependents, placeOf, nodeOf, driverNode: (id) => driverAt.get(id) };
}
