import { create } from 'zustand';
import { dayNumberOf, toDayNumber, day as dayOfText, type Day, type PeriodId } from '@/core/calendar';
import {
  feedCompanySchema,
  feedCursorSchema,
  feedItems,
  feedOpenSchema,
  isPullDue,
  pullFeed,
  type FeedAsk,
  type FeedFault,
  type LocalMinute,
} from '@/core/intake';
import type { Schedule } from '@/core/model';
import { browserKeyValue } from '@/platform/browserKeyValue';
import { instant } from './actions';
import { dispatch, useBookStore } from './bookStore';
import type { Ground } from '@/core/ground';
import { groundNow } from './ground';
import { takePull, useIntake } from './intake';

export const FEED_PATH = '/feed/v1';

/** What came of the open items of a pull: how many, and the first of those that were set aside; or that none could be had. */
export type PulledItems = {
  readonly items?: number;
  readonly aside?: readonly string[];
  readonly itemsFailed?: true;
};

export type PullRecord = {
  /** ISO 8601 instant. */
  readonly at: string;
  readonly how: 'asked' | 'scheduled';
  readonly outcome:
    | { readonly is: 'connected' }
    | ({ readonly is: 'nothingNew' } & PulledItems)
    | ({ readonly is: 'taken'; readonly entries: number; readonly through: number } & PulledItems)
    | { readonly is: 'waits'; readonly entries: number }
    | { readonly is: 'failed'; readonly code: FeedFault['code'] | 'busy'; readonly detail: string };
};

type State = {
  readonly book: string | null;
  readonly log: readonly PullRecord[];
  readonly pulling: boolean;
};

/** Pulls of the ledger feed by the open book: what came of each. */
export const useFeed = create<State>(() => ({ book: null, log: [], pulling: false }));

const KEPT = 200;
const TIMEOUT_MS = 30_000;
const logKey = (book: string) => `feedlog:${book}`;

const ask: FeedAsk = async (path) => {
  const answer = await fetch(`${FEED_PATH}/${path}`, {
    signal: AbortSignal.timeout(TIMEOUT_MS),
    cache: 'no-store',
  });
  if (!answer.ok) throw new Error(`the service answered ${answer.status}`);
  return answer.json();
};

/** Loads the pulls of the open book. */
export async function loadPulls(book: string): Promise<void> {
  if (useFeed.getState().book === book) return;
  useFeed.setState({ book, log: [] });
  const log = (await browserKeyValue().get<PullRecord[]>(logKey(book))) ?? [];
  if (useFeed.getState().book === book) useFeed.setState({ log });
}

async function record(how: PullRecord['how'], outcome: PullRecord['outcome']): Promise<void> {
  const { book, log } = useFeed.getState();
  if (!book) return;
  const next = [...log, { at: instant(), how, outcome }].slice(-KEPT);
  useFeed.setState({ log: next });
  await browserKeyValue()
    .set(logKey(book), next)
    .catch(() => undefined);
}

/** Connects the book to the feed, to begin after what it has already; what stood in the way, or null. */
export async function connectFeed(): Promise<string | null> {
  const ground = groundNow();
  if (!ground) return null;
  try {
    const company = feedCompanySchema.parse(await ask('company'));
    if (company.currency !== ground.book.currency)
      return `The feed is in ${company.currency}, the book in ${ground.book.currency}.`;
    const last = lastDay(ground);
    const { cursor } =
      last === null ? { cursor: 0 } : feedCursorSchema.parse(await ask(`cursor?after=${last}`));
    dispatch({
      type: 'setFeed',
      feed: { url: FEED_PATH, company: company.company, cursor, schedule: { every: 'never' } },
    });
    await record('asked', { is: 'connected' });
    return null;
  } catch (error) {
    return `The feed could not be reached: ${error instanceof Error ? error.message : String(error)}.`;
  }
}

/** Last day of which the book has entries. */
const lastDay = ({ book }: Ground): string | null =>
  book.sources.map((s) => s.lastDay as string).reduce<string | null>((a, b) => (a && a > b ? a : b), null);

export const disconnectFeed = (): void => void dispatch({ type: 'setFeed', feed: null });

export function setSchedule(schedule: Schedule): void {
  const feed = groundNow()?.book.feed;
  if (feed) dispatch({ type: 'setFeed', feed: { ...feed, schedule } });
}

