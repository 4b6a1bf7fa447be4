import { fromDayNumber, toDayNumber, yearsBefore, type DayNumber, type PeriodIndex } from '@/core/calendar';
import { ZERO, sumBlank, type Minor } from '@/core/money';
import {
  comparisonOf,
  rulingIn,
  actualsIn,
  actualsOf,
  comparisonFor,
  entriesView,
  flexibleOf,
  outlookAt,
  plannedAt,
  reckoned,
  segmentLedgers,
  yearBefore,
  type Comparison,
  type Flexible,
  type Ground,
  type Reckoned,
} from '@/core/ground';
import { actualOf, viewOfSegments, type Balances } from '@/core/ledger';
import {
  isProfitAndLoss,
  lineKey,
  natural,
  type Account,
  type AccountId,
  type Axis,
  type Layout,
  type Line,
  type SegmentId,
} from '@/core/model';
import { onlyBudget, type Compared } from './compared';
import { activityByDay, daySharing } from './days';
import type { SpanDays } from './spans';

/** Everything that is compared, or one value of an axis (null: the unassigned). */
export type Scope = SegmentId | 'all';

/** One of the things that stand side by side: actuals, a budget, last year, an outlook. Natural amounts. */
export type Side = {
  /** A month's amount, or what a balance account stands at at its end. */
  readonly at: (account: Account, scope: Scope, period: PeriodIndex) => Minor | null;
  /** Over several periods, where they are not simply added up. */
  readonly over?: (account: Account, scope: Scope, periods: readonly PeriodIndex[]) => Minor | null;
  /** What is said of a fiscal year as a whole, beyond its months. */
  readonly whole: (account: Account, scope: Scope, year: number) => Minor | null;
  /** Whether it tells a value of the axis apart from the rest. */
  readonly tells: (scope: Scope) => boolean;
  /** Whether it says anything of a period at all. */
  readonly covers: (period: PeriodIndex) => boolean;
  /** An amount of some days of a period; null where days are not told apart. */
  readonly days: (account: Account, scope: Scope, days: SpanDays) => Minor | null;
};

export type Sides = {
  readonly actual: Side;
  readonly reclassified: Side;
  readonly outlook: Side;
  readonly lastYear: Side;
  /** The budget at the activity that there was, and what of the change is mix. */
  readonly flexible: Side;
  readonly mix: Side;
  /** What the layout compares with. */
  readonly first: Side;
  readonly second: Side | null;
};

type Part = { readonly whole: Reckoned; readonly segments: readonly SegmentId[] };

const nothing = () => null;

/** Whose sides are asked for. */
export type SidesInput = {
  readonly ground: Ground;
  readonly month: PeriodIndex;
  readonly compared: Compared;
  /** That of the layout's segments; null for none. */
  readonly axis: Axis | null;
  readonly days: Layout['days'];
  readonly range: { readonly first: DayNumber; readonly last: DayNumber } | null;
  /** The ledger, or the part of it that is looked at. */
  readonly ledger: Balances;
};

/** The sides of a layout's report in a month. */
export function sidesOf(input: SidesInput): Sides {
  const { comparison, first, second } = input.compared;
  const actual = actualSide(input, comparison);
  const lastYear = lastYearSide(input, actual);
  const budget = comparison ? budgetSide(input, comparison) : NO_SIDE;
  const { balances } = input.ground;
  const outlook = comparison
    ? outlookSide(input, comparison, actual)
    : { ...actual, covers: (p: PeriodIndex) => balances.has(p) };
  const named = (which: Comparison | 'comparison' | 'lastYear' | 'outlook'): Side =>
    which === 'comparison'
      ? budget
      : which === 'lastYear'
        ? lastYear
        : which === 'outlook'
          ? outlook
          : budgetSide(input, which);
  return {
    actual,
    reclassified: reclassifiedSide(input, comparison),
    outlook,
    lastYear,
    flexible: comparison ? flexibleSide(input, comparison, 'at') : NO_SIDE,
    mix: comparison ? flexibleSide(input, comparison, 'mix') : NO_SIDE,
    first: named(first),
    second: second === null ? null : named(second),
  };
}

/** The same beside the year before its budget's months: where months of it are not closed, as the budget of them plans them. */
export function budgetSides(input: SidesInput): Sides {
  const sides = sidesOf(input);
  const budget = onlyBudget(input.compared);
  if (!budget) return sides;
  const { ground, axis } = input;
  const whole = reckoned(ground, budget);
  const { segments } = input.compared.comparison!;
  const before = yearBefore(ground, whole);
  const first = whole.facts.periods[0]?.index ?? 0;
  const lastYear: Side = {
    ...sides.lastYear,
    at(account, scope, p) {
      if (scope !== 'all')
        return axis?.id === budget.axis ? (before.of(account.id, scope)[p - first] ?? null) : null;
      return segments.length === budget.segments.length
        ? (before.of(account.id, 'all')[p - first] ?? null)
        : sumBlank(segments.map((s) => before.of(account.id, s)[p - first] ?? null));
    },
    covers: (p) => before.known[p - first] ?? false,
    days: nothing,
  };
  return { ...sides, lastYear, first: input.compared.first === 'lastYear' ? lastYear : sides.first };
}

