export { BlockBuilder, entryAt, type Entry, type LedgerBlock } from './block';
export { actualOf, balancesOf, entriesOf, sumEntries, totalsOf, type Balances } from './balances';
