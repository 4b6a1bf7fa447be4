import type { Minor } from '@/core/money';
import type { DayNumber } from '@/core/calendar';
import type { LedgerBlock } from '@/core/ledger';
import type { KindGuess } from './guessKind';
import type { Mapping, SignRule } from './mapping';

/** Why a row was not used. */
export type LeftOutReason =
  | 'title'
  | 'header'
  | 'blank'
  | 'heading'
  | 'total'
  | 'noAmount'
  | 'noAccount'
  | 'balanceForward'
  | 'unreadableAmount'
  | 'tooManyDecimals'
  | 'unknownDate'
  | 'missingDate';

/** Something in the file that cannot be read. Row and column count from 1, as a spreadsheet shows them. */
export type IntakeIssue = {
  readonly code: 'unreadableAmount' | 'tooManyDecimals' | 'unknownDate' | 'missingDate' | 'noAccount';
  readonly row: number;
  readonly column: number;
  readonly value: string;
};

export type DraftAccount = {
  readonly code: string;
  readonly name: string;
  readonly section: string | null;
  readonly guess: KindGuess;
};

/** A total that the file states, to be held against ours. */
export type Control = {
  readonly row: number;
  readonly label: string;
  /** Places in `accounts` that it adds up; `net` takes costs from income, `sum` adds as the file writes. */
  readonly over: readonly number[];
  readonly mode: 'sum' | 'net';
  readonly theirs: readonly { readonly day: DayNumber | null; readonly value: Minor }[];
};

export type Unbalanced = {
  readonly reference: string;
  readonly row: number;
  readonly difference: Minor;
  readonly lines: number;
};

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
  };
  /** The first of the issues, and how many there are in all. */
  readonly issues: readonly IntakeIssue[];
  readonly issueCount: number;
  readonly controls: readonly Control[];
  /** Entries only: how the file balances. `oneSided` files hold one side of each entry. */
  readonly balance: 'balanced' | 'unbalanced' | 'oneSided' | 'notApplicable';
  readonly unbalanced: readonly Unbalanced[];
  readonly unbalancedCount: number;
};

export const ISSUES_KEPT = 200;

/** Counts left-out rows by reason and keeps some row numbers of each, and the first issues. */
export class RowLog {
  readonly issues: IntakeIssue[] = [];
  issueCount = 0;
  private readonly byReason = new Map<LeftOutReason, { count: number; examples: number[] }>();

  leaveOut(reason: LeftOutReason, row: number): void {
    let r = this.byReason.get(reason);
    if (!r) this.byReason.set(reason, (r = { count: 0, examples: [] }));
    r.count++;
    if (r.examples.length < 20) r.examples.push(row);
  }

  issue(issue: IntakeIssue): void {
    this.issueCount++;
    if (this.issues.length < ISSUES_KEPT) this.issues.push(issue);
  }

  get leftOut(): Draft['rows']['leftOut'] {
    return [...this.byReason].map(([reason, r]) => ({ reason, ...r }));
  }
}
