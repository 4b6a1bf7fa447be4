import { minor, splitEven } from '@/core/money';
import { swap, type TermsRuleOf } from '../rule';

/** Paid on the day it falls on: line against bank, and its tax with it. */
export const atOnce: TermsRuleOf<'atOnce'> = {
  post(rule, c) {
    c.money.forEach((money, m) => {
      const tax = c.tax[m]!;
      if (money === 0 && tax === 0) return;
      const days = c.days.on(rule.on, c.periods[m]!, c.own(m));
      const parts = splitEven(minor(money), days.length);
      const taxes = splitEven(minor(tax), days.length);
      days.forEach((day, i) => {
        // What is planned for a month stays in it; the money may move over its edge.
        const paid = c.days.moved(day, rule.moved);
        settleAt(c, day, paid, parts[i]!, taxes[i]!, m);
      });
    });
  },
};

/** A planned amount of a day, with its tax, paid on that day or one near it. */
function settleAt(
  c: Parameters<typeof swap>[0],
  day: number,
  paid: number,
  money: number,
  tax: number,
  m: number,
): void {
  if (paid === day) {
    swap(c, day, c.roles.bank, c.roles.line, money, m, 'payment');
    swap(c, day, c.roles.bank, c.roles.tax, tax, m, 'tax');
  } else {
    swap(c, day, c.roles.open, c.roles.line, money, m, 'accrual');
    swap(c, day, c.roles.open, c.roles.tax, tax, m, 'tax');
    swap(c, paid, c.roles.bank, c.roles.open, money, m, 'payment', day);
    swap(c, paid, c.roles.bank, c.roles.open, tax, m, 'tax', day);
  }
  c.owe(c.taxOnPayment ? paid : day, tax);
}
