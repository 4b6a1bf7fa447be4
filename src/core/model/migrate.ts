import { bookSchema, type Book } from './schema';
import { toVersion3 } from './version3';

export const BOOK_VERSION = 3;

export type OpenIssue =
  | { readonly code: 'notABook' }
  | { readonly code: 'newerVersion'; readonly version: number }
  | { readonly code: 'invalid'; readonly path: string; readonly message: string };

export type Opened =
  { readonly ok: true; readonly book: Book } | { readonly ok: false; readonly issue: OpenIssue };

/** From version n to n + 1. Each entry has a test with a saved document of the older version. */
export type Migrations = ReadonlyMap<number, (old: Record<string, unknown>) => Record<string, unknown>>;
const MIGRATIONS: Migrations = new Map([
  [1, toVersion2],
  [2, toVersion3],
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
  const parsed = bookSchema.safeParse(migrate(saved as Record<string, unknown>));
  if (parsed.success) return { ok: true, book: parsed.data };
  const first = parsed.error.issues[0]!;
  return { ok: false, issue: { code: 'invalid', path: first.path.join('.'), message: first.message } };
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
