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
