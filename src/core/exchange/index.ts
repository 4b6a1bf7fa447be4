export { reportCsv } from './reportCsv';
export { reportXlsx } from './reportXlsx';
export { bookFile, parseBookFile, type BookFileIssue, type BookFileRead, type WholeBook } from './bookJson';
