/** A cell as a file holds it: text, or a number where the file itself says so (a spreadsheet). Days are ISO text. */
export type GridCell = string | number;

export type GridRow = readonly GridCell[];

/** One sheet of a file. Row numbers shown to people are a row's place + 1. */
export type Grid = {
  readonly sheet: string | null;
  /** The first rows: all of a workbook's; enough of a long text to guess by. */
  readonly head: readonly GridRow[];
  /** Nearly how many rows there are: for room to read them into. */
  readonly about: number;
  /** Visits every row in order. A long text is cut into rows as they are visited and never held whole. */
  readonly each: (visit: (row: GridRow, place: number) => void, onProgress?: (share: number) => void) => void;
};

/** A grid of rows that are in memory. */
export const gridOf = (sheet: string | null, given: readonly GridRow[]): Grid =>
  gridOfCut(sheet, given.map(cutCells));

const gridOfCut = (sheet: string | null, rows: readonly GridRow[]): Grid => ({
  sheet,
  head: rows,
  about: rows.length,
  each(visit, onProgress) {
    for (let i = 0; i < rows.length; i++) {
      if ((i & 16383) === 0) onProgress?.(i / rows.length);
      visit(rows[i]!, i);
    }
  },
});

/** Every row of a grid, for shapes that look back and forth. */
export function rowsOf(grid: Grid, onProgress?: (share: number) => void): GridRow[] {
  const out: GridRow[] = [];
  grid.each((row) => out.push(row), onProgress);
  return out;
}

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
    | 'damagedWorkbook'
    | 'onlyOneColumn'
    | 'tooManyColumns'
    | 'tooLarge'
    | 'notAnAuditFile'
    | 'brokenXml'
    | 'unknownEncoding'
    | 'hostileXml';
  /** Line of the file where it broke off, where that is known. */
  readonly line?: number;
  /** The encoding that the file says it is in. */
  readonly encoding?: string;
};

export type FileRead =
  { readonly ok: true; readonly file: FileFacts } | { readonly ok: false; readonly issue: FileIssue };

/** More columns than any ledger has: a broken or hostile file. */
export const MOST_COLUMNS = 2000;

/** No cell of a ledger is longer: what is, is cut here, so that nothing after it looks through a book in a cell. */
export const LONGEST_CELL = 4000;

/** A row with the ends of overlong cells cut off; the same row when there is none. */
export function cutCells<Row extends readonly GridCell[]>(row: Row): Row {
  for (let i = 0; i < row.length; i++) {
    const cell = row[i]!;
    if (typeof cell === 'string' && cell.length > LONGEST_CELL)
      return row.map((c) => (typeof c === 'string' ? cutCell(c) : c)) as unknown as Row;
  }
  return row;
}

const cutCell = (text: string): string =>
  text.length > LONGEST_CELL ? `${text.slice(0, LONGEST_CELL - 1)}…` : text;

/** The cell as text, blanks trimmed; missing cells are empty. */
export function cellText(cell: GridCell | undefined): string {
  if (typeof cell !== 'string') return cell === undefined ? '' : String(cell);
  // Most cells have nothing to trim, and asking so is cheaper than trimming, a million times over.
  return isInk(cell.charCodeAt(0)) && isInk(cell.charCodeAt(cell.length - 1)) ? cell : cell.trim();
}

const isInk = (code: number): boolean => code > 32 && code < 160;

export const isBlankRow = (row: readonly GridCell[]): boolean => row.every((c) => cellText(c) === '');
