/** A cell as a file holds it: text, or a number where the file itself says so (a spreadsheet). Days are ISO text. */
export type GridCell = string | number;

/** One sheet of a file, as read. Row numbers shown to people are this array's index + 1. */
export type Grid = {
  readonly sheet: string | null;
  readonly rows: readonly (readonly GridCell[])[];
};

export type FileFacts = {
  readonly format: 'delimited' | 'workbook';
  readonly encoding: string | null;
  readonly delimiter: string | null;
  readonly grids: readonly Grid[];
};

/** Why a file cannot be read at all. */
export type FileIssue = {
  readonly code: 'emptyFile' | 'notATable' | 'oldWorkbook' | 'brokenWorkbook' | 'onlyOneColumn';
};

export type FileRead =
  { readonly ok: true; readonly file: FileFacts } | { readonly ok: false; readonly issue: FileIssue };

/** The cell as text, blanks trimmed; missing cells are empty. */
export const cellText = (cell: GridCell | undefined): string =>
  cell === undefined ? '' : typeof cell === 'string' ? cell.trim() : String(cell);

export const isBlankRow = (row: readonly GridCell[]): boolean => row.every((c) => cellText(c) === '');
