import { minor } from '@/core/money';
import { toDayNumber, fromDayNumber, type Day } from '@/core/calendar';
import { byPeriods, cashTable } from '@/core/cash';
import { NO_CASH, type Book, type Budget } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  line,
  periodIds,
  sourceOf,
  unphased,
} from '@/core/test/build';
import { atOnce, terms } from '@/core/test/cash';
import { cashOf, lastTerms, makeGround } from '.';

const accounts = [
  account('s', 'income', 'Sales'),
  account('r', 'expense', 'Rent'),
  account('bank', 'bank'),
  account('rec', 'receivable'),
];
const ids = periodIds(2026);
const block = blockOf(accounts, [
  ['2025-11-03', 'bank', 5_000],
  ['2025-12-10', 'r', 300],
]);
const year = (amount: number, from = 0): Budget['lines'][number]['method'] =>
  byMonth(Object.fromEntries(ids.slice(from).map((p) => [p, minor(amount)])));
const plan = (amount: number, id = 'b1', change: Partial<Budget> = {}) =>
  budgetOf([line('s', year(amount))], id, { terms: [terms('s', ['100', atOnce()])], ...change });
const groundOf = (change: Partial<Book> = {}) =>
  makeGround(
    bookWith(accounts, {
      sources: [sourceOf({ lastDay: '2025-12-31' as Day })],
      closedThrough: periodIds(2025)[11]!,
      ...change,
    }),
    new Map([[block.id, block]]),
  );
const months = (ground: ReturnType<typeof groundOf>, budget: Budget | null) => {
  const view = cashOf(ground, budget)!;
  return cashTable(view.forecast, byPeriods(view.input.periods));
};

test('the bank goes on from what the ledger holds, by the budget that is looked at', () => {
  const ground = groundOf({ budgets: [plan(100)] });
  const t = months(ground, ground.book.budgets[0]!);
  expect([t.opening[0], t.closing[0], t.closing.at(-1)]).toEqual([5_000, 5_100, 6_200]);
});

test('months before it follow the budget in force, months after it the next; what none plans is said', () => {
  const approved = { at: 't', by: '', fingerprint: '', cash: null, lines: [] };
  const first = {
    ...plan(100),
    length: 6,
    state: 'approved' as const,
    approved: {
      ...approved,
      lines: [{ account: 's', segment: null, amounts: new Array(6).fill(minor(100)), wholes: [] }],
    },
  };
  const next = plan(7, 'b2', { first: ids[6]!, length: 3 });
  const ground = groundOf({ budgets: [first, next] });
  const view = cashOf(ground, ground.book.budgets[1]!)!;
  expect(view.plans.map((p) => [p.budget.id, p.periods.length])).toEqual([
    ['b1', 6],
    ['b2', 3],
  ]);
  expect(view.unplanned.map((p) => p.id)).toEqual(ids.slice(9));
  expect(cashTable(view.forecast, byPeriods(view.input.periods)).closing).toEqual([
    5_100, 5_200, 5_300, 5_400, 5_500, 5_600, 5_607, 5_614, 5_621, 5_621, 5_621, 5_621,
  ]);
});

test('an amount for the year without months is named, and moves nothing', () => {
  const budget = budgetOf([line('s', year(100)), line('r', unphased(2_400))]);
  const ground = groundOf({ budgets: [budget] });
  const view = cashOf(ground, ground.book.budgets[0]!)!;
  expect(view.undated.map((a) => a.id)).toEqual(['r']);
  expect(cashOf(groundOf({ budgets: [plan(1)] }), plan(1))!.undated).toEqual([]);
});

