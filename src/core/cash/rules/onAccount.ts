import { minor, splitEven } from '@/core/money';
import type { DayNumber } from '@/core/calendar';
import type { TermsOf } from '@/core/model';
import { splitByPercents } from '../parts';
import { swap, type PartContext, type TermsRuleOf } from '../rule';

/** Invoiced, and paid in shares when they are due; what is never paid is written off with the last of them. */
export const onAccount: TermsRuleOf<'onAccount'> = {
  post(rule, c) {
    c.money.forEach((money, m) => {
      const tax = c.tax[m]!;
      if (money === 0 && tax === 0) return;
      const days = c.days.on(rule.invoiced, c.periods[m]!, c.own(m));
      const parts = splitEven(minor(money), days.length);
      const taxes = splitEven(minor(tax), days.length);
      days.forEach((day, i) => invoice(c, rule, c.roles.line, day, parts[i]!, taxes[i]!, m));
    });
  },
};

/** One invoice with its tax, and the payments that settle it. `to`: the account that it is of. */
export function invoice(
  c: PartContext,
  rule: Pick<TermsOf<'onAccount'>, 'shares' | 'moved'>,
  to: number,
  day: DayNumber,
  money: number,
  tax: number,
  m: number,
): void {
  const { roles } = c;
  swap(c, day, roles.open, to, money, m, 'invoice');
  swap(c, day, roles.open, roles.tax, tax, m, 'tax');
  if (!c.taxOnPayment) c.owe(day, tax);
  const percents = rule.shares.map((s) => s.percent);
  const own = splitByPercents(money, percents);
  const taxes = splitByPercents(tax, percents);
  let last = day;
  rule.shares.forEach((share, k) => {
    const paid = Math.max(day, c.days.due(day, share.due, rule.moved));
    last = Math.max(last, paid);
    swap(c, paid, roles.bank, roles.open, own.parts[k]!, m, 'payment', day);
    swap(c, paid, roles.bank, roles.open, taxes.parts[k]!, m, 'tax', day);
    if (c.taxOnPayment) c.owe(paid, taxes.parts[k]!);
  });
  swap(c, last, roles.badDebt, roles.open, own.rest, m, 'badDebt', day);
  // A tax that falls due with the payment never does, and is taken back; one that was owed with the invoice is lost.
  swap(c, last, c.taxOnPayment ? roles.tax : roles.badDebt, roles.open, taxes.rest, m, 'badDebt', day);
}
