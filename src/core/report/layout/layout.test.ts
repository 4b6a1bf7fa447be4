import fc from 'fast-check';
import { minor } from '@/core/money';
import { daysInMonth } from '@/core/calendar';
import { makeGround } from '@/core/ground';
import type { Account, AccountKind, Axis, Budget, Layout, LayoutColumn, RowItem } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  driver,
  line,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { groundWith, reportOf, STANDARD } from '@/core/test/variance';
import { cellOf, type ReportRow, type ReportTable } from '..';
import { asOwnRows, layoutRows, layoutsOf, SHIPPED } from '.';
import { daySharing } from './days';

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const column = (
  show: LayoutColumn['show'],
  span: LayoutColumn['span'],
  against: LayoutColumn['against'] = 'first',
): LayoutColumn => ({ show, span, against, hidden: false, unit: '' });
const layoutOf = (columns: LayoutColumn[], change: Partial<Layout> = {}): Layout => ({
  ...STANDARD,
  rows: { ...STANDARD.rows, set: 'profitAndLoss' },
  columns,
  ...change,
});
const rowOf = ({ rows }: ReportTable, key: string): ReportRow => rows.find((r) => r.key === key)!;
const MONTH = { of: 'month', back: 0 } as const;
const TO_DATE = { of: 'toDate' } as const;

const accounts = [
  { ...account('s', 'income', 'Sales', '4000'), group: 'Trade' },
  { ...account('f', 'income', 'Fees', '4100'), group: 'Trade' },
  account('c', 'costOfSales', 'Goods', '5000'),
  account('r', 'expense', 'Rent', '6000'),
  account('w', 'expense', 'Wages', '6100'),
];
const value = (a: Account, p: number) =>
  minor((a.id.charCodeAt(0) * 37 + (p - first) * 11) * (a.id === 'c' ? 3 : 5));
const through = first + 3;
const ground = groundWith({
  accounts,
  actual: (a, p) => value(a, p),
  budget: (a, p) => minor(value(a, p) - (p % 3) * 40 + 15),
  through,
});

describe('periods of columns', () => {
  const cells = (columns: LayoutColumn[], key = 'netProfit', month = through) => {
    const { table } = reportOf(ground, layoutOf(columns), month);
    return rowOf(table, key).cells;
  };
  const sum = (list: readonly unknown[]) => list.reduce<number>((t, v) => t + Number(v ?? 0), 0);
  test('months across add up to the year to date, quarters and months to the year', () => {
    const [toDate] = cells([column('actual', TO_DATE)]);
    expect(sum(cells([column('actual', { of: 'each', by: 'month', over: 'toDate' })]))).toBe(toDate);
    const [year] = cells([column('compared', { of: 'year' })]);
    expect(sum(cells([column('compared', { of: 'each', by: 'month', over: 'year' })]))).toBe(year);
    expect(cells([column('compared', { of: 'each', by: 'quarter', over: 'year' })])).toHaveLength(4);
    expect(sum(cells([column('compared', { of: 'each', by: 'quarter', over: 'year' })]))).toBe(year);
  });
  test('the quarter so far is its closed months; the rest of the year is what has none', () => {
    const month = (n: number) => Number(cells([column('actual', MONTH)], 's', first + n)[0]);
    expect(cells([column('actual', { of: 'quarter' })], 's')).toEqual([month(3)]);
    expect(cells([column('actual', { of: 'quarter' })], 's', first + 2)).toEqual([
      month(0) + month(1) + month(2),
    ]);
    const [rest, year, soFar] = cells([
      column('rest', { of: 'year' }),
      column('compared', { of: 'year' }),
      column('compared', TO_DATE),
    ]).map(Number);
    expect(rest! + soFar!).toBe(year);
  });
  test('twelve months, a range, the month before', () => {
    expect(cells([column('actual', { of: 'rolling' })], 's')).toEqual(
      cells([column('actual', TO_DATE)], 's'),
    );
    expect(cells([column('actual', { of: 'range', first: ids[1]!, last: ids[2]! })], 's')).toEqual([
      Number(cells([column('actual', MONTH)], 's', first + 1)[0]) +
        Number(cells([column('actual', MONTH)], 's', first + 2)[0]),
    ]);
    expect(cells([column('actual', { of: 'month', back: 1 })], 's')).toEqual(
      cells([column('actual', MONTH)], 's', first + 2),
    );
  });
  test('weeks and days add up to the month, actual and budget, whatever shares them', () => {
    for (const days of ['working', 'calendar', 'own'] as const)
      for (const by of ['week', 'day'] as const) {
        const each = { of: 'each', by, over: 'month' } as const;
        const { table } = reportOf(
          ground,
          layoutOf(
            [
              column('actual', each),
              column('compared', each),
              column('actual', MONTH),
              column('compared', MONTH),
            ],
            {
              days,
            },
          ),
          through,
        );
        for (const key of ['s', 'w', 'netProfit']) {
          const row = rowOf(table, key);
          const spread = row.cells.slice(0, -2);
          const [actual, budget] = row.cells.slice(-2);
          expect(sum(spread.filter((_, i) => i % 2 === 0))).toBe(actual);
          expect(sum(spread.filter((_, i) => i % 2 === 1))).toBe(budget);
        }
      }
  });
  test('an open month is looked at by the days of its entries', () => {
    const each = { of: 'each', by: 'week', over: 'month' } as const;
    const open = groundWith({
      accounts,
      actual: value,
      budget: value,
      through,
      change: { closedThrough: ids[2]! },
    });
    const { table } = reportOf(open, layoutOf([column('actual', each), column('actual', MONTH)]), through);
    const row = rowOf(table, 's');
    expect(row.cells.at(-1)).toBeNull();
    expect(sum(row.cells.slice(0, -1))).toBe(value(accounts[0]!, through));
  });
});

