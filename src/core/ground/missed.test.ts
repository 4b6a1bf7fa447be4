import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import { NO_CASH, type Book, type DatedItem, type ItemChange, type ScheduleRow } from '@/core/model';
import { account, blockOf, bookWith, budgetOf, line, periodIds, sourceOf } from '@/core/test/build';
import { assetRow, equityRow, loanRow } from '@/core/test/schedule';
import { cashOf, makeGround } from '.';

const accounts = [
  account('sales', 'income'),
  account('interest', 'otherExpense'),
  account('depreciation', 'expense'),
  account('bank', 'bank'),
  account('pay', 'payable'),
  account('vat', 'taxPayable'),
  account('boats', 'fixedAsset'),
  account('accumulated', 'fixedAsset'),
  account('loan', 'loan'),
  account('accrued', 'otherLiability'),
  account('capital', 'equity'),
  account('deposit', 'otherAsset'),
];
type Entries = Parameters<typeof blockOf>[1];
const OPENING: Entries = [
  ['2025-12-31', 'bank', 5_000_000],
  ['2025-12-31', 'capital', 5_000_000],
];
/** A book closed through a month of 2026, its budget in force, with what the ledger has of the year. */
function viewOf(
  rows: ScheduleRow[],
  entries: Entries,
  {
    closed = 2,
    cash = {},
    lines = [],
  }: { closed?: number; cash?: Partial<Book['cash']>; lines?: string[] } = {},
) {
  const made = ['interest', 'depreciation'].map((id) => line(id, { kind: 'schedule', beside: {} }));
  const said = lines.map((id) => line(id, { kind: 'schedule', beside: {} }));
  const budget = budgetOf([...made, ...said], 'b1', { length: 18, schedules: rows, covers: 'both' });
  const block = blockOf(accounts, [...OPENING, ...entries]);
  const book = bookWith(accounts, {
    budgets: [budget],
    inForce: [{ budget: 'b1', from: budget.first }],
    sources: [sourceOf()],
    closedThrough: periodIds(2026)[closed - 1]!,
    cash: { ...NO_CASH, ...cash },
  });
  return cashOf(makeGround(book, new Map([[block.id, block]])), null, 'all')!;
}
const missed = (view: ReturnType<typeof viewOf>) =>
  view.missed.map((m) => [m.of, fromDayNumber(m.day), m.money, m.missing, fromDayNumber(m.expected)]);
/** What a part moves on which day and account. */
function posted(view: ReturnType<typeof viewOf>, has: string) {
  const { table, parts } = view.projected;
  return [...parts.values()]
    .filter((p) => p.key.includes(has))
    .flatMap(({ postings: { columns, first, count } }) =>
      Array.from({ length: count }, (_, i) => [
        fromDayNumber(columns.day[first + i]!),
        table.ids[columns.account[first + i]!],
        columns.amount[first + i],
      ]),
    );
}

