import * as z from 'zod/mini';
import type { Patch } from 'immer';
import { isAmount } from '@/core/money';
import type { Line } from './budget';
import { PERIOD_ID } from './parts';
import { bookSchema, type Book } from './schema';

/** Where a book is not as it must be, and how. */
export type Fault = {
  /** The path, joined by points. */
  readonly path: string;
  /** What is wrong, in the schema's words: for programmers and for the last line of a message. */
  readonly message: string;
  readonly kind: 'tooLong' | 'tooMany' | 'tooLarge' | 'other';
  /** The most that may be, where there is a most. */
  readonly most?: number;
};

/**
 * What of a changed book would not open again, looking only at the parts that patches touched; null when all is as it
 * must be. So every command pays for what it changes, not for what the book holds.
 */
export function changeFault(before: Book, book: Book, patches: readonly Patch[]): Fault | null {
  const seen = new Set<string>();
  for (const { path, op } of patches) {
    if (op === 'replace' && isPlainLine(before, book, path)) continue;
    const fault = partFault(book, path, op === 'remove', seen);
    if (fault) return fault;
  }
  return null;
}

/**
 * Whether a line was put in its place that differs by typed months alone, and these are as they must be: what a tool does
 * to a thousand lines at once, told without the schema, which says the same and takes three times as long.
 */
function isPlainLine(before: Book, book: Book, path: readonly (string | number)[]): boolean {
  if (path.length !== 4 || path[0] !== 'budgets' || path[2] !== 'lines') return false;
  const was = before.budgets[path[1] as number]?.lines[path[3] as number];
  const now = book.budgets[path[1] as number]?.lines[path[3] as number];
  if (!was || !now) return false;
  let known = 0;
  for (const key in now) {
    if (key !== 'overrides' && now[key as keyof Line] !== was[key as keyof Line]) return false;
    known++;
  }
  if (known !== Object.keys(was).length) return false;
  for (const period in now.overrides) {
    const value = now.overrides[period]!;
    if (!PERIOD_ID.test(period) || (value !== null && !isAmount(value))) return false;
  }
  return true;
}

/** What is wrong with a value by its schema; null when nothing is. */
function faultOf(schema: z.ZodMiniType, value: unknown, at: readonly (string | number)[]): Fault | null {
  const parsed = schema.safeParse(value);
  if (parsed.success) return null;
  const issue = parsed.error.issues[0]!;
  const path = [...at, ...issue.path].join('.');
  if (issue.code === 'too_big') {
    const most = Number(issue.maximum);
    const kind = issue.origin === 'string' ? 'tooLong' : issue.origin === 'array' ? 'tooMany' : 'tooLarge';
    return { path, message: issue.message, kind, most };
  }
  const kind = issue.code === 'too_small' && issue.origin !== 'string' ? 'tooLarge' : 'other';
  return { path, message: issue.message, kind };
}

function partFault(
  book: Book,
  path: readonly (string | number)[],
  removed: boolean,
  seen: Set<string>,
): Fault | null {
  let schema: z.ZodMiniType = bookSchema;
  let value: unknown = book;
  for (let i = 0; i < path.length; i++) {
    const key = path[i]!;
    const next = step(schema, key);
    const gone = next === null || typeof value !== 'object' || value === null || !Object.hasOwn(value, key);
    // Of what was taken out, and of a list's length, it is the container that changed.
    if (gone || (i === path.length - 1 && removed)) {
      const size = schema instanceof z.ZodMiniArray ? sizeOf(schema) : schema;
      return once(seen, path.slice(0, i), () => faultOf(size, value, path.slice(0, i)));
    }
    if (i === path.length - 1 && schema instanceof z.ZodMiniArray) {
      const list = schema;
      const container = value;
      const fault = once(seen, path.slice(0, i), () => faultOf(sizeOf(list), container, path.slice(0, i)));
      if (fault) return fault;
    }
    if (schema instanceof z.ZodMiniRecord) {
      const fault = faultOf(schema.def.keyType as unknown as z.ZodMiniType, key, path.slice(0, i + 1));
      if (fault) return fault;
    }
    schema = next;
    value = (value as Record<string | number, unknown>)[key];
  }
  return once(seen, path, () => faultOf(schema, value, path));
}

function once(
  seen: Set<string>,
  path: readonly (string | number)[],
  check: () => Fault | null,
): Fault | null {
  const key = path.join('\n');
  if (seen.has(key)) return null;
  seen.add(key);
  return check();
}

/** The schema of a part; null where the schema has to see the whole (a union), or knows no such part. */
function step(schema: z.ZodMiniType, key: string | number): z.ZodMiniType | null {
  if (schema instanceof z.ZodMiniObject)
    return ((schema.def.shape as Record<string, z.ZodMiniType>)[key as string] ??
      null) as z.ZodMiniType | null;
  if (schema instanceof z.ZodMiniArray)
    return typeof key === 'number' ? (schema.def.element as z.ZodMiniType) : null;
  if (schema instanceof z.ZodMiniRecord) return schema.def.valueType as unknown as z.ZodMiniType;
  if (schema instanceof z.ZodMiniNullable) return step(schema.def.innerType as z.ZodMiniType, key);
  return null;
}

const sizes = new WeakMap<z.ZodMiniType, z.ZodMiniType>();

/** The same list, of anything: how long it may be. */
function sizeOf(schema: z.ZodMiniArray): z.ZodMiniType {
  let size = sizes.get(schema);
  if (!size) {
    const checks = schema._zod.def.checks ?? [];
    sizes.set(schema, (size = z.array(z.unknown()).check(...(checks as never[]))));
  }
  return size;
}
