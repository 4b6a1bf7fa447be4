import type { z } from 'zod/mini';
import { bookSchema, type Book } from './schema';
import { soundBook, type SetAside } from './sound';
import { toVersion3 } from './version3';
import { toVersion4 } from './version4';
import { toVersion5 } from './version5';
import { toVersion6 } from './version6';
import { toVersion7 } from './version7';
import { toVersion8 } from './version8';
import { toVersion9 } from './version9';
import { toVersion10 } from './version10';
import { toVersion11 } from './version11';
import { toVersion12 } from './version12';
import { toVersion13 } from './version13';
import { toVersion14 } from './version14';
import { toVersion15 } from './version15';

export const BOOK_VERSION = 15;

export type OpenIssue =
  | { readonly code: 'notABook' }
  | { readonly code: 'newerVersion'; readonly version: number }
  /** Of an older version, and not even as that version was. */
  | { readonly code: 'brokenOlder'; readonly version: number }
  | { readonly code: 'invalid'; readonly path: string; readonly message: string };

export type Opened =
  | { readonly ok: true; readonly book: Book; readonly setAside: readonly SetAside[] }
  | { readonly ok: false; readonly issue: OpenIssue };

/** From version n to n + 1. Each entry has a test with a saved document of the older version. */
export type Migrations = ReadonlyMap<number, (old: Record<string, unknown>) => Record<string, unknown>>;
const MIGRATIONS: Migrations = new Map([
  [1, toVersion2],
  [2, toVersion3],
  [3, toVersion4],
  [4, toVersion5],
  [5, toVersion6],
  [6, toVersion7],
  [7, toVersion8],
  [8, toVersion9],
  [9, toVersion10],
  [10, toVersion11],
  [11, toVersion12],
  [12, toVersion13],
  [13, toVersion14],
  [14, toVersion15],
]);

/** Brings a saved document of any known version to the present one; null when a step is missing. */
export function migrate(
  saved: Record<string, unknown>,
  to: number = BOOK_VERSION,
  migrations: Migrations = MIGRATIONS,
): Record<string, unknown> | null {
  let doc = saved;
  while (typeof doc.version === 'number' && doc.version < to) {
    const stepUp = migrations.get(doc.version);
    if (!stepUp) return null;
    doc = stepUp(doc);
  }
  return doc;
}

/** Checks a document from outside (a file, storage) and brings it to the present version. */
export function openBook(saved: unknown): Opened {
  if (typeof saved !== 'object' || saved === null || (saved as { format?: unknown }).format !== 'tellan.book')
    return { ok: false, issue: { code: 'notABook' } };
  const { version } = saved as { version?: unknown };
  if (typeof version === 'number' && version > BOOK_VERSION)
    return { ok: false, issue: { code: 'newerVersion', version } };
  let present: unknown;
  try {
    present = migrate(saved as Record<string, unknown>);
  } catch {
    return { ok: false, issue: { code: 'brokenOlder', version: Number(version) } };
  }
  let parsed = bookSchema.safeParse(present);
  const setAside: SetAside[] = [];
  if (!parsed.success) {
    const [doc, places] = withoutExcess(present, parsed.error.issues);
    if (places.length > 0) parsed = bookSchema.safeParse(doc);
    for (const name of places) setAside.push({ part: 'amount', name, because: 'tooLarge' });
  }
  if (parsed.success) {
    const sound = soundBook(parsed.data);
    return { ok: true, book: sound.book, setAside: [...setAside, ...sound.setAside] };
  }
  const first = parsed.error.issues[0]!;
  return { ok: false, issue: { code: 'invalid', path: first.path.join('.'), message: first.message } };
}

/** A copy without the amounts that are beyond what an amount may be, as books could be saved before there was a bound. */
function withoutExcess(doc: unknown, issues: readonly z.core.$ZodIssue[]): [unknown, string[]] {
  const excess = issues.filter(
    (i) => (i.code === 'too_big' || i.code === 'too_small') && i.origin !== 'string' && i.origin !== 'array',
  );
  if (excess.length === 0) return [doc, []];
  const copy = structuredClone(doc);
  for (const { path } of excess) {
    let at = copy as Record<PropertyKey, unknown>;
    for (const key of path.slice(0, -1)) at = at[key] as Record<PropertyKey, unknown>;
    at[path.at(-1)!] = null;
  }
  return [copy, excess.map((i) => i.path.join('.'))];
}

/** Version 2: groups, keepers and usual amounts of accounts; merged accounts; segments; the feed; more of sources. */
function toVersion2(old: Record<string, unknown>): Record<string, unknown> {
  const list = (value: unknown) => (Array.isArray(value) ? (value as Record<string, unknown>[]) : []);
  return {
    ...old,
    version: 2,
    accounts: list(old.accounts).map((a) => ({
      ...a,
      group: '',
      active: true,
      keeper: '',
      usual: { low: null, high: null },
    })),
    sources: list(old.sources).map((s) => ({
      ...s,
      format: s.sheet === null ? 'delimited' : 'workbook',
      heads: '',
      cursor: null,
      untied: null,
      openings: 0,
      closings: 0,
      controls: 0,
    })),
    merged: {},
    axes: [],
    feed: null,
  };
}