/** The ledger itself: what moved in every account, open months included, and nothing beside it but the year before. */
export function ledgerSides({ ground, axis, ledger, compared: { comparison } }: SidesInput): Sides {
  const part = comparison && !comparison.company && ledger === ground.balances ? comparison : null;
  const whole = part?.axis ? part.segments.map((s) => segmentLedgers(ground, part.axis!.id)(s)) : [ledger];
  const of = (scope: Scope) =>
    scope === 'all' || axis === null ? whole : [segmentLedgers(ground, axis.id)(scope)];
  const actual: Side = {
    ...NO_SIDE,
    at: (account, scope, p) => sumBlank(of(scope).map((l) => actualOf(l, account, p))),
    tells: always,
    covers: (p) => ledger.has(p),
  };
  const lastYear = aYearBefore(ground, actual);
  return {
    actual,
    reclassified: NO_SIDE,
    outlook: actual,
    lastYear,
    flexible: NO_SIDE,
    mix: NO_SIDE,
    first: lastYear,
    second: null,
  };
}

/** What a side says a year before. */
export const aYearBefore = ({ calendar }: Ground, side: Side): Side => ({
  ...side,
  at(account, scope, p) {
    const q = yearsBefore(calendar, p);
    return q === null ? null : side.at(account, scope, q);
  },
  covers(p) {
    const q = yearsBefore(calendar, p);
    return q !== null && side.covers(q);
  },
});

const NO_SIDE: Side = {
  at: nothing,
  whole: nothing,
  tells: () => false,
  covers: () => false,
  days: nothing,
};
const always = () => true;

/** The ledgers that a scope adds up. */
function ledgersOf({ ground, axis }: SidesInput, comparison: Comparison | null) {
  const all = actualsIn(ground, comparison);
  const made = new Map<SegmentId, readonly ReturnType<typeof actualsOf>[]>();
  return (scope: Scope) => {
    if (scope === 'all' || axis === null) return all;
    let own = made.get(scope);
    if (!own) made.set(scope, (own = [actualsOf(ground, axis.id, scope)]));
    return own;
  };
}

function actualSide(ways: SidesInput, comparison: Comparison | null): Side {
  const { ground, axis, range } = ways;
  const of = ledgersOf(ways, comparison);
  const accounts = new Map(ground.book.accounts.map((a) => [a.id, a]));
  const views = new Map<Scope, (account: AccountId) => Float64Array | null>();
  const daysOf = (scope: Scope) => {
    let own = views.get(scope);
    if (!own && range) {
      const view =
        scope === 'all' || axis === null
          ? comparison
            ? entriesView(ground, comparison)
            : ground.view
          : viewOfSegments(ground.view, [{ axis, values: [scope] }]);
      views.set(scope, (own = activityByDay(ground.blocks, view, range.first, range.last, accounts)));
    }
    return own;
  };
  return {
    at: (account, scope, p) => {
      const all = of(scope);
      return all.length === 1 ? all[0]!.shown(account, p) : sumBlank(all.map((a) => a.shown(account, p)));
    },
    whole: nothing,
    tells: always,
    covers: always,
    days(account, scope, { first, last }) {
      if (!range || !isProfitAndLoss(account.kind)) return null;
      const own = daysOf(scope)?.(account.id);
      if (!own) return null;
      let sum = 0;
      for (let d = first; d <= last; d++) sum += own[d - range.first] ?? 0;
      return natural(account.kind, sum as Minor);
    },
  };
}

function reclassifiedSide(ways: SidesInput, comparison: Comparison | null): Side {
  const of = ledgersOf(ways, comparison);
  return {
    ...NO_SIDE,
    at: (account, scope, p) => sumBlank(of(scope).map((a) => a.moved(account, p))),
    tells: always,
    covers: always,
  };
}

