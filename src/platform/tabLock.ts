/** A right that is held until it is let go or taken away. */
export type Held = {
  readonly letGo: () => void;
  /** Has something done when the right is taken away; at once when it was taken away before. */
  readonly whenLost: (run: () => void) => void;
};

/** The right to change a book, held by one tab at a time. */
export type TabLock = {
  /** Asks for the right; null when another tab has it. */
  readonly take: (book: string) => Promise<Held | null>;
  /** Waits for the right as long as said; null when it was not to be had by then. */
  readonly wait: (book: string, ms: number) => Promise<Held | null>;
  /** Takes the right away from whoever has it. */
  readonly seize: (book: string) => Promise<Held>;
  /** Whether anyone waits for the right at this moment. */
  readonly awaited: (book: string) => Promise<boolean>;
};

/** A right that was just given, and what takes it away again. */
export function heldRight(letGo: () => void): { readonly held: Held; readonly lose: () => void } {
  let lost = false;
  let over = false;
  let onLost = (): void => undefined;
  return {
    held: {
      letGo: () => {
        over = true;
        letGo();
      },
      whenLost: (run) => {
        onLost = run;
        if (lost) run();
      },
    },
    lose: () => {
      if (over || lost) return;
      lost = true;
      onLost();
    },
  };
}

/** By the Web Locks API: the browser frees the lock when a tab dies, so a book is never left locked. */
export function browserTabLock(): TabLock {
  const nameOf = (book: string) => `tellan-book-${book}`;
  const ask = (book: string, options: LockOptions): Promise<Held | null> =>
    new Promise((resolve) => {
      let lose: (() => void) | null = null;
      const asked = navigator.locks.request(nameOf(book), options, (lock) => {
        if (!lock) return resolve(null);
        return new Promise<void>((done) => {
          const right = heldRight(done);
          ({ lose } = right);
          resolve(right.held);
        });
      });
      // Rejects when it waited in vain, or, once it was held, when it was taken away.
      asked.catch(() => (lose ? lose() : resolve(null)));
    });
  return {
    take: (book) => ask(book, { ifAvailable: true }),
    wait: (book, ms) => ask(book, { signal: AbortSignal.timeout(ms) }),
    seize: async (book) => (await ask(book, { steal: true }))!,
    awaited: async (book) =>
      ((await navigator.locks.query()).pending ?? []).some((l) => l.name === nameOf(book)),
  };
}

const give = async () => heldRight(() => undefined).held;

/** Without locks (a browser of before 2022) there is no telling tabs apart: each may write. */
export const NO_LOCK: TabLock = { take: give, wait: give, seize: give, awaited: async () => false };

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
