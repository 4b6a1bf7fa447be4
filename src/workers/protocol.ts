import type { CalendarSpec, PeriodId, PeriodRange } from '@/core/calendar';
import type { FileFormat, FileIssue, GridCell } from '@/core/files';
import type {
  AccountChoice,
  DraftView,
  EntryColumns,
  FeedPull,
  Guess,
  GuessContext,
  Mapping,
  Proof,
  ProofGround,
  Shape,
} from '@/core/intake';
import type { LedgerBlock } from '@/core/ledger';
import type { Account, Axis, Book, HandedLine, Round } from '@/core/model';
import type { Anchor, ReadReturn } from '@/core/handout';
import type { NumberFormat } from '@/core/money';
import type { HandoutFiles } from '@/core/exchange/handoutFiles';
import type { PdfRequest } from '@/core/exchange/pdf';
import type { PlanSheet } from '@/core/exchange/planLayout';
import type { ReportTable } from '@/core/report';
import type { Answers, Question } from '@/core/whatif';

export type IntakeContent = { readonly file: Blob } | { readonly pull: FeedPull };

/** The first rows of each sheet, to show a guess over. */
export type SheetPreview = {
  readonly name: string | null;
  readonly rows: readonly (readonly GridCell[])[];
};

export type OpenedFile = {
  readonly fingerprint: string;
  readonly format: FileFormat;
  readonly encoding: string | null;
  readonly delimiter: string | null;
  readonly sheets: readonly SheetPreview[];
};

/** A guess with the draft that it reads, and the heads by which the next file of the shape is known. */
export type Drafted = {
  readonly guess: Guess;
  readonly draft: DraftView;
  readonly heads: string;
  /** What becomes of each account, matched with the book's. */
  readonly choices: readonly AccountChoice[];
};

/** What the page asks of the intake worker. Every request carries a number; every answer names it. */
export type IntakeRequest = { readonly id: number } & (
  | {
      readonly type: 'open';
      /** A file itself, which is read only in the worker, or a pull of the feed. */
      readonly content: IntakeContent;
      readonly context: GuessContext;
      readonly currency: string;
      /** The book's accounts, to match the file's with. */
      readonly accounts: readonly Account[];
      readonly delimiter?: string;
    }
  | {
      readonly type: 'guess';
      readonly sheet: number;
      readonly shape: Shape | null;
      readonly context: GuessContext;
      readonly currency: string;
    }
  | {
      readonly type: 'draft';
      readonly guess: Guess;
      readonly mapping: Mapping;
      readonly currency: string;
      readonly calendar: CalendarSpec;
    }
  | {
      readonly type: 'prove';
      readonly choices: readonly AccountChoice[];
      readonly ground: ProofGround;
    }
  /** Of the entries as proved last: how many stand already among others. */
  | {
      readonly type: 'here';
      readonly choices: readonly AccountChoice[];
      readonly blocks: readonly EntryColumns[];
      readonly merged: Readonly<Record<string, string>>;
    }
  /** Gives the entries out: the last request of a file. */
  | { readonly type: 'finish' }
);

export type IntakeAnswer = { readonly id: number } & (
  | { readonly type: 'progress'; readonly share: number }
  | { readonly type: 'opened'; readonly file: OpenedFile; readonly drafted: Drafted }
  | { readonly type: 'drafted'; readonly drafted: Drafted }
  | { readonly type: 'proved'; readonly proof: Proof }
  | { readonly type: 'counted'; readonly here: number }
  | { readonly type: 'finished'; readonly block: LedgerBlock }
  | { readonly type: 'refused'; readonly issue: FileIssue }
  | { readonly type: 'failed'; readonly message: string }
);

/** A report as a workbook, reports as a PDF, or a budget's sheets that reckon themselves. */
export type ExportRequest =
  | { readonly reports: readonly ReportTable[] }
  | { readonly pdf: PdfRequest }
  | { readonly sheets: readonly PlanSheet[]; readonly currency: string }
  | { readonly handouts: HandoutFiles };
export type ExportAnswer =
  | { readonly ok: true; readonly bytes: Uint8Array }
  | { readonly ok: false; readonly message: string }
  /** How far it is; the answer is still to come. */
  | { readonly ok: null; readonly share: number };

/** A file that came back, and whose it may be. */
export type ReturnedRequest = {
  readonly file: Blob;
  readonly accounts: readonly Account[];
  readonly calendar: CalendarSpec;
  readonly currency: string;
  readonly prefer: NumberFormat;
  /** How it was said that the file writes numbers; null while nobody was asked. */
  readonly numbers: NumberFormat | null;
  readonly asks: readonly {
    readonly round: string;
    readonly handout: string;
    readonly first: PeriodId;
    readonly length: number;
    readonly answer: Round['answer'];
    readonly axis: Axis | null;
    readonly lines: readonly HandedLine[];
  }[];
};
export type ReturnedAnswer =
  | {
      readonly ok: true;
      readonly fingerprint: string;
      /** What it says of itself; null where it says nothing. */
      readonly anchor: Anchor | null;
      /** Which of those asked for it is read as; null where none of them knows a line of it. */
      readonly ask: number | null;
      readonly reading: ReadReturn | null;
    }
  | { readonly ok: false; readonly issue: FileIssue | null; readonly message: string };

/** A book that questions are asked of, or a question, or that nobody waits for its answer any more. */
export type QuestionRequest =
  | {
      readonly type: 'ground';
      readonly book: Book;
      /** The blocks of its ledger, by id; those that the worker has not yet come along. */
      readonly blocks: readonly string[];
      readonly fresh: readonly LedgerBlock[];
    }
  | {
      readonly type: 'ask';
      readonly id: number;
      readonly look: string | null;
      readonly range: PeriodRange;
      readonly question: Question;
    }
  | { readonly type: 'stop'; readonly id: number };

export type QuestionAnswer =
  | { readonly id: number; readonly type: 'progress'; readonly share: number }
  | { readonly id: number; readonly type: 'answered'; readonly answer: Answers[keyof Answers] }
  | { readonly id: number; readonly type: 'failed'; readonly message: string };
