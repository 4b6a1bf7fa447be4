type Old = Record<string, unknown>;

/** Version 11: which lists of open items are in force on which side. Of what day those that are there are nobody said. */
export function toVersion11(old: Old): Old {
  const cash = old.cash as Old;
  const items = (Array.isArray(cash.items) ? cash.items : []) as { side: string; from: string }[];
  const met = new Map(items.map(({ side, from }) => [`${side} ${from}`, { side, from }]));
  return {
    ...old,
    version: 11,
    cash: { ...cash, lists: [...met.values()].map((l) => ({ ...l, day: null, by: '', at: null })) },
  };
}
