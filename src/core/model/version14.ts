type Old = Record<string, unknown>;

/** Version 14: budgets tell what was taken into them of adjustments. */
export const toVersion14 = (old: Old): Old => ({
  ...old,
  version: 14,
  budgets: (old.budgets as Old[]).map((b) => ({ ...b, applied: [] })),
});
