import { divideRounded } from '@/core/money';
import type { TermsOf } from '@/core/model';
import { weightOf, ofPart, WHAT } from '@/core/schedule';

import type { TermsRuleOf } from '../rule';
import { invoicesOf } from './onAccount';

/**
 * Cost is taken out of stock over the month; purchases bring the stock at its end to so many days of next month's cost, or
 * to a share of it, and are paid on terms of their own. A stock that is too large is not sold off: nothing is bought. The
 * stock is an account's, so what is bought is reckoned there (`shared`).
 */
export const fromStock: TermsRuleOf<'fromStock'> = {
  post(rule, c) {
    const invoices = invoicesOf(c, rule, c.roles.inventory);
    for (let m = c.from; m < c.until; m++) {
      if (m >= c.first) {
        const days = c.days.on(SPREAD, c.periods[m]!, null);
        c.out.spread(
          days,
          c.roles.line,
          c.roles.inventory,
          -c.money[m]!,
          0,
          m - c.first,
          ofPart(WHAT.stock, c.part),
        );
      }
      const bought = c.shared?.amount[m] ?? 0;
      if (bought !== 0)
        invoices(c.days.on(rule.bought, c.periods[m]!, c.own(m)), -bought, c.shared!.tax[m]!, m);
    }
  },
};

const SPREAD = { of: 'spread' } as const;

/** The stock that should stand before a period of this cost. */
export function stockFor(
  { target }: Pick<TermsOf<'fromStock'>, 'target'>,
  cost: number,
  inYear: number,
): number {
  const used = Math.max(0, cost);
  return target.of === 'days'
    ? divideRounded(used, inYear * target.days, 365, 'halfAwayFromZero')
    : divideRounded(used, weightOf(target.percent), 100_000_000, 'halfAwayFromZero');
}
