import { multiplyRatio, ratio, roundRatio, roundTo, type Minor, type Ratio } from '@/core/money';
import type { MethodOf } from '@/core/model';
import { roundingStep, unitOfRound, type Context, type LineIssue, type Reason, type Rule } from '../rule';

function product(method: MethodOf<'driver'>, context: Context, i: number): Minor | null | LineIssue {
  let value: Ratio = ratio(context.facts.unit);
  for (const id of method.factors) {
    const factor = context.driver(id, i);
    if (factor === undefined) return 'driverMissing';
    if (factor === null) return null;
    value = multiplyRatio(value, factor);
  }
  return roundRatio(value);
}

/** Drivers multiplied: units × price × any further factor, rounded once. */
export const driver: Rule<'driver'> = {
  by: 'month',
  balances: true,
  needs: ({ factors }) => factors.map((f) => ({ name: { of: 'driver', driver: f }, lag: 0 })),
  month(method, context, i) {
    const value = product(method, context, i);
    if (typeof value === 'string') return { amount: null, issue: value };
    return {
      amount: value === null ? null : roundTo(value, unitOfRound(method, context.facts)),
      issue: null,
    };
  },
  explain(method, context, i, made) {
    const value = product(method, context, i);
    const exact = typeof value === 'string' ? null : value;
    const steps: Reason[] = method.factors.map((f) => ({
      step: 'factor',
      driver: f,
      value: context.driver(f, i) ?? null,
    }));
    return [...steps, { step: 'computed', value: exact }, ...roundingStep(made, exact)];
  },
};
