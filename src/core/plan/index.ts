export { budgetPeriods, calendarOf, factsFor, type Facts, type Past } from './facts';
export { computeMethod, needsOf, type Amounts, type LineIssue } from './methods';
export { dependencyOrder, type Order } from './order';
export { createReckoner, type LineResult, type Reckoner, type Reckoning } from './reckon';
export { spreadTotal, totalCommand } from './spread';
export { draftBudget, startLines, type StartChoice, type StartFrom } from './start';
export { explainMonth, type Reason } from './explain';
export { amountsOf } from './frozen';
