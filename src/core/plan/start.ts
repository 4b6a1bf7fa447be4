import { minor, percent, type Percent } from '@/core/money';
import {
  isProfitAndLoss,
  type Account,
  type AccountKind,
  type Budget,
  type Line,
  type Method,
  type MethodOf,
  type Rest,
  type RoundUnit,
  type SegmentId,
  blankLine,
} from '@/core/model';
import type { Period } from '@/core/calendar';
import { beforeOf, monthsMissing } from './before';
import type { Facts } from './facts';

export type StartFrom =
  'sameMonth' | 'yearOverTwelve' | 'average' | 'thisYear' | 'lastMonth' | 'outlook' | 'otherBudget' | 'empty';

export type StartChoice = {
  readonly from: StartFrom;
  /**
   * The budget behind `outlook` (for the months not closed) and `otherBudget`, how many years before this one it lies,
   * and what it plans.
   */
  readonly other: {
    readonly budget: string;
    readonly years: number;
    readonly covers: Budget['covers'];
  } | null;
  readonly uplift: Percent;
  /** Kinds with a percentage of their own. */
  readonly upliftByKind: Partial<Record<AccountKind, Percent>>;
  readonly round: RoundUnit;
  /** What fills the months that have no actuals yet; null leaves them as the ledger has them, blank as a rule. */
  readonly rest: Rest | null;
};

const BLANK: Method = { kind: 'byMonth', amounts: {} };

/** The rule by which a line takes over the same months of a year before. */
export const asLastYear = (uplift: Percent = percent('0'), round: RoundUnit = 0): MethodOf<'lastYear'> => ({
  kind: 'lastYear',
  from: { of: 'actuals', years: 1 },
  add: minor(0),
  skip: {},
  uplift,
  round,
});

function methodFor(choice: StartChoice, uplift: Percent, facts: Facts): Method {
  const { from, other, round } = choice;
  const rest = choice.rest === null ? {} : { rest: choice.rest };
  switch (from) {
    case 'sameMonth':
      return { ...asLastYear(uplift, round), ...rest };
    case 'yearOverTwelve':
      return { kind: 'phased', amounts: null, ...rest, by: { by: 'even' }, uplift, round };
    case 'thisYear': {
      const span = thisYearSoFar(facts);
      return span === null
        ? BLANK
        : {
            kind: 'runRate',
            over: { of: 'range', first: span.first.id, last: span.last.id },
            add: minor(0),
            uplift,
            round,
          };
    }
    case 'average':
      return { kind: 'runRate', over: { of: 'all' }, add: minor(0), uplift, round };
    case 'lastMonth':
      return { kind: 'runRate', over: { of: 'last', months: 1 }, add: minor(0), uplift, round };
    case 'outlook':
    case 'otherBudget':
      return other === null
        ? BLANK
        : {
            kind: 'lastYear',
            from: {
              of: from === 'outlook' ? 'outlook' : 'budget',
              budget: other.budget,
              years: other.years,
            },
            add: minor(0),
            skip: {},
            ...rest,
            uplift,
            round,
          };
    case 'empty':
      return BLANK;
  }
}

/** A balance account starts from the balance it has, held; or from another budget's that plans balances. */
function balanceMethod(choice: StartChoice, facts: Facts): Method {
  const planned = choice.other !== null && choice.other.covers !== 'profitAndLoss';
  if (planned && (choice.from === 'otherBudget' || choice.from === 'outlook'))
    return methodFor(choice, percent('0'), facts);
  if (choice.from === 'empty') return BLANK;
  return {
    kind: 'step',
    start: null,
    first: facts.periods[0]!.id,
    every: 1,
    change: { of: 'amount', amount: minor(0) },
    round: 0,
  };
}

/** The months with actuals of the fiscal year that the last of them lies in, up to it; null where there are none. */
export function thisYearSoFar({ window, calendar, isActual }: Facts): {
  readonly first: Period;
  readonly last: Period;
} | null {
  const last = window.at(-1);
  if (!last) return null;
  let first = calendar.firstOfYear(last.year);
  while (!isActual(first)) first++;
  return { first: calendar.period(first), last };
}

/** Whether an account said nothing in the months that a start looks at. */
function silent({ from, rest }: StartChoice, facts: Facts, id: string, segment: SegmentId): boolean {
  const past = facts.past(id, segment);
  const never = () => past.known.every((a) => a === 0);
  switch (from) {
    case 'sameMonth':
    case 'yearOverTwelve':
      if (past.lastYear.some((a) => a !== null)) return false;
      return rest === 'yearEarlier'
        ? monthsMissing(facts).every((p) => beforeOf(facts, id, segment, p, rest).value === null)
        : rest === null || never();
    case 'thisYear': {
      const span = thisYearSoFar(facts);
      if (span === null) return true;
      for (let p = span.first.index; p <= span.last.index; p++)
        if (facts.actual(id, segment, p) !== null) return false;
      return true;
    }
    case 'average':
    case 'lastMonth':
      return never();
    case 'outlook':
    case 'otherBudget':
    case 'empty':
      return false;
  }
}

/**
 * A first budget from the ledger: a line for each account that the budget covers, in each segment, made by the chosen
 * method. An account that said nothing in the months looked at is left to be typed; of segments only those with
 * something to say get a line, and the first. An account that is no longer active gets none.
 */
export function startLines(
  choice: StartChoice,
  accounts: readonly Account[],
  facts: Facts,
  covers: Budget['covers'] = 'profitAndLoss',
  segments: readonly SegmentId[] = [null],
): Line[] {
  return accounts.flatMap(({ id, kind, active }): Line[] => {
    if (!active) return [];
    const balance = !isProfitAndLoss(kind);
    if (balance ? covers === 'profitAndLoss' : covers === 'balanceSheet') return [];
    const lines = segments.flatMap((segment): Line[] => {
      const blank = blankLine({ account: id, segment });
      if (balance)
        return facts.past(id, segment).known.some((a) => a !== 0)
          ? [{ ...blank, method: balanceMethod(choice, facts) }]
          : [];
      if (silent(choice, facts, id, segment)) return [];
      return [{ ...blank, method: methodFor(choice, choice.upliftByKind[kind] ?? choice.uplift, facts) }];
    });
    return lines.length > 0 ? lines : [blankLine({ account: id, segment: segments[0]! })];
  });
}

/** A draft budget of these lines, of the whole company, unless said otherwise. */
export const draftBudget = ({
  id,
  name,
  first,
  length,
  lines,
  ...rest
}: Pick<Budget, 'id' | 'name' | 'first' | 'length' | 'lines'> & Partial<Budget>): Budget => ({
  id,
  name,
  state: 'draft',
  first,
  length,
  covers: 'profitAndLoss',
  axis: null,
  segments: [null],
  lines,
  drivers: [],
  terms: [],
  guessed: [],
  schedules: [],
  applied: [],
  contras: {},
  revises: null,
  approved: null,
  ...rest,
});
