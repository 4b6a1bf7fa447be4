import * as z from 'zod/mini';
import { atLeast, formed, list, text } from '@/core/bounded';
import { ENTRY_HEADS, gridOf, type FileFacts, type GridCell } from '@/core/files';

const amount = formed(/^-?\d{1,15}(\.\d{1,4})?$/);
const day = formed(/^\d{4}-\d{2}-\d{2}$/);

/** An entry of the feed with its lines. Numbers follow one another without gaps: the feed's own order. */
const feedEntry = z.object({
  seq: atLeast(1),
  date: day,
  reference: text(200),
  memo: text(2000),
  counterparty: text(500),
  lines: list(
    z.object({
      account: text(60),
      debit: z.nullable(amount),
      credit: z.nullable(amount),
      segments: z.record(text(200), text(500)),
    }),
    1,
    10_000,
  ),
});

/** What the feed says of itself: `GET /feed/v1/company`. */
export const feedCompanySchema = z.object({
  company: text(200),
  currency: z.string().check(z.length(3)),
  closedThrough: z.nullable(day),
  /** Number of its last entry. */
  last: atLeast(0),
  accounts: list(z.object({ code: text(60), name: text(200), type: text(60) }), 0, 20_000),
});

/** Where to begin after a day: `GET /feed/v1/cursor?after=DAY`. */
export const feedCursorSchema = z.object({ cursor: atLeast(0) });

/** One page of entries: `GET /feed/v1/entries?since=N`. `count` and `debits` say what the page should hold. */
export const feedPageSchema = z.object({
  since: atLeast(0),
  count: atLeast(0),
  debits: amount,
  last: atLeast(0),
  entries: list(feedEntry, 0, 5000),
});

export type FeedCompany = z.infer<typeof feedCompanySchema>;
export type FeedPage = z.infer<typeof feedPageSchema>;
export type FeedEntry = z.infer<typeof feedEntry>;

/** Everything after a cursor, whole and without doubles. */
export type FeedPull = {
  readonly company: FeedCompany;
  readonly since: number;
  readonly entries: readonly FeedEntry[];
};

export type FeedFault = {
  readonly code: 'unreachable' | 'notTheFeed' | 'halfAPage' | 'gap' | 'endless' | 'behind';
  /** What the service or the network said. */
  readonly detail: string;
};
export type FeedResult =
  { readonly ok: true; readonly pull: FeedPull } | { readonly ok: false; readonly fault: FeedFault };

/** Asks the service for a path under its address and gives the parsed JSON; rejects when it cannot. */
export type FeedAsk = (path: string) => Promise<unknown>;

const TRIES = 3;
const MOST_PAGES = 2000;

class Faulty extends Error {
  constructor(readonly fault: FeedFault) {
    super(fault.code);
  }
}

/**
 * Pulls every entry after `since`. Nothing is given unless all of it arrived: each page must hold as many entries and
 * debits as it says, numbers may not leave a gap, and entries that come again are taken once. A page that fails is
 * asked for again, three times in all.
 */
export async function pullFeed(ask: FeedAsk, since: number): Promise<FeedResult> {
  try {
    const company = await tryAsk(ask, 'company', (raw) => read(feedCompanySchema, raw));
    // It has fewer entries than were taken from it: started anew, or another company's. That is no end of entries.
    if (since > company.last) throw new Faulty({ code: 'behind', detail: `${company.last}` });
    const bySeq = new Map<number, FeedEntry>();
    let cursor = since;
    for (let n = 0; cursor < company.last; n++) {
      if (n >= MOST_PAGES) throw new Faulty({ code: 'endless', detail: String(n) });
      const asked = cursor;
      const page = await tryAsk(ask, `entries?since=${asked}`, (raw) => checkPage(raw, asked));
      for (const e of page.entries) if (e.seq > since) bySeq.set(e.seq, e);
      while (bySeq.has(cursor + 1)) cursor++;
      if (cursor === asked) throw new Faulty({ code: 'gap', detail: String(asked + 1) });
    }
    const entries = [...bySeq.values()].filter((e) => e.seq <= company.last).sort((a, b) => a.seq - b.seq);
    return { ok: true, pull: { company, since, entries } };
  } catch (error) {
    if (error instanceof Faulty) return { ok: false, fault: error.fault };
    throw error;
  }
}

async function tryAsk<T>(ask: FeedAsk, path: string, check: (raw: unknown) => T): Promise<T> {
  let fault: Faulty | null = null;
  for (let n = 0; n < TRIES; n++) {
    try {
      return check(await ask(path));
    } catch (error) {
      fault =
        error instanceof Faulty
          ? error
          : new Faulty({
              code: 'unreachable',
              detail: error instanceof Error ? error.message : String(error),
            });
    }
  }
  throw fault!;
}

function read<T>(schema: z.ZodMiniType<T>, raw: unknown): T {
  const parsed = schema.safeParse(raw);
  if (parsed.success) return parsed.data;
  const first = parsed.error.issues[0]!;
  throw new Faulty({ code: 'notTheFeed', detail: `${first.path.join('.')}: ${first.message}`.slice(0, 200) });
}

/** A page must be the one that was asked for and hold what it says it holds. */
function checkPage(raw: unknown, since: number): FeedPage {
  const page = read(feedPageSchema, raw);
  const debits = page.entries.reduce((t, e) => t + e.lines.reduce((s, l) => s + scaled(l.debit), 0n), 0n);
  if (page.entries.length !== page.count || debits !== scaled(page.debits))
    throw new Faulty({ code: 'halfAPage', detail: `${page.entries.length} of ${page.count}` });
  if (page.since !== since)
    throw new Faulty({ code: 'halfAPage', detail: `page after ${page.since}, not ${since}` });
  return page;
}

/** A decimal text in ten-thousandths, exactly. */
function scaled(text: string | null): bigint {
  if (text === null) return 0n;
  const [whole = '0', fraction = ''] = text.replace('-', '').split('.');
  const n = BigInt(whole) * 10_000n + BigInt(fraction.padEnd(4, '0').slice(0, 4));
  return text.startsWith('-') ? -n : n;
}

/** A pull as a grid of one row a line, read like any file of entries. */
export function feedFacts({ company, entries }: FeedPull): FileFacts {
  const named = new Map(company.accounts.map((a) => [a.code, a]));
  const segments = [...new Set(entries.flatMap((e) => e.lines.flatMap((l) => Object.keys(l.segments))))];
  const rows: GridCell[][] = [[...ENTRY_HEADS, ...segments.map((s) => `Segment: ${s}`)]];
  for (const e of entries)
    for (const line of e.lines) {
      const account = named.get(line.account);
      rows.push([
        e.date,
        e.reference || String(e.seq),
        line.account,
        account?.name ?? '',
        account?.type ?? '',
        line.debit ?? '',
        line.credit ?? '',
        e.counterparty,
        e.memo,
        ...segments.map((s) => (Object.hasOwn(line.segments, s) ? line.segments[s]! : '')),
      ]);
    }
  return {
    format: 'feed',
    encoding: null,
    delimiter: null,
    grids: [gridOf(null, rows)],
    stated: { entries: entries.length, debit: null, credit: null },
  };
}
