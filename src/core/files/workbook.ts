import { fromDayNumber } from '@/core/calendar';
import { gridOf, LONGEST_CELL, MOST_COLUMNS, type Grid, type GridCell, type GridRow } from './grid';
import { readParts, type CellFormat } from './workbookParts';
import { readXml } from './xmlParts';
import { TooMuch, Zip } from './zip';

/** A row of it has more columns than any ledger. */
export class TooWide extends Error {}

/** Rows and cells of all sheets: what is built is bounded, not only what is unpacked. */
const MOST_ROWS = 3_000_000;
const MOST_CELLS = 30_000_000;
const BLANK: GridRow = [];

/**
 * The visible sheets of an XLSX workbook (ECMA-376), read as streams: only rows and cells are looked at, so that what
 * merges, checks, names or draws them can neither slow the reading nor fill the memory. Formulas give their saved
 * result; of merged cells only the first has a value in the file. Throws when it is no workbook, `TooWide` or `TooMuch`
 * when it is larger than any ledger.
 */
export async function readWorkbook(
  bytes: Uint8Array,
  onProgress?: (share: number) => void,
  told = false,
): Promise<Grid[]> {
  const zip = new Zip(bytes);
  const { sheets, strings, formats, from1904 } = await readParts(zip);
  const left = { rows: MOST_ROWS, cells: MOST_CELLS };
  const grids: Grid[] = [];
  for (const [i, { name, part }] of sheets.entries()) {
    const reader = new SheetReader(strings, formats, from1904, left, told);
    await readXml(zip, part, reader, (share) => onProgress?.((i + share) / sheets.length));
    grids.push(gridOf(name, reader.rows));
  }
  return grids;
}

class SheetReader {
  readonly rows: GridRow[] = [];
  private row: GridCell[] = [];
  private rowNumber = 0;
  private column = -1;
  private type = 'n';
  private format: CellFormat | undefined;
  private value = '';
  private reading = false;
  private inCell = false;
  private isFormula = false;

  constructor(
    private readonly strings: readonly string[],
    private readonly formats: readonly CellFormat[],
    private readonly from1904: boolean,
    private readonly left: { rows: number; cells: number },
    /** Whether cells tell that they are percentages, or formulas without a result. */
    private readonly told: boolean,
  ) {}

  open = (name: string, a: Readonly<Record<string, string>>): void => {
    if (name === 'c') {
      this.inCell = true;
      this.isFormula = false;
      this.value = '';
      this.type = a.t ?? 'n';
      this.format = a.s === undefined ? undefined : this.formats[Number(a.s)];
      this.column = a.r === undefined ? this.column + 1 : columnOf(a.r);
      if (this.column >= MOST_COLUMNS) throw new TooWide();
    } else if (name === 'v' || name === 't') this.reading = this.inCell;
    else if (name === 'f') this.isFormula = true;
    else if (name === 'row') {
      this.rowNumber = a.r === undefined ? this.rowNumber + 1 : Number(a.r);
      this.row = [];
      this.column = -1;
    }
  };

  text = (text: string): void => {
    if (this.reading && this.value.length <= LONGEST_CELL) this.value += text;
  };

  close = (name: string): void => {
    if (name === 'v' || name === 't') this.reading = false;
    else if (name === 'c') {
      this.inCell = false;
      this.put(this.cell());
    } else if (name === 'row') this.endRow();
  };

  private put(cell: GridCell): void {
    if (cell === '') return;
    const { row, column } = this;
    this.left.cells -= Math.max(0, column + 1 - row.length);
    if (this.left.cells < 0) throw new TooMuch();
    while (row.length < column) row.push('');
    // Names are indented by a style here and by blanks elsewhere: the blanks serve both.
    const indent = column < 3 && typeof cell === 'string' ? (this.format?.indent ?? 0) : 0;
    row[column] = indent > 0 ? ' '.repeat(2 * indent) + cell : cell;
  }

  private endRow(): void {
    if (this.row.length === 0) return;
    const at = this.rowNumber - 1;
    // A row that stands twice, or before one that came already: it is taken as the next.
    const place = Number.isInteger(at) && at >= this.rows.length ? at : this.rows.length;
    this.left.rows -= place + 1 - this.rows.length;
    if (this.left.rows < 0) throw new TooMuch();
    while (this.rows.length < place) this.rows.push(BLANK);
    this.rows.push(this.row);
  }

  private cell(): GridCell {
    const { value } = this;
    if (this.told && this.isFormula && value === '') return '=';
    switch (this.type) {
      case 's':
        return this.strings[Number(value)] ?? '';
      case 'b':
        return value === '' ? '' : value === '1' ? 'TRUE' : 'FALSE';
      case 'd':
        return value.slice(0, 10);
      case 'n': {
        if (value.trim() === '') return '';
        const number = Number(value);
        if (!Number.isFinite(number)) return value;
        if (this.told && this.format?.percent) return `${Number((number * 100).toPrecision(12))}%`;
        return this.format?.date ? (dayOfSerial(number, this.from1904) ?? number) : number;
      }
      default:
        return value;
    }
  }
}

/** The place of a column from its letters: A is 0. Beyond any column for what has no letters. */
function columnOf(reference: string): number {
  let n = 0;
  for (let i = 0; i < reference.length; i++) {
    const c = reference.charCodeAt(i) & ~32;
    if (c < 65 || c > 90) break;
    n = n * 26 + c - 64;
    if (n > MOST_COLUMNS) break;
  }
  return n === 0 ? MOST_COLUMNS : n - 1;
}

/**
 * The day of a serial date (ECMA-376 part 1, 18.17.4.1): serial 25569 of the 1900 system is 1970-01-01; up to 60 one
 * less, since that system counts a 29 February 1900. Null for what is no day: times alone, and years that nobody books in.
 */
function dayOfSerial(serial: number, from1904: boolean): string | null {
  const whole = Math.floor(serial) + (from1904 ? 1462 : 0);
  if (whole < 1 || whole > 2_958_465) return null;
  return fromDayNumber(whole - 25569 + (whole < 60 ? 1 : 0));
}
