import fc from 'fast-check';
import { minor, type Minor } from '@/core/money';
import { day, monthCalendar, toDayNumber, type FiscalCalendar } from '@/core/calendar';
import { ACTIVITY, balancesOf, BlockBuilder } from '@/core/ledger';
import {
  isProfitAndLoss,
  naturalSign,
  type Account,
  type Covenant,
  type FlowClass,
  type RatioId,
} from '@/core/model';
import { account, blockOf, calendar } from '../test/build';
import {
  conversionDays,
  covenantState,
  daysOfYear,
  flowClassOf,
  flowAmount,
  flowLines,
  headroomOf,
  joinedBalances,
  isTested,
  keepsCovenant,
  ledgerSales,
  measureOf,
  NO_SALES,
  ownMeasure,
  ownRatioOf,
  ratioInputs,
  ratioOf,
  OPERATING,
  salesOf,
  wayToCash,
  workingCapital,
  type OwnRatioValue,
  type RatioInput,
} from '.';

const first = calendar.firstOfYear(2026);
const chart = [
  account('sales', 'income', 'Sales'),
  account('goods', 'costOfSales', 'Goods'),
  account('rent', 'expense', 'Rent'),
  account('depr', 'expense', 'Depreciation of vans'),
  account('int', 'otherExpense', 'Interest on the loan'),
  account('bank', 'bank', 'Bank'),
  account('rec', 'receivable', 'Receivables'),
  account('stock', 'inventory', 'Stock'),
  account('vans', 'fixedAsset', 'Vans'),
  account('acc', 'fixedAsset', 'Accumulated depreciation'),
  account('pay', 'payable', 'Payables'),
  account('loan', 'loan', 'Loan'),
  account('cap', 'equity', 'Capital'),
];

/** A block of journal entries of January 2026, each by its reference, of natural amounts by account. */
function entriesOf(
  accounts: readonly Account[],
  entries: readonly (readonly [string, ...Readonly<Record<string, number>>[]])[],
) {
  const builder = new BlockBuilder(50);
  let row = 1;
  for (const [reference, ...parts] of entries) {
    const place = builder.once(reference);
    for (const [id, amount] of parts.flatMap((p) => Object.entries(p))) {
      const at = accounts.findIndex((a) => a.id === id);
      const written = amount * naturalSign(accounts[at]!.kind);
      builder.add(toDayNumber(day('2026-01-31')), at, written, row++, 0, place, 0, ACTIVITY);
    }
  }
  return builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
}

/**
 * Interest and income tax paid on lines of their own: IAS 7, Illustrative Example A (from memory): profit before tax 3,350 and
 * tax 300; depreciation 450, foreign exchange loss 40, investment income (500), interest expense 400; receivables up 500,
 * inventories down 1,050, trade payables down 1,740: cash generated from operations 2,550; interest paid (270), income taxes
 * paid (900): 1,380 from operating activities.
 */
