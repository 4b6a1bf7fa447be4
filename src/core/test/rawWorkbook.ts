import { deflateRawSync } from 'node:zlib';
import { crc32 } from '@/core/files/crc';

/* Workbooks made part by part, for files that no writer would write. */

export type RawPart = {
  readonly name: string;
  readonly body: string | Buffer;
  /** What the archive says of it instead of the truth. */
  readonly statedSize?: number;
  readonly method?: number;
};

/** A ZIP archive of parts (APPNOTE, from memory); `statedCount` is what its end says of how many there are. */
export function rawZip(parts: readonly RawPart[], statedCount = parts.length): Uint8Array {
  const bodies: Buffer[] = [];
  const central: Buffer[] = [];
  let at = 0;
  for (const { name, body, statedSize, method = 8 } of parts) {
    const plain = typeof body === 'string' ? Buffer.from(body) : body;
    const packed = method === 8 ? deflateRawSync(plain, { level: 1 }) : plain;
    const size = statedSize ?? plain.length;
    const label = Buffer.from(name);
    const head = Buffer.alloc(30);
    head.writeUInt32LE(0x04034b50, 0);
    head.writeUInt16LE(method, 8);
    head.writeUInt32LE(packed.length, 18);
    head.writeUInt32LE(size, 22);
    head.writeUInt16LE(label.length, 26);
    const entry = Buffer.alloc(46);
    entry.writeUInt32LE(0x02014b50, 0);
    entry.writeUInt16LE(method, 10);
    entry.writeUInt32LE(crc32(plain), 16);
    entry.writeUInt32LE(packed.length, 20);
    entry.writeUInt32LE(size, 24);
    entry.writeUInt16LE(label.length, 28);
    entry.writeUInt32LE(at, 42);
    bodies.push(head, label, packed);
    central.push(entry, label);
    at += head.length + label.length + packed.length;
  }
  const list = Buffer.concat(central);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(statedCount, 8);
  end.writeUInt16LE(statedCount, 10);
  end.writeUInt32LE(list.length, 12);
  end.writeUInt32LE(at, 16);
  return new Uint8Array(Buffer.concat([...bodies, list, end]));
}

const TYPE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const rels = (list: readonly (readonly [id: string, type: string, target: string])[]): string =>
  `<Relationships>${list.map(([id, type, target]) => `<Relationship Id="${id}" Type="${TYPE}/${type}" Target="${target}"/>`).join('')}</Relationships>`;

/** The parts of a workbook of one sheet, which any may be replaced or joined by. */
export function workbookParts(
  change: {
    readonly sheet?: string;
    readonly strings?: string;
    readonly styles?: string;
    readonly workbook?: string;
  } = {},
): RawPart[] {
  return [
    { name: '_rels/.rels', body: rels([['rId1', 'officeDocument', 'xl/workbook.xml']]) },
    {
      name: 'xl/workbook.xml',
      body:
        change.workbook ??
        '<workbook xmlns:r="r"><sheets><sheet name="Ledger" sheetId="1" r:id="rId1"/></sheets></workbook>',
    },
    {
      name: 'xl/_rels/workbook.xml.rels',
      body: rels([
        ['rId1', 'worksheet', 'worksheets/sheet1.xml'],
        ['rId2', 'sharedStrings', '/xl/sharedStrings.xml'],
        ['rId3', 'styles', 'styles.xml'],
      ]),
    },
    { name: 'xl/sharedStrings.xml', body: change.strings ?? '<sst/>' },
    { name: 'xl/styles.xml', body: change.styles ?? '<styleSheet/>' },
    { name: 'xl/worksheets/sheet1.xml', body: change.sheet ?? sheetOf(LEDGER) },
  ];
}

const inline = (ref: string, text: string): string =>
  `<c r="${ref}" t="inlineStr"><is><t>${text}</t></is></c>`;
