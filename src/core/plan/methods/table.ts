import { isAmount, UnsafeMoneyError, type Minor } from '@/core/money';
import type { Line, Method, MethodKind, MethodOf } from '@/core/model';
import {
  stuck,
  type Amounts,
  type Computed,
  type Context,
  type MonthComputed,
  type Need,
  type Reason,
  type Rule,
} from '../rule';
import { byMonth } from './byMonth';
import { driver } from './driver';
import { formula } from './formula';
import { lastYear } from './lastYear';
import { occurrence } from './occurrence';
import { pattern } from './pattern';
import { phased } from './phased';
import { runRate } from './runRate';
import { schedule } from './schedule';
import { share } from './share';
import { step } from './step';
import { unphased } from './unphased';

const METHODS: { readonly [K in MethodKind]: Rule<K> } = {
  byMonth,
  lastYear,
  runRate,
  phased,
  pattern,
  step,
  share,
  occurrence,
  driver,
  formula,
  unphased,
  schedule,
};

const ruleOf = (method: Method): Rule<MethodKind> => METHODS[method.kind] as Rule<MethodKind>;
const NONE: readonly Need[] = [];

/** The kinds of method that can make a line, in the order in which they are offered. */
export const methodKinds = (balance: boolean): MethodKind[] =>
  (Object.keys(METHODS) as MethodKind[]).filter((k) => !balance || METHODS[k].balances);

/** Whether a method is reckoned month by month from others. */
export const isMonthly = (method: Method): boolean => ruleOf(method).by === 'month';

/** What must be reckoned before a method. */
export function needsOf(method: Method): readonly Need[] {
  const rule = ruleOf(method);
  return rule.by === 'month' ? rule.needs(method as MethodOf<MethodKind>) : NONE;
}

/**
 * The months that a line's method gives, before anything typed over them. Figures beyond what money can be (an uplift
 * of a billion percent, a pattern that all but cancels out) leave it blank with its issue; all other lines stand.
 */
export function computeLine(line: Line, context: Context): Computed {
  const rule = ruleOf(line.method);
  if (!rule.balances && context.facts.isBalance(line.account)) return stuck(context.facts, 'notForBalances');
  if (rule.by === 'line') {
    const made = guarded(() => rule.compute(line.method as never, context));
    return made && fits(made.amounts) && fits(made.wholes ?? []) ? made : stuck(context.facts, 'tooLarge');
  }
  const amounts: (Minor | null)[] = [];
  let issue: Computed['issue'] = null;
  for (let i = 0; i < context.facts.periods.length; i++) {
    const month = computeMonth(line, context, i);
    amounts.push(month.amount);
    issue ??= month.issue;
  }
  return { amounts, issue };
}

/** One month of a line that is reckoned month by month. */
export function computeMonth(line: Line, context: Context, i: number): MonthComputed {
  const rule = ruleOf(line.method);
  if (rule.by !== 'month') throw new Error(`Not reckoned by month: ${line.method.kind}`);
  const made = guarded(() => rule.month(line.method as never, context, i));
  return made && fits([made.amount]) ? made : { amount: null, issue: 'tooLarge' };
}

const fits = (amounts: Amounts): boolean => amounts.every((a) => a === null || isAmount(a));

/** What a rule gives; null where its way leads through figures that are beyond reckoning. */
function guarded<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof UnsafeMoneyError) return null;
    throw error;
  }
}

/** The steps that lead to what the method gives for the i-th month. */
export function explainMethod(
  line: Line,
  context: Context,
  i: number,
  made: Minor | null,
  own: Amounts,
): Reason[] {
  const rule = ruleOf(line.method);
  const reasons = guarded(() =>
    rule.by === 'line'
      ? rule.explain(line.method as never, context, i, made, own)
      : rule.explain(line.method as never, context, i, made),
  );
  return reasons ?? [{ step: 'computed', value: null }];
}
