import type { Patch } from 'immer';

type Branch = Record<string | number, unknown>;

/** A step that could reach beyond a document's own data; a journal from a file may hold anything. */
const FORBIDDEN = new Set<unknown>(['__proto__', 'constructor', 'prototype']);

/**
 * A document of plain data after patches (as the immer library writes them; RFC 6902's add, remove and replace by path).
 * The document itself stays as it was: only what lies on a path is copied, and once. Values are taken over without being
 * copied, which is what the library's own function does and what made taking back a thousand lines slow; nothing here
 * ever writes into one.
 *
 * @throws RangeError when a path leads nowhere.
 */
export function patched<T extends object>(doc: T, patches: readonly Patch[]): T {
  const own = new Set<unknown>();
  const writable = (value: unknown): Branch => {
    if (typeof value !== 'object' || value === null) throw new RangeError('A patch leads nowhere');
    if (own.has(value)) return value as Branch;
    const copy = Array.isArray(value) ? [...(value as unknown[])] : { ...value };
    own.add(copy);
    return copy as unknown as Branch;
  };
  let root = doc;
  for (const { op, path, value } of patches) {
    if (path.some((p) => FORBIDDEN.has(p))) throw new RangeError('A patch leads nowhere');
    if (path.length === 0) {
      root = value as T;
      continue;
    }
    root = writable(root) as T;
    let at = root as Branch;
    for (const step of path.slice(0, -1)) at = at[step] = writable(at[step]);
    const key = path.at(-1)!;
    if (!Array.isArray(at)) {
      if (op === 'remove') delete at[key];
      else at[key] = value;
    } else if (op === 'replace')
      at[key as number] = value; // Of a list, also its length.
    else if (op === 'add') at.splice(key === '-' ? at.length : Number(key), 0, value);
    else at.splice(Number(key), 1);
  }
  return root;
}