function lastYearSide({ ground: { calendar, balances } }: SidesInput, actual: Side): Side {
  const before = (d: DayNumber): DayNumber => {
    const text = fromDayNumber(d);
    const earlier = `${Number(text.slice(0, 4)) - 1}${text.slice(4)}`;
    return toDayNumber((earlier.endsWith('02-29') ? `${earlier.slice(0, 8)}28` : earlier) as typeof text);
  };
  return {
    at(account, scope, p) {
      const q = yearsBefore(calendar, p);
      return q === null ? null : actual.at(account, scope, q);
    },
    whole: nothing,
    tells: always,
    // A month of which last year tells nothing makes no difference.
    covers: (p) => {
      const q = yearsBefore(calendar, p);
      return q !== null && balances.has(q);
    },
    days: (account, scope, days) =>
      actual.days(account, scope, { ...days, first: before(days.first), last: before(days.last) }),
  };
}

/**
 * The budgets of a comparison in a period: its own, or those in force where it says nothing of the period. What is compared
 * with what is in force in a month goes by what was in force in each month before it, and as that month has it after it;
 * `onward`: as each later month has it, as whoever looks ahead does.
 */
function partsBy(
  { ground }: SidesInput,
  comparison: Comparison,
  onward = false,
): (period: PeriodIndex) => readonly Part[] | null {
  const partsOf = (c: Comparison): readonly Part[] =>
    c.parts.map(({ budget, segments }) => ({ whole: reckoned(ground, budget), segments }));
  const own = partsOf(comparison);
  const covered = (parts: readonly Part[], p: PeriodIndex) =>
    parts.every(({ whole }) => {
      const { periods } = whole.facts;
      return periods.length > 0 && p >= periods[0]!.index && p <= periods.at(-1)!.index;
    });
  const made = new Map<PeriodIndex, readonly Part[] | null>();
  const { year } = ground.calendar.period(comparison.parts[0] ? own[0]!.whole.facts.periods[0]!.index : 0);
  const { inForceIn } = comparison;
  const ruled = new Map<PeriodIndex, readonly Part[] | null>();
  /** What rules another month than the one that is compared. */
  const ruling = (p: PeriodIndex): readonly Part[] | null => {
    if (inForceIn === null || p === inForceIn || (p > inForceIn && !onward)) return null;
    let parts = ruled.get(p);
    if (parts === undefined) {
      const budgets = rulingIn(ground, p, 'profit');
      const c = budgets && comparisonOf(ground, budgets);
      // Like with like: of the same company or the same parts of it.
      ruled.set(p, (parts = c && c.company === comparison.company ? partsOf(c) : null));
    }
    return parts;
  };
  return (p) => {
    const rules = ruling(p);
    if (rules) return rules;
    if (covered(own, p)) return own;
    let other = made.get(p);
    if (other === undefined) {
      // What is compared over several years goes by the budget that was in force in each.
      const c =
        comparison.company && ground.calendar.period(p).year !== year ? comparisonFor(ground, p, null) : null;
      const fits = c?.company === true && c.covers !== 'balanceSheet';
      made.set(p, (other = fits ? partsOf(c!) : null));
    }
    return other;
  };
}

function budgetSide(ways: SidesInput, comparison: Comparison): Side {
  const { ground, axis } = ways;
  const partsAt = partsBy(ways, comparison);
  const over = (
    parts: readonly Part[],
    scope: Scope,
    of: (part: Part, segment: SegmentId) => Minor | null,
  ): Minor | null => {
    if (scope !== 'all') {
      if (axis === null) return null;
      const own = parts.find((p) => p.whole.budget.axis === axis.id && p.segments.includes(scope));
      return own ? of(own, scope) : null;
    }
    if (parts.length === 1 && parts[0]!.segments.length === 1) return of(parts[0]!, parts[0]!.segments[0]!);
    return sumBlank(parts.flatMap((part) => part.segments.map((s) => of(part, s))));
  };
  const tells = (scope: Scope) =>
    scope === 'all' || comparison.parts.some((p) => p.budget.axis === axis?.id && p.segments.includes(scope));
  const at: Side['at'] = (account, scope, p) => {
    const parts = partsAt(p);
    if (!parts) return null;
    const planned = over(parts, scope, ({ whole }, s) => plannedAt(whole, account.id, s, p).amount);
    if (planned !== null || scope !== 'all' || isProfitAndLoss(account.kind)) return planned;
    return approvedClosing(parts, account.id, p);
  };
  const ofYears = new Map<number, readonly Part[] | null>();
  /** A year is planned as a whole by the budget of any of its months. */
  const partsOfYear = (year: number): readonly Part[] | null => {
    let parts = ofYears.get(year);
    if (parts === undefined) {
      const own = comparison.parts.map(({ budget, segments }) => ({
        whole: reckoned(ground, budget),
        segments,
      }));
      const has = own.some(({ whole }) => yearIn(whole, year) >= 0);
      ofYears.set(year, (parts = has ? own : partsAt(ground.calendar.firstOfYear(year))));
    }
    return parts;
  };
  const share = daySharing(ground.calendar, ground.book.workWeek, ways.days);
  const shared = new Map<string, readonly Minor[]>();
  return {
    at,
    whole: (account, scope, year) => {
      const parts = partsOfYear(year);
      return parts
        ? over(
            parts,
            scope,
            ({ whole }, s) => whole.figures(account.id, s)?.wholes[yearIn(whole, year)] ?? null,
          )
        : null;
    },
    tells,
    covers: (p) => partsAt(p) !== null,
    days(account, scope, { first, last, period }) {
      if (!isProfitAndLoss(account.kind)) return null;
      const key = `${account.id} ${scope ?? ''} ${period}`;
      let parts = shared.get(key);
      if (!parts) {
        const amount = at(account, scope, period);
        parts = amount === null ? [] : share(period, amount, lineAt(partsAt(period), account.id, scope));
        shared.set(key, parts);
      }
      if (parts.length === 0) return null;
      const start = toDayNumber(ground.calendar.period(period).start);
      let sum = 0;
      for (let d = first; d <= last; d++) sum += parts[d - start]!;
      return sum as Minor;
    },
  };
}

