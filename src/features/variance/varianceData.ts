import type { Minor } from '@/core/money';
import { yearToDate, type PeriodIndex } from '@/core/calendar';
import { actualOf } from '@/core/ledger';
import type { Budget } from '@/core/model';
import { coversPeriod } from '@/core/plan';
import { varianceReport, type LineFilter, type ReportTable } from '@/core/report';
import { reckoned, type Ground } from '@/core/ground';
import { dayText } from '@/store/format';

/** The budget a month is compared with: the one chosen if it covers the month, else the approved one, else the latest. */
export function comparedBudget(ground: Ground, month: PeriodIndex, chosen: string | null): Budget | null {
  const candidates = ground.book.budgets.filter((b) => coversPeriod(ground.calendar, b, month));
  return (
    candidates.find((b) => b.id === chosen) ??
    candidates.findLast((b) => b.state === 'approved') ??
    candidates.at(-1) ??
    null
  );
}

/** The report of a month under a filter, and the same with every line, for what must add all of them. */
export function varianceTable(
  ground: Ground,
  budget: Budget,
  month: PeriodIndex,
  filter: LineFilter,
): { table: ReportTable; everything: ReportTable; net: ReportTable['rows'][number] | null } {
  const { book, calendar, closedThrough } = ground;
  const { facts, amounts, figures } = reckoned(ground, budget);
  const year = facts.years.findIndex(
    ({ from, to }) => month - facts.periods[0]!.index >= from && month - facts.periods[0]!.index < to,
  );
  const first = facts.periods[0]!.index;
  const period = calendar.period(month);
  const make = (f: LineFilter) =>
    varianceReport({
      book: book.name,
      currency: book.currency,
      title: `Variance ${period.label}`,
      subtitle: `Actual against ${budget.name}${budget.approved ? `, approved ${dayText(budget.approved.at)}` : ' (draft)'}`,
      month: period.label,
      accounts: book.accounts,
      sides: (account) => ({
        actual: (p) => actualOf(ground.balances, account, p),
        budget: (p): Minor | null => amounts(account.id)?.[p - first] ?? null,
        whole: figures(account.id)?.wholes[year] ?? null,
      }),
      span: {
        month,
        yearStart: Math.max(yearToDate(calendar, month).first, first),
        first,
        last: first + budget.length - 1,
        actualThrough: Math.min(month, closedThrough ?? month),
      },
      filter: f,
      flag: { amount: book.settings.flagAmount, percent: book.settings.flagPercent },
      note: (account) => book.varianceNotes[period.id]?.[account] ?? null,
    });
  const everything = make('all');
  const net = everything.rows.find((r) => r.key === 'netProfit') ?? null;
  return { table: filter === 'all' ? everything : make(filter), everything, net };
}
