type Old = Record<string, unknown>;

/** Version 4: terms of a budget's lines, and what a company's money follows. */
export const toVersion4 = (old: Old): Old => ({
  ...old,
  version: 4,
  budgets: (Array.isArray(old.budgets) ? (old.budgets as Old[]) : []).map((b) => ({ ...b, terms: [] })),
  cash: {
    opening: null,
    bank: null,
    floor: null,
    creditLine: null,
    taxes: [],
    items: [],
    dated: [],
    changes: {},
    runOff: 30,
    forecasts: [],
  },
});
