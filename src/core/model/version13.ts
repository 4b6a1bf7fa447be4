type Old = Record<string, unknown>;

/** Version 13: adjustments and cases. */
export const toVersion13 = (old: Old): Old => ({ ...old, version: 13, adjustments: [], cases: [] });
