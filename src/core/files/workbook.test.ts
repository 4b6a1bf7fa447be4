import { crc32 as zlibCrc32 } from 'node:zlib';
import ExcelJS from 'exceljs';
import { readFile, type GridRow } from '.';
import { hostileWorkbooks, rawZip, sheetOf, workbookParts } from '../test/rawWorkbook';
import { randomOf } from '../test/random';
import { crc32 } from './crc';
import { isDateCode } from './workbookParts';

async function rows(bytes: Uint8Array, sheet = 0): Promise<readonly GridRow[]> {
  const read = await readFile(bytes);
  if (!read.ok) throw new Error(read.issue.code);
  return read.file.grids[sheet]!.head;
}

describe('cells of a workbook', () => {
  test('every kind that a general library writes reads back as what it shows', async () => {
    const wb = new ExcelJS.Workbook();
    const ws = wb.addWorksheet('Ledger');
    ws.addRow(['text', 12.5, new Date(Date.UTC(2025, 1, 28)), true, { formula: 'B1*2', result: 25 }]);
    ws.addRow([
      { richText: [{ text: 'rich ' }, { font: { bold: true }, text: 'text' }] },
      { text: 'link', hyperlink: 'https://example.invalid/' },
      { error: '#N/A' },
      { formula: 'A1', result: 'said' },
      { formula: 'C1', result: new Date(Date.UTC(2024, 11, 31)) },
    ]);
    ws.getCell('A4').value = 'over';
    ws.mergeCells('A4:C4');
    ws.getCell('A5').value = 'Rent';
    ws.getCell('A5').alignment = { indent: 2 };
    ws.getCell('B5').value = 45000;
    ws.getCell('B5').numFmt = '[Red]#,##0.00;"d"';
    ws.getCell('C5').value = 45000.75;
    ws.getCell('C5').numFmt = 'dd/mm/yyyy hh:mm';
    wb.addWorksheet('Hidden').state = 'hidden';
    wb.addWorksheet('Next').addRow(['second']);
    const bytes = new Uint8Array(await wb.xlsx.writeBuffer());
    expect(await rows(bytes)).toEqual([
      ['text', 12.5, '2025-02-28', 'TRUE', 25],
      ['rich text', 'link', '#N/A', 'said', '2024-12-31'],
      [],
      ['over'],
      ['    Rent', 45000, '2023-03-15'],
    ]);
    expect(await rows(bytes, 1)).toEqual([['second']]);
  });
  // ECMA-376 part 1, 18.17.4.1, and its examples of both date systems, from memory.
  test.each([
    [1, false, '1900-01-01'],
    [59, false, '1900-02-28'],
    [61, false, '1900-03-01'],
    [25569, false, '1970-01-01'],
    [45658.99, false, '2025-01-01'],
    [0, true, '1904-01-01'],
    [44196, true, '2025-01-01'],
    [0.5, false, 0.5],
    [-1, false, -1],
    [2_958_466, false, 2_958_466],
  ])('the date %s (1904: %s) is %s', async (serial, from1904, shown) => {
    const workbook = `<workbook xmlns:r="r"><workbookPr date1904="${from1904 ? 1 : 0}"/><sheets><sheet name="L" r:id="rId1"/></sheets></workbook>`;
    const styles = '<styleSheet><cellXfs><xf numFmtId="14"/></cellXfs></styleSheet>';
    const sheet = sheetOf(`<row><c s="0"><v>${serial}</v></c></row>`);
    expect(await rows(rawZip(workbookParts({ workbook, styles, sheet })))).toEqual([[shown]]);
  });
  test.each([
    ['yyyy-mm-dd', true],
    ['[$-409]d mmm yy;@', true],
    ['[h]:mm', true],
    ['General', false],
    ['#,##0.00 "days"', false],
    ['[Red]0.00', false],
    ['0.00E+00', false],
    ['\\d0', false],
    ['_-* #,##0_d', false],
  ])('the format %s writes a date: %s', (code, date) => expect(isDateCode(code)).toBe(date));
  test('cells and rows without places follow one another; places out of order do not move what is there', async () => {
    const sheet = sheetOf(
      '<row><c><v>1</v></c><c><v>2</v></c></row><row r="4"><c r="C4"><v>3</v></c></row><row r="2"><c r="A2"><v>4</v></c></row>',
    );
    expect(await rows(rawZip(workbookParts({ sheet })))).toEqual([[1, 2], [], [], ['', '', 3], [4]]);
  });
  test('parts with prefixes, in UTF-16, stored unpacked', async () => {
    const body = Buffer.from(
      '\ufeff<x:worksheet xmlns:x="s"><x:sheetData><x:row><x:c t="str"><x:v>é</x:v></x:c></x:row></x:sheetData></x:worksheet>',
      'utf16le',
    );
    const parts = [...workbookParts().slice(0, -1), { name: 'XL/Worksheets/Sheet1.xml', body, method: 0 }];
    expect(await rows(rawZip(parts))).toEqual([['é']]);
  });
});

