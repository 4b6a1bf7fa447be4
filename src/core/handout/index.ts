export {
  anchorOf,
  draftOf,
  handedLines,
  lineName,
  linesToHand,
  newHandout,
  payAccounts,
  roundPeriods,
  yearBeforeOf,
} from './choose';
export { columnText, type Anchor } from './marks';
export {
  handoutPage,
  pageRows,
  type HandoutPage,
  type HandoutWords,
  type PageColumn,
  type PageRow,
} from './page';
export { anchorIn, readReturn, type Reading, type ReadReturn, type ReadGround } from './read';
export { handoutState, isWhole, type HandoutState } from './state';
export {
  cellKey,
  compareReturn,
  mergeOf,
  NO_PICKS,
  USUAL_MEANING,
  type CellState,
  type ComparedCell,
  type ComparedLine,
  type Comparing,
  type Meaning,
  type Merged,
  type PickedSide,
  type Picks,
} from './merge';
