import { divideRounded, minor, splitEven, sum, uplift, ZERO, type Minor } from '@/core/money';
import { indexOfId } from '@/core/calendar';
import type { MethodOf } from '@/core/model';
import { spanSize, type Span } from '../spans';
import {
  rounded,
  roundingStep,
  stuck,
  unitOfRound,
  upliftStep,
  type Context,
  type Reason,
  type Rule,
} from '../rule';

type RunRate = MethodOf<'runRate'>;

/** The months whose average is carried on; an account that is silent in one of them did nothing in it. */
function monthsOf({ over }: RunRate, { line, facts }: Context): Minor[] {
  const at = (index: number) => facts.actual(line.account, line.segment, index) ?? ZERO;
  if (over.of === 'range') {
    const first = indexOfId(facts.calendar, over.first);
    const last = indexOfId(facts.calendar, over.last);
    if (first === null || last === null) return [];
    const months: Minor[] = [];
    for (let i = first; i <= last; i++) if (facts.has(i)) months.push(at(i));
    return months;
  }
  if (over.of === 'all') return [...facts.past(line.account, line.segment).known];
  const end = facts.window.at(-1)?.index;
  const months: Minor[] = [];
  for (let i = end ?? 0; end !== undefined && facts.has(i) && months.length < over.months; i--)
    months.unshift(at(i));
  return months;
}

/** The span's amount before its uplift: the average month, with what is added to it, times its months; rounded once. */
const spanBase = (method: RunRate, months: readonly Minor[], span: Span): Minor =>
  minor(
    divideRounded(sum(months), spanSize(span), months.length, 'halfAwayFromZero') +
      method.add * spanSize(span),
  );

function spanTotal(method: RunRate, months: readonly Minor[], span: Span): Minor {
  return uplift(spanBase(method, months, span), method.uplift);
}

/** The average of a run of months, carried on. */
export const runRate: Rule<'runRate'> = {
  by: 'line',
  balances: true,
  compute(method, context) {
    const { facts, line } = context;
    const months = monthsOf(method, context);
    if (months.length === 0) return stuck(facts, 'nothingToFollow');
    const balance = facts.isBalance(line.account);
    const amounts: Minor[] = balance
      ? facts.periods.map(() => balanceOf(method, months))
      : facts.years.flatMap((span) => splitEven(spanTotal(method, months, span), spanSize(span)));
    return { amounts: rounded(amounts, unitOfRound(method, facts), facts, balance), issue: null };
  },
  explain(method, context, i, made) {
    const months = monthsOf(method, context);
    if (months.length === 0) return [];
    const { facts } = context;
    const average = divideRounded(sum(months), 1, months.length, 'halfAwayFromZero');
    const steps: Reason[] = [{ step: 'average', months: months.length, value: average }];
    if (method.add !== 0) steps.push({ step: 'added', value: method.add });
    if (facts.isBalance(context.line.account)) {
      const exact = balanceOf(method, months);
      return [...steps, ...upliftStep(method.uplift, exact), ...roundingStep(made, exact)];
    }
    const span = facts.years.find((s) => i >= s.from && i < s.to)!;
    const total = spanTotal(method, months, span);
    const exact = splitEven(total, spanSize(span))[i - span.from]!;
    steps.push({ step: 'whole', of: 'average', span, value: spanBase(method, months, span) });
    steps.push(...upliftStep(method.uplift, total));
    steps.push({ step: 'phasedPart', by: 'even', part: 1, of: spanSize(span), value: exact });
    return [...steps, ...roundingStep(made, exact)];
  },
};

const balanceOf = (method: RunRate, months: readonly Minor[]): Minor =>
  uplift(minor(divideRounded(sum(months), 1, months.length, 'halfAwayFromZero') + method.add), method.uplift);
