import { sumBlank, type Minor } from '@/core/money';
import { yearToDate, type PeriodIndex } from '@/core/calendar';
import { outlookAt, plannedAt, reckoned, type Comparison, type Ground, type Reckoned } from '@/core/ground';
import { isProfitAndLoss, type Account, type SegmentId } from '@/core/model';
import type { Sides, VarianceSpan } from '@/core/variance';
import { budgetRows } from './statement';
import type { ReportTable } from './table';
import { varianceReport, type LineFilter, type VarianceReportInput } from './varianceReport';

export type VarianceWords = Pick<VarianceReportInput, 'title' | 'subtitle' | 'words'>;

/** A part of a comparison with its reckoning. */
type Part = { readonly whole: Reckoned; readonly segments: readonly SegmentId[] };

/**
 * The periods of a comparison in a month: those of its fiscal year that every part plans, and of them those so far that have
 * actuals.
 */
export function varianceSpan(ground: Ground, { parts }: Comparison, month: PeriodIndex): VarianceSpan {
  const all = parts.map(({ budget }) => reckoned(ground, budget).facts);
  const { year } = ground.calendar.period(month);
  const planned = all[0]!.periods
    .filter((p) => p.year === year && all.every((f) => f.periods.some((q) => q.index === p.index)))
    .map((p) => p.index);
  const { isActual } = all[0]!;
  const soFar = yearToDate(ground.calendar, month);
  return {
    month,
    monthIsActual: isActual(month),
    toDate: planned.filter((p) => p >= soFar.first && p <= soFar.last && isActual(p)),
    year: planned,
    over: planned.every(isActual),
  };
}

/** What a comparison has of an account: actual, budget and outlook of the same segments, added up over its parts. */
function sidesOf(parts: readonly Part[], account: Account, year: number): Sides {
  const { id } = account;
  const over = (of: (part: Part, segment: SegmentId) => Minor | null): Minor | null =>
    sumBlank(parts.flatMap((part) => part.segments.map((s) => of(part, s))));
  return {
    balance: !isProfitAndLoss(account.kind),
    actual: (p) => over(({ whole }, s) => whole.facts.actual(id, s, p)),
    budget: (p) => over(({ whole }, s) => plannedAt(whole, id, s, p).amount),
    outlook: (p) => over(({ whole }, s) => outlookAt(whole, id, [s], p)),
    whole: over(({ whole }, s) => {
      const at = whole.facts.years.findIndex((span) => whole.facts.periods[span.from]!.year === year);
      return whole.figures(id, s)?.wholes[at] ?? null;
    }),
  };
}

/** The variance of a month: a comparison's budgets with the actuals of the same segments and kinds of account. */
export function varianceOf(
  ground: Ground,
  comparison: Comparison,
  month: PeriodIndex,
  filter: LineFilter,
  words: VarianceWords,
): ReportTable {
  const { book, calendar } = ground;
  const parts = comparison.parts.map(({ budget, segments }) => ({
    whole: reckoned(ground, budget),
    segments,
  }));
  const period = calendar.period(month);
  return varianceReport({
    ...words,
    book: book.name,
    currency: book.currency,
    rows: budgetRows(book.accounts, comparison.covers),
    sides: (account) => sidesOf(parts, account, period.year),
    span: varianceSpan(ground, comparison, month),
    filter,
    flag: { amount: book.settings.flagAmount, percent: book.settings.flagPercent },
    note: (account) => book.varianceNotes[period.id]?.[account] ?? null,
  });
}
