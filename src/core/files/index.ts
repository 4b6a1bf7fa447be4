export { columnLetters } from './columnLetters';
export { fingerprint } from './fingerprint';
export {
  cellText,
  gridOf,
  isBlankRow,
  rowsOf,
  type FileFacts,
  type FileFormat,
  type FileIssue,
  type FileRead,
  type Grid,
  type GridCell,
  type GridRow,
  type Stated,
} from './grid';
export { decodeText } from './decode';
export { DELIMITERS, guessDelimiter, neutralize, readDelimited, writeDelimited } from './delimited';
export { isXml, readStatements } from './bankStatements';
export type { FileBalance, FileDetail, FileEntry, FileStatement, StatementsRead } from './camt';
export { readFile, type ReadOptions } from './readFile';
export { readWorkbook } from './workbook';
export { ENTRY_HEADS } from './entryHeads';
