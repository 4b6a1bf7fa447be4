export { occurrencesIn, occurrenceNumbers, workingDays } from './occurrences';
export { daysOf, dueDay, monthDay, yearAfter, type Days } from './days';
export { datesOf } from './dated';
export { dividerOf, leaveSome, splitByPercents, weightOf } from './parts';
export {
  accountFor,
  isStandIn,
  lineAccount,
  lineInterest,
  lostOf,
  lostOn,
  payingBank,
  STAND_INS,
} from './standIns';
export { ofPart, partIn, WHAT, whatIn, type What } from './what';
export type { RowGround, RowIssue, RowMade, RowNeeds, RowPosting } from './rule';
export { makeRow, rowNeeds, SCHEDULE_KINDS } from './table';
export { rateOn, staffCosts, type StaffCost } from './staff';
export {
  dueWithinYear,
  levelPayment,
  loanCost,
  loanTable,
  principalAt,
  type LoanPayment,
  type LoanTable,
} from './loanTable';
export { accumulatedAt, assetAt, saleOf, type SaleOfAsset } from './asset';
export { leftInAdvance } from './release';
export { taxDays, taxedPeriods, taxPayments, type TaxedPeriod } from './incomeTax';
export { accountsFor, NEW_ACCOUNT, usualAccount, type Purpose } from './usual';
export { readScheduleRows, type FileKind, type RowFileIssue, type RowFileRead } from './rowFile';
export { COST_LINE, monthsBySegment, monthsOfRow, type RowLine, type RowLineKey } from './months';
