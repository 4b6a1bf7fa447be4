import Papa from 'papaparse';
import { MOST_COLUMNS } from './grid';

export const DELIMITERS = [',', ';', '\t', '|'] as const;

/**
 * The rows of a delimited text (RFC 4180 and its cousins); null when a row has more columns than any ledger.
 * `onProgress` gets the share read, 0 to 1.
 */
export function readDelimited(
  text: string,
  delimiter: string,
  onProgress?: (share: number) => void,
): string[][] | null {
  const rows: string[][] = [];
  let wide = false;
  Papa.parse<string[]>(text, {
    delimiter,
    chunkSize: 1 << 21,
    chunk(results: Papa.ParseResult<string[]>, parser: { abort(): void }) {
      for (const row of results.data) {
        wide ||= row.length > MOST_COLUMNS;
        rows.push(row);
      }
      if (wide) parser.abort();
      onProgress?.(Math.min(1, results.meta.cursor / text.length));
    },
  } as Papa.ParseConfig<string[]> & { chunkSize: number });
  return wide ? null : rows;
}

/**
 * The delimiter that cuts the head of the file into the most even rows of more than one cell. Comma when none
 * does: then the file has one column only.
 */
export function guessDelimiter(text: string): string {
  const head = text.slice(0, 65536);
  let best = { delimiter: ',' as string, score: 0 };
  for (const delimiter of DELIMITERS) {
    const rows = Papa.parse<string[]>(head, { delimiter, preview: 60 }).data.filter((r) =>
      r.some((c) => c.trim() !== ''),
    );
    const wide = rows.filter((r) => r.length > 1);
    if (wide.length === 0) continue;
    const counts = new Map<number, number>();
    for (const r of wide) counts.set(r.length, (counts.get(r.length) ?? 0) + 1);
    const [width, times] = [...counts].reduce((a, b) => (b[1] > a[1] ? b : a));
    // Many rows of one width, and filled ones: a comma within names or decimals cuts unevenly.
    const score = (times / rows.length) * Math.log2(width + 1);
    if (score > best.score) best = { delimiter, score };
  }
  return best.delimiter;
}

/** Text that a spreadsheet would run as a formula gets an apostrophe before it, which spreadsheets show as text. */
export const neutralize = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** A delimited text by RFC 4180: CRLF ends each row, quotes only where needed. Numbers are given ready as text. */
export const writeDelimited = (rows: readonly (readonly string[])[]): string =>
  Papa.unparse(rows as string[][], { newline: '\r\n' }) + '\r\n';
