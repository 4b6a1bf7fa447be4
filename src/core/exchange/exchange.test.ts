import ExcelJS from 'exceljs';
import { HyperFormula } from 'hyperformula';
import { minor, MOST_AMOUNT, unitOf } from '@/core/money';
import { fileTable, SHIPPED, type ReportTable } from '@/core/report';
import { BOOK_VERSION, perform, openHistory, type Layout, type VarianceNote } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  lastYear,
  line,
  pct,
  periodIds,
  siteAxis,
  sourceOf,
} from '../test/build';
import { budgetTableOf, groundWith, reportOf, varianceTableOf } from '../test/variance';
import { bookFile, parseBookFile, reportCsv, reportXlsx } from '.';
import { reportsXlsx } from './reportXlsx';
import { bookFileJsonSchema } from './bookSchema';

const accounts = [
  account('s', 'income', 'Sales', '4000'),
  account('f', 'income', '=HYPERLINK("x")', '4100'),
  account('c', 'costOfSales', 'Goods', '5000'),
  account('x', 'expense', '@cmd', '6000'),
  account('o', 'otherIncome', 'Interest', '7000'),
];
const periods = Array.from({ length: 12 }, (_, i) => calendar.period(calendar.firstOfYear(2026) + i));
const amountsOf = (id: string) =>
  periods.map((_, i) =>
    id === 'x' && i === 3 ? null : minor(id.charCodeAt(0) * 101 + i * 37 - (i === 5 ? 9000 : 0)),
  );

const budgetTable = (currency = 'USD'): ReportTable =>
  budgetTableOf(
    {
      accounts,
      lastYear: (a) => [a.id === 'o' ? 0 : 77777, ...new Array<null>(10).fill(null), 0],
      lines: accounts.map((a) => ({
        ...line(a.id, byMonth(Object.fromEntries(periods.map((p, i) => [p.id, amountsOf(a.id)[i]!])))),
        note: { text: '-2+3', by: '', at: 't' },
      })),
      change: { currency },
    },
    {
      words: {
        title: 'FY26 budget',
        span: (s) => (s.of === 'month' ? calendar.period(s.periods[0]!).label : s.key),
        column: (c) => (c.show === 'compared' ? 'Budget' : c.show),
      },
    },
  );
const month = periods[4]!.index;
const GOES_ON: VarianceNote['parts'] = [{ kind: 'lasting', amount: null, monthly: minor(5), until: null }];
const varianceTable = (currency = 'USD'): ReportTable =>
  varianceTableOf({
    accounts,
    words: { title: 'Variance May 2026' },
    actual: (a, p) => (p <= month ? minor(a.id.charCodeAt(0) * 90 + p) : null),
    budget: (a, p) => amountsOf(a.id)[p - periods[0]!.index] ?? null,
    // One line stands apart: its year has an amount, its months have none of it.
    whole: (a) => (a.id === 'x' ? minor(1_000_00) : null),
    month,
    through: month,
    change: {
      currency,
      varianceNotes: {
        [calendar.period(month).id]: Object.fromEntries(
          accounts.map((a) => [
            a.id,
            { text: 'why', against: null, parts: [{ kind: 'timing', amount: null, back: [] }], at: 't' },
          ]),
        ),
      },
    },
  });

/** Every figure of a written workbook as another engine reckons it from the formulas alone. */
async function recalculated(table: ReportTable): Promise<{ checked: number; formulas: number }> {
  const wb = new ExcelJS.Workbook();
  await wb.xlsx.load((await reportXlsx(table)).buffer as ArrayBuffer);
  const ws = wb.worksheets[0]!;
  const rows: (string | number | null)[][] = [];
  ws.eachRow({ includeEmpty: true }, (row, r) => {
    rows[r - 1] = [];
    for (let c = 1; c <= ws.columnCount; c++) {
      const { value } = row.getCell(c);
      rows[r - 1]![c - 1] =
        value && typeof value === 'object' && 'formula' in value
          ? `=${(value as { formula: string }).formula}`
          : ((value as string | number | null) ?? null);
    }
  });
  const engine = HyperFormula.buildFromArray(rows, { licenseKey: 'gpl-v3' });
  let checked = 0;
  let formulas = 0;
  table.rows.forEach((row, r) =>
    row.cells.forEach((cell, c) => {
      const { kind } = table.columns[c]!;
      if (cell === null || row.kind === 'section' || (kind !== 'money' && kind !== 'perMille')) return;
      const theirs = engine.getCellValue({ sheet: 0, row: r + 5, col: c + 2 }) as number;
      if (kind === 'money') expect(Math.round(theirs * unitOf(table.currency))).toBe(cell);
      else expect(Math.abs(theirs * 1000 - Number(cell))).toBeLessThanOrEqual(0.5 + 1e-9);
      if (String(rows[r + 5]![c + 2]).startsWith('=')) formulas++;
      checked++;
    }),
  );
  engine.destroy();
  return { checked, formulas };
}

