export type { BalanceTarget, ExpectedItem, PlannedLine, ProjectionInput, ScheduledRow } from './input';
export { defaultBank, type Part, type Projected } from './projected';
export { createProjector } from './projection';
export { ITEM_SOURCES } from './otherParts';
export {
  cashTable,
  causesIn,
  causesOn,
  forecastOf,
  heldAt,
  lowOf,
  moneyOf,
  type CashForecast,
  type CashTable,
  type Cause,
  type DayRange,
  type ForecastRules,
  type Low,
} from './forecast';
export { byDays, byPeriods, byWeeks, byWholeWeeks } from './ranges';
export { creditLineMoves, monthInterest, type LineMove } from './creditLine';
export { taxPeriods, taxReturns, type TaxPeriod, type TaxReturn } from './tax';
export { type Postings } from './postings';
export { guessTerms, type Guess, type GuessGround } from './guess';
export { habitsOf, type Habit } from './habits';
export {
  matchItems,
  medianDays,
  rowsInTime,
  sharesOf,
  type LedgerItem,
  type Matched,
  type MeasuredShares,
  type Settled,
} from './matching';
export { balancesAt, balancesByPeriod, otherSide, type BorneBy, type LineOn } from './balances';
export {
  FLOWS,
  FLOW_OF,
  happenedIn,
  largestIn,
  thenAndNow,
  type Flow,
  type Happened,
  type ThenAndNow,
} from './happened';
export { cureOf, holdsOf, type Cure, type Hold } from './holds';
export { listSince } from './listSince';
export { readOpenItems, type OpenFileIssue, type OpenFileRead, type ReadItem } from './openFile';
export { readBankTable, type BankTableRead } from './bank/table';
export { readCamtStatements, STOPS, type ReadStatement, type StatementIssue } from './bank/read';
export { bankStands, joins, type BankStand, type Joins, type Movement } from './bank/stands';
export { eventKey, type BankEntry, type Claim, type NamesOf } from './bank/match';
export { fromToday, type Lapsed, type Today, type TodayInput, type Waiting } from './bank/today';
export { type Event } from './bank/events';
