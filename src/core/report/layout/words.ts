import type { Minor } from '@/core/money';
import type { LayoutColumn, VarianceNote } from '@/core/model';
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
  readonly note: (note: VarianceNote) => string;
};
