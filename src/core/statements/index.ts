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
export { joinedSales, ledgerSales, NO_SALES, salesOf, type AssetSale, type Sales } from './sales';
export { wayToCash, type Way } from './way';
export { joinedBalances, type Ahead } from './joined';
export {
  cashAccounts,
  flowAmount,
  flowClassOf,
  flowLines,
  FLOW_SECTIONS,
  isPaid,
  OPERATING,
  PAID_SECTIONS,
  type Served,
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
