export { createFiller } from './filler';
export {
  balanceSheetRows,
  budgetRows,
  fillStatement,
  isBalanceRow,
  placesOfRows,
  rowEffect,
  rowTotal,
  statementRows,
  type ResultKind,
  type SectionKind,
  type StatementRow,
  type Term,
} from './statement';
export {
  ROW_NAMES,
  cellOf,
  rowName,
  type ColumnFormula,
  type ReportCell,
  type ReportColumn,
  type ReportRow,
  type ReportTable,
} from './table';
export {
  budgetReport,
  groupPeriods,
  type BudgetReportInput,
  type Grain,
  type PeriodGroup,
} from './budgetReport';
export {
  EVERY_LINE,
  usedPerMille,
  varianceReport,
  type LineFilter,
  type VarianceBlock,
  type VarianceReportInput,
} from './varianceReport';
export { varianceOf, varianceSpan, type VarianceWords } from './varianceOf';
export { ledgerReport, trialReport, type LedgerReportInput } from './ledgerReport';
export { figureRows, resultOf } from './result';
export { cashReport, SECTION_OF, SOURCE_NAMES, type CashReportInput } from './cashReport';