// The first of March 2026 is a Sunday: the first working day after February is the second.
describe('what was planned for a closed month and has no entry', () => {
  const drawn = equityRow({
    account: 'capital',
    what: 'drawn',
    amount: minor(50_000),
    first: '2026-02-10' as Day,
  });

  test('waits by name, and counts on the first working day', () => {
    const view = viewOf([drawn], []);
    expect(missed(view)).toEqual([['equity', '2026-02-10', -50_000, 1, '2026-03-02']]);
    expect(posted(view, 'missed')).toEqual([
      ['2026-03-02', 'capital', 50_000],
      ['2026-03-02', 'bank', -50_000],
    ]);
    expect(view.forecast.closing.at(-1)).toBe(4_950_000);
  });

  test.each<[string, Entries]>([
    ['on its day', [['2026-02-10', 'capital', -50_000]]],
    ['on another day of its month', [['2026-02-27', 'capital', -50_000]]],
    ['in the month before', [['2026-01-29', 'capital', -50_000]]],
    ['at another amount', [['2026-02-10', 'capital', -44_000]]],
    [
      'in two parts',
      [
        ['2026-02-10', 'capital', -20_000],
        ['2026-02-20', 'capital', -20_000],
      ],
    ],
    [
      'among other entries',
      [
        ['2026-02-10', 'capital', -50_000],
        ['2026-02-11', 'capital', 9_000],
      ],
    ],
  ])('has come where the ledger has it %s', (_, entries) => {
    expect(missed(viewOf([drawn], entries))).toEqual([]);
  });

  test.each<[string, Entries]>([
    ['of the other sign', [['2026-02-10', 'capital', 50_000]]],
    ['long before', [['2025-12-20', 'capital', -50_000]]],
    ['on another account', [['2026-02-10', 'deposit', 50_000]]],
  ])('has not come by an entry %s', (_, entries) => {
    expect(missed(viewOf([drawn], entries)).map((m) => m[3])).toEqual([1]);
  });

  test('of which less than half came waits for the rest; from half on it came at another price', () => {
    const view = viewOf([drawn], [['2026-02-10', 'capital', -10_000]]);
    expect(missed(view)).toEqual([['equity', '2026-02-10', -50_000, 0.8, '2026-03-02']]);
    expect(posted(view, 'missed')[0]).toEqual(['2026-03-02', 'capital', 40_000]);
    expect(missed(viewOf([drawn], [['2026-02-10', 'capital', -24_999]]))).toHaveLength(1);
    expect(missed(viewOf([drawn], [['2026-02-10', 'capital', -25_000]]))).toEqual([]);
  });

  test('is found in a later month, when its entry comes late', () => {
    const march = viewOf([drawn], [['2026-03-20', 'capital', -50_000]], { closed: 3 });
    expect(missed(march)).toEqual([]);
    expect(missed(viewOf([drawn], [], { closed: 3 }))).toEqual([
      ['equity', '2026-02-10', -50_000, 1, '2026-04-01'],
    ]);
  });

  test('one entry is one event’s: of two alike the second waits', () => {
    const twice = {
      ...drawn,
      repeat: { every: 1, unit: 'months' as const, until: null, times: 2 },
      first: '2026-01-10' as Day,
    };
    expect(missed(viewOf([twice], [['2026-02-10', 'capital', -50_000]])).map((m) => m[1])).toEqual([
      '2026-01-10',
    ]);
    expect(
      missed(
        viewOf(
          [twice],
          [
            ['2026-01-10', 'capital', -50_000],
            ['2026-02-10', 'capital', -50_000],
          ],
        ),
      ),
    ).toEqual([]);
  });

  test('in a ledger of monthly totals it came where the month moved as planned', () => {
    const paid = equityRow({
      id: 'r7',
      account: 'capital',
      what: 'paidIn',
      amount: minor(80_000),
      first: '2026-02-20' as Day,
    });
    expect(missed(viewOf([drawn, paid], [['2026-02-28', 'capital', 30_000]]))).toEqual([]);
  });

  test('is moved to a day, given up or found, as someone says', () => {
    const say = (change: Partial<ItemChange>) => {
      const of = { day: null, state: 'counted', reason: '', by: '', at: '', ...change } as ItemChange;
      const key = `missed b1 r6 equity ${toDayNumber('2026-02-10' as Day)}`;
      return viewOf([drawn], [], { cash: { changes: { [key]: of } } });
    };
    expect(posted(say({ day: '2026-05-04' as Day }), 'missed').map((p) => p[0])).toEqual([
      '2026-05-04',
      '2026-05-04',
    ]);
    for (const state of ['leftOut', 'found', 'held'] as const) {
      const view = say({ state });
      expect([posted(view, 'missed'), view.missed.map((m) => m.state)]).toEqual([[], [state]]);
      expect(view.forecast.closing.at(-1)).toBe(5_000_000);
    }
    // A day that is closed by now is none any more.
    expect(say({ day: '2026-02-20' as Day }).missed.map((m) => fromDayNumber(m.expected))).toEqual([
      '2026-03-02',
    ]);
  });

  test('is not asked for where a balance is said as well, a credit line moves, or only profit and loss is known', () => {
    const line_ = viewOf([drawn], [], { lines: ['capital'] });
    expect(missed(line_)).toEqual([]);
    const creditLine = {
      account: 'capital',
      interest: null,
      limit: minor(1),
      rate: percent('1'),
      step: minor(1),
    };
    expect(missed(viewOf([drawn], [], { cash: { creditLine } }))).toEqual([]);
  });
});

