import { minor, sumBlank, type Minor } from '@/core/money';
import type { MethodOf } from '@/core/model';
import { blanks, type Context, type Rule } from '../rule';
import type { Span } from '../spans';

/** What is said of a fiscal year; blank when nothing is. */
function saidOf({ amounts }: MethodOf<'unphased'>, { facts }: Context, year: number): Minor | null {
  if (amounts.per === 'year') return amounts.amounts[year] ?? null;
  const { from, to } = facts.years[year]!;
  return sumBlank(
    facts.quarters.flatMap((q, k) => (q.from >= from && q.to <= to ? [amounts.amounts[k] ?? null] : [])),
  );
}

const spanOf = ({ facts }: Context, i: number): Span => facts.years.find((s) => i >= s.from && i < s.to)!;

/**
 * An amount for the year as a whole, with nothing said of its months: common with grants and small boards. A month
 * that is typed is part of the year's amount, not on top of it.
 */
export const unphased: Rule<'unphased'> = {
  by: 'line',
  balances: false,
  compute(method, context) {
    const { facts, typed } = context;
    const wholes = facts.years.map((span, y) => {
      const said = saidOf(method, context, y);
      if (said === null) return null;
      let left: number = said;
      for (let i = span.from; i < span.to; i++) left -= typed(i) ?? 0;
      return minor(left);
    });
    return { amounts: blanks(facts), issue: null, wholes };
  },
  explain(method, context, i) {
    const span = spanOf(context, i);
    const value = saidOf(method, context, context.facts.years.indexOf(span));
    return [{ step: 'unphased', value, span }];
  },
};