const LEDGER =
  `<row r="1">${['Date', 'Ref', 'Account', 'Debit', 'Credit'].map((h, i) => inline(`${'ABCDE'[i]}1`, h)).join('')}</row>` +
  `<row r="2">${inline('A2', '2025-01-05')}${inline('B2', 'J1')}${inline('C2', 'Bank')}<c r="D2"><v>10</v></c></row>` +
  `<row r="3">${inline('A3', '2025-01-05')}${inline('B3', 'J1')}${inline('C3', 'Sales')}<c r="E3"><v>10</v></c></row>`;
/** A sheet of rows, with whatever stands after them. */
export const sheetOf = (rows: string, after = ''): string =>
  `<worksheet><sheetData>${rows}</sheetData>${after}</worksheet>`;

/** What may be told of a workbook that would hurt a reader: each either opens as the small ledger that it is, or is refused. */
export function hostileWorkbooks(): readonly {
  readonly name: string;
  readonly bytes: () => Uint8Array;
  /** The code it is refused with; null where the ledger in it is read. */
  readonly refused: string | null;
}[] {
  const with_ = (after: string) => () => rawZip(workbookParts({ sheet: sheetOf(LEDGER, after) }));
  const whole = 'A1:XFD1048576';
  const blanks = (n: number) => Buffer.alloc(n, 32);
  const sheetPart = (body: Buffer | string, more: Partial<RawPart> = {}): RawPart[] => [
    ...workbookParts().slice(0, -1),
    { name: 'xl/worksheets/sheet1.xml', body, ...more },
  ];
  const huge = () => Buffer.concat([Buffer.from('<worksheet><sheetData>'), blanks(900 * 1024 * 1024)]);
  return [
    {
      name: 'a merged range as large as a sheet',
      bytes: with_(`<mergeCells><mergeCell ref="${whole}"/></mergeCells>`),
      refused: null,
    },
    {
      name: 'a validation as large as a sheet',
      bytes: with_(
        `<dataValidations><dataValidation type="list" sqref="${whole}"><formula1>"a"</formula1></dataValidation></dataValidations>`,
      ),
      refused: null,
    },
    {
      name: 'a conditional format as large as a sheet',
      bytes: with_(
        `<conditionalFormatting sqref="${whole}"><cfRule type="expression"><formula>1</formula></cfRule></conditionalFormatting>`,
      ),
      refused: null,
    },
    {
      name: 'columns as many as a sheet has',
      bytes: with_('<cols><col min="1" max="16384" width="9"/></cols>'),
      refused: null,
    },
    {
      name: 'a defined name as large as a sheet',
      bytes: () =>
        rawZip(
          workbookParts({
            workbook: `<workbook xmlns:r="r"><sheets><sheet name="L" sheetId="1" r:id="rId1"/></sheets><definedNames><definedName name="n">L!$A$1:$XFD$1048576</definedName></definedNames></workbook>`,
          }),
        ),
      refused: null,
    },
    {
      name: 'a hundred thousand merged ranges',
      bytes: with_(`<mergeCells>${'<mergeCell ref="A1:XFD9"/>'.repeat(100_000)}</mergeCells>`),
      refused: null,
    },
    {
      name: 'a row numbered as the last of a sheet',
      bytes: () =>
        rawZip(
          workbookParts({ sheet: sheetOf(`${LEDGER}<row r="1048576">${inline('A1048576', 'end')}</row>`) }),
        ),
      refused: null,
    },
    {
      name: 'a row numbered beyond any',
      bytes: () =>
        rawZip(workbookParts({ sheet: sheetOf(`${LEDGER}<row r="999999999">${inline('A9', 'end')}</row>`) })),
      refused: 'tooLarge',
    },
    {
      name: 'rows whose numbers are none',
      bytes: () =>
        rawZip(
          workbookParts({
            sheet: sheetOf(
              `${LEDGER}<row r="-5">${inline('A1', 'x')}</row><row r="NaN">${inline('A1', 'x')}</row><row r="1e999"/>`,
            ),
          }),
        ),
      refused: null,
    },
    {
      name: 'a cell beyond any column',
      bytes: () => rawZip(workbookParts({ sheet: sheetOf(`<row r="1">${inline('ZZZZZZZ1', 'x')}</row>`) })),
      refused: 'tooManyColumns',
    },
    {
      name: 'a cell without a column',
      bytes: () => rawZip(workbookParts({ sheet: sheetOf(`<row r="1">${inline('1', 'x')}</row>`) })),
      refused: 'tooManyColumns',
    },
    {
      name: 'a cell far to the right in each of many rows',
      bytes: () =>
        rawZip(
          workbookParts({
            sheet: sheetOf(
              Array.from(
                { length: 40_000 },
                (_, i) => `<row r="${i + 1}">${inline(`BXX${i + 1}`, 'x')}</row>`,
              ).join(''),
            ),
          }),
        ),
      refused: 'tooLarge',
    },
    {
      name: 'dates that are none',
      bytes: () =>
        rawZip(
          workbookParts({
            styles: '<styleSheet><cellXfs><xf numFmtId="14"/></cellXfs></styleSheet>',
            sheet: sheetOf(
              `${LEDGER}<row r="4"><c r="A4" s="0"><v>1e300</v></c><c r="B4" s="0"><v>-4</v></c><c r="C4" s="0"><v>NaN</v></c></row>`,
            ),
          }),
        ),
      refused: null,
    },
    {
      name: 'shared texts that are not there',
      bytes: () =>
        rawZip(
          workbookParts({
            sheet: sheetOf(
              `${LEDGER}<row r="4"><c r="A4" t="s"><v>99</v></c><c r="B4" t="s"><v>-1</v></c><c r="C4" t="s"><v>x</v></c></row>`,
            ),
          }),
        ),
      refused: null,
    },
    {
      name: 'a text of ten million letters',
      bytes: () =>
        rawZip(
          workbookParts({
            sheet: sheetOf(`${LEDGER}<row r="4">${inline('C4', 'x'.repeat(10_000_000))}</row>`),
          }),
        ),
      refused: null,
    },
    {
      name: 'entities of its own',
      bytes: () =>
        rawZip(
          sheetPart('<!DOCTYPE a [<!ENTITY b "cccc"><!ENTITY d "&b;&b;&b;">]><worksheet>&d;</worksheet>'),
        ),
      refused: 'brokenWorkbook',
    },
    {
      name: 'elements nested without end',
      bytes: () => rawZip(sheetPart('<a>'.repeat(200_000))),
      refused: 'brokenWorkbook',
    },
    { name: 'a part of 900 MB', bytes: () => rawZip(sheetPart(huge())), refused: 'tooLarge' },
    {
      name: 'a part of 900 MB that says it is small, and an end that says there is none',
      bytes: () => rawZip(sheetPart(huge(), { statedSize: 100 }), 0),
      refused: 'tooLarge',
    },
    {
      name: 'twenty thousand parts',
      bytes: () =>
        rawZip([
          ...workbookParts(),
          ...Array.from({ length: 20_000 }, (_, i) => ({ name: `x${i}`, body: '' })),
        ]),
      refused: 'tooLarge',
    },
    {
      name: 'a part packed in another way',
      bytes: () => rawZip(sheetPart('x', { method: 12 })),
      refused: 'brokenWorkbook',
    },
    {
      name: 'a thousand sheets',
      bytes: () =>
        rawZip([
          ...workbookParts({
            workbook: `<workbook xmlns:r="r"><sheets>${Array.from({ length: 1000 }, (_, i) => `<sheet name="S${i}" sheetId="${i}" r:id="rId1"/>`).join('')}</sheets></workbook>`,
          }),
        ]),
      refused: null,
    },
    {
      name: 'cut off in the middle',
      bytes: () => rawZip(workbookParts()).subarray(0, 700),
      refused: 'brokenWorkbook',
    },
    {
      name: 'a workbook that names itself as its sheet',
      bytes: () =>
        rawZip([
          { name: '_rels/.rels', body: rels([['rId1', 'officeDocument', 'xl/workbook.xml']]) },
          {
            name: 'xl/workbook.xml',
            body: '<workbook xmlns:r="r"><sheets><sheet name="L" r:id="rId1"/></sheets></workbook>',
          },
          { name: 'xl/_rels/workbook.xml.rels', body: rels([['rId1', 'worksheet', '../xl/workbook.xml']]) },
        ]),
      refused: 'emptyFile',
    },
  ];
}