test('a month’s budget by its days: the parts add up, holidays and weekends get none, paydays get all', () => {
  const share = daySharing(calendar, { weekdays: [1, 2, 3, 4, 5], holidays: [] }, 'working');
  const own = daySharing(calendar, { weekdays: [1, 2, 3, 4, 5], holidays: [] }, 'own');
  const paydays = line('w', {
    kind: 'occurrence',
    amount: minor(500),
    on: { of: 'weeks', every: 2, from: '2026-01-02' as never },
  });
  fc.assert(
    fc.property(fc.integer({ min: -1e9, max: 1e9 }), fc.nat(11), (amount, m) => {
      const parts = share(first + m, minor(amount), null);
      expect(parts).toHaveLength(daysInMonth(2026, m + 1));
      expect(parts.reduce((t, p) => t + p, 0)).toBe(amount);
      const payday = own(first + m, minor(amount), paydays);
      expect(payday.reduce((t, p) => t + p, 0)).toBe(amount);
    }),
  );
  // 3 and 4 January 2026 are a Saturday and a Sunday; pay falls on the 2nd, 16th and 30th.
  expect(share(first, minor(2200), null).slice(1, 5)).toEqual([100, 0, 0, 100]);
  expect(own(first, minor(1500), paydays).flatMap((p, i) => (p ? [[i + 1, p]] : []))).toEqual([
    [2, 500],
    [16, 500],
    [30, 500],
  ]);
});

