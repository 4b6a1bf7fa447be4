import { day as dayText, fromDayNumber, toDayNumber } from '@/core/calendar';
import { BlockBuilder } from '@/core/ledger';
import { minor } from '@/core/money';
import {
  NO_BANKS,
  NO_CASH,
  type BankMovement,
  type BankStatement,
  type Banks,
  type Book,
  type OpenItem,
} from '@/core/model';
import { account, bookWith, budgetOf, byMonth, line, periodIds, sourceOf } from '@/core/test/build';
import { atOnce, terms } from '@/core/test/cash';
import { heldAt } from '@/core/cash';
import { STAND_INS } from '@/core/schedule';
import { bankFloors, cashOf, closingsAt, makeGround } from '.';

const accounts = [
  account('sales', 'income', 'Sales'),
  account('rent', 'expense', 'Rent'),
  account('wages', 'expense', 'Pay'),
  account('bank', 'bank', 'Current account'),
  account('saver', 'bank', 'Savings'),
  account('rec', 'receivable'),
  account('pay', 'payable'),
  account('capital', 'equity'),
];
const ids = periodIds(2026);
const START = toDayNumber(dayText('2025-12-31'));

type Row = readonly [day: string, account: string, debit: number, party?: string, number?: string];
/** Closed through 2025: 50,000 at the bank after a check of 2,500 that it has not cleared. */
const LEDGER: Row[] = [
  ['2025-11-03', 'bank', 5_250_000],
  ['2025-11-03', 'capital', -5_250_000],
  ['2025-12-30', 'bank', -250_000, 'Dunn Roofing', 'CHK-904'],
  ['2025-12-30', 'rent', 250_000, 'Dunn Roofing', 'CHK-904'],
  ['2025-12-10', 'rec', 100_000, 'Acorn Hall', 'R-1011'],
  ['2025-12-10', 'sales', -100_000, 'Acorn Hall', 'R-1011'],
  ['2025-12-20', 'rec', 40_000, 'Bell & Daughters', 'R-1012'],
  ['2025-12-20', 'sales', -40_000, 'Bell & Daughters', 'R-1012'],
  ['2025-12-15', 'pay', -30_000, 'Fenwick Supply', 'B-77'],
  ['2025-12-15', 'rent', 30_000, 'Fenwick Supply', 'B-77'],
];
function blockOf(rows: readonly Row[]) {
  const builder = new BlockBuilder(rows.length);
  rows.forEach(([d, id, debit, party = '', number = ''], i) =>
    builder.add(
      toDayNumber(dayText(d)),
      accounts.findIndex((a) => a.id === id),
      debit,
      i + 2,
      builder.text(party),
      builder.text(number),
      builder.text(''),
    ),
  );
  return builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
}
const every = (amount: number) => byMonth(Object.fromEntries(ids.map((p) => [p, minor(amount)])));
const plan = budgetOf(
  [line('sales', every(9_000)), line('rent', every(60_000)), line('wages', every(50_000))],
  'b1',
  {
    terms: [
      terms('sales', ['100', atOnce({ of: 'monthDay', day: 8 })]),
      terms('rent', ['100', atOnce({ of: 'monthDay', day: 5 })]),
      terms('wages', [
        '100',
        {
          kind: 'payroll',
          on: { of: 'monthDay', day: 6 },
          net: '70' as never,
          rest: { of: 'months', months: 1, day: 15 },
          moved: 'stays',
          through: null,
        },
      ]),
    ],
  },
);
const move = (day: string, amount: number, change: Partial<BankMovement> = {}): BankMovement => ({
  day: dayText(day),
  amount: minor(amount),
  counterparty: '',
  reference: '',
  memo: '',
  number: '',
  reverses: false,
  ...change,
});
/** A statement that comes to what its movements do. */
const statement = (
  [first, last]: readonly [string, string],
  opening: number | null,
  movements: readonly BankMovement[],
  change: Partial<BankStatement> = {},
): BankStatement => ({
  id: 's1',
  account: 'bank',
  from: 'bank.xml',
  number: '1',
  first: dayText(first),
  last: dayText(last),
  opening: opening === null ? null : minor(opening),
  closing: opening === null ? null : minor(movements.reduce((t, m) => t + m.amount, opening)),
  movements: [...movements],
  by: '',
  at: 't',
  ...change,
});
function viewOf(banks: Partial<Banks>, change: Partial<Book['cash']> = {}, rows = LEDGER) {
  const block = blockOf(rows);
  const book = bookWith(accounts, {
    budgets: [plan],
    inForce: [{ budget: 'b1', from: plan.first }],
    sources: [sourceOf()],
    closedThrough: periodIds(2025)[11]!,
    cash: { ...NO_CASH, bank: 'bank', ...change, banks: { ...NO_BANKS, ...banks } },
  });
  return cashOf(makeGround(book, new Map([[block.id, block]])), null, 'all')!;
}
type View = ReturnType<typeof viewOf>;
const at = (view: View, account: string, day: string) =>
  closingsAt(view, [toDayNumber(dayText(day))]).get(account)?.[0] ?? 0;
