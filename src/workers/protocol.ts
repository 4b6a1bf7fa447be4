import type { FileIssue, GridCell } from '@/core/files';
import type { Draft, Guess, GuessContext, Mapping } from '@/core/intake';
import type { ReportTable } from '@/core/report';

/** The first rows of each sheet, to show a guess over. */
export type SheetPreview = {
  readonly name: string | null;
  readonly rowCount: number;
  readonly rows: readonly (readonly GridCell[])[];
};

export type OpenedFile = {
  readonly fingerprint: string;
  readonly format: 'delimited' | 'workbook';
  readonly encoding: string | null;
  readonly delimiter: string | null;
  readonly sheets: readonly SheetPreview[];
  readonly guess: Guess;
};

/** What the page asks of the intake worker. Every request carries a number; every answer names it. */
export type IntakeRequest =
  | {
      readonly id: number;
      readonly type: 'open';
      readonly bytes: Uint8Array;
      readonly context: GuessContext;
      readonly delimiter?: string;
    }
  | {
      readonly id: number;
      readonly type: 'guess';
      readonly sheet: number;
      readonly shape: Mapping['shape'] | null;
      readonly context: GuessContext;
    }
  | { readonly id: number; readonly type: 'draft'; readonly mapping: Mapping; readonly currency: string };

export type IntakeAnswer =
  | { readonly id: number; readonly type: 'progress'; readonly share: number }
  | { readonly id: number; readonly type: 'opened'; readonly file: OpenedFile }
  | { readonly id: number; readonly type: 'guessed'; readonly guess: Guess }
  | { readonly id: number; readonly type: 'draft'; readonly draft: Draft }
  | { readonly id: number; readonly type: 'refused'; readonly issue: FileIssue }
  | { readonly id: number; readonly type: 'failed'; readonly message: string };

export type ExportRequest = { readonly table: ReportTable };
export type ExportAnswer =
  { readonly ok: true; readonly bytes: Uint8Array } | { readonly ok: false; readonly message: string };
