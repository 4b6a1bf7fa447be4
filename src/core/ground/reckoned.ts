import { minor, plus, unitOf, ZERO, type Minor } from '@/core/money';
import type { FiscalCalendar, Period, PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import {
  blankLine,
  budgetsIn,
  type LineRef,
  lineKey,
  type AccountId,
  type Book,
  type Budget,
  type Line,
  type OutlookWay,
  type SegmentId,
  type ScheduleRow,
} from '@/core/model';
import {
  budgetPeriods,
  createReckoner,
  factsFor,
  figuresOf,
  frozenFigures,
  NO_CHANGES,
  planChanges,
  sameAmounts,
  madeAt,
  madeOn,
  movedMade,
  NOTHING_AHEAD,
  NOTHING_MADE,
  type Facts,
  type FactsInput,
  type Figures,
  type FromAhead,
  type Made,
  type Amounts,
  type OtherPlan,
  type PlanChanges,
  type Reckoning,
} from '@/core/plan';
import { carriedOf, type Carried } from './carried';
import { bearersOf } from './bearers';
import { segmentLedgers, type Ground } from './ground';
import { rowsAdded } from './inCase';
import { countedIn, isOn, steadyPart, type AmountChange, type Assumed } from '@/core/scenario';

/** A budget with its reckoning. */
export type Reckoned = {
  readonly budget: Budget;
  readonly facts: Facts;
  readonly reckoning: Reckoning;
  /** Figures and months of an account, in one segment or over all of them (unless said otherwise). */
  readonly figures: (account: AccountId, segment?: SegmentId | 'all') => Figures | null;
  readonly amounts: (account: AccountId, segment?: SegmentId | 'all') => readonly (Minor | null)[] | null;
  /** What explained variances add to months that are to come; of a budget by segments nothing, since they are the company's. */
  readonly carried: Carried;
  /** What money ahead makes of its lines, as its figures have it. */
  readonly made: Made;
  /**
   * What the outlook has of an account in a period beside that, natural: what someone said beside the plan, and of an approved
   * budget what money ahead makes today in place of what it made then.
   */
  readonly shift: (account: AccountId, segments: readonly SegmentId[], period: PeriodIndex) => number;
  /** Lines that only the case has that it is looked at in. */
  readonly added: readonly LineRef[];
  /** How an account’s coming months are expected, where not as planned; of a budget by segments never. */
  readonly way: (account: AccountId) => OutlookWay | null;
};

type Ways = Readonly<Record<AccountId, OutlookWay>>;
const AS_PLANNED: Ways = {};
const NOTHING: Carried = () => ZERO;

/** A budget with a reckoning of it: as approved where it is, as reckoned while it is a draft. */
export function reckonedAs(
  budget: Budget,
  facts: Facts,
  reckoning: Reckoning,
  carried: Carried = NOTHING,
  ways: Ways = AS_PLANNED,
  made: Made = NOTHING_MADE,
  { made: today, beyond }: FromAhead = { ...NOTHING_AHEAD, made },
  changes: PlanChanges = NO_CHANGES,
): Reckoned {
  const first = facts.periods[0]?.index ?? 0;
  const figures: Reckoned['figures'] =
    budget.approved && changes !== NO_CHANGES
      ? (account, segment = 'all') => {
          const frozen = frozenFigures(budget.approved!, account, segment);
          const now = reckoning.lines.figures(account, segment);
          // Of a year as a whole a case says nothing.
          return now && frozen ? { amounts: now.amounts, wholes: frozen.wholes } : (now ?? frozen);
        }
      : (account, segment = 'all') => figuresOf(budget, reckoning, account, segment);
  return {
    made,
    shift:
      made === today && beyond.length === 0
        ? () => 0
        : (account, segments, period) =>
            segments.reduce((t, segment) => {
              const at = (of: Made) => madeAt(madeOn(of, { account, segment }), period - first);
              return t + at(today) - at(made) + at(beyond);
            }, 0),
    budget,
    facts,
    reckoning,
    carried: budget.axis === null ? carried : NOTHING,
    way: (account) => (budget.axis === null ? (ways[account] ?? null) : null),
    added: changes.added,
    figures,
    amounts: (account, segment = 'all') => figures(account, segment)?.amounts ?? null,
  };
}

/** Changes of the same plan by the same assumptions are the same; of others, as far as they are alike. */
function changesOnce() {
  let was = NO_CHANGES;
  return lastOf(
    (
      budget: Budget,
      facts: Facts,
      assumed: Assumed,
      closed: PeriodIndex | null,
      rows: readonly ScheduleRow[],
    ): PlanChanges => (was = planChanges(budget, facts, assumed, closed, rows, was)),
  );
}

const makePlace = () => ({
  facts: lastOf(
    (
      calendar: FiscalCalendar,
      periods: readonly Period[],
      accounts: Book['accounts'],
      bank: FactsInput['bank'],
      balances: FactsInput['balances'],
      ofSegment: FactsInput['ofSegment'],
      closedThrough: FactsInput['closedThrough'],
      unit: number,
      weights: Book['weights'],
      workWeek: Book['workWeek'],
      others: FactsInput['others'],
    ): Facts =>
      factsFor({
        calendar,
        periods,
        accounts,
        bank,
        balances,
        ofSegment,
        closedThrough,
        unit,
        weights,
        workWeek,
        others,
      }),
  ),
  reckon: createReckoner(),
  periods: lastOf((c: FiscalCalendar, first: Budget['first'], length: number) =>
    budgetPeriods(c, { first, length }),
  ),
  named: lastOf((lines: Budget['lines']) => budgetsIn(lines)),
  others: lastOf((axis: string | null, ...others: readonly Reckoned[]) => otherPlans(axis, others)),
  whole: lastOf(reckonedAs),
  /** An approved budget by its own lines alone, and what money ahead made of them then. */
  plain: createReckoner(),
  then: lastOf(madeThen),
  lines: lastOf(withMadeLines),
  amounts: steadyPart((a) => isOn(a, 'amounts', 'driver', 'linesMoved')),
  planChanges: changesOnce(),
  asApproved: lastOf(withApproved),
  movedMade: lastOf(movedMade),
  /** It is being reckoned: one that leads back to itself is no basis. */
  open: false,
});
const placeOf = ({ memory }: Ground, budget: string) => memory.of(`budget ${budget}`, makePlace);

/** Reckons a budget; parts that did not change are remembered by budget. */
export function reckoned(ground: Ground, budget: Budget): Reckoned {
  const { book, calendar } = ground;
  const place = placeOf(ground, budget.id);
  const periods = place.periods(calendar, budget.first, budget.length);
  const wasOpen = place.open;
  place.open = true;
  let others: Reckoned[];
  try {
    others = place.named(budget.lines).flatMap((id) => {
      const other = placeOf(ground, id).open ? undefined : book.budgets.find((b) => b.id === id);
      return other ? [reckoned(ground, other)] : [];
    });
  } finally {
    place.open = wasOpen;
  }
  const facts = place.facts(
    calendar,
    periods,
    book.accounts,
    book.cash.bank,
    ground.balances,
    segmentLedgers(ground, budget.axis),
    ground.closedThrough,
    unitOf(book.currency),
    book.weights,
    book.workWeek,
    place.others(budget.axis, ...others),
  );
  const ahead = ground.made?.(ground, budget) ?? NOTHING_AHEAD;
  const { inCase } = ground;
  if (inCase !== null) {
    const was = inCase.base.book.budgets.find((b) => b.id === budget.id)!;
    const base = budget.approved ? reckoned(inCase.base, was) : null;
    const changes = place.planChanges(
      budget,
      facts,
      place.amounts(countedIn(inCase.assumed, budget)),
      inCase.closed,
      rowsAdded(inCase, budget),
    );
    const made = base ? place.movedMade(base.made, inCase.madeOfBase(budget.id), ahead.made) : ahead.made;
    const all = base ? place.asApproved(changes, base) : changes;
    return place.whole(
      budget,
      facts,
      place.reckon(
        { ...budget, lines: place.lines(budget.lines, made, changes.added), made, changes: all },
        facts,
      ),
      carriedOf(ground, budget.id),
      book.outlookWays[budget.id] ?? AS_PLANNED,
      made,
      ahead,
      all,
    );
  }
  // What was taken into it; of most nothing was.
  const changes =
    budget.applied.length === 0 ? NO_CHANGES : place.planChanges(budget, facts, NONE_ASSUMED, null, NO_ROWS);
  const made = budget.approved
    ? place.then(
        budget,
        place.plain({ ...budget, changes }, facts),
        facts,
        ahead.made,
        bearersOf(book, budget),
      )
    : ahead.made;
  return place.whole(
    budget,
    facts,
    place.reckon({ ...budget, lines: place.lines(budget.lines, made), made, changes }, facts),
    carriedOf(ground, budget.id),
    book.outlookWays[budget.id] ?? AS_PLANNED,
    made,
    ahead,
  );
}

const NO_LINES: readonly Line[] = [];
const NO_ROWS: readonly ScheduleRow[] = [];
const NONE_ASSUMED: Assumed = [];

/**
 * What a case makes of an approved budget: each line begins with what was approved of it beyond what its method gives today,
 * so that it is as approved where nothing reaches it, and moves with what it follows.
 */
function withApproved(changes: PlanChanges, base: Reckoned): PlanChanges {
  const lines = new Map(changes.lines);
  for (const [line, result] of base.reckoning.lines) {
    const frozen = base.figures(line.account, line.segment)?.amounts;
    if (!frozen || sameAmounts(frozen, result.amounts)) continue;
    const key = lineKey(line);
    lines.set(key, [beyondMethod(frozen, result.amounts), ...(lines.get(key) ?? [])]);
  }
  return { ...changes, lines };
}

const beyond = new WeakMap<Amounts, { readonly of: Amounts; readonly change: AmountChange }>();
/** What was approved less what is reckoned; the same object for the same two. */
function beyondMethod(frozen: Amounts, now: Amounts): AmountChange {
  const known = beyond.get(frozen);
  if (known?.of === now) return known.change;
  const amounts = frozen.map((f, i) => {
    const own = now[i] ?? null;
    return f === null && own === null ? null : minor((f ?? 0) - (own ?? 0));
  });
  const change: AmountChange = { as: 'approved', amounts };
  beyond.set(frozen, { of: now, change });
  return change;
}

/** A budget's lines, and those that money ahead makes where it has none. */
function withMadeLines(
  lines: Budget['lines'],
  made: Made,
  added: readonly Line[] = NO_LINES,
): Budget['lines'] {
  const planned = new Set([...lines, ...added].map((l) => l.account));
  const more = made.filter((m) => !planned.has(m.account));
  if (more.length === 0 && added.length === 0) return lines;
  const method = { kind: 'schedule', beside: {} } as const;
  return [
    ...lines,
    ...added,
    ...more.map(({ account, segment }) => ({ ...blankLine({ account, segment }), method })),
  ];
}

/**
 * What money ahead made of an approved budget's lines when it was approved: what was approved of accounts that terms lose on
 * and of the credit line's interest, beyond what their lines and schedules say. Months that were typed over have nothing of it,
 * and go by what is made today.
 */
function madeThen(
  { lines, approved }: Budget,
  plain: Reckoning,
  { periods, isBalance }: Facts,
  today: Made,
  bearers: ReadonlySet<AccountId>,
): Made {
  if (bearers.size === 0) return NOTHING_MADE;
  const methods = new Map(lines.map((l) => [lineKey(l), l.method.kind]));
  const own = new Set(lines.map((l) => l.account));
  return approved!.lines.flatMap((line) => {
    const { account, segment } = line;
    const method = methods.get(lineKey(line));
    if (!bearers.has(account) || isBalance(account)) return [];
    if (method === undefined ? own.has(account) : method !== 'schedule') return [];
    const was = plain.lines.get(line);
    const now = madeOn(today, line);
    const amounts = periods.map((_, i) =>
      was?.typed[i] ? madeAt(now, i) : plus(line.amounts[i] ?? 0, -(was?.amounts[i] ?? 0)),
    );
    return amounts.every((a) => a === 0) ? [] : [{ account, segment, parts: [{ of: 'approved', amounts }] }];
  });
}

/** Other budgets as bases of one with this axis: by segment where both have it, else as a whole. */
function otherPlans(axis: string | null, others: readonly Reckoned[]): FactsInput['others'] {
  return new Map(
    others.map((r): [string, OtherPlan] => {
      const first = r.facts.periods[0]?.index ?? 0;
      const alike = r.budget.axis === axis;
      const months = (account: AccountId, segment: SegmentId) =>
        alike ? r.amounts(account, segment) : axis === null ? r.amounts(account, 'all') : null;
      return [
        r.budget.id,
        {
          has: (period) => period >= first && period < first + r.facts.periods.length,
          amount: (account, segment, period) => months(account, segment)?.[period - first] ?? null,
          plans: (account, segment) => months(account, segment) !== null,
        },
      ];
    }),
  );
}