describe('what would hurt a reader', () => {
  test.each(hostileWorkbooks().map((h) => [h.name, h] as const))(
    '%s',
    async (_, { bytes, refused }) => {
      const file = bytes();
      const from = performance.now();
      const read = await readFile(file);
      // Only what hangs takes longer.
      expect(performance.now() - from).toBeLessThan(30_000);
      if (refused === null) {
        if (!read.ok) throw new Error(read.issue.code);
        expect(read.file.grids[0]!.head.slice(0, 2).map((r) => r.length)).toEqual([5, 4]);
      } else expect(read).toMatchObject({ ok: false, issue: { code: refused } });
    },
    60_000,
  );
  test('a broken date costs its own cell', async () => {
    const bad = hostileWorkbooks().find((h) => h.name === 'dates that are none')!;
    expect((await rows(bad.bytes())).at(-1)).toEqual([1e300, -4, 'NaN']);
  });
});

describe('a damaged archive', () => {
  // The check value that catalogues of CRC algorithms give for CRC-32 (ISO-HDLC) is of the digits 1 to 9; from memory.
  test('its checksum is the standard one, in whatever pieces it is reckoned', () => {
    const digits = new TextEncoder().encode('123456789');
    expect(crc32(digits)).toBe(0xcbf43926);
    const bytes = Uint8Array.from({ length: 1000 }, (_, i) => (i * 7919) % 251);
    for (const at of [0, 1, 7, 8, 9, 500, 999])
      expect(crc32(bytes.subarray(at), crc32(bytes.subarray(0, at)))).toBe(zlibCrc32(bytes));
  });

  test('with one bit flipped it is refused or says the same, wherever the bit is', async () => {
    const wb = new ExcelJS.Workbook();
    const ws = wb.addWorksheet('Ledger');
    ws.addRow(['Date', 'Ref', 'Account', 'Debit', 'Credit']);
    for (let i = 0; i < 40; i++)
      ws.addRow([new Date(Date.UTC(2025, i % 12, 1)), `J${i}`, 'Bank', 100 + i, '']);
    const bytes = new Uint8Array(await wb.xlsx.writeBuffer());
    const sound = JSON.stringify(await rows(bytes));
    const r = randomOf(7);
    let damaged = 0;
    for (let n = 0; n < 300; n++) {
      const spoiled = bytes.slice();
      spoiled[r.below(spoiled.length)]! ^= 1 << r.below(8);
      const read = await readFile(spoiled);
      if (read.ok) expect(JSON.stringify(read.file.grids[0]!.head)).toBe(sound);
      else damaged += Number(read.issue.code === 'damagedWorkbook');
    }
    // The others are found before, or lie in what is told of times and of other programs.
    expect(damaged).toBeGreaterThan(20);
  });

  test.each(['xl/sharedStrings.xml', 'xl/styles.xml', 'xl/worksheets/sheet1.xml'])(
    'without its part %s it is refused',
    async (name) => {
      const read = await readFile(rawZip(workbookParts().filter((p) => p.name !== name)));
      expect(read).toEqual({ ok: false, issue: { code: 'brokenWorkbook' } });
    },
  );
});
