export { compare, effectOf, isFlagged, type Sense, type Variance } from './variance';
export { varianceAmounts, type TwoSides, type VarianceAmounts, type VarianceSpan } from './lines';
export { bridgeOf, type Bridge, type BridgePart } from './bridge';
