import { LONGEST_CELL } from './grid';
import { readXml } from './xmlParts';
import type { Zip } from './zip';

/* The parts of a workbook beside its sheets (ECMA-376 part 1, SpreadsheetML; element names from memory). */

export type SheetPart = { readonly name: string; readonly part: string };
export type WorkbookParts = { readonly sheets: readonly SheetPart[]; readonly from1904: boolean };

/** Where the workbook's own part is, and those it names. */
async function related(zip: Zip, of: string): Promise<Map<string, { type: string; target: string }>> {
  const slash = of.lastIndexOf('/');
  const folder = of.slice(0, slash + 1);
  const out = new Map<string, { type: string; target: string }>();
  await readXml(zip, `${folder}_rels/${of.slice(slash + 1)}.rels`, {
    open(name, a) {
      if (name !== 'Relationship' || !a.Id || !a.Target) return;
      const target = a.Target.startsWith('/') ? a.Target.slice(1) : resolved(folder, a.Target);
      out.set(a.Id, { type: a.Type ?? '', target });
    },
  });
  return out;
}

function resolved(folder: string, target: string): string {
  const steps = folder.split('/').filter(Boolean);
  for (const step of target.split('/'))
    if (step === '..') steps.pop();
    else if (step !== '.') steps.push(step);
  return steps.join('/');
}

/** The visible sheets in their order, the texts that cells share, and what their formats mean. */
export async function readParts(
  zip: Zip,
): Promise<WorkbookParts & { readonly strings: readonly string[]; readonly formats: readonly CellFormat[] }> {
  const top = [...(await related(zip, '')).values()].find((r) => r.type.endsWith('/officeDocument'));
  const book = top?.target ?? 'xl/workbook.xml';
  if (!zip.has(book)) throw new Error('No workbook in it');
  const parts = await related(zip, book);
  const sheets: SheetPart[] = [];
  let from1904 = false;
  await readXml(zip, book, {
    open(name, a) {
      if (name === 'workbookPr') from1904 = a.date1904 === '1' || a.date1904 === 'true';
      if (name !== 'sheet' || (a.state ?? 'visible') !== 'visible') return;
      const id = Object.entries(a).find(([key]) => key === 'r:id' || key.endsWith(':id'))?.[1];
      const part = id === undefined ? undefined : parts.get(id);
      if (part?.type.endsWith('/worksheet')) sheets.push({ name: a.name ?? '', part: part.target });
    },
  });
  const partOf = (type: string) => [...parts.values()].find((p) => p.type.endsWith(type))?.target;
  const [strings, styles] = [partOf('/sharedStrings'), partOf('/styles')];
  return {
    sheets,
    from1904,
    // A part that is named and not there is a damaged file: without its texts or its dates a ledger is another one.
    strings: strings ? await readStrings(zip, strings) : [],
    formats: styles ? await readFormats(zip, styles) : [],
  };
}

async function readStrings(zip: Zip, part: string): Promise<string[]> {
  const out: string[] = [];
  let text = '';
  let inText = false;
  // How a text is pronounced stands beside it, in elements of the same name.
  let aside = 0;
  await readXml(zip, part, {
    open(name) {
      if (name === 'si') text = '';
      else if (name === 'rPh') aside++;
      else if (name === 't') inText = aside === 0;
    },
    text(t) {
      if (inText && text.length <= LONGEST_CELL) text += t;
    },
    close(name) {
      if (name === 't') inText = false;
      else if (name === 'rPh') aside--;
      else if (name === 'si') out.push(text);
    },
  });
  return out;
}

/** What a cell's style says of it: whether its number is a date or a percentage, and how far its text is indented. */
export type CellFormat = { readonly date: boolean; readonly percent: boolean; readonly indent: number };

/** Number formats that are dates without being written out (ECMA-376 part 1, 18.8.30, and those of East Asian locales). */
const isBuiltInDate = (id: number): boolean =>
  (id >= 14 && id <= 22) || (id >= 27 && id <= 36) || (id >= 45 && id <= 47) || (id >= 50 && id <= 58);

/** Whether a format's code writes a date or a time: signs of days, months, years outside of texts and conditions. */
export const isDateCode = (code: string): boolean =>
  /[dmyhs]/i.test(
    code
      .slice(0, 255)
      .replace(/"[^"]*"/g, '')
      .replace(/[\\_*]./g, '')
      .replace(/\[(?!h+\]|m+\]|s+\])[^\]]*\]/gi, '')
      .replace(/general/gi, '')
      .replace(/e[+-]/gi, ''),
  );

const isPercentCode = (code: string): boolean =>
  code
    .slice(0, 255)
    .replace(/"[^"]*"|\\./g, '')
    .includes('%');

async function readFormats(zip: Zip, part: string): Promise<CellFormat[]> {
  const codes = new Map<number, string>();
  const out: { id: number; indent: number }[] = [];
  let inCells = false;
  await readXml(zip, part, {
    open(name, a) {
      if (name === 'numFmt') codes.set(Number(a.numFmtId), a.formatCode ?? '');
      else if (name === 'cellXfs') inCells = true;
      else if (inCells && name === 'xf') out.push({ id: Number(a.numFmtId ?? 0), indent: 0 });
      else if (inCells && name === 'alignment' && out.length > 0)
        out.at(-1)!.indent = Math.min(50, Math.max(0, Number(a.indent) || 0));
    },
    close(name) {
      if (name === 'cellXfs') inCells = false;
    },
  });
  return out.map(({ id, indent }) => {
    const code = codes.get(id);
    return {
      indent,
      date: code === undefined ? isBuiltInDate(id) : isDateCode(code),
      percent: code === undefined ? id === 9 || id === 10 : isPercentCode(code),
    };
  });
}
