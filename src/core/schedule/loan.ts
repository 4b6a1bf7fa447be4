import { toDayNumber, type DayNumber } from '@/core/calendar';
import { loanTable } from './loanTable';
import { NEEDS_NOTHING, RowBook, type RowRuleOf } from './rule';

/** A loan: its drawing, its interest month by month, its payments. */
export const loan: RowRuleOf<'loan'> = {
  needs: () => NEEDS_NOTHING,
  make(row, ground) {
    const { calendar, range } = ground;
    const { payments, issue } = loanTable(row, calendar);
    const book = new RowBook();
    const bank = [row.bank ?? ground.bank, null] as const;
    const debt = [row.account, null] as const;
    const cost = [row.interest, row.segment] as const;
    const owed = row.accrued === null ? null : ([row.accrued, null] as const);
    const first = toDayNumber(calendar.period(range.first).start);
    const last = toDayNumber(calendar.period(range.last).end);
    const inside = (day: DayNumber) => day >= first && day <= last;
    const begins = toDayNumber(row.begins.day);
    if (row.begins.of === 'drawn' && inside(begins))
      book.pair(begins, bank, debt, row.begins.amount, 'drawing');
    for (const { day, interest, principal, accrued } of payments) {
      if (owed)
        for (const a of accrued) if (inside(a.day)) book.pair(a.day, cost, owed, a.amount, 'interest');
      if (!inside(day)) continue;
      book.pair(day, owed ?? cost, bank, interest, 'interest');
      book.pair(day, debt, bank, principal, 'repayment');
    }
    return { postings: book.postings, issue };
  },
};