/** Every day of every account comes to what stood at the start, so each day's postings come to nothing. */
function expectBalanced(view: View) {
  const sums = new Map<number, number>();
  for (const {
    postings: { columns, first, count },
  } of view.projected.parts.values())
    for (let i = first; i < first + count; i++)
      sums.set(columns.day[i]!, (sums.get(columns.day[i]!) ?? 0) + columns.amount[i]!);
  expect([...sums].filter(([, v]) => v !== 0)).toEqual([]);
  // What is handed on by day and by month says the same as the postings.
  const ends = [9, 12, 31, 59, 364].map((n) => START + n);
  const closing = ends.map((d) => view.forecast.closing[d - START - 1]);
  const banks = closingsAt(view, ends);
  expect(closing).toEqual(ends.map((_, i) => banks.get('bank')![i]! + (banks.get('saver')?.[i] ?? 0)));
}
const waiting = (view: View) =>
  view.today!.waiting.map((w) => [w.event.part.key.split(' ')[0], w.amount, fromDayNumber(w.to)]);
const keysOf = (view: View) =>
  view.today!.matching.claims.map((c) => [
    c.movement.key,
    c.of,
    c.of === 'event' ? c.event.part.key : c.of === 'entry' ? c.entry.reference : c.other.key,
    c.amount,
  ]);

const JANUARY = [
  move('2026-01-03', -250_000, { memo: 'CHECK 904', reference: 'CHK904' }),
  move('2026-01-05', 100_000, { counterparty: 'ACORN HALL LTD', memo: 'inv R1011' }),
  move('2026-01-07', 12_000, { memo: 'card takings' }),
];

