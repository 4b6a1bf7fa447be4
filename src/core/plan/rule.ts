import { roundParts, roundTo, ZERO, type Minor, type Percent, type Ratio } from '@/core/money';
import type { Day, PeriodIndex } from '@/core/calendar';
import type { Line, Method, MethodKind, MethodOf, Phasing, Ref } from '@/core/model';
import type { Name } from '@/core/formula';
import type { RowIssue } from '@/core/schedule';
import type { Facts } from './facts';
import type { MadeLine } from './made';
import type { Span } from './spans';

export type Amounts = readonly (Minor | null)[];

/** What stopped a method from giving what it promises; the amounts beside it are what could be given. */
export type LineIssue =
  | 'noLastYear'
  | 'nothingToFollow'
  | 'cycle'
  | 'lineMissing'
  | 'budgetMissing'
  | 'driverMissing'
  | 'weightsMissing'
  | 'noMonths'
  | 'noShare'
  | 'badFormula'
  | 'dividesByZero'
  | 'notForBalances'
  | 'tooLarge'
  /** No row of a schedule posts to the line. */
  | 'noSchedule';

export type Computed = {
  readonly amounts: Amounts;
  readonly issue: LineIssue | null;
  /** What is said of each fiscal year as a whole, beyond its months; absent where nothing is. */
  readonly wholes?: Amounts;
};

export type MonthComputed = { readonly amount: Minor | null; readonly issue: LineIssue | null };

/** What a line's method may look at. */
export type Context = {
  readonly line: Line;
  readonly facts: Facts;
  /** What was typed over a month; undefined where nothing was. */
  readonly typed: (i: number) => Minor | null | undefined;
  /** The amount of what is referred to in the i-th month, in the same segment; before the budget (i < 0), the actual. */
  readonly amount: (ref: Ref, i: number) => Minor | null;
  /** Whether the budget has any line of it. */
  readonly has: (ref: Ref) => boolean;
  /** A driver's value in the i-th month; undefined when there is no such driver. */
  readonly driver: (id: string, i: number) => Ratio | null | undefined;
  /** What the budget's schedules and its money ahead come to on the line, and what makes it. */
  readonly scheduled: () => {
    readonly amounts: Amounts;
    readonly made: MadeLine | null;
    readonly rows: readonly {
      readonly id: string;
      readonly issue: RowIssue | null;
      readonly amounts: () => Amounts;
    }[];
  };
};

/** Something that must be reckoned before: a reference or a driver, so many months earlier. */
export type Need = { readonly name: Name; readonly lag: number };

/** One step of how a month came about; the screen puts it in words. */
export type Reason =
  | { readonly step: 'typed'; readonly value: Minor | null; readonly instead: Minor | null }
  | {
      readonly step: 'basis';
      readonly of: 'actual' | 'budget' | 'own';
      readonly period: PeriodIndex;
      readonly value: Minor | null;
    }
  | { readonly step: 'skipped'; readonly value: Minor | null }
  | { readonly step: 'added'; readonly value: Minor }
  | { readonly step: 'average'; readonly months: number; readonly value: Minor }
  | {
      readonly step: 'whole';
      readonly of: 'said' | 'lastYear' | 'average';
      readonly span: Span;
      readonly value: Minor;
    }
  | { readonly step: 'uplift'; readonly percent: Percent; readonly value: Minor }
  | {
      readonly step: 'phasedPart';
      readonly by: Phasing['by'] | 'rest';
      readonly part: number;
      readonly of: number;
      readonly value: Minor;
    }
  | { readonly step: 'patternPart'; readonly part: Minor; readonly of: Minor; readonly value: Minor }
  | { readonly step: 'start'; readonly said: boolean; readonly value: Minor }
  | { readonly step: 'steps'; readonly times: number; readonly value: Minor }
  | {
      readonly step: 'share';
      readonly of: Ref;
      readonly period: PeriodIndex;
      readonly base: Minor | null;
      /** A text such as "12.34", when it comes from history rounded to two digits. */
      readonly percent: string;
      readonly history: boolean;
      readonly value: Minor | null;
    }
  | {
      readonly step: 'occurrences';
      readonly days: readonly Day[];
      readonly each: Minor;
      readonly value: Minor;
    }
  | { readonly step: 'row'; readonly row: string; readonly value: Minor }
  | { readonly step: 'ahead'; readonly of: MadeLine['parts'][number]['of']; readonly value: Minor }
  /** What a line has beside its schedules. */
  | { readonly step: 'beside'; readonly value: Minor }
  | { readonly step: 'factor'; readonly driver: string; readonly value: Ratio | null }
  | { readonly step: 'term'; readonly name: Name; readonly period: PeriodIndex; readonly value: Ratio | null }
  | { readonly step: 'computed'; readonly value: Minor | null }
  | { readonly step: 'unphased'; readonly value: Minor | null; readonly span: Span }
  /** What an adjustment leaves; what stood beyond the method when it was approved. */
  | { readonly step: 'adjusted'; readonly adjustment: string; readonly value: Minor | null }
  | { readonly step: 'asApproved'; readonly value: Minor | null }
  | { readonly step: 'rounding'; readonly difference: Minor }
  | { readonly step: 'result'; readonly value: Minor | null };

