import { minor, percent } from '@/core/money';
import { day } from '@/core/calendar';
import { account, bookWith, budgetOf } from '@/core/test/build';
import { atOnce, onAccount, terms } from '@/core/test/cash';
import { assetRow } from '@/core/test/schedule';
import {
  applyCommand,
  BOOK_VERSION,
  movementKey,
  nextValueNumber,
  NO_BANKS,
  NO_CASH,
  openBook,
  type BankStatement,
  type Book,
  type Command,
  type DatedItem,
  type KeptForecast,
  type OpenItem,
} from '.';

const accounts = [
  account('s', 'income', 'Sales'),
  account('s2', 'income', 'More sales'),
  account('bank', 'bank'),
  account('rec', 'receivable'),
  account('rec2', 'receivable'),
];
const book = (change: Partial<Book> = {}): Book => bookWith(accounts, { budgets: [budgetOf([])], ...change });
const after = (from: Book, command: Command): Book => {
  const done = applyCommand(from, command);
  if (!done.ok) throw new Error(JSON.stringify(done.refusal));
  return done.book;
};
const refused = (from: Book, command: Command) => {
  const done = applyCommand(from, command);
  return done.ok ? null : done.refusal.code;
};
const through = (id: string) => ({ ...onAccount([['100', { days: 30 }]]), through: id });
const item = (id: string, from: string): OpenItem => ({
  id,
  side: 'in',
  kind: 'invoice',
  number: id,
  counterparty: 'Someone',
  dated: day('2025-12-01'),
  due: day('2025-12-31'),
  amount: minor(100),
  open: minor(100),
  account: null,
  from,
});
const take = (from: string, items: OpenItem[], sides: OpenItem['side'][] = ['in']): Command => ({
  type: 'takeOpenItems',
  from,
  sides,
  items,
  day: day('2025-12-31'),
  by: 'K',
  at: '2026-01-01T00:00:00.000Z',
});
const dated = (change: Partial<DatedItem> = {}): DatedItem => ({
  id: 'i1',
  name: 'Grant',
  direction: 'in',
  amount: minor(100),
  first: day('2026-01-10'),
  repeat: null,
  against: null,
  bank: 'bank',
  group: 'other',
  ...change,
});

test('a book of version 3 opens with nothing said about its money', () => {
  const { cash, ...rest } = book();
  expect(cash).toEqual(NO_CASH);
  const { terms: said, ...budget } = rest.budgets[0]!;
  expect(said).toEqual([]);
  const opened = openBook({ ...rest, version: 3, budgets: [budget] });
  expect(opened).toMatchObject({ ok: true, setAside: [], book: { version: BOOK_VERSION, cash: NO_CASH } });
  expect(opened.ok && opened.book.budgets[0]!.terms).toEqual([]);
});

describe('terms', () => {
  test('stand once for each target, and are taken back', () => {
    const set = (list: ReturnType<typeof terms>[]): Command => ({
      type: 'setTerms',
      budget: 'b1',
      terms: list,
      without: [],
    });
    let b = after(book(), set([terms('s', ['100', atOnce()]), terms('s2', ['100', atOnce()])]));
    b = after(b, set([terms('s', ['100', through('rec')])]));
    expect(b.budgets[0]!.terms.map((t) => t.parts[0]!.rule.kind)).toEqual(['atOnce', 'onAccount']);
    b = after(b, {
      type: 'setTerms',
      budget: 'b1',
      terms: [],
      without: [{ of: { of: 'account', account: 's' } }],
    });
    expect(b.budgets[0]!.terms.map((t) => t.of)).toEqual([{ of: 'account', account: 's2' }]);
  });

  test.each([
    ['parts that are not 100 %', terms('s', ['60', atOnce()], ['39', atOnce()])],
    [
      'shares over 100 %',
      terms('s', [
        '100',
        onAccount([
          ['70', { days: 1 }],
          ['31', { days: 2 }],
        ]),
      ]),
    ],
    ['an account that is not there', terms('s', ['100', through('nowhere')])],
  ])('of %s are refused, and nothing changes', (_, wrong) => {
    expect(refused(book(), { type: 'setTerms', budget: 'b1', terms: [wrong], without: [] })).toBe('notSound');
  });

  test('of an approved budget stay', () => {
    const approved = { at: 't', by: '', fingerprint: '', cash: null, lines: [] };
    const b = book({ budgets: [{ ...budgetOf([]), state: 'approved', approved }] });
    expect(
      refused(b, { type: 'setTerms', budget: 'b1', terms: [terms('s', ['100', atOnce()])], without: [] }),
    ).toBe('budgetIsFrozen');
  });

  test('follow an account that is merged into another, which keeps its own', () => {
    const named = [terms('s', ['100', through('rec')]), terms('s2', ['100', atOnce()])];
    const b = book({
      budgets: [{ ...budgetOf([]), terms: named }],
      cash: { ...NO_CASH, opening: { day: day('2025-12-31'), amounts: { rec: minor(5), rec2: minor(7) } } },
    });
    const merged = after(b, { type: 'mergeAccounts', from: 'rec', into: 'rec2', lines: [] });
    expect(merged.budgets[0]!.terms[0]!.parts[0]!.rule).toMatchObject({ through: 'rec2' });
    expect(merged.cash.opening!.amounts).toEqual({ rec2: 12 });
    const sales = after(merged, { type: 'mergeAccounts', from: 's', into: 's2', lines: [] });
    expect(sales.budgets[0]!.terms).toEqual([named[1]]);
    const other = after(book({ budgets: [{ ...budgetOf([]), terms: named.slice(0, 1) }] }), {
      type: 'mergeAccounts',
      from: 's',
      into: 's2',
      lines: [],
    });
    expect(other.budgets[0]!.terms[0]!.of).toEqual({ of: 'account', account: 's2' });
  });
});

