type Old = Record<string, unknown>;

const list = (value: unknown): Old[] => (Array.isArray(value) ? (value as Old[]) : []);

/** Notes on variances that were of one reach become explanations of one part, which moves no outlook. */
function explained(note: Old): Old {
  const { reach, ...rest } = note;
  const part =
    reach === 'lasting'
      ? { kind: 'lasting', amount: null, monthly: 0, until: null }
      : { kind: 'timing', amount: null, back: [] };
  return { ...rest, against: null, parts: [part] };
}

const entries = (value: unknown): [string, Old][] => Object.entries((value ?? {}) as Record<string, Old>);

/** Version 5: explanations in parts; new items that wait, orders on top of the plan, kept forecasts, and what money an approved budget came to. */
export const toVersion5 = (old: Old): Old => ({
  ...old,
  version: 5,
  budgets: list(old.budgets).map((b) => ({
    ...b,
    approved: b.approved ? { ...(b.approved as Old), cash: null } : null,
  })),
  varianceNotes: Object.fromEntries(
    entries(old.varianceNotes).map(([period, notes]) => [
      period,
      Object.fromEntries(entries(notes).map(([account, note]) => [account, explained(note)])),
    ]),
  ),
  cash: {
    ...(old.cash as Old),
    own: null,
    newItems: 'counted',
    lookedThrough: null,
    ordersOnTop: [],
    kept: [],
  },
});
