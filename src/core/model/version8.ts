type Old = Record<string, unknown>;

/** Version 8: schedules of budgets, and what balances of a budget stand against. */
export const toVersion8 = (old: Old): Old => ({
  ...old,
  version: 8,
  budgets: (Array.isArray(old.budgets) ? (old.budgets as Old[]) : []).map((b) => ({
    ...b,
    schedules: [],
    contras: {},
  })),
});
