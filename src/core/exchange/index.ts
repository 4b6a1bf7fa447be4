export { reportCsv } from './reportCsv';
export { reportXlsx } from './reportXlsx';
export {
  bookFile,
  bookFileJsonSchema,
  parseBookFile,
  type BookFileIssue,
  type BookFileRead,
  type WholeBook,
} from './bookJson';
