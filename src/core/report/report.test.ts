import fc from 'fast-check';
import { minor, sum, type Minor } from '@/core/money';
import { compare, bridgeOf, effectOf, isFlagged } from '@/core/variance';
import {
  balanceSheetRows,
  budgetRows,
  cellOf,
  createFiller,
  fileTable,
  fillStatement,
  groupPeriods,
  isBalanceRow,
  rowName,
  statementRows,
  trialReport,
} from '.';
import { account, calendar, pct } from '../test/build';
import { STANDARD, varianceTableOf } from '../test/variance';
import { type Account, type AccountKind, type Layout } from '@/core/model';

const percentOf = (perMille: number | null) => (perMille === null ? null : perMille / 10);

/**
 * A static-budget variance analysis as cost-accounting textbooks teach it: the jacket maker of C. Horngren, S. Datar,
 * M. Rajan, "Cost Accounting: A Managerial Emphasis", chapter on flexible budgets (figures from memory, in dollars).
 * [line, kind, actual, static budget, variance, F or U]
 */
const JACKETS: readonly (readonly [string, AccountKind, number, number, number, 'F' | 'U'])[] = [
  ['Revenues', 'income', 1_250_000, 1_440_000, -190_000, 'U'],
  ['Direct materials', 'costOfSales', 621_600, 720_000, -98_400, 'F'],
  ['Direct manufacturing labor', 'costOfSales', 198_000, 192_000, 6_000, 'U'],
  ['Variable manufacturing overhead', 'costOfSales', 130_500, 144_000, -13_500, 'F'],
  ['Fixed costs', 'expense', 285_000, 276_000, 9_000, 'U'],
];

describe('a textbook’s static-budget variances', () => {
  const accounts = JACKETS.map(([name, kind], i) => account(`a${i}`, kind, name));
  const find = (a: Account) => JACKETS[accounts.indexOf(a)]!;
  const month = calendar.firstOfYear(2026);
  const table = varianceTableOf({
    accounts,
    actual: (a, p) => (p === month ? minor(find(a)[2] * 100) : null),
    budget: (a, p) => (p === month ? minor(find(a)[3] * 100) : null),
    month,
    through: month,
    change: { settings: { flagAmount: minor(5_000_00), flagPercent: pct('5') } as never },
  });
  test.each(JACKETS)('%s', (name, _kind, _a, _b, difference, sense) => {
    const row = table.rows.find((r) => r.label === name)!;
    expect([cellOf(table, row, 'monthDiff'), cellOf(table, row, 'monthSense')]).toEqual([
      difference * 100,
      sense,
    ]);
  });
  test('contribution margin falls short by 84,100 and operating income by 93,100, both unfavorable', () => {
    const margin = table.rows.find((r) => r.key === 'grossMargin')!;
    const income = table.rows.find((r) => r.key === 'netProfit')!;
    expect(
      ['monthActual', 'monthBudget', 'monthDiff', 'monthSense'].map((k) => cellOf(table, margin, k)),
    ).toEqual([299_900_00, 384_000_00, -84_100_00, 'U']);
    expect(
      ['monthActual', 'monthBudget', 'monthDiff', 'monthSense'].map((k) => cellOf(table, income, k)),
    ).toEqual([14_900_00, 108_000_00, -93_100_00, 'U']);
  });
  test('the bridge from 108,000 to 14,900 adds up', () => {
    const parts = accounts.map((a, i) => ({
      key: a.id,
      label: a.name,
      effect: minor(JACKETS[i]![4] * 100 * effectOf(a.kind)),
    }));
    const bridge = bridgeOf(minor(108_000_00), parts, 2);
    expect(bridge.parts.map((p) => p.label)).toEqual(['Revenues', 'Direct materials']);
    expect(bridge.budget + sum(bridge.parts.map((p) => p.effect)) + bridge.others).toBe(bridge.actual);
    expect(bridge.actual).toBe(14_900_00);
  });
  test('flags need both the amount and the percentage', () => {
    expect(table.rows.filter((r) => r.flagged).map((r) => r.label)).toEqual([
      'Revenues',
      'Direct materials',
      'Variable manufacturing overhead',
    ]);
  });
});

