import { useLayoutEffect, useRef, useState } from 'react';

type Handlers = Readonly<Record<string, (...args: never[]) => unknown>>;

/**
 * The same functions at every render, each doing what the latest of its name does: what they are handed to is not
 * drawn again because of them. For events only, never while rendering.
 */
export function useSteady<T extends Handlers>(latest: T): T {
  const now = useRef(latest);
  useLayoutEffect(() => {
    now.current = latest;
  });
  const [steady] = useState(
    () =>
      Object.fromEntries(
        Object.keys(latest).map((name) => [name, (...args: never[]) => now.current[name]!(...args)]),
      ) as T,
  );
  return steady;
}
