import { isDraft, original, type Draft } from 'immer';
import type { Budget, Line, SegmentId } from './budget';
import { refuse } from './refusal';
import type { AccountId, Book } from './schema';

/** Which line of a budget is meant. */
export type LineRef = { readonly account: AccountId; readonly segment: SegmentId };

/** A line's name within its budget: the account alone, or with its segment. */
export const lineKey = ({ account, segment }: LineRef): string =>
  segment === null ? account : `${account}:${segment}`;

/** The places of lines in a list, found by account and segment without making a name for each. */
export class LineTable {
  private readonly bySegment = new Map<SegmentId, Map<AccountId, number>>();

  constructor(lines: readonly LineRef[]) {
    lines.forEach((l, i) => this.add(l, i));
  }

  add({ account, segment }: LineRef, place: number): void {
    let accounts = this.bySegment.get(segment);
    if (!accounts) this.bySegment.set(segment, (accounts = new Map()));
    accounts.set(account, place);
  }

  of({ account, segment }: LineRef): number | undefined {
    return this.bySegment.get(segment)?.get(account);
  }
}

/** A line as it is when nobody has said anything: by month, all blank. */
export const blankLine = ({ account, segment }: LineRef): Line => ({
  account,
  segment,
  method: { kind: 'byMonth', amounts: {} },
  overrides: {},
  note: null,
  cellNotes: {},
  looked: null,
});

/** The line of a budget, or undefined. */
export const lineOf = (budget: Pick<Budget, 'lines'>, { account, segment }: LineRef): Line | undefined =>
  budget.lines.find((l) => l.account === account && l.segment === segment);

/**
 * The lines of a budget that is being changed. A line is read and put back as a whole, never written into: so a thousand
 * lines of a gesture cost no thousand drafts, and a step of a command may change what an earlier one put there.
 */
export class LineChanges {
  /** The lines as they were: reading a draft's whole list would wrap every line of it. */
  private readonly lines: readonly Line[];
  private table: LineTable | null = null;
  /** What this command put in the place of a line, or added. */
  private readonly put = new Map<number, Line>();
  private readonly fresh = new LineTable([]);

  private constructor(
    private readonly book: Draft<Book>,
    private readonly budget: Draft<Budget>,
  ) {
    this.lines = isDraft(budget.lines) ? (original(budget.lines) as Line[]) : budget.lines;
  }

  /** Of one command and budget there is one, or a later step would not see what an earlier one did. `many` it looks for by a table. */
  static in(book: Draft<Book>, budget: Draft<Budget>, many = 1): LineChanges {
    let changes = LineChanges.of.get(budget);
    if (!changes) LineChanges.of.set(budget, (changes = new LineChanges(book, budget)));
    if (many > 8) changes.table ??= new LineTable(changes.lines);
    return changes;
  }

  /** By the draft of a budget, which lives as long as its command. */
  private static readonly of = new WeakMap<Draft<Budget>, LineChanges>();

  private placeOf(ref: LineRef): number {
    const at = this.table
      ? (this.table.of(ref) ?? -1)
      : this.lines.findIndex((l) => l.account === ref.account && l.segment === ref.segment);
    return at >= 0 ? at : (this.fresh.of(ref) ?? -1);
  }

  has(ref: LineRef): boolean {
    return this.placeOf(ref) >= 0;
  }

  /**
   * Puts another line in the place of one. The budget gets it blank when it has none; refuses an account or segment that
   * is not the book's. The same line puts nothing.
   */
  change(ref: LineRef, how: (line: Line) => Line): void {
    let place = this.placeOf(ref);
    const before = place < 0 ? this.added(ref) : (this.put.get(place) ?? this.lines[place]!);
    if (place < 0) place = this.budget.lines.length - 1;
    const after = how(before);
    if (after === before) return;
    this.put.set(place, after);
    // Frozen, so that nobody looks through its months for drafts: there are none in what was read whole.
    this.budget.lines[place] = Object.freeze(after) as Draft<Line>;
  }

  private added(ref: LineRef): Line {
    if (!this.book.accounts.some((a) => a.id === ref.account)) refuse('noSuchAccount');
    if (!this.budget.segments.includes(ref.segment)) refuse('noSuchAccount');
    const line = blankLine(ref);
    const place = this.budget.lines.push(line as Draft<Line>) - 1;
    this.fresh.add(ref, place);
    this.put.set(place, line);
    return line;
  }
}
