import { viewOfSegments, type View } from '@/core/ledger';
import type { PeriodIndex } from '@/core/calendar';
import { putInForceAt, type Axis, type Budget, type SegmentId } from '@/core/model';
import { coversPeriod } from '@/core/plan';
import { actualsOf, type Actuals } from './actuals';
import { segmentLedgers, type Ground } from './ground';

/** A budget and those of its segments that are compared. */
export type ComparisonPart = { readonly budget: Budget; readonly segments: readonly SegmentId[] };

/**
 * What actuals are compared with: a budget, one of its segments, or several budgets that together cover the company. The
 * actuals are those of the same segments and the same kinds of account: like with like.
 */
export type Comparison = {
  readonly id: string;
  readonly of: 'budget' | 'segment' | 'together';
  readonly parts: readonly ComparisonPart[];
  /** The axis of the segments; null for budgets of the whole company. */
  readonly axis: Axis | null;
  /** The segments compared, of all parts; `[null]` for the whole company. */
  readonly segments: readonly SegmentId[];
  /** Whether they are the whole company: its budget, or all segments that have any entry or could have. */
  readonly company: boolean;
  readonly covers: Budget['covers'];
  /** It is what is in force in this month: each earlier month goes by what was in force in it. */
  readonly inForceIn: PeriodIndex | null;
};

/** A budget that was approved, and by no other of the same months and parts superseded. */
export const isApproved = (b: Pick<Budget, 'state'>): boolean => b.state === 'approved';

/**
 * The budgets in force for a period that together plan the company, of one axis: the latest that were put in force. A
 * place's budget rules once the other places have theirs. Null where nothing was put in force, or not for all.
 */
export function rulingIn(
  ground: Ground,
  period: PeriodIndex,
  which: 'profit' | 'balances',
): readonly Budget[] | null {
  const { book, calendar } = ground;
  const leaves = which === 'profit' ? 'balanceSheet' : 'profitAndLoss';
  const taken = new Map<string | null, { budgets: Budget[]; segments: Set<SegmentId> }>();
  for (const b of putInForceAt(book, calendar, period)) {
    if (b.covers === leaves) continue;
    const of = taken.get(b.axis) ?? { budgets: [], segments: new Set<SegmentId>() };
    taken.set(b.axis, of);
    if (b.segments.some((s) => of.segments.has(s))) continue;
    of.budgets.push(b);
    b.segments.forEach((s) => of.segments.add(s));
    const axis = book.axes.find((a) => a.id === b.axis);
    if (b.axis === null || (axis && isCompany(ground, axis, [...of.segments])))
      // In the order in which they were made.
      return of.budgets.sort((x, y) => book.budgets.indexOf(x) - book.budgets.indexOf(y));
  }
  return null;
}

/** The budgets that plan a period: those in force, else the best there is. */
export const plansIn = (
  ground: Ground,
  period: PeriodIndex,
  which: 'profit' | 'balances',
): readonly Budget[] =>
  rulingIn(ground, period, which) ??
  (comparisonsAt(ground, period)[0]?.parts.map((p) => p.budget) ?? []).filter(
    (b) => b.covers !== (which === 'profit' ? 'balanceSheet' : 'profitAndLoss'),
  );

/** All that a period's actuals can be compared with, best first. */
export function comparisonsAt(ground: Ground, period: PeriodIndex): Comparison[] {
  const { book, calendar } = ground;
  const there = book.budgets.filter((b) => coversPeriod(calendar, b, period));
  const all = [
    ...book.axes.flatMap((axis) => togetherOf(ground, axis, there) ?? []),
    ...there.flatMap((b) => ofBudget(ground, b)),
  ];
  // The later of two that are alike: they stand in the order in which they were made.
  return all
    .map((comparison, place) => ({ comparison, place }))
    .sort((a, b) => rank(b.comparison) - rank(a.comparison) || b.place - a.place)
    .map(({ comparison }) => comparison);
}

/** The comparison of a period: the one chosen if the period has it, else the one in force that covers the most. */
export function comparisonFor(ground: Ground, period: PeriodIndex, chosen: string | null): Comparison | null {
  const all = comparisonsAt(ground, period);
  const own = all.find((c) => c.id === chosen);
  if (own) return own;
  const ruling = rulingIn(ground, period, 'profit');
  const best = (ruling && comparisonOf(ground, ruling)) ?? all[0] ?? null;
  return best && { ...best, inForceIn: period };
}

