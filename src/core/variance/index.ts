export { compare, effectOf, isFlagged, type Sense, type Variance } from './variance';
export { bridgeOf, type Bridge, type BridgePart } from './bridge';
export { explain, type Explained } from './explained';
