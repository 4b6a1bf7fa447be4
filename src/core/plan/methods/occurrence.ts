import { minor } from '@/core/money';
import { occurrencesIn } from '../occurrences';
import { fine, stuck, type Rule } from '../rule';

/** An amount for each payday, week, weekday or working day that falls in the month. */
export const occurrence: Rule<'occurrence'> = {
  by: 'line',
  compute(method, { facts, line }) {
    if (facts.isBalance(line.account)) return stuck(facts, 'notForBalances');
    return fine(
      facts.periods.map((p) => minor(method.amount * occurrencesIn(p, method.on, facts.workWeek).length)),
    );
  },
  explain(method, { facts }, i) {
    const days = occurrencesIn(facts.periods[i]!, method.on, facts.workWeek);
    return [{ step: 'occurrences', days, each: method.amount, value: minor(method.amount * days.length) }];
  },
};