describe('from a bank’s statement', () => {
  const view = viewOf({ statements: [statement(['2026-01-01', '2026-01-09'], 5_250_000, JANUARY)] });
  test('the bank is what the bank says, uncleared checks apart, and every day balances', () => {
    expect(view.today!.day).toBe(toDayNumber(dayText('2026-01-09')));
    expect(view.today!.stands[0]).toMatchObject({
      account: 'bank',
      amount: 5_112_000,
      atStart: 5_250_000,
      gaps: [],
    });
    expect(at(view, 'bank', '2026-01-09')).toBe(5_112_000);
    // Before the check cleared it was still at the bank.
    expect([at(view, 'bank', '2026-01-01'), at(view, 'bank', '2026-01-03')]).toEqual([5_250_000, 5_000_000]);
    expect(view.today!.off.get('bank')).toEqual({ atStart: 0, atEnd: 0 });
    expectBalanced(view);
  });
  test('an entry that the bank clears late and a payment with its number are found', () => {
    expect(keysOf(view)).toEqual([
      ['s1 0', 'entry', 'CHK-904', -250_000],
      ['s1 1', 'event', expect.stringMatching(/^item ledger/), 100_000],
    ]);
    expect([...view.today!.matching.rest.values()]).toEqual([0, 0, 12_000]);
  });
  test('pay that has not moved falls on the next working day, rent and takings of days past lapse', () => {
    // The 10th is a Saturday.
    expect(waiting(view)).toEqual([['line', -35_000, '2026-01-12']]);
    expect(view.today!.lapsed.map((l) => [l.part.key, l.amount])).toEqual([
      ['line b1 sales:', 9_000],
      ['line b1 rent:', -60_000],
    ]);
    // What moved and is nothing planned, less what lapsed, stands until the month is closed.
    expect(at(view, STAND_INS.moved, '2026-01-31')).toBe(-12_000 + 9_000 - 60_000);
    expect(at(view, 'bank', '2026-01-12')).toBe(5_112_000 - 35_000);
    // Profit and loss is the plan's.
    expect(at(view, 'rent', '2026-01-31') - at(view, 'rent', '2026-01-01')).toBe(60_000);
  });
  test('what is expected later stays where it was, and the low point is ahead', () => {
    const before = viewOf({});
    const ahead = (v: View) =>
      [...v.forecast.closing].map((c, i, all) => (i === 0 ? 0 : c - all[i - 1]!)).slice(12);
    expect(ahead(view)).toEqual(ahead(before));
    expect(view.forecast.today).toBe(view.today!.day);
    expect(view.forecast.low!.day).toBeGreaterThan(view.today!.day);
    expect(before.forecast.today).toBe(START);
    expect(before.today).toBeNull();
  });
});

describe('from a balance that was typed', () => {
  const banks = (amount: number) => ({
    balances: [{ account: 'bank', day: dayText('2026-01-09'), amount: minor(amount), by: 'K', at: 't' }],
  });
  test('what was planned counts as come, and what the bank says beyond it is named', () => {
    const view = viewOf(banks(5_000_000));
    expect(at(view, 'bank', '2026-01-09')).toBe(5_000_000);
    // Ledger 50,000, takings 90, rent 600, net pay 350, the invoice of Acorn Hall 1,000: 50,140.
    expect(view.today!.off.get('bank')).toEqual({ atStart: 0, atEnd: 5_000_000 - 5_014_000 });
    expect(waiting(view)).toEqual([]);
    expect(view.today!.stands[0]!.gaps).toEqual([{ from: START + 1, to: START + 9 }]);
    expectBalanced(view);
  });
  test('it is brought forward by the movements of later days', () => {
    const later = statement(['2026-01-10', '2026-01-14'], null, [move('2026-01-13', -7_000)]);
    const view = viewOf({ ...banks(5_000_000), statements: [later] });
    expect(view.today!.stands[0]).toMatchObject({ day: START + 14, amount: 4_993_000, by: 'statement' });
    expect(at(view, 'bank', '2026-01-14')).toBe(4_993_000);
  });
  test('a balance of the closed day or before says nothing of days ahead', () => {
    const balances = [{ account: 'bank', day: dayText('2025-12-31'), amount: minor(1), by: '', at: 't' }];
    expect(viewOf({ balances }).today).toBeNull();
  });
});

