import type { FileIssue } from '@/core/files';

/** Why a file cannot be read. */
export const FILE_ISSUES: Record<FileIssue['code'], string> = {
  emptyFile: 'the file is empty',
  notATable: 'it is not a CSV, XLSX or audit file (a picture, a PDF or another program’s file)',
  oldWorkbook: 'it is a workbook in the old .xls format: save it as .xlsx or CSV and take that in',
  brokenWorkbook:
    'it looks like a workbook but cannot be opened: it may be cut off or locked with a password',
  damagedWorkbook:
    'it is damaged: what is in it is not what was saved (its checksum says so). Save it anew, or get it again',
  onlyOneColumn: 'no row of it has more than one column, so there are no accounts and amounts to read',
  tooManyColumns: 'a row of it has more than 2,000 columns, as no ledger has',
  tooLarge: 'unpacked it would fill more than 600 MB or some million rows, as no ledger does',
  notAnAuditFile: 'it is XML, but not a Standard Audit File for Tax',
  brokenXml: 'it is XML that breaks off or is not well formed',
  unknownEncoding: 'it says that it is in an encoding that is not known here',
  hostileXml: 'its XML declares entities of its own, or is nested or long beyond any audit file',
};

/** The same with the line where it broke off. */
export const fileIssueWords = ({ code, line }: FileIssue): string =>
  `${FILE_ISSUES[code]}${line ? ` (line ${line})` : ''}.`;
