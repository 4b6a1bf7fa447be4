import { useLayoutEffect, useState } from 'react';

type Handlers = Readonly<Record<string, (...args: never[]) => unknown>>;

/** Functions that stay the same objects, and do what the latest of their names do. */
class Steady<T extends Handlers> {
  readonly handlers: T;

  constructor(private latest: T) {
    this.handlers = Object.fromEntries(
      Object.keys(latest).map((name) => [name, (...args: never[]) => this.latest[name]!(...args)]),
    ) as T;
  }

  follow(latest: T): void {
    this.latest = latest;
  }
}

/**
 * The same functions at every render, each doing what the latest of its name does: what they are handed to is not
 * drawn again because of them. For events only, never while rendering.
 */
export function useSteady<T extends Handlers>(latest: T): T {
  const [steady] = useState(() => new Steady(latest));
  useLayoutEffect(() => steady.follow(latest));
  return steady.handlers;
}
