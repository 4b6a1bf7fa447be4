import { minor, percent } from '@/core/money';
import { NO_CASH, type Book } from '@/core/model';
import { madeAhead, makeGround, reckoned } from '@/core/ground';
import { toDayNumber, type Day } from '@/core/calendar';
import { account, blockOf, bookWith, budgetOf, byMonth, line, periodIds, sourceOf } from '../test/build';
import { onAccount, terms } from '../test/cash';
import { checkBook } from './checkBook';
import { checkCash } from './cashChecks';

const accounts = [
  account('s', 'income'),
  account('bank', 'bank'),
  account('rec', 'receivable'),
  account('equity', 'equity'),
];
const block = blockOf(accounts, [
  ['2025-11-03', 'bank', 5_000],
  ['2025-11-03', 'equity', 5_000],
  ['2025-12-05', 'rec', 400],
  ['2025-12-05', 's', 400],
  ['2025-12-31', 'bank', 70],
  ['2025-12-31', 'equity', 70],
]);
const ids = periodIds(2026);
const of = (cash: Partial<Book['cash']>, amount = 100, list = accounts, ledger = block) => {
  const sales = byMonth(Object.fromEntries(ids.map((p) => [p, minor(amount)])));
  const said = [terms('s', ['100', onAccount([['90', { days: 30 }]])])];
  return checkCash(
    makeGround(
      bookWith(list, {
        budgets: [budgetOf([line('s', sales)], 'b1', { terms: said })],
        sources: [sourceOf()],
        closedThrough: periodIds(2025)[11]!,
        cash: { ...NO_CASH, ...cash },
      }),
      new Map([[ledger.id, ledger]]),
    ),
    null,
  ).map((c) => [c.code, c.holds, c.detail]);
};
const line8 = { account: null, interest: null, limit: minor(9_000), rate: percent('8'), step: minor(100) };

test('what is reckoned by day is what its postings and the ledger’s entries add up to, a credit line among them', () => {
  expect(of({ floor: minor(6_000), creditLine: line8 }, -300)).toEqual([
    ['cashOpening', true, ''],
    ['cashPostings', true, ''],
    ['cashBalanced', true, ''],
    ['itemsTie', true, ''],
    // No account of this book bears what is never paid (of credit notes, less) and the interest.
    ['madeInPlan', false, '-1.87'],
    ['profitOne', true, ''],
    ['flowTies', true, ''],
    ['sheetBalances', true, ''],
    ['floorKept', true, ''],
  ]);
});
test('a debt that nothing ahead ever pays is named; one that something pays is not', () => {
  const debts = [
    ...accounts,
    account('loan', 'loan', 'Old loan'),
    account('held', 'otherLiability', 'Deposits held'),
    account('lent', 'otherLiability', 'Lent to staff'),
  ];
  const ledger = blockOf(debts, [
    ['2025-11-03', 'bank', 5_000],
    ['2025-11-03', 'loan', 3_000],
    ['2025-11-03', 'held', 2_500],
    ['2025-11-03', 'lent', -500],
  ]);
  const repaid = {
    id: 'd1',
    name: 'Deposits back',
    direction: 'out' as const,
    amount: minor(500),
    first: '2026-03-02' as Day,
    repeat: null,
    against: 'held',
    bank: null,
    group: 'other' as const,
  };
  const told = (cash: Partial<Book['cash']>) =>
    of(cash, 100, debts, ledger).filter(([code]) => code === 'debtsPaid');
  expect(told({})).toEqual([['debtsPaid', false, 'Old loan 30.00, Deposits held 25.00']]);
  expect(told({ dated: [repaid] })).toEqual([['debtsPaid', false, 'Old loan 30.00']]);
});
test('a list of an earlier day than the closed month is told, and what was planned and has no entry', () => {
  const item = {
    id: 'i1',
    side: 'in' as const,
    kind: 'invoice' as const,
    number: '1',
    counterparty: 'Ann',
    dated: '2025-11-05' as Day,
    due: '2026-01-10' as Day,
    amount: minor(400),
    open: minor(400),
    account: null,
    from: 'november.csv',
  };
  const lists = (day: string | null) => [
    { from: 'november.csv', side: 'in' as const, day: day as Day | null, by: '', at: null },
  ];
  const told = (cash: Partial<Book['cash']>) =>
    of(cash).filter(([code]) => code === 'listOfDay' || code === 'plannedCame');
  expect(told({ items: [item], lists: lists('2025-11-30') })).toEqual([['listOfDay', false, '2025-11-30']]);
  expect(told({ items: [item], lists: lists('2025-12-31') })).toEqual([]);
  expect(told({ items: [item], lists: lists(null) })).toEqual([]);
  const dated = {
    id: 'd1',
    name: 'Grant',
    direction: 'in' as const,
    amount: minor(900),
    first: '2025-12-12' as Day,
    repeat: null,
    against: 'equity',
    bank: null,
    group: 'other' as const,
  };
  expect(told({ dated: [dated] })).toEqual([['plannedCame', false, 'Grant']]);
  const key = `missed dated d1 ${toDayNumber('2025-12-12' as Day)}`;
  const found = { day: null, state: 'found' as const, reason: '', by: '', at: '' };
  expect(told({ dated: [dated], changes: { [key]: found } })).toEqual([['plannedCame', true, '']]);
});
test('a broken floor is told with its days and the lowest amount; what stands without items too', () => {
  const found = of({
    floor: minor(5_100),
    items: [
      {
        id: 'i1',
        side: 'in',
        kind: 'invoice',
        number: '1',
        counterparty: 'Ann',
        dated: '2025-12-05' as Day,
        due: '2026-01-10' as Day,
        amount: minor(300),
        open: minor(300),
        account: null,
        from: 'a.csv',
      },
    ],
  });
  expect(found.slice(3)).toEqual([
    ['itemsTie', false, '1.00'],
    // A tenth of twelve months' sales and of the open invoice.
    ['madeInPlan', false, '1.50'],
    ['profitOne', true, ''],
    ['flowTies', true, ''],
    ['sheetBalances', true, ''],
    ['floorKept', false, '2026-01-01 – 2026-01-09, 50.70'],
  ]);
});

