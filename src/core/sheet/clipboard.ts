import Papa from 'papaparse';

/** A block of cells as the tab-separated text that spreadsheets exchange. */
export const toTsv = (rows: readonly (readonly string[])[]): string =>
  Papa.unparse(rows as string[][], { delimiter: '\t', newline: '\r\n' });

/** The block in a spreadsheet's clipboard text; its closing line end is no row. */
export function fromTsv(text: string): string[][] {
  const body = text.replace(/\r?\n$/, '');
  return body === '' ? [['']] : Papa.parse<string[]>(body, { delimiter: '\t' }).data;
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
