import { minor, sum, type Minor } from '@/core/money';
import type { Day } from '@/core/calendar';
import type { MethodOf } from '@/core/model';
import { occurrencesIn } from '../occurrences';
import { fine, stuck, type Context, type Rule } from '../rule';

/** An amount for each payday, week, weekday or working day that falls in the month. */
export const occurrence: Rule<'occurrence'> = {
  by: 'line',
  compute(method, context) {
    const { facts, line } = context;
    if (facts.isBalance(line.account)) return stuck(facts, 'notForBalances');
    return fine(facts.periods.map((_, i) => sum(runs(method, context, i).map((r) => r.value))));
  },
  explain(method, context, i) {
    return runs(method, context, i).map((run) => ({ step: 'occurrences', ...run }));
  },
};

type Run = { readonly days: readonly Day[]; readonly each: Minor; readonly value: Minor };

/** A month's days in runs of one amount: a single run, unless another amount begins within the month. */
function runs(method: MethodOf<'occurrence'>, { facts }: Context, i: number): Run[] {
  const changes = (method.later ?? []).toSorted((a, b) => (a.from < b.from ? -1 : 1));
  const byAmount = new Map<Minor, Day[]>();
  for (const day of occurrencesIn(facts.periods[i]!, method.on, facts.workWeek)) {
    const each = changes.findLast((c) => c.from <= day)?.amount ?? method.amount;
    byAmount.set(each, [...(byAmount.get(each) ?? []), day]);
  }
  if (byAmount.size === 0) byAmount.set(method.amount, []);
  return [...byAmount].map(([each, days]) => ({ days, each, value: minor(each * days.length) }));
}
