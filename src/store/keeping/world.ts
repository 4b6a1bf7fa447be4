import type { KeyValue } from '@/platform/keyValue';
import { heldRight, type Held, type NewsChannel, type TabLock, type TabNews } from '@/platform/tabLock';
import { DESK_SETTINGS } from './desk';
import { Keeper } from './keeper';
import { Library } from './library';

/*
 * A browser for tests: one storage, one lock for each book, and tabs that hear of each other. Nothing in it happens by
 * itself: each write, message and timer waits until the test lets it, and may be refused, held back or cut off.
 */

type Waiting = {
  readonly tab: Tab;
  readonly run: () => void;
  readonly refuse: () => void;
  readonly writes: boolean;
};
type Timer = { readonly tab: Tab; readonly at: number; readonly run: () => void; stopped: boolean };

export class Tab {
  alive = true;
  readonly library: Library;
  readonly keeper: Keeper;

  constructor(
    readonly world: World,
    readonly name: string,
  ) {
    this.keeper = new Keeper(world.place(this), name, () => ++world.clock, { tail: 30, since: 120 });
    this.library = new Library({
      keeper: this.keeper,
      lock: world.locks(this),
      news: world.news(this),
      settings: { ...DESK_SETTINGS, now: () => `t${world.clock}`, after: world.after(this) },
      answerMs: 5000,
      onChange: () => undefined,
      onRemoved: () => undefined,
    });
  }
}

export class World {
  readonly data = new Map<string, unknown>();
  readonly tabs = new Set<Tab>();
  clock = 0;
  /** Whether the storage refuses writes. */
  full = false;
  private readonly disk: Waiting[] = [];
  private messages: { readonly to: Tab; readonly news: TabNews; readonly on: (news: TabNews) => void }[] = [];
  private lostNews: (() => void)[] = [];
  private timers: Timer[] = [];
  private readonly listeners = new Map<Tab, (news: TabNews) => void>();
  private readonly holders = new Map<string, { readonly tab: Tab; readonly lose: () => void }>();
  private queue: { readonly tab: Tab; readonly book: string; readonly grant: () => boolean }[] = [];
  private named = 0;

  tab(): Tab {
    const tab = new Tab(this, `t${++this.named}x`);
    this.tabs.add(tab);
    return tab;
  }

  /** A tab is gone without another word: what it had begun to write may still arrive, in its order, up to some point. */
  kill(tab: Tab, arriving: number): void {
    tab.alive = false;
    this.tabs.delete(tab);
    const own = this.disk.filter((w) => w.tab === tab);
    for (const w of own.slice(0, arriving)) w.run();
    for (const w of own) this.disk.splice(this.disk.indexOf(w), 1);
    this.timers = this.timers.filter((t) => t.tab !== tab);
    this.messages = this.messages.filter((m) => m.to !== tab);
    this.listeners.delete(tab);
    this.queue = this.queue.filter((q) => q.tab !== tab);
    for (const [book, { tab: holder }] of this.holders) if (holder === tab) this.free(book);
  }

  /** Lets the storage do what waits longest; false when nothing waits. */
  stepDisk(): boolean {
    const next = this.disk.shift();
    if (!next) return false;
    if (this.full && next.writes) next.refuse();
    else next.run();
    return true;
  }

  /** Delivers the oldest message between tabs. */
  stepNews(): boolean {
    const m = this.messages.shift();
    if (m?.to.alive) m.on(m.news);
    return m !== undefined;
  }

  /** Tells the tab that lost a book longest ago that it did. */
  stepLost(): boolean {
    const lost = this.lostNews.shift();
    lost?.();
    return lost !== undefined;
  }

  /** Lets the earliest timer go off. */
  stepTimer(): boolean {
    this.timers = this.timers.filter((t) => !t.stopped);
    if (this.timers.length === 0) return false;
    const next = this.timers.reduce((a, b) => (b.at < a.at ? b : a));
    next.stopped = true;
    this.clock = Math.max(this.clock, next.at);
    next.run();
    return true;
  }

  place(tab: Tab): KeyValue {
    const ask = <T>(writes: boolean, work: () => T): Promise<T> =>
      new Promise((resolve, reject) => {
        if (!tab.alive) return;
        this.disk.push({
          tab,
          writes,
          run: () => {
            const answer = work();
            if (tab.alive) resolve(answer);
          },
          refuse: () => reject(new Error('full')),
        });
      });
    return {
      get: (key) => ask(false, () => structuredClone((this.data.get(key) ?? null) as never)),
      set: (key, value) => {
        const copy = structuredClone(value);
        return ask(true, () => void this.data.set(key, copy));
      },
      remove: (key) => ask(true, () => void this.data.delete(key)),
      keys: () => ask(false, () => [...this.data.keys()]),
    };
  }

  after(tab: Tab): (ms: number, run: () => void) => () => void {
    return (ms, run) => {
      const timer: Timer = { tab, at: this.clock + ms, run, stopped: !tab.alive };
      this.timers.push(timer);
      return () => {
        timer.stopped = true;
      };
    };
  }

  news(tab: Tab): NewsChannel {
    return {
      tell: (news) => {
        for (const [to, on] of this.listeners) if (to !== tab) this.messages.push({ to, news, on });
      },
      listen: (on) => void this.listeners.set(tab, on),
    };
  }

  locks(tab: Tab): TabLock {
    const hold = (book: string): Held => {
      const { held, lose } = heldRight(() => this.holders.get(book) === own && this.free(book));
      const own = { tab, lose };
      this.holders.set(book, own);
      return held;
    };
    return {
      take: async (book) => (this.holders.has(book) ? null : hold(book)),
      wait: (book, ms) =>
        new Promise((resolve) => {
          if (!this.holders.has(book)) return resolve(hold(book));
          const place = {
            tab,
            book,
            grant: () => {
              stop();
              resolve(hold(book));
              return true;
            },
          };
          this.queue.push(place);
          const stop = this.after(tab)(ms, () => {
            this.queue = this.queue.filter((q) => q !== place);
            resolve(null);
          });
        }),
      seize: async (book) => {
        const before = this.holders.get(book);
        const held = hold(book);
        if (before?.tab.alive) this.lostNews.push(() => before.tab.alive && before.lose());
        return held;
      },
      awaited: async (book) => this.queue.some((q) => q.book === book),
    };
  }

  private free(book: string): void {
    this.holders.delete(book);
    const next = this.queue.find((q) => q.book === book);
    if (!next) return;
    this.queue = this.queue.filter((q) => q !== next);
    next.grant();
  }
}