describe('segments', () => {
  const axis: Axis = {
    id: 'x1',
    name: 'Site',
    columns: [],
    values: [
      { id: 'n', name: 'North', from: [] },
      { id: 'q', name: 'Quay', from: [] },
    ],
    byAccount: { s: 'n', c: 'n', f: 'q', w: 'q' },
  };
  const months = (a: string) =>
    byMonth(Object.fromEntries(ids.map((p, i) => [p, minor(a.charCodeAt(0) * 10 + i)])));
  const budget: Budget = budgetOf(
    accounts.flatMap((a) =>
      (['n', 'q', null] as const).map((segment) => ({ ...line(a.id, months(a.id)), segment })),
    ),
    'b1',
    { axis: 'x1', segments: ['n', 'q', null] },
  );
  const block = blockOf(
    accounts,
    accounts.flatMap((a, i) => [[`2026-01-${10 + i}`, a.id, 100 * (i + 1)] as const]),
  );
  const of = (budgets: Budget[]) =>
    makeGround(
      bookWith(accounts, { sources: [sourceOf()], axes: [axis], closedThrough: ids[0]!, budgets }),
      new Map([[block.id, block]]),
    );
  const across = (place: Layout['segments']['place'], values: (string | null)[] = []) =>
    layoutOf([column('actual', MONTH), column('compared', MONTH), column('difference', MONTH)], {
      segments: { axis: 'x1', place, values },
    });
  test('side by side, the unassigned among them: they add up to the whole in every row', () => {
    const { table, scopes } = reportOf(of([budget]), across('across'), first);
    expect(scopes).toEqual(['n', 'q', null]);
    for (const row of table.rows.filter((r) => r.cells.length > 0))
      for (const [k, key] of (['monthActual', 'monthBudget', 'monthDiff'] as const).entries()) {
        const parts = [0, 1, 2].map((s) => Number(row.cells[s * 3 + k] ?? 0));
        expect(parts.reduce((a, b) => a + b, 0)).toBe(Number(cellOf(table, row, key) ?? 0));
      }
  });
  test('beneath each line they add up to it, and count in no total', () => {
    const { table } = reportOf(of([budget]), across('beneath'), first);
    const at = table.rows.findIndex((r) => r.key === 's');
    const details = table.rows.slice(at + 1, at + 4);
    expect(details.map((r) => [r.kind, r.label])).toEqual([
      ['detail', 'n'],
      ['detail', 'q'],
      ['detail', 'null'],
    ]);
    for (const k of [0, 1, 2])
      expect(details.reduce((t, r) => t + Number(r.cells[k] ?? 0), 0)).toBe(table.rows[at]!.cells[k]);
    const total = rowOf(table, 'total-income');
    expect(total.terms.map((t) => table.rows[t.row]!.kind)).toEqual(['line', 'line']);
    expect(total.cells[0]).toBe(300);
  });
  test('some of them alone; the whole stays the whole', () => {
    const { table, scopes } = reportOf(of([budget]), across('across', ['q']), first);
    expect(scopes).toEqual(['q']);
    expect(cellOf(table, rowOf(table, 'netProfit'), 'monthActual')).toBe(100 + 200 - 300 - 400 - 500);
  });
  test('a budget that tells none apart makes no difference in them', () => {
    const plain = budgetOf(accounts.map((a) => line(a.id, months(a.id))));
    const { table } = reportOf(of([plain]), across('across'), first);
    const row = rowOf(table, 'total-income');
    expect(cellOf(table, row, 'n:monthActual')).toBe(100);
    expect([cellOf(table, row, 'n:monthBudget'), cellOf(table, row, 'n:monthDiff')]).toEqual([null, null]);
    expect(cellOf(table, row, 'monthDiff')).not.toBeNull();
  });
});

