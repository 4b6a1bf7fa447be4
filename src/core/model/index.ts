export { ACCOUNT_KINDS, naturalSign, isProfitAndLoss, profitSign, type AccountKind } from './kinds';
export {
  bookSchema,
  methodSchema,
  sourceSchema,
  type Account,
  type AccountId,
  type Axis,
  type Book,
  type Budget,
  type EvenBasis,
  type Feed,
  type Line,
  type Method,
  type MethodKind,
  type RoundUnit,
  type Schedule,
  type Settings,
  type Source,
  type VarianceNote,
} from './schema';
export { BOOK_VERSION, migrate, openBook, type Migrations, type OpenIssue, type Opened } from './migrate';
export {
  addSegment,
  assignAccount,
  feedFromColumn,
  mergeSegments,
  nextValueNumber,
  renameSegment,
  withTexts,
} from './segments';
export { newAccount, newBook, type NewBook } from './newBook';
export {
  applyCommand,
  blankLine,
  type Applied,
  type Cell,
  type CellValue,
  type Command,
  type CommandType,
  type Refusal,
} from './commands';
export { openHistory, perform, redo, undo, type Change, type History, type Step } from './journal';
