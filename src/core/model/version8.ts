type Old = Record<string, unknown>;

/** Version 8: schedules of budgets, what balances of a budget stand against, and own ratios. */
export const toVersion8 = (old: Old): Old => ({
  ...old,
  version: 8,
  ownRatios: [],
  budgets: (Array.isArray(old.budgets) ? (old.budgets as Old[]) : []).map((b) => ({
    ...b,
    schedules: [],
    contras: {},
  })),
});
