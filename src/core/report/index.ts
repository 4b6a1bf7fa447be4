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
  beneathTitle,
  cellOf,
  fileTable,
  plainRow,
  type Linked,
  rowName,
  type ColumnFormula,
  type ReportCell,
  type ReportColumn,
  type ReportRow,
  type ReportTable,
} from './table';
export { groupPeriods, type Grain, type PeriodGroup } from './periodGroups';
export { usedPerMille } from './used';
export {
  accountsOfRow,
  asOwnRows,
  type Compared,
  comparedWith,
  comparesWith,
  flagOf,
  goesAhead,
  layoutAxis,
  tellsSegments,
  isWords,
  keptId,
  type LayoutInput,
  layoutReport,
  ledgerReport,
  type LayoutReport,
  layoutRows,
  layoutsOf,
  type LayoutWords,
  onlyBudget,
  type PlainRow,
  type Scope,
  scopesOf,
  SHIPPED,
  STATEMENT_LAYOUTS,
  shippedLayout,
  type ShownSpan,
  type UnitSeries,
  unitsOf,
} from './layout';
export { trialReport } from './trialReport';
export { scheduleReports, type ScheduleWords } from './scheduleReport';
export { figureRows, resultOf } from './result';
export { cashReport, SECTION_OF, SOURCE_NAMES, type CashReportInput } from './cashReport';
