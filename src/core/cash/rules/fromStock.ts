import { divideRounded } from '@/core/money';
import type { TermsOf } from '@/core/model';
import { weightOf, WHAT } from '@/core/schedule';

import type { TermsRuleOf } from '../rule';
import { invoicesOf } from './onAccount';

/**
 * Cost is taken out of stock over the month; purchases bring the stock at its end to so many days of next month's cost, or
 * to a share of it, and are paid on terms of their own. A stock that is too large is not sold off: nothing is bought.
 */
export const fromStock: TermsRuleOf<'fromStock'> = {
  post(rule, c) {
    const invoices = invoicesOf(c, rule, c.roles.inventory);
    let stock = c.stock;
    c.money.forEach((money, m) => {
      const cost = -money;
      const needed = cost + stockTarget(rule, c.money, m + 1) - stock;
      const bought = Math.max(0, needed);
      stock = stock + bought - cost;
      const days = c.days.on(SPREAD, c.periods[m]!, null);
      c.out.spread(days, c.roles.line, c.roles.inventory, cost, 0, m, WHAT.stock);
      if (bought === 0) return;
      // The tax of a month is that of its cost; what is bought carries as much of it as it is more or less than the cost.
      const tax = cost === 0 ? 0 : divideRounded(c.tax[m]!, bought, cost, 'halfAwayFromZero');
      const dates = c.days.on(rule.bought, c.periods[m]!, c.own(m));
      invoices(dates, -bought, tax, m);
    });
  },
};

const SPREAD = { of: 'spread' } as const;

/** The stock that should stand before a month: of its cost; after the plan's end the last month repeats. */
export function stockTarget(
  { target }: Pick<TermsOf<'fromStock'>, 'target'>,
  money: readonly number[],
  m: number,
): number {
  const cost = Math.max(0, -(money[Math.min(m, money.length - 1)] ?? 0));
  return target.of === 'days'
    ? divideRounded(cost, 12 * target.days, 365, 'halfAwayFromZero')
    : divideRounded(cost, weightOf(target.percent), 100_000_000, 'halfAwayFromZero');
}
