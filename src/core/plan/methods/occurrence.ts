import { minor, sum, type Minor } from '@/core/money';
import { fromDayNumber, toDayNumber, type DayNumber } from '@/core/calendar';
import type { MethodOf } from '@/core/model';
import { occurrenceNumbers } from '@/core/schedule';
import { fine, type Context, type Rule } from '../rule';

/** An amount for each payday, week, weekday or working day that falls in the month. */
export const occurrence: Rule<'occurrence'> = {
  by: 'line',
  balances: false,
  compute(method, context) {
    const changes = changesOf(method);
    return fine(
      context.facts.periods.map((_, i) => sum(runs(method, context, i, changes).map((r) => r.value))),
    );
  },
  explain(method, context, i) {
    return runs(method, context, i, changesOf(method)).map(({ days, ...run }) => ({
      step: 'occurrences',
      days: days.map(fromDayNumber),
      ...run,
    }));
  },
};

type Run = { readonly days: readonly DayNumber[]; readonly each: Minor; readonly value: Minor };
type Changes = readonly { readonly from: DayNumber; readonly amount: Minor }[];

const changesOf = ({ later }: MethodOf<'occurrence'>): Changes =>
  (later ?? [])
    .map(({ from, amount }) => ({ from: toDayNumber(from), amount }))
    .sort((a, b) => a.from - b.from);

/** A month's days in runs of one amount: a single run, unless another amount begins within the month. */
function runs(
  { on, amount }: MethodOf<'occurrence'>,
  { facts }: Context,
  i: number,
  changes: Changes,
): Run[] {
  const days = occurrenceNumbers(facts.periods[i]!, on, facts.workWeek);
  const byAmount = new Map<Minor, DayNumber[]>();
  if (changes.length === 0) byAmount.set(amount, days);
  else
    for (const day of days) {
      const each = changes.findLast((c) => c.from <= day)?.amount ?? amount;
      const there = byAmount.get(each);
      if (there) there.push(day);
      else byAmount.set(each, [day]);
    }
  if (byAmount.size === 0) byAmount.set(amount, []);
  return [...byAmount].map(([each, run]) => ({ days: run, each, value: minor(each * run.length) }));
}
