import fc from 'fast-check';
import { HyperFormula } from 'hyperformula';
import { minor, sum, type Minor } from '@/core/money';
import type { Driver, Line, Method } from '@/core/model';
import { createReckoner, frozenLines } from '@/core/plan';
import { budgetRows, fillStatement } from '@/core/report';
import {
  account,
  factsWith,
  formula,
  lastYear,
  line,
  pattern,
  pct,
  periodIds,
  phased,
  runRate,
  share,
  yearly,
} from '../test/build';
import type { PlanCell, PlanSheet } from './planLayout';
import { planSheets } from './planSheets';
import { planWorkbook, type WorkbookInput } from './planWorkbook';
import { planXlsx } from './planXlsx';

const ids = periodIds(2026);
const accounts = [
  account('s', 'income', 'Sales', '4000'),
  { ...account('f', 'income', 'Fees', '4100'), group: 'Members' },
  { ...account('g', 'income', 'Guests', '4110'), group: 'Members' },
  account('c', 'costOfSales', 'Goods', '5000'),
  account('w', 'expense', 'Wages', '6000'),
  account('r', 'expense', 'Rent', '6100'),
];
const season = [10033, 20011, 30007, 41234, 50000, 61001, 70777, 80123, 90999, 100001, 110555, 120333];
const facts = factsWith(accounts, {
  s: season,
  f: season.map((v) => v - 7777),
  g: [500, null, null, 700, null, null, 900, null, null, 1100, null, null],
  c: season.map((v) => Math.round(v * 0.41)),
  w: new Array<number>(12).fill(250_000),
  r: new Array<number>(12).fill(120_050),
});

const driver = (
  id: string,
  series: Driver['series'],
  decimals = 0,
  opening: number | null = null,
): Driver => ({
  id,
  name: `Driver ${id}`,
  unit: '',
  decimals,
  opening,
  series,
  note: '',
});
const drivers = [
  driver('d1', { kind: 'typed', values: Object.fromEntries(ids.map((p, i) => [p, 20 + i])) }),
  driver(
    'd2',
    {
      kind: 'step',
      start: 1250,
      first: ids[6]!,
      every: 6,
      change: { of: 'percent', percent: pct('4'), compounding: true },
    },
    2,
  ),
  driver('d3', { kind: 'formula', formula: 'prior "driver:d3" + "driver:d1" / 10 - 1' }, 1, 350),
];

/** The sheets as a general spreadsheet engine reckons them, from formulas and constants alone. */
function recalculated(sheets: readonly PlanSheet[]): (row: number, column: number) => unknown {
  const plain = (cell: PlanCell): string | number | null =>
    cell !== null && typeof cell === 'object'
      ? 'percent' in cell
        ? cell.percent
        : `=${cell.formula}`
      : typeof cell === 'string' && cell.startsWith('=')
        ? `'${cell}`
        : cell;
  const engine = HyperFormula.buildFromSheets(
    Object.fromEntries(sheets.map((s) => [s.name, s.rows.map((r) => r.map(plain))])),
    { licenseKey: 'gpl-v3' },
  );
  const sheet = engine.getSheetId(sheets[0]!.name)!;
  return (row, col) => engine.getCellValue({ sheet, row, col });
}

function check(lines: readonly Line[]): PlanSheet[] {
  const reckoning = createReckoner()({ lines, drivers }, facts);
  const rows = budgetRows(accounts, 'profitAndLoss');
  const sheets = planSheets({
    book: 'Book',
    title: 'Budget',
    subtitle: 'Draft',
    currency: 'USD',
    rows,
    accounts,
    lines,
    drivers,
    facts,
    reckoning,
    segment: null,
    methodName: (l) => l.method.kind,
  });
  const value = recalculated(sheets);
  const filled = fillStatement(rows, 12, (id) => reckoning.lines.figures(id, 'all')?.amounts ?? null);
  rows.forEach((row, r) => {
    if (row.kind === 'section') return;
    filled[r]!.forEach((expected, i) => {
      const got = value(4 + r, 5 + i);
      const cents = typeof got === 'number' ? Math.round(got * 100) : got;
      // An empty total of blanks is zero to a spreadsheet.
      if (expected === null) expect([null, 0]).toContain(cents);
      else
        expect([row.kind === 'line' ? row.account.id : row.kind, i, cents]).toEqual([
          row.kind === 'line' ? row.account.id : row.kind,
          i,
          expected,
        ]);
    });
    const total = value(4 + r, 17);
    const months = filled[r]!.filter((v): v is Minor => v !== null);
    if (months.length > 0) expect(Math.round(Number(total) * 100)).toBe(sum(months));
    const saved = sheets[0]!.rows[4 + r]![17];
    if (saved && typeof saved === 'object' && 'result' in saved)
      expect(Math.round(saved.result * 100)).toBe(sum(months));
  });
  return sheets;
}

