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
import {
  ALL_SOURCES,
  approvedCash,
  cashOf,
  keptFrom,
  lastTerms,
  makeGround,
  reckoned,
  termsFrom,
  thenAndNowOf,
  trialOfTerms,
} from '.';

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

test('what was explained of the plan is a part of its own beside it, on the terms of its account', () => {
  const note = {
    text: '',
    against: 'b1',
    at: 't',
    parts: [
      { kind: 'lasting' as const, amount: null, monthly: minor(-20), until: ids[1]! },
      { kind: 'timing' as const, amount: minor(5), back: [{ period: ids[2]!, amount: minor(7) }] },
    ],
  };
  const ground = groundOf({ budgets: [plan(100)], varianceNotes: { [periodIds(2025)[11]!]: { s: note } } });
  const t = months(ground, ground.book.budgets[0]!);
  expect(t.closing.slice(0, 4)).toEqual([5_080, 5_160, 5_267, 5_367]);
  const view = cashOf(ground, ground.book.budgets[0]!)!;
  expect([...view.lines.values()].map(({ line: l }) => [l.key, l.amounts.slice(0, 4)])).toEqual([
    ['b1 s:', [100, 100, 100, 100]],
    ['b1 s:~explained', [-20, -20, 7, 0]],
  ]);
  // The worksheet and what was approved are what they were.
  expect(reckoned(ground, ground.book.budgets[0]!).amounts('s')!.slice(0, 3)).toEqual([100, 100, 100]);
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

test('a list of a day before the closed one goes on with the ledger’s entries since, and says that it is older', () => {
  const items = (['17', '18'] as const).map((number) => ({
    id: `i${number}`,
    side: 'in' as const,
    kind: 'invoice' as const,
    number,
    counterparty: 'party 1',
    dated: '2025-11-01' as Day,
    due: '2026-01-20' as Day,
    amount: minor(40),
    open: minor(40),
    account: null,
    from: 'nov.csv',
  }));
  // Parties go by turns of three: the payment is of “party 1”, the invoice after it of “party 2”.
  const ledger = blockOf(
    accounts,
    [
      ['2025-11-01', 'rec', 80],
      ['2025-12-05', 'rec', -55],
      ['2025-12-09', 'rec', 30],
    ],
    'l1',
  );
  const of = (listDay: string | null) => {
    const lists = [{ from: 'nov.csv', side: 'in' as const, day: listDay as Day | null, by: '', at: null }];
    const cash = { ...NO_CASH, items, lists };
    const ground = makeGround(
      bookWith(accounts, { sources: [sourceOf()], closedThrough: periodIds(2025)[11]!, cash }),
      new Map([[ledger.id, ledger]]),
    );
    const view = cashOf(ground, null)!;
    return [view.items.map((i) => [i.from, i.counterparty, i.open]), view.withoutItems.in];
  };
  expect(of('2025-11-30')).toEqual([
    [
      ['nov.csv', 'party 1', 25],
      [null, 'party 2', 30],
    ],
    0,
  ]);
  const asItCame = [
    ['nov.csv', 'party 1', 40],
    ['nov.csv', 'party 1', 40],
  ];
  expect(of('2025-12-31')).toEqual([asItCame, -25]);
  expect(of(null)).toEqual([asItCame, -25]);
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

test('one that starts from another begins with that one’s terms, of its own segments or of all', () => {
  const [mine, north] = [terms('s', ['100', atOnce()]), { ...terms('r', ['100', atOnce()]), segment: 'n' }];
  const budgets = [
    plan(1, 'b1', { terms: [mine, north] }),
    plan(1, 'b2', { terms: [terms('r', ['100', atOnce()])] }),
  ];
  expect(termsFrom({ budgets, accounts }, budgets[0]!, [null])).toEqual([mine]);
  expect(termsFrom({ budgets, accounts }, budgets[0]!, ['n', null])).toEqual([mine, north]);
  expect(termsFrom({ budgets, accounts }, null, [null])).toEqual(budgets[1]!.terms);
  expect(termsFrom({ budgets, accounts }, plan(1, 'b3', { terms: [] }), [null])).toEqual(budgets[1]!.terms);
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

  test('an item whose day is past comes 14 days after the closed day, whoever it is of', () => {
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
      ['party 0', 60, 14],
    ]);
  });

  test('an item of a list is expected as late as its counterparty pays, never before it is due', () => {
    const item = (counterparty: string, dated: string, due: string, open = 100) => ({
      id: `i${counterparty.at(-1)}${due}`,
      side: 'in' as const,
      kind: 'invoice' as const,
      number: `N ${counterparty} ${due}`,
      counterparty,
      dated: dated as Day,
      due: due as Day,
      amount: minor(open),
      open: minor(open),
      account: null,
      from: 'list.csv',
    });
    const history: Parameters<typeof of>[0] = [
      ['2025-01-01', 'rec', 10],
      ['2025-01-01', 'rec', 30],
      ['2025-01-01', 'bank', 1],
      ['2025-03-02', 'rec', -10],
      ['2025-01-11', 'rec', -30],
    ];
    const expected = (cash: Partial<Book['cash']>) =>
      of(history, { lists: [], ...cash }).items.map((i) => [i.counterparty, fromDayNumber(i.expected)]);
    const items = [
      // Party 0 pays after 60 days, party 1 after 10; of the third nothing is known.
      item('party 0', '2025-12-10', '2026-01-09'),
      item('party 0', '2025-12-10', '2026-03-01'),
      item('party 1', '2025-12-10', '2026-01-09'),
      item('party 2', '2025-12-10', '2026-01-09'),
      // Late already, and late for one who pays late.
      item('party 0', '2025-09-10', '2025-10-10'),
    ];
    expect(expected({ items })).toEqual([
      ['party 0', '2026-02-08'],
      ['party 0', '2026-03-01'],
      ['party 1', '2026-01-09'],
      ['party 2', '2026-01-09'],
      ['party 0', '2026-01-14'],
    ]);
    // What was measured up to a closed month stays; a day that someone said goes before all.
    expect(expected({ items: [items[0]!], measuredThrough: '2025-02-28' as Day })).toEqual([
      ['party 0', '2026-01-09'],
    ]);
    const change = { day: '2026-05-05' as Day, state: 'counted' as const, reason: '', by: '', at: 't' };
    expect(expected({ items: [items[0]!], changes: { [`item ${items[0]!.id}`]: change } })).toEqual([
      ['party 0', '2026-05-05'],
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

describe('new items, orders, disposals', () => {
  const item = (id: string, change: Partial<Book['cash']['items'][number]> = {}) => ({
    id,
    side: 'in' as const,
    kind: 'invoice' as const,
    number: id,
    counterparty: 'Ann',
    dated: '2025-12-01' as Day,
    due: '2026-01-20' as Day,
    amount: minor(40),
    open: minor(40),
    account: null,
    from: 'open.csv',
    ...change,
  });
  const last = (
    cash: Partial<Book['cash']>,
    rows: Parameters<typeof blockOf>[1] = [],
    forecast = ALL_SOURCES,
  ) => {
    const ledger = blockOf(accounts, rows, 'l1');
    const ground = makeGround(
      bookWith(accounts, {
        budgets: [plan(100)],
        sources: [sourceOf()],
        closedThrough: periodIds(2025)[11]!,
        cash: { ...NO_CASH, ...cash },
      }),
      new Map([[ledger.id, ledger]]),
    );
    const view = cashOf(ground, ground.book.budgets[0]!, forecast)!;
    return { view, end: view.forecast.closing.at(-1) };
  };
  const waits = { day: null, state: 'waiting' as const, reason: '', by: '', at: '' };

  test('what waits counts or not, as it is said', () => {
    const items = [item('i1')];
    const changes = { 'item i1': waits };
    const owed = [['2025-12-01', 'rec', 40]] as const;
    expect(last({ items }, owed).end).toBe(1_240);
    expect(last({ items, changes, newItems: 'waitCounted' }, owed).end).toBe(1_240);
    expect(last({ items, changes, newItems: 'wait' }, owed).end).toBe(1_200);
    // What still waits when nothing has to wait any more counts.
    expect(last({ items, changes, newItems: 'counted' }, owed).end).toBe(1_240);
    // Items of a file wait by what was marked, not by their day.
    const later = { newItems: 'wait' as const, lookedThrough: '2025-11-01' as Day };
    expect(last({ items, ...later }, owed).end).toBe(1_240);
  });
  test('what the ledger brought since someone looked waits until someone does', () => {
    const rows = [
      ['2025-11-05', 'rec', 40],
      ['2025-12-05', 'rec', 30],
    ] as const;
    const cash = { newItems: 'wait' as const, lookedThrough: '2025-11-30' as Day };
    const { view, end } = last(cash, rows);
    expect(view.items.map((i) => [i.open, i.state])).toEqual([
      [40, 'counted'],
      [30, 'waiting'],
    ]);
    expect(end).toBe(1_240);
    expect(last({ ...cash, lookedThrough: '2025-12-05' as Day }, rows).end).toBe(1_270);
    expect(last({ ...cash, newItems: 'counted' }, rows).end).toBe(1_270);
  });
  test('orders stand in place of the plan, or on top where their source is said to; left out they take nothing away', () => {
    const items = [
      item('o1', {
        kind: 'order',
        account: 's',
        dated: '2026-03-10' as Day,
        due: '2026-04-10' as Day,
        open: minor(60),
      }),
    ];
    expect(last({ items }).end).toBe(1_200);
    expect(last({ items, ordersOnTop: ['salesOrders'] }).end).toBe(1_260);
    expect(last({ items, ordersOnTop: ['purchaseOrders'] }).end).toBe(1_200);
    const forecasts = [{ id: 'f1', name: 'Without orders', without: ['salesOrders' as const] }];
    expect(last({ items, forecasts }, [], 'f1').end).toBe(1_200);
  });
  test('a planned disposal brings its money on its day, against what is sold', () => {
    const { view, end } = last({
      items: [item('d1', { kind: 'disposal', account: 'rec', due: '2026-02-10' as Day })],
    });
    expect(end).toBe(1_240);
    const part = view.projected.parts.get('item item d1')!;
    expect([part.source, view.forecast.bySource.get('disposals')![40]]).toEqual(['disposals', 40]);
    expect(view.withoutItems.in).toBe(0);
  });
  test('the company’s own forecast is what is shown first', () => {
    const forecasts = [{ id: 'f1', name: 'No sales', without: ['newSales' as const] }];
    const ground = groundOf({ budgets: [plan(100)], cash: { ...NO_CASH, forecasts, own: 'f1' } });
    const budget = ground.book.budgets[0]!;
    expect(cashOf(ground, budget)!.forecast.closing.at(-1)).toBe(5_000);
    expect(cashOf(ground, budget, ALL_SOURCES)!.forecast.closing.at(-1)).toBe(6_200);
  });
});

describe('what is kept, and what happened since', () => {
  const rows: Parameters<typeof blockOf>[1] = [
    ['2025-06-03', 'bank', 5_000],
    ['2025-10-10', 's', 300],
    ['2025-10-10', 'rec', 300],
    ['2025-11-12', 'bank', 300],
    ['2025-11-12', 'rec', -300],
  ];
  const of = (closed: number, change: Partial<Book> = {}) => {
    // Rows of one day are one entry.
    const ledger = { ...blockOf(accounts, rows, 'l1'), reference: new Int32Array(rows.length).fill(1) };
    return makeGround(
      bookWith(accounts, { sources: [sourceOf()], closedThrough: periodIds(2025)[closed]!, ...change }),
      new Map([[ledger.id, ledger]]),
    );
  };
  const kept = () => {
    const autumn = Object.fromEntries(periodIds(2025).map((p) => [p, minor(100)]));
    const lines = [line('s', byMonth(autumn))];
    const ground = of(8, { budgets: [plan(100, 'b1', { first: periodIds(2025)[9]!, lines })] });
    return {
      id: 'k1',
      name: 'Autumn',
      at: '2025-10-02T00:00:00.000Z',
      by: 'K',
      ...keptFrom(cashOf(ground, ground.book.budgets[0]!)!, 800),
    };
  };
  test('a forecast stands beside what the bank did, by its days up to what is closed', () => {
    const one = kept();
    expect([one.start, one.opening]).toEqual(['2025-09-30', 5_000]);
    const ground = of(10, { budgets: [plan(0)] });
    const both = thenAndNowOf(ground, cashOf(ground, ground.book.budgets[0]!)!, one, 'months')!;
    // Two months of 100 each at their ends were expected; one payment of 300 came.
    expect([both.then, both.now, both.opening]).toEqual([[5_100, 5_200], [5_000, 5_300], 0]);
  });
  test('it stands beside the days that it has', () => {
    const ground = of(10, { budgets: [plan(0)] });
    const short = { ...kept(), days: 31, sources: [] };
    const both = thenAndNowOf(ground, cashOf(ground, ground.book.budgets[0]!)!, short, 'months')!;
    expect([both.then, both.now]).toEqual([[5_000], [5_000]]);
  });
  test('nothing stands beside it before a month is closed', () => {
    const ground = of(8, { budgets: [plan(0)] });
    expect(thenAndNowOf(ground, cashOf(ground, ground.book.budgets[0]!)!, kept(), 'weeks')).toBeNull();
  });
  test('an approved budget keeps closing balances and cash by source, closed months as the ledger has them', () => {
    const budget = plan(100, 'b1', { first: periodIds(2025)[11]!, length: 3 });
    const cash = approvedCash(of(11, { budgets: [budget] }), budget)!;
    expect(cash.closing.bank).toEqual([5_300, 5_400, 5_500]);
    expect(cash.sources.newSales).toEqual([0, 100, 100]);
  });
  test('terms tried on closed months: what they make of the months’ own amounts', () => {
    const said = [terms('s', ['100', atOnce({ of: 'monthDay', day: 20 })])];
    const ground = of(11, { budgets: [plan(0, 'b1', { terms: said })] });
    const trial = trialOfTerms(ground, cashOf(ground, ground.book.budgets[0]!)!, 3)!;
    // Paid at once October's sale would have come in October; it came in November.
    expect(trial.expected.customers).toEqual([300, 0, 0]);
    expect(trial.happened.customers).toEqual([0, 300, 0]);
    const months = (n: number) =>
      trialOfTerms(ground, cashOf(ground, ground.book.budgets[0]!)!, n)?.ranges.length;
    // The ledger begins in June: it tells how things stood at its end, not before.
    expect([months(6), months(7)]).toEqual([6, undefined]);
  });
});

test('a year of thirteen periods is looked ahead as thirteen', () => {
  const start = toDayNumber('2025-12-29' as Day);
  const periods = Array.from({ length: 39 }, (_, i) => ({
    year: 2026 + Math.floor(i / 13),
    name: `P${(i % 13) + 1}`,
    start: fromDayNumber(start + 28 * i),
    end: fromDayNumber(start + 28 * i + 27),
  }));
  const chart = [account('s', 'income'), account('bank', 'bank')];
  const ledger = blockOf(chart, [['2026-01-05', 'bank', 100]]);
  const book = bookWith(chart, {
    calendar: { kind: 'handMade', periods },
    budgets: [budgetOf([line('s', byMonth())], 'b1', { first: '2026-01' as never, length: 13 })],
    sources: [sourceOf({ block: ledger.id })],
    closedThrough: '2026-01' as never,
  });
  const view = cashOf(makeGround(book, new Map([[ledger.id, ledger]])), null)!;
  // Twelve of this year that are planned, and one more of the next.
  expect(view.input.periods.length).toBe(13);
  expect(view.unplanned.length).toBe(1);
});
