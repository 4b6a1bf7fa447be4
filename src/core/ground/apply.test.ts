import fc from 'fast-check';
import { fromDayNumber, type Day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import { applyCommand, type Adjusts, type Book, type Budget, type Terms } from '@/core/model';
import type { Assumed } from '@/core/scenario';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  driver,
  line,
  periodIds,
  share,
  siteAxis,
} from '@/core/test/build';
import { bookOf, company, ids as IDS, type Company } from '@/core/test/company';
import { assetRow, staffRow, taxRow } from '@/core/test/schedule';
import type { LedgerBlock } from '@/core/ledger';
import { assume, lines } from '@/core/test/cases';
import { closings } from '@/core/test/year';
import {
  aheadOf,
  applying,
  budgetOn,
  cashOf,
  createMemory,
  groundAssuming,
  makeGround,
  offBalance,
  reckoned,
  type Ground,
} from '.';

/* A case taken into a draft: afterwards the draft is what the case was over it. */

const RUNS = Number(process.env.RUNS ?? 12);
const BY_SCHEDULE = { kind: 'schedule' as const, beside: {} };

const more = [
  account('commission', 'expense', 'Commission'),
  account('extra', 'expense', 'Extra'),
  account('wornOff', 'expense', 'Depreciation'),
  account('boats', 'fixedAsset'),
  account('tax', 'otherExpense', 'Income tax'),
  account('taxOwed', 'taxPayable', 'Income tax owed'),
  account('new', 'income', 'New'),
];

/** A company of which some lines follow others, some months are typed over and a tax is made by a row. */
function groundOf(c: Company): Ground {
  const { book, blocks } = bookOf(c);
  const [first] = book.budgets;
  const budget: Budget = {
    ...first!,
    lines: [
      ...first!.lines.map((l) =>
        l.account === 'fees' || l.account === 'rent' || l.account === 'insurance'
          ? { ...l, overrides: { [IDS[2]!]: minor(777), [IDS[9]!]: minor(4_321), [IDS[11]!]: null } }
          : l,
      ),
      { ...line('commission', share('sales', '7.5')), overrides: { [IDS[5]!]: minor(99) } },
      line('extra', share('wages', '10')),
      line('tax', BY_SCHEDULE),
    ],
    schedules: [taxRow({ installments: [] })],
  };
  const all: Book = {
    ...book,
    accounts: [...book.accounts, ...more],
    budgets: [budget],
    nextId: 500,
  };
  return makeGround(all, blocks, createMemory());
}

/** The same with what is open when the plan begins: money that comes, and bills, some of them overdue. */
function owing(ground: Ground): Ground {
  const items = ['2026-01-20', '2025-11-05', '2026-03-15'].flatMap((due, i) =>
    (['in', 'out'] as const).map((side) => ({
      id: `i${i}${side}`,
      side,
      kind: 'invoice' as const,
      number: `${i}`,
      counterparty: i < 2 ? 'Alder' : 'Birch',
      dated: '2025-10-20' as Day,
      due: due as Day,
      amount: minor(9_000 + i),
      open: minor(5_000 + i),
      account: null,
      from: 'list.csv',
    })),
  );
  const lists = (['in', 'out'] as const).map((side) => ({
    from: 'list.csv',
    side,
    day: null,
    by: '',
    at: null,
  }));
  const { book } = ground;
  return makeGround({ ...book, cash: { ...book.cash, items, lists } }, blocksOf(ground), createMemory());
}

function told(ground: Ground) {
  const own = budgetOn(ground, ground.book.budgets[0]!);
  const ahead = aheadOf(ground, own)!;
  const periods = Array.from({ length: ahead.last - ahead.start }, (_, i) => ahead.start + 1 + i);
  const whole = reckoned(ground, own!);
  return {
    lines: Object.fromEntries(
      ground.book.accounts.flatMap((a) => {
        const months = whole.amounts(a.id);
        return months && months.some((m) => m) ? [[a.id, months]] : [];
      }),
    ),
    off: periods.map((p) => offBalance(ahead, p)),
    balances: Object.fromEntries(
      ahead.accounts
        .filter((a) => !a.id.startsWith('~'))
        .map((a) => [a.id, periods.map((p) => ahead.balances.balance(a.id, p, true))]),
    ),
    bank: [...ahead.view.forecast.closing],
  };
}

