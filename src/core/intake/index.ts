export type {
  BalanceRole,
  BalancesMapping,
  Doubt,
  EntryRole,
  Guess,
  Mapping,
  MonthsRole,
  Shape,
  SignRule,
} from './mapping';
export type {
  Control,
  Draft,
  DraftAccount,
  DraftView,
  IntakeIssue,
  LeftOutReason,
  RowMeaning,
  Unbalanced,
} from './draft';
export { viewOf } from './draft';
export { guessMapping, guessShape } from './guess';
export type { GuessContext } from './guessContext';
export { applyKept, headsOf, type Kept } from './kept';
export { columnsRead, type ColumnRead } from './columnsRead';
export { roleByHeading } from './headings';
export { readQuantities, type QuantityIssue, type ReadQuantities } from './readQuantities';
export { parseDate, parseMonthHead, findMonthInText, guessDateOrder, type DateOrder } from './dates';
export { numbersIn, type NumberDoubt } from './numbers';
export { guessKind, kindByCode, kindByWords, type KindGuess, type KindReason } from './guessKind';
export { nameKey, splitAccountCell } from './accountCell';
export { openDraft, readDraft } from './read';
export { likeness, NameIndex } from './likeness';
export { matchAccounts, type AccountChoice } from './match';
export { markClosings, settle } from './settle';
export { entriesHere, type EntryColumns } from './here';
export { activityOf, basesOf, type Bases, type Trial } from './trials';
export {
  proofOf,
  stoodBy,
  type StoodBy,
  type ControlResult,
  type Fault,
  type Proof,
  type ProofGround,
  type ProofMonth,
} from './proof';
export { acceptDraft, type Acceptance } from './accept';
export { growAxes } from './axes';
export {
  feedCompanySchema,
  feedCursorSchema,
  feedFacts,
  pullFeed,
  type FeedAsk,
  type FeedCompany,
  type FeedEntry,
  type FeedFault,
  type FeedPage,
  type FeedPull,
  type FeedResult,
} from './feed';
export { feedItems, feedOpenSchema, type FeedItems, type FeedOpen } from './feedItems';
export { isPullDue, type LocalMinute } from './schedule';
export { type KindHint } from './suggest';