describe('rows', () => {
  const at = (rows: Partial<Layout['rows']>) =>
    layoutRows({ ...STANDARD.rows, set: 'profitAndLoss', ...rows }, accounts);
  const plain = (rows: Partial<Layout['rows']>) => at(rows).map((r) => `${r.kind} ${r.label}`);
  test('told apart by groups, by kinds', () => {
    expect(plain({ detail: 'group' }).slice(0, 3)).toEqual([
      'section Income',
      'line Trade',
      'subtotal Total income',
    ]);
    expect(plain({ detail: 'kind' })).toEqual([
      'line Income',
      'line Cost of sales',
      'result Gross margin',
      'line Expenses',
      'result Net profit',
    ]);
  });
  test('income last: costs, income, and the result alone', () => {
    const rows = plain({ order: 'incomeLast' });
    expect(rows[0]).toBe('section Cost of sales');
    expect(rows.at(-1)).toBe('result Net profit');
    expect(rows).not.toContain('result Gross margin');
  });
  test('however rows are told apart and ordered, net profit is the same', () => {
    const net = (rows: Partial<Layout['rows']>) => {
      const layout = layoutOf([column('actual', TO_DATE), column('difference', TO_DATE)]);
      const { table } = reportOf(ground, { ...layout, rows: { ...layout.rows, ...rows } }, through);
      return table.rows.findLast((r) => r.kind === 'result')!.cells;
    };
    const expected = net({});
    for (const detail of ['account', 'group', 'kind'] as const)
      for (const order of ['incomeFirst', 'incomeLast'] as const)
        for (const sort of ['chart', 'size'] as const) expect(net({ detail, order, sort })).toEqual(expected);
  });
  test('the largest variance first, within its group and section', () => {
    const layout = layoutOf([column('difference', MONTH)]);
    const { table } = reportOf(ground, { ...layout, rows: { ...layout.rows, sort: 'size' } }, through);
    const lines = table.rows.filter((r) => r.kind === 'line' && r.key !== 'c');
    const sizes = (list: readonly ReportRow[]) => list.map((r) => Math.abs(Number(r.cells[0])));
    for (const part of [lines.slice(0, 2), lines.slice(2)])
      expect(sizes(part)).toEqual([...sizes(part)].sort((a, b) => b - a));
  });
  const own: RowItem[] = [
    { row: 'heading', name: 'Trade' },
    { row: 'group', kind: 'income', group: 'Trade' },
    { row: 'total', name: 'All trade', over: 'section' },
    { row: 'blank' },
    { row: 'range', from: '5000', to: '6000', name: '' },
    { row: 'total', name: 'Costs so far', over: 'section' },
    { row: 'account', account: 's' },
    { row: 'total', name: 'What is left', over: 'all' },
  ];
  test('rows of someone’s own: groups, ranges, headings, blank lines; totals natural of one side, as profit of both', () => {
    const layout = layoutOf([column('actual', MONTH)]);
    const { table, leftOut } = reportOf(ground, { ...layout, rows: { ...layout.rows, own } }, first);
    const v = (id: string) =>
      value(
        accounts.find((a) => a.id === id)!,
        first,
      );
    expect(table.rows.map((r) => [r.kind, r.label, r.cells[0] ?? null])).toEqual([
      ['section', 'Trade', null],
      ['line', 'Sales', v('s')],
      ['line', 'Fees', v('f')],
      ['subtotal', 'All trade', v('s') + v('f')],
      ['blank', '', null],
      ['line', 'Goods', v('c')],
      ['line', 'Rent', v('r')],
      ['subtotal', 'Costs so far', v('c') + v('r')],
      ['line', 'Sales', v('s')],
      // Sales stand twice, and count once.
      ['subtotal', 'What is left', v('s') + v('f') - v('c') - v('r')],
    ]);
    expect(leftOut.map((a) => a.id)).toEqual(['w']);
  });
  test('the statement’s rows to begin from give the statement’s net profit', () => {
    const begun = asOwnRows({ ...STANDARD.rows, set: 'profitAndLoss' }, accounts);
    const layout = layoutOf([column('actual', TO_DATE)]);
    const net = (rows: Partial<Layout['rows']>) =>
      reportOf(ground, { ...layout, rows: { ...layout.rows, ...rows } }, through).table.rows.at(-1)!.cells;
    expect(net({ own: begun })).toEqual(net({}));
  });
  test('an account that is gone leaves its row empty, and the report stands', () => {
    const gone: RowItem[] = [{ row: 'account', account: 'nobody' }, ...own];
    const layout = layoutOf([column('actual', MONTH)]);
    const { table } = reportOf(ground, { ...layout, rows: { ...layout.rows, own: gone } }, first);
    expect(table.rows).toHaveLength(10);
  });
});

