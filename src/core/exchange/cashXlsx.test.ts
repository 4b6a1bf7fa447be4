import ExcelJS from 'exceljs';
import { HyperFormula } from 'hyperformula';
import {
  byDays,
  byPeriods,
  byWeeks,
  cashTable,
  createProjector,
  forecastOf,
  type DayRange,
} from '@/core/cash';
import { minor, percent } from '@/core/money';
import { cashReport } from '@/core/report';
import { account } from '@/core/test/build';
import { atOnce, NEW_YEAR, onAccount, planned, projectionOf, terms } from '@/core/test/cash';
import { reportXlsx } from './reportXlsx';

/* The exported workbook as a general spreadsheet engine (hyperformula) reckons it, from its formulas and constants alone. */

const input = projectionOf(
  [
    planned(
      account('sales', 'income'),
      terms('sales', [
        '100',
        onAccount(
          [
            ['60', { days: 30 }],
            ['38', { days: 60 }],
          ],
          { of: 'spread' },
        ),
      ]),
      [90_001, 80_003, 12_345, 70_007, 33_333, 41_000],
    ),
    planned(account('rent', 'expense'), atOnce({ of: 'monthDay', day: 1 }), [20_000, 20_000, 20_000, 20_000]),
  ],
  {
    opening: new Map([
      ['bank', 15_000],
      ['rec', 7_700],
      ['pay', -3_300],
    ]),
  },
);
const forecast = forecastOf(createProjector()(input), {
  without: [],
  floor: minor(10_000),
  creditLine: { account: null, interest: null, limit: minor(90_000), rate: percent('9'), step: minor(500) },
  drawn: 0,
});

test.each<[string, readonly DayRange[]]>([
  ['months', byPeriods(input.periods)],
  ['weeks', byWeeks(NEW_YEAR + 1, 13)],
  ['days', byDays(NEW_YEAR + 1, 31)],
])('by %s it comes to the same closing balances', async (_name, ranges) => {
  const table = cashTable(forecast, ranges);
  const report = cashReport({
    table,
    heads: ranges.map((_, i) => ({ key: `c${i}`, group: '', label: `${i}` })),
    banks: [],
    book: 'Book',
    currency: 'USD',
    title: 'Cash ahead',
    subtitle: '',
  });
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load((await reportXlsx(report)).buffer as ArrayBuffer);
  const sheet = workbook.worksheets[0]!;
  let formulas = 0;
  const cells = Array.from({ length: sheet.rowCount }, (_, r) =>
    Array.from({ length: sheet.columnCount }, (_x, c) => {
      const { formula, value } = sheet.getCell(r + 1, c + 1);
      if (formula) formulas++;
      return formula ? `=${formula}` : typeof value === 'number' ? value : null;
    }),
  );
  const engine = HyperFormula.buildFromArray(cells, { licenseKey: 'gpl-v3' });
  const row = (key: string) => 5 + report.rows.findIndex((r) => r.key === key);
  const at = (key: string, i: number) =>
    Math.round(Number(engine.getCellValue({ sheet: 0, row: row(key), col: 2 + i })) * 100);
  ranges.forEach((_, i) => {
    expect(at('closing', i)).toBe(table.closing[i]);
    expect(at('opening', i)).toBe(table.opening[i]);
  });
  // Opening balances but the first, totals and closing balances reckon themselves.
  expect(formulas).toBeGreaterThanOrEqual(4 * ranges.length - 1);
});
