import { compare } from '@/core/variance';
import { divideRounded, minor, plus, sumBlank, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { Account, ColumnShow, LayoutColumn } from '@/core/model';
import type { ReportCell, ReportColumn } from '../table';
import type { Scope } from './sides';
import type { Remembered, Roll } from './series';
import type { ShownSpan } from './spans';

/** An additive figure that rows have: lines by asking for it, totals by adding their rows. */
export type Need = (account: Account, scope: Scope, roll: Roll) => Minor | null;

/** Figures that a layout's columns are made of, each asked for once. */
export class Needs {
  readonly all: Need[] = [];
  private readonly places = new Map<string, number>();

  /** The place of a figure under its name. */
  of(key: string, make: () => Need): number {
    let place = this.places.get(key);
    if (place === undefined) this.places.set(key, (place = this.all.push(make()) - 1));
    return place;
  }
}

/** What of a row a cell is made from. */
export type RowFigures = {
  readonly value: (need: number) => Minor | null;
  /** The same of the company's income. */
  readonly income: (need: number) => Minor | null;
  readonly effect: 1 | 0 | -1;
  /** Its figures are quantities that somebody counted, or did not. */
  readonly isCounted: boolean;
  readonly note: () => string;
  readonly keeper: () => string;
  readonly method: () => string;
  readonly planNote: () => string;
};

/** A column that is drawn, with how its cells come about. */
export type Made = {
  readonly column: ReportColumn;
  readonly cell: (row: RowFigures) => ReportCell;
  readonly spec: LayoutColumn;
  readonly span: ShownSpan | null;
  readonly scope: Scope;
  /** The figures that are shown, and the two that are compared; null where nothing is. */
  readonly shows: number | null;
  readonly pair: Pair | null;
  /** What is said of its years as wholes may be in it. */
  readonly wholes?: boolean;
  /** The periods that its figures are of, where a side says nothing of some of the span's. */
  readonly only?: readonly PeriodIndex[] | null;
};

/** Two sides of a difference: what is shown of them, and what of it is compared. */
export type Pair = {
  readonly shown: readonly [left: number, right: number];
  readonly compared: readonly [left: number, right: number];
  /** Whether an account's amounts make no difference here. */
  readonly apart: (account: Account, scope: Scope) => boolean;
  /** Whether a value of the axis is told apart on the compared side. */
  readonly tells: (scope: Scope) => boolean;
  /** The two sides over the periods that are compared, where these are not all of the span: what stands apart is in them. */
  readonly within?: readonly [left: number, right: number];
  readonly only?: readonly PeriodIndex[];
};

export type Against = LayoutColumn['against'];

/** The sides, remembered, with what the columns must know of them. */
export type ColumnSides = {
  readonly actual: Remembered;
  readonly reclassified: Remembered;
  readonly outlook: Remembered;
  readonly flexible: Remembered;
  readonly mix: Remembered;
  readonly against: (which: Against) => Remembered | null;
  /** Whether any line says something of one of these years as a whole, on this side. */
  readonly hasWholes: (which: Against, years: readonly number[]) => boolean;
  /** The periods of the month's year that are compared. */
  readonly year: readonly PeriodIndex[];
  readonly isActual: (p: PeriodIndex) => boolean;
};

const SHOW_KEYS: Readonly<Record<ColumnShow, string>> = {
  actual: 'Actual',
  reclassified: 'Moved',
  compared: 'Budget',
  difference: 'Diff',
  percent: 'Percent',
  reached: 'Reached',
  sense: 'Sense',
  bar: 'Bar',
  flexible: 'Flexible',
  activity: 'Activity',
  activitySense: 'ActivitySense',
  rate: 'Rate',
  rateSense: 'RateSense',
  mix: 'Mix',
  outlook: 'Outlook',
  rest: 'Rest',
  unphased: 'Unphased',
  change: 'Change',
  changePercent: 'ChangePercent',
  share: 'Share',
  comparedShare: 'BudgetShare',
  perUnit: 'PerUnit',
  comparedPerUnit: 'BudgetPerUnit',
  note: 'note',
  keeper: 'keeper',
  method: 'method',
  planNote: 'planNote',
};
const AGAINST_KEYS: Readonly<Record<Against, string>> = { first: '', second: '2', lastYear: 'LastYear' };

/** Shows that stand beside a comparison. */
const COMPARES: ReadonlySet<ColumnShow> = new Set([
  'compared',
  'difference',
  'percent',
  'reached',
  'sense',
  'bar',
  'rest',
  'comparedShare',
  'comparedPerUnit',
]);
export const comparesWith = (show: ColumnShow): boolean => COMPARES.has(show);

/** The key of a column: by what it shows, of which span and scope. */
export function columnKey(
  { show, against }: Pick<LayoutColumn, 'show' | 'against'>,
  span: ShownSpan | null,
  scope: Scope,
): string {
  const of = scope === 'all' ? '' : `${scope ?? 'none'}:`;
  return `${of}${span?.key ?? ''}${SHOW_KEYS[show]}${comparesWith(show) ? AGAINST_KEYS[against] : ''}`;
}

const larger = (reached: Minor | null, said: Minor): Minor =>
  reached !== null && Math.abs(reached) > Math.abs(said) ? reached : said;

const adds = (a: Minor | null, b: Minor | null): Minor | null =>
  a === null ? b : b === null ? a : minor(plus(a, b));

/** Figures of a span, by name. */
export function figuresOf(needs: Needs, sides: ColumnSides, span: ShownSpan) {
  const { periods, known, days, counts, key, years } = span;
  const over = known.length === periods.length && periods.length > 0;
  const fullYear =
    counts === 'soFar' &&
    years.length === 1 &&
    sides.year.length > 0 &&
    sides.year.every((p) => known.includes(p));
  /** The periods that count on the compared side, and those of them of which it says anything. */
  const counted = counts === 'soFar' ? known : periods;
  const both = (side: Remembered) => counted.filter(side.covers);
  /** Of what a year is expected to come to: the periods that happened, or of which somebody expects anything. */
  const expects = (p: PeriodIndex) => counts !== 'year' || sides.isActual(p) || sides.outlook.covers(p);
  /** Amounts of one side: of days where the span is of days. */
  const of = (side: Remembered, when: readonly PeriodIndex[]): Need =>
    days
      ? (account, scope) => (when.length === 0 ? null : side.days(account, scope, days))
      : (account, scope, roll) => side.over(account, scope, when, roll);
  const hasWholes = (which: Against) => !days && sides.hasWholes(which, years);
  const wholeOf = (which: Against, account: Account, scope: Scope): Minor | null =>
    hasWholes(which)
      ? sumBlank(years.map((y) => sides.against(which)?.whole(account, scope, y) ?? null))
      : null;

  const actual = needs.of(`${key} actual`, () => of(sides.actual, known));
  const outlookOver = (name: string, when: readonly PeriodIndex[]) =>
    needs.of(`${key} outlook${name}`, () => {
      const plain = of(sides.outlook, when);
      if (counts !== 'year') return plain;
      const first = sides.against('first')!;
      return (account, scope, roll) => {
        const coming = plain(account, scope, roll);
        const whole = over ? null : wholeOf('first', account, scope);
        if (whole === null) return coming;
        return larger(coming, adds(first.over(account, scope, periods, roll), whole)!);
      };
    });
  const outlook = () => outlookOver('', periods);
  const compared = (which: Against) =>
    needs.of(`${key} ${which}`, () => {
      const side = sides.against(which);
      if (!side) return () => null;
      const plain = of(side, both(side));
      if (counts === 'whole' || (counts === 'soFar' && !fullYear)) return plain;
      return (account, scope, roll) => adds(plain(account, scope, roll), wholeOf(which, account, scope));
    });
  const pairOf = (which: Against): Pair | null => {
    const side = sides.against(which);
    if (!side || periods.length === 0) return null;
    if (counts === 'whole' && (!over || !periods.every(side.covers))) return null;
    if (counts === 'soFar' && known.length === 0) return null;
    const shown = [counts === 'year' ? outlook() : actual, compared(which)] as const;
    const apart = (account: Account, scope: Scope): boolean =>
      wholeOf(which, account, scope) !== null && !(counts === 'year' ? over : counts === 'soFar' && fullYear);
    const said = both(side);
    const own = said.filter(expects);
    if (own.length === 0 && !hasWholes(which)) return null;
    const same = own.length === counted.length;
    if (same && !hasWholes(which)) return { shown, compared: shown, apart, tells: side.tells };
    const within = same
      ? shown
      : ([
          counts === 'year'
            ? outlookOver(` ${which}`, own)
            : needs.of(`${key} both ${which}`, () => of(sides.actual, own)),
          own.length === said.length ? shown[1] : needs.of(`${key} expected ${which}`, () => of(side, own)),
        ] as const);
    const kept = (need: Need): Need => {
      return (account, scope, roll) => (apart(account, scope) ? null : need(account, scope, roll));
    };
    return {
      shown,
      compared: [
        needs.of(`${key} left ${which}`, () => kept(needs.all[within[0]]!)),
        needs.of(`${key} right ${which}`, () => kept(needs.all[within[1]]!)),
      ],
      apart,
      tells: side.tells,
      ...(same ? {} : { only: own, within }),
    };
  };
  /** The budget beside the year before: all of it is shown, the periods of which both are known are compared. */
  const changePair = (): Pair | null => {
    const [budget, before] = [sides.against('first'), sides.against('lastYear')];
    if (!budget || !before) return null;
    const both = periods.filter((p) => before.covers(p));
    if (both.length === 0) return null;
    const shown = [compared('first'), compared('lastYear')] as const;
    const pair = { shown, apart: () => false, tells: budget.tells };
    if (both.length === periods.length) return { ...pair, compared: shown };
    const over = (which: Against, side: Remembered) =>
      needs.of(`${key} known ${which}`, () => of(side, both));
    const compares = [over('first', budget), over('lastYear', before)] as const;
    return { ...pair, compared: compares, within: compares, only: both };
  };
  return {
    actual,
    outlook,
    compared,
    pairOf,
    changePair,
    /** Actuals of the periods of which a side says anything: what stands beside it. */
    actualBeside(which: Against) {
      const side = sides.against(which);
      const own = side && known.filter(side.covers);
      return !own || own.length === known.length
        ? actual
        : needs.of(`${key} beside ${which}`, () => of(sides.actual, own));
    },
    /** The periods of which somebody expects anything, where the year has others; null where it has none. */
    unexpected(): readonly PeriodIndex[] | null {
      const own = periods.filter(expects);
      return own.length === periods.length ? null : own;
    },
    /** The periods of which a side says anything, where it lacks some that count; null where it lacks none. */
    lacking(which: Against): readonly PeriodIndex[] | null {
      const side = sides.against(which);
      // Of a single period a blank says as much.
      if (!side || days || counted.length < 2) return null;
      const own = both(side);
      return own.length === counted.length ? null : own;
    },
    unphased: () => needs.of(`${key} unphased`, () => (account, scope) => wholeOf('first', account, scope)),
    hasWholes,
    /** The budget at the activity that there was, over the periods that are compared, and what of the change is mix. */
    flexible: () => needs.of(`${key} flexible`, () => of(sides.flexible, known)),
    mix: () => needs.of(`${key} mix`, () => of(sides.mix, known)),
    /** The plan of the same periods. */
    plan: () => needs.of(`${key} plan`, () => of(sides.against('first')!, known)),
    reclassified: () => needs.of(`${key} moved`, () => of(sides.reclassified, known)),
    /** What is planned of the span's periods that have no actuals yet. */
    rest: (which: Against) =>
      needs.of(`${key} rest ${which}`, () => {
        const side = sides.against(which);
        return side
          ? of(
              side,
              periods.filter((p) => !sides.isActual(p)),
            )
          : () => null;
      }),
  };
}

/** The variance of a row in a column that compares; null where there is none. */
export function varianceIn(pair: Pair | null, row: Pick<RowFigures, 'value' | 'effect' | 'isCounted'>) {
  if (!pair) return null;
  const [a, b] = [row.value(pair.compared[0]), row.value(pair.compared[1])];
  // What was not counted is not known, where an account without entries came to nothing.
  if (row.isCounted && (a === null || b === null)) return null;
  return compare(a, b, row.effect);
}

/**
 * A part of a whole in tenths of a percent. Of nothing, and of what is below it, no part can be told: how much of a loss was
 * reached would read as a success.
 */
export const perMille = (part: Minor | null, whole: Minor | null): number | null =>
  part === null || whole === null || whole <= 0 ? null : divideRounded(part, 1000, whole, 'halfAwayFromZero');
