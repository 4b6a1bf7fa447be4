import type { Axis } from '@/core/model';
import type { SegmentColumn } from '@/core/ledger';

/**
 * The axes with a source's segment columns in them: a column feeds the axis that knows its heading, or one of its
 * own; texts that no value stands for become values. The same list when nothing is new.
 */
export function growAxes(
  axes: readonly Axis[],
  columns: readonly Pick<SegmentColumn, 'name' | 'values'>[],
  nextId: number,
): { readonly axes: readonly Axis[]; readonly nextId: number } {
  let next = nextId;
  let out = axes;
  for (const { name, values } of columns) {
    const texts = values.filter((v) => v !== '');
    if (texts.length === 0) continue;
    const key = name.toLowerCase();
    const at = out.findIndex((a) => a.columns.some((c) => c.toLowerCase() === key));
    const axis: Axis =
      at >= 0 ? out[at]! : { id: `x${next++}`, name, columns: [name], values: [], byAccount: {} };
    const known = new Set(axis.values.flatMap((v) => v.from));
    const fresh = texts
      .filter((t) => !known.has(t))
      .map((t) => ({ id: `v${next++}`, name: t.slice(0, 200), from: [t.slice(0, 500)] }));
    if (at >= 0 && fresh.length === 0) continue;
    const grown = { ...axis, values: [...axis.values, ...fresh] };
    out = at >= 0 ? out.map((a, i) => (i === at ? grown : a)) : [...out, grown];
  }
  return { axes: out, nextId: next };
}
