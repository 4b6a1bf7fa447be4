import { WHAT } from '@/core/schedule';
import { divideRounded, evenPart } from '@/core/money';

import { swapTaxed, type TermsRuleOf } from '../rule';

/**
 * What is outstanding at a month's end is so many days of its amount: amount × 12 × days ÷ 365, or of the last three
 * months × 4. The money is what is left, spread over the month's working days; it never turns round: the balance then
 * stays below what it should be. (Days sales outstanding and days payable outstanding, as textbooks have them.)
 */
export const daysOutstanding: TermsRuleOf<'daysOutstanding'> = {
  post(rule, c) {
    let stood = 0;
    let taxStood = 0;
    c.money.forEach((money, m) => {
      const tax = c.tax[m]!;
      const [paid, left] = settled(stood, money, targetOf(c.money, m, rule.days, rule.over));
      const [taxPaid, taxLeft] = settled(taxStood, tax, targetOf(c.tax, m, rule.days, rule.over));
      [stood, taxStood] = [left, taxLeft];
      if (money === 0 && tax === 0 && paid === 0 && taxPaid === 0) return;
      const days = c.days.on(SPREAD, c.periods[m]!, null);
      // The balance is told at the month's end, so the month's amount may as well stand in it from the first day.
      const first = c.starts[m]!;
      swapTaxed(c, first, c.roles.open, c.roles.line, money, tax, m, WHAT.invoice);
      if (!c.taxOnPayment) c.owe(first, tax);
      c.out.spread(days, c.roles.bank, c.roles.open, paid, taxPaid, m, WHAT.payment);
      if (c.taxOnPayment) days.forEach((day, i) => c.owe(day, evenPart(taxPaid, days.length, i)));
    });
  },
};

const SPREAD = { of: 'spread' } as const;

/** What should be outstanding at the end of a month. */
function targetOf(amounts: readonly number[], m: number, days: number, over: 1 | 3): number {
  if (over === 1) return divideRounded(amounts[m]!, 12 * days, 365, 'halfAwayFromZero');
  const months = amounts.slice(Math.max(0, m - 2), m + 1);
  const sum = months.reduce((a, b) => a + b, 0);
  // Of a plan that begins here, the months there are stand for three.
  return divideRounded(sum, 12 * days, 365 * months.length, 'halfAwayFromZero');
}

/** What is settled of a balance in a month, and what stays: never less than nothing. */
function settled(stood: number, amount: number, target: number): readonly [paid: number, left: number] {
  const all = stood + amount;
  const paid = all - target;
  const against = (all < 0 ? -1 : 1) * paid < 0;
  return against ? [0, all] : [paid, target];
}
