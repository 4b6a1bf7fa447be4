type Old = Record<string, unknown>;

/**
 * Version 15: quantities may say how they go over several months, and layouts show whether activity and rate help. Nobody
 * has said either of an older book: nothing in it changes.
 */
export const toVersion15 = (old: Old): Old => ({ ...old, version: 15 });
