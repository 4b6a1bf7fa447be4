export { covenantState, headroomOf, keepsCovenant, type CovenantState } from './covenants';
export { wayToCash, type Way } from './way';
export { joinedBalances, type Ahead } from './joined';
export {
  cashAccounts,
  flowClassOf,
  flowLines,
  FLOW_SECTIONS,
  type FlowLine,
  type FlowSection,
} from './cashFlow';
export {
  daysOfYear,
  ratioInputs,
  type RatioKnown,
  ratioOf,
  ratioUnit,
  type Ratio,
  type RatioInput,
  type RatioPart,
} from './ratios';
export { ownRatioOf, type OwnRatioValue } from './ownRatio';
