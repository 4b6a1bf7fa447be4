import { evenPart } from '@/core/money';
import { dividerOf, WHAT } from '@/core/schedule';

import { swap, type TermsRuleOf } from '../rule';

/** Pay: the net part on the paydays, what is withheld when it is due. */
export const payroll: TermsRuleOf<'payroll'> = {
  post(rule, c) {
    const { roles } = c;
    const divided = dividerOf([rule.net]);
    for (let m = c.from; m < c.until; m++) {
      const money = c.money[m]!;
      if (money === 0) continue;
      const days = c.days.on(rule.on, c.periods[m]!, c.own(m));
      days.forEach((day, i) => {
        const pay = evenPart(money, days.length, i);
        const { parts: net, rest } = divided(pay);
        const paid = c.days.moved(day, rule.moved);
        const due = Math.max(paid, c.days.due(day, rule.rest, rule.moved));
        swap(c, day, roles.withheld, roles.line, pay, m, WHAT.accrual);
        swap(c, paid, roles.bank, roles.withheld, net[0]!, m, WHAT.payment, day);
        swap(c, due, roles.bank, roles.withheld, rest, m, WHAT.payment, day);
      });
    }
  },
};