describe('IAS 7, Illustrative Example A: operating activities', () => {
  const list = [
    account('sales', 'income', 'Sales less costs'),
    account('depr', 'expense', 'Depreciation'),
    account('fx', 'otherExpense', 'Foreign exchange loss'),
    account('yield', 'otherIncome', 'Investment income'),
    account('int', 'otherExpense', 'Interest expense'),
    account('tax', 'otherExpense', 'Taxes on income'),
    account('cash', 'bank', 'Cash'),
    account('ar', 'receivable', 'Receivables'),
    account('inv', 'inventory', 'Inventories'),
    account('acc', 'fixedAsset', 'Accumulated depreciation'),
    account('ap', 'payable', 'Trade payables'),
    account('accrued', 'otherLiability', 'Interest payable'),
    account('owed', 'taxPayable', 'Income taxes payable'),
  ];
  const block = entriesOf(list, [
    [
      'year',
      { sales: 3_350 + 450 + 40 - 500 + 400, depr: 450, fx: 40, yield: 500, int: 400, tax: 300 },
      { acc: -450, ar: 500, inv: -1_050, ap: -1_740, accrued: 130, owed: -600, cash: 1_380 + 500 - 40 },
    ],
  ]);
  const balances = balancesOf([block], calendar);
  const said = { fx: 'financing', yield: 'investing' } as const;
  const lines = flowLines(list, said, new Set());
  const section = (of: string, from = lines) =>
    from
      .filter((l) => l.section === of)
      .reduce((t, l) => t + (flowAmount(l, balances, NO_SALES, first) ?? 0), 0);
  const profit = 3_050;

  test('cash generated 2,550, interest paid 270, income taxes paid 900: 1,380', () => {
    expect(profit + section('adjustments') + section('workingCapital')).toBe(2_550);
    expect([section('interestPaid'), section('incomeTaxPaid')]).toEqual([-270, -900]);
    expect(profit + [...OPERATING].reduce((t, s) => t + section(s), 0)).toBe(1_380);
  });
  test('the way from profit to the bank tells what is owed of them, and no cost twice', () => {
    const way = wayToCash(balances, list, said, NO_SALES, { first, last: first });
    const steps = Object.fromEntries(way.steps.map((s) => [s.line.key, s.amount]));
    expect(steps).toMatchObject({ accrued: 130, owed: -600 });
    expect(Object.keys(steps)).not.toContain('int back');
    expect(way.steps.reduce((t, s) => t + s.amount, Number(way.profit))).toBe(way.change);
  });
  test('told elsewhere where that is said, or without an account of the cost: then it is working capital', () => {
    const financing = flowLines(list, { ...said, int: 'financing' }, new Set());
    expect([section('interestPaid', financing), section('financing', financing)]).toEqual([0, -400 - 40]);
    expect(section('workingCapital', financing)).toBe(-500 + 1_050 - 1_740 + 130);
    const bare = flowLines(
      list.filter((a) => a.id !== 'tax'),
      said,
      new Set(),
    );
    expect([section('incomeTaxPaid', bare), section('workingCapital', bare)]).toEqual([
      0,
      -500 + 1_050 - 1_740 - 600,
    ]);
  });
  test('schedules tell accounts whose names do not', () => {
    const plain = list.map((a) => ({ ...a, name: a.id }));
    const served = {
      interest: new Set(['int']),
      accrued: new Set(['accrued']),
      tax: new Set(['tax']),
      taxOwed: new Set(['owed']),
    };
    const own = flowLines(plain, said, new Set(), served);
    expect([section('interestPaid', own), section('incomeTaxPaid', own)]).toEqual([-270, -900]);
    expect(section('interestPaid', flowLines(plain, said, new Set()))).toBe(0);
  });
});

/**
 * A year's cash flow by the indirect method as accounting textbooks teach it (J. Weygandt, P. Kimmel, D. Kieso, "Accounting
 * Principles", chapter on the statement of cash flows: Computer Services Company; figures from memory): net income 145,000,
 * depreciation 9,000, loss on disposal 3,000, receivables down 10,000, inventory up 5,000, prepaid up 4,000, payables up
 * 16,000, tax payable down 2,000: 172,000 from operations; equipment sold 4,000, building and equipment bought 145,000:
 * −141,000 from investing; shares issued 20,000, dividends −29,000: −9,000 from financing; cash up by 22,000.
 */
