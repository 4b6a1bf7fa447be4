import type { Minor } from '@/core/money';
import { wholeRow, type Facts, type Figures } from '@/core/plan';
import type { AccountId } from '@/core/model';
import { fillStatement, rowTotal, type ResultKind, type StatementRow } from './statement';

/** Every row of a statement over a budget: its months, and what they come to with what is said of whole years. */
export function figureRows(
  rows: readonly StatementRow[],
  { periods, years }: Pick<Facts, 'periods' | 'years'>,
  figuresOf: (account: AccountId) => Figures | null,
): { readonly months: readonly (Minor | null)[]; readonly total: Minor | null }[] {
  const width = periods.length;
  const wide = fillStatement(rows, width + years.length, (id) => wholeRow(figuresOf(id), years.length));
  return wide.map((values, r) => {
    const months = values.slice(0, width);
    return { months, total: rowTotal(rows[r]!, months, values.slice(width)) };
  });
}

/** What a statement's result comes to over a budget: its periods with what is said of whole years, or its last balance. */
export function resultOf(
  rows: readonly StatementRow[],
  result: ResultKind,
  span: Pick<Facts, 'periods' | 'years'>,
  figuresOf: (account: AccountId) => Figures | null,
): Minor | null {
  const at = rows.findIndex((r) => r.kind === 'result' && r.result === result);
  return at < 0 ? null : figureRows(rows, span, figuresOf)[at]!.total;
}
