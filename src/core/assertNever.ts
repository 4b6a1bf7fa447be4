/** Ends a `switch` over a tag: the compiler proves that it is never reached. Throws when data lied about its type. */
export function assertNever(value: never): never {
  throw new Error(`Unexpected case: ${JSON.stringify(value)}`);
}
