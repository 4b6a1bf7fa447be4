/** Remembers the last answer for the last inputs, compared by identity. */
export function lastOf<A extends readonly unknown[], R>(make: (...args: A) => R): (...args: A) => R {
  let args: A | null = null;
  let result: R;
  return (...next) => {
    if (!args || next.length !== args.length || next.some((x, i) => x !== args![i])) {
      result = make(...next);
      args = next;
    }
    return result;
  };
}

/** What is made when it is first asked for. */
export function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}
