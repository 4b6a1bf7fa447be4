type Old = Record<string, unknown>;

/** Version 7: where accounts belong on the cash-flow statement, and covenants. */
export const toVersion7 = (old: Old): Old => ({ ...old, version: 7, flowClasses: {}, covenants: [] });
