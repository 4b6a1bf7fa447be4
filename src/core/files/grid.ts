/** A cell as a file holds it: text, or a number where the file itself says so (a spreadsheet). Days are ISO text. */
export type GridCell = string | number;

/** One sheet of a file, as read. Row numbers shown to people are this array's index + 1. */
export type Grid = {
  readonly sheet: string | null;
  readonly rows: readonly (readonly GridCell[])[];
};

/** What a file says of itself as a whole, in the major unit with a point: held against what was read. */
export type Stated = {
  readonly entries: number | null;
  readonly debit: string | null;
  readonly credit: string | null;
};

export type FileFormat = 'delimited' | 'workbook' | 'auditFile' | 'feed';

export type FileFacts = {
  readonly format: FileFormat;
  readonly encoding: string | null;
  readonly delimiter: string | null;
  readonly grids: readonly Grid[];
  readonly stated: Stated | null;
};

/** Why a file cannot be read at all. */
export type FileIssue = {
  readonly code:
    | 'emptyFile'
    | 'notATable'
    | 'oldWorkbook'
    | 'brokenWorkbook'
    | 'onlyOneColumn'
    | 'tooManyColumns'
    | 'tooLarge'
    | 'notAnAuditFile'
    | 'brokenXml'
    | 'hostileXml';
  /** Line of the file where it broke off, where that is known. */
  readonly line?: number;
};

export type FileRead =
  { readonly ok: true; readonly file: FileFacts } | { readonly ok: false; readonly issue: FileIssue };

/** More columns than any ledger has: a broken or hostile file. */
export const MOST_COLUMNS = 2000;

/** The cell as text, blanks trimmed; missing cells are empty. */
export const cellText = (cell: GridCell | undefined): string =>
  cell === undefined ? '' : typeof cell === 'string' ? cell.trim() : String(cell);

export const isBlankRow = (row: readonly GridCell[]): boolean => row.every((c) => cellText(c) === '');
