import fc from 'fast-check';
import { dayNumberOf } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import { BlockBuilder, journalOf, rowAt, type LedgerBlock } from '@/core/ledger';
import { account } from '@/core/test/build';
import { atOnce, NEW_YEAR, onAccount, planned, projectionOf, terms } from '@/core/test/cash';
import {
  balancesAt,
  createProjector,
  FLOWS,
  forecastOf,
  happenedIn,
  thenAndNow,
  type Flow,
  type Happened,
} from '.';

const view = { merged: new Map(), keep: null };
const jan = (date: number) => dayNumberOf(2026, 1, date);
type Row = readonly [day: number, reference: string, account: string, amount: number];

/** A block of rows as they are, each with a text of its own for its reference, as intake gives rows that stand apart. */
function blockOf(rows: readonly Row[]): LedgerBlock {
  const accounts = [...new Set(rows.map((r) => r[2]))];
  const b = new BlockBuilder(rows.length);
  let before = '';
  let place = 0;
  rows.forEach(([day, reference, of, amount], i) => {
    if (reference !== before) place = b.once(reference);
    before = reference;
    b.add(jan(day), accounts.indexOf(of), amount, i + 1, 0, place);
  });
  return b.build('l', accounts);
}
const entries = (block: LedgerBlock): string[] => {
  const journal = journalOf(block);
  return Array.from({ length: journal.starts.length - 1 }, (_, k) =>
    Array.from({ length: journal.starts[k + 1]! - journal.starts[k]! }, (_x, n) => {
      const row = rowAt(journal, journal.starts[k]! + n);
      return `${block.accounts[block.account[row]!]!} ${block.amount[row]!}`;
    }).join(', '),
  );
};

describe('journal entries', () => {
  const rows: readonly Row[] = [
    [5, 'J1', 'bank', 100],
    [5, 'J1', 'rec', -100],
    [6, 'J2', 'rent', 40],
    [6, 'J2', 'bank', -40],
  ];
  test('are rows of one day and reference that follow one another', () => {
    expect(entries(blockOf(rows))).toEqual(['bank 100, rec -100', 'rent 40, bank -40']);
  });
  test('of a ledger that goes account by account are put together', () => {
    const byAccount = [rows[0]!, rows[3]!, rows[1]!, rows[2]!];
    expect(entries(blockOf(byAccount))).toEqual(['bank 100, rec -100', 'bank -40, rent 40']);
  });
  test('without references every row stands for itself', () => {
    expect(entries(blockOf(rows.map(([d, , a, m]) => [d, '', a, m] as const)))).toHaveLength(4);
  });
});

describe('what the banks did', () => {
  const accounts = [
    account('bank', 'bank'),
    account('till', 'bank'),
    account('rec', 'receivable'),
    account('sales', 'income'),
    account('wages', 'expense'),
    account('vat', 'taxPayable'),
    account('loan', 'loan'),
    account('boat', 'fixedAsset'),
  ];
  const flowOf = (a: { readonly kind: string }): Flow =>
    a.kind === 'expense'
      ? 'payroll'
      : a.kind === 'taxPayable'
        ? 'taxes'
        : a.kind === 'loan'
          ? 'loans'
          : a.kind === 'fixedAsset'
            ? 'other'
            : 'customers';
  const did = (rows: readonly Row[]) => {
    const h = happenedIn([blockOf(rows)], view, accounts, flowOf, { from: jan(1), to: jan(31) });
    return Object.fromEntries(
      FLOWS.map((f) => [f, h[f].reduce((t, v) => t + v, 0)] as const).filter(([, v]) => v !== 0),
    );
  };
  test('goes by what stands against them; a tax goes with its sale, and alone to the authorities', () => {
    expect(
      did([
        [2, 'J1', 'bank', 110],
        [2, 'J1', 'sales', -100],
        [2, 'J1', 'vat', -10],
        [3, 'J2', 'vat', 25],
        [3, 'J2', 'bank', -25],
        [4, 'J3', 'wages', 60],
        [4, 'J3', 'bank', -60],
      ]),
    ).toEqual({ customers: 110, taxes: -25, payroll: -60 });
  });
  test('one entry of two flows is told apart; between banks nothing happens; one without another side is other', () => {
    expect(
      did([
        [2, 'J1', 'bank', -70],
        [2, 'J1', 'loan', 50],
        [2, 'J1', 'wages', 20],
        [3, 'J2', 'till', 30],
        [3, 'J2', 'bank', -30],
        [4, 'J3', 'bank', -9],
      ]),
    ).toEqual({ loans: -50, payroll: -20, other: -9 });
  });
  test('comes to what the banks moved, whatever the entries', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            day: fc.integer({ min: 1, max: 31 }),
            reference: fc.constantFrom('', 'A', 'B', 'C'),
            of: fc.constantFrom(...accounts.map((a) => a.id)),
            amount: fc.integer({ min: -500, max: 500 }),
          }),
          { minLength: 1, maxLength: 40 },
        ),
        (rows) => {
          const all = did(rows.map((r) => [r.day, r.reference, r.of, r.amount] as const));
          const bank = rows
            .filter((r) => r.of === 'bank' || r.of === 'till')
            .reduce((t, r) => t + r.amount, 0);
          expect(Object.values(all).reduce((t, v) => t + v, 0)).toBe(bank);
        },
      ),
    ));
});

