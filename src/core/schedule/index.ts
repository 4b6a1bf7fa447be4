export { occurrencesIn, occurrenceNumbers, workingDays } from './occurrences';
export { daysOf, dueDay, monthDay, type Days } from './days';
export { datesOf } from './dated';
export { dividerOf, splitByPercents, weightOf } from './parts';
