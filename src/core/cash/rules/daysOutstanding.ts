import { ofPart, WHAT } from '@/core/schedule';
import { divideRounded, evenPart } from '@/core/money';
import type { TermsOf } from '@/core/model';

import { swapTaxed, type TermsRuleOf } from '../rule';

/**
 * What is outstanding at a month's end is so many days of its amount: amount × periods of the year × days ÷ 365, or of the
 * last three × a third of that. (Days sales outstanding and days payable outstanding, as textbooks have them.) The balance
 * is an account's, so what settles it is reckoned there (`shared`), and spread here over the month's working days.
 */
export const daysOutstanding: TermsRuleOf<'daysOutstanding'> = {
  post(_rule, c) {
    for (let m = c.from; m < c.until; m++) {
      const [money, tax] = [c.money[m]!, c.tax[m]!];
      const paid = c.shared?.amount[m] ?? 0;
      const taxPaid = c.shared?.tax[m] ?? 0;
      if (money === 0 && tax === 0 && paid === 0 && taxPaid === 0) continue;
      const days = c.days.on(SPREAD, c.periods[m]!, null);
      if (c.taxOnPayment) days.forEach((day, i) => c.owe(day, evenPart(taxPaid, days.length, i), m));
      if (m < c.first) continue;
      // The balance is told at the month's end, so the month's amount may as well stand in it from the first day.
      const first = c.starts[m]!;
      swapTaxed(c, first, c.roles.open, c.roles.line, money, tax, m, WHAT.invoice);
      if (!c.taxOnPayment) c.owe(first, tax, m);
      c.out.spread(days, c.roles.bank, c.roles.open, paid, 0, m - c.first, ofPart(WHAT.payment, c.part));
    }
  },
};

const SPREAD = { of: 'spread' } as const;

/** What should be outstanding at the end of a period; nothing before the first that is known. */
export function outstanding(
  { days, over }: Pick<TermsOf<'daysOutstanding'>, 'days' | 'over'>,
  amounts: readonly number[],
  m: number,
  inYear: number,
): number {
  if (m < 0) return 0;
  if (over === 1) return divideRounded(amounts[m]!, inYear * days, 365, 'halfAwayFromZero');
  const months = amounts.slice(Math.max(0, m - 2), m + 1);
  const sum = months.reduce((a, b) => a + b, 0);
  // Of a plan that begins here, the months there are stand for three.
  return divideRounded(sum, inYear * days, 365 * months.length, 'halfAwayFromZero');
}