describe('what actuals are compared with', () => {
  test('last year, a second budget, and the outlook, beside one another', () => {
    const budgets = (base: Budget[]): Budget[] => [
      ...base,
      budgetOf(
        accounts.map((a) => line(a.id, byMonth({ [ids[3]!]: minor(7) }))),
        'b2',
      ),
    ];
    const two = groundWith({
      accounts,
      actual: value,
      budget: () => minor(100),
      through,
      change: { budgets: budgets(ground.book.budgets as Budget[]) },
    });
    const layout = layoutOf(
      [
        column('compared', MONTH),
        column('compared', MONTH, 'second'),
        column('difference', MONTH, 'second'),
        column('compared', MONTH, 'lastYear'),
        column('difference', MONTH, 'lastYear'),
      ],
      { against: { first: 'b1', second: 'b2' } },
    );
    const { table } = reportOf(two, layout, through);
    const s = value(accounts[0]!, through);
    expect(rowOf(table, 's').cells.slice(1)).toEqual([7, s - 7, null, null]);
    const asOutlook = reportOf(
      two,
      { ...layout, against: { first: 'outlook', second: 'lastYear' } },
      through,
    );
    expect(rowOf(asOutlook.table, 's').cells[0]).toBe(s);
  });
  test('a comparison that is not there any more is the best one in force', () => {
    const layout = layoutOf([column('compared', MONTH)], { against: { first: 'gone', second: '' } });
    const { table } = reportOf(ground, layout, through);
    expect(rowOf(table, 's').cells[0]).toBe(value(accounts[0]!, through) - (through % 3) * 40 + 15);
  });
  test('without any budget actuals stand beside last year; of what it does not tell nothing is over or under', () => {
    const none = groundWith({ accounts, actual: value, budget: value, through, change: { budgets: [] } });
    const { table } = reportOf(
      none,
      layoutOf([column('actual', MONTH), column('difference', MONTH)]),
      through,
    );
    const s = value(accounts[0]!, through);
    expect(rowOf(table, 's').cells).toEqual([s, null]);
    const block = blockOf(accounts, [
      ['2025-01-10', 's', 40],
      ['2026-01-10', 's', 100],
      ['2026-02-10', 's', 7],
    ]);
    const two = makeGround(
      bookWith(accounts, { sources: [sourceOf()], closedThrough: ids[1]! }),
      new Map([[block.id, block]]),
    );
    const columns = [column('difference', MONTH), column('actual', TO_DATE), column('difference', TO_DATE)];
    // January is the only month of both years.
    expect(rowOf(reportOf(two, layoutOf(columns), first + 1).table, 's').cells).toEqual([null, 107, 60]);
    expect(rowOf(reportOf(two, layoutOf(columns), first).table, 's').cells).toEqual([60, 100, 60]);
  });
  test('share of income, percent reached', () => {
    const { table } = reportOf(
      ground,
      layoutOf([column('share', MONTH), column('reached', { of: 'year' })]),
      through,
    );
    const [s, f] = [0, 1].map((i) => value(accounts[i]!, through));
    expect(rowOf(table, 's').cells[0]).toBe(Math.round((1000 * s!) / (s! + f!)));
    const soFar = [0, 1, 2, 3].reduce((t, m) => t + value(accounts[0]!, first + m), 0);
    const year = ids.reduce((t, _, i) => t + value(accounts[0]!, first + i) - ((first + i) % 3) * 40 + 15, 0);
    expect(rowOf(table, 's').cells[1]).toBe(Math.round((1000 * soFar) / year));
  });
});

/**
 * The flexible budget of the same textbook jacket maker: 12,000 jackets planned at $120, 10,000 made and sold (C. Horngren,
 * S. Datar, M. Rajan, "Cost Accounting: A Managerial Emphasis", chapter on flexible budgets; figures from memory).
 * [line, kind, actual, rate planned per jacket or null for fixed, static budget, activity, rate variance]
 */
