/**
 * What is remembered of a book while it is worked on, by what it is of: the ledger, each axis, each budget. Whoever
 * asks for something has a place of its own under its name, so that no two askers take turns in one. Who looks at
 * other states of a book (a preview, a history) brings a memory of his own.
 */
export type Memory = { readonly of: <T>(name: string, make: () => T) => T };

export function createMemory(): Memory {
  const places = new Map<string, unknown>();
  return {
    of<T>(name: string, make: () => T): T {
      let place = places.get(name) as T | undefined;
      if (place === undefined) places.set(name, (place = make()));
      return place;
    },
  };
}
