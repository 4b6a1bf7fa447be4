import { sameFigure, plus, minor, sumBlank, type Minor } from '@/core/money';
import {
  LineTable,
  type AccountId,
  type Driver,
  type Line,
  type LineRef,
  type SegmentId,
} from '@/core/model';
import type { AmountChange } from '@/core/scenario';
import type { RowGround } from '@/core/schedule';
import type { Unreached } from './changes';
import type { DriverResult } from './drivers';
import type { RowResult } from './rows';
import type { Amounts, Context, LineIssue } from './rule';

export type LineResult = {
  readonly amounts: Amounts;
  /** What the method alone gives, to restore a typed month to. */
  readonly method: Amounts;
  /** Which periods were typed over. */
  readonly typed: readonly boolean[];
  /** What is said of each fiscal year beyond its months; empty where nothing is. */
  readonly wholes: Amounts;
  /** All months and wholes; of a balance account the last balance. */
  readonly total: Minor | null;
  readonly issue: LineIssue | null;
};

/** What an account comes to: its months, and what is said of its years beyond them. */
export type Figures = { readonly amounts: Amounts; readonly wholes: Amounts };

/** Months and then wholes in one row, as statements add them: as many wholes as asked for. */
export const wholeRow = (figures: Figures | null, years: number): Amounts | null =>
  figures === null || years === 0
    ? (figures?.amounts ?? null)
    : [
        ...figures.amounts,
        ...(figures.wholes.length > 0 ? figures.wholes : new Array<null>(years).fill(null)),
      ];

/** Where lines stand in a budget: the same object for every reckoning of it in which none comes or goes. */
export class LinePlaces {
  private readonly table: LineTable;
  private readonly accounts: ReadonlySet<AccountId>;
  /** The one segment that all lines are of; undefined when they are of several. */
  readonly only: SegmentId | undefined;

  constructor(lines: readonly LineRef[]) {
    this.table = new LineTable(lines);
    this.accounts = new Set(lines.map((l) => l.account));
    const first = lines[0]?.segment ?? null;
    this.only = lines.every((l) => l.segment === first) ? first : undefined;
  }

  of(ref: LineRef): number | undefined {
    return this.table.of(ref);
  }

  /** The place of the line of a key. */
  ofKey(key: string): number | undefined {
    const cut = key.indexOf(':');
    return this.of(
      cut < 0 ? { account: key, segment: null } : { account: key.slice(0, cut), segment: key.slice(cut + 1) },
    );
  }

  /** Whether an account has a line in any segment. */
  has(account: AccountId): boolean {
    return this.accounts.has(account);
  }
}

/** The results of a reckoning by line. Backed by one list that is copied whole on a change. */
export class LineResults {
  private sums: Map<AccountId, Figures> | null = null;

  constructor(
    /** Those of the budget, then those that money ahead makes. */
    readonly lines: readonly Line[],
    readonly places: LinePlaces,
    private readonly list: readonly LineResult[],
  ) {}

  get(ref: LineRef): LineResult | undefined {
    const place = this.places.of(ref);
    return place === undefined ? undefined : this.list[place];
  }

  /** The line at a place: one of the budget, or one that money ahead makes. */
  lineAt(place: number): Line | undefined {
    return this.lines[place];
  }

  /** The result of the line at a place; undefined where there is no such place. */
  at(place: number): LineResult | undefined {
    return this.list[place];
  }

  *[Symbol.iterator](): IterableIterator<[Line, LineResult]> {
    for (const [i, line] of this.lines.entries()) yield [line, this.list[i]!];
  }

  /** An account in one segment, or (`'all'`) over all of them; null when it has no line. */
  figures(account: AccountId, segment: SegmentId | 'all'): Figures | null {
    if (segment !== 'all') return this.get({ account, segment }) ?? null;
    const { only } = this.places;
    if (only !== undefined) return this.get({ account, segment: only }) ?? null;
    this.sums ??= consolidated(this.lines, this.list);
    return this.sums.get(account) ?? null;
  }
}

function consolidated(lines: readonly Line[], list: readonly LineResult[]): Map<AccountId, Figures> {
  const out = new Map<AccountId, Figures>();
  lines.forEach((line, i) => {
    const { amounts, wholes } = list[i]!;
    const there = out.get(line.account);
    out.set(
      line.account,
      there
        ? { amounts: addFigures(there.amounts, amounts), wholes: addFigures(there.wholes, wholes) }
        : { amounts, wholes },
    );
  });
  return out;
}

/** Two rows of figures added month by month; a blank says nothing. */
export function addFigures(a: Amounts, b: Amounts): Amounts {
  if (a.length === 0) return b;
  if (b.length === 0) return a;
  return a.map((v, i) => {
    const w = b[i] ?? null;
    return v === null ? w : w === null ? v : minor(plus(v, w));
  });
}

export type Reckoning = {
  readonly lines: LineResults;
  readonly drivers: ReadonlyMap<string, DriverResult & { readonly driver: Driver }>;
  /** Rows of schedules, by id. */
  readonly rows: ReadonlyMap<string, RowResult>;
  /** What rows come to on an account and segment by period, whatever makes its line; null where none posts to the account. */
  readonly scheduled: (ref: LineRef) => Amounts | null;
  /** What rows looked at, to tell their months by. */
  readonly rowGround: () => RowGround;
  /** Lines (by key) in a cycle, blank but for what was typed; all others stand. */
  readonly cyclic: ReadonlySet<string>;
  /** What a line's method looks at, to explain it by. */
  readonly contextOf: (line: Line) => Context;
  /**
   * What each change of a line leaves of it, given what it is without them: of what was taken into the plan, which comes before
   * what is typed, or of what a case makes of it.
   */
  readonly stepsOf: (
    line: Line,
    amounts: Amounts,
    which: 'first' | 'case',
  ) => readonly { readonly change: AmountChange; readonly after: Amounts }[];
  /** What adjustments of the case do not reach. */
  readonly unreached: readonly Unreached[];
};

export const totalOf = (amounts: Amounts, wholes: Amounts, balance: boolean): Minor | null =>
  balance ? (amounts.findLast((a) => a !== null) ?? null) : sumBlank([...amounts, ...wholes]);

/** Whether two rows of figures are the same, month by month. */
export const sameAmounts = (a: Amounts, b: Amounts): boolean =>
  a === b || (a.length === b.length && a.every((v, i) => v === b[i] || sameFigure(v, b[i])));