describe('what moved', () => {
  const of = (movements: BankMovement[], change: Partial<Banks> = {}, opening = 5_000_000) =>
    viewOf({ statements: [statement(['2026-01-01', '2026-01-09'], opening, movements)], ...change });
  test('a part of an invoice leaves the rest ahead', () => {
    const view = of([move('2026-01-05', 60_000, { counterparty: 'Acorn Hall' })]);
    expect(keysOf(view)).toEqual([['s1 0', 'event', expect.stringMatching(/^item/), 60_000]]);
    // It was expected on the 9th: the rest comes on the next working day.
    expect(fromDayNumber(view.items.find((i) => i.number === 'R-1011')!.expected)).toBe('2026-01-09');
    expect(waiting(view)).toContainEqual(['item', 40_000, '2026-01-12']);
    expect([at(view, 'rec', '2026-01-11'), at(view, 'rec', '2026-01-12')]).toEqual([80_000, 40_000]);
    expectBalanced(view);
  });
  test('one payment settles several invoices of a counterparty; what is over is not posted', () => {
    const rows: Row[] = [
      ...LEDGER,
      ['2025-12-28', 'rec', 5_000, 'Acorn Hall', 'R-1019'],
      ['2025-12-28', 'sales', -5_000, 'Acorn Hall', 'R-1019'],
    ];
    const view = viewOf(
      {
        statements: [
          statement(['2026-01-01', '2026-01-09'], 5_000_000, [
            move('2026-01-05', 106_000, { counterparty: 'Acorn Hall' }),
          ]),
        ],
      },
      {},
      rows,
    );
    expect(keysOf(view).map((k) => k[3])).toEqual([100_000, 5_000]);
    expect([...view.today!.matching.rest.values()]).toEqual([1_000]);
  });
  test('pay that comes to a little more is the pay; the difference is not posted', () => {
    const view = of([move('2026-01-06', -36_000, { memo: 'SALARIES' })]);
    expect(keysOf(view)).toEqual([['s1 0', 'event', 'line b1 wages:', -35_000]]);
    expect([...view.today!.matching.rest.values()]).toEqual([-1_000]);
    expect(waiting(view)).toEqual([['item', 100_000, '2026-01-12']]);
    // Far more is something else.
    expect(keysOf(of([move('2026-01-06', -45_000)]))).toEqual([]);
  });
  test('rent paid by the day before is not paid again; the month keeps its cost', () => {
    const view = of([move('2026-01-02', -60_000)]);
    expect(keysOf(view)).toEqual([['s1 0', 'event', 'line b1 rent:', -60_000]]);
    expect(at(view, STAND_INS.moved, '2026-01-31')).toBe(9_000);
  });
  test('a reversal and what it takes back pay for nothing', () => {
    const view = of([
      move('2026-01-05', 100_000, { counterparty: 'Acorn Hall', reference: 'X1' }),
      move('2026-01-06', -100_000, { counterparty: 'Acorn Hall', reference: 'X1', reverses: true }),
    ]);
    expect(keysOf(view).map((k) => k[1])).toEqual(['reversal', 'reversal']);
    expect(at(view, 'rec', '2026-01-09')).toBe(140_000);
    expectBalanced(view);
  });
  test('money between two of the company’s own banks is neither', () => {
    const view = viewOf({
      statements: [
        statement(['2026-01-01', '2026-01-09'], 5_000_000, [move('2026-01-05', -77_700)]),
        statement(['2026-01-01', '2026-01-07'], 0, [move('2026-01-06', 77_700)], {
          id: 's2',
          account: 'saver',
        }),
      ],
    });
    expect(keysOf(view).map((k) => k[1])).toEqual(['transfer', 'transfer']);
    expect([at(view, 'bank', '2026-01-09'), at(view, 'saver', '2026-01-09')]).toEqual([4_922_300, 77_700]);
    // On its way it is at neither; the rent of the 5th has lapsed.
    expect(at(view, STAND_INS.moved, '2026-01-05')).toBe(77_700 - 60_000);
    expect(at(view, STAND_INS.moved, '2026-01-07')).toBe(-60_000);
    expectBalanced(view);
  });
  test('what someone says goes before what is found', () => {
    const movements = [move('2026-01-05', 100_000, { memo: 'R-1011' })];
    const say = (as: string) => ({ said: { 's1 0': { as, by: 'K', at: 't' } } });
    expect(keysOf(of(movements, say('')))).toEqual([]);
    // What it was said to be is gone: it is found anew.
    expect(keysOf(of(movements, say('item gone'))).map((k) => k[3])).toEqual([100_000]);
    const other = of(movements).items.find((i) => i.number === 'R-1012')!;
    expect(keysOf(of(movements, say(`item ${other.key}`)))).toEqual([
      ['s1 0', 'event', `item ${other.key}`, 40_000],
    ]);
  });
  test('what the bank held at the start beyond ledger and checks is named', () => {
    const view = of([], {}, 5_000_123);
    expect(view.today!.off.get('bank')).toEqual({ atStart: 123, atEnd: 0 });
    expect(at(view, 'bank', '2026-01-09')).toBe(5_000_123);
    expectBalanced(view);
  });
  test('an uncleared check without a movement waits for the next working day', () => {
    const view = of([], {}, 5_250_000);
    expect([...view.today!.matching.uncleared].map(([e, m]) => [e.reference, m])).toEqual([
      ['CHK-904', null],
    ]);
    expect([at(view, 'bank', '2026-01-11'), at(view, 'bank', '2026-01-12')]).toEqual([
      5_250_000,
      5_000_000 - 35_000 + 100_000,
    ]);
  });
});

