import type { Patch } from 'immer';

/** One that adds a key to an object may say before which of its keys it comes; else it comes last. */
export type PlacedPatch = Patch & { readonly before?: string };

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
export function patched<T extends object>(doc: T, patches: readonly PlacedPatch[]): T {
  const own = new Set<unknown>();
  const writable = (value: unknown): Branch => {
    if (typeof value !== 'object' || value === null) throw new RangeError('A patch leads nowhere');
    if (own.has(value)) return value as Branch;
    const copy = Array.isArray(value) ? [...(value as unknown[])] : { ...value };
    own.add(copy);
    return copy as unknown as Branch;
  };
  let root = doc;
  for (const { op, path, value, before } of patches) {
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
      else if (before === undefined || Object.hasOwn(at, key) || !Object.hasOwn(at, before)) at[key] = value;
      else insert(at, key, value, before);
    } else if (op === 'replace')
      at[key as number] = value; // Of a list, also its length.
    else if (op === 'add') at.splice(key === '-' ? at.length : Number(key), 0, value);
    else at.splice(Number(key), 1);
  }
  return root;
}

/** Puts a key in its place among an object's keys: it and what comes after it are written anew. */
function insert(object: Branch, key: string | number, value: unknown, before: string): void {
  const keys = Object.keys(object);
  const later = keys.slice(keys.indexOf(before)).map((k) => [k, object[k]] as const);
  for (const [k] of later) delete object[k];
  object[key] = value;
  for (const [k, v] of later) object[k] = v;
}

/**
 * The inverse of a change with the place of every key that it puts back, so that what is taken back is the document of
 * before to the letter: files that are compared by their bytes are the same.
 */
export function placedInverse(doc: object, inverse: readonly Patch[]): PlacedPatch[] {
  const back = new Map<object, { readonly at: number; readonly patch: Patch }[]>();
  inverse.forEach((patch, at) => {
    if (patch.op !== 'add' || typeof patch.path.at(-1) !== 'string') return;
    const object = valueAt(doc, patch.path.slice(0, -1));
    if (!object || Array.isArray(object)) return;
    const own = back.get(object);
    if (own) own.push({ at, patch });
    else back.set(object, [{ at, patch }]);
  });
  if (back.size === 0) return inverse as PlacedPatch[];
  const out: PlacedPatch[] = [...inverse];
  for (const [object, adds] of back) {
    const keys = Object.keys(object);
    const places = new Map(keys.map((k, i) => [k, i]));
    const place = (patch: Patch) => places.get(patch.path.at(-1) as string) ?? keys.length;
    // The last first: each is put before the key that followed it, which by then stands.
    const ordered = adds.map((a) => a.patch).sort((a, b) => place(b) - place(a));
    adds.forEach(({ at }, i) => {
      const next = keys[place(ordered[i]!) + 1];
      out[at] = next === undefined ? ordered[i]! : { ...ordered[i]!, before: next };
    });
  }
  return out;
}

function valueAt(doc: object, path: readonly (string | number)[]): object | null {
  let at: unknown = doc;
  for (const step of path) {
    if (typeof at !== 'object' || at === null) return null;
    at = (at as Branch)[step];
  }
  return typeof at === 'object' ? at : null;
}
