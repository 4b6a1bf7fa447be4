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
 * Finds lines of a budget that is being changed. It looks at the lines as they were: reading a draft's whole list
 * would wrap every line of it. With many to find it goes by a table instead of looking through the list each time.
 */
export class LineFinder {
  private readonly lines: readonly Line[];
  private readonly table: LineTable | null;
  private readonly fresh = new LineTable([]);

  constructor(
    private readonly book: Draft<Book>,
    private readonly budget: Draft<Budget>,
    many = 1,
  ) {
    this.lines = isDraft(budget.lines) ? (original(budget.lines) as Line[]) : budget.lines;
    this.table = many > 8 ? new LineTable(this.lines) : null;
  }

  private placeOf(ref: LineRef): number {
    const at = this.table
      ? (this.table.of(ref) ?? -1)
      : this.lines.findIndex((l) => l.account === ref.account && l.segment === ref.segment);
    return at >= 0 ? at : (this.fresh.of(ref) ?? -1);
  }

  /** The line; undefined when the budget has none. */
  known(ref: LineRef): Draft<Line> | undefined {
    return this.budget.lines[this.placeOf(ref)];
  }

  /**
   * Puts another line in the place of one (added blank when the budget has none), read and written as a whole: a
   * thousand lines of a gesture cost no thousand drafts. The same line puts nothing.
   */
  replace(ref: LineRef, change: (line: Line) => Line): void {
    const at = this.placeOf(ref);
    if (at < 0) this.line(ref);
    const place = at < 0 ? this.budget.lines.length - 1 : at;
    const before = (at < 0 ? blankLine(ref) : (this.lines[place] ?? this.budget.lines[place])) as Line;
    const after = change(before);
    // Frozen, so that nobody looks through its months for drafts: there are none in what was read whole.
    if (after !== before) this.budget.lines[place] = Object.freeze(after) as Draft<Line>;
  }

  /** The line, added blank when the budget has none; refuses an account or segment that is not the book's. */
  line(ref: LineRef): Draft<Line> {
    const there = this.known(ref);
    if (there) return there;
    if (!this.book.accounts.some((a) => a.id === ref.account)) refuse('noSuchAccount');
    if (!this.budget.segments.includes(ref.segment)) refuse('noSuchAccount');
    this.fresh.add(ref, this.budget.lines.push(blankLine(ref) as Draft<Line>) - 1);
    return this.budget.lines.at(-1)!;
  }
}
