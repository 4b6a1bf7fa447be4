export { aside, makeGround, rulerRange, segmentLedgers, type Ground } from './ground';
export { asOf } from './asOf';
export { assumedOfItems, budgetOn, groundAssuming, lastKnown, type InCase } from './inCase';
export { planAccounts } from './accounts';
export { chosenBudget, lastTerms, termsFrom } from './chosen';
export { createMemory, type Memory } from './memory';
export { reckoned, reckonedAs, type Reckoned } from './reckoned';
export { outlookAt, outlookMonths, plannedAt } from './outlook';
export {
  actualsIn,
  comparisonFor,
  comparisonsAt,
  entriesView,
  comparisonOf,
  isApproved,
  plansIn,
  rulingIn,
  type Comparison,
  type ComparisonPart,
} from './comparison';
export { carriedBy, type Carried } from './carried';
export { actualsOf, type Actuals } from './actuals';
export { expectedIn } from './expected';
export { toldOf, type Told } from './told';
export { countedOf, flexibleOf, type Flexible } from './flexible';
export {
  cameInto,
  reclassifiedBy,
  reclassifiedOf,
  type Reclassified,
  type WrongEntry,
  type WrongShown,
} from './reclassified';
export { throughMerges } from './merged';
export { salesOfBudget } from './assetSales';
export { servedBy } from './served';
export { linesApart, scheduleTies, type ScheduleTie } from './scheduleTies';
export {
  coversYearBefore,
  lastYearOf,
  sameMonths,
  segmentsIn,
  yearBefore,
  yearsTo,
  type YearBefore,
} from './yearBefore';
export { cashStart, EXPLAINED, planNames } from './cashPlan';
export { lineMoney, type LineMoney } from './lineMoney';
export { ALL_SOURCES, cashOf, madeAhead, madeBy, type CashView } from './cash';
export { mayMake } from './bearers';
export { unborneOf } from './made';
export { applying, type Applying, type NotApplied } from './apply';
export { guessesOf, runOffsOf } from './closing';
export type { LineTerms } from './lineTerms';
export { triedOf, type Moves } from './tried';
export { debtsOf, dueInAll, dueOf, type Debts } from './loanDue';
export { flowsOfForecast, plannedBooks, type PlannedBooks } from './plannedBooks';
export {
  aheadOf,
  covenantsOf,
  figuresOfBooks,
  measuresOf,
  offBalance,
  ratiosOf,
  type Ahead,
  type MeasureAt,
} from './statements';
export {
  approvedCash,
  cashByFlow,
  closingsAt,
  keptFrom,
  largestMoves,
  lineMovesOn,
  thenAndNowOf,
} from './keptCash';
export { trialOfTerms } from './trial';
export type { ShownItem } from './cashItems';
export type { MissedEvent } from './missed';
export { promisesOf, settledNote, waitingPromises, type TimingPromise } from './promises';
export type { TodayView } from './bank';
export { bankFloors, type BankFloor, type Transfer } from './bankFloors';
