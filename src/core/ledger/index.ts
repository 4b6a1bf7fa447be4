export {
  ACTIVITY,
  BlockBuilder,
  buffersOf,
  CLOSING,
  entryAt,
  MARKS,
  openBlock,
  OPENING,
  type Entry,
  type LedgerBlock,
  type Mark,
  type SegmentColumn,
} from './block';
export { journalOf, rowAt, type Journal } from './journal';
export { packTexts, textAt, unpackTexts, type Texts } from './texts';
export {
  actualOf,
  ownersOf,
  balancesOf,
  daySpan,
  entriesOf,
  sumEntries,
  sidesOff,
  totalsOf,
  type Balances,
  type BlockTotals,
  type View,
} from './balances';
export { openingsIn, openingsOff, stoodBefore, type OpeningOff, type Stood } from './openings';
export { ledgerChanges, type AccountChange, type Movement } from './changes';
export { segmentsOf, viewOfSegments, type SegmentValue } from './segments';
export { trialBalance, type TrialBalance, type TrialRow } from './trial';
export { median, oddMonths, type OddMonth } from './habit';