const FLEXIBLE: readonly (readonly [string, AccountKind, number, number | null, number, number, number])[] = [
  ['Revenues', 'income', 1_250_000, 120, 1_440_000, -240_000, 50_000],
  ['Direct materials', 'costOfSales', 621_600, 60, 720_000, -120_000, 21_600],
  ['Direct manufacturing labor', 'costOfSales', 198_000, 16, 192_000, -32_000, 38_000],
  ['Variable manufacturing overhead', 'costOfSales', 130_500, 12, 144_000, -24_000, 10_500],
  ['Fixed costs', 'expense', 285_000, null, 276_000, 0, 9_000],
];

describe('a textbook’s flexible budget', () => {
  const list = FLEXIBLE.map(([name, kind], i) => account(`a${i}`, kind, name));
  const rates = FLEXIBLE.flatMap(([, , , rate], i) =>
    rate === null
      ? []
      : [{ ...driver(`r${i}`, { kind: 'typed', values: { [ids[0]!]: rate } }), name: `Rate ${i}` }],
  );
  const jackets = {
    ...driver('q', { kind: 'typed', values: { [ids[0]!]: 12_000 } }),
    name: 'Jackets',
    unit: 'jackets',
  };
  const lines = FLEXIBLE.map(([, , , rate, budget], i) =>
    line(
      `a${i}`,
      rate === null
        ? byMonth({ [ids[0]!]: minor(budget * 100) })
        : { kind: 'driver', factors: ['q', `r${i}`], round: 0 },
    ),
  );
  const block = blockOf(
    list,
    FLEXIBLE.map(([, , actual], i) => [`2026-01-31`, `a${i}`, actual * 100] as const),
  );
  const book = makeGround(
    bookWith(list, {
      sources: [sourceOf()],
      closedThrough: ids[0]!,
      budgets: [budgetOf(lines, 'b1', { drivers: [jackets, ...rates] })],
      quantities: [{ name: 'jackets', unit: '', decimals: 0, values: { [ids[0]!]: 10_000 } }],
    }),
    new Map([[block.id, block]]),
  );
  const { table } = reportOf(
    book,
    layoutOf([
      column('compared', MONTH),
      column('activity', MONTH),
      column('flexible', MONTH),
      column('rate', MONTH),
      column('actual', MONTH),
      { ...column('perUnit', MONTH), unit: 'Jackets' },
      { ...column('comparedPerUnit', MONTH), unit: 'Jackets' },
    ]),
    first,
  );
  test.each(FLEXIBLE)('%s', (name, _k, actual, rate, budget, activity, byRate) => {
    const row = table.rows.find((r) => r.label === name)!;
    expect(row.cells.slice(0, 5)).toEqual(
      [budget, activity, budget + activity, byRate, actual].map((v) => v * 100),
    );
    if (rate !== null) expect(row.cells[6]).toBe(rate * 100);
    expect(row.cells[5]).toBe(Math.round((actual * 100) / 10_000));
  });
  test('operating income: 64,000 U by volume, 29,100 U against the flexible budget', () => {
    const net = rowOf(table, 'netProfit').cells.map((c) => Number(c) / 100);
    expect([net[1], net[3]]).toEqual([-64_000, -29_100]);
  });
  test('activity and rate come to the whole difference in every row, whatever was counted', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 40_000 }), (count) => {
        const other = makeGround(
          {
            ...book.book,
            quantities: [{ name: 'Jackets', unit: '', decimals: 0, values: { [ids[0]!]: count } }],
          },
          new Map([[block.id, block]]),
        );
        const report = reportOf(
          other,
          layoutOf([column('activity', MONTH), column('rate', MONTH), column('difference', MONTH)]),
          first,
        ).table;
        for (const row of report.rows.filter((r) => r.cells.length > 0)) {
          const [activity, byRate, difference] = row.cells.map(Number);
          expect(activity! + byRate!).toBe(difference);
        }
      }),
      { numRuns: 20 },
    );
  });
});

