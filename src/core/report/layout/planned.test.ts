import { minor } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import type { Budget, Layout } from '@/core/model';
import { balancesOf } from '@/core/ledger';
import { makeGround } from '@/core/ground';
import { cellOf, comparedWith, fileTable, layoutReport, SHIPPED, type ReportTable } from '..';
import {
  account,
  blockOf,
  bookWith,
  byMonth,
  calendar,
  line,
  siteAxis,
  sourceOf,
  unphased,
  budgetOf,
} from '../../test/build';
import { onAccount, terms } from '../../test/cash';
import { budgetTableOf, groundOfPlan, plainWords, reportOf } from '../../test/variance';

/* Budgets and the ledger by themselves, as layouts. */

const first = calendar.firstOfYear(2026);
const ids = Array.from({ length: 12 }, (_, i) => calendar.period(first + i).id);
const sales = account('s', 'income', 'Sales', '4000');
const rent = account('r', 'expense', 'Rent', '6000');
const ACROSS: Layout['segments'] = { axis: 'x', place: 'across', values: [] };
const monthly = (of: (i: number) => number | null) =>
  byMonth(Object.fromEntries(ids.flatMap((id, i) => (of(i) === null ? [] : [[id, minor(of(i)!)]]))));
const keys = (table: ReportTable) => table.columns.map((c) => c.key);
const row = (table: ReportTable, key: string) => {
  const found = table.rows.find((r) => r.key === key)!;
  return Object.fromEntries(table.columns.map((c, i) => [c.key, found.cells[i]]));
};

describe('a budget as a report', () => {
  const of = {
    accounts: [sales],
    lastYear: () => [6000, ...new Array<number>(11).fill(0)],
    lines: [
      {
        ...line(
          's',
          monthly((i) => (i + 1) * 100),
        ),
        note: { text: '=1+1', by: '', at: 't' },
      },
    ],
  };
  test('quarters add up to the year, and the change is on last year', () => {
    const table = budgetTableOf(of, { by: 'quarter' });
    expect(Object.values(row(table, 's'))).toEqual([
      ...[600, 1500, 2400, 3300, 7800],
      ...[6000, 1800, 300, 'byMonth', '=1+1'],
    ]);
    const total = table.columns.find((c) => c.key === 'budgetBudget')!;
    expect(total.formula).toEqual({ op: 'sum', of: keys(table).slice(0, 4) });
    expect(table.columns.find((c) => c.key === 'budgetChange')!.formula).toEqual({
      op: 'minus',
      left: 'budgetBudget',
      right: 'budgetBudgetLastYear',
    });
  });
  test('what is said of a year as a whole has a column of its own, so that months and total still add up', () => {
    const table = budgetTableOf({
      accounts: [sales, rent],
      lines: [
        line(
          's',
          monthly(() => 100),
        ),
        line('r', unphased(500)),
      ],
    });
    expect(row(table, 'r')).toMatchObject({ budgetUnphased: 500, budgetBudget: 500 });
    expect(row(table, 's')).toMatchObject({ budgetUnphased: null, budgetBudget: 1200 });
    expect(row(table, 'netProfit')).toMatchObject({ budgetUnphased: -500, budgetBudget: 700 });
    expect(table.columns.find((c) => c.key === 'budgetBudget')!.formula).toEqual({
      op: 'sum',
      of: keys(table).slice(0, 12),
      beyond: 'budgetUnphased',
    });
    expect(keys(budgetTableOf(of))).not.toContain('budgetUnphased');
  });
  test('a change compares the months alone of which last year is known, says which, and carries no formula', () => {
    const table = budgetTableOf({ ...of, lastYear: () => [50, 60] });
    // Budget of January and February: 100 + 200; last year 110.
    expect(row(table, 's')).toMatchObject({
      budgetBudget: 7800,
      budgetBudgetLastYear: 110,
      budgetChange: 190,
    });
    const change = table.columns.find((c) => c.key === 'budgetChange')!;
    expect([change.label, change.formula]).toEqual(['change of 2', null]);
  });
  test('months of last year that are not closed are those of the budget that plans them', () => {
    const before = budgetOf([line('s', byMonth({ '2025-03': minor(70) }))], 'b0', {
      first: '2025-01' as PeriodId,
      name: 'FY25',
    });
    const plan = budgetOf(of.lines, 'b1', { name: 'Plan' });
    const table = budgetTableOf({ ...of, lastYear: () => [50, 60], change: { budgets: [before, plan] } });
    expect(row(table, 's')).toMatchObject({ budgetBudgetLastYear: 180, budgetChange: 7620 });
  });
  test('a budget of two years is reported by years, each a column, and as a whole', () => {
    const two = byMonth({ '2026-01': minor(10), '2027-12': minor(5) });
    const table = budgetTableOf(
      {
        accounts: [sales],
        lines: [],
        change: { budgets: [budgetOf([line('s', two)], 'b1', { length: 24 })] },
      },
      { by: 'year' },
    );
    expect(Object.values(row(table, 's')).slice(0, 3)).toEqual([10, 5, 15]);
  });
  test('of a budget by segment, the whole and each segment with its own method', () => {
    const axis = siteAxis({ s: 'n' });
    const budget = budgetOf(
      [
        {
          ...line(
            's',
            monthly(() => 100),
          ),
          segment: 'n',
        },
        { ...line('s', unphased(300)), segment: null },
      ],
      'b1',
      { axis: 'x', segments: ['n', null] },
    );
    const ground = groundOfPlan({ ...of, change: { axes: [axis], budgets: [budget] } });
    const ships = SHIPPED.find((l) => l.id === 'std-budget')!;
    const columns = ships.columns.map((c) => ({ ...c, hidden: false }));
    const read = (chosen: string) => row(reportOf(ground, { ...ships, columns }, first, chosen).table, 's');
    expect(read('b1')).toMatchObject({ budgetBudget: 1500, method: '' });
    expect(read('b1 n')).toMatchObject({ budgetBudget: 1200, method: 'byMonth', budgetBudgetLastYear: 6000 });
    expect(read('b1 ')).toMatchObject({ budgetBudget: 300, method: 'unphased', budgetBudgetLastYear: null });
    const across = { ...ships, segments: ACROSS };
    const table = reportOf(ground, across, first, 'b1').table;
    expect(row(table, 's')).toMatchObject({
      'n:budgetBudget': 1200,
      'none:budgetBudget': 300,
      budgetBudget: 1500,
    });
  });
  test('a budget of both statements lists its balances, which are not added up over time', () => {
    const bank = account('b', 'bank', 'Bank', '1000');
    const budget = budgetOf(
      [
        line(
          's',
          monthly(() => 100),
        ),
        line(
          'b',
          monthly((i) => 10 * (i + 1)),
        ),
      ],
      'b1',
      {
        covers: 'both',
      },
    );
    const accounts = [sales, bank];
    const table = budgetTableOf({ ...of, accounts, change: { budgets: [budget] } });
    expect(row(table, 'b')).toMatchObject({ budgetBudget: 120 });
    const alone = budgetTableOf({ ...of, accounts });
    expect(alone.rows.some((r) => r.key === 'b')).toBe(false);
  });
});

