import { WHAT } from '@/core/schedule';
import { evenPart } from '@/core/money';

import { swap, swapTaxed, type PartContext, type TermsRuleOf } from '../rule';

/** Paid on the day it falls on: line against bank, and its tax with it. */
export const atOnce: TermsRuleOf<'atOnce'> = {
  post(rule, c) {
    for (let m = c.from; m < c.until; m++) {
      const [money, tax] = [c.money[m]!, c.tax[m]!];
      if (money === 0 && tax === 0) continue;
      const days = c.days.on(rule.on, c.periods[m]!, c.own(m));
      const n = days.length;
      days.forEach((day, i) => {
        // What is planned for a month stays in it; the money may move over its edge.
        const paid = c.days.moved(day, rule.moved);
        settleAt(c, day, paid, evenPart(money, n, i), evenPart(tax, n, i), m);
      });
    }
  },
};

/** A planned amount of a day, with its tax, paid on that day or one near it. */
function settleAt(c: PartContext, day: number, paid: number, money: number, tax: number, m: number): void {
  const { bank, open, line } = c.roles;
  if (paid === day) swapTaxed(c, day, bank, line, money, tax, m, WHAT.payment);
  else {
    swapTaxed(c, day, open, line, money, tax, m, WHAT.accrual);
    swap(c, paid, bank, open, money + tax, m, WHAT.payment, day);
  }
  if (tax !== 0) c.owe(c.taxOnPayment ? paid : day, tax, m);
}