describe('the surer match goes first', () => {
  const listed = (id: string, dated: string, open: number): OpenItem => ({
    id,
    side: 'in',
    kind: 'invoice',
    number: `N-${id}`,
    counterparty: 'Acorn Hall',
    dated: dayText(dated),
    due: dayText('2026-03-01'),
    amount: minor(open),
    open: minor(open),
    account: null,
    from: 'list.csv',
  });
  test('a payment without a number goes to the oldest of its counterparty, wherever it stands in a list', () => {
    const items = [
      listed('i1', '2025-12-20', 30_000),
      listed('i2', '2025-10-02', 20_000),
      listed('i3', '2025-11-11', 40_000),
    ];
    const of = (amount: number) =>
      keysOf(
        viewOf(
          {
            statements: [
              statement(['2026-01-01', '2026-01-09'], 5_000_000, [
                move('2026-01-05', amount, { counterparty: 'Acorn Hall' }),
              ]),
            ],
          },
          { items },
        ),
      ).map((k) => [k[2], k[3]]);
    expect(of(50_000)).toEqual([
      ['item item i2', 20_000],
      ['item item i3', 30_000],
    ]);
    // Of just one's amount it is that one.
    expect(of(40_000)).toEqual([['item item i3', 40_000]]);
  });
  test('a reversal takes back an earlier movement of its own account', () => {
    const view = viewOf({
      statements: [
        statement(['2026-01-01', '2026-01-09'], 5_000_000, [
          move('2026-01-04', -8_888, { number: 'out' }),
          move('2026-01-06', 8_888, { reverses: true }),
          move('2026-01-08', -8_888, { number: 'later' }),
        ]),
        statement(['2026-01-01', '2026-01-09'], 50_000, [move('2026-01-05', -8_888)], {
          id: 's2',
          account: 'saver',
        }),
      ],
    });
    expect(keysOf(view)).toEqual([
      ['s1 1', 'reversal', 's1 0', 8_888],
      ['s1 0', 'reversal', 's1 1', -8_888],
    ]);
  });
  const checks: Row[] = [
    ...LEDGER.slice(0, 2),
    ['2025-12-28', 'bank', -250_000, 'Dunn Roofing', 'CHK-903'],
    ['2025-12-29', 'bank', -250_000, 'Dunn Roofing', 'CHK-904'],
    ['2025-12-30', 'bank', -250_000, 'Otter Glass', 'CHK-905'],
  ];
  const cleared = (from: string, opening: number, movements: BankMovement[]) =>
    [
      ...viewOf({ statements: [statement([from, '2026-01-09'], opening, movements)] }, {}, checks).today!
        .matching.uncleared,
    ].map(([e, m]) => [e.reference, m?.key ?? null]);
  test('of checks that look alike the one is cleared whose number the bank names', () => {
    // Its statement reaches back: two of three were cleared in December, one of them by its number.
    const december = [
      move('2025-12-29', -250_000),
      move('2025-12-30', -250_000, { reference: 'CHK 905' }),
      move('2026-01-05', -250_000, { reference: 'CHK904' }),
    ];
    expect(cleared('2025-12-20', 5_250_000, december)).toEqual([['CHK-904', 's1 2']]);
    // It does not: what the bank had more than the ledger is the check that a later movement names.
    expect(cleared('2026-01-01', 4_750_000, [move('2026-01-05', -250_000, { reference: 'CHK904' })])).toEqual(
      [['CHK-904', 's1 0']],
    );
    // Without a word it is the latest that may be meant.
    expect(cleared('2026-01-01', 4_750_000, [])).toEqual([['CHK-905', null]]);
  });
  test('no movement clears an entry of weeks later', () => {
    expect(cleared('2025-11-20', 5_250_000, [move('2025-11-25', -250_000)])).toEqual([
      ['CHK-903', null],
      ['CHK-904', null],
      ['CHK-905', null],
    ]);
  });
  test('where nothing tells what the bank held, a later payment of the same amount clears no entry without its number', () => {
    const later = (reference: string) => ({
      balances: [{ account: 'bank', day: dayText('2026-01-09'), amount: minor(1), by: '', at: 't' }],
      statements: [
        statement(['2026-01-05', '2026-01-09'], null, [
          move('2026-01-06', -250_000, { reference, counterparty: 'Dunn Roofing' }),
        ]),
      ],
    });
    const of = (reference: string) =>
      [...viewOf(later(reference), {}, checks).today!.matching.uncleared.keys()].map((e) => e.reference);
    expect([of(''), of('CHK-903')]).toEqual([[], ['CHK-903']]);
  });
});