test('a list that has more open than the ledger fails by its name; one that has less is a notice', () => {
  const item = (open: number) => ({
    id: 'i1',
    side: 'in' as const,
    kind: 'invoice' as const,
    number: '1',
    counterparty: 'Ann',
    dated: '2025-12-05' as Day,
    due: '2026-01-10' as Day,
    amount: minor(open),
    open: minor(open),
    account: null,
    from: 'november.csv',
  });
  const told = (open: number) =>
    of({ items: [item(open)] }).filter(([code]) => code === 'itemsOver' || code === 'itemsTie');
  expect(told(450)).toEqual([
    ['itemsOver', false, '0.50'],
    ['itemsTie', true, ''],
  ]);
  expect(told(400)).toEqual([['itemsTie', true, '']]);
  expect(told(370)).toEqual([['itemsTie', false, '0.30']]);
});

test('a month of the ledger whose sides do not meet is named, and so is the first period that breaks a covenant', () => {
  const off = blockOf(accounts, [
    ['2025-11-30', 'bank', 70],
    ['2025-11-30', 'equity', 70],
    ['2025-12-31', 'bank', 5],
  ]);
  const covenant = {
    id: 'c1',
    name: 'Bank',
    ratio: 'current',
    bound: 'least',
    limit: 2000,
    from: ids[0]!,
    tested: 'period',
  } as const;
  const sales = byMonth(Object.fromEntries(ids.map((p) => [p, minor(-20)])));
  const ground = makeGround(
    bookWith(accounts, {
      budgets: [budgetOf([line('s', sales)])],
      sources: [sourceOf()],
      closedThrough: periodIds(2025)[11]!,
      covenants: [covenant, { ...covenant, id: 'c2', bound: 'most', limit: 99_000_000 }],
    }),
    new Map([[off.id, off]]),
  );
  const of = ['flowTies', 'sheetBalances', 'covenantKept', 'covenantKnown'];
  const found = checkCash(ground, null).filter((c) => of.includes(c.code));
  expect(found.map((c) => [c.code, c.subject, c.holds, c.detail])).toEqual([
    ['flowTies', '', false, 'Dec 2025 0.05'],
    ['sheetBalances', '', false, '0.05 in Dec 2025'],
    // Nothing is owed: the ratio divides by nothing, so nobody can say that it is kept.
    ['covenantKnown', 'Bank\tcurrent', false, 'Jan 2026'],
    ['covenantKnown', 'Bank\tcurrent', false, 'Jan 2026'],
  ]);
  // The checks say by which plan they look ahead: the one that is looked at, else the latest draft.
  const two = {
    ...ground.book,
    budgets: [...ground.book.budgets, budgetOf([line('s', sales)], 'b2', { name: 'Second' })],
  };
  const both = makeGround(two, new Map([[off.id, off]]));
  expect([null, 'b1'].map((id) => checkCash(both, id)[0]!.plan)).toEqual(['Second', 'Budget']);
});

test('a line that money ahead makes counts in the checks of its budget', () => {
  const list = [...accounts, account('lost', 'expense', 'Bad debts')];
  const sales = byMonth(Object.fromEntries(ids.map((p) => [p, minor(1_000)])));
  const ground = makeGround(
    bookWith(list, {
      budgets: [
        budgetOf([line('s', sales)], 'b1', {
          terms: [terms('s', ['100', onAccount([['90', { days: 30 }]])])],
        }),
      ],
      sources: [sourceOf()],
      closedThrough: periodIds(2025)[11]!,
    }),
    new Map([[block.id, block]]),
    undefined,
    madeAhead,
  );
  const told = checkBook(ground, new Map([[block.id, block]]));
  const of = (code: string) => told.find((c) => c.code === code);
  expect(of('monthsToYears')).toMatchObject({ holds: true });
  expect(of('subtotals')).toMatchObject({ holds: true });
  expect(reckoned(ground, ground.book.budgets[0]!).figures('lost')?.amounts[2]).toBe(200);
});