/** Budgets of one axis that together plan the company, as one comparison. */
export function comparisonOf(ground: Ground, budgets: readonly Budget[]): Comparison | null {
  const [only, ...more] = budgets;
  if (!only) return null;
  const whole = ofBudget(ground, only)[0]!;
  if (more.length === 0) return whole;
  return {
    ...whole,
    id: `together ${only.axis}`,
    of: 'together',
    parts: budgets.map((budget) => ({ budget, segments: budget.segments })),
    segments: budgets.flatMap((b) => b.segments),
    company: true,
  };
}

const COVERS: Record<Budget['covers'], number> = { balanceSheet: 0, profitAndLoss: 1, both: 2 };

/** How good a comparison is unless one is chosen: in force, then of the company, then of most segments and statements. */
function rank({ parts, company, of, segments, covers }: Comparison): number {
  const state = parts.every((p) => isApproved(p.budget))
    ? 2
    : parts.some((p) => p.budget.state === 'superseded')
      ? 0
      : 1;
  const size = company ? 5_000 : of === 'segment' ? 0 : Math.min(segments.length, 4_999);
  return state * 100_000 + (covers === 'balanceSheet' ? 0 : 50_000) + size * 3 + COVERS[covers];
}

function ofBudget(ground: Ground, budget: Budget): Comparison[] {
  const axis = ground.book.axes.find((a) => a.id === budget.axis) ?? null;
  const whole: Comparison = {
    id: budget.id,
    of: 'budget',
    parts: [{ budget, segments: budget.segments }],
    axis,
    segments: budget.segments,
    company: budget.axis === null || (axis !== null && isCompany(ground, axis, budget.segments)),
    covers: budget.covers,
    inForceIn: null,
  };
  if (axis === null || budget.segments.length < 2) return [whole];
  return [
    whole,
    ...budget.segments.map((s): Comparison => ({
      ...whole,
      id: `${budget.id} ${s ?? ''}`,
      of: 'segment',
      parts: [{ budget, segments: [s] }],
      segments: [s],
      company: false,
    })),
  ];
}

/** Whether segments are all of an axis: each of its values, and what is unassigned if there is anything. */
function isCompany(ground: Ground, axis: Axis, segments: readonly SegmentId[]): boolean {
  const has = new Set(segments);
  if (axis.values.some((v) => !has.has(v.id))) return false;
  return has.has(null) || segmentLedgers(ground, axis.id)(null).entries === 0;
}

/**
 * Budgets of one axis that together cover the company, each segment by one of them: by what is in force before what is a
 * draft, the later before the earlier. Null where a single budget does, or none do.
 */
function togetherOf(ground: Ground, axis: Axis, there: readonly Budget[]): Comparison | null {
  const own = there.filter((b) => b.axis === axis.id && b.state !== 'superseded');
  const order = [...own.filter((b) => !isApproved(b)), ...own.filter(isApproved)].reverse();
  const covers = order[0]?.covers;
  const taken = new Set<SegmentId>();
  const parts: ComparisonPart[] = [];
  for (const budget of order) {
    if (budget.covers !== covers || budget.segments.some((s) => taken.has(s))) continue;
    budget.segments.forEach((s) => taken.add(s));
    parts.push({ budget, segments: budget.segments });
  }
  if (parts.length < 2 || !isCompany(ground, axis, [...taken])) return null;
  return {
    id: `together ${axis.id}`,
    of: 'together',
    // In the order in which they were made.
    parts: parts.sort((a, b) => own.indexOf(a.budget) - own.indexOf(b.budget)),
    axis,
    segments: [...taken],
    company: true,
    covers: covers!,
    inForceIn: null,
  };
}

/** The ledgers that a comparison's actuals add up; of no comparison the company's. */
export const actualsIn = (ground: Ground, comparison: Comparison | null): readonly Actuals[] =>
  comparison === null || comparison.company || comparison.axis === null
    ? [actualsOf(ground, null, 'all')]
    : comparison.segments.map((s) => actualsOf(ground, comparison.axis!.id, s));

/** The entries that a comparison's actuals are made of. */
export const entriesView = (ground: Ground, { axis, segments, company }: Comparison): View =>
  axis === null || company ? ground.view : viewOfSegments(ground.view, [{ axis, values: segments }]);