describe('a textbook’s cash flow by the indirect method', () => {
  const list = [
    account('rev', 'income', 'Revenues'),
    account('costs', 'expense', 'Costs and tax'),
    account('depr', 'expense', 'Depreciation expense'),
    account('loss', 'otherExpense', 'Loss on disposal'),
    account('cash', 'bank', 'Cash'),
    account('ar', 'receivable', 'Accounts receivable'),
    account('inv', 'inventory', 'Inventory'),
    account('pre', 'otherAsset', 'Prepaid expenses'),
    account('plant', 'fixedAsset', 'Land, building, equipment'),
    account('acc', 'fixedAsset', 'Accumulated depreciation'),
    account('ap', 'payable', 'Accounts payable'),
    account('tax', 'taxPayable', 'Income taxes payable'),
    account('shares', 'equity', 'Common stock and retained earnings'),
  ];
  // Natural amounts by journal entry. Equipment of 8,000 with 1,000 written off was sold for 4,000.
  const block = entriesOf(list, [
    ['sale', { cash: 4_000, acc: 1_000, loss: 3_000, plant: -8_000 }],
    [
      'all else',
      { rev: 507_000, costs: 350_000, depr: 9_000, ar: -10_000, inv: 5_000, pre: 4_000, plant: 145_000 },
      { acc: -9_000, ap: 16_000, tax: -2_000, shares: 20_000 - 29_000, cash: 18_000 },
    ],
  ]);
  const balances = balancesOf([block], calendar);
  const view = { merged: new Map(), keep: null };
  const isFlow = (id: string) => isProfitAndLoss(list.find((a) => a.id === id)!.kind);
  const wayBy = (said: Parameters<typeof ledgerSales>[3]) =>
    wayToCash(balances, list, said, salesOf(ledgerSales([block], view, list, said, calendar), isFlow), {
      first,
      last: first,
    });
  const sectionOf = (way: ReturnType<typeof wayBy>) => (of: string) =>
    way.steps.filter((s) => s.line.section === of).reduce((t, s) => t + s.amount, 0);
  const way = wayBy({});
  const section = sectionOf(way);
  test('operations 172,000 and investing −141,000: the sale stands there with the 4,000 that it brought', () => {
    expect(way.profit + section('adjustments') + section('workingCapital')).toBe(172_000);
    expect(section('investing')).toBe(-141_000);
    expect(way.steps.find((s) => s.line.of === 'gains')).toMatchObject({ amount: 3_000 });
    expect(way.steps.find((s) => s.line.account.id === 'acc')).toMatchObject({ amount: 9_000 });
  });
  test('a loss that was said to be told in investing is there once', () => {
    const said = wayBy({ loss: 'investing' });
    expect(sectionOf(said)('investing')).toBe(-141_000);
    expect(said.steps.some((s) => s.line.of === 'gains')).toBe(false);
  });
  test('cash up by 22,000, whatever the classes', () => {
    expect([way.profit, way.change]).toEqual([145_000, 22_000]);
    expect(section('financing')).toBe(-9_000);
  });
});

/** What a sale moves beside money, as far as operations have it. */
const LEGS = [
  { account: 'acc', amount: 700 },
  { account: 'depr', amount: -300 },
];
const isApart = (id: string, said: Readonly<Record<string, FlowClass>>): boolean => {
  const of = flowClassOf(
    chart.find((a) => a.id === id)!,
    said,
  );
  return id === 'acc' ? of === 'adjustment' : of !== 'investing' && of !== 'financing';
};