describe('comparing', () => {
  test.each<[number | null, number | null, 1 | -1, object | null]>([
    [110, 100, 1, { difference: 10, perMille: 100, sense: 'F' }],
    [110, 100, -1, { difference: 10, perMille: 100, sense: 'U' }],
    [90, 100, -1, { difference: -10, perMille: -100, sense: 'F' }],
    [100, 100, 1, { difference: 0, perMille: 0, sense: null }],
    [50, 0, -1, { difference: 50, perMille: null, sense: 'U' }],
    [null, 100, 1, { difference: -100, perMille: -1000, sense: 'U' }],
    [5, null, 1, { difference: 5, perMille: null, sense: 'F' }],
    [null, null, 1, null],
    [-50, -100, 1, { difference: 50, perMille: 500, sense: 'F' }],
  ])('actual %s, budget %s, effect %s', (a, b, effect, expected) =>
    expect(compare(a as Minor | null, b as Minor | null, effect)).toEqual(expected),
  );
  test('percent is of the size of the budget', () =>
    expect(percentOf(compare(minor(-150), minor(-100), 1)!.perMille)).toBe(-50));
  test('a difference just at the threshold is not flagged; without a budget the amount decides', () => {
    const over = { amount: minor(500), percent: pct('5') };
    const flag = (a: number, b: number | null) =>
      isFlagged(compare(minor(a), b as Minor | null, 1), b as Minor | null, over);
    expect([
      flag(10500, 10000),
      flag(10501, 10000),
      flag(105000, 100000),
      flag(501, null),
      flag(500, null),
    ]).toEqual([false, true, false, true, false]);
  });
});

describe('month, year to date and full year of a line', () => {
  const first = calendar.firstOfYear(2026);
  type Given = {
    readonly kind?: AccountKind;
    readonly actual?: (p: number) => number | null;
    readonly budget?: (p: number) => number | null;
    readonly whole?: number;
    readonly month: number;
    readonly through: number;
  };
  /** [actual or outlook, budget, difference] of month, year to date and year. */
  const blocks = ({ kind = 'expense', actual, budget = () => 10, whole, month, through }: Given) => {
    const only = account('x', kind);
    const money = (v: number | null | undefined) => (v === null || v === undefined ? null : minor(v));
    const table = varianceTableOf({
      accounts: [only],
      actual: (_, p) => money((actual ?? ((q: number) => (q === first ? 7 : null)))(p)),
      budget: (_, p) => money(budget(p)),
      whole: () => money(whole),
      month,
      through,
    });
    const row = table.rows.find((r) => r.key === 'x')!;
    const of = (...keys: string[]) => keys.map((k) => cellOf(table, row, k));
    return {
      month: of('monthActual', 'monthBudget', 'monthDiff'),
      toDate: of('toDateActual', 'toDateBudget', 'toDateDiff'),
      year: of('yearOutlook', 'yearBudget', 'yearDiff'),
      note: of('note')[0],
    };
  };
  test('actuals so far beside their months, and the outlook beside the year', () =>
    expect(blocks({ month: first + 1, through: first + 1 })).toEqual({
      month: [null, 10, -10],
      toDate: [7, 20, -13],
      year: [107, 120, -13],
      note: '',
    }));
  test('a month without actuals shows its plan and no result; the year to date ends where actuals end', () =>
    expect(blocks({ month: first + 4, through: first + 1 })).toMatchObject({
      month: [null, 10, null],
      toDate: [7, 20, -13],
    }));
  test('with nothing closed there is no year to date', () =>
    expect(blocks({ month: first, through: first - 1 }).toDate).toEqual([null, null, null]));
  test('an amount for the year without months stands apart, and says how much of it is used', () =>
    expect(blocks({ whole: 120, month: first + 1, through: first + 1 })).toEqual({
      month: [null, null, null],
      toDate: [7, null, null],
      year: [120, 120, null],
      note: '7 of 120 used',
    }));
  test('what has gone beyond it is what the year comes to at least', () =>
    expect(blocks({ whole: 120, actual: () => 11, month: first + 10, through: first + 10 }).year).toEqual([
      121,
      120,
      null,
    ]));
  test('once the year is over it is compared like any other', () => {
    const over = { whole: 120, actual: () => 9, through: first + 11 };
    expect(blocks({ ...over, month: first + 11 })).toMatchObject({
      month: [9, null, null],
      toDate: [108, 120, -12],
      year: [108, 120, -12],
    });
    // In a month within the year that is over, the year to date is still a part of it.
    expect(blocks({ ...over, month: first + 5 }).toDate).toEqual([54, null, null]);
  });
  test('of what an account stands at, the last counts', () =>
    expect(
      blocks({
        kind: 'receivable',
        actual: (p) => p - first,
        budget: (p) => 100 + p - first,
        month: first + 1,
        through: first + 1,
      }),
    ).toMatchObject({ month: [1, 101, -100], toDate: [1, 101, -100], year: [111, 111, 0] }));
});

