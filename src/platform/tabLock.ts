/** The right to change a book, held by one tab at a time. */
export type TabLock = {
  /** Asks for the right; `false` when another tab has it. `steal` takes it over. `onLost` is told when it is taken away. */
  readonly acquire: (book: string, steal: boolean, onLost: () => void) => Promise<boolean>;
  readonly release: () => void;
};

/** By the Web Locks API: the browser frees the lock when a tab dies, so a book is never left locked. */
export function browserTabLock(): TabLock {
  let letGo: (() => void) | null = null;
  return {
    acquire(book, steal, onLost) {
      letGo?.();
      letGo = null;
      return new Promise((resolve) => {
        const held = navigator.locks.request(
          `tellan-book-${book}`,
          steal ? { steal: true } : { ifAvailable: true },
          (lock) => {
            if (!lock) {
              resolve(false);
              return;
            }
            resolve(true);
            return new Promise<void>((done) => (letGo = done));
          },
        );
        held.catch(() => {
          letGo = null;
          onLost();
        });
      });
    },
    release() {
      letGo?.();
      letGo = null;
    },
  };
}

/** Tells the other tabs of this browser that a book was saved, so that readers follow. */
export function tabNews(): {
  readonly tell: (book: string) => void;
  readonly listen: (on: (book: string) => void) => void;
} {
  const channel = new BroadcastChannel('tellan-saved');
  return {
    tell: (book) => channel.postMessage(book),
    listen: (on) => (channel.onmessage = (e: MessageEvent<string>) => on(e.data)),
  };
}