const blocksOf = (ground: Ground) => new Map(ground.blocks.map((b) => [b.id, b]));

/** The book with a case taken into its budget. */
function applied(ground: Ground, assumed: Assumed): Ground {
  const { left: _, ...change } = applying(ground, ground.book.budgets[0]!, assumed);
  const done = applyCommand(ground.book, { type: 'applyAdjustments', budget: 'b1', fresh: null, ...change });
  if (!done.ok) throw new Error(done.refusal.code);
  return makeGround(done.book, blocksOf(ground), createMemory());
}

const rig = staffRow({ id: 'r9', from: '2026-04-15' as never, withheld: percent('20') });
const boat = assetRow({
  id: 'r8',
  account: 'boats',
  expense: 'wornOff',
  accumulated: 'gathered',
  bought: '2026-05-10' as never,
});
const month = fc.integer({ min: 0, max: 17 });
const WAYS: readonly [Adjusts, number, number][] = [
  [{ on: 'amounts', reach: lines('sales', 'rent'), way: { as: 'percent' } }, -60_000, 60_000],
  [{ on: 'amounts', reach: { lines: [{ of: 'costs' }] }, way: { as: 'percent' } }, -40_000, 40_000],
  [{ on: 'amounts', reach: lines('commission', 'fees'), way: { as: 'percent' } }, -40_000, 40_000],
  [{ on: 'amounts', reach: lines('rent'), way: { as: 'amount' } }, -500, 500],
  [{ on: 'amounts', reach: lines('commission'), way: { as: 'new' } }, 0, 5_000],
  [{ on: 'amounts', reach: lines('new'), way: { as: 'amount' } }, 1, 5_000],
  [
    { on: 'amounts', reach: lines('fees'), way: { as: 'growth', compounding: true, stays: true } },
    -5_000,
    5_000,
  ],
  [
    { on: 'amounts', reach: lines('goods'), way: { as: 'growth', compounding: false, stays: false } },
    -5_000,
    5_000,
  ],
  [{ on: 'amounts', reach: lines('insurance'), way: { as: 'onBefore' } }, -300, 300],
  [
    {
      on: 'amounts',
      reach: lines('rent'),
      way: { as: 'formula', formula: 'max("base", "account:sales" / 4)' },
    },
    1,
    1,
  ],
  [{ on: 'linesMoved', reach: lines('fees') }, -3, 3],
  [{ on: 'linesMoved', reach: lines('goods', 'sales') }, -3, 3],
  [{ on: 'termsDays', reach: lines('sales', 'goods') }, -30, 45],
  [{ on: 'termsLost', reach: { lines: [{ of: 'income' }] } }, 0, 30_000],
  [{ on: 'rowAdded', row: rig, by: 'day' }, 20_454, 20_754],
  [{ on: 'rowAdded', row: boat, by: 'yes' }, 1, 1],
  [{ on: 'pay', accounts: [] }, -10_000, 20_000],
  [{ on: 'rate', of: 'incomeTax', by: 'more' }, -10_000, 10_000],
  [{ on: 'rate', of: 'floor', by: 'value' }, 0, 50_000],
  [{ on: 'items', side: 'in', counterparty: null, item: null, as: 'later' }, -20, 60],
  [{ on: 'items', side: 'in', counterparty: null, item: null, as: 'never' }, 1, 1],
  [{ on: 'items', side: 'out', counterparty: null, item: null, as: 'paid' }, 0, 100_000],
];
const anyOf = fc.integer({ min: 0, max: WAYS.length - 1 }).chain((k) =>
  fc.record({
    k: fc.constant(k),
    size: fc.integer({ min: WAYS[k]![1], max: WAYS[k]![2] }),
    from: month,
    span: fc.integer({ min: 0, max: 20 }),
  }),
);
const assumedBy = (all: readonly { k: number; size: number; from: number; span: number }[]): Assumed =>
  all.map(({ k, size, from, span }, i) =>
    assume(
      WAYS[k]![0],
      size,
      { from: IDS[from]!, until: from + span > 17 ? null : IDS[from + span]! },
      `j${i}`,
    ),
  );