test('a book whose ledger has no bank starts from what was said, else says that it is not known', () => {
  const bare = makeGround(
    bookWith(accounts, { budgets: [plan(100)], closedThrough: periodIds(2025)[11]! }),
    new Map(),
  );
  expect(cashOf(bare, bare.book.budgets[0]!)).toMatchObject({
    opening: 'unknown',
    projected: { opening: 0 },
  });
  const said = makeGround(
    {
      ...bare.book,
      cash: {
        ...NO_CASH,
        opening: { day: '2025-12-31' as Day, amounts: { bank: minor(900), rec: minor(60) } },
      },
    },
    new Map(),
  );
  const view = cashOf(said, said.book.budgets[0]!)!;
  expect([view.opening, view.projected.opening, view.withoutItems]).toEqual([
    'said',
    900,
    { in: 60, out: 0 },
  ]);
});

test('before anything is closed, it starts on the day before the budget', () => {
  const ground = makeGround(bookWith(accounts, { budgets: [plan(100)] }), new Map());
  expect(fromDayNumber(cashOf(ground, ground.book.budgets[0]!)!.input.start)).toBe('2025-12-31');
  expect(cashOf(makeGround(bookWith(accounts), new Map()), null)).toBeNull();
});

test('terms of a line win over those of its account, group and kind; the rest is guessed', () => {
  const on = (day: number) => [['100', atOnce({ of: 'monthDay', day })]] as const;
  const said = [
    { ...terms('', ...on(1)), of: { of: 'kind' as const, kind: 'income' as const } },
    { ...terms('', ...on(2)), of: { of: 'group' as const, kind: 'income' as const, group: 'Berths' } },
    terms('s', ...on(3)),
    { ...terms('s', ...on(4)), segment: 'n' },
  ];
  const berths = { ...account('b', 'income', 'Berths'), group: 'Berths' };
  const other = account('o', 'income', 'Other');
  const ground = groundOf({
    accounts: [...accounts, berths, other],
    budgets: [plan(1, 'b1', { terms: said })],
  });
  const { termsOf } = cashOf(ground, ground.book.budgets[0]!)!;
  const day = (a: typeof berths, segment: string | null = null) => {
    const rule = termsOf(a, segment).terms.parts[0]!.rule;
    return rule.kind === 'atOnce' && rule.on.of === 'monthDay' ? rule.on.day : null;
  };
  expect([day(accounts[0]!, 'n'), day(accounts[0]!), day(berths), day(other)]).toEqual([4, 3, 2, 1]);
  expect(termsOf(accounts[1]!, null).guess).not.toBeNull();
});

test('items of a file stand in place of the ledger’s own, and follow what was decided of them', () => {
  const items = [
    {
      id: 'i1',
      side: 'in' as const,
      kind: 'invoice' as const,
      number: '17',
      counterparty: 'Ann',
      dated: '2025-12-01' as Day,
      due: '2026-01-20' as Day,
      amount: minor(40),
      open: minor(40),
      account: 'rec',
      from: 'open.csv',
    },
  ];
  const ledger = blockOf(accounts, [['2025-12-05', 'rec', 40]], 'l1');
  const of = (cash: Partial<Book['cash']>) => {
    const ground = makeGround(
      bookWith(accounts, {
        budgets: [plan(0)],
        sources: [sourceOf()],
        closedThrough: periodIds(2025)[11]!,
        cash: { ...NO_CASH, ...cash },
      }),
      new Map([[ledger.id, ledger]]),
    );
    const view = cashOf(ground, ground.book.budgets[0]!)!;
    return { view, low: cashTable(view.forecast, byPeriods(view.input.periods)).closing.at(-1) };
  };
  expect(of({}).view.items.map((i) => [i.from, i.open, fromDayNumber(i.due)])).toEqual([
    [null, 40, '2026-01-04'],
  ]);
  const filed = of({ items });
  expect(filed.view.items.map((i) => [i.from, i.expected])).toEqual([
    ['open.csv', toDayNumber('2026-01-20' as Day)],
  ]);
  expect([filed.low, filed.view.withoutItems]).toEqual([40, { in: 0, out: 0 }]);
  const change = { day: null, state: 'held' as const, reason: 'disputed', by: '', at: '' };
  expect(of({ items, changes: { 'item i1': change } }).low).toBe(0);
  const moved = { ...change, day: '2026-05-02' as Day, state: 'counted' as const };
  expect(of({ items, changes: { 'item i1': moved } }).view.items[0]!.expected).toBe(
    toDayNumber('2026-05-02' as Day),
  );
});

