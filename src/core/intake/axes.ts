import { cutText, LIMITS, nextValueNumber, withTexts, type Axis } from '@/core/model';
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
      at >= 0
        ? out[at]!
        : {
            id: `x${next++}`,
            name: cutText(name, LIMITS.axisName),
            columns: [name],
            values: [],
            byAccount: {},
          };
    const grown = withTexts(axis, texts, next);
    if (at >= 0 && grown === axis) continue;
    next = nextValueNumber(grown, next);
    out = at >= 0 ? out.map((a, i) => (i === at ? grown : a)) : [...out, grown];
  }
  return { axes: out, nextId: next };
}
