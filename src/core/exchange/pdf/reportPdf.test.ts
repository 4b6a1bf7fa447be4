import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { minor } from '@/core/money';
import { account, calendar } from '@/core/test/build';
import { STANDARD, varianceTableOf } from '@/core/test/variance';
import { cellOf, fileTable, type ReportRow, type ReportTable } from '@/core/report';
import { reportPdf, scriptsIn, type PdfFonts, type PdfRequest } from '.';
import { runsOf, unknownIn } from './fonts';
import { keptTogether } from './tablePages';

const file = (weight: number, part: string, of = 'ibm-plex-sans-condensed'): Uint8Array =>
  readFileSync(`node_modules/@fontsource/${of}/files/${of}-${part}-${weight}-normal.woff`);
const face = (weight: number) => ({
  latin: file(weight, 'latin'),
  latinExt: file(weight, 'latin-ext'),
  greek: file(weight, 'greek', 'ibm-plex-sans'),
  cyrillic: file(weight, 'cyrillic', 'ibm-plex-sans'),
});
const fonts: PdfFonts = {
  plain: face(400),
  bold: face(600),
  title: { latin: file(500, 'latin', 'newsreader') },
};
const of = (tables: readonly ReportTable[], style: Partial<PdfRequest['style']> = {}): PdfRequest => ({
  tables,
  fonts,
  made: '2026-11-26T12:00:00Z',
  page: ['Page', 'of'],
  style: {
    locale: 'en-US',
    amounts: { cents: true, negatives: 'parentheses' },
    unit: 'in thousands of USD',
    paper: 'A4',
    notes: 'Notes',
    ...style,
  },
});

