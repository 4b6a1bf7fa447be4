export {
  covenantState,
  headroomOf,
  isTested,
  keepsCovenant,
  measureOf,
  ownMeasure,
  type CovenantState,
  type Measure,
} from './covenants';
export {
  CAPITAL_PARTS,
  conversionDays,
  workingCapital,
  type CapitalFigure,
  type CapitalPart,
} from './workingCapital';
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
  variableShareOf,
} from './ratios';
export { ownRatioOf, type OwnRatioValue } from './ownRatio';
