export {
  budgetPeriods,
  coversPeriod,
  calendarOf,
  factsFor,
  isActual,
  type Facts,
  type FactsInput,
  type OtherPlan,
  type Past,
} from './facts';
export { outlookOf, type Planned } from './outlook';
export { type Span } from './spans';
export { type Amounts, type Context, type LineIssue, type Reason } from './rule';
export { componentsOf, type Component, type Edge } from './order';
export { driverRatio, type DriverResult } from './drivers';
export { createReckoner, type Reckoner } from './reckon';
export { type Plan } from './graph';
export { besideSchedule } from './methods/schedule';
export { lineOfMove, rowGround, rowRange, scheduledAmounts, touchedBy, type RowResult } from './rows';
export {
  sameAmounts,
  totalOf,
  wholeRow,
  type Figures,
  type LinePlaces,
  type LineResult,
  type Reckoning,
} from './results';
export {
  madeAt,
  madeOn,
  movedMade,
  NOTHING_AHEAD,
  NOTHING_MADE,
  sameAhead,
  sameMadeLine,
  sameMadeLines,
  type FromAhead,
  type Made,
  type MadeLine,
} from './made';
export {
  leftOutOf,
  NO_CHANGES,
  planChanges,
  type LeftOut,
  type PlanChanges,
  type Unreached,
} from './changes';
export { phasingWeights } from './phasing';
export { stepped, stepsTaken, type StepChange } from './steps';
export { methodKinds } from './methods/table';
export { formulaOf } from './methods/formula';
export { historyShare, shareHistory } from './methods/share';
export { evenTotal, spreadTotal, totalCommand, typedBeyond } from './spread';
export { beforeOf, monthsMissing, type Before } from './before';
export {
  thisYearSoFar,
  asLastYear,
  draftBudget,
  startLines,
  type StartChoice,
  type StartFrom,
} from './start';
export { carriedDrivers, type CarriedDrivers } from './startDrivers';
export { carriedSchedules, type CarriedSchedules, type RowLeft } from './startSchedules';
export { explainMonth } from './explain';
export { figuresOf, fingerprintText, frozenFigures, frozenLines } from './frozen';
export {
  FORGOTTEN,
  leavesOut,
  pricesUntouched,
  remindersFor,
  threePaydays,
  withoutLump,
  type Forgotten,
  type Lump,
  type Reminder,
} from './forgotten';
