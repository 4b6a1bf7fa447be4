/** A right that is held until it is let go or taken away. */
export type Held = { readonly letGo: () => void };

/** The right to change a book, held by one tab at a time. `onLost` is told when it is taken away. */
export type TabLock = {
  /** Asks for the right; null when another tab has it. */
  readonly take: (book: string, onLost: () => void) => Promise<Held | null>;
  /** Waits for the right as long as said; null when it was not to be had by then. */
  readonly wait: (book: string, ms: number, onLost: () => void) => Promise<Held | null>;
  /** Takes the right away from whoever has it. */
  readonly seize: (book: string, onLost: () => void) => Promise<Held>;
};

/** By the Web Locks API: the browser frees the lock when a tab dies, so a book is never left locked. */
export function browserTabLock(): TabLock {
  const ask = (book: string, options: LockOptions, onLost: () => void): Promise<Held | null> =>
    new Promise((resolve) => {
      let over = false;
      const end = (done: (() => void) | null) => {
        over = true;
        done?.();
      };
      const held = navigator.locks.request(`tellan-book-${book}`, options, (lock) => {
        if (!lock) {
          resolve(null);
          return;
        }
        return new Promise<void>((done) => resolve({ letGo: () => end(done) }));
      });
      // Rejects when it waited in vain, or, once it was held, when it was taken away.
      held.catch(() => {
        resolve(null);
        if (!over) onLost();
      });
    });
  return {
    take: (book, onLost) => ask(book, { ifAvailable: true }, onLost),
    wait: (book, ms, onLost) => {
      let got = false;
      const lost = () => {
        if (got) onLost();
      };
      return ask(book, { signal: AbortSignal.timeout(ms) }, lost).then((held) => {
        got = held !== null;
        return held;
      });
    },
    seize: async (book, onLost) => (await ask(book, { steal: true }, onLost))!,
  };
}

/** What tabs of this browser tell each other of a book. */
export type TabNews =
  /** It was saved: readers follow. */
  | { readonly is: 'saved'; readonly book: string }
  /** Another tab wants to work on it: whoever holds it writes what it has and lets go. */
  | { readonly is: 'wanted'; readonly book: string }
  /** Whoever holds it has changes that it cannot write, and keeps it. */
  | { readonly is: 'kept'; readonly book: string; readonly why: string }
  /** It is no more. */
  | { readonly is: 'removed'; readonly book: string };

export type NewsChannel = {
  readonly tell: (news: TabNews) => void;
  readonly listen: (on: (news: TabNews) => void) => void;
};

/** By BroadcastChannel, which reaches every other tab of this address and not the one that tells. */
export function tabNews(): NewsChannel {
  const channel = new BroadcastChannel('tellan-books');
  return {
    tell: (news) => channel.postMessage(news),
    listen: (on) => (channel.onmessage = (e: MessageEvent<TabNews>) => on(e.data)),
  };
}
