import { evenPart } from '@/core/money';
import type { DayNumber } from '@/core/calendar';
import type { TermsOf } from '@/core/model';
import { dividerOf, WHAT } from '@/core/schedule';

import { swap, swapTaxed, type PartContext, type TermsRuleOf } from '../rule';

/** Invoiced, and paid in shares when they are due; what is never paid is written off with the last of them. */
export const onAccount: TermsRuleOf<'onAccount'> = {
  post(rule, c) {
    const invoices = invoicesOf(c, rule, c.roles.line);
    for (let m = c.from; m < c.until; m++) {
      const [money, tax] = [c.money[m]!, c.tax[m]!];
      if (money !== 0 || tax !== 0)
        invoices(c.days.on(rule.invoiced, c.periods[m]!, c.own(m)), money, tax, m);
    }
  },
};

/** Writes a month's invoices in equal parts on days, with their tax, and what settles them. `to`: what they are of. */
export function invoicesOf(
  c: PartContext,
  { shares, moved }: Pick<TermsOf<'onAccount'>, 'shares' | 'moved'>,
  to: number,
): (days: readonly DayNumber[], money: number, tax: number, m: number) => void {
  const { roles, taxOnPayment } = c;
  const divided = dividerOf(shares.map((s) => s.percent));

  function invoice(day: DayNumber, money: number, tax: number, m: number): void {
    swapTaxed(c, day, roles.open, to, money, tax, m, WHAT.invoice);
    const own = divided(money);
    const owed = divided(tax);
    if (tax !== 0 && !taxOnPayment) c.owe(day, tax, m);
    let last = day;
    for (let k = 0; k < shares.length; k++) {
      const paid = Math.max(day, c.days.due(day, shares[k]!.due, moved));
      last = Math.max(last, paid);
      swap(c, paid, roles.bank, roles.open, own.parts[k]! + owed.parts[k]!, m, WHAT.payment, day);
      if (taxOnPayment) c.owe(paid, owed.parts[k]!, m);
    }
    swap(c, last, roles.badDebt, roles.open, own.rest, m, WHAT.badDebt, day);
    // A tax that falls due with the payment never does, and is taken back; one that was owed with the invoice is lost.
    swap(c, last, taxOnPayment ? roles.tax : roles.badDebt, roles.open, owed.rest, m, WHAT.badDebt, day);
  }

  return (days, money, tax, m) => {
    const n = days.length;
    for (let i = 0; i < n; i++) invoice(days[i]!, evenPart(money, n, i), evenPart(tax, n, i), m);
  };
}
