import { toDayNumber } from '@/core/calendar';
import { datesOf } from './dated';
import { NEEDS_NOTHING, RowBook, type RowRuleOf } from './rule';

/** What owners pay in, draw, or are paid of the profit. */
export const equity: RowRuleOf<'equity'> = {
  needs: () => NEEDS_NOTHING,
  make(row, { calendar, range, bank: usual }) {
    const book = new RowBook();
    const bank = [row.bank ?? usual, null] as const;
    const owners = [row.account, null] as const;
    const [to, from] = row.what === 'paidIn' ? [bank, owners] : [owners, bank];
    const before = toDayNumber(calendar.period(range.first).start) - 1;
    for (const day of datesOf(row, before, toDayNumber(calendar.period(range.last).end)))
      book.pair(day, to, from, row.amount, 'equity');
    return { postings: book.postings, issue: null };
  },
};
