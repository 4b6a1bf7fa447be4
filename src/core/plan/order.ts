/** An order in which each node comes after all it needs, and the nodes that no order can hold: those in a cycle. */
export type Order = { readonly order: readonly string[]; readonly cyclic: ReadonlySet<string> };

/**
 * Dependency order of nodes, steady: nodes keep their given order where their needs allow. A node in a cycle is
 * named in `cyclic`; one that only needs such a node still gets its place after all others.
 */
export function dependencyOrder(nodes: readonly string[], needs: (node: string) => readonly string[]): Order {
  const known = new Set(nodes);
  const state = new Map<string, 'open' | 'done'>();
  const order: string[] = [];
  const cyclic = new Set<string>();
  // Walked with a stack of its own: a chain of thousands of lines must not overflow the call stack.
  for (const root of nodes) {
    if (state.has(root)) continue;
    const path: { node: string; rest: string[] }[] = [{ node: root, rest: needed(root) }];
    state.set(root, 'open');
    while (path.length > 0) {
      const top = path.at(-1)!;
      const next = top.rest.shift();
      if (next === undefined) {
        path.pop();
        state.set(top.node, 'done');
        order.push(top.node);
      } else if (state.get(next) === 'open') {
        for (let i = path.findIndex((p) => p.node === next); i < path.length; i++) cyclic.add(path[i]!.node);
      } else if (!state.has(next)) {
        state.set(next, 'open');
        path.push({ node: next, rest: needed(next) });
      }
    }
  }
  function needed(node: string): string[] {
    return needs(node).filter((n) => known.has(n));
  }
  return { order, cyclic };
}