test('asked again for what did not change, it is the same forecast; an edit changes it', () => {
  const ground = groundOf({ budgets: [plan(100)] });
  const first = cashOf(ground, ground.book.budgets[0]!)!;
  expect(cashOf(ground, ground.book.budgets[0]!)!.projected.version).toBe(first.projected.version);
  const edited = makeGround(
    { ...ground.book, budgets: [plan(101)] },
    new Map([[block.id, block]]),
    ground.memory,
  );
  const next = cashOf(edited, edited.book.budgets[0]!)!;
  expect(next.forecast.closing.at(-1)! - first.forecast.closing.at(-1)!).toBe(12);
});

test('a new budget begins with the last terms that were said, of accounts that are there', () => {
  const said = [terms('s', ['100', atOnce()]), terms('gone', ['100', atOnce()])];
  const budgets = [plan(1, 'b1', { terms: said }), plan(1, 'b2', { terms: [] })];
  expect(lastTerms({ budgets, accounts })).toEqual(said.slice(0, 1));
  expect(lastTerms({ budgets: [], accounts })).toEqual([]);
});

describe('what stands at the start', () => {
  const vat = account('vat', 'taxPayable');
  const all = [...accounts, vat];
  const start = toDayNumber('2025-12-31' as Day);
  /** A ledger up to the end of 2025: [day, account, natural amount]. */
  const of = (rows: Parameters<typeof blockOf>[1], cash: Partial<Book['cash']> = {}) => {
    const ledger = blockOf(all, rows, 'l1');
    const ground = makeGround(
      bookWith(all, {
        budgets: [plan(0)],
        sources: [sourceOf()],
        closedThrough: periodIds(2025)[11]!,
        cash: { ...NO_CASH, ...cash },
      }),
      new Map([[ledger.id, ledger]]),
    );
    return cashOf(ground, ground.book.budgets[0]!)!;
  };

  test('an overdue item comes 14 days on, or as many later as its counterparty is slower than others', () => {
    // The builder of tests names parties by turns of three.
    const unknown = of([['2025-09-01', 'rec', 40]]);
    expect(unknown.items.map((i) => i.expected - start)).toEqual([14]);
    const slow = of([
      ['2025-01-01', 'rec', 10],
      ['2025-01-01', 'rec', 30],
      ['2025-01-01', 'bank', 1],
      ['2025-03-02', 'rec', -10],
      ['2025-01-11', 'rec', -30],
      ['2025-01-12', 'bank', 1],
      ['2025-06-01', 'rec', 5],
    ]);
    // Party 0 paid after 60 days, party 1 after 10, which is what most money took.
    expect(slow.items.map((i) => [i.counterparty, i.due - i.dated, i.expected - start])).toEqual([
      ['party 0', 60, 50],
    ]);
  });

  test('a tax that stands owed is the running quarter’s as far as its months brought it', () => {
    const tax = {
      id: 't1',
      name: 'Tax',
      payable: 'vat',
      owed: 'net' as const,
      on: 'invoice' as const,
      every: 3 as const,
      ends: 11,
      // The quarter to November is due in February: not yet paid.
      due: { of: 'months' as const, months: 3, day: 10 },
      exceptions: [],
    };
    const rows = [
      ['2025-10-10', 'vat', 70],
      ['2025-12-10', 'vat', 30],
    ] as const;
    expect(of(rows, { taxes: [tax] }).projected.returns.map((r) => [fromDayNumber(r.to), r.owed])).toEqual([
      ['2025-11-30', 70],
      ['2026-02-28', 30],
    ]);
    // Where the period before is paid already, all of it is the running one's.
    const paid = { ...tax, due: { of: 'days' as const, days: 20 } };
    expect(of(rows, { taxes: [paid] }).projected.returns.map((r) => [fromDayNumber(r.to), r.owed])).toEqual([
      ['2026-02-28', 100],
    ]);
  });
});
