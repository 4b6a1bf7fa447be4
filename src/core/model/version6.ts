type Old = Record<string, unknown>;

/** Version 6: layouts, flags by kind and account, how coming months are expected, and counted quantities. */
export const toVersion6 = (old: Old): Old => ({
  ...old,
  version: 6,
  flags: { kinds: {}, accounts: {} },
  outlookWays: {},
  quantities: [],
  layouts: [],
});
