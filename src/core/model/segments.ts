import type { AccountId, Axis } from './schema';

/** The axis with a value under another name. */
export const renameSegment = (axis: Axis, value: string, name: string): Axis => ({
  ...axis,
  values: axis.values.map((v) => (v.id === value ? { ...v, name } : v)),
});

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

/** The axis with one more value, made by hand. */
export const addSegment = (axis: Axis, id: string, name: string): Axis => ({
  ...axis,
  values: [...axis.values, { id, name, from: [] }],
});

/** The axis with an account's entries in a value when they themselves say nothing; null takes the account out. */
export function assignAccount(axis: Axis, account: AccountId, value: string | null): Axis {
  const { [account]: _gone, ...rest } = axis.byAccount;
  return { ...axis, byAccount: value === null ? rest : { ...rest, [account]: value } };
}
