/** A place that keeps values by key and writes each whole or not at all. */
export type KeyValue = {
  readonly get: <T>(key: string) => Promise<T | null>;
  readonly set: (key: string, value: unknown) => Promise<void>;
  readonly remove: (key: string) => Promise<void>;
  readonly keys: () => Promise<string[]>;
};

/** An in-memory place for tests. `failWhen` makes a write be refused, as a full disk does. */
export function memoryKeyValue(
  failWhen: (key: string) => boolean = () => false,
): KeyValue & { readonly data: Map<string, unknown> } {
  const data = new Map<string, unknown>();
  return {
    data,
    get: async <T>(key: string) => structuredClone((data.get(key) as T | undefined) ?? null),
    async set(key, value) {
      if (failWhen(key)) throw new DOMException('The disk is full', 'QuotaExceededError');
      data.set(key, structuredClone(value));
    },
    async remove(key) {
      data.delete(key);
    },
    keys: async () => [...data.keys()],
  };
}