/**
 * Sales mix and quantity as textbooks reckon them: mix = planned margin × (counted − all counted × planned share), quantity =
 * planned margin × (all counted − all planned) × planned share (C. Horngren et al., chapter on customer profitability; the
 * figures here are worked by hand from these formulas).
 */
test('mix and quantity of drivers of one unit come to the activity', () => {
  const list = [account('p', 'income', 'Small berths'), account('g', 'income', 'Large berths')];
  const drivers = [
    { ...driver('dp', { kind: 'typed', values: { [ids[0]!]: 60 } }), name: 'Small', unit: 'berths' },
    { ...driver('dg', { kind: 'typed', values: { [ids[0]!]: 40 } }), name: 'Large', unit: 'berths' },
    { ...driver('fp', { kind: 'typed', values: { [ids[0]!]: 10 } }), name: 'Small fee' },
    { ...driver('fg', { kind: 'typed', values: { [ids[0]!]: 20 } }), name: 'Large fee' },
  ];
  const lines = [
    line('p', { kind: 'driver', factors: ['dp', 'fp'], round: 0 }),
    line('g', { kind: 'driver', factors: ['dg', 'fg'], round: 0 }),
  ];
  const block = blockOf(list, [
    ['2026-01-31', 'p', 50_00],
    ['2026-01-31', 'g', 1200_00],
  ]);
  const book = makeGround(
    bookWith(list, {
      sources: [sourceOf()],
      closedThrough: ids[0]!,
      budgets: [budgetOf(lines, 'b1', { drivers })],
      quantities: [
        { name: 'Small', unit: '', decimals: 0, values: { [ids[0]!]: 55 } },
        { name: 'Large', unit: '', decimals: 0, values: { [ids[0]!]: 55 } },
      ],
    }),
    new Map([[block.id, block]]),
  );
  const { table } = reportOf(book, layoutOf([column('activity', MONTH), column('mix', MONTH)]), first);
  // 110 counted where 100 were planned, 60 to 40: at the planned mix 66 and 44.
  expect(rowOf(table, 'p').cells).toEqual([-50_00, (55 - 66) * 10_00]);
  expect(rowOf(table, 'g').cells).toEqual([300_00, (55 - 44) * 20_00]);
  // Quantity is what is left: 6 × 10 and 4 × 20.
  expect(rowOf(table, 'total-income').cells).toEqual([250_00, 110_00]);
});

describe('layouts of a book', () => {
  test('each that ships draws every month, also beyond the year, with and without a budget', () => {
    for (const layout of SHIPPED)
      for (const month of [first - 13, first, through, first + 5, first + 14])
        for (const g of [
          ground,
          groundWith({ accounts, actual: value, budget: value, through, change: { budgets: [] } }),
        ]) {
          const { table } = reportOf(g, layout, month);
          for (const row of table.rows) expect([0, table.columns.length]).toContain(row.cells.length);
          expect(new Set(table.columns.map((c) => c.key)).size).toBe(table.columns.length);
        }
  });
  test('a book’s own stands in place of the one that ships', () => {
    const own = { ...SHIPPED[1]!, name: 'Mine' };
    const all = layoutsOf({ layouts: [own, { ...own, id: 'y5', name: 'Other' }] });
    expect(all.map((l) => l.name).slice(0, 2)).toEqual([SHIPPED[0]!.name, 'Mine']);
    expect(all).toHaveLength(SHIPPED.length + 1);
  });
  test('amounts at the limit add up exactly', () => {
    const most = 9_999_999_999_999;
    const huge = groundWith({
      accounts,
      actual: () => minor(most),
      budget: () => minor(-most),
      through,
    });
    const { table } = reportOf(huge, STANDARD, through);
    // Two incomes less three costs of four months, against the same turned around.
    expect(cellOf(table, rowOf(table, 'netProfit'), 'toDateDiff')).toBe(-4 * 2 * most);
    expect(cellOf(table, rowOf(table, 's'), 'monthDiff')).toBe(2 * most);
  });
});