describe('taxes and named forecasts', () => {
  const tax = {
    name: 'VAT',
    payable: null,
    owed: 'net',
    on: 'invoice',
    every: 3,
    ends: 12,
    due: { of: 'months', months: 1, day: 20 },
    exceptions: [],
  } as const;
  const carries = (scheme: string): Command => ({
    type: 'setTerms',
    budget: 'b1',
    terms: [{ ...terms('s', ['100', atOnce()]), tax: { scheme, rate: percent('20') } }],
    without: [],
  });
  const ids = (b: Book) => b.cash.taxes.map((t) => t.id);

  test('a tax that is taken away leaves its id to nobody', () => {
    let b = after(book(), { type: 'addTax', tax: { ...tax, exceptions: [] } });
    const [first] = ids(b);
    b = after(b, { type: 'removeTax', tax: first! });
    b = after(b, { type: 'addTax', tax: { ...tax, exceptions: [] } });
    expect(ids(b)).toHaveLength(1);
    expect(ids(b)).not.toContain(first);
    b = after(b, { type: 'setTax', tax: { ...b.cash.taxes[0]!, name: 'GST' } });
    expect(b.cash.taxes.map((t) => t.name)).toEqual(['GST']);
    expect(refused(b, { type: 'setTax', tax: { ...b.cash.taxes[0]!, id: first! } })).toBe('noSuchItem');
    expect(refused(b, { type: 'addTax', tax: { ...tax, exceptions: [], name: ' ' } })).toBe('emptyName');
  });
  test('one that a line’s terms or an asset’s row carries stays, in whatever budget', () => {
    const with_ = after(book(), { type: 'addTax', tax: { ...tax, exceptions: [] } });
    const [id] = ids(with_);
    expect(refused(after(with_, carries(id!)), { type: 'removeTax', tax: id! })).toBe('taxInUse');
    const row = assetRow({
      account: 'rec',
      expense: 's2',
      accumulated: null,
      tax: { scheme: id!, rate: percent('20') },
    });
    const asset = after(with_, { type: 'putScheduleRows', budget: 'b1', rows: [row], lines: [] });
    expect(refused(asset, { type: 'removeTax', tax: id! })).toBe('taxInUse');
    expect(ids(after(asset, { type: 'removeTax', tax: 't9' }))).toEqual([id]);
  });
  test('a forecast that is taken away is our own no more, and its id goes to nobody', () => {
    let b = after(book(), { type: 'addForecast', forecast: { name: 'Lean', without: ['loans'] } });
    const [first] = b.cash.forecasts;
    b = after(b, { type: 'setCash', change: { own: first!.id } });
    b = after(b, { type: 'setForecast', forecast: { ...first!, without: [] } });
    b = after(b, { type: 'removeForecast', forecast: first!.id });
    expect([b.cash.own, b.cash.forecasts]).toEqual([null, []]);
    b = after(b, { type: 'addForecast', forecast: { name: 'Lean', without: [] } });
    expect(b.cash.forecasts[0]!.id).not.toBe(first!.id);
  });
});

