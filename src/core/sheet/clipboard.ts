/*
 * The quoting of RFC 4180 with tabs, as spreadsheets put it on the clipboard. Written here, since the parser of ledger files
 * is a fiftieth of all that a first visit loads; a test holds it to that parser.
 */

const quoted = (cell: string): string =>
  /["\t\r\n]|^ | $/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell;

/** A block of cells as the tab-separated text that spreadsheets exchange. */
export const toTsv = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => row.map(quoted).join('\t')).join('\r\n');

/** A cell: in quotes, with two for one in it, or as it stands up to the next tab or line end. */
const CELL = /(?:"((?:[^"]+|"")*)"|([^\t\r\n]*))(\t|\r?\n|\r|$)/y;

/** The block in a spreadsheet's clipboard text; its closing line end is no row. */
export function fromTsv(text: string): string[][] {
  const body = text.replace(/\r?\n$/, '');
  const rows: string[][] = [[]];
  CELL.lastIndex = 0;
  for (;;) {
    // A quote that nothing closes, or that something follows, stands for itself: some cell always begins here.
    const cell = CELL.exec(body)!;
    rows.at(-1)!.push(cell[1] === undefined ? cell[2]! : cell[1].replaceAll('""', '"'));
    if (cell[3] === '') return rows;
    if (cell[3] !== '\t') rows.push([]);
  }
}

/**
 * The block laid over a range: repeated when the range is a whole multiple of it, as spreadsheets do with a copied
 * cell or row; otherwise once, from the range's top left corner.
 */
export function layOver<T>(block: readonly (readonly T[])[], rows: number, columns: number): T[][] {
  const height = block.length;
  const width = Math.max(...block.map((r) => r.length));
  const fits = rows % height === 0 && columns % width === 0;
  const [h, w] = fits ? [rows, columns] : [height, width];
  return Array.from({ length: h }, (_, r) =>
    Array.from({ length: w }, (_, c) => block[r % height]![c % width]!),
  );
}
