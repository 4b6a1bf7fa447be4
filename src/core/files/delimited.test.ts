import fc from 'fast-check';
import Papa from 'papaparse';
import { delimitedGrid } from './delimited';

/** The rows of a grid as they are visited. */
function rowsOf(text: string): (readonly unknown[])[] {
  const out: (readonly unknown[])[] = [];
  delimitedGrid(text, ',').each((row, place) => {
    expect(place).toBe(out.length);
    out.push(row);
  });
  return out;
}

/** The same by the parser alone, over the whole text; the line end of the last row is no row. */
function parsed(text: string): string[][] {
  const rows = Papa.parse<string[]>(text, { delimiter: ',' }).data;
  while (rows.length > 0 && rows.at(-1)!.length === 1 && rows.at(-1)![0] === '') {
    // All blank lines at the end but the last are rows, as they are anywhere else.
    rows.pop();
    break;
  }
  return rows;
}

const cell = fc.oneof(
  fc.constantFrom('', 'a', '1.5', 'x y', ' '),
  fc.string({ unit: fc.constantFrom('b', ' ', '7') }),
);
const quoted = fc.oneof(cell, fc.constantFrom('"q"', '"a,b"', '"line\nline"', '"say ""so"""', '5" pipe'));

test.each([
  ['plain text', cell],
  ['text with quotes', quoted],
])('%s is cut into the same rows as by the parser', (_, cells) => {
  fc.assert(
    fc.property(
      fc.array(fc.array(cells, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 30 }),
      fc.constantFrom('\n', '\r\n'),
      fc.boolean(),
      (rows, end, closes) => {
        const text = rows.map((r) => r.join(',')).join(end) + (closes ? end : '');
        expect(rowsOf(text)).toEqual(parsed(text));
      },
    ),
  );
});
