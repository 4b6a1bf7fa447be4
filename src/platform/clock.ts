/** The present instant, ISO 8601 in UTC. The one place that reads the clock. */
export const now = (): string => new Date().toISOString();

/** A short random id that no other book or block has. */
export const randomId = (prefix: string): string =>
  prefix + crypto.randomUUID().replaceAll('-', '').slice(0, 16);