test('entries without words, old ones and balances brought forward are nothing that a bank has yet to clear', () => {
  const of = (rows: Row[]) => {
    const later = {
      balances: [{ account: 'bank', day: dayText('2026-01-09'), amount: minor(1), by: '', at: 't' }],
      statements: [
        statement(['2026-01-05', '2026-01-09'], null, [move('2026-01-06', -250_000, { reference: 'X-101' })]),
      ],
    };
    const view = viewOf(later, {}, [...LEDGER.slice(0, 2), ...rows]);
    return [view.today!.entries.length, view.today!.matching.uncleared.size];
  };
  // The deposit of November is an entry too.
  expect(of([['2025-12-29', 'bank', -250_000]])).toEqual([2, 0]);
  expect(of([['2025-12-29', 'bank', -250_000, 'Dunn', 'X-101']])).toEqual([2, 1]);
  expect(of([['2025-08-01', 'bank', -250_000, 'Dunn', 'X-101']])).toEqual([1, 0]);
});

test('a book whose ledger has no bank goes on from what was typed; what is no bank any more says nothing', () => {
  const balances = [{ account: 'bank', day: dayText('2026-01-09'), amount: minor(77_000), by: '', at: 't' }];
  const rows: Row[] = [['2025-12-20', 'rent', 5_000]];
  const view = viewOf({ balances }, {}, rows);
  expect(view.opening).toBe('unknown');
  expect([heldAt(view.forecast), at(view, 'bank', '2026-01-09')]).toEqual([77_000, 77_000]);
  expectBalanced(view);
  const other = [{ account: 'rec', day: dayText('2026-01-09'), amount: minor(77_000), by: '', at: 't' }];
  expect(viewOf({ balances: other }).today).toBeNull();
});

test('a balance of the last day ahead, or beyond it, is nothing to go on from', () => {
  const on = (day: string) =>
    viewOf({ balances: [{ account: 'bank', day: dayText(day), amount: minor(1), by: '', at: 't' }] });
  expect(on('2026-12-31').today).toBeNull();
  expect(heldAt(on('2026-12-31').forecast)).toBe(5_000_000);
  const last = on('2026-12-30');
  expect(last.today!.day).toBe(START + 364);
  expect(heldAt(last.forecast)).toBe(1);
});

