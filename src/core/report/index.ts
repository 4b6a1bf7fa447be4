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
  cellOf,
  varianceReport,
  VARIANCE_KEYS,
  type LineFilter,
  type VarianceKey,
  type VarianceReportInput,
} from './varianceReport';
export { ledgerReport, trialReport, type LedgerReportInput } from './ledgerReport';
export { figureRows, resultOf } from './result';
