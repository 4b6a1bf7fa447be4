export { compare, effectOf, isFlagged, type Sense, type Variance } from './variance';
export { varianceAmounts, type Pair, type Sides, type VarianceAmounts, type VarianceSpan } from './lines';
export { bridgeOf, type Bridge, type BridgePart } from './bridge';
export { explain, type Explained } from './explained';
