import { cutText } from '@/core/model';
import type { Minor } from '@/core/money';
import type { DayNumber } from '@/core/calendar';
import type { LedgerBlock, SegmentColumn } from '@/core/ledger';
import type { KindGuess } from './guessKind';
import type { Trial } from './trials';
import type { Mapping, SignRule } from './mapping';

/** Why a row was not used. */
export type LeftOutReason =
  | 'title'
  | 'header'
  | 'blank'
  | 'heading'
  | 'footer'
  | 'total'
  | 'noAmount'
  | 'noAccount'
  | 'balanceForward'
  | 'unreadableAmount'
  | 'tooManyDecimals'
  | 'unknownDate'
  | 'missingDate'
  | 'unknownMark'
  | 'tooLarge';

/** Something in the file that cannot be read. Row and column count from 1, as a spreadsheet shows them. */
export type IntakeIssue = {
  readonly code:
    | 'unreadableAmount'
    | 'tooManyDecimals'
    | 'unknownDate'
    | 'missingDate'
    | 'noAccount'
    | 'unknownMark'
    | 'tooLarge'
    | 'noDay';
  readonly row: number;
  readonly column: number;
  readonly value: string;
  /** The sheet it stands on, where the file has several. */
  readonly sheet?: string;
};

export type DraftAccount = {
  readonly code: string;
  readonly name: string;
  /** The heading it stands under in the file. */
  readonly section: string | null;
  /** The group that the file's headings put it in, within its kind; empty for none. */
  readonly group: string;
  readonly guess: KindGuess;
  /** Other names that the file has under the same code. */
  readonly also?: readonly string[];
};

/** A total that the file states, to be held against ours. */
export type Control = {
  readonly row: number;
  readonly label: string;
  /** Places in `accounts` that it adds up; `net` takes costs from income, `sum` adds as the file writes. */
  readonly over: readonly number[];
  readonly mode: 'sum' | 'net';
  /** `ours` where reading has added it up already; otherwise it is added up from the entries. */
  readonly theirs: readonly {
    readonly day: DayNumber | null;
    readonly value: Minor;
    readonly ours?: Minor;
  }[];
};

export type Unbalanced = {
  readonly reference: string;
  readonly row: number;
  readonly difference: Minor;
  readonly lines: number;
};

/** What reading a row of the head of the file made of it, to be drawn beside it. */
export type RowMeaning = LeftOutReason | 'used' | 'opening';

/** What arithmetic over the whole file says against the mapping's guess. */
export type Hints = { readonly sign: SignRule | null; readonly cumulative: boolean | null };

/** A file read by a mapping: nothing of it is in the book yet. */
export type Draft = {
  readonly mapping: Mapping;
  readonly accounts: readonly DraftAccount[];
  /** Entries with the file's own signs; `block.accounts` are places in `accounts`, as text. */
  readonly block: LedgerBlock;
  readonly sign: SignRule;
  readonly rows: {
    readonly read: number;
    readonly used: number;
    readonly leftOut: readonly {
      readonly reason: LeftOutReason;
      readonly count: number;
      readonly examples: readonly number[];
    }[];
    /** Meanings of the first rows. */
    readonly head: readonly RowMeaning[];
  };
  /** The first of the issues, and how many there are in all. */
  readonly issues: readonly IntakeIssue[];
  readonly issueCount: number;
  readonly controls: readonly Control[];
  /** Entries only: how the file balances. `oneSided` files hold one side of each entry. */
  readonly balance: 'balanced' | 'unbalanced' | 'oneSided' | 'notApplicable';
  readonly unbalanced: readonly Unbalanced[];
  readonly unbalancedCount: number;
  readonly hints: Hints;
  /**
   * Cumulative trial balances only: the day of the first one. Its figures hold all that came before, so what the book
   * has up to that month's start is taken off them (see `activityOf`).
   */
  readonly baseline: DayNumber | null;
  /** Entries with balances brought forward: the day of the first of them. */
  readonly opensOn?: DayNumber;
  /** Cumulative trial balances only: the file's own figures, day by day. */
  readonly trials: readonly Trial[] | null;
  /** Entries with debits and credits in columns of their own: what each column adds up to, as it is written. */
  readonly columns?: { readonly debit: Minor; readonly credit: Minor };
};

/** A draft as the page needs it: its entries stay with the worker until they are accepted. */
export type DraftView = Omit<Draft, 'block' | 'trials'> & {
  readonly count: number;
  readonly segments: readonly Pick<SegmentColumn, 'name' | 'values'>[];
};

export const viewOf = ({ block, trials: _trials, ...rest }: Draft): DraftView => ({
  ...rest,
  count: block.count,
  segments: block.segments.map(({ name, values }) => ({ name, values })),
});

export const ISSUES_KEPT = 200;
const HEAD_ROWS = 60;

/** Counts left-out rows by reason and keeps some row numbers of each, the first issues, and what the first rows are. */
export class RowLog {
  readonly issues: IntakeIssue[] = [];
  issueCount = 0;
  used = 0;
  readonly head: RowMeaning[] = [];
  /** Whether the rows at hand are those of the sheet whose head is drawn. */
  drawn = true;
  private readonly byReason = new Map<LeftOutReason, { count: number; examples: number[] }>();

  use(row: number, as: 'used' | 'opening' = 'used'): void {
    this.used++;
    if (this.drawn && row <= HEAD_ROWS) this.head[row - 1] = as;
  }

  leaveOut(reason: LeftOutReason, row: number): void {
    let r = this.byReason.get(reason);
    if (!r) this.byReason.set(reason, (r = { count: 0, examples: [] }));
    r.count++;
    if (r.examples.length < 20) r.examples.push(row);
    if (this.drawn && row <= HEAD_ROWS) this.head[row - 1] = reason;
  }

  /** The i-th row of a grid, which stands above or as the column heads. */
  top(i: number, headerRow: number): void {
    this.leaveOut(i === headerRow ? 'header' : 'title', i + 1);
  }

  issue(issue: IntakeIssue): void {
    this.issueCount++;
    if (this.issues.length < ISSUES_KEPT) this.issues.push({ ...issue, value: cutText(issue.value, 80) });
  }

  rows(read: number): Draft['rows'] {
    return {
      read,
      used: this.used,
      leftOut: [...this.byReason].map(([reason, r]) => ({ reason, ...r })),
      head: Array.from({ length: Math.min(read, HEAD_ROWS) }, (_, i) => this.head[i] ?? 'blank'),
    };
  }
}
