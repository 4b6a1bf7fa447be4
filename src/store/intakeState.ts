import { create } from 'zustand';
import type { PeriodId } from '@/core/calendar';
import type { FileIssue } from '@/core/files';
import type { AccountChoice, DraftView, Guess, Mapping, Proof } from '@/core/intake';
import type { OpenedFile } from '@/workers/protocol';

export type OpenIntake = {
  readonly phase: 'open';
  readonly fileName: string;
  readonly file: OpenedFile;
  readonly guess: Guess;
  readonly mapping: Mapping;
  readonly heads: string;
  readonly draft: DraftView;
  readonly choices: readonly AccountChoice[];
  /** Null while it is being worked out. */
  readonly proof: Proof | null;
  /** How many of its entries sources with some of its days hold already. */
  readonly here: number;
  readonly busy: boolean;
  /** Of a pull of the feed: the entry it goes up to, and what is closed with it. Null for a file. */
  readonly pull: PullFacts | null;
  /** The person has said how dates are written, where the file leaves it open. */
  readonly datesSaid: boolean;
};

export type PullFacts = { readonly cursor: number; readonly closes: PeriodId | null };

type Phase =
  | { readonly phase: 'idle' }
  | { readonly phase: 'reading'; readonly fileName: string; readonly share: number }
  | {
      readonly phase: 'refused';
      readonly fileName: string;
      readonly issue: FileIssue | null;
      readonly message: string;
    }
  | OpenIntake;

export type IntakeState = {
  readonly now: Phase;
  /** Files that wait their turn. */
  readonly waiting: readonly File[];
  /** Take in the waiting files that tie and leave no question, without asking. */
  readonly onward: boolean;
  /** Names of the files taken in since the last one was chosen by hand. */
  readonly taken: readonly string[];
};

export const IDLE: IntakeState = { now: { phase: 'idle' }, waiting: [], onward: false, taken: [] };

/** A file on its way into the open book. Nothing of it is in the book until `accept`. */
export const useIntake = create<IntakeState>(() => IDLE);
