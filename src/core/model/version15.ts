type Old = Record<string, unknown>;

/**
 * Version 15: quantities may say how they go over several months, layouts show whether activity and rate help, and reports of
 * a month have messages. Nobody has said any of it of an older book.
 */
export const toVersion15 = (old: Old): Old => ({ ...old, version: 15, messages: {} });
