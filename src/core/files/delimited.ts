import Papa from 'papaparse';
import { cutCells, LONGEST_CELL, type Grid } from './grid';

export const DELIMITERS = [',', ';', '\t', '|'] as const;

/** How many rows of a text are held to guess by and to show. */
const HEAD = 1000;

/** How often the progress of a long text is told, in letters. */
const TOLD = 1 << 18;

/** A delimited text (RFC 4180 and its cousins) as a grid whose rows are cut as they are visited. */
export function delimitedGrid(text: string, delimiter: string): Grid {
  const { data, meta } = Papa.parse<string[]>(text, { delimiter, preview: HEAD });
  const head = data.map(cutCells);
  // The line end of the last row is not an empty row of the file.
  if (head.length < HEAD && head.length > 1 && isEnd(head.at(-1)!)) head.pop();
  return {
    sheet: null,
    head,
    about: aboutRows(text, head.length),
    each(visit, onProgress) {
      let place = 0;
      let blanks = 0;
      const take = (row: string[]): void => {
        if (isEnd(row)) {
          blanks++;
          return;
        }
        for (; blanks > 0; blanks--) visit(BLANK, place++);
        visit(row, place++);
      };
      const cut = text.includes('"') ? parsedRows : plainRows;
      cut(text, delimiter, meta.linebreak, take, onProgress);
      onProgress?.(1);
      for (; blanks > 1; blanks--) visit(BLANK, place++);
    },
  };
}

type Cutter = (
  text: string,
  delimiter: string,
  newline: string,
  take: (row: string[]) => void,
  onProgress?: (share: number) => void,
) => void;

/** The library's parser itself: what it wraps around results costs half as much again, a million times over. */
const parsedRows: Cutter = (text, delimiter, newline, take) => {
  const parser = new Papa.Parser({ delimiter, newline: newline as '\n' });
  const { data } = parser.parse(text, 0, false) as { data: string[][] };
  for (const row of data) take(cutCells(row));
};

/**
 * The rows of a text without quotes, where every line end ends a row and every delimiter a cell: twice as fast as a parser
 * that must look for quotes, and nothing of it is held.
 */
const plainRows: Cutter = (text, delimiter, newline, take, onProgress) => {
  const end = (at: number) => (at < 0 ? text.length : at);
  // A mark that was found stays found until it is passed: a text without delimiters is looked through once.
  let mark = end(text.indexOf(delimiter));
  let told = TOLD;
  for (let start = 0; start <= text.length;) {
    const to = end(text.indexOf(newline, start));
    const row: string[] = [];
    let from = start;
    for (; mark < to; mark = end(text.indexOf(delimiter, from))) {
      row.push(text.slice(from, mark));
      from = mark + delimiter.length;
    }
    row.push(text.slice(from, to));
    take(to - start > LONGEST_CELL ? cutCells(row) : row);
    start = to + newline.length;
    if (to < told) continue;
    onProgress?.(to / text.length);
    told = to + TOLD;
  }
};

/** Rows by the length of the first lines, with a little room. */
function aboutRows(text: string, headRows: number): number {
  if (headRows < HEAD) return headRows;
  const sample = text.slice(0, 50_000);
  const lines = sample.split('\n').length;
  return Math.ceil((text.length / sample.length) * lines * 1.03);
}

const BLANK = [''] as const;
const isEnd = (row: readonly string[]): boolean => row.length === 1 && row[0] === '';

/** All rows of a text: for files that are known to be small. */
export const readDelimited = (text: string, delimiter: string): string[][] =>
  Papa.parse<string[]>(text, { delimiter }).data;

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

/**
 * Text that a spreadsheet would run as a formula gets an apostrophe before it, which spreadsheets show as text: signs
 * that begin a formula, their full-width forms, and tabs and line breaks, behind which one may stand.
 */
export const neutralize = (text: string): string =>
  /^[=+\-@\t\r\n\uff1d\uff0b\uff0d\uff20]/.test(text) ? `'${text}` : text;

/** A delimited text by RFC 4180: CRLF ends each row, quotes only where needed. Numbers are given ready as text. */
export const writeDelimited = (rows: readonly (readonly string[])[]): string =>
  Papa.unparse(rows as string[][], { newline: '\r\n' }) + '\r\n';