test('a balance typed after the last statement goes before it; days between are not known', () => {
  const view = viewOf({
    balances: [{ account: 'bank', day: dayText('2026-01-09'), amount: minor(4_000_000), by: '', at: 't' }],
    statements: [statement(['2026-01-01', '2026-01-05'], 5_000_000, [])],
  });
  expect(view.today!.stands[0]).toMatchObject({
    day: START + 9,
    amount: 4_000_000,
    by: 'said',
    atStart: 5_000_000,
    gaps: [{ from: START + 6, to: START + 9 }],
  });
});

describe('debts that no item names', () => {
  // 900 of receivables without names run off over thirty days, 30 a day; takings of 90 are planned for the 8th.
  const rows: Row[] = [
    ['2025-11-03', 'bank', 5_000_000],
    ['2025-11-03', 'capital', -5_000_000],
    ['2025-12-31', 'rec', 90_000],
    ['2025-12-31', 'capital', -90_000],
  ];
  const inflow = (amount: number, change: Partial<Banks> = {}) =>
    viewOf(
      {
        statements: [statement(['2026-01-01', '2026-01-09'], 5_000_000, [move('2026-01-04', amount)])],
        ...change,
      },
      {},
      rows,
    );
  const ofRunOff = (view: View) => view.today!.waiting.filter((w) => w.event.part.of === 'runOff');
  const late = (view: View) => ofRunOff(view).reduce((t, w) => t + w.amount, 0);
  test('what came stands first for takings of those days, then for the oldest of them; the rest is late', () => {
    const view = inflow(20_000);
    // 27,000 of them and 9,000 of takings were due: 11,000 of the 20,000 are left for the debts.
    expect(late(view)).toBe(27_000 - 11_000);
    // The oldest are paid: what is late begins with the fourth day.
    expect(fromDayNumber(ofRunOff(view)[0]!.event.day)).toBe('2026-01-04');
    expect(at(view, 'rec', '2026-01-09')).toBe(90_000 - 11_000);
    expect(at(view, 'rec', '2026-01-12')).toBe(90_000 - 27_000 - 9_000);
    expectBalanced(view);
  });
  test('what goes out, moves at another bank, or was said to be nothing planned, pays none of them', () => {
    expect(late(inflow(-20_000))).toBe(27_000);
    expect(late(inflow(20_000, { said: { 's1 0': { as: '', by: '', at: 't' } } }))).toBe(27_000);
    const other = viewOf(
      {
        statements: [
          statement(['2026-01-01', '2026-01-09'], 5_000_000, []),
          statement(['2026-01-01', '2026-01-09'], 0, [move('2026-01-04', 20_000)], {
            id: 's2',
            account: 'saver',
          }),
        ],
      },
      {},
      rows,
    );
    expect(late(other)).toBe(27_000);
    expectBalanced(other);
  });
  test('more than all of them leaves nothing late', () => {
    const view = inflow(40_000);
    expect(late(view)).toBe(0);
    expect(at(view, 'rec', '2026-01-09')).toBe(90_000 - 27_000);
  });
});

test('when the month is closed its own entries tell, and nothing is left of what the bank said before', () => {
  const rows: Row[] = [...LEDGER, ['2026-01-07', 'bank', 12_000], ['2026-01-07', 'sales', -12_000]];
  const block = blockOf(rows);
  const closed = (through: string) => {
    const book = bookWith(accounts, {
      budgets: [plan],
      inForce: [{ budget: 'b1', from: plan.first }],
      sources: [sourceOf()],
      closedThrough: through as never,
      cash: {
        ...NO_CASH,
        bank: 'bank',
        banks: { ...NO_BANKS, statements: [statement(['2026-01-01', '2026-01-09'], 5_250_000, JANUARY)] },
      },
    });
    return cashOf(makeGround(book, new Map([[block.id, block]])), null, 'all')!;
  };
  const after = closed(ids[0]!);
  expect(after.today).toBeNull();
  expect([...after.projected.parts.values()].filter((p) => ['moved', 'underWay'].includes(p.of))).toEqual([]);
  // Opened again, the bank tells once more.
  expect(closed(periodIds(2025)[11]!).today!.day).toBe(START + 9);
});

