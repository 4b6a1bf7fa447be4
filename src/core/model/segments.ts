import { cutText, LIMITS } from './limits';
import type { Budget, SegmentId } from './budget';
import type { AccountId, Axis, Book } from './schema';

/** What a segment is called; null is what is assigned to none. */
export const segmentName = (axis: Axis | undefined, segment: SegmentId): string =>
  segment === null
    ? 'Unassigned'
    : (axis?.values.find((v) => v.id === segment)?.name ?? 'A segment that is gone');

/** The axis with a value under another name. */
export const renameSegment = (axis: Axis, value: string, name: string): Axis => ({
  ...axis,
  values: axis.values.map((v) => (v.id === value ? { ...v, name } : v)),
});

/** The budgets that are made by the values of an axis. */
export const budgetsBy = <B extends Pick<Budget, 'axis'>>(
  { budgets }: { readonly budgets: readonly B[] },
  axis: string,
): B[] => budgets.filter((b) => b.axis === axis);

/** The axis with one value taken into another: its texts and its accounts now mean the other. */
export function mergeSegments(axis: Axis, from: string, into: string): Axis {
  const gone = axis.values.find((v) => v.id === from);
  if (!gone || from === into || !axis.values.some((v) => v.id === into)) return axis;
  return {
    ...axis,
    values: axis.values
      .filter((v) => v.id !== from)
      .map((v) => (v.id === into ? { ...v, from: [...v.from, ...gone.from] } : v)),
    byAccount: Object.fromEntries(
      Object.entries(axis.byAccount).map(([account, v]) => [account, v === from ? into : v]),
    ),
  };
}

/** The next number for a value's id: past the book's own and past every value that the axis has. */
export const nextValueNumber = (axis: Axis, nextId: number): number =>
  Math.max(nextId, ...axis.values.map((v) => 1 + (Number(v.id.replace(/\D/g, '')) || 0)));

/** The axis with a value for each text of the files that none of its values stands for; the same axis when there is none. */
export function withTexts(axis: Axis, texts: readonly string[], nextId: number): Axis {
  const known = new Set(axis.values.flatMap((v) => v.from));
  let next = nextValueNumber(axis, nextId);
  const fresh = [...new Set(texts)]
    .filter((t) => t !== '' && !known.has(t))
    .map((t) => ({ id: `v${next++}`, name: cutText(t, LIMITS.segmentName), from: [t] }));
  return fresh.length === 0 ? axis : { ...axis, values: [...axis.values, ...fresh] };
}

/** The axis fed from a further column of the files: a text that is a value's name means it, any other is a new value. */
export function feedFromColumn(axis: Axis, column: string, texts: readonly string[], nextId: number): Axis {
  const found = new Set(texts);
  const values = axis.values.map((v) =>
    found.has(v.name) && !v.from.includes(v.name) ? { ...v, from: [...v.from, v.name] } : v,
  );
  return withTexts({ ...axis, columns: [...axis.columns, column], values }, texts, nextId);
}

/** The axis with one more value, made by hand. */
export const addSegment = (axis: Axis, name: string, nextId: number): Axis => ({
  ...axis,
  values: [...axis.values, { id: `v${nextValueNumber(axis, nextId)}`, name, from: [] }],
});

/**
 * The axis with an account's entries in a value when they themselves say nothing, those of the accounts that it has taken
 * in with them; null takes the account out.
 */
export function assignAccount(
  axis: Axis,
  account: AccountId,
  value: string | null,
  merged: Book['merged'] = {},
): Axis {
  const rest = Object.fromEntries(
    Object.entries(axis.byAccount).filter(([a]) => a !== account && merged[a] !== account),
  );
  return { ...axis, byAccount: value === null ? rest : { ...rest, [account]: value } };
}
