import type { Minor } from '@/core/money';
import { indexOfId } from '@/core/calendar';
import type { MethodOf } from '@/core/model';
import { stepped, stepsTaken } from '../steps';
import { rounded, roundingStep, stuck, unitOfRound, type Context, type Reason, type Rule } from '../rule';

type Step = MethodOf<'step'>;

/** What it starts from: as said, or as the last closed month (or balance) before the budget. */
function startOf({ start }: Step, { line, facts }: Context): Minor | null {
  if (start !== null) return start;
  const end = facts.window.at(-1)?.index;
  return end === undefined ? null : facts.actual(line.account, line.segment, end);
}

const timesAt = (method: Step, { facts }: Context, i: number): number =>
  stepsTaken(facts.periods[i]!.index, indexOfId(facts.calendar, method.first) ?? Infinity, method.every);

/** A start amount that changes by an amount or a percentage, once and again. */
export const step: Rule<'step'> = {
  by: 'line',
  balances: true,
  compute(method, context) {
    const { facts, line } = context;
    const start = startOf(method, context);
    if (start === null) return stuck(facts, 'nothingToFollow');
    const amounts = facts.periods.map((_, i) => stepped(start, method.change, timesAt(method, context, i)));
    return {
      amounts: rounded(amounts, unitOfRound(method, facts), facts, facts.isBalance(line.account)),
      issue: null,
    };
  },
  explain(method, context, i, made) {
    const start = startOf(method, context);
    if (start === null) return [];
    const steps: Reason[] = [{ step: 'start', said: method.start !== null, value: start }];
    const times = timesAt(method, context, i);
    const exact = stepped(start, method.change, times);
    if (times > 0) steps.push({ step: 'steps', times, value: exact });
    return [...steps, ...roundingStep(made, exact)];
  },
};
