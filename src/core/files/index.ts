export { columnLetters } from './columnLetters';
export { fingerprint } from './fingerprint';
export {
  cellText,
  isBlankRow,
  type FileFacts,
  type FileIssue,
  type FileRead,
  type Grid,
  type GridCell,
} from './grid';
export { decodeText } from './decode';
export { DELIMITERS, guessDelimiter, neutralize, readDelimited, writeDelimited } from './delimited';
export { readFile, type ReadOptions } from './readFile';
export { readWorkbook } from './workbook';
