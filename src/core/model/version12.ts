type Old = Record<string, unknown>;

/** Version 12: what banks say. */
export const toVersion12 = (old: Old): Old => ({
  ...old,
  version: 12,
  cash: { ...(old.cash as Old), banks: { balances: [], statements: [], said: {}, numbers: {}, floors: {} } },
});