const step: Method = {
  kind: 'step',
  start: minor(100_050),
  first: ids[2]!,
  every: 2,
  change: { of: 'percent', percent: pct('1.25'), compounding: true },
  round: 0,
};
const paydays: Method = {
  kind: 'occurrence',
  amount: minor(84_637),
  on: { of: 'weeks', every: 2, from: '2026-01-09' as never },
};

describe('a budget as sheets that reckon themselves, recalculated by hyperformula', () => {
  test.each<[string, Method]>([
    ['last year with uplift', lastYear({ uplift: pct('3.3') })],
    [
      'last year, an amount more, rounded to tens',
      lastYear({ uplift: pct('-2'), add: minor(1234), round: 10 }),
    ],
    ['last year without a lump', lastYear({ skip: { [ids[4]!]: minor(30_000), [ids[5]!]: null } })],
    ['the run rate', runRate({ uplift: pct('7') })],
    [
      'the last three months and an amount',
      runRate({ over: { of: 'last', months: 3 }, add: minor(999), uplift: pct('1.5') }),
    ],
    ['an even amount that does not divide', phased(1_000_001)],
    ['by days with uplift', phased(1_234_567, { by: { by: 'days' }, uplift: pct('2.5') })],
    ['by working days, rounded', phased(1_234_567, { by: { by: 'workingDays' }, round: 100 })],
    [
      'quarterly amounts',
      phased(null, { amounts: { per: 'quarter', amounts: [100, 200, 300, 401].map(minor) } }),
    ],
    ['a pattern', pattern(987_654, { uplift: pct('4') })],
    ['a pattern of a group', pattern(987_654, { like: { of: 'group', kind: 'income', group: 'Members' } })],
    ['steps', step],
    ['a share of a line', share('s', '12.75')],
    [
      'a share of a group two months later',
      share('', '8.5', { of: { of: 'group', kind: 'income', group: 'Members' }, lag: 2 }),
    ],
    ['a share from history', { ...share('s', '0'), percent: null }],
    ['paydays', paydays],
    ['drivers', { kind: 'driver', factors: ['d1', 'd2'], round: 0 }],
    ['a driver that follows itself', { kind: 'driver', factors: ['d3', 'd2'], round: 1 }],
    ['a formula', formula('"account:s" * 12.5% + "driver:d1" * 2 - prior 2 "account:f"')],
    [
      'a formula that chooses',
      formula(
        'if "driver:d1" > 25 and "account:s" > 100 then max("kind:income", 500) / 3 else round("account:s" to 50)',
      ),
    ],
    ['for the year as a whole', { kind: 'unphased', amounts: yearly(500_000) }],
  ])('%s', (_name, method) => {
    const lines = [
      line('s', lastYear({ uplift: pct('5') }), { [ids[1]!]: minor(123_456) }),
      line('f', lastYear()),
      line('g', lastYear()),
      line('w', phased(3_000_000)),
      line('c', method),
    ];
    if (method.kind !== 'unphased') check(lines);
    else {
      const reckoned = createReckoner()({ lines, drivers }, facts);
      expect(reckoned.lines.get({ account: 'c', segment: null })!.total).toBe(500_000);
    }
  });

  const percents = fc.integer({ min: -500, max: 900 }).map((n) => pct((n / 10).toFixed(1)));
  const any = fc.oneof<fc.Arbitrary<Method>[]>(
    percents.map((uplift) => lastYear({ uplift })),
    fc.tuple(fc.integer({ min: -1e8, max: 1e8 }), percents).map(([a, uplift]) => phased(a, { uplift })),
    fc.tuple(fc.integer({ min: 0, max: 1e8 }), percents).map(([a, uplift]) => pattern(a, { uplift })),
    percents.map((p) => share('s', p)),
    fc.constantFrom(step, paydays, formula('"account:s" / 7 + "driver:d2"')),
  );
  test('whatever the methods are', () => {
    fc.assert(
      fc.property(any, any, any, (f, c, w) => {
        check([line('s', lastYear({ uplift: pct('5') })), line('f', f), line('c', c), line('w', w)]);
      }),
      { numRuns: 60 },
    );
  });

  test('an input that is changed in the workbook moves what follows from it', () => {
    const lines = [line('s', phased(1_200_000)), line('c', share('s', '10'))];
    const sheets = check(lines);
    const budget = sheets[0]!.rows.map((r) => [...r]);
    const sales = budget.findIndex((r) => r[1] === 'Sales');
    const goods = budget.findIndex((r) => r[1] === 'Goods');
    budget[sales]![4] = 24_000;
    const value = recalculated([{ ...sheets[0]!, rows: budget }, ...sheets.slice(1)]);
    expect(value(sales, 5)).toBe(2000);
    expect(value(goods, 5)).toBe(200);
  });

  test('the workbook opens with its formulas and their values', async () => {
    const sheets = check([line('s', lastYear()), line('c', share('s', '10'))]);
    const { default: ExcelJS } = await import('exceljs');
    const book = new ExcelJS.Workbook();
    await book.xlsx.load((await planXlsx(sheets, 'USD')).buffer as ArrayBuffer);
    expect(book.worksheets.map((w) => w.name)).toEqual(['Budget', 'Basis', 'Drivers']);
    const page = book.getWorksheet('Budget')!;
    const row = sheets[0]!.rows.findIndex((r) => r[1] === 'Goods') + 1;
    expect(page.getCell(row, 6).value).toEqual({ formula: `ROUND(F6*$D${row},2)`, result: 10.03 });
  });
});

