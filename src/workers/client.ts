import type { FileIssue } from '@/core/files';
import type { CalendarSpec } from '@/core/calendar';
import type {
  AccountChoice,
  EntryColumns,
  Guess,
  GuessContext,
  Mapping,
  Proof,
  ProofGround,
  Shape,
} from '@/core/intake';
import type { LedgerBlock } from '@/core/ledger';
import type { Account } from '@/core/model';
import type {
  Drafted,
  ExportAnswer,
  ExportRequest,
  IntakeAnswer,
  IntakeContent,
  IntakeRequest,
  OpenedFile,
  ReturnedAnswer,
  ReturnedRequest,
} from './protocol';

/** The person stopped the work, or a later request overtook it. */
export class Cancelled extends Error {}

/** The worker gave no sign of life for too long, and was ended. */
export class TookTooLong extends Error {
  constructor() {
    super('It took too long, and was stopped. Nothing of it is in the book.');
  }
}

/** A worker that says nothing for so long hangs: a million rows say how far they are every second. */
const SILENCE_MS = 60_000;

/** The file cannot be read at all. */
export class FileRefused extends Error {
  constructor(readonly issue: FileIssue) {
    super(issue.code);
  }
}

const unexpected = (a: IntakeAnswer) => new Error(`Unexpected answer: ${a.type}`);

type Ask = IntakeRequest extends infer R ? (R extends IntakeRequest ? Omit<R, 'id'> : never) : never;
type Waiting = {
  readonly id: number;
  readonly resolve: (a: IntakeAnswer) => void;
  readonly reject: (e: Error) => void;
};

/** One file on its way in. Only the latest request counts: what an overtaken one answers is dropped. */
export class IntakeClient {
  private worker: Worker | null = null;
  private waiting: Waiting | null = null;
  private last = 0;
  private silence: ReturnType<typeof setTimeout> | null = null;

  constructor(private readonly onProgress: (share: number) => void) {}

  async open(
    content: IntakeContent,
    context: GuessContext,
    currency: string,
    accounts: readonly Account[],
    delimiter?: string,
  ): Promise<{ readonly file: OpenedFile; readonly drafted: Drafted }> {
    const a = await this.ask({ type: 'open', content, context, currency, accounts, delimiter });
    if (a.type === 'opened') return a;
    throw a.type === 'refused' ? new FileRefused(a.issue) : unexpected(a);
  }

  async guess(sheet: number, shape: Shape | null, context: GuessContext, currency: string): Promise<Drafted> {
    const a = await this.ask({ type: 'guess', sheet, shape, context, currency });
    if (a.type === 'drafted') return a.drafted;
    throw unexpected(a);
  }

  async draft(guess: Guess, mapping: Mapping, currency: string, calendar: CalendarSpec): Promise<Drafted> {
    const a = await this.ask({ type: 'draft', guess, mapping, currency, calendar });
    if (a.type === 'drafted') return a.drafted;
    throw unexpected(a);
  }

  async prove(choices: readonly AccountChoice[], ground: ProofGround): Promise<Proof> {
    const a = await this.ask({ type: 'prove', choices, ground });
    if (a.type === 'proved') return a.proof;
    throw unexpected(a);
  }

  /** How many of the entries, as proved last, stand already among those of these blocks. */
  async here(
    choices: readonly AccountChoice[],
    blocks: readonly EntryColumns[],
    merged: Readonly<Record<string, string>>,
  ): Promise<number> {
    const a = await this.ask({ type: 'here', choices, blocks, merged });
    if (a.type === 'counted') return a.here;
    throw unexpected(a);
  }

  /** The entries as they were proved last; the worker has none of the file after it. */
  async finish(): Promise<LedgerBlock> {
    const a = await this.ask({ type: 'finish' });
    if (a.type === 'finished') return a.block;
    throw unexpected(a);
  }

  /** Stops whatever runs: the worker ends at once, and nothing of the file stays. */
  close(): void {
    this.end(new Cancelled());
    this.listen();
  }

  private ask(request: Ask): Promise<IntakeAnswer> {
    this.worker ??= this.start();
    this.waiting?.reject(new Cancelled());
    const id = ++this.last;
    return new Promise((resolve, reject) => {
      this.waiting = { id, resolve, reject };
      this.listen();
      this.worker!.postMessage({ ...request, id });
    });
  }

  /** Begins to wait for a sign of life, anew with each. */
  private listen(): void {
    if (this.silence) clearTimeout(this.silence);
    this.silence = this.waiting ? setTimeout(() => this.end(new TookTooLong()), SILENCE_MS) : null;
  }

  private end(why: Error): void {
    this.worker?.terminate();
    this.worker = null;
    const waiting = this.waiting;
    this.waiting = null;
    waiting?.reject(why);
  }

  private start(): Worker {
    const worker = new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<IntakeAnswer>) => {
      const waiting = this.waiting;
      if (!waiting || data.id !== waiting.id) return;
      if (data.type === 'progress') {
        this.listen();
        return this.onProgress(data.share);
      }
      this.waiting = null;
      this.listen();
      if (data.type === 'failed') waiting.reject(new Error(data.message));
      else waiting.resolve(data);
    };
    worker.onerror = (e) =>
      this.end(new Error(e.message || 'The reader stopped: the file may be too large for this computer'));
    return worker;
  }
}

/** Writes a workbook or a document in a worker of its own, which ends with it, or when `signal` says so. */
export function writeFile(
  request: ExportRequest,
  {
    onProgress,
    signal,
  }: { readonly onProgress?: (share: number) => void; readonly signal?: AbortSignal } = {},
): Promise<Uint8Array> {
  const worker = new Worker(new URL('./export.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Uint8Array>((resolve, reject) => {
    setTimeout(() => reject(new TookTooLong()), 5 * SILENCE_MS);
    signal?.addEventListener('abort', () => reject(new Cancelled()));
    worker.onmessage = ({ data }: MessageEvent<ExportAnswer>) => {
      if (data.ok === null) onProgress?.(data.share);
      else if (data.ok) resolve(data.bytes);
      else reject(new Error(data.message));
    };
    worker.onerror = (e) => reject(new Error(e.message || 'The export stopped'));
    worker.postMessage(request);
  }).finally(() => worker.terminate());
}

/** Reads a file that came back, in a worker of its own. */
export function readReturned(request: ReturnedRequest): Promise<ReturnedAnswer> {
  const worker = new Worker(new URL('./returned.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<ReturnedAnswer>((resolve, reject) => {
    setTimeout(() => reject(new TookTooLong()), SILENCE_MS);
    worker.onmessage = ({ data }: MessageEvent<ReturnedAnswer>) => resolve(data);
    worker.onerror = (e) => reject(new Error(e.message || 'The reader stopped'));
    worker.postMessage(request);
  }).finally(() => worker.terminate());
}