describe('a line that stands apart', () => {
  const first = calendar.firstOfYear(2026);
  const accounts = [account('g', 'income', 'Grant'), account('s', 'income'), account('x', 'expense')];
  const table = varianceTableOf({
    accounts,
    actual: (a, p) => (p > first ? null : minor(a.id === 'g' ? 300 : a.id === 's' ? 1000 : 600)),
    budget: (a) => (a.id === 'g' ? null : minor(a.id === 's' ? 900 : 500)),
    whole: (a) => (a.id === 'g' ? minor(1200) : null),
    month: first,
    through: first,
  });
  const of = (row: string, key: string) =>
    cellOf(
      table,
      table.rows.find((r) => r.key === row)!,
      key,
    );
  test('is in the actual of a total and in no difference of it', () => {
    expect([of('g', 'toDateActual'), of('g', 'toDateDiff'), of('g', 'toDateSense')]).toEqual([
      300,
      null,
      null,
    ]);
    expect([of('total-income', 'toDateActual'), of('total-income', 'toDateDiff')]).toEqual([1300, 100]);
    expect([
      of('netProfit', 'toDateActual'),
      of('netProfit', 'toDateDiff'),
      of('netProfit', 'toDateSense'),
    ]).toEqual([700, 0, null]);
  });
  test('as files have it, the report is plain data without what is only drawn', () => {
    const plain = fileTable(table);
    expect(structuredClone(plain)).toEqual(plain);
    expect(plain.columns.map((c) => c.kind)).not.toContain('bar');
    expect(plain.rows.map((r) => cellOf(plain, r, 'yearDiff'))).toEqual(
      table.rows.map((r) => cellOf(table, r, 'yearDiff')),
    );
  });
  test('is never flagged, says what is used, and the totals say that it stands apart', () => {
    expect(table.rows.filter((r) => r.flagged).map((r) => r.key)).toEqual(['s', 'x']);
    expect(of('g', 'note')).toBe('300 of 1200 used');
    expect(of('netProfit', 'note')).toBe('apart');
    expect(of('total-expense', 'note')).toBe('');
  });
});

const kinds: AccountKind[] = ['income', 'costOfSales', 'expense', 'otherIncome', 'otherExpense', 'bank'];
const anyAccounts = fc
  .array(fc.constantFrom(...kinds), { maxLength: 12 })
  .map((list) => list.map((k, i) => account(`a${i}`, k)));