/** Pulls what is new and takes it in when it ties and leaves no question; else it waits on the intake page. */
export async function pullNow(how: PullRecord['how']): Promise<void> {
  const ground = groundNow();
  const feed = ground?.book.feed;
  if (!ground || !feed || useFeed.getState().pulling) return;
  if (useIntake.getState().now.phase !== 'idle') {
    if (how === 'asked') await record(how, { is: 'failed', code: 'busy', detail: '' });
    return;
  }
  useFeed.setState({ pulling: true });
  try {
    const result = await pullFeed(ask, feed.cursor);
    if (!result.ok) return await record(how, { is: 'failed', ...result.fault });
    const { pull } = result;
    if (pull.entries.length === 0) return await record(how, { is: 'nothingNew', ...(await pullOpenItems()) });
    const name = `Ledger feed, entries ${pull.since + 1}–${pull.company.last}`;
    const taken = await takePull(pull, name, closesThrough(ground, pull.company.closedThrough));
    await record(
      how,
      taken
        ? {
            is: 'taken',
            entries: pull.entries.length,
            through: pull.company.last,
            ...(await pullOpenItems()),
          }
        : { is: 'waits', entries: pull.entries.length },
    );
  } finally {
    useFeed.setState({ pulling: false });
  }
}

/** The name under which the feed's open items stand in the book. */
export const FEED_ITEMS = 'Ledger feed';

/**
 * Takes in what the feed says is unpaid, ordered or to be sold, where the book is closed through the same day. What did not
 * change changes nothing; an answer that is none leaves what stands.
 */
async function pullOpenItems(): Promise<PulledItems> {
  const ground = groundNow();
  if (!ground || ground.closedThrough === null) return {};
  try {
    const open = feedOpenSchema.parse(await ask('open'));
    if (open.through !== ground.calendar.period(ground.closedThrough).end) return {};
    const { items, setAside } = feedItems(open, FEED_ITEMS, ground.book);
    const there = ground.book.cash.items
      .filter((i) => i.from === FEED_ITEMS)
      .map(({ id: _, ...rest }) => rest);
    const isOfDay = ground.book.cash.lists.some((l) => l.from === FEED_ITEMS && l.day === open.through);
    if (!isOfDay || !same(there, items)) {
      const { takeOpenItems } = await import('./openItems');
      const read = items.map((i) => ({ ...i, said: null }));
      if (takeOpenItems(ground, FEED_ITEMS, ['in', 'out'], read, open.through as Day))
        return { itemsFailed: true };
    }
    const aside = setAside.slice(0, 5).map((a) => a.number);
    return { items: items.length, ...(aside.length > 0 ? { aside } : {}) };
  } catch {
    return { itemsFailed: true };
  }
}

const same = (a: readonly object[], b: readonly object[]): boolean => {
  const texts = (all: readonly object[]) =>
    all.map((i) => JSON.stringify(Object.entries(i).sort(([x], [y]) => (x < y ? -1 : 1)))).sort();
  return JSON.stringify(texts(a)) === JSON.stringify(texts(b));
};

/** The last period that ends by a day; what is closed already when that is later. */
function closesThrough({ book, calendar, closedThrough: now }: Ground, day: string | null): PeriodId | null {
  if (day === null) return book.closedThrough;
  const at = calendar.indexOfDay(toDayNumber(dayOfText(day)));
  const whole = calendar.period(at).end <= day ? at : at - 1;
  return calendar.period(Math.max(whole, now ?? whole)).id;
}

/** An instant as minutes of local civil time. */
function localMinute(at: Date): LocalMinute {
  const days = dayNumberOf(at.getFullYear(), at.getMonth() + 1, at.getDate());
  return days * 1440 + at.getHours() * 60 + at.getMinutes();
}

/** Pulls when the schedule says so: asked every minute while the app is open, and once when it opens. */
export function keepPulling(): () => void {
  const tick = () => {
    const { history, readOnly } = useBookStore.getState();
    const feed = history?.book.feed;
    const { log, book } = useFeed.getState();
    if (!feed || readOnly || book !== history.book.id) return;
    const times = (only: boolean) =>
      log.filter((r) => !only || r.outcome.is !== 'failed').map((r) => localMinute(new Date(r.at)));
    const good = times(true).at(-1) ?? 0;
    const tried = times(false).at(-1) ?? good;
    if (isPullDue(feed.schedule, good, tried, localMinute(new Date()))) void pullNow('scheduled');
  };
  const timer = setInterval(tick, 60_000);
  const unsubscribe = useFeed.subscribe((s, before) => s.log !== before.log && s.book && tick());
  tick();
  return () => {
    clearInterval(timer);
    unsubscribe();
  };
}

/** State of the simulated service: not of the book. */
export type FeedSimulation = {
  readonly closedMonths: number;
  readonly failNext: number;
  readonly halfNext: number;
  readonly repeat: boolean;
  readonly delayMs: number;
};

/** Reads or changes the simulated service; null when it cannot be reached. */
export async function feedSimulation(
  what?: 'close' | 'settings' | 'reset',
  body: object = {},
): Promise<FeedSimulation | null> {
  try {
    const answer = what
      ? await fetch(`${FEED_PATH}/${what}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        })
      : await fetch(`${FEED_PATH}/settings`, { cache: 'no-store' });
    return answer.ok ? ((await answer.json()) as FeedSimulation) : null;
  } catch {
    return null;
  }
}