/** The text of a PDF and its pages, as Poppler's pdftotext and pdfinfo read it (Debian: poppler-utils). */
async function read(
  request: PdfRequest,
  structured = false,
): Promise<{
  readonly text: string;
  readonly info: string;
  readonly structure: string;
}> {
  const folder = mkdtempSync(join(tmpdir(), 'pdf-'));
  try {
    const path = join(folder, 'x.pdf');
    writeFileSync(path, await reportPdf(request));
    const run = (tool: string, ...args: string[]) => execFileSync(tool, args, { encoding: 'utf8' });
    return {
      text: run('pdftotext', '-layout', path, '-'),
      info: run('pdfinfo', path),
      // Slow of many rows: read where it is asked for.
      structure: structured ? run('pdfinfo', '-struct-text', path) : '',
    };
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const accounts = [
  account('s', 'income', 'Sales'),
  account('c', 'costOfSales', 'Goods sold, Łódź'),
  account('x', 'expense', 'Rent'),
];
const month = calendar.firstOfYear(2026) + 3;
const table = (count = 1): ReportTable => {
  const many = Array.from({ length: count }, (_, i) =>
    accounts.map((a) => ({ ...a, id: `${a.id}${i}`, name: `${a.name} ${i}` })),
  ).flat();
  return varianceTableOf({
    accounts: many,
    actual: (a, p) => (p <= month ? minor(a.id.charCodeAt(0) * 1234 + p * 7) : null),
    budget: (a, p) => minor(a.id.charCodeAt(0) * 1200 + p * 9),
    month,
    through: month,
    change: {
      varianceNotes: {
        [calendar.period(month).id]: {
          s0: { text: `Because ${'of the weather '.repeat(30)}.`, against: null, parts: [], at: '' },
        },
      },
    },
    words: { title: 'Variance Apr 2026', subtitle: 'Actual against plan' },
    layout: { ...STANDARD, filter: 'all', rows: { ...STANDARD.rows, set: 'profitAndLoss' } },
  });
};

test('every figure of the table stands in the text of its pages, beside the name of its row', async () => {
  const report = table();
  const { text } = await read(of([report]));
  const lines = text.split('\n').map((l) => l.replace(/\s+/g, ' ').trim());
  let checked = 0;
  for (const row of report.rows.filter((r) => r.kind !== 'section')) {
    const line = lines.find((l) => l.startsWith(row.label));
    const money = report.columns.flatMap((c) =>
      c.kind === 'money' && cellOf(report, row, c.key) !== null ? [Number(cellOf(report, row, c.key))] : [],
    );
    const shown = [...line!.matchAll(/\(?[\d,]+\.\d\d\)?(?!%)|–(?= |$)/g)].map(([t]) =>
      t === '–' ? 0 : Math.round(Number(t.replace(/[(),]/g, '')) * (t.startsWith('(') ? -100 : 100)),
    );
    expect(shown).toEqual(money);
    checked += money.length;
  }
  expect(checked).toBeGreaterThan(60);
  expect(text).toContain('Because of the weather');
  expect(text).toContain('Page 1 of 2');
});

test('heads stand on each page; nothing of a long report is lost; both papers', async () => {
  for (const [paper, size] of [
    ['A4', /595\.28 x 841\.89|841\.89 x 595\.28/],
    ['Letter', /612 x 792|792 x 612/],
  ] as const) {
    const { text, info } = await read(of([table(80)], { paper }));
    const pages = text.split('\f').slice(0, -1);
    expect(pages.length).toBeGreaterThan(4);
    expect(info).toMatch(size);
    expect(info).toMatch(new RegExp(`Pages: +${pages.length}`));
    // But for the notes behind it.
    for (const page of pages.slice(0, -1)) expect(page).toMatch(/month +toDate +year/);
    for (let i = 0; i < 80; i++) expect(text).toMatch(new RegExp(`Rent ${i} `));
  }
});

test('what is wider than any page goes over several, each with the names', async () => {
  const wide = table();
  const times = 5;
  const many: ReportTable = {
    ...wide,
    columns: Array.from({ length: times }, (_, i) =>
      wide.columns
        .filter((c) => c.kind !== 'text')
        .map((c) => ({ ...c, key: `${c.key}${i}`, block: `${c.block}${i}`, group: `${c.group}${i}` })),
    ).flat(),
    rows: wide.rows.map((r) => ({
      ...r,
      cells: r.cells.length === 0 ? [] : Array.from({ length: times }, () => r.cells.slice(0, -1)).flat(),
    })),
  };
  const { text } = await read(of([many]));
  for (let i = 0; i < times; i++)
    for (const head of ['month', 'toDate', 'year']) expect(text).toContain(`${head}${i}`);
  expect(text.match(/^ *Rent 0/gm)!.length).toBeGreaterThan(1);
});

test('words that are short stand in the table, others behind it', async () => {
  const words = (key: string, short: boolean) => ({
    key,
    group: '',
    label: key,
    kind: 'text' as const,
    of: 'note' as const,
    formula: null,
    ...(short ? { short: true as const } : {}),
  });
  const plain = fileTable(table(), true);
  const row = plain.rows.find((r) => r.kind === 'line')!;
  const { text } = await read(
    of([
      {
        ...plain,
        columns: [words('When', true), words('Why', false)],
        rows: [{ ...row, label: 'Jobs', cells: ['from Jan', 'A yard opens'] }],
      },
    ]),
  );
  const [first, second] = text.split('\f');
  expect(first).toMatch(/Jobs +from Jan/);
  expect(first).not.toContain('A yard opens');
  expect(second).toContain('A yard opens');
  expect(second).not.toContain('from Jan');
});

test('several reports follow one another in one count of pages', async () => {
  const { text } = await read(of([fileTable(table()), fileTable(table())]));
  expect(text).toContain('Page 1 of 4');
  expect(text).toContain('Page 4 of 4');
});

test('totals stay with what they total, headings with their first line', () => {
  const rows = (['section', 'line', 'line', 'subtotal', 'section', 'line', 'group', 'result'] as const).map(
    (kind) => ({ kind }) as ReportRow,
  );
  expect(keptTogether(rows)).toEqual([
    [0, 1],
    [2, 3],
    [4, 5, 6, 7],
  ]);
});

test('letters are set in the font that has them; what none has is told, and left out', () => {
  expect(runsOf('Łódź 漢 😀', fonts.plain)).toEqual([
    { script: 'latinExt', text: 'Ł' },
    { script: 'latin', text: 'ód' },
    { script: 'latinExt', text: 'ź' },
    { script: 'latin', text: '  ' },
  ]);
  expect([...scriptsIn(['Sales', 'Łódź'])]).toEqual(['latin', 'latinExt']);
  expect(unknownIn(['Łódź 漢字 漢', 'A\u00a0b\tc', '😀 ok', 'Ω и'])).toEqual({
    letters: ['漢', '字'],
    signs: ['😀'],
  });
});

test('Greek and Cyrillic stand in titles, rows and notes, as other programs read them', async () => {
  const plain = fileTable(table(), true);
  const named: ReportTable = {
    ...plain,
    book: 'Ελληνικά Σκάφη',
    title: 'Отклонения за май',
    rows: plain.rows.map((r) => (r.label.startsWith('Rent') ? { ...r, label: 'Ενοίκιο и аренда № 5' } : r)),
  };
  // A letter with its accent apart is the letter that has one.
  const { text } = await read(of([{ ...named, subtitle: 'Cafe\u0301' }]));
  for (const words of ['Ελληνικά Σκάφη', 'Отклонения за май', 'Ενοίκιο и аренда № 5', 'Café'])
    expect(text).toContain(words);
  expect(text).not.toContain('?');
});

/* ISO 32000-1, 14.8 (tagged PDF): as Poppler's pdfinfo reads the structure. */
test('a document is tagged: titles are headings, figures stand in tables whose rows and columns have heads', async () => {
  const plain = table(24);
  const { info, structure } = await read(of([plain]), true);
  expect(info).toMatch(/Tagged: +yes/);
  expect(Number(/Pages: +(\d+)/.exec(info)![1])).toBeGreaterThan(1);
  const count = (type: string) => structure.match(new RegExp(`^ *${type}(?= |$)`, 'gm'))?.length ?? 0;
  expect([count('H1'), count('Table')]).toEqual([1, 1]);
  const rows = fileTable(plain, true).rows.filter((r) => r.kind !== 'blank');
  // One row of heads, though they are printed on every page.
  expect(count('TR')).toBe(rows.length + 1);
  expect(structure).toMatch(/H1[^\n]*\n +"Variance Apr 2026"/);
  expect(structure).toContain('"Goods sold, Łódź 7"');
  const scopes = [...structure.matchAll(/TH:\s+\/Scope \/(\w+)/g)].map(([, of]) => of);
  expect(scopes.filter((of) => of === 'Column')).toHaveLength(
    plain.columns.filter((c) => c.kind !== 'text').length,
  );
  expect(scopes.filter((of) => of === 'Row')).toHaveLength(rows.length);
});