describe('then and now', () => {
  const days = (...amounts: number[]) => Float64Array.from(amounts);
  const happened = (by: Partial<Record<Flow, Float64Array>>): Happened =>
    Object.fromEntries(FLOWS.map((f) => [f, by[f] ?? new Float64Array(4)])) as Happened;
  const both = thenAndNow(
    {
      start: NEW_YEAR,
      opening: 1_000,
      sources: new Map([
        ['newSales', days(100, 0, 0, 50)],
        ['openInvoices', days(0, 30, 0, 0)],
        ['payroll', days(0, 0, -40, 0)],
      ]),
    },
    { opening: 1_005, happened: happened({ customers: days(0, 120, 0, 0), payroll: days(0, 0, -45, 0) }) },
    [
      { from: NEW_YEAR + 1, to: NEW_YEAR + 2 },
      { from: NEW_YEAR + 3, to: NEW_YEAR + 4 },
    ],
  );
  test('the bank as it was expected, as it is, and what it differs by', () => {
    expect([both.then, both.now, both.opening]).toEqual([[1_130, 1_140], [1_125, 1_080], 5]);
    expect([both.differences.customers, both.differences.payroll]).toEqual([
      [-10, -50],
      [0, -5],
    ]);
  });
  test('the differences of the flows and of the start are the difference of the bank', () => {
    let sum = both.opening;
    both.ranges.forEach((_, i) => {
      for (const f of FLOWS) sum += both.differences[f][i]!;
      expect(both.now[i]! - both.then[i]!).toBe(sum);
    });
  });
});

describe('balances of a projection', () => {
  const [sales, rent] = [account('sales', 'income'), account('rent', 'expense')];
  const input = projectionOf(
    [
      planned(sales, terms('sales', ['100', onAccount([['90', { days: 20 }]])]), [300, 300]),
      planned(rent, atOnce({ of: 'monthDay', day: 5 }), [100, 100]),
    ],
    {
      opening: new Map([
        ['bank', 500],
        ['rec', 60],
        ['pay', -10],
      ]),
    },
  );
  const line = {
    account: 'loan',
    interest: 'cost',
    limit: minor(1_000),
    rate: percent('12'),
    step: minor(100),
  };
  const rules = { without: [], floor: minor(450), creditLine: line, drawn: 0 };
  const itself = (account: string) => account;
  const projected = createProjector()(input);
  const forecast = forecastOf(projected, rules);
  const ends = [NEW_YEAR + 10, NEW_YEAR + 59];
  const stands = balancesAt(projected, input.opening, ends, {
    moves: forecast.moves,
    rules: line,
    bank: 'bank',
    borneBy: itself,
  });

  test('the bank is the forecast’s, day by day, the credit line stands against it', () => {
    for (const [k, end] of ends.entries())
      expect(stands.get('bank')![k]).toBe(forecast.closing[end - NEW_YEAR - 1]);
    expect(forecast.moves.some((m) => m.what === 'drawing')).toBe(true);
    expect(stands.get('loan')![0]).toBe(
      -forecast.moves
        .filter((m) => m.day <= ends[0]! && m.what !== 'interest')
        .reduce((t, m) => t + m.amount, 0),
    );
  });
  test('interest stands on its own account', () => {
    const paid = forecast.moves.filter((m) => m.what === 'interest').reduce((t, m) => t - m.amount, 0);
    const late = balancesAt(projected, input.opening, [NEW_YEAR + 59], {
      moves: [...forecast.moves, { day: NEW_YEAR + 50, what: 'interest', amount: -7, stands: 0 }],
      rules: line,
      bank: 'bank',
      borneBy: itself,
    });
    expect(late.get('cost')![0]).toBe(paid + 7);
  });
  test('on every day all accounts together are what they were at the start', () => {
    const all = balancesAt(
      projected,
      input.opening,
      Array.from(forecast.closing, (_, d) => NEW_YEAR + 1 + d),
      { moves: forecast.moves, rules: line, bank: 'bank', borneBy: itself },
    );
    forecast.closing.forEach((_, d) => {
      let sum = 0;
      for (const amounts of all.values()) sum += amounts[d]!;
      expect(sum).toBe(550);
    });
  });
});

