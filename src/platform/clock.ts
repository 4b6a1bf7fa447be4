/** The present instant, ISO 8601 in UTC. The one place that reads the clock. */
export const now = (): string => new Date().toISOString();

/** The same in milliseconds since 1970. */
export const milliseconds = (): number => Date.now();

/** A short random id that no other book or block has. */
export const randomId = (prefix: string): string =>
  prefix + crypto.randomUUID().replaceAll('-', '').slice(0, 16);

/** Does something after so many milliseconds; gives what stops it. */
export function after(ms: number, run: () => void): () => void {
  const timer = setTimeout(run, ms);
  return () => clearTimeout(timer);
}
