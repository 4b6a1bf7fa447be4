type Old = Record<string, unknown>;

/** Version 9: when covenants are tested, how much of an account's cost rises with sales, and what is handed out. */
export const toVersion9 = (old: Old): Old => ({
  ...old,
  version: 9,
  variableShares: {},
  rounds: [],
  covenants: (Array.isArray(old.covenants) ? (old.covenants as Old[]) : []).map((c) => ({
    ...c,
    tested: 'period',
  })),
});
