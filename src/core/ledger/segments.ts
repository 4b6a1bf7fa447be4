import type { AccountId, Axis } from '@/core/model';
import type { LedgerBlock, SegmentColumn } from './block';
import type { View } from './balances';

/** Value of an axis, or `null` for what is unassigned. */
export type SegmentValue = string | null;

/**
 * Which value of an axis each entry of a block has: by the file's own columns where they say something, else by its
 * account, or by the one that this has been merged into, else none.
 */
export function segmentsOf(
  axis: Axis,
  block: LedgerBlock,
  merged: View['merged'],
): (i: number) => SegmentValue {
  const names = new Set(axis.columns.map((c) => c.toLowerCase()));
  const byText = new Map(axis.values.flatMap((v) => v.from.map((t) => [t, v.id] as const)));
  const columns = block.segments
    .filter((s) => names.has(s.name.toLowerCase()))
    .map((s: SegmentColumn) => ({ place: s.place, value: s.values.map((t) => byText.get(t) ?? null) }));
  const byAccount = block.accounts.map(
    (a: AccountId) => axis.byAccount[a] ?? axis.byAccount[merged.get(a) ?? a] ?? null,
  );
  return (i) => {
    for (const { place, value } of columns) {
      const v = value[place[i]!]!;
      if (v !== null) return v;
    }
    return byAccount[block.account[i]!]!;
  };
}

/** Looks at the entries of some segments of an axis only (`null`: the unassigned); several axes narrow together. */
export function viewOfSegments(
  view: View,
  chosen: readonly { readonly axis: Axis; readonly values: readonly SegmentValue[] }[],
): View {
  if (chosen.length === 0) return view;
  return {
    merged: view.merged,
    keep(block) {
      const tests = chosen.map(({ axis, values }) => {
        const kept = new Set(values);
        const of = segmentsOf(axis, block, view.merged);
        return (i: number) => kept.has(of(i));
      });
      return (i) => tests.every((t) => t(i));
    },
  };
}
