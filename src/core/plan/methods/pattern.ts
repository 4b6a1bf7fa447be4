import { minor, splitEven, splitLike, sum, ZERO, type Minor } from '@/core/money';
import { yearsBefore } from '@/core/calendar';
import type { MethodOf } from '@/core/model';
import { spanSize, type Span } from '../spans';
import {
  blanks,
  rounded,
  roundingStep,
  stuck,
  unitOfRound,
  type Context,
  type LineIssue,
  type Reason,
  type Rule,
} from '../rule';
import { wholeAt, wholeSteps } from './phased';
import { shownSoFar, wholesOf } from './wholes';

type Pattern = MethodOf<'pattern'>;

/**
 * The months that the amount is shaped like: actuals of the years chosen, added up (which is in proportion to their
 * average). Where a budget is longer than a year, its later years are shaped like the latest year of the ledger.
 */
function shapeOf(method: Pattern, { facts, line }: Context, span: Span): Minor[] {
  const accounts = method.like === null ? [line.account] : facts.members(method.like);
  const first = facts.periods[0]!.index;
  return facts.periods.slice(span.from, span.to).map((p) => {
    let total: number = ZERO;
    for (const years of method.years) {
      let back = yearsBefore(facts.calendar, p.index, years);
      for (let more = 1; back !== null && back >= first; more++)
        back = yearsBefore(facts.calendar, p.index, years + more);
      if (back === null) continue;
      for (const a of accounts) total += facts.actual(a, line.segment, back) ?? 0;
    }
    return minor(total);
  });
}

/** An annual amount (or the year before's) shaped like the actuals of an account, a group or all of a kind. */
export const pattern: Rule<'pattern'> = {
  by: 'line',
  compute(method, context) {
    const { facts, line } = context;
    if (facts.isBalance(line.account)) return stuck(facts, 'notForBalances');
    const amounts: (Minor | null)[] = [...blanks(facts)];
    let issue: LineIssue | null = null;
    let met = false;
    for (const { span, total } of wholesOf(method, context, shownSoFar(context, amounts))) {
      met = true;
      const shaped = splitLike(total, shapeOf(method, context, span));
      // Nothing to be in proportion to: an even split, and the line says so.
      if (!shaped) issue = 'nothingToFollow';
      (shaped ?? splitEven(total, spanSize(span))).forEach((v, k) => (amounts[span.from + k] = v));
    }
    if (!met) return stuck(facts, 'noLastYear');
    return { amounts: rounded(amounts, unitOfRound(method, facts), facts, false), issue };
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