test('the draft is what the case was over it, and the case over it is the draft', () => {
  fc.assert(
    fc.property(company, fc.array(anyOf, { minLength: 1, maxLength: 4 }), (c, all) => {
      const ground = owing(groundOf(c));
      const assumed = assumedBy(all);
      const now = applied(ground, assumed);
      expect(told(now)).toEqual(told(groundAssuming(ground, 'c', assumed)));
      // In it already: it counts no second time.
      expect(told(groundAssuming(now, 'c', assumed))).toEqual(told(now));
      expect(applying(now, now.book.budgets[0]!, assumed).applied).toEqual([]);
    }),
    { numRuns: RUNS },
  );
});

test('what follows from it can be taken out again where nothing was typed over; what was written down stays', () => {
  const c = fc.sample(company, { numRuns: 1, seed: 11 })[0]!;
  const ground = groundOf(c);
  const assumed = [
    assume({ on: 'amounts', reach: lines('sales'), way: { as: 'percent' } }, 10_000, {}, 'j1'),
    assume({ on: 'termsDays', reach: lines('sales') }, 20, {}, 'j2'),
    assume({ on: 'pay', accounts: [] }, 5_000, {}, 'j3'),
  ];
  const now = applied(ground, assumed);
  const out = (...adjustments: string[]) =>
    applyCommand(now.book, { type: 'takeOutAdjustments', budget: 'b1', adjustments });
  const taken = out('j1', 'j2');
  expect(taken.ok && told(makeGround(taken.book, blocksOf(now), createMemory()))).toEqual(told(ground));
  const kept = out('j1', 'j3');
  expect(!kept.ok && kept.refusal.code).toBe('writtenDown');
});

test('applied, then closed month by month as planned: nothing later changes', () => {
  fc.assert(
    fc.property(company, fc.array(anyOf, { minLength: 1, maxLength: 2 }), (c, all) => {
      const ground = applied(groundOf(c), assumedBy(all));
      const look = (book: Book, blocks: ReadonlyMap<string, LedgerBlock>) =>
        cashOf(makeGround(book, blocks, createMemory()), book.budgets[0]!)!;
      for (const [after, before] of closings(ground.book, blocksOf(ground), 3, look, false))
        expect(after).toEqual(before);
    }),
    { numRuns: RUNS },
  );
});

test('two lines take out of one stock, one of them on other terms in one month: once closed, each bought what it needed', () => {
  const nothing = Array<number>(18).fill(0);
  const fromStock = (target: object, shares: readonly object[], on: object) => [
    {
      percent: percent('100'),
      rule: {
        kind: 'fromStock',
        target,
        bought: on,
        shares,
        moved: 'stays',
        inventory: 'stock',
        through: null,
      },
    },
  ];
  const terms = (id: string, parts: readonly object[]) =>
    ({ of: { of: 'account', account: id }, parts, bank: null, tax: null }) as unknown as Terms;
  const atOnce = [
    { percent: percent('100'), rule: { kind: 'atOnce', on: { of: 'monthDay', day: 1 }, moved: 'stays' } },
  ];
  const c: Company = {
    amounts: {
      ...Object.fromEntries(['sales', 'fees', 'wages', 'rent', 'insurance'].map((id) => [id, nothing])),
      goods: nothing.map((_, i) => (i === 2 ? 36_210 : 0)),
    },
    terms: [
      ...['sales', 'fees', 'wages', 'rent'].map((id) => terms(id, atOnce)),
      terms(
        'goods',
        fromStock({ of: 'days', days: 15 }, [{ percent: '100', due: { of: 'months', months: 1, day: 20 } }], {
          of: 'monthDay',
          day: 1,
        }),
      ),
      terms(
        'insurance',
        fromStock(
          { of: 'share', percent: '30' },
          [
            { percent: '40', due: { of: 'days', days: 50 } },
            { percent: '60', due: { of: 'months', months: 2, day: 12 } },
          ],
          { of: 'spread' },
        ),
      ),
    ],
    onPayment: false,
    every: 1,
    openings: {},
    runOff: 30,
    dueDay: 1,
    told: false,
  };
  // Ten days later for what is bought in February.
  const ground = applied(groundOf(c), [
    assume({ on: 'termsDays', reach: lines('goods') }, 10, { from: IDS[1]!, until: IDS[1]! }),
  ]);
  const look = (book: Book, blocks: ReadonlyMap<string, LedgerBlock>) =>
    cashOf(makeGround(book, blocks, createMemory()), book.budgets[0]!)!;
  for (const [after, before] of closings(ground.book, blocksOf(ground), 4, look, false))
    expect(after).toEqual(before);
});

