import { splitByWeights, type Minor } from '@/core/money';
import type { MethodOf } from '@/core/model';
import { phasingWeights } from '../phasing';
import {
  byYears,
  roundingStep,
  stuck,
  unitOfRound,
  upliftStep,
  type Context,
  type LineIssue,
  type Reason,
  type Rule,
} from '../rule';
import { wholesOf, type Whole } from './wholes';

type Phased = MethodOf<'phased'>;

/** The parts of one amount over its months; the months that no weight falls in are zero. */
function partsOf(method: Phased, { facts }: Context, { span, total }: Whole): Minor[] | LineIssue {
  const weights = phasingWeights(method.by, facts.periods.slice(span.from, span.to), facts);
  if (!weights) return 'weightsMissing';
  return weights.every((w) => w === 0) ? 'noMonths' : splitByWeights(total, weights);
}

/** Annual or quarterly amounts divided over their months by a rule that does not look at the account. */
export const phased: Rule<'phased'> = {
  by: 'line',
  balances: false,
  compute(method, context) {
    const { facts } = context;
    let issue: LineIssue | null = null;
    let met = false;
    const amounts = byYears(context, unitOfRound(method, facts), (year, months, shown) => {
      for (const whole of wholesOf(method, context, shown, year)) {
        met = true;
        const parts = partsOf(method, context, whole);
        if (typeof parts === 'string') issue = parts;
        else parts.forEach((v, k) => (months[whole.span.from + k] = v));
      }
    });
    if (!met) return stuck(facts, method.amounts ? 'nothingToFollow' : 'noLastYear');
    return { amounts, issue };
  },
  explain(method, context, i, made, own) {
    const whole = wholeAt(
      wholesOf(method, context, (k) => own[k] ?? null),
      i,
    );
    if (!whole) return [];
    const { facts } = context;
    const steps: Reason[] = wholeSteps(whole, method.uplift);
    const parts = partsOf(method, context, whole);
    const weights = phasingWeights(method.by, facts.periods.slice(whole.span.from, whole.span.to), facts);
    if (typeof parts === 'string' || !weights) return steps;
    const exact = parts[i - whole.span.from]!;
    steps.push({
      step: 'phasedPart',
      by: method.by.by,
      part: weights[i - whole.span.from]!,
      of: weights.reduce((a, b) => a + b, 0),
      value: exact,
    });
    return [...steps, ...roundingStep(made, exact)];
  },
};

/** The amount whose months the i-th is one of. */
export function wholeAt(wholes: Iterable<Whole>, i: number): Whole | null {
  for (const w of wholes) if (i >= w.span.from && i < w.span.to) return w;
  return null;
}

export const wholeSteps = (whole: Whole, percent: Phased['uplift']): Reason[] => [
  { step: 'whole', of: whole.said ? 'said' : 'lastYear', span: whole.span, value: whole.base },
  ...upliftStep(percent, whole.total),
];
