export { id as idSchema } from './parts';
export { ACCOUNT_KINDS, natural, naturalSign, isProfitAndLoss, profitSign, type AccountKind } from './kinds';
export { hasNature, kindsOf, namesNature, NATURES, natureByName, type Nature } from './nature';
export {
  bookSchema,
  sourceSchema,
  type Account,
  type AccountId,
  type Axis,
  type Book,
  type Feed,
  type Schedule,
  type Settings,
  type Source,
} from './schema';
export { type Approved, type Budget, type Line, type Note, type SegmentId } from './budget';
export {
  methodSchema,
  refSchema,
  type Basis,
  type Driver,
  type Method,
  type MethodKind,
  type MethodOf,
  type Occurrence,
  type Phasing,
  type Ref,
  type Rest,
  type RoundUnit,
  type Series,
  type Weights,
  type Wholes,
  type WorkWeek,
} from './methods';
export {
  movementKey,
  NO_BANKS,
  type BankBalance,
  type BankMovement,
  type Banks,
  type BankStatement,
  type MovementSaid,
} from './bank';
export {
  CASH_SOURCES,
  NO_CASH,
  ORDER_SOURCES,
  type Cash,
  type CashSource,
  type GuessedTerms,
  type CreditLine,
  type DatedItem,
  type DayRule,
  type DueRule,
  type ApprovedCash,
  type Forecast,
  type ItemChange,
  type KeptForecast,
  type MovedTo,
  type OpenItem,
  type OpenList,
  type TaxScheme,
  type Terms,
  type TermsKind,
  type TermsOf,
  type TermsRule,
} from './cash';
export {
  accountsOfRow,
  linesOfRow,
  renamedContras,
  renamedRow,
  segmentsOfRow,
  type RowOf,
  type ScheduleKind,
  type ScheduleRow,
} from './scheduleRow';
export {
  FLOW_CLASSES,
  RATIO_IDS,
  type Covenant,
  type FlowClass,
  OWN_UNITS,
  type OwnRatio,
  type RatioId,
  TEST_DAYS,
} from './covenant';
export {
  SAID,
  type HandedLine,
  type Handout,
  type OwnLine,
  type Return,
  type ReturnedLine,
  type Round,
  type Said,
  type SaidCell,
  type Stray,
} from './handout';
export { quantityNamed } from './explanation';
export type {
  ExplanationPart,
  Flag,
  Message,
  OutlookWay,
  OverMonths,
  Quantity,
  VarianceNote,
} from './explanation';
export {
  COLUMN_SHOWS,
  SECTION_KINDS,
  layoutSchema,
  type ColumnShow,
  type Layout,
  type LayoutColumn,
  type LayoutRows,
  type LayoutSpan,
  type RowItem,
  type SectionKind,
} from './layout';
export { compareCodes, ownerOf } from './accounts';
export { accountsOfTerms, renamedTerms, termsKey } from './termsAccounts';
export { blankLine, lineKey, lineOf, LineTable, type LineRef } from './lines';
export { BOOK_VERSION, migrate, openBook, type Migrations, type OpenIssue, type Opened } from './migrate';
export {
  addSegment,
  assignAccount,
  budgetsBy,
  feedFromColumn,
  mergeSegments,
  nextValueNumber,
  renameSegment,
  segmentName,
  withTexts,
} from './segments';
export { newAccount, newBook, type NewBook } from './newBook';
export {
  applyCommand,
  type Applied,
  type Cell,
  listReplaced,
  taxIsUsed,
  type CellValue,
  type OwnTaken,
  type Command,
  type CommandType,
} from './commands';
export {
  across,
  bookBefore,
  openHistory,
  perform,
  redo,
  replay,
  undo,
  type Change,
  type Doer,
  type History,
  type Step,
} from './journal';
export {
  accountsOfAdjusts,
  adjustmentSchema,
  caseSchema,
  COST_KINDS,
  renamedAdjusts,
  ROW_FIELDS,
  RUNS,
  type Adjustment,
  type Adjusts,
  type AdjustsOf,
  type AdjustsOn,
  type AmountWay,
  type AppliedAdjustment,
  type Case,
  type CaseSize,
  type Reach,
  type ReachName,
  type RowField,
  type When,
} from './adjustment';
export { type About, type AboutPlace } from './about';
export { changeSchema, isJournal } from './journalSchema';
export { type Refusal } from './refusal';
export { sameScope, supersededBy } from './scope';
export {
  areRivals,
  hasRival,
  putInForceAt,
  rivalsOf,
  rules,
  rulesFrom,
  rulesOn,
  type InForce,
  type Ruled,
} from './inForce';
export { comesIntoForce } from './commands/budget';
export {
  budgetsIn,
  namesOfDriver,
  namesOfMethod,
  renamedMethod,
  renamedSeries,
  type Reference,
} from './references';
export { LIMITS, cutText, nameWith, wholeLetters } from './limits';
export { nameKey, sameName } from './names';
export { type SetAside } from './sound';
export { faultOfRow, ROW_FAULTS, type RowFault } from './rowFaults';
