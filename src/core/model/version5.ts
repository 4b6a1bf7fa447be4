type Old = Record<string, unknown>;

const list = (value: unknown): Old[] => (Array.isArray(value) ? (value as Old[]) : []);

/** Version 5: new items that wait, orders on top of the plan, kept forecasts, and what money an approved budget came to. */
export const toVersion5 = (old: Old): Old => ({
  ...old,
  version: 5,
  budgets: list(old.budgets).map((b) => ({
    ...b,
    approved: b.approved ? { ...(b.approved as Old), cash: null } : null,
  })),
  cash: {
    ...(old.cash as Old),
    own: null,
    newItems: 'counted',
    lookedThrough: null,
    ordersOnTop: [],
    kept: [],
  },
});
