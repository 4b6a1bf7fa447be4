import type { Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { AccountId, LayoutColumn, Line, VarianceNote } from '@/core/model';
import type { Scope } from './sides';
import type { ShownSpan } from './spans';

/** The words of a report, from whoever shows it. */
export type LayoutWords = {
  readonly title: string;
  readonly subtitle: string;
  /** What stands above the columns of a span, of one value of the axis where they are told apart. */
  readonly span: (span: ShownSpan) => string;
  readonly scope: (scope: Scope) => string;
  readonly column: (column: LayoutColumn, span: ShownSpan | null) => string;
  readonly hint: (column: LayoutColumn, span: ShownSpan | null) => string;
  readonly used: (amount: Minor | null, of: Minor) => string;
  readonly apart: string;
  /** A label of what is told of some of its periods alone. */
  readonly only: (label: string, periods: readonly PeriodIndex[]) => string;
  /** Why: the periods of its span of which nothing is said. */
  readonly lacks: (column: LayoutColumn, periods: readonly PeriodIndex[]) => string;
  /** How a budget's line is made, and what is noted of its plan. */
  /** What stands in a row though the ledger has it in other accounts; empty for nothing. */
  readonly came: (from: readonly { readonly from: AccountId; readonly amount: Minor }[]) => string;
  /** Why a column of one value of the axis is blank: what it is compared with does not tell it apart. */
  readonly untold: (column: LayoutColumn) => string;
  /** What F and U mean. */
  readonly notation: string;
  readonly method: (line: Line) => string;
  readonly planNote: (line: Line) => string;
  readonly note: (note: VarianceNote) => string;
};