describe('the ledger as a report', () => {
  const list = [
    sales,
    { ...rent, group: 'Premises' },
    account('w', 'expense', 'Wages', '6500'),
    { ...account('h', 'expense', 'Heat', '6100'), group: 'Premises' },
    account('b', 'bank', 'Bank', '1000'),
  ];
  const entries: [string, string, number][] = [
    ['2026-01-05', 's', 100],
    ['2026-02-05', 's', 200],
    ['2026-01-06', 'r', 40],
    ['2026-02-06', 'r', 40],
    ['2026-01-07', 'w', 10],
    ['2026-01-08', 'h', 5],
    ['2026-02-08', 'h', 6],
    ['2026-01-09', 'b', 45],
    ['2026-02-09', 'b', 154],
  ];
  const block = blockOf(list, entries);
  // January is closed: what the ledger has of February stands there all the same.
  const ground = makeGround(
    bookWith(list, {
      sources: [sourceOf()],
      closedThrough: '2026-01' as PeriodId,
      axes: [siteAxis({ s: 'n' })],
    }),
    new Map([[block.id, block]]),
  );
  const layout = SHIPPED.find((l) => l.id === 'std-ledger')!;
  const read = (change: Partial<Parameters<typeof layoutReport>[0]> = {}) => {
    const month = first + 1;
    const compared = comparedWith(ground, month, layout, null);
    return layoutReport({
      ground,
      layout,
      month,
      compared,
      words: plainWords(),
      ruler: { first, last: month },
      ...change,
    }).table;
  };
  test('accounts of a group stand together with their total; what moved in the balance sheet follows', () => {
    const table = read();
    expect(table.rows.map((r) => [r.kind, r.label, ...r.cells])).toEqual([
      ['section', 'Income'],
      ['line', 'Sales', 100, 200, 300],
      ['subtotal', 'Total income', 100, 200, 300],
      ['section', 'Expenses'],
      ['line', 'Rent', 40, 40, 80],
      ['line', 'Heat', 5, 6, 11],
      ['group', 'Total Premises', 45, 46, 91],
      ['line', 'Wages', 10, null, 10],
      ['subtotal', 'Total expenses', 55, 46, 101],
      ['result', 'Net profit', 45, 154, 199],
      ['section', 'Balance sheet, movement'],
      ['line', 'Bank', 45, 154, 199],
    ]);
    expect(table.columns[2]!.formula).toEqual({ op: 'sum', of: keys(table).slice(0, 2) });
    expect(fileTable(table).rows).toHaveLength(12);
  });
  test('a part of it: some accounts, some entries', () => {
    expect(read({ accounts: (a) => a.kind === 'bank' }).rows.map((r) => r.key)).toEqual(['others', 'b']);
    const part = balancesOf([blockOf(list, entries.slice(0, 1))], calendar);
    expect(row(read({ ledger: part }), 'netProfit')).toMatchObject({ rulerActual: 100 });
  });
  test('by quarter over the ruler, and its segments side by side', () => {
    const [, whole] = layout.columns;
    const columns = [{ ...whole!, span: { of: 'each', by: 'quarter', over: 'ruler' } as const }, whole!];
    const segments = ACROSS;
    const table = read({ layout: { ...layout, columns, segments } });
    expect(row(table, 's')).toMatchObject({
      'n:rulerActual': 300,
      'none:rulerActual': null,
      rulerActual: 300,
    });
    expect(row(table, 'r')).toMatchObject({ 'n:rulerActual': null, 'none:rulerActual': 80, rulerActual: 80 });
    expect(cellOf(table, table.rows[1]!, `q${first}Actual`)).toBe(300);
  });
});