describe('ids', () => {
  test('whatever brings an id, the book’s next number is beyond it: none is given twice', () => {
    const axis = (ids: string[]) => ({
      id: 'x1',
      name: 'Site',
      columns: [],
      byAccount: {},
      values: ids.map((id) => ({ id, name: id, from: [] })),
    });
    let b = after(book(), { type: 'setAxis', axis: axis(['v1', 'v250']) });
    expect(b.nextId).toBe(251);
    // The last value goes, and the next one is another.
    b = after(b, { type: 'setAxis', axis: axis(['v1']) });
    expect(nextValueNumber(b.axes[0]!, b.nextId)).toBe(251);
    b = after(b, take('a.csv', [item('i400', 'a.csv')]));
    expect(b.nextId).toBe(401);
    b = after(b, { type: 'setDatedItem', item: dated({ id: 'i777' }) });
    expect(b.nextId).toBe(778);
    // An id of a thousand digits is no number that anything counts on from.
    b = after(b, { type: 'setDatedItem', item: dated({ id: `i${'9'.repeat(70)}` }) });
    expect(b.nextId).toBeLessThan(1e9 + 1);
  });
});

describe('dated items, open items and what is decided of them', () => {
  test('are added, changed and taken away with their decisions', () => {
    let b = after(book(), { type: 'setDatedItem', item: dated() });
    b = after(b, { type: 'setDatedItem', item: dated({ name: 'Second grant' }) });
    const change = { day: null, state: 'held' as const, reason: 'not signed', by: '', at: 't' };
    b = after(b, { type: 'setItemChanges', changes: [{ key: 'dated i1', change }] });
    expect([b.cash.dated.map((d) => d.name), b.nextId]).toEqual([['Second grant'], 101]);
    b = after(b, { type: 'removeDatedItem', item: 'i1' });
    expect([b.cash.dated, b.cash.changes]).toEqual([[], {}]);
  });

  test('a list is in force on its sides with its day until another takes its place or it is taken back', () => {
    const names = (b: Book) => b.cash.lists.map((l) => [l.from, l.side, l.day]);
    const out = (id: string, from: string): OpenItem => ({ ...item(id, from), side: 'out' });
    let b = after(book(), take('both.csv', [item('i1', 'both.csv'), out('i2', 'both.csv')], ['in', 'out']));
    expect(names(b)).toEqual([
      ['both.csv', 'in', '2025-12-31'],
      ['both.csv', 'out', '2025-12-31'],
    ]);
    b = after(b, { ...take('jan.csv', [item('i3', 'jan.csv')]), day: day('2026-01-31') } as Command);
    expect(names(b)).toEqual([
      ['both.csv', 'out', '2025-12-31'],
      ['jan.csv', 'in', '2026-01-31'],
    ]);
    const held = { day: null, state: 'held', reason: '', by: '', at: '2026-01-01T00:00:00.000Z' } as const;
    const [id] = b.cash.items.filter((i) => i.side === 'in').map((i) => i.id);
    b = after(b, { type: 'setItemChanges', changes: [{ key: `item ${id}`, change: held }] });
    b = after(b, { type: 'removeOpenList', from: 'jan.csv', side: 'in' });
    expect([names(b), b.cash.items.map((i) => i.side), b.cash.changes]).toEqual([
      [['both.csv', 'out', '2025-12-31']],
      ['out'],
      {},
    ]);
  });
  test('what a list says of an item goes before what was decided of it', () => {
    const says = (state: 'held' | 'counted') =>
      ({ day: null, state, reason: 'list', by: 'K', at: '2026-01-01T00:00:00.000Z' }) as const;
    let b = after(book(), take('a.csv', [item('i1', 'a.csv')]));
    const mine = { ...says('held'), reason: 'mine' };
    b = after(b, { type: 'setItemChanges', changes: [{ key: 'item i1', change: mine }] });
    b = after(b, take('a.csv', [item('i1', 'a.csv')]));
    expect(b.cash.changes).toEqual({ 'item i1': mine });
    // It came under another id, and is the same one.
    const again = { ...item('i5', 'a.csv'), number: 'i1' };
    b = after(b, { ...take('a.csv', [again]), byList: { i5: says('counted') } } as Command);
    expect(b.cash.changes).toEqual({ 'item i1': says('counted') });
  });
  test('version 11 keeps the lists that are there, of a day that nobody said', () => {
    const old = after(book(), take('a.csv', [item('i1', 'a.csv')]));
    const { lists: _, ...cash } = old.cash;
    const opened = openBook(JSON.parse(JSON.stringify({ ...old, version: 10, cash })));
    expect(opened.ok && opened.book.cash.lists).toEqual([
      { from: 'a.csv', side: 'in', day: null, by: '', at: null },
    ]);
  });
  test('one list is in force on a side: a new one takes its place under whatever name, with what was decided', () => {
    const out = (id: string, from: string): OpenItem => ({ ...item(id, from), side: 'out' });
    let b = after(book(), take('a.csv', [item('i1', 'a.csv'), item('i2', 'a.csv')]));
    b = after(b, take('bills.csv', [out('o1', 'bills.csv')], ['out']));
    // The same invoice keeps its id and what was decided of it; one that is gone leaves nothing behind.
    const held = { day: null, state: 'held' as const, reason: 'disputed', by: 'K', at: 't' };
    const changes = ['item i1', 'item i2'].map((key) => ({ key, change: held }));
    b = after(b, { type: 'setItemChanges', changes });
    b = after(b, take('a (1).csv', [{ ...item('i9', 'a (1).csv'), number: 'i2' }]));
    expect(b.cash.items.map((i) => [i.id, i.from])).toEqual([
      ['o1', 'bills.csv'],
      ['i2', 'a (1).csv'],
    ]);
    expect(b.cash.changes).toEqual({ 'item i2': held });

    // The name of the other side's list is only a name.
    b = after(b, take('a (1).csv', [out('o2', 'a (1).csv')], ['out']));
    expect(b.cash.items.map((i) => i.id)).toEqual(['i2', 'o2']);
    b = after(b, take('a (1).csv', []));
    expect([b.cash.items.map((i) => i.id), b.cash.changes]).toEqual([['o2'], {}]);

    // What speaks of both sides is one list on each.
    b = after(b, take('Feed', [item('i3', 'Feed'), out('o3', 'Feed')], ['in', 'out']));
    expect(b.cash.items.map((i) => i.id)).toEqual(['i3', 'o3']);
    b = after(b, take('Feed', [], ['in', 'out']));
    expect(b.cash.items).toEqual([]);
  });
  test('orders that come by themselves stand beside invoices; a list of both takes the place of either', () => {
    const order = (id: string, from: string): OpenItem => ({ ...item(id, from), kind: 'order' });
    let b = after(book(), take('a.csv', [item('i1', 'a.csv')]));
    b = after(b, take('orders.csv', [order('i2', 'orders.csv')]));
    b = after(b, take('b.csv', [item('i3', 'b.csv')]));
    expect(b.cash.items.map((i) => i.id)).toEqual(['i2', 'i3']);
    b = after(b, take('c.csv', [item('i4', 'c.csv'), order('i5', 'c.csv')]));
    expect(b.cash.items.map((i) => i.id)).toEqual(['i4', 'i5']);
    // What came with a list goes with it.
    b = after(b, take('d.csv', [item('i6', 'd.csv')]));
    expect(b.cash.items.map((i) => i.id)).toEqual(['i6']);
  });
  test('what a refresh brings waits where new items do; what one begins with does not', () => {
    let b = book();
    b = after(b, { type: 'setCash', change: { newItems: 'wait' } });
    b = after(b, take('c.csv', [item('i4', 'c.csv')]));
    expect(b.cash.changes).toEqual({});
    b = after(b, take('d.csv', [item('i4', 'd.csv'), item('i5', 'd.csv'), item('i6', 'd.csv')]));
    expect(Object.keys(b.cash.changes)).toEqual(['item i5', 'item i6']);
    expect(b.cash.changes['item i5']).toMatchObject({ state: 'waiting', by: 'K' });
  });
  test('two items without numbers that are alike stay two', () => {
    const alike = (id: string) => ({ ...item(id, 'a.csv'), number: '' });
    const b = after(
      after(book(), take('a.csv', ['i1', 'i2'].map(alike))),
      take('a.csv', ['i3', 'i4', 'i5'].map(alike)),
    );
    expect(b.cash.items.map((i) => i.id)).toEqual(['i1', 'i2', 'i5']);
  });

  test('a forecast is kept under its id, needs a name, and can be removed', () => {
    const kept: KeptForecast = {
      id: 'k1',
      name: 'Autumn',
      at: '2026-01-01T00:00:00.000Z',
      by: 'K',
      start: day('2025-12-31'),
      days: 3,
      opening: minor(5),
      sources: [{ source: 'newSales', days: [0, 2], amounts: [minor(1), minor(2)] }],
    };
    let b = after(book(), { type: 'keepForecast', kept });
    b = after(b, { type: 'keepForecast', kept: { ...kept, name: 'Winter' } });
    expect(b.cash.kept.map((k) => k.name)).toEqual(['Winter']);
    expect(refused(b, { type: 'keepForecast', kept: { ...kept, name: ' ' } })).toBe('emptyName');
    const uneven = { ...kept, sources: [{ source: 'newSales' as const, days: [0], amounts: [] }] };
    expect(refused(b, { type: 'keepForecast', kept: uneven })).toBe('notSound');
    expect(openBook(b)).toMatchObject({ ok: true, setAside: [] });
    expect(after(b, { type: 'removeKeptForecast', kept: 'k1' }).cash.kept).toEqual([]);
  });

  test('a book of version 4 gets what is new of cash, and all it had stays', () => {
    const frozen = { at: 't', by: 'K', fingerprint: '', lines: [] };
    const now = book({
      budgets: [budgetOf([], 'b1', { state: 'approved', approved: { ...frozen, cash: null } })],
    });
    const {
      newItems: _n,
      lookedThrough: _l,
      ordersOnTop: _o,
      kept: _k,
      own: _w,
      ...cash
    } = { ...NO_CASH, runOff: 45 };
    const varianceNotes = {
      '2026-01': {
        s: { text: 'why', reach: 'lasting', at: 't' },
        s2: { text: 'later', reach: 'timing', at: 't' },
      },
    };
    const old = {
      ...now,
      version: 4,
      varianceNotes,
      cash,
      budgets: now.budgets.map((b) => ({ ...b, approved: frozen })),
    };
    // Notes of one reach are explanations of one part, which moves no outlook.
    const notes = {
      '2026-01': {
        s: {
          text: 'why',
          against: null,
          at: 't',
          parts: [{ kind: 'lasting', amount: null, monthly: 0, until: null }],
        },
        s2: { text: 'later', against: null, at: 't', parts: [{ kind: 'timing', amount: null, back: [] }] },
      },
    };
    expect(openBook(old)).toEqual({
      ok: true,
      setAside: [],
      book: {
        ...now,
        varianceNotes: notes,
        cash: { ...NO_CASH, runOff: 45 },
        inForce: [{ budget: 'b1', from: '2026-01' }],
      },
    });
  });

  test.each<[string, Partial<DatedItem>, string]>([
    ['no name', { name: ' ' }, 'emptyName'],
    ['an amount of nothing', { amount: minor(0) }, 'tooLarge'],
    [
      'an end before its beginning',
      { repeat: { every: 1, unit: 'months', until: day('2025-01-01'), times: null } },
      'notSound',
    ],
    ['an account that is not there', { against: 'nowhere' }, 'notSound'],
  ])('with %s are refused', (_, change, code) => {
    expect(refused(book(), { type: 'setDatedItem', item: dated(change) })).toBe(code);
  });

  test('what names an account that is gone is set aside when a book opens', () => {
    const opened = openBook({
      ...book(),
      cash: {
        ...NO_CASH,
        bank: 'gone',
        dated: [dated(), dated(), dated({ id: 'i2', against: 'gone' })],
        creditLine: { account: 'gone', interest: null, limit: 1, rate: percent('5'), step: 1 },
      },
    });
    if (!opened.ok) throw new Error(JSON.stringify(opened.issue));
    expect(opened.book.cash).toEqual({ ...NO_CASH, dated: [dated()] });
    expect(opened.setAside.map((s) => [s.part, s.because])).toEqual([
      ['cash', 'twice'],
      ['cash', 'noSuchAccount'],
      ['cash', 'noSuchAccount'],
      ['cash', 'noSuchAccount'],
    ]);
  });
});

