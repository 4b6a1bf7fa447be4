import { multiplyRatio, ratio, roundRatio, roundTo, type Minor, type Ratio } from '@/core/money';
import { evaluate, parseFormula, type Name, type Parsed } from '@/core/formula';
import type { MethodOf } from '@/core/model';
import { roundingStep, unitOfRound, type Context, type LineIssue, type Rule } from '../rule';

const LIMIT = 5000;
const read = new Map<string, Parsed>();

/** A kept formula, read once for as long as it is in use. */
export function formulaOf(kept: string): Parsed {
  let parsed = read.get(kept);
  if (!parsed) {
    if (read.size > LIMIT) read.clear();
    read.set(kept, (parsed = parseFormula(kept)));
  }
  return parsed;
}

/** Amounts of lines stand in the formula in units of the currency, drivers in their own units. */
function valueOf(context: Context, name: Name, i: number): Ratio | null {
  if (name.of === 'driver') return context.driver(name.driver, i) ?? null;
  const amount = context.amount(name, i);
  return amount === null ? null : ratio(amount, context.facts.unit);
}

function computed(method: MethodOf<'formula'>, context: Context, i: number): Minor | null | LineIssue {
  const parsed = formulaOf(method.formula);
  if (!parsed.ok) return 'badFormula';
  for (const { name } of parsed.names) {
    if (name.of === 'driver' && context.driver(name.driver, i) === undefined) return 'driverMissing';
    if (name.of !== 'driver' && !context.has(name)) return 'lineMissing';
  }
  const { value, error } = evaluate(parsed.expression, (name, prior) => valueOf(context, name, i - prior));
  if (error) return error;
  return value === null ? null : roundRatio(multiplyRatio(value, ratio(context.facts.unit)));
}

/** Arithmetic over lines, groups and drivers. */
export const formula: Rule<'formula'> = {
  by: 'month',
  balances: true,
  needs(method) {
    const parsed = formulaOf(method.formula);
    return parsed.ok ? parsed.names.map(({ name, prior }) => ({ name, lag: prior })) : [];
  },
  month(method, context, i) {
    const value = computed(method, context, i);
    if (typeof value === 'string') return { amount: null, issue: value };
    return {
      amount: value === null ? null : roundTo(value, unitOfRound(method, context.facts)),
      issue: null,
    };
  },
  explain(method, context, i, made) {
    const parsed = formulaOf(method.formula);
    if (!parsed.ok) return [];
    const value = computed(method, context, i);
    const exact = typeof value === 'string' ? null : value;
    return [
      ...parsed.names.map(({ name, prior }) => ({
        step: 'term' as const,
        name,
        period: context.facts.periods[i]!.index - prior,
        value: valueOf(context, name, i - prior),
      })),
      { step: 'computed', value: exact },
      ...roundingStep(made, exact),
    ];
  },
};