describe('a textbook’s cash budget', () => {
  // The pattern of textbooks of managerial accounting (the master budget's cash budget: collections over three months,
  // purchases paid a month behind, a minimum balance kept by borrowing in whole thousands, interest paid with it); figures
  // are made up, results reckoned by hand.
  const sales = account('sales', 'income');
  const goods = account('goods', 'costOfSales');
  const end = { of: 'monthDay', day: 31 } as const;
  const collected = terms('sales', [
    '100',
    onAccount([
      ['20', { months: 0, day: 31 }],
      ['70', { months: 1, day: 31 }],
      ['10', { months: 2, day: 31 }],
    ]),
  ]);
  const paid = terms('goods', ['100', onAccount([['100', { months: 1, day: 31 }]], end)]);
  /** With what is bought month by month, and what the bank holds at the start. */
  const budget = (bought: readonly number[], bank: number) =>
    forecastOf(
      createProjector()(
        projectionOf(
          [planned(sales, collected, [50_000, 60_000, 80_000, 40_000]), planned(goods, paid, bought)],
          { opening: new Map([['bank', bank]]) },
        ),
      ),
      {
        without: [],
        floor: minor(10_000),
        creditLine: {
          account: null,
          interest: null,
          limit: minor(50_000),
          rate: percent('12'),
          step: minor(1_000),
        },
        drawn: 0,
      },
    );
  const forecast = budget([45_000, 48_000, 30_000, 30_000], 12_000);
  const monthEnds = [31, 59, 90, 120].map((d) => forecast.closing[d - 1]);
  test('month by month: collected, paid, borrowed to the minimum in whole steps, repaid with interest', () => {
    // January: 12,000 + 10,000 = 22,000.
    // February: + 35,000 + 12,000 − 45,000 = 24,000.
    // March: + 5,000 + 42,000 + 16,000 − 48,000 = 39,000.
    // April: + 6,000 + 56,000 + 8,000 − 30,000 = 79,000.
    expect(monthEnds).toEqual([22_000, 24_000, 39_000, 79_000]);
  });
  test('with less at the start it borrows, pays a month’s interest on it, and repays what is above the minimum', () => {
    const f = budget([63_500, 48_000, 30_000, 30_000], 2_000);
    // From the first day 8,000 are missing: 8,000 drawn. January's end: 10,000 + 10,000 = 20,000, of which 8,000 repay.
    // February's end: 12,000 + 47,000 − 63,500 = −4,500: 15,000 drawn, 10,500 stand.
    // March's end: 10,500 + 63,000 − 48,000 = 25,500 − 150 interest (15,000 × 12 % ÷ 12): 15,000 repaid, 10,350 stand.
    expect(f.moves.map((m) => [m.day - NEW_YEAR, m.what, m.amount])).toEqual([
      [1, 'drawing', 8_000],
      [31, 'repayment', -8_000],
      [59, 'drawing', 15_000],
      [90, 'interest', -150],
      [90, 'repayment', -15_000],
    ]);
    expect(f.closing[89]).toBe(10_350);
  });
});
