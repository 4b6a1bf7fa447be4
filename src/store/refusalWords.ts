import { mostAmountText } from '@/core/money';
import type { Book, Refusal, RowFault } from '@/core/model';

/** What the parts of a book are called, by the last name in a path that has a name for people. */
const PARTS: readonly (readonly [RegExp, string])[] = [
  [/\.formula$/, 'The formula, with what it stands for,'],
  [/accounts\.\d+\.code/, 'The code'],
  [/accounts\.\d+\.keeper/, 'The name of the person'],
  [/\.group$/, 'The name of the group'],
  [/note|cellNotes|\.text$/, 'The note'],
  [/reason/, 'The reason'],
  [/\.unit$/, 'The unit'],
  [/name$/i, 'The name'],
  [/accounts$/, 'The list of accounts'],
  [/axes$/, 'The list of ways to divide the business'],
  [/axes\.\d+\.columns/, 'The list of columns'],
  [/axes\.\d+\.values/, 'The list of segments'],
  [/budgets\.\d+\.segments$/, 'A budget by segments'],
  [/lines$/, 'The list of lines'],
  [/drivers$/, 'The list of drivers'],
  [/schedules$/, 'The list of rows of schedules'],
  [/budgets$/, 'The list of budgets'],
  [/sources$/, 'The list of sources'],
  [/holidays$/, 'The list of holidays'],
];
/** What is wrong with a row of a schedule. */
export const ROW_FAULT_WORDS: Readonly<Record<RowFault, string>> = {
  soldBeforeBought: 'it would be sold before it is bought',
  residualAboveCost: 'more would be left of it at the end than it cost',
  writtenOffAboveCost: 'more would be written off than it cost',
  absurdRate: 'a rate lies between 0 and 100 %',
  endsBeforeBegins: 'it would end before it begins',
  paidBeforeDrawn: 'it would be paid back before it is there',
  graceTooLong: 'every payment would be interest alone, and nothing would be paid back',
  standsBeforeBought: 'it would stand in the ledger before it is bought',
};
const partOf = (path: string): string => PARTS.find(([at]) => at.test(path))?.[1] ?? `A value (${path})`;

/** Why a command was not done on a book, in words. */
export function refusalWords({ code, fault }: Refusal, { currency, locale }: Book): string {
  const what = partOf(fault?.path ?? '');
  const most = fault?.most?.toLocaleString(locale) ?? '';
  switch (code) {
    case 'readOnly':
      return 'This book can only be read here.';
    case 'budgetIsFrozen':
      return 'This budget can only be read.';
    case 'nothingToRule':
      return 'All months of this budget are closed, and keep the budget that was in force when they were.';
    case 'emptyName':
      return 'A name is needed.';
    case 'noSuchBudget':
    case 'noSuchAccount':
    case 'noSuchSource':
    case 'noSuchRatio':
    case 'noSuchRound':
    case 'noSuchItem':
      return 'What this was meant for is no longer in the book. Nothing was changed.';
    case 'taxInUse':
      return 'Lines or assets carry this tax: give them another, or none, first.';
    case 'alreadyApplied':
      return 'It is in that budget already.';
    case 'writtenDown':
      return 'What it changed is written into the budget’s rows and quantities: change it there.';
    case 'alreadyTakenIn':
      return 'This very file is in the book already.';
    case 'sidesDiffer':
      return 'Accounts of debits and of credits cannot become one.';
    case 'brokenCalendar':
      return 'These periods leave a gap, overlap, or lie far from the years they are of.';
    case 'noSuchSegment':
      return 'This budget has no such segment. Nothing was changed.';
    case 'absurdRow':
      return `${fault!.path}: ${ROW_FAULT_WORDS[fault!.message as RowFault]}. Nothing was changed.`;
    case 'segmentInUse':
      return 'A budget is made by this way of dividing the business.';
    case 'doesNotFitCalendar':
      return `With this calendar, ${fault?.message || 'what the book holds'} would lie in a period that there is not. Nothing was changed.`;
    case 'tooLong':
      return `${what} can have ${most} letters at most. Nothing was changed.`;
    case 'tooMany':
      return `${what} can hold ${most} at most. Nothing was changed.`;
    case 'tooLarge':
      return `A figure would be larger than ${mostAmountText(currency, locale)}, the most that one can be. Nothing was changed.`;
    case 'notSound':
      return `${what} would not be as it must be (${fault?.message ?? ''}). Nothing was changed.`;
    case 'broken':
      return `Something went wrong in the program (${fault?.message ?? ''}). Nothing was changed.`;
  }
}