describe('what banks say', () => {
  const banked = [...accounts, account('bank2', 'bank')];
  const base = () => bookWith(banked, { budgets: [budgetOf([])] });
  const movement = (amount: number) => ({
    day: day('2026-01-02'),
    amount: minor(amount),
    counterparty: '',
    reference: '',
    memo: '',
    number: '',
    reverses: false,
  });
  const statement = (change: Partial<Omit<BankStatement, 'id'>> = {}): Command => ({
    type: 'takeBankStatement',
    number: 'DE00',
    statement: {
      account: 'bank',
      from: 'a.xml',
      number: '1',
      first: day('2026-01-01'),
      last: day('2026-01-09'),
      opening: minor(5),
      closing: minor(12),
      movements: [movement(7)],
      by: 'K',
      at: 't',
      ...change,
    },
  });
  test('a statement is taken in once, its account’s number is known, and it goes with what was said of it', () => {
    let b = after(base(), statement());
    const [{ id }] = b.cash.banks.statements as [BankStatement];
    expect(b.cash.banks.numbers).toEqual({ DE00: 'bank' });
    expect(refused(b, statement())).toBe('alreadyTakenIn');
    expect(refused(b, statement({ number: '2', first: day('2026-01-10') }))).toBe('notSound');
    b = after(b, statement({ number: '2' }));
    const said = { as: '', by: 'K', at: 't' };
    const [second] = b.cash.banks.statements.slice(-1) as [BankStatement];
    b = after(b, {
      type: 'sayMovements',
      movements: [
        { key: movementKey(id, 0), said },
        { key: movementKey(second.id, 0), said },
      ],
    });
    b = after(b, { type: 'removeBankStatement', statement: id });
    expect(b.cash.banks.statements.map((s) => s.number)).toEqual(['2']);
    expect(b.cash.banks.said).toEqual({ [movementKey(second.id, 0)]: said });
    b = after(b, { type: 'sayMovements', movements: [{ key: movementKey(second.id, 0), said: null }] });
    expect(b.cash.banks.said).toEqual({});
  });
  test('of one account one balance is said; accounts that become one bring their banks along', () => {
    const says = (id: string, on: string, amount: number | null): Command => ({
      type: 'setBankBalance',
      account: id,
      balance: amount === null ? null : { day: day(on), amount: minor(amount), by: '', at: 't' },
    });
    let b = after(base(), says('bank', '2026-01-05', 5));
    b = after(b, says('bank', '2026-01-06', 6));
    b = after(b, says('bank2', '2026-01-07', 7));
    b = after(b, statement({ account: 'bank2' }));
    expect(b.cash.banks.balances.map((x) => [x.account, x.amount])).toEqual([
      ['bank', 6],
      ['bank2', 7],
    ]);
    const merged = after(b, { type: 'mergeAccounts', from: 'bank2', into: 'bank', lines: [] });
    // The later of both is what is known.
    expect(merged.cash.banks.balances.map((x) => [x.account, x.amount])).toEqual([['bank', 7]]);
    expect(merged.cash.banks.statements.map((s) => s.account)).toEqual(['bank']);
    expect(merged.cash.banks.numbers).toEqual({ DE00: 'bank' });
    expect(after(b, says('bank', '', null)).cash.banks.balances.map((x) => x.account)).toEqual(['bank2']);
  });
  test('version 12 begins without; what names an account that is not there is set aside by name', () => {
    const old = base();
    const { banks: _, ...cash } = old.cash;
    const opened = openBook(JSON.parse(JSON.stringify({ ...old, version: 11, cash })));
    expect(opened.ok && opened.book.cash.banks).toEqual(NO_BANKS);
    const b = after(base(), statement());
    const [one] = b.cash.banks.statements as [BankStatement];
    const gone = { ...one, id: 's99', number: '2', account: 'gone' };
    const spoiled = { ...b.cash.banks, statements: [one, gone], numbers: { DE00: 'bank', DE01: 'gone' } };
    const again = openBook(JSON.parse(JSON.stringify({ ...b, cash: { ...b.cash, banks: spoiled } })));
    if (!again.ok) throw new Error(again.issue.code);
    expect(again.book.cash.banks.statements.map((s) => s.number)).toEqual(['1']);
    expect(again.book.cash.banks.numbers).toEqual({ DE00: 'bank' });
    expect(again.setAside.map((s) => s.because)).toEqual(['noSuchAccount', 'noSuchAccount']);
  });
});