describe('the way from profit to the bank', () => {
  test('every balanced ledger leads there, whatever accounts are said to be', () => {
    const others = chart.filter((a) => a.kind !== 'bank');
    const entry = fc.tuple(
      fc.nat(chart.length - 1),
      fc.nat(chart.length - 1),
      fc.integer({ min: -9999, max: 9999 }),
      fc.nat(2),
    );
    const classes = fc.constantFrom<FlowClass | null>(
      null,
      'operating',
      'adjustment',
      'investing',
      'financing',
    );
    fc.assert(
      fc.property(
        fc.array(entry, { minLength: 1, maxLength: 30 }),
        fc.array(classes, { minLength: others.length, maxLength: others.length }),
        (entries, said) => {
          const sign = (a: Account) => (['income', 'payable', 'loan', 'equity'].includes(a.kind) ? -1 : 1);
          const rows = entries.flatMap(([from, to, amount, month]) => {
            const date = `2026-0${month + 1}-10`;
            const [a, b] = [chart[from]!, chart[to]!];
            return [[date, a.id, amount * sign(a)] as const, [date, b.id, -amount * sign(b)] as const];
          });
          const balances = balancesOf([blockOf(chart, rows)], calendar);
          const own = Object.fromEntries(others.flatMap((a, i) => (said[i] ? [[a.id, said[i]!]] : [])));
          // A sale in any entry, too: what it moves between lines comes to nothing.
          const sold = salesOf(
            [{ period: first + 1, asset: 'vans', legs: LEGS.filter((l) => isApart(l.account, own)) }].filter(
              () =>
                flowClassOf(
                  chart.find((a) => a.id === 'vans')!,
                  own,
                ) === 'investing',
            ),
            (id) => id === 'depr',
          );
          const way = wayToCash(balances, chart, own, sold, { first, last: first + 2 });
          expect(way.profit + way.steps.reduce((t, s) => t + s.amount, 0)).toBe(way.change);
          expect(way.opening + way.change).toBe(way.closing);
        },
      ),
    );
  });
  test('by its kind an account belongs where the trade has it; what gathers write-offs is no money', () => {
    const of = (id: string, said = {}) =>
      flowClassOf(
        chart.find((a) => a.id === id)!,
        said,
      );
    expect(['bank', 'rec', 'stock', 'vans', 'acc', 'pay', 'loan', 'cap', 'rent'].map((id) => of(id))).toEqual(
      [
        ...[
          'cash',
          'operating',
          'operating',
          'investing',
          'adjustment',
          'operating',
          'financing',
          'financing',
        ],
        'operating',
      ],
    );
    expect(of('rec', { rec: 'financing' })).toBe('financing');
  });
  test('a cost that is told elsewhere stands there, and is taken back where profit has it', () => {
    const lines = flowLines(chart, { int: 'financing' }, new Set()).filter((l) => l.account.id === 'int');
    expect(lines.map((l) => [l.section, l.sign])).toEqual([
      ['adjustments', 1],
      ['financing', -1],
    ]);
  });
});

describe('the ledger and what is ahead as one', () => {
  const block = blockOf(chart, [
    ['2026-01-10', 'bank', 100],
    ['2026-01-10', 'sales', 100],
    ['2026-02-10', 'bank', 999],
    ['2026-02-10', 'sales', 999],
  ]);
  const ledger = balancesOf([block], calendar);
  const joined = joinedBalances(ledger, {
    start: first,
    count: 2,
    opening: new Map([['bank', 100]]),
    standing: new Map([
      ['bank', Float64Array.of(130, 110)],
      ['sales', Float64Array.of(-30, -30)],
      ['pay', Float64Array.of(0, -20)],
    ]),
    isBalance: (a) => a !== 'sales',
  });
  const over = (of: (p: number) => unknown) => [first - 1, first, first + 1, first + 2, first + 3].map(of);
  test('movements go over from one to the other; entries of months that are not closed do not count', () => {
    expect(over((p) => joined.movement('bank', p))).toEqual([null, 100, 30, -20, null]);
    expect(over((p) => joined.movement('sales', p))).toEqual([null, -100, -30, 0, null]);
    expect(over((p) => joined.movement('pay', p))).toEqual([null, null, 0, -20, null]);
    expect(over((p) => joined.movement('rent', p))).toEqual([null, null, null, null, null]);
  });
  test('balances stand on from where the ledger leaves them; results gather', () => {
    expect(over((p) => joined.balance('bank', p, true))).toEqual([0, 100, 130, 110, 110]);
    expect(over((p) => joined.balance('sales', p, true))).toEqual([0, -100, -130, -130, -130]);
    expect(over((p) => joined.balance('pay', p, true))).toEqual([0, 0, 0, -20, -20]);
  });
  test('it knows the closed periods that have entries, and every one ahead', () => {
    expect(over((p) => joined.has(p))).toEqual([false, true, true, true, false]);
    expect(joined.range).toEqual({ first, last: first + 2 });
    expect([joined.active('pay'), joined.active('rent')]).toEqual([true, false]);
  });
});

