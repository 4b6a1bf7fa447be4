export {
  assumedIn,
  countedIn,
  isOn,
  steadyPart,
  type Assumed,
  type Assumption,
  type AssumptionOf,
} from './assumed';
export {
  boundedSize,
  percentOfSize,
  SIZE_BOUNDS,
  ratioOfSize,
  SIZE_STEP,
  sizeOfPercent,
  unitOfSize,
  type SizeUnit,
} from './sizes';
export { periodsOfWhen, timesIn } from './when';
export {
  baseFormula,
  changedBy,
  leftOutBy,
  namesOfWay,
  type AmountChange,
  type ChangeGround,
} from './amounts';
export { addedId, fieldOf, firstDay, isOver, movedRow, rowsIn, type CaseGround } from './rows';
export { cashIn, isItemsChange, isOfCompany, itemsIn, itemsTakenIn, reachesItem } from './cash';
export { changesTerms, isOfOneLine, reaches, termsIn, type TermsIn } from './terms';
export { touching, touchingRows, triedOver } from './touching';
