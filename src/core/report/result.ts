import type { Minor } from '@/core/money';
import { wholeRow, type Facts, type Figures } from '@/core/plan';
import type { AccountId } from '@/core/model';
import { fillStatement, rowTotal, type ResultKind, type StatementRow } from './statement';

/** What a statement's result comes to over a budget: its periods with what is said of whole years, or its last balance. */
export function resultOf(
  rows: readonly StatementRow[],
  result: ResultKind,
  { periods, years }: Pick<Facts, 'periods' | 'years'>,
  figuresOf: (account: AccountId) => Figures | null,
): Minor | null {
  const at = rows.findIndex((r) => r.kind === 'result' && r.result === result);
  if (at < 0) return null;
  const width = periods.length;
  const filled = fillStatement(rows, width + years.length, (id) => wholeRow(figuresOf(id), years.length));
  return rowTotal(rows[at]!, filled[at]!.slice(0, width), filled[at]!.slice(width));
}
