import { minor, splitEven } from '@/core/money';
import { splitByPercents } from '../parts';
import { swap, type TermsRuleOf } from '../rule';

/** Pay: the net part on the paydays, what is withheld when it is due. */
export const payroll: TermsRuleOf<'payroll'> = {
  post(rule, c) {
    const { roles } = c;
    c.money.forEach((money, m) => {
      if (money === 0) return;
      const days = c.days.on(rule.on, c.periods[m]!, c.own(m));
      const parts = splitEven(minor(money), days.length);
      days.forEach((day, i) => {
        const { parts: net, rest } = splitByPercents(parts[i]!, [rule.net]);
        const paid = c.days.moved(day, rule.moved);
        const due = Math.max(paid, c.days.due(day, rule.rest, rule.moved));
        swap(c, day, roles.withheld, roles.line, parts[i]!, m, 'accrual');
        swap(c, paid, roles.bank, roles.withheld, net[0]!, m, 'payment', day);
        swap(c, due, roles.bank, roles.withheld, rest, m, 'payment', day);
      });
    });
  },
};