describe('ratios', () => {
  const amounts: Partial<Record<RatioInput, number>> = {
    income: 1_000_00,
    grossMargin: 400_00,
    operatingProfit: 150_00,
    costOfSales: 600_00,
    fixedCosts: 250_00,
    contribution: 400_00,
    interest: 30_00,
    depreciation: 50_00,
    repaid: 70_00,
    bank: 80_00,
    receivables: 100_00,
    inventory: 60_00,
    payables: 48_00,
    currentAssets: 250_00,
    currentLiabilities: 125_00,
    debt: 300_00,
    equity: 200_00,
    costsPaid: 730_00,
  };
  const input = (name: RatioInput) => (amounts[name] === undefined ? null : (amounts[name] as Minor));
  // Each reckoned by hand, in thousandths of its unit (definitions: common practice).
  test.each<[RatioId, number]>([
    ['grossMargin', 400],
    ['operatingMargin', 150],
    ['fixedShare', 250],
    ['current', 2000],
    ['quick', 1440],
    ['debtToEquity', 1500],
    ['debtService', 2000],
    ['interestCover', 5000],
    ['receivableDays', 36_500],
    ['inventoryDays', 36_500],
    ['payableDays', 29_200],
    ['cashConversion', 43_800],
    ['cashDays', 40_000],
    // 250 ÷ 40 % of each sale.
    ['breakEven', 625_00],
  ])('%s is %d', (id, value) => expect(ratioOf(id, input, 365).value).toBe(value));
  test('what is not known, or divides by nothing, has none', () => {
    expect(ratioOf('current', () => null, 365).value).toBeNull();
    expect(ratioOf('interestCover', (n) => (n === 'interest' ? minor(0) : minor(5)), 365).value).toBeNull();
    expect(ratioOf('breakEven', (n) => (n === 'contribution' ? minor(-1) : minor(5)), 365).value).toBeNull();
    // Without stock nothing waits for it.
    const bare = (n: RatioInput) =>
      n === 'inventory' ? minor(0) : n === 'costOfSales' ? minor(0) : input(n);
    expect(ratioOf('cashConversion', bare, 365).value).toBeNull();
  });
  test('flows are those of the year up to the period, and of nothing less; balances those at its end', () => {
    const rows = Array.from({ length: 13 }, (_, i) => {
      const { start } = calendar.period(first + i);
      return [
        [start, 'sales', 100],
        [start, 'goods', 60],
        [start, 'int', 2],
        [start, 'depr', 1],
        [start, 'loan', i % 2 === 0 ? -10 : 5],
        [start, 'bank', 40],
        [start, 'cap', 3],
      ] as const;
    }).flat();
    const balances = balancesOf([blockOf(chart, rows)], calendar);
    const at = (p: number) => ratioInputs(balances, chart, calendar, p);
    expect(at(first + 10)('income')).toBeNull();
    const year = at(first + 11);
    expect((['income', 'grossMargin', 'interest', 'depreciation', 'costsPaid'] as const).map(year)).toEqual([
      1200, 480, 24, 12, 744,
    ]);
    // Six months repaid ten; what was drawn in the others is no repayment.
    expect([year('repaid'), year('bank'), year('debt')]).toEqual([60, 480, -30]);
    // All that is there, less all that is owed.
    expect(year('equity')).toBe(480 + 30);
    expect(year('assets')).toBe(480);
    expect([daysOfYear(calendar, first + 11), at(first + 12)('repaid')]).toEqual([365, 60]);
  });
});

