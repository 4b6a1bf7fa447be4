import type { FileIssue } from '@/core/files';
import type { Doubt, EntryRole, IntakeIssue, KindReason, LeftOutReason, SignRule } from '@/core/intake';
import type { AccountKind, Change } from '@/core/model';

export const FILE_ISSUES: Record<FileIssue['code'], string> = {
  emptyFile: 'the file is empty',
  notATable: 'it is not a CSV or XLSX file (a picture, a PDF or another program’s file)',
  oldWorkbook: 'it is a workbook in the old .xls format: save it as .xlsx or CSV and take that in',
  brokenWorkbook:
    'it looks like a workbook but cannot be opened: it may be cut off or locked with a password',
  onlyOneColumn: 'no row of it has more than one column, so there are no accounts and amounts to read',
};

export const LEFT_OUT: Record<LeftOutReason, string> = {
  title: 'title above the heads',
  header: 'column heads',
  blank: 'blank',
  heading: 'section heading',
  total: 'total, used to check ours',
  noAmount: 'no amount',
  noAccount: 'no account',
  balanceForward: 'balance brought forward',
  unreadableAmount: 'an amount that cannot be read',
  tooManyDecimals: 'more decimals than the currency has',
  unknownDate: 'a date that cannot be read',
  missingDate: 'an amount without a date',
};

export const ISSUES: Record<IntakeIssue['code'], string> = {
  unreadableAmount: 'is not an amount',
  tooManyDecimals: 'has more decimals than the currency',
  unknownDate: 'is not a date',
  missingDate: 'should hold a date and is empty',
  noAccount: 'should name an account and is empty',
};

export const KIND_NAMES: Record<AccountKind, string> = {
  income: 'Income',
  costOfSales: 'Cost of sales',
  expense: 'Expense',
  otherIncome: 'Other income',
  otherExpense: 'Other expense',
  bank: 'Bank',
  receivable: 'Receivable',
  inventory: 'Inventory',
  otherAsset: 'Other asset',
  fixedAsset: 'Fixed asset',
  payable: 'Payable',
  taxPayable: 'Tax payable',
  otherLiability: 'Other liability',
  loan: 'Loan',
  equity: 'Equity',
};

export const KIND_REASONS: Record<KindReason, string> = {
  section: 'from its section',
  type: 'from its type column',
  name: 'from its name',
  code: 'from its code',
  balance: 'from the side of its balance',
  book: 'as in the book',
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
  counterparty: 'Counterparty',
  reference: 'Reference',
  memo: 'Memo',
  ignore: 'Leave out',
};

export const SIGN_NAMES: Record<SignRule, string> = {
  natural: 'Income and costs both positive',
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
  sign: 'which sign costs have',
};

export const CHANGE_WORDS: Record<Change['type'], string> = {
  renameBook: 'Book renamed',
  setSettings: 'Settings changed',
  takeIn: 'Ledger file taken in',
  removeSource: 'Source taken away',
  editAccount: 'Account changed',
  setClosedThrough: 'Closed months changed',
  addBudget: 'Budget added',
  renameBudget: 'Budget renamed',
  deleteBudget: 'Budget deleted',
  approveBudget: 'Budget approved',
  setCells: 'Months entered',
  restoreCells: 'Months restored',
  setMethod: 'Method of a line changed',
  setLineNote: 'Note on a line',
  setVarianceNote: 'Note on a variance',
  undo: 'Undone',
  redo: 'Done again',
};

export const count = (n: number, one: string, several = `${one}s`): string =>
  `${n.toLocaleString('en-US')} ${n === 1 ? one : several}`;