test('a payment after the month’s end keeps its cost in the month', () => {
  // Nothing moved in January: on its last day, a Saturday, rent has lapsed and pay waits for Monday in February.
  const view = viewOf({ statements: [statement(['2026-01-01', '2026-01-31'], 5_000_000, [])] });
  const pay = view.today!.waiting.find((w) => w.event.part.source === 'payroll')!;
  expect(fromDayNumber(pay.to)).toBe('2026-02-02');
  expect(at(view, 'wages', '2026-01-31') - at(view, 'wages', '2025-12-31')).toBe(50_000);
  expectBalanced(view);
});

test('an entry that the bank has not cleared ties when a statement reaches back', () => {
  const view = viewOf({
    statements: [statement(['2025-12-28', '2026-01-09'], 5_250_000, [move('2026-01-08', -250_000)])],
  });
  expect([...view.today!.matching.uncleared].map(([e, m]) => [e.reference, m?.key])).toEqual([
    ['CHK-904', 's1 0'],
  ]);
  expect(view.today!.off.get('bank')).toEqual({ atStart: 0, atEnd: 0 });
});

describe('floors of single accounts', () => {
  const rows: Row[] = [...LEDGER, ['2025-11-03', 'saver', 300_000], ['2025-11-03', 'capital', -300_000]];
  const fares = (floors: Record<string, number>, dated: Book['cash']['dated'] = []) =>
    bankFloors(viewOf({ floors: floors as Banks['floors'] }, { dated }, rows), floors as Banks['floors']);
  const said = (f: ReturnType<typeof fares>[number]) => [
    f.account,
    fromDayNumber(f.low.day),
    f.low.amount,
    f.under && fromDayNumber(f.under.from),
    f.under && fromDayNumber(f.under.until),
  ];
  test('where none is said nothing is told, and one that is kept says its lowest day', () => {
    expect(fares({})).toEqual([]);
    // 50,000 and open items of 1,100; twelve months of takings, rent and net pay, eleven of what is withheld.
    const lowest = 5_000_000 + 110_000 + 12 * (9_000 - 60_000 - 35_000) - 11 * 15_000;
    expect(fares({ bank: 0, saver: 300_000 }).map(said)).toEqual([
      ['bank', '2026-12-15', lowest, null, null],
      ['saver', '2026-01-01', 300_000, null, null],
    ]);
  });
  test('one that breaks is mended by a transfer the day before, which breaks no floor of the other', () => {
    const [bank] = fares({ bank: 4_000_000, saver: 250_000 });
    expect(bank!.under).not.toBeNull();
    expect(bank!.transfer).toEqual({
      from: 'saver',
      to: 'bank',
      day: bank!.under!.from - 1,
      amount: Math.min(50_000, 4_000_000 - bank!.low.amount),
    });
    const { transfer } = bank!;
    const item = {
      id: 'd1',
      name: 'T',
      direction: 'in' as const,
      amount: minor(transfer!.amount),
      first: fromDayNumber(transfer!.day),
      repeat: null,
      against: 'saver',
      bank: 'bank',
      group: 'other' as const,
    };
    const [after, saver] = fares({ bank: 4_000_000, saver: 250_000 }, [item]);
    expect(after!.low.amount).toBe(bank!.low.amount + transfer!.amount);
    expect(saver!.under).toBeNull();
    expect(saver!.low.amount).toBe(300_000 - transfer!.amount);
  });
  test('no other bank can spare what it has not', () => {
    const [bank] = fares({ bank: 4_000_000, saver: 300_000 });
    expect(bank!.under).not.toBeNull();
    expect(bank!.transfer).toBeNull();
  });
});
