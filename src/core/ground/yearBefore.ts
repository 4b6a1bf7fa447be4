import { percent, sumBlank, type Minor, type Percent } from '@/core/money';
import {
  fiscalYearsLabel,
  indexOfId,
  yearsBefore,
  type FiscalCalendar,
  type PeriodIndex,
} from '@/core/calendar';
import type { AccountId, Budget, Method, RoundUnit, SegmentId } from '@/core/model';
import { asLastYear, coversPeriod, outlookOf, type Facts } from '@/core/plan';
import { comingAt, plannedAt } from './outlook';
import type { Ground } from './ground';
import { reckoned, type Reckoned } from './reckoned';

type Months = readonly (Minor | null)[];

/** What a budget is held against: the year before its months. */
export type YearBefore = {
  /** The year or years: "FY26". */
  readonly year: string;
  /** The same with what is known of it: "FY26 actual". */
  readonly label: string;
  /** What is known of it: all of it actual, or its outlook, where a budget stands in for months not closed yet. */
  readonly as: 'actual' | 'outlook';
  /** An account's months, each a year before the budget's, in one segment or over all that the budget has. */
  readonly of: (account: AccountId, segment: SegmentId | 'all') => Months;
  /** For each month of the budget whether its counterpart is known; a change is only one of those that are. */
  readonly known: readonly boolean[];
  /** Whether all of them are. */
  readonly all: boolean;
  /** The method by which a line takes it over. */
  readonly method: (uplift?: Percent, round?: RoundUnit) => Method;
};

const made = new WeakMap<Facts, { readonly other: Reckoned | null; readonly before: YearBefore }>();

/**
 * The year before a budget's months. Budgets are made before the year they follow is over: months that are not closed
 * yet are then those of the budget that plans them, so that a whole year stands beside a whole year.
 */
export function yearBefore(ground: Ground, whole: Reckoned): YearBefore {
  const standIn = standInFor(ground, whole);
  const other = standIn && reckoned(ground, standIn);
  let kept = made.get(whole.facts);
  if (kept?.other !== other) made.set(whole.facts, (kept = { other, before: make(whole, other) }));
  return kept!.before;
}

/** An account's actual months of the year before, over these segments. */
export function lastYearOf(facts: Facts, id: AccountId, segments: readonly SegmentId[]): Months {
  if (segments.length === 1) return facts.past(id, segments[0]!).lastYear;
  const rows = segments.map((s) => facts.past(id, s).lastYear);
  return facts.periods.map((_, i) => sumBlank(rows.map((r) => r[i] ?? null)));
}

/** The segments that are added up where one, or all of them, are shown. */
export const segmentsIn = (
  { segments }: { readonly segments: readonly SegmentId[] },
  shown: SegmentId | 'all',
): readonly SegmentId[] => (shown === 'all' ? segments : [shown]);

/** Whether a budget covers the period a year before another. */
export function coversYearBefore(calendar: FiscalCalendar, budget: Budget, period: PeriodIndex): boolean {
  const before = yearsBefore(calendar, period);
  return before !== null && coversPeriod(calendar, budget, before);
}

/**
 * How many years before a budget's first period lie the months that it takes from another: none where the other plans
 * the same months, else one where it plans those of the year before, else as many as lie between their beginnings.
 */
export function yearsTo(calendar: FiscalCalendar, first: PeriodIndex, other: Budget): number {
  if (coversPeriod(calendar, other, first)) return 0;
  if (coversYearBefore(calendar, other, first)) return 1;
  const theirs = indexOfId(calendar, other.first) ?? first;
  return Math.max(0, calendar.period(first).year - calendar.period(theirs).year);
}

/** The budget whose months stand in for those of the year before that are not closed; null where none are needed. */
function standInFor(ground: Ground, { facts, budget }: Reckoned): Budget | null {
  const open = facts.periods
    .map((p) => yearsBefore(facts.calendar, p.index))
    .find((q) => q !== null && !facts.isActual(q) && q < facts.periods[0]!.index);
  if (open === undefined || open === null) return null;
  const fits = ground.book.budgets.filter(
    (b) =>
      b.id !== budget.id &&
      b.state !== 'superseded' &&
      (budget.axis === null || b.axis === budget.axis) &&
      coversPeriod(facts.calendar, b, open),
  );
  // The one that its own lines follow, if any do.
  for (const { method } of budget.lines)
    if (method.kind === 'lastYear' && method.from.of === 'outlook') {
      const { budget: id } = method.from;
      const named = fits.find((b) => b.id === id);
      if (named) return named;
      break;
    }
  return fits.at(-1) ?? null;
}

function make({ facts, budget }: Reckoned, other: Reckoned | null): YearBefore {
  const { periods } = facts;
  const first = periods[0]?.index ?? 0;
  const year = fiscalYearsLabel(periods, 1);
  const before = periods.map((p) => yearsBefore(facts.calendar, p.index));
  const known = before.map(
    (q) =>
      q !== null &&
      q < first &&
      (facts.isActual(q) || (other !== null && coversPeriod(facts.calendar, other.budget, q))),
  );
  const all = known.every(Boolean);
  const named = (as: YearBefore['as']) =>
    `${year} ${as}${all ? '' : `, ${known.filter(Boolean).length} months`}`;
  if (!other) {
    const of = (id: AccountId, segment: SegmentId | 'all') => {
      const months = lastYearOf(facts, id, segmentsIn(budget, segment));
      return all ? months : months.map((m, i) => (known[i] ? m : null));
    };
    return { year, label: named('actual'), as: 'actual', of, known, all, method: asLastYear };
  }
  const of = (id: AccountId, segment: SegmentId | 'all'): Months =>
    before.map((q, i) => {
      if (q === null || !known[i]) return null;
      // A budget of the whole company stands in for one of it, whatever its own segments are.
      if (budget.axis === null) {
        const plain = outlookOf(facts, id, null, q, plannedAt(other, id, 'all', q));
        return facts.isActual(q) ? plain : comingAt(other, id, other.budget.segments, q, plain);
      }
      const segments = segmentsIn(budget, segment);
      return sumBlank(segments.map((s) => outlookOf(facts, id, s, q, plannedAt(other, id, s, q))));
    });
  const from = { of: 'outlook' as const, budget: other.budget.id, years: 1 };
  const method = (uplift: Percent = percent('0'), round: RoundUnit = 0): Method => ({
    ...asLastYear(uplift, round),
    from,
  });
  return { year, label: named('outlook'), as: 'outlook', of, known, all, method };
}

/** A budget's months of which the year before is known: what a change on last year compares. */
export const sameMonths = <T>(
  { known, all }: Pick<YearBefore, 'known' | 'all'>,
  months: readonly T[],
): readonly T[] => (all ? months : months.filter((_, i) => known[i]));