describe('XLSX', () => {
  // HyperFormula, a general spreadsheet engine, reckons the workbook's own formulas.
  test.each(['USD', 'JPY', 'KWD'])('formulas of the budget give our figures in %s', async (currency) => {
    const { checked, formulas } = await recalculated(budgetTable(currency));
    expect(checked).toBeGreaterThan(120);
    expect(formulas).toBeGreaterThan(80);
  });
  test('formulas of the variance report give our figures', async () => {
    const { formulas } = await recalculated(fileTable(varianceTable()));
    expect(formulas).toBeGreaterThan(60);
  });
  test.each([
    ...SHIPPED.filter((l) => l.rows.set !== 'units').map((l) => [l.name, l] as const),
    [
      'months of balances, across and beneath',
      {
        ...SHIPPED[1]!,
        rows: { ...SHIPPED[1]!.rows, set: 'both' },
        segments: { axis: 'x', place: 'beneath', values: [] },
        filter: 'all',
      },
    ],
  ] as (readonly [string, Layout])[])(
    'the workbook of a layout reckons to its own figures: %s',
    async (_, layout) => {
      const bank = account('b', 'bank', 'Bank', '1000');
      const ground = groundWith({
        accounts: [...accounts, bank],
        actual: (a, p) => (p <= month ? minor(a.id.charCodeAt(0) * 90 + p * 7) : null),
        budget: (a, p) => amountsOf(a.id)[p - periods[0]!.index] ?? null,
        whole: (a) => (a.id === 'x' ? minor(1_000_00) : null),
        through: month,
        change: { axes: [siteAxis({ s: 'n', c: 'n' })] },
      });
      const table = fileTable(reportOf(ground, layout, month).table);
      const { checked } = await recalculated(table);
      expect(checked).toBeGreaterThan(0);
    },
  );
  test('typed numbers, formats, frozen heads, and no text that runs', async () => {
    const wb = new ExcelJS.Workbook();
    await wb.xlsx.load((await reportXlsx(budgetTable())).buffer as ArrayBuffer);
    const ws = wb.worksheets[0]!;
    expect(ws.views[0]).toMatchObject({ state: 'frozen', xSplit: 2, ySplit: 5 });
    expect(ws.getCell('C7').value).toBe(Number((amountsOf('s')[0]! / 100).toFixed(2)));
    expect(ws.getCell('C7').numFmt).toBe('#,##0.00;(#,##0.00);"–"');
    expect(ws.getCell('B8').value).toBe('\'=HYPERLINK("x")');
    expect(ws.getCell('C9').value).toMatchObject({ formula: 'SUM(C7:C8)' });
  });
  test('printed, its heads stand on every page and its foot says what it is; a name’s & is no code', async () => {
    const wb = new ExcelJS.Workbook();
    const own = { ...budgetTable(), book: 'Oak & Ash', title: 'Plan' };
    await wb.xlsx.load((await reportXlsx(own)).buffer as ArrayBuffer);
    const ws = wb.worksheets[0]!;
    expect(ws.pageSetup).toMatchObject({
      orientation: 'landscape',
      printTitlesRow: '4:5',
      printTitlesColumn: 'A:B',
    });
    expect(ws.headerFooter.oddFooter).toBe('&LOak && Ash · Plan&R&P / &N');
  });
});

test('files say in which currency they are, and why some columns are of fewer months', async () => {
  const [first, ...others] = budgetTable().columns;
  const own = {
    ...budgetTable(),
    subtitle: 'Draft',
    columns: [{ ...first!, lacks: 'no plan for May' }, ...others.map((c) => ({ ...c, lacks: '' }))],
  };
  expect(reportCsv(own).split('\r\n')[1]).toBe('Draft · USD · no plan for May');
  const wb = new ExcelJS.Workbook();
  await wb.xlsx.load((await reportXlsx(own)).buffer as ArrayBuffer);
  expect(wb.worksheets[0]!.getCell('A3').value).toBe('Draft · USD · no plan for May');
});