describe('covenants', () => {
  const covenant = (change: Partial<Covenant> = {}): Covenant => ({
    id: 'c',
    name: 'Bank',
    ratio: 'current',
    bound: 'least',
    limit: 1500,
    from: calendar.period(first).id,
    tested: 'period',
    ...change,
  });
  const ratio = (top: number, bottom: number) =>
    measureOf(
      ratioOf('current', (n) => minor(n === 'currentAssets' ? top : bottom), 365),
      365,
    );
  test('at least and at most hold at their limit', () => {
    expect([1499, 1500, 1501].map((value) => keepsCovenant(covenant(), { value }))).toEqual([
      false,
      true,
      true,
    ]);
    expect([1499, 1500, 1501].map((value) => keepsCovenant(covenant({ bound: 'most' }), { value }))).toEqual([
      true,
      true,
      false,
    ]);
    expect(keepsCovenant(covenant(), { value: null })).toBeNull();
  });
  test('headroom in money: as far as what is above the line may move', () => {
    expect(headroomOf(covenant(), ratio(200_00, 100_00))).toBe(50_00);
    expect(headroomOf(covenant({ bound: 'most' }), ratio(200_00, 100_00))).toBe(-50_00);
    const days = ratioOf('receivableDays', (n) => minor(n === 'receivables' ? 100_00 : 1_000_00), 365);
    // At most 73 days of 1,000 a year: 200.
    const most = covenant({ ratio: 'receivableDays', bound: 'most', limit: 73_000 });
    expect(headroomOf(most, measureOf(days, 365))).toBe(100_00);
    // Break-even sales are an amount: 5 × 5 ÷ 5, of at most 1,500.
    const even = measureOf(
      ratioOf('breakEven', () => minor(5), 365),
      365,
    );
    expect(headroomOf(covenant({ ratio: 'breakEven', bound: 'most' }), even)).toBe(1495);
    expect(headroomOf(covenant({ ratio: 'breakEven' }), even)).toBe(-1495);
    const waits = ratioOf('cashConversion', () => minor(5), 365);
    expect(headroomOf(covenant({ ratio: 'cashConversion' }), measureOf(waits, 365))).toBeNull();
  });
  test('of a ratio of one’s own too, where its formula divides', () => {
    const own = (unit: 'times' | 'money', parts: OwnRatioValue['parts']) =>
      ownMeasure({ value: 2000, parts, issue: null }, unit);
    const parts = { top: 200_00, bottom: 100_00 };
    expect(headroomOf(covenant({ ratio: { own: 'o1' } }), own('times', parts))).toBe(50_00);
    expect(headroomOf(covenant({ ratio: { own: 'o1' } }), own('times', null))).toBeNull();
    expect(headroomOf(covenant({ ratio: { own: 'o1' }, limit: 500 }), own('money', parts))).toBe(1500);
  });
  test('the first period that breaks it, and the tightest', () => {
    const of = [160, 149, 155, 140].map((top) => ratio(top, 100));
    const state = covenantState(covenant(), [0, 1, 2, 3], (p) => of[p]!);
    expect([state.broken, state.tightest]).toEqual([1, { period: 3, room: -10 }]);
    expect(covenantState(covenant(), [0, 2], (p) => of[p]!)).toMatchObject({
      broken: null,
      tightest: { period: 2, room: 5 },
    });
  });
  test('a period whose ratio is not known keeps nothing, and is told', () => {
    const of = [ratio(160, 100), ratio(160, 0), ratio(140, 0), ratio(151, 100)];
    expect(of.map((m) => m.value === null)).toEqual([false, true, true, false]);
    const at = (...periods: number[]) => covenantState(covenant(), periods, (p) => of[p]!);
    expect(at(0, 1, 2, 3)).toMatchObject({ tested: 4, unknown: [1, 2], broken: null });
    expect(at(1, 2)).toMatchObject({ tested: 2, unknown: [1, 2], broken: null, tightest: null });
    expect(at()).toMatchObject({ tested: 0, unknown: [] });
  });
  test('looked at every month, at quarter ends or at year ends, by the fiscal year', () => {
    const when = (of: FiscalCalendar, tested: Covenant['tested'], from: number) =>
      Array.from({ length: 12 }, (_, i) => from + i).filter((p) => isTested({ tested }, of, p));
    const july = monthCalendar(7);
    const start = july.firstOfYear(2026);
    expect(when(july, 'period', start)).toHaveLength(12);
    expect(when(july, 'quarter', start)).toEqual([2, 5, 8, 11].map((m) => start + m));
    expect(when(july, 'year', start)).toEqual([start + 11]);
  });
});

