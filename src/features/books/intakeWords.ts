import type { FileFormat } from '@/core/files';
import type {
  Doubt,
  EntryRole,
  Fault,
  FeedFault,
  IntakeIssue,
  KindReason,
  LeftOutReason,
  RowMeaning,
  Shape,
  SignRule,
} from '@/core/intake';
import type { PeriodFault } from '@/core/calendar';

export const LEFT_OUT: Record<LeftOutReason, string> = {
  title: 'title above the heads',
  header: 'column heads',
  blank: 'blank',
  heading: 'heading',
  footer: 'foot of the page',
  total: 'total, used to check ours',
  noAmount: 'no amount',
  noAccount: 'no account',
  balanceForward: 'balance brought forward',
  unreadableAmount: 'an amount that cannot be read',
  tooManyDecimals: 'more decimals than the currency has',
  unknownDate: 'a date that cannot be read',
  missingDate: 'an amount without a date',
  unknownMark: 'neither debit nor credit',
  tooLarge: 'an amount larger than any can be',
};

/** What a row of the file was read as, drawn beside it. */
export const ROW_MEANINGS: Record<RowMeaning, string> = {
  used: '✓',
  opening: 'opening',
  title: 'title',
  header: 'heads',
  blank: '',
  heading: 'heading',
  footer: 'foot',
  total: 'total',
  noAmount: 'no amount',
  noAccount: '✗ no account',
  balanceForward: 'carried',
  unreadableAmount: '✗ amount',
  tooManyDecimals: '✗ amount',
  unknownDate: '✗ date',
  missingDate: '✗ no date',
  unknownMark: '✗ mark',
  tooLarge: '✗ too large',
};

export const FAULTS: Record<Fault, string> = {
  nothing: 'there is nothing in it',
  unreadable: 'some of it cannot be read',
  unbalanced: 'debits and credits do not meet',
  openings: 'its opening balances are not what they must be',
  controls: 'its own totals differ from ours',
};

export const SHAPE_NAMES: Record<Shape, string> = {
  entries: 'a ledger entry',
  months: 'an account, months across',
  balances: 'an account of a trial balance',
};

export const SHAPE_WORDS: Record<Shape, string> = {
  entries: 'entries',
  months: 'months across',
  balances: 'trial balances',
};

export const FORMAT_NAMES: Record<FileFormat, string> = {
  delimited: 'text',
  workbook: 'workbook',
  auditFile: 'audit file',
  feed: 'ledger feed',
};

export const ISSUES: Record<IntakeIssue['code'], string> = {
  unreadableAmount: 'is not an amount',
  tooManyDecimals: 'has more decimals than the currency',
  unknownDate: 'is not a date',
  missingDate: 'should hold a date and is empty',
  noAccount: 'should name an account and is empty',
  unknownMark: 'is neither debit nor credit',
  tooLarge: 'is larger than any amount can be: is it a number of something else?',
  noDay: 'does not say which month it is of: choose it above',
};

export const KIND_REASONS: Record<KindReason, string> = {
  section: 'from its section',
  type: 'from its type column',
  name: 'from its name',
  code: 'from its code',
  balance: 'from the side of its balance',
  book: 'as in the book',
  twoNames: 'the file has several names under this code',
};

export const ROLE_NAMES: Record<EntryRole, string> = {
  date: 'Date',
  account: 'Account',
  code: 'Account code',
  name: 'Account name',
  type: 'Account type',
  debit: 'Debit',
  credit: 'Credit',
  amount: 'Amount',
  mark: 'Debit or credit mark',
  balance: 'Running balance',
  counterparty: 'Counterparty',
  reference: 'Reference',
  memo: 'Memo',
  segment: 'Segment',
  ignore: 'Leave out',
};

export const SIGN_NAMES: Record<SignRule, string> = {
  natural: 'Each account’s usual side positive',
  profitPositive: 'Income positive, costs negative',
  debitPositive: 'Debits positive',
  creditPositive: 'Credits positive',
};

export const DOUBTS: Record<Doubt, string> = {
  shape: 'whether each row is an account or an entry',
  numbers: 'which mark is the decimal one',
  dates: 'whether the day or the month comes first: every day is 12 or less',
  year: 'which year the months are in',
  columns: 'what some of the columns hold',
  sign: 'how the file signs its amounts',
  cumulative: 'whether the balances are of one month or since the year’s start',
  day: 'which month each balance is of',
  comparative: 'the columns of other years, which are left out',
};

export const PERIOD_FAULTS: Record<PeriodFault['code'], string> = {
  none: 'there is no period',
  noName: 'it has no name',
  endsBeforeStart: 'it ends before it begins',
  gap: 'days are missing before it',
  overlap: 'it overlaps the one before',
  yearOrder: 'its year does not follow',
  tooMany: 'a year has at most 99 periods',
};

export const FEED_FAULTS: Record<FeedFault['code'] | 'busy', string> = {
  unreachable: 'the service could not be reached',
  notTheFeed: 'what came is not what the feed should send',
  halfAPage: 'a page came incomplete three times',
  gap: 'an entry is missing in between',
  endless: 'the pages do not end',
  behind: 'it has fewer entries than were taken from it before: it was started anew, or is another company’s',
  busy: 'another file is on its way in',
};
