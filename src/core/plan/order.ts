/** Something that must be reckoned before, so many months earlier; 0 is the same month. */
export type Edge = { readonly node: number; readonly lag: number };

/**
 * Nodes that are reckoned together: one by itself; several that need each other's earlier months only, in the order
 * in which each month of them is reckoned; or those of a cycle, which no order can hold.
 */
export type Component =
  | { readonly kind: 'one'; readonly node: number }
  | { readonly kind: 'byMonth'; readonly nodes: readonly number[] }
  | { readonly kind: 'cycle'; readonly nodes: readonly number[] };

/**
 * The components of a graph of needs, each after all it needs. Tarjan's strongly connected components (SIAM Journal on
 * Computing 1, 1972), walked with a stack of its own: a chain of thousands of lines must not overflow the call stack.
 */
export function componentsOf(count: number, needs: (node: number) => readonly Edge[]): Component[] {
  const found = new Int32Array(count).fill(-1);
  const low = new Int32Array(count);
  const open = new Uint8Array(count);
  const stack: number[] = [];
  const out: Component[] = [];
  let next = 0;
  for (let root = 0; root < count; root++) {
    if (found[root] !== -1) continue;
    const path: { node: number; at: number }[] = [{ node: root, at: 0 }];
    visit(root);
    while (path.length > 0) {
      const top = path.at(-1)!;
      const edges = needs(top.node);
      if (top.at < edges.length) {
        const { node } = edges[top.at++]!;
        if (found[node] === -1) {
          visit(node);
          path.push({ node, at: 0 });
        } else if (open[node]) low[top.node] = Math.min(low[top.node]!, found[node]!);
        continue;
      }
      path.pop();
      const above = path.at(-1);
      if (above) low[above.node] = Math.min(low[above.node]!, low[top.node]!);
      if (low[top.node] === found[top.node]) close(top.node);
    }
  }
  return out;

  function visit(node: number): void {
    found[node] = low[node] = next++;
    open[node] = 1;
    stack.push(node);
  }

  function close(root: number): void {
    const nodes: number[] = [];
    for (;;) {
      const node = stack.pop()!;
      open[node] = 0;
      nodes.push(node);
      if (node === root) break;
    }
    const itself = nodes.length === 1 && !needs(root).some((e) => e.node === root);
    if (itself) out.push({ kind: 'one', node: root });
    else out.push(together(nodes.reverse(), needs));
  }
}

/** Nodes that need each other: by month when what they need of the same month forms no cycle. */
function together(nodes: readonly number[], needs: (node: number) => readonly Edge[]): Component {
  const inside = new Set(nodes);
  const state = new Map<number, 'open' | 'done'>();
  const order: number[] = [];
  const now = (node: number) => needs(node).filter((e) => e.lag === 0 && inside.has(e.node));
  for (const root of nodes) {
    if (state.has(root)) continue;
    const path = [{ node: root, rest: now(root) }];
    state.set(root, 'open');
    while (path.length > 0) {
      const top = path.at(-1)!;
      const edge = top.rest.shift();
      if (!edge) {
        path.pop();
        state.set(top.node, 'done');
        order.push(top.node);
      } else if (state.get(edge.node) === 'open') return { kind: 'cycle', nodes };
      else if (!state.has(edge.node)) {
        state.set(edge.node, 'open');
        path.push({ node: edge.node, rest: now(edge.node) });
      }
    }
  }
  return { kind: 'byMonth', nodes: order };
}
