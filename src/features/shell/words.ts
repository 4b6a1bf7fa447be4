import type { SetAside } from '@/core/model';
import type { KeepIssue } from '@/store/bookStore';

/** Why a book, or a state of it, could not be opened. */
export function issueWords(issue: KeepIssue): string {
  switch (issue.code) {
    case 'missing':
      return 'nothing of it is kept';
    case 'unreadable':
      return 'what is kept of it cannot be read';
    case 'partMissing':
      return 'a part of it is no longer in the storage';
    case 'notABook':
      return 'what is kept there is no book';
    case 'newerVersion':
      return 'it was written by a newer version of Tellan';
    case 'brokenOlder':
      return 'it is of an older version, and not whole';
    case 'invalid':
      return `a value in it is not as it must be, at ${issue.path || 'its top'}: ${issue.message}`;
  }
}

const PARTS: Record<SetAside['part'], string> = {
  account: 'the account',
  merged: 'what was merged from',
  axis: 'the way to divide the business',
  segment: 'a segment of',
  source: 'the entries of',
  closedThrough: 'the closed month',
  budget: 'the budget',
  line: 'a line of',
  driver: 'the driver',
  revises: 'what is revised by',
  weights: 'the weights',
  varianceNote: 'the variance notes of',
  message: 'the message of a report',
  flag: 'the flag of',
  outlookWay: 'the outlook of',
  quantity: 'the counted quantities of',
  layout: 'of the layout',
  flowClass: 'the place on the cash-flow statement of',
  costBehavior: 'how much of its cost rises with sales, of',
  covenant: 'the covenant',
  adjustment: 'the adjustment',
  case: 'of the case',
  inForce: 'what is in force of',
  round: 'of what was handed out,',
  ratio: 'the ratio',
  terms: 'terms of',
  schedule: 'the schedule’s row',
  cash: 'of the cash settings,',
  locale: 'the way of writing numbers',
  amount: 'the amount at',
  journal: 'the older part of the journal',
};
const WHY: Record<SetAside['because'], string> = {
  twice: 'it is there twice',
  noSuchAccount: 'its account is not in the book',
  noSuchSegment: 'its segment is not in the book',
  noSuchPeriod: 'the calendar has no such period',
  noSuchBudget: 'its budget is not in the book',
  noSuchRatio: 'its ratio is not in the book',
  noSuchAdjustment: 'an adjustment that it has a size of is not in the book',
  noSuchAxis: 'the segments that it is made by are not in the book',
  figuresMissing: 'it has not as many approved figures as months',
  stateUnclear: 'its approval and its figures contradict each other',
  circle: 'it revises itself',
  unknownLocale: 'it is not known',
  daysTurned: 'its first day comes after its last',
  entriesMissing: 'they are no longer there, or not whole',
  tooLarge: 'it is larger than any may be',
};

/** What of a book was left out, and why. */
export const setAsideWords = ({ part, name, because }: SetAside): string =>
  `${PARTS[part]}${name ? ` “${name}”` : ''} (${WHY[because]})`;
