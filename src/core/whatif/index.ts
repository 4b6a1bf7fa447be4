export {
  BETTER,
  bankBeforeLine,
  OUTCOME_IDS,
  outcomesOf,
  type Outcome,
  type OutcomeId,
  type Outcomes,
} from './outcomes';
export { seek, sought, type Answer, type Run, type Sought } from './seek';
export { stepsOf, type Ask, type Steps } from './steps';
