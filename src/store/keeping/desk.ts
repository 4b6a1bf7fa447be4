import type { LedgerBlock } from '@/core/ledger';
import type { History } from '@/core/model';
import type { Held } from '@/platform/tabLock';
import { Overtaken, type Keeper } from './keeper';

export type SaveState =
  | { readonly state: 'saved'; readonly at: string }
  | {
      readonly state: 'saving';
      /** It takes long: what was done last is not on disk yet. */
      readonly slow?: true;
    }
  | { readonly state: 'failed'; readonly why: string }
  /** Another tab took the book over before what was done last here was written. */
  | { readonly state: 'lost' };

export type DeskSettings = {
  readonly now: () => string;
  /** A save follows a change by this much: after it is painted, and before a hand has made the next one. */
  readonly saveAfterMs: number;
  /** A failed save is tried again after these; the last one again and again. */
  readonly retryAfterMs: readonly number[];
  /** From here on a save that is not done is called slow. */
  readonly slowAfterMs: number;
  /** Does something later; gives what stops it. */
  readonly after: (ms: number, run: () => void) => () => void;
};

export const DESK_SETTINGS: Omit<DeskSettings, 'now' | 'after'> = {
  saveAfterMs: 60,
  retryAfterMs: [500, 1000, 2000, 5000, 10_000, 20_000],
  slowAfterMs: 5000,
};

/**
 * A book that is open for change in this tab, with the right to change it and what of it is on disk. It saves itself
 * after every change, one save at a time, and tries a failed one again until it is done; so it stays, unseen, when
 * another book is opened before all of it is written.
 */
export class Desk {
  /** What is known to be on disk: read from there, or written and confirmed. */
  private onDisk: History | null;
  private running: Promise<void> | null = null;
  private timer: (() => void) | null = null;
  private slow: (() => void) | null = null;
  private tries = 0;
  private lost = false;
  save: SaveState;

  constructor(
    private readonly keeper: Keeper,
    private readonly settings: DeskSettings,
    public history: History,
    public blocks: ReadonlyMap<string, LedgerBlock>,
    private readonly held: Held,
    savedAt: string | null,
    private readonly onChange: (desk: Desk) => void,
  ) {
    this.onDisk = savedAt === null ? null : history;
    this.save = savedAt === null ? { state: 'saving' } : { state: 'saved', at: savedAt };
    held.whenLost(() => this.lose());
  }

  get id(): string {
    return this.history.book.id;
  }

  /** Whether something of it is not on disk. */
  get unsaved(): boolean {
    return this.history !== this.onDisk;
  }

  /** Whether the right to change it was taken away. */
  get isLost(): boolean {
    return this.lost;
  }

  /** Takes up another state of the book; it is written soon. */
  change(history: History, blocks = this.blocks): void {
    this.history = history;
    this.blocks = blocks;
    if (this.save.state === 'saved') this.say({ state: 'saving' });
    this.watch();
    this.timer ??= this.settings.after(this.settings.saveAfterMs, () => void this.flush());
  }

  /** Writes what is unsaved now; done when it is on disk, or when the storage refused it. */
  async flush(): Promise<void> {
    this.timer?.();
    this.timer = null;
    // Whoever waited looks again: another may have begun meanwhile, or the one waited for may have left something.
    while (this.running) await this.running;
    if (!this.unsaved || this.lost) return;
    const run = this.write().finally(() => {
      if (this.running === run) this.running = null;
    });
    this.running = run;
    await run;
  }

  private async write(): Promise<void> {
    this.watch();
    while (this.unsaved && !this.lost) {
      const { history, blocks } = this;
      const at = this.settings.now();
      try {
        await this.keeper.save(history, blocks, at);
      } catch (error) {
        this.unwatch();
        if (error instanceof Overtaken) return this.lose();
        if (this.lost) return;
        const why = error instanceof Error ? error.message || error.name : String(error);
        this.say({ state: 'failed', why });
        const { retryAfterMs } = this.settings;
        const after = retryAfterMs[Math.min(this.tries++, retryAfterMs.length - 1)]!;
        this.timer ??= this.settings.after(after, () => void this.flush());
        return;
      }
      this.tries = 0;
      // Also when the book was lost meanwhile: whoever took it over reads what was confirmed before his own first save.
      this.onDisk = history;
      if (!this.unsaved) {
        this.unwatch();
        this.say({ state: 'saved', at });
      }
    }
  }

  private watch(): void {
    this.slow ??= this.settings.after(this.settings.slowAfterMs, () => {
      if (this.save.state === 'saving') this.say({ state: 'saving', slow: true });
    });
  }

  private unwatch(): void {
    this.slow?.();
    this.slow = null;
  }

  private say(save: SaveState): void {
    this.save = save;
    this.onChange(this);
  }

  /** The right to change it was taken away by another tab. */
  lose(): void {
    if (this.lost) return;
    this.lost = true;
    this.stop();
    if (this.unsaved) this.say({ state: 'lost' });
    else this.onChange(this);
  }

  /** Writes no more. */
  halt(): void {
    this.lost = true;
    this.stop();
  }

  /** Writes no more and gives the right to change it back. */
  close(): void {
    this.halt();
    this.held.letGo();
  }

  private stop(): void {
    this.unwatch();
    this.timer?.();
    this.timer = null;
  }
}
