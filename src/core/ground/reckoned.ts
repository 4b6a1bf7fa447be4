import { unitOf, ZERO, type Minor } from '@/core/money';
import type { FiscalCalendar, Period } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import {
  budgetsIn,
  type AccountId,
  type Book,
  type Budget,
  type OutlookWay,
  type SegmentId,
} from '@/core/model';
import {
  budgetPeriods,
  createReckoner,
  factsFor,
  figuresOf,
  type Facts,
  type FactsInput,
  type Figures,
  type OtherPlan,
  type Reckoning,
} from '@/core/plan';
import { carriedOf, type Carried } from './carried';
import { segmentLedgers, type Ground } from './ground';

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
): Reckoned {
  return {
    budget,
    facts,
    reckoning,
    carried: budget.axis === null ? carried : NOTHING,
    way: (account) => (budget.axis === null ? (ways[account] ?? null) : null),
    figures: (account, segment = 'all') => figuresOf(budget, reckoning, account, segment),
    amounts: (account, segment = 'all') => figuresOf(budget, reckoning, account, segment)?.amounts ?? null,
  };
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
  /** It is being reckoned: one that leads back to itself is no basis. */
  open: false,
});
const placeOf = ({ memory }: Ground, budget: string) => memory.of(`budget ${budget}`, makePlace);

/** Reckons a budget; parts that did not change are remembered by budget. */
export function reckoned(ground: Ground, budget: Budget): Reckoned {
  const { book, calendar } = ground;
  const place = placeOf(ground, budget.id);
  const periods = place.periods(calendar, budget.first, budget.length);
  place.open = true;
  let others: Reckoned[];
  try {
    others = place.named(budget.lines).flatMap((id) => {
      const other = placeOf(ground, id).open ? undefined : book.budgets.find((b) => b.id === id);
      return other ? [reckoned(ground, other)] : [];
    });
  } finally {
    place.open = false;
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
  return place.whole(
    budget,
    facts,
    place.reckon(budget, facts),
    carriedOf(ground, budget.id),
    book.outlookWays[budget.id] ?? AS_PLANNED,
  );
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
