import { indexOfId, toDayNumber, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import { profitSign, type RowOf } from '@/core/model';
import { evenPart } from '@/core/money';
import { NEEDS_NOTHING, RowBook, type RowRuleOf } from './rule';

/** What was paid or received in advance comes to its months in equal parts, the larger ones first. */
export const release: RowRuleOf<'release'> = {
  needs: () => NEEDS_NOTHING,
  make(row, { calendar, range, accounts }) {
    const book = new RowBook();
    const first = indexOfId(calendar, row.from);
    const line = [row.account, row.segment] as const;
    const held = [row.against, null] as const;
    const kind = accounts.find((a) => a.id === row.account)?.kind ?? 'expense';
    const [to, from] = profitSign(kind) > 0 ? [held, line] : [line, held];
    if (first !== null)
      for (let k = 0; k < row.months; k++) {
        const period = first + k;
        if (period < range.first || period > range.last) continue;
        book.pair(
          toDayNumber(calendar.period(period).end),
          to,
          from,
          evenPart(row.amount, row.months, k),
          'release',
        );
      }
    return { postings: book.postings, issue: null };
  },
};

/** What is left in advance at the end of a period: all of it before its first. */
export function leftInAdvance(
  { amount, from, months }: Pick<RowOf<'release'>, 'amount' | 'from' | 'months'>,
  calendar: FiscalCalendar,
  period: PeriodIndex,
): number {
  const first = indexOfId(calendar, from);
  let left: number = amount;
  if (first !== null)
    for (let k = 0; k < months && first + k <= period; k++) left -= evenPart(amount, months, k);
  return left;
}
