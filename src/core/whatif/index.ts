export {
  BETTER,
  bankBeforeLine,
  OUTCOME_IDS,
  outcomesOf,
  type Outcome,
  type OutcomeId,
  type Outcomes,
} from './outcomes';