describe('working capital', () => {
  const rows = Array.from({ length: 14 }, (_, i) => {
    const { start } = calendar.period(first + i);
    return [
      [start, 'sales', i === 13 ? 200 : 100],
      [start, 'goods', 60],
      [start, 'rec', i === 0 ? 300 : 10],
      [start, 'stock', 5],
      [start, 'pay', 4],
    ] as const;
  }).flat();
  const balances = balancesOf([blockOf(chart, rows)], calendar);
  const at = (month: number, span: number) => workingCapital(balances, chart, calendar, first + month, span);
  test('over a year it is what the ratios of the trade say', () => {
    const year = at(11, 12);
    const input = ratioInputs(balances, chart, calendar, first + 11);
    const ratios = (['receivableDays', 'inventoryDays', 'payableDays', 'cashConversion'] as const).map(
      (id) => ratioOf(id, input, 365).value,
    );
    expect([year.receivable.days, year.inventory.days, year.payable.days, conversionDays(year)]).toEqual(
      ratios,
    );
    expect(year.receivable).toEqual({ stands: 410, flow: 1200, days: 124_708 });
  });
  test('over a shorter span it follows the season, in the days of that span', () => {
    // February 2027: 430 owed of 200 in 28 days.
    expect(at(13, 1).receivable).toEqual({ stands: 430, flow: 200, days: 60_200 });
    // December to February: 430 of 400 in 90 days.
    expect(at(13, 3).receivable.days).toBe(96_750);
    expect(at(13, 3).payable).toEqual({ stands: 56, flow: 180, days: 28_000 });
  });
  test('what is not known, or has no flow, has no days; a part that is nothing waits for none', () => {
    expect(at(1, 3).receivable).toEqual({ stands: 310, flow: null, days: null });
    expect(at(14, 1).receivable.stands).toBeNull();
    const bare = balancesOf(
      [
        blockOf(chart, [
          ['2026-01-05', 'sales', 100],
          ['2026-01-05', 'rec', 100],
        ]),
      ],
      calendar,
    );
    const alone = workingCapital(bare, chart, calendar, first, 1);
    expect([alone.inventory.days, conversionDays(alone)]).toEqual([null, 31_000]);
    expect(
      conversionDays({ ...alone, inventory: { stands: minor(5), flow: minor(0), days: null } }),
    ).toBeNull();
  });
});