describe('profit and loss ahead, by segment', () => {
  const bad = account('x', 'expense', 'Bad debts', '6900');
  const list = [sales, rent, bad, account('b', 'bank', 'Bank', '1000'), account('c', 'receivable')];
  const block = blockOf(list, [
    ['2026-01-05', 's', 150],
    ['2026-01-06', 'r', 40],
    ['2026-01-09', 'b', 110],
  ]);
  const months = (amount: number) => monthly((i) => (i === 0 ? null : amount));
  const owed = terms('s', ['100', { ...onAccount([['90', { days: 0 }]]), badDebt: 'x' }]);
  const tableOf = (budget: Budget, second = '', axis = siteAxis({ s: 'n' })) => {
    const ground = makeGround(
      bookWith(list, {
        sources: [sourceOf()],
        closedThrough: '2026-01' as PeriodId,
        axes: [axis],
        budgets: [budget],
      }),
      new Map([[block.id, block]]),
    );
    const ships = SHIPPED.find((l) => l.id === 'std-profit')!;
    const layout = {
      ...ships,
      against: { ...ships.against, second },
      columns: [
        ...ships.columns,
        { ...ships.columns[0]!, show: 'compared' as const, against: 'second' as const },
      ],
      segments: ACROSS,
    };
    const compared = comparedWith(ground, first + 1, layout, budget.id);
    const words = plainWords();
    const ruler = { first, last: first + 2 };
    return layoutReport({ ground, layout, month: first + 2, compared, words, ruler }).table;
  };
  const bySite = budgetOf(
    [line('s', months(200), {}, 'n'), line('r', months(30), {}, 'n'), line('r', months(20), {}, null)],
    'b1',
    { axis: 'x', segments: ['n', null], terms: [owed] },
  );

  /** The months and their sum of North, the unassigned, and the company. */
  const read = (table: ReportTable, key: string, show = 'Actual') => {
    const of = row(table, key);
    const months = [0, 1, 2].map((m) => `p${first + m}${show}`);
    const columns = show === 'Actual' ? [...months, 'rulerActual'] : months;
    return ['n:', 'none:', ''].map((scope) => columns.map((c) => of[scope + c]));
  };
  test('closed months by the ledger, those ahead by the budget; what no value has is unassigned', () => {
    const table = tableOf(bySite);
    const none = [null, null, null, null];
    expect(read(table, 's')).toEqual([[150, 200, 200, 550], none, [150, 200, 200, 550]]);
    expect(read(table, 'r')).toEqual([
      [null, 30, 30, 60],
      [40, 20, 20, 80],
      [40, 50, 50, 140],
    ]);
    // A tenth of sales is never paid: the projection's own, of no line.
    expect(read(table, 'x')).toEqual([none, [null, 20, 20, 40], [null, 20, 20, 40]]);
    const [north, rest, company] = read(table, 'netProfit') as [number[], number[], number[]];
    expect(company).toEqual([110, 130, 130, 370]);
    expect(north.map((v, i) => v + rest[i]!)).toEqual(company);
  });
  test('a budget beside it tells them apart as it planned them', () => {
    expect(read(tableOf(bySite, 'b1'), 'r', 'Budget2')).toEqual([
      [null, 30, 30],
      [null, 20, 20],
      [null, 50, 50],
    ]);
  });
  test('a budget that tells no segments apart leaves what is ahead unassigned', () => {
    const whole = budgetOf([line('s', months(200))], 'b1');
    expect(read(tableOf(whole), 's')).toEqual([
      [150, null, null, 150],
      [null, 200, 200, 400],
      [150, 200, 200, 550],
    ]);
  });
  test('what only the projection makes is unassigned, though every entry and line has its segment', () => {
    const north = budgetOf([line('s', months(200), {}, 'n')], 'b1', {
      axis: 'x',
      segments: ['n'],
      terms: [owed],
    });
    const table = tableOf(north, '', siteAxis({ s: 'n', r: 'n', b: 'n' }));
    expect(read(table, 'x')).toEqual([
      [null, null, null, null],
      [null, 20, 20, 40],
      [null, 20, 20, 40],
    ]);
  });
});
