import { reckoned, type Ground } from '@/core/ground';
import { segmentName, type Budget, type Line, type SegmentId } from '@/core/model';
import type { Period } from '@/core/calendar';
import { budgetRows } from '@/core/report';
import { planWorkbook } from './planWorkbook';
import type { PlanSheet } from './planLayout';

/** The sheets of a budget as a workbook that reckons itself: one segment of it, or each of them. */
export function livePlan(
  ground: Ground,
  budget: Budget,
  segment: SegmentId | 'all',
  methodName: (line: Line, periods: readonly Period[]) => string,
): PlanSheet[] {
  const { book } = ground;
  const { facts, reckoning } = reckoned(ground, budget);
  const axis = book.axes.find((a) => a.id === budget.axis);
  return planWorkbook({
    book: book.name,
    title: budget.name,
    subtitle: '',
    currency: book.currency,
    rows: budgetRows(book.accounts, budget.covers),
    accounts: book.accounts,
    lines: reckoning.lines.lines,
    drivers: budget.drivers,
    facts,
    reckoning,
    approved: budget.approved,
    methodName: (line) => methodName(line, facts.periods),
    segments: (segment === 'all' ? budget.segments : [segment]).map((id) => ({
      id,
      name: budget.axis === null ? '' : segmentName(axis, id),
    })),
  });
}
