import { plus, minor, splitEven, splitLike, sum, ZERO, type Minor } from '@/core/money';
import { yearsBefore, type PeriodIndex } from '@/core/calendar';
import type { MethodOf } from '@/core/model';
import type { Facts } from '../facts';
import { spanSize, type Span } from '../spans';
import {
  byYears,
  roundingStep,
  stuck,
  unitOfRound,
  type Context,
  type LineIssue,
  type Reason,
  type Rule,
} from '../rule';
import { wholeAt, wholeSteps } from './phased';
import { wholesOf } from './wholes';

type Pattern = MethodOf<'pattern'>;

/** Years to look back for a month that the ledger has. */
const FARTHEST = 10;

/** Whether a month is there to be followed: closed, or with entries and not the last, which may not be over. */
const isKnown = ({ closedThrough, has }: Facts, period: PeriodIndex): boolean =>
  closedThrough === null ? has(period) : period <= closedThrough || (has(period) && has(period + 1));

/**
 * The months that the amount is shaped like: actuals of the years chosen, added up (which is in proportion to their
 * average). A month that the ledger has not come to, in a budget made before the year is over or longer than one, is
 * shaped like the same month of the latest year that has it. The year before's total has the months that it is of.
 */
function shapeOf(method: Pattern, { facts, line }: Context, span: Span): Minor[] {
  const accounts = method.like === null ? [line.account] : facts.members(method.like);
  const first = facts.periods[0]!.index;
  return facts.periods.slice(span.from, span.to).map((p) => {
    let total: number = ZERO;
    for (const years of method.years) {
      let back = yearsBefore(facts.calendar, p.index, years);
      for (let more = 1; back !== null && more <= FARTHEST; more++) {
        const asItIs = method.amounts === null && method.rest === undefined;
        if (back < first && (asItIs || isKnown(facts, back))) break;
        back = yearsBefore(facts.calendar, p.index, years + more);
      }
      if (back === null || back >= first) continue;
      for (const a of accounts) total = plus(total, facts.actual(a, line.segment, back) ?? 0);
    }
    return minor(total);
  });
}

/** An annual amount (or the year before's) shaped like the actuals of an account, a group or all of a kind. */
export const pattern: Rule<'pattern'> = {
  by: 'line',
  balances: false,
  compute(method, context) {
    const { facts } = context;
    let issue: LineIssue | null = null;
    let met = false;
    const amounts = byYears(context, unitOfRound(method, facts), (year, months, shown) => {
      for (const { span, total } of wholesOf(method, context, shown, year)) {
        met = true;
        const shaped = splitLike(total, shapeOf(method, context, span));
        // Nothing to be in proportion to: an even split, and the line says so.
        if (!shaped) issue = 'nothingToFollow';
        (shaped ?? splitEven(total, spanSize(span))).forEach((v, k) => (months[span.from + k] = v));
      }
    });
    if (!met) return stuck(facts, 'noLastYear');
    return { amounts, issue };
  },
  explain(method, context, i, made, own) {
    const whole = wholeAt(
      wholesOf(method, context, (k) => own[k] ?? null),
      i,
    );
    if (!whole) return [];
    const steps: Reason[] = wholeSteps(whole, method.uplift);
    const { span, total } = whole;
    const shape = shapeOf(method, context, span);
    const shaped = splitLike(total, shape);
    const exact = (shaped ?? splitEven(total, spanSize(span)))[i - span.from]!;
    steps.push(
      shaped
        ? { step: 'patternPart', part: shape[i - span.from]!, of: sum(shape), value: exact }
        : { step: 'phasedPart', by: 'even', part: 1, of: spanSize(span), value: exact },
    );
    return [...steps, ...roundingStep(made, exact)];
  },
};