/** The place of a fiscal year among those of a budget; −1 where it has none of its months. */
const yearIn = ({ facts: { years, periods } }: Reckoned, year: number): number =>
  years.findIndex((span) => periods[span.from]!.year === year);

/** A comparison's budgets at the activity that there was. */
function flexibleSide(ways: SidesInput, comparison: Comparison, which: 'at' | 'mix'): Side {
  const { ground, axis } = ways;
  const partsAt = partsBy(ways, comparison);
  const made = new Map<Reckoned, Flexible>();
  const of = (whole: Reckoned): Flexible => {
    let flexible = made.get(whole);
    if (!flexible) made.set(whole, (flexible = flexibleOf(ground, whole)));
    return flexible;
  };
  return {
    ...budgetSide(ways, comparison),
    whole: nothing,
    days: nothing,
    at(account, scope, p) {
      const parts = partsAt(p) ?? [];
      const own =
        scope === 'all'
          ? parts
          : parts.filter((x) => x.whole.budget.axis === axis?.id && x.segments.includes(scope));
      return sumBlank(
        own.flatMap(({ whole, segments }) =>
          (scope === 'all' ? segments : [scope]).map((s) => of(whole)[which](account.id, s, p)),
        ),
      );
    },
  };
}

/** The one line that makes an amount; null where several do, or none. */
function lineAt(parts: readonly Part[] | null, account: AccountId, scope: Scope) {
  const [only, ...more] = (parts ?? []).filter((p) => scope === 'all' || p.segments.includes(scope));
  if (!only || more.length > 0 || (scope === 'all' && only.segments.length !== 1)) return null;
  const segment = scope === 'all' ? only.segments[0]! : scope;
  return linesOf(only.whole.reckoning.lines.lines).get(lineKey({ account, segment })) ?? null;
}

const tables = new WeakMap<readonly Line[], ReadonlyMap<string, Line>>();
function linesOf(lines: readonly Line[]): ReadonlyMap<string, Line> {
  let table = tables.get(lines);
  if (!table) tables.set(lines, (table = new Map(lines.map((l) => [lineKey(l), l]))));
  return table;
}

/** What a balance account was to stand at by a budget's money, as it was approved. */
function approvedClosing(parts: readonly Part[], account: AccountId, period: PeriodIndex): Minor | null {
  if (parts.length !== 1) return null;
  const { budget, facts } = parts[0]!.whole;
  const months = budget.approved?.cash?.closing[account];
  return months?.[period - facts.periods[0]!.index] ?? null;
}

function outlookSide(ways: SidesInput, comparison: Comparison, actual: Side): Side {
  const { axis, ground } = ways;
  const partsAt = partsBy(ways, comparison, true);
  const budget = budgetSide(ways, comparison);
  const isActual = (parts: readonly Part[], p: PeriodIndex) => parts[0]!.whole.facts.isActual(p);
  return {
    at(account, scope, p) {
      const parts = partsAt(p);
      if (!parts) return actual.at(account, scope, p);
      const own =
        scope === 'all'
          ? parts
          : parts.filter((x) => x.whole.budget.axis === axis?.id && x.segments.includes(scope));
      const plain = sumBlank(
        own.map(({ whole, segments }) =>
          outlookAt(whole, account.id, scope === 'all' ? segments : [scope], p),
        ),
      );
      if (!isActual(parts, p)) return plain;
      // What was called wrong stands where it belongs; a silent month of a line came to nothing.
      return actual.at(account, scope, p) ?? (plain === null ? null : ZERO);
    },
    whole: nothing,
    tells: (scope) => budget.tells(scope),
    covers: (p) => partsAt(p) !== null || ground.balances.has(p),
    days: nothing,
  };
}