describe('statement', () => {
  test('sections in order, results where they say something new', () => {
    const rows = statementRows([
      account('x', 'expense'),
      account('s', 'income'),
      account('b', 'bank'),
      account('i', 'otherIncome'),
      account('c', 'costOfSales'),
    ]);
    expect(
      rows.map((r) =>
        r.kind === 'line' ? r.account.id : r.kind === 'result' ? r.result : `${r.kind} ${r.section}`,
      ),
    ).toEqual([
      'section income',
      's',
      'subtotal income',
      'section costOfSales',
      'c',
      'subtotal costOfSales',
      'grossMargin',
      'section expense',
      'x',
      'subtotal expense',
      'operatingProfit',
      'section otherIncome',
      'i',
      'subtotal otherIncome',
      'netProfit',
    ]);
  });
  test('net profit is income less costs, whatever the accounts', () => {
    fc.assert(
      fc.property(
        anyAccounts,
        fc.array(fc.option(fc.integer({ min: -1e9, max: 1e9 }).map(minor)), { minLength: 12, maxLength: 12 }),
        (accounts, values) => {
          const rows = statementRows(accounts);
          const filled = fillStatement(rows, 1, (id) => [values[Number(id.slice(1))] ?? null]);
          const expected = accounts.reduce((t, a, i) => t + effectOf(a.kind) * (values[i] ?? 0), 0);
          if (rows.length) expect(filled.at(-1)![0] ?? 0).toBe(expected);
          else expect(accounts.every((a) => a.kind === 'bank')).toBe(true);
        },
      ),
    );
  });
});

test('a balance sheet ties: what net assets exceed the equity accounts by has a row of its own', () => {
  const accounts = [
    account('b', 'bank'),
    account('f', 'fixedAsset'),
    account('l', 'loan'),
    account('p', 'payable'),
    account('e', 'equity'),
  ];
  const amounts: Record<string, number> = { b: 500, f: 1000, l: 300, p: 200, e: 700 };
  const rows = balanceSheetRows(accounts);
  const filled = fillStatement(rows, 1, (id) => [minor(amounts[id]!)]);
  const of = (key: string) => filled[rows.findIndex((r) => rowName(r).key === key)]![0];
  const keys = ['total-assets', 'total-liabilities', 'netAssets', 'outsideEquity', 'total-equity'];
  expect([...keys, 'liabilitiesAndEquity'].map(of)).toEqual([1500, 500, 1000, 300, 1000, 1500]);
  expect(rows.slice(-3).map((r) => rowName(r).key)).toEqual([
    'outsideEquity',
    'total-equity',
    'liabilitiesAndEquity',
  ]);
  // Without debts, what is owned is still what there is.
  expect(balanceSheetRows(accounts.slice(0, 1)).map((r) => rowName(r).key)).toEqual([
    'section-assets',
    'b',
    'total-assets',
    'netAssets',
  ]);
});

test('balances that a budget says stand without totals: what no line says is not among them', () => {
  const accounts = [
    account('s', 'income'),
    account('e', 'equity'),
    account('b', 'bank'),
    account('f', 'fixedAsset'),
  ];
  expect(budgetRows(accounts, 'both').map((r) => rowName(r).key)).toEqual([
    ...['section-income', 's', 'total-income', 'netProfit'],
    ...['section-assets', 'b', 'f', 'section-equity', 'e'],
  ]);
  expect(budgetRows(accounts, 'balanceSheet')[0]).toEqual({ kind: 'section', section: 'assets' });
  expect(budgetRows(accounts, 'profitAndLoss').some(isBalanceRow)).toBe(false);
});

