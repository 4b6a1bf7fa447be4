type Old = Record<string, unknown>;

/** Version 9: when covenants are tested, and how much of an account's cost rises with sales. */
export const toVersion9 = (old: Old): Old => ({
  ...old,
  version: 9,
  variableShares: {},
  covenants: (Array.isArray(old.covenants) ? (old.covenants as Old[]) : []).map((c) => ({
    ...c,
    tested: 'period',
  })),
});