describe('fixed and variable costs', () => {
  const chart = [
    account('s', 'income'),
    account('g', 'costOfSales'),
    account('e', 'expense'),
    account('x', 'otherExpense'),
  ];
  /** 40 sold in a year; each month a twelfth. */
  const told = (amounts: Readonly<Record<string, number>>, variable: Readonly<Record<string, number>>) => {
    const rows = Array.from({ length: 12 }, (_, i) =>
      Object.entries(amounts).map(([id, a]) => [calendar.period(first + i).start, id, a] as const),
    ).flat();
    const balances = balancesOf([blockOf(chart, rows)], calendar);
    const known = { interest: new Set<string>(), depreciation: new Set<string>(), due: () => 0, variable };
    return ratioInputs(balances, chart, calendar, first + 11, known);
  };
  test('break-even sales of the textbook: 200 each, 120 of it variable, 2,000 fixed, 25 of them', () => {
    // C. Horngren, S. Datar, M. Rajan, "Cost Accounting", cost-volume-profit analysis; figures from memory.
    const sold = 12 * 40;
    const input = told({ s: 40 * 200, g: 40 * 120, e: 2000 }, {});
    expect(input('variableCosts')).toBe(sold * 120);
    expect(input('fixedCosts')).toBe(12 * 2000);
    expect(ratioOf('breakEven', input, 365).value).toBe(12 * 25 * 200);
  });
  test('a cost may be fixed, variable or mixed, whatever its kind; what is no cost of operations is neither', () => {
    const amounts = { s: 1000, g: 400, e: 101, x: 7 };
    const of = (variable: Readonly<Record<string, number>>) => {
      const input = told(amounts, variable);
      return [input('variableCosts'), input('fixedCosts'), input('contribution')];
    };
    expect(of({})).toEqual([4800, 1212, 7200]);
    expect(of({ g: 0 })).toEqual([0, 6012, 12_000]);
    // A quarter of 1,212 is 303.
    expect(of({ e: 25 })).toEqual([5103, 909, 6897]);
    expect(of({ e: 100, x: 100 })).toEqual([6012, 0, 5988]);
  });
});

describe('ratios of one’s own', () => {
  const chart = [
    account('s', 'income'),
    account('t', 'income'),
    account('c', 'expense'),
    account('bank', 'bank'),
  ];
  const months = Array.from({ length: 12 }, (_, i) => `2025-${String(i + 1).padStart(2, '0')}-05`);
  const balances = balancesOf(
    [
      blockOf(chart, [
        ...months.flatMap((d): [string, string, number][] => [
          [d, 's', 1_000],
          [d, 't', 500],
          [d, 'c', 600],
          [d, 'bank', 900],
        ]),
      ]),
    ],
    calendar,
  );
  const figures = (p: number) => ratioInputs(balances, chart, calendar, p);
  const books = { balances, accounts: chart, calendar, unit: 100, figures };
  const december = calendar.firstOfYear(2025) + 11;
  const value = (formula: string, unit: 'percent' | 'times' | 'days' | 'money' = 'times', at = december) =>
    ownRatioOf({ formula, unit }, books, at);

  test.each<[string, string, 'percent' | 'times' | 'days' | 'money', number]>([
    ['a share of the year', '"account:c" / "kind:income"', 'percent', 400],
    ['times, to a thousandth', '"account:s" / "account:c"', 'times', 1667],
    ['a balance at the end, in days of costs', '"account:bank" / "account:c" * 365', 'days', 547_500],
    ['money, with constants in units of the currency', '"kind:income" - 100', 'money', 8_000],
    ['figures that the statements add up', '"figure:operatingProfit" / "figure:income"', 'percent', 600],
    ['and lines beside them', '"figure:bank" + "account:c"', 'money', 18_000],
    ['what stood so many periods before', 'prior 2 "account:bank"', 'money', 9_000],
  ])('%s', (_, formula, unit, expected) =>
    expect(value(formula, unit)).toMatchObject({ value: expected, issue: null }),
  );

  test('says why it comes to nothing', () => {
    expect(value('"account:s" /').issue).toBe('badFormula');
    expect(value('"driver:d1" * 2').issue).toBe('badFormula');
    expect(value('"account:zz"').issue).toBe('missing');
    expect(value('"figure:zz"').issue).toBe('missing');
    expect(value('"figure:income"', 'money', december - 1)).toMatchObject({ value: null, issue: null });
    expect(value('1 / ("account:s" - "account:s")').issue).toBe('dividesByZero');
    // A year that is not whole says nothing.
    expect(value('"account:s"', 'money', december - 1)).toMatchObject({ value: null, issue: null });
  });
  test('a quotient tells what is above the line and below it', () => {
    expect(value('("account:s" - "account:c") / "kind:income"').parts).toEqual({
      top: 4_800,
      bottom: 18_000,
    });
    expect(value('"account:s" / "account:c" * 365').parts).toBeNull();
  });
});