/**
 * How a method is made: from the ledger all months at once, or month by month from other lines and drivers. `balances`
 * says whether it can plan what an account stands at, too.
 */
export type Rule<K extends MethodKind> = { readonly balances: boolean } & (
  | {
      readonly by: 'line';
      readonly compute: (method: MethodOf<K>, context: Context) => Computed;
      /** The steps that lead to the i-th month, without what was typed over it. `own`: the line's amounts as shown. */
      readonly explain: (
        method: MethodOf<K>,
        context: Context,
        i: number,
        made: Minor | null,
        own: Amounts,
      ) => Reason[];
    }
  | {
      readonly by: 'month';
      readonly needs: (method: MethodOf<K>) => readonly Need[];
      readonly month: (method: MethodOf<K>, context: Context, i: number) => MonthComputed;
      readonly explain: (method: MethodOf<K>, context: Context, i: number, made: Minor | null) => Reason[];
    }
);

export const fine = (amounts: Amounts): Computed => ({ amounts, issue: null });
export const blanks = (facts: Facts): Amounts => facts.periods.map(() => null);
export const stuck = (facts: Facts, issue: LineIssue): Computed => ({ amounts: blanks(facts), issue });

/** Whole units of the currency as minor units. */
export const unitOfRound = (method: Extract<Method, { round: unknown }>, facts: Facts): number =>
  method.round * facts.unit;

/** Rounds months to a unit so that each year adds up to its rounded total; blanks stay blank. Balances one by one. */
export function rounded(amounts: Amounts, unit: number, facts: Facts, balance: boolean): Amounts {
  if (unit <= 1) return amounts;
  const out = [...amounts];
  for (const year of facts.years) roundYear(out, year, unit, balance);
  return out;
}

/**
 * Makes a line's months year by year: a later year may follow the months of an earlier one, and follows them as they are
 * shown, rounded and typed over. `make` puts a year's months where they belong; `shown` gives what stands so far.
 */
export function byYears(
  { facts, line, typed }: Context,
  unit: number,
  make: (year: Span, months: (Minor | null)[], shown: (i: number) => Minor | null) => void,
): Amounts {
  const months: (Minor | null)[] = [...blanks(facts)];
  const shown = (i: number): Minor | null => {
    const over = typed(i);
    return over === undefined ? (months[i] ?? null) : over;
  };
  const balance = facts.isBalance(line.account);
  for (const year of facts.years) {
    make(year, months, shown);
    if (unit > 1) roundYear(months, year, unit, balance);
  }
  return months;
}

function roundYear(months: (Minor | null)[], { from, to }: Span, unit: number, balance: boolean): void {
  const year = months.slice(from, to);
  const parts = balance
    ? year.map((a) => (a === null ? ZERO : roundTo(a, unit)))
    : roundParts(
        year.map((a) => a ?? ZERO),
        unit,
      );
  year.forEach((a, k) => (months[from + k] = a === null ? null : parts[k]!));
}

/** The step of a rounding, where it made a difference. */
export const roundingStep = (made: Minor | null, exact: Minor | null): Reason[] =>
  made !== null && exact !== null && made !== exact
    ? [{ step: 'rounding', difference: (made - exact) as Minor }]
    : [];

/** The step of an uplift, where there is one. */
export const upliftStep = (p: Percent, value: Minor): Reason[] =>
  p === '0' ? [] : [{ step: 'uplift', percent: p, value }];