describe('what is taken in, by hand', () => {
  const months = periodIds(2026);
  const small = (budget: Partial<Budget>, book: Partial<Book> = {}) =>
    makeGround(
      bookWith([account('sales', 'income'), account('rent', 'expense'), account('bank', 'bank')], {
        nextId: 50,
        ...book,
        budgets: [budgetOf([], 'b1', { length: 3, ...budget })],
      }),
      new Map(),
      createMemory(),
    );
  const amounts = (g: Ground, id: string) => reckoned(g, g.book.budgets[0]!).amounts(id);

  test('a line that follows another goes on following; a month that was typed has what the case made of it', () => {
    const ground = small({
      lines: [
        line(
          'sales',
          byMonth({ [months[0]!]: minor(1_000), [months[1]!]: minor(2_000), [months[2]!]: minor(3_000) }),
        ),
        { ...line('rent', share('sales', '10')), overrides: { [months[1]!]: minor(500) } },
      ],
    });
    const now = applied(ground, [
      assume({ on: 'amounts', reach: lines('rent'), way: { as: 'percent' } }, 50_000),
    ]);
    expect(amounts(now, 'rent')).toEqual([150, 750, 450]);
    const [budget] = now.book.budgets;
    expect(budget!.lines[1]).toMatchObject({
      method: share('sales', '10'),
      overrides: { [months[1]!]: 750 },
    });
    // More is sold: half as much again of a tenth of it, and what was typed stays.
    const more = {
      ...budget!,
      lines: [line('sales', byMonth({ [months[0]!]: minor(4_000) })), budget!.lines[1]!],
    };
    expect(amounts(makeGround({ ...now.book, budgets: [more] }, new Map()), 'rent')!.slice(0, 2)).toEqual([
      600, 750,
    ]);
  });

  test('a quantity that was typed is typed anew, one that goes by a rule goes on by it', () => {
    const hours = driver('d1', { kind: 'typed', values: { [months[0]!]: 10, [months[1]!]: 20 } } as never);
    // By 10 more from January on: 110, 120, 130.
    const steps = driver('d2', {
      kind: 'step',
      start: 100,
      first: months[0]!,
      every: 1,
      change: { of: 'amount', amount: 10 },
    } as never);
    const ground = small({ drivers: [hours, steps] });
    const on = (id: string, driver: string) =>
      assume({ on: 'driver', driver, way: { as: 'percent' } }, 10_000, {}, id);
    const change = applying(ground, ground.book.budgets[0]!, [
      on('j1', 'd1'),
      on('j2', 'd2'),
      on('j3', 'none'),
    ]);
    expect(change.drivers).toEqual([
      { ...hours, series: { kind: 'typed', values: { [months[0]!]: 11, [months[1]!]: 22 } } },
    ]);
    expect(change.left).toEqual([{ adjustment: 'j3', because: 'noDriver' }]);
    const now = applied(ground, [on('j1', 'd1'), on('j2', 'd2')]);
    const made = reckoned(now, now.book.budgets[0]!).reckoning.drivers;
    expect([...made.values()].map((d) => d.values.slice(0, 3))).toEqual([
      [11, 22, null],
      [121, 132, 143],
    ]);
  });

  test('what closed months planned stays, and later ones go on from there', () => {
    const ground = small(
      {
        lines: [line('sales', byMonth(Object.fromEntries(months.slice(0, 3).map((m) => [m, minor(1_000)]))))],
      },
      { closedThrough: months[0]!, axes: [siteAxis()] },
    );
    const now = applied(ground, [
      assume(
        { on: 'amounts', reach: lines('sales'), way: { as: 'growth', compounding: true, stays: false } },
        10_000,
      ),
    ]);
    // Counted from January, which is closed.
    expect(amounts(now, 'sales')).toEqual([1_000, 1_210, 1_331]);
    const [budget] = now.book.budgets;
    expect(budget!.applied[0]!.after).toBe(months[0]);
    const later = makeGround({ ...now.book, closedThrough: months[1]! }, new Map(), createMemory());
    expect(amounts(later, 'sales')).toEqual([1_000, 1_210, 1_331]);
  });

  test('one of two segments changes, the other stays; typed months that are closed stay, later ones are written', () => {
    const typed = byMonth({ [months[0]!]: minor(100), [months[1]!]: minor(100), [months[2]!]: minor(100) });
    const over = { [months[0]!]: minor(70), [months[1]!]: minor(80) };
    const ground = small(
      {
        axis: siteAxis().id,
        segments: ['n', null],
        lines: [line('rent', typed, over, 'n'), line('rent', typed, over, null)],
      },
      { closedThrough: months[0]!, axes: [siteAxis()] },
    );
    const now = applied(ground, [
      assume({ on: 'amounts', reach: { ...lines('rent'), segment: 'n' }, way: { as: 'percent' } }, 10_000),
    ]);
    const of = (segment: string | null) => reckoned(now, now.book.budgets[0]!).amounts('rent', segment);
    expect(of('n')).toEqual([70, 88, 110]);
    expect(of(null)).toEqual([70, 80, 100]);
  });

  test('what is open is expected later in every plan, once, until it is taken out again', () => {
    const ground = owing(small({ lines: [line('sales', byMonth({ [months[0]!]: minor(1_000) }))] }));
    const asked = [
      assume({ on: 'items', side: 'in', counterparty: 'Alder', item: null, as: 'later' }, 30, {}, 'j1'),
    ];
    const days = (g: Ground) =>
      cashOf(g, g.book.budgets[0]!)!
        .items.filter((i) => i.side === 'in')
        .map((i) => fromDayNumber(i.expected));
    expect(days(ground)).toEqual(['2026-01-20', '2026-01-14', '2026-03-15']);
    // What is overdue counts from the day that it was due, and comes no sooner than it would have.
    const later = ['2026-02-19', '2026-01-14', '2026-03-15'];
    const now = applied(ground, asked);
    expect(days(now)).toEqual(later);
    const two = makeGround(
      { ...now.book, budgets: [...now.book.budgets, { ...now.book.budgets[0]!, id: 'b2' }] },
      blocksOf(now),
      createMemory(),
    );
    expect(days(two)).toEqual(later);
    expect(days(groundAssuming(two, 'c', asked))).toEqual(later);
    const out = applyCommand(now.book, { type: 'takeOutAdjustments', budget: 'b1', adjustments: ['j1'] });
    expect(out.ok && days(makeGround(out.book, blocksOf(now), createMemory()))).toEqual(days(ground));
  });

  test('what cannot be taken in is told, and what changes every plan stands apart', () => {
    const own = [line('sales', byMonth({ [months[0]!]: minor(1_000) }))];
    const ground = small({ lines: own });
    // A row that is there is not the one that is named.
    const rows = small({ lines: own, schedules: [taxRow({ id: 'r1', installments: [] })] });
    expect(
      applying(rows, rows.book.budgets[0]!, [assume({ on: 'rowGone', row: 'r7' }, 1)]).left.map(
        (l) => l.because,
      ),
    ).toEqual(['noRow']);
    const asked = [
      assume({ on: 'items', side: 'in', counterparty: null, item: null, as: 'later' }, 5, {}, 'j1'),
      assume({ on: 'rowGone', row: 'r7' }, 1, {}, 'j2'),
      assume({ on: 'amounts', reach: lines('bank'), way: { as: 'percent' } }, 1, {}, 'j3'),
      assume({ on: 'datedMoved', item: 'x' }, 1, {}, 'j4'),
      assume({ on: 'rate', of: 'floor', by: 'more' }, 250, {}, 'j5'),
    ];
    const { left, cash, applied: taken } = applying(ground, ground.book.budgets[0]!, asked);
    expect(left.map((l) => [l.adjustment, l.because])).toEqual([
      ['j1', 'nothing'],
      ['j2', 'noRow'],
      ['j3', 'noLine'],
      ['j4', 'nothing'],
    ]);
    expect(taken.map((a) => a.adjustment.id)).toEqual(['j5']);
    expect(cash).toEqual({ floor: 250, creditLine: null, dated: [] });
    // The floor is the company's: no case over any plan raises it again.
    const now = applied(ground, asked);
    expect(groundAssuming(now, 'c', asked).book.cash.floor).toBe(250);
    // Nor does taking it into another draft.
    const other = { ...now.book.budgets[0]!, id: 'b2', applied: [] };
    const two = makeGround({ ...now.book, budgets: [...now.book.budgets, other] }, new Map(), createMemory());
    expect(applying(two, other, asked).cash).toBeNull();
  });
});
