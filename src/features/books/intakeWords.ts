import type { FileFormat, FileIssue } from '@/core/files';
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

export const FILE_ISSUES: Record<FileIssue['code'], string> = {
  emptyFile: 'the file is empty',
  notATable: 'it is not a CSV, XLSX or audit file (a picture, a PDF or another program’s file)',
  oldWorkbook: 'it is a workbook in the old .xls format: save it as .xlsx or CSV and take that in',
  brokenWorkbook:
    'it looks like a workbook but cannot be opened: it may be cut off or locked with a password',
  onlyOneColumn: 'no row of it has more than one column, so there are no accounts and amounts to read',
  tooManyColumns: 'a row of it has more than 2,000 columns, as no ledger has',
  tooLarge: 'unpacked it would fill more than 600 MB or some million rows, as no ledger does',
  notAnAuditFile: 'it is XML, but not a Standard Audit File for Tax',
  brokenXml: 'it is XML that breaks off or is not well formed',
  unknownEncoding: 'it says that it is in an encoding that is not known here',
  hostileXml: 'its XML declares entities of its own, or is nested or long beyond any audit file',
};

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