describe('filters leave lines out of sight and never out of the totals', () => {
  const accounts = [
    account('s', 'income'),
    account('z', 'income'),
    account('n', 'expense'),
    account('x', 'expense'),
  ];
  const month = calendar.firstOfYear(2026);
  const actual: Record<string, number | null> = { s: 100, z: 0, n: 30, x: null };
  const plan: Record<string, number | null> = { s: 90, z: null, n: null, x: 5 };
  type Filter = { readonly filter: Layout['filter']; readonly kinds: Layout['rows']['kinds'] };
  const make = ({ filter, kinds }: Filter) =>
    varianceTableOf({
      accounts,
      layout: { ...STANDARD, filter, rows: { ...STANDARD.rows, set: 'profitAndLoss', kinds } },
      actual: (a, p) => (p === month ? (actual[a.id] as Minor | null) : null),
      budget: (a, p) => (p === month ? (plan[a.id] as Minor | null) : null),
      month,
      through: month,
    });
  const only = (filter: Layout['filter'], ...kinds: Layout['rows']['kinds']): Filter => ({ filter, kinds });
  test.each<[Filter, string[], number | undefined]>([
    [only('all'), ['s', 'z', 'n', 'x'], 70],
    [only('silent'), ['z'], 70],
    [only('flagged'), ['s', 'n', 'x'], 70],
    [only('withFigures'), ['s', 'n', 'x'], 70],
    [only('withBudget'), ['s', 'x'], 70],
    [only('all', 'expense'), ['n', 'x'], undefined],
    [only('withBudget', 'income', 'expense'), ['s', 'x'], undefined],
  ])('%j', (filter, lines, net) => {
    const table = make(filter);
    expect(table.rows.filter((r) => r.kind === 'line').map((r) => r.key)).toEqual(lines);
    const result = table.rows.find((r) => r.key === 'netProfit');
    expect(result && cellOf(table, result, 'monthActual')).toBe(net);
  });
});

test('a filler that remembers gives what a fill from scratch gives, after any edits', () => {
  const accounts = ['income', 'income', 'costOfSales', 'expense', 'otherIncome'].map((k, i) =>
    account(`a${i}`, k as AccountKind),
  );
  const rows = statementRows(accounts);
  const cell = fc.option(fc.integer({ min: -1e9, max: 1e9 }).map(minor));
  const values = fc.tuple(cell, cell, cell);
  fc.assert(
    fc.property(
      fc.array(values, { minLength: 5, maxLength: 5 }),
      fc.array(fc.tuple(fc.nat(4), values), { maxLength: 8 }),
      (start, edits) => {
        const fill = createFiller();
        const now = [...start];
        const of = (id: string) => now[Number(id.slice(1))]!;
        expect(fill(rows, 3, of)).toEqual(fillStatement(rows, 3, of));
        for (const [i, v] of edits) {
          now[i] = v;
          expect(fill(rows, 3, of)).toEqual(fillStatement(rows, 3, of));
        }
      },
    ),
  );
});

test('runs of periods by quarter and year', () => {
  const periods = Array.from({ length: 12 }, (_, i) => calendar.period(calendar.firstOfYear(2026) + i));
  expect(groupPeriods(periods, 'quarters').map((g) => g.label)).toEqual([
    'Q1 FY26',
    'Q2 FY26',
    'Q3 FY26',
    'Q4 FY26',
  ]);
  expect(groupPeriods(periods, 'year')).toEqual([{ label: 'FY26', from: 0, to: 12 }]);
});

describe('the trial balance', () => {
  const list = [account('s', 'income', 'Sales', '4000'), account('b', 'bank', 'Bank', '1000')];
  test('a trial balance as a report totals its own rows', () => {
    const row = (id: string, debit: number, credit: number) => ({
      account: list.find((a) => a.id === id)!,
      debit: minor(debit),
      credit: minor(credit),
    });
    const report = trialReport(
      {
        rows: [row('b', 300, 0), row('s', 0, 250)],
        unclosed: minor(-50),
        debit: minor(300),
        credit: minor(300),
      },
      { book: 'B', currency: 'USD', title: 'Trial balance', subtitle: 'x', unclosed: 'Earlier years' },
    );
    expect(report.rows.map((r) => [r.label, ...r.cells])).toEqual([
      ['Bank', 300, null],
      ['Sales', null, 250],
      ['Earlier years', null, 50],
      ['Total', 300, 300],
    ]);
    expect(report.rows.at(-1)!.terms).toHaveLength(3);
  });
});