describe('a workbook of segments', () => {
  const north = [line('s', phased(1_000_001)), line('c', share('s', '12.5'))];
  const south = [
    line('s', lastYear({ uplift: pct('4') })),
    line('c', { kind: 'driver', factors: ['d1', 'd2'], round: 0 }),
  ];
  const rest = [line('s', { kind: 'unphased', amounts: { per: 'year', amounts: [minor(77_700)] } })];
  const lines = [
    ...north.map((l) => ({ ...l, segment: 'v1' })),
    ...south.map((l) => ({ ...l, segment: 'v2' })),
    ...rest.map((l) => ({ ...l, segment: null })),
  ];
  const rows = budgetRows(accounts, 'profitAndLoss');
  const names = ['Mole & Quay', 'Mole – Quay', ''].map((name, i) => ({ id: ['v1', 'v2', null][i]!, name }));
  const input = (of: readonly Line[], approved: WorkbookInput['approved'] = null): WorkbookInput => ({
    book: 'Book',
    title: 'Budget',
    subtitle: '',
    currency: 'USD',
    rows,
    accounts,
    lines: of,
    drivers,
    facts,
    reckoning: createReckoner()({ lines: of, drivers }, facts),
    methodName: (l) => l.method.kind,
    segments: names,
    approved,
  });
  const frozen = (of: readonly Line[]) => ({
    at: 't',
    by: '',
    fingerprint: '',
    cash: null,
    lines: frozenLines(createReckoner()({ lines: of, drivers }, facts)),
  });

  test('its first sheet adds the segments up, as recalculated and as written; there is one sheet of drivers', () => {
    const given = input(lines);
    const sheets = planWorkbook(given);
    expect(sheets.map((s) => s.name)).toEqual([
      'Budget',
      'Budget Mole  Quay',
      'Basis Mole  Quay',
      'Drivers',
      'Budget Mole  Quay 2',
      'Basis Mole  Quay 2',
      'Budget Unassigned',
      'Basis Unassigned',
    ]);
    const value = recalculated(sheets);
    const filled = fillStatement(rows, 13, (id) => {
      const f = given.reckoning.lines.figures(id, 'all');
      return f && [...f.amounts, f.wholes[0] ?? null];
    });
    rows.forEach((row, r) => {
      if (row.kind === 'section') return;
      filled[r]!.forEach((expected, i) => {
        const cents = Math.round(Number(value(4 + r, 5 + i) ?? 0) * 100);
        expect([row.kind, i, cents]).toEqual([row.kind, i, expected ?? 0]);
        const written = sheets[0]!.rows[4 + r]![5 + i];
        if (written && typeof written === 'object' && 'result' in written)
          expect(Math.round(written.result * 100)).toBe(expected ?? 0);
      });
      expect(Math.round(Number(value(4 + r, 18) ?? 0) * 100)).toBe(sum(filled[r]!.map((v) => v ?? minor(0))));
    });
  });

  test('an approved budget keeps its formulas while it reckons to what was approved', () => {
    const sheets = planWorkbook({ ...input(north, frozen(north)), segments: [{ id: null, name: '' }] });
    const goods = sheets[0]!.rows.find((r) => r[1] === 'Goods')!;
    expect(goods[5]).toMatchObject({ formula: expect.stringContaining('ROUND') as string });
    expect(sheets[0]!.rows[2]![0]).toBe('Approved');
  });

  test('when its methods reckon otherwise by now, it shows what was approved, and says so', () => {
    const changed = [line('s', phased(2_000_000)), north[1]!];
    const sheets = planWorkbook({ ...input(changed, frozen(north)), segments: [{ id: null, name: '' }] });
    const value = recalculated(sheets);
    const sales = sheets[0]!.rows.findIndex((r) => r[1] === 'Sales');
    expect(sheets[0]!.rows[sales]![5]).toBe(833.34);
    expect(value(sales, 17)).toBeCloseTo(10_000.01, 6);
    expect(sheets[0]!.rows[2]![0]).toMatch(/reckon otherwise/);
  });
});