describe('of schedules', () => {
  const tax = {
    id: 't1',
    name: 'VAT',
    payable: 'vat',
    owed: 'net',
    on: 'invoice',
    every: 3,
    ends: 12,
    due: { of: 'months', months: 1, day: 20 },
    exceptions: [],
  } as const;
  const bought = assetRow({
    bought: '2026-02-05' as Day,
    cost: minor(100_000),
    residual: minor(0),
    paid: { due: { of: 'days', days: 30 }, through: 'pay', bank: null },
    tax: { scheme: 't1', rate: percent('19') },
  });

  test('a purchase on credit is bought on its later day, and paid as long after it as was agreed', () => {
    const view = viewOf([bought], [], { cash: { taxes: [{ ...tax, exceptions: [] }] } });
    expect(missed(view)).toEqual([['purchase', '2026-02-05', -119_000, 1, '2026-03-02']]);
    expect(posted(view, 'missed')).toEqual([
      ['2026-03-02', 'boats', 100_000],
      ['2026-03-02', 'pay', -100_000],
      ['2026-03-02', 'vat', 19_000],
      ['2026-03-02', 'pay', -19_000],
      ['2026-04-01', 'pay', 119_000],
      ['2026-04-01', 'bank', -119_000],
    ]);
    // Its bill is not paid twice, and its tax is had back with the return of the quarter in which it is bought.
    expect(
      posted(view, 'schedule b1 r3')
        .filter((p) => p[1] === 'pay')
        .map((p) => p[2]),
    ).toEqual([-100_000, -19_000, 119_000]);
    expect(view.projected.returns[0]).toMatchObject({ owed: -19_000 });
  });

  test('one that came is paid when its bill is due', () => {
    const view = viewOf(
      [bought],
      [
        ['2026-02-05', 'boats', 100_000],
        ['2026-02-05', 'pay', 100_000],
      ],
    );
    expect(missed(view)).toEqual([]);
  });

  test('an installment counts with its interest where that stands owed; what is cost of the closed month is not made up', () => {
    const loan = (accrued: string | null) =>
      loanRow({
        account: 'loan',
        accrued,
        begins: { of: 'drawn', day: '2026-01-31' as Day, amount: minor(1_200_000) },
        first: '2026-02-28' as Day,
        payments: 12,
        repay: { of: 'principal' },
      });
    const drawn: Entries = [['2026-01-31', 'loan', 1_200_000]];
    const plain = viewOf([loan(null)], drawn);
    expect(missed(plain)).toEqual([['repayment', '2026-02-28', -100_000, 1, '2026-03-02']]);
    // 6 % of 1,200,000 by 30/360 is 6,000 a month.
    expect(missed(viewOf([loan('accrued')], drawn))).toEqual([
      ['repayment', '2026-02-28', -106_000, 1, '2026-03-02'],
    ]);
    expect(missed(viewOf([loan(null)], []))).toEqual([
      ['drawing', '2026-01-31', 1_200_000, 1, '2026-03-02'],
      ['repayment', '2026-02-28', -100_000, 1, '2026-03-02'],
    ]);
  });

  test('of a sale its price is waited for: its gain comes with its entry', () => {
    const sold = assetRow({
      bought: '2026-01-05' as Day,
      cost: minor(100_000),
      residual: minor(0),
      sold: { day: '2026-02-20' as Day, price: minor(70_000), gain: 'sales' },
    });
    const view = viewOf([sold], [['2026-01-05', 'boats', 100_000]]);
    expect(missed(view)).toEqual([['sale', '2026-02-20', 70_000, 1, '2026-03-02']]);
    expect(posted(view, 'missed')).toEqual([
      ['2026-03-02', 'bank', 70_000],
      ['2026-03-02', 'boats', -70_000],
    ]);
    const entry: Entries = [
      ['2026-01-05', 'boats', 100_000],
      ['2026-02-20', 'boats', -100_000],
    ];
    expect(missed(viewOf([sold], entry))).toEqual([]);
  });
});

describe('dated items', () => {
  const item = (change: Partial<DatedItem> = {}): DatedItem => ({
    id: 'd1',
    name: 'Deposit for the crane',
    direction: 'out',
    amount: minor(7_000),
    first: '2026-02-12' as Day,
    repeat: null,
    against: 'deposit',
    bank: null,
    group: 'other',
    ...change,
  });
  const of = (dated: DatedItem, entries: Entries, change: Partial<Book['cash']> = {}, closed = 2) =>
    viewOf([], entries, { closed, cash: { dated: [dated], ...change } });

  test('wait as rows do, by the account that they stand against', () => {
    const view = of(item(), []);
    expect(missed(view)).toEqual([['dated', '2026-02-12', -7_000, 1, '2026-03-02']]);
    expect(posted(view, 'dated')).toEqual([
      ['2026-03-02', 'bank', -7_000],
      ['2026-03-02', 'deposit', 7_000],
    ]);
    expect(missed(of(item(), [['2026-02-14', 'deposit', 7_000]]))).toEqual([]);
    expect(missed(of(item({ direction: 'in' }), [['2026-02-14', 'deposit', 7_000]]))).toHaveLength(1);
    expect(missed(of(item({ direction: 'in' }), [['2026-02-14', 'deposit', -7_000]]))).toEqual([]);
  });

  test('without an account have come by just their amount at the bank', () => {
    const bare = item({ against: null });
    expect(missed(of(bare, [['2026-02-14', 'bank', -7_000]]))).toEqual([]);
    expect(missed(of(bare, [['2026-02-14', 'bank', -8_000]]))).toHaveLength(1);
    expect(missed(of(bare, [['2026-02-14', 'bank', 7_000]]))).toHaveLength(1);
  });

  test('that are left out are missed by nobody; nor are those of more than half a year ago', () => {
    const leftOut = { day: null, state: 'leftOut', reason: '', by: '', at: '' } as const;
    expect(missed(of(item(), [], { changes: { 'dated d1': leftOut } }))).toEqual([]);
    expect(missed(of(item(), [], {}, 7))).toHaveLength(1);
    expect(missed(of(item(), [], {}, 8))).toEqual([]);
  });

  test('that come again wait one by one, and go on beside', () => {
    const monthly = item({
      first: '2026-01-12' as Day,
      repeat: { every: 1, unit: 'months', until: null, times: 4 },
    });
    const view = of(monthly, [['2026-01-12', 'deposit', 7_000]]);
    expect(missed(view).map((m) => m[1])).toEqual(['2026-02-12']);
    expect(
      posted(view, 'dated')
        .filter((p) => p[1] === 'bank')
        .map((p) => p[0]),
    ).toEqual(['2026-03-12', '2026-04-12', '2026-03-02']);
  });
});
