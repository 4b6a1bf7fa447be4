export {
  BETTER,
  bankBeforeLine,
  bankCauses,
  OUTCOME_IDS,
  outcomeOf,
  outcomesOf,
  type Outcome,
  type OutcomeId,
  type Outcomes,
} from './outcomes';
export { seek, sought, type Answer, type Run, type Sought } from './seek';
export { stepsOf, type Ask, type Steps } from './steps';
export { draw, nearestRank, QUANTILES, sharesFrom, sizeDrawn, triangularInverse, type Draws } from './draws';
export { edgeOf, edgesOf, type Edge, type Edges } from './edge';
export { type Distance } from './nearest';
export {
  answered,
  answering,
  FLOOR,
  type HowFar,
  type Answers,
  type AskOf,
  type Asked,
  type Cell,
  type Nearest,
  type Question,
  type Ranged,
  type Swing,
} from './questions';
export { MOST_SIZES, sizesAcross, type Table } from './table';
export { missesOf, spreadFrom, type Miss } from './misses';