describe('CSV', () => {
  const rows = reportCsv(budgetTable()).split('\r\n');
  test('RFC 4180 lines, plain decimals, blank is empty', () => {
    expect(rows[2]).toMatch(/^Code,Line,Jan 2026 Budget,/);
    expect(rows[4]).toMatch(/^4000,Sales,116\.15,116\.52/);
    const expenses = rows.find((r) => r.startsWith('6000'))!.split(',');
    expect(expenses[5]).toBe('');
  });
  test('text that a spreadsheet would run is neutralized', () => {
    expect(rows[5]).toContain(`"'=HYPERLINK(""x"")"`);
    expect(rows.find((r) => r.startsWith('6000'))).toMatch(/^6000,'@cmd,/);
    expect(rows[4]).toContain("'-2+3");
  });
});

describe('the book as a file', () => {
  const source = sourceOf({
    mapping: { a: [1] },
    rows: { read: 2, used: 2, leftOut: [{ reason: 'header', count: 1 }] },
  });
  const block = blockOf(accounts, [
    ['2025-01-05', 's', 100],
    ['2025-02-05', 'x', -250],
  ]);
  let history = openHistory(
    bookWith(accounts, {
      budgets: [budgetOf([line('s', lastYear({ uplift: pct('3'), round: 10 }))])],
    }),
    [],
  );
  for (const command of [
    {
      type: 'takeIn',
      source,
      newAccounts: [],
      accountChanges: [],
      axes: [],
      replaces: [],
      closedThrough: periodIds(2025)[11]!,
      nextId: 200,
    },
    {
      type: 'setCells',
      budget: 'b1',
      how: 'typed',
      cells: [{ account: 's', segment: null, period: periodIds(2026)[0]!, value: null }],
    },
    {
      type: 'setVarianceNote',
      period: periodIds(2025)[0]!,
      account: 's',
      note: {
        text: '"quoted" – ünïcode',
        against: 'b1',
        parts: GOES_ON,
        at: 't',
      },
    },
  ] as const) {
    const step = perform(history, command, 't');
    if (step.ok) history = step.history;
  }
  const text = bookFile({ book: history.book, blocks: [block], journal: history.journal });

  test('opens again identically', () => {
    const read = parseBookFile(text);
    expect(read).toEqual({
      ok: true,
      book: history.book,
      blocks: [block],
      journal: history.journal,
      setAside: [],
    });
    expect(read.ok && bookFile(read)).toBe(text);
  });
  type File = { book: { version: number }; ledger: { day: number[]; account: number[]; amount: number[] }[] };
  const broken = (change: (o: File) => unknown) => {
    const o = JSON.parse(text) as File;
    change(o);
    return JSON.stringify(o);
  };
  test.each<[string, string, string]>([
    ['cut off', text.slice(0, -20), 'notJson'],
    ['something else', '{"a":1}', 'notABook'],
    ['a column of the ledger cut short', broken((o) => o.ledger[0]!.day.pop()), 'brokenLedger'],
    [
      'an entry of an account that is not listed',
      broken((o) => (o.ledger[0]!.account[0] = 99)),
      'brokenLedger',
    ],
    ['a source without its entries', broken((o) => (o.ledger = [])), 'brokenLedger'],
    ['a half cent', broken((o) => (o.ledger[0]!.amount[0] = 0.5)), 'invalid'],
    [
      'a newer version',
      broken((o) => (o.book.version = (BOOK_VERSION + 1) as typeof BOOK_VERSION)),
      'newerVersion',
    ],
  ])('%s is refused as a whole', (_n, bad, code) =>
    expect(parseBookFile(bad)).toMatchObject({ ok: false, issue: { code } }),
  );

  // ECMA-262, 20.1.3: what every object has from Object.prototype; "__proto__" and its like (B.2.2) are no ids anyhow.
  test.each(Object.getOwnPropertyNames(Object.prototype))(
    '%s is no id in a book, its ledger or a layout',
    (word) => {
      const renamed = (id: string) => JSON.parse(text.replaceAll(`"${id}"`, `"${word}"`)) as { book: object };
      for (const id of ['s', 'b1']) {
        const o = renamed(id);
        expect(parseBookFile(JSON.stringify(o))).toMatchObject({ ok: false, issue: { code: 'invalid' } });
      }
      const ledger = broken((o) => ((o.ledger[0] as unknown as { accounts: string[] }).accounts[0] = word));
      expect(parseBookFile(ledger)).toMatchObject({
        ok: false,
        issue: { code: 'invalid', path: 'ledger.0.accounts.0' },
      });
      for (const key of ['merged', 'flowClasses', 'variableShares', 'outlookWays']) {
        const o = JSON.parse(text) as { book: Record<string, unknown> };
        // As JSON, so that the word is a key of its own.
        o.book[key] = JSON.parse(`{${JSON.stringify(word)}:"s"}`);
        const read = parseBookFile(JSON.stringify(o));
        // The library drops "__proto__" of a record before anyone looks.
        if (word === '__proto__') expect(read.ok && Object.keys(read.book[key as 'merged'])).toEqual([]);
        else expect(read).toMatchObject({ ok: false, issue: { code: 'invalid' } });
      }
    },
  );

  test('the JSON Schema is of draft 2020-12 and names the parts', () => {
    expect(bookFileJsonSchema()).toMatchObject({
      $schema: 'https://json-schema.org/draft/2020-12/schema',
      type: 'object',
      required: ['format', 'version', 'book', 'ledger', 'journal'],
    });
  });
});

describe('names and figures that spreadsheets have no place for', () => {
  const opened = async (table: ReportTable) => {
    const wb = new ExcelJS.Workbook();
    await wb.xlsx.load((await reportXlsx(table)).buffer as ArrayBuffer);
    return wb.worksheets[0]!;
  };
  // A sheet's name has 31 letters at most, none of \ / ? * [ ] :, no apostrophe at an end, and is not "History"
  // (common practice of spreadsheets; from memory).
  test.each([
    ['History', 'History report'],
    ['history', 'history report'],
    ["Ines' budget '", "Ines' budget"],
    ["'quoted'", 'quoted'],
    ["It's fine", "It's fine"],
    ["'''", 'Report'],
    ['a/b\\c?d*e[f]g:h', 'a b c d e f g h'],
    ['x'.repeat(30) + "'y", 'x'.repeat(30)],
    ['\u0001\u0002', 'Report'],
  ])('a report called %j is a sheet called %j', async (title, name) =>
    expect((await opened({ ...budgetTable(), title })).name).toBe(name),
  );
  test.each([
    ['\n=1+1'],
    ['\r=1'],
    ['\t@x'],
    ['＝1+1'],
    ['＋1'],
    ['－1'],
    ['＠x'],
    ['=1'],
    ['-1'],
    ['+1'],
    ['@x'],
  ])('the text %j is no formula on its way out', (text) => {
    const csv = reportCsv({ ...budgetTable(), title: 'T', subtitle: text });
    expect(csv).toContain(`'${text}`);
  });
  test('a total that is too large to be told says so, in CSV and in a workbook', async () => {
    const many = Array.from({ length: 1000 }, (_, i) => account(`s${i}`, 'income'));
    const most = byMonth(Object.fromEntries(periods.map((p) => [p.id, minor(MOST_AMOUNT)])));
    const table = budgetTableOf({ accounts: many, lines: many.map((a) => line(a.id, most)) }, { by: 'year' });
    expect(reportCsv(table)).toContain('Net profit,too large');
    const sheet = await opened(table);
    expect(sheet.lastRow!.getCell(3).value).toBe('too large');
    // Each line is within what can be told: 12 × 99,999,999,999.99.
    expect(sheet.getRow(8).getCell(3).result ?? sheet.getRow(8).getCell(3).value).toBe(1199999999999.88);
  });
});

describe('several reports in one workbook', () => {
  const names = async (tables: readonly ReportTable[]) => {
    const wb = new ExcelJS.Workbook();
    await wb.xlsx.load((await reportsXlsx(tables)).buffer as ArrayBuffer);
    return wb;
  };
  test('each has a sheet of its own name, whatever their titles', async () => {
    const wb = await names(
      ['Plan', 'plan', 'x'.repeat(40), 'X'.repeat(40)].map((title) => ({ ...budgetTable(), title })),
    );
    expect(wb.worksheets.map((s) => s.name)).toEqual([
      'Plan',
      'plan 2',
      'x'.repeat(31),
      `${'X'.repeat(29)} 2`,
    ]);
  });
  test('a row that is a row of another report refers to its sheet; one that is not there keeps its value', async () => {
    const source = { ...budgetTable(), report: 'r1', title: "Ann's plan" };
    const own = fileTable(budgetTable());
    const linked = (row: string) => ({
      ...own,
      title: 'Other',
      rows: own.rows.map((r) => (r.key === 's' ? { ...r, linked: [{ report: 'r1', row }] } : r)),
    });
    const wb = await names([source, linked('netProfit'), linked('nothing')]);
    expect(wb.worksheets[1]!.getCell('C7').value).toMatchObject({
      formula: expect.stringMatching(/^'Ann''s plan'!C\d+$/),
    });
    expect(wb.worksheets[2]!.getCell('C7').value).toBe(wb.worksheets[0]!.getCell('C7').value);
  });
});
