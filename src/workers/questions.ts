import type { PeriodRange } from '@/core/calendar';
import type { LedgerBlock } from '@/core/ledger';
import type { Book } from '@/core/model';
import type { Answers, AskOf, Question } from '@/core/whatif';
import { Cancelled } from './client';
import type { QuestionAnswer, QuestionRequest } from './protocol';

type Waiting = {
  readonly resolve: (answer: Answers[keyof Answers]) => void;
  readonly reject: (error: Error) => void;
  readonly onProgress: (share: number) => void;
};

/** Questions about one book, answered in a worker of their own: the page stays free meanwhile. */
export class QuestionClient {
  private worker: Worker | null = null;
  private book: Book | null = null;
  private readonly sent = new Set<string>();
  private readonly waiting = new Map<number, Waiting>();
  private last = 0;

  /** Asks; what is known of the book there already is not sent again. Rejected with `Cancelled` where `signal` says so. */
  ask<K extends Question['ask']>(
    of: { readonly book: Book; readonly blocks: readonly LedgerBlock[] },
    at: { readonly look: string | null; readonly range: PeriodRange },
    question: AskOf<K>,
    signal: AbortSignal,
    onProgress: (share: number) => void,
  ): Promise<Answers[K]> {
    const worker = (this.worker ??= this.start());
    if (of.book !== this.book) this.tell(worker, of);
    const id = ++this.last;
    return new Promise<Answers[keyof Answers]>((resolve, reject) => {
      if (signal.aborted) return reject(new Cancelled());
      this.waiting.set(id, { resolve, reject, onProgress });
      signal.addEventListener('abort', () => {
        if (!this.waiting.delete(id)) return;
        this.worker?.postMessage({ type: 'stop', id } satisfies QuestionRequest);
        reject(new Cancelled());
      });
      worker.postMessage({ type: 'ask', id, ...at, question } satisfies QuestionRequest);
    }) as Promise<Answers[K]>;
  }

  /** Ends it; whoever still waits is told. */
  close(why: Error = new Cancelled()): void {
    this.worker?.terminate();
    this.worker = null;
    this.book = null;
    this.sent.clear();
    for (const { reject } of this.waiting.values()) reject(why);
    this.waiting.clear();
  }

  private tell(
    worker: Worker,
    { book, blocks }: { readonly book: Book; readonly blocks: readonly LedgerBlock[] },
  ): void {
    const fresh = blocks.filter((b) => !this.sent.has(b.id));
    this.sent.clear();
    for (const b of blocks) this.sent.add(b.id);
    worker.postMessage({
      type: 'ground',
      book,
      blocks: blocks.map((b) => b.id),
      fresh,
    } satisfies QuestionRequest);
    this.book = book;
  }

  private start(): Worker {
    const worker = new Worker(new URL('./questions.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<QuestionAnswer>) => {
      const waiting = this.waiting.get(data.id);
      if (!waiting) return;
      if (data.type === 'progress') return waiting.onProgress(data.share);
      this.waiting.delete(data.id);
      if (data.type === 'failed') waiting.reject(new Error(data.message));
      else waiting.resolve(data.answer);
    };
    worker.onerror = (e) => this.close(new Error(e.message || 'It could not be reckoned'));
    return worker;
  }
}
