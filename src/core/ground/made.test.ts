import fc from 'fast-check';
import { minor, percent } from '@/core/money';
import { isProfitAndLoss, profitSign, type Book, type Budget, type Line, type Method } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  share,
  siteAxis,
  line,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { atOnce, onAccount, terms } from '@/core/test/cash';
import { accounts, bookOf, company, LINES, type Company } from '@/core/test/company';
import { staffRow, taxRow } from '@/core/test/schedule';
import { frozenLines, sameAhead } from '@/core/plan';
import {
  aheadOf,
  cashOf,
  createMemory,
  madeAhead,
  makeGround,
  outlookAt,
  reckoned,
  unborneOf,
  type Ground,
} from '.';

/* What money ahead brings to lines of the plan: what is never paid, the interest of a credit line, and what a tax makes of both. */

const BY_SCHEDULE: Method = { kind: 'schedule', beside: {} };
const more = [
  account('interest', 'otherExpense', 'Interest'),
  account('tax', 'otherExpense', 'Income tax'),
  account('taxOwed', 'taxPayable', 'Income tax owed'),
  account('line', 'loan', 'Overdraft'),
];

type Kind = 'made' | 'own' | 'none';
const kind = fc.constantFrom<Kind>('made', 'own', 'none');
const beside = fc.record({
  lost: kind,
  interest: kind,
  taxed: fc.boolean(),
  approved: fc.boolean(),
  floor: fc.integer({ min: 0, max: 150_000 }),
  limit: fc.constantFrom(0, 50_000, 500_000),
  dated: fc.option(fc.constantFrom('rent', 'fees', 'lost')),
  typed: fc.option(fc.integer({ min: 0, max: 400 })),
});
type Beside = typeof beside extends fc.Arbitrary<infer T> ? T : never;

const lineBy = (id: string, by: Kind, typed: number | null = null): Line[] =>
  by === 'none'
    ? []
    : [
        {
          ...line(id, by === 'made' ? BY_SCHEDULE : byMonth({ [periodIds(2026)[4]!]: minor(700) })),
          overrides: typed === null || by !== 'made' ? {} : { [periodIds(2026)[6]!]: minor(typed) },
        },
      ];

/** A company with a credit line, bad debts and an income tax on top. */
function groundOf(c: Company, b: Beside, change: (book: Book) => Book = (book) => book): Ground {
  const { book, blocks } = bookOf(c);
  const [first] = book.budgets;
  const budget: Budget = {
    ...first!,
    lines: [
      ...first!.lines,
      ...lineBy('lost', b.lost, b.typed),
      ...lineBy('interest', b.interest),
      ...(b.taxed ? lineBy('tax', 'made') : []),
    ],
    schedules: b.taxed ? [taxRow({ installments: [{ months: 5, day: 20, amount: minor(900) }] })] : [],
  };
  const all = change({
    ...book,
    accounts: [...accounts, ...more],
    budgets: [budget],
    cash: {
      ...book.cash,
      floor: minor(b.floor),
      creditLine: {
        account: 'line',
        interest: null,
        limit: minor(b.limit),
        rate: percent('12'),
        step: minor(1_000),
      },
      dated: b.dated
        ? [
            {
              id: 'd1',
              name: 'Beside',
              direction: 'out',
              amount: minor(1_234),
              first: '2026-03-10' as never,
              repeat: null,
              against: b.dated,
              bank: null,
              group: 'other',
            },
          ]
        : [],
    },
  });
  const ground = makeGround(all, blocks, createMemory(), madeAhead);
  if (!b.approved) return ground;
  const lines = frozenLines(reckoned(ground, all.budgets[0]!).reckoning);
  const approved = { at: '2026-01-01T00:00:00Z', by: 'me', fingerprint: '', lines, cash: null };
  const frozen: Budget = { ...all.budgets[0]!, state: 'approved', approved };
  return makeGround({ ...all, budgets: [frozen] }, blocks, createMemory(), madeAhead);
}

/** Profit by month: of the outlook, line by line, and of the statements. */
function profits(ground: Ground, look: Budget | null = null) {
  const [budget] = ground.book.budgets;
  const ahead = aheadOf(ground, look)!;
  const whole = reckoned(ground, budget!);
  return ahead.view.input.periods.map(({ index }) => {
    const outlook = ground.book.accounts.reduce(
      (t, a) =>
        t + profitSign(a.kind) * (isProfitAndLoss(a.kind) ? (outlookAt(whole, a.id, [null], index) ?? 0) : 0),
      0,
    );
    const stated = ahead.accounts.reduce(
      (t, a) => t - (isProfitAndLoss(a.kind) ? (ahead.balances.movement(a.id, index) ?? 0) : 0),
      0,
    );
    return { outlook, stated };
  });
}

const RUNS = Number(process.env.RUNS ?? 40);

test('the profit of the outlook is that of the statements, whatever makes its lines', () => {
  let [drawn, lost] = [0, 0];
  fc.assert(
    fc.property(company, beside, (c, b) => {
      const ground = groundOf(c, b);
      for (const { outlook, stated } of profits(ground)) expect(outlook).toBe(stated);
      const view = cashOf(ground, null)!;
      drawn += Number(view.forecast.moves.some((m) => m.what === 'interest'));
      lost += Number(reckoned(ground, ground.book.budgets[0]!).made.some((m) => m.account === 'lost'));
    }),
    { numRuns: RUNS },
  );
  // It says something only where there is something to say.
  expect(Math.min(drawn, lost)).toBeGreaterThan(RUNS / 10);
});

test('of a draft without anything said beside it, the worksheet has the same profit, to its last month', () => {
  fc.assert(
    fc.property(company, beside, (c, b) => {
      const ground = groundOf(c, { ...b, approved: false, dated: null });
      const whole = reckoned(ground, ground.book.budgets[0]!);
      // The company's plan looks a year ahead; this one has eighteen months.
      const all = profits(ground, whole.budget);
      expect(all).toHaveLength(18);
      expect(all.slice(0, 12)).toEqual(profits(ground));
      all.forEach(({ stated }, i) => {
        const planned = ground.book.accounts.reduce(
          (t, a) => t + profitSign(a.kind) * (isProfitAndLoss(a.kind) ? (whole.amounts(a.id)?.[i] ?? 0) : 0),
          0,
        );
        expect(planned).toBe(stated);
      });
    }),
    { numRuns: RUNS },
  );
});

test('edits in any order come to what a reckoning from scratch comes to', () => {
  const edit = fc.record({
    line: fc.constantFrom(...LINES),
    month: fc.integer({ min: 0, max: 11 }),
    amount: fc.integer({ min: 0, max: 90_000 }),
  });
  fc.assert(
    fc.property(company, beside, fc.array(edit, { minLength: 1, maxLength: 4 }), (c, b, edits) => {
      const begin = groundOf(c, { ...b, approved: false });
      const blocks = new Map(begin.blocks.map((block) => [block.id, block]));
      let { book } = begin;
      const tell = (ground: Ground) => {
        const whole = reckoned(ground, ground.book.budgets[0]!);
        return {
          made: whole.made.map((m) => [m.account, ...m.parts.map((p) => [p.of, ...p.amounts])]).sort(),
          bank: [...cashOf(ground, null)!.forecast.closing],
        };
      };
      tell(begin);
      for (const { line: id, month, amount } of edits) {
        const [budget] = book.budgets;
        const lines = budget!.lines.map((l) =>
          l.account === id
            ? { ...l, overrides: { ...l.overrides, [periodIds(2026)[month]!]: minor(amount) } }
            : l,
        );
        book = { ...book, budgets: [{ ...budget!, lines }] };
        const again = tell(makeGround(book, blocks, begin.memory, madeAhead));
        expect(again).toEqual(tell(makeGround(book, blocks, createMemory(), madeAhead)));
      }
    }),
    { numRuns: RUNS / 2 },
  );
});

describe('reckoned by hand', () => {
  /** From the 1st of January: sales of 10,000.00 a month, invoiced at its end, 98 % of them paid after 30 days. */
  const chart = [
    account('sales', 'income', 'Sales'),
    account('rent', 'expense', 'Rent'),
    account('lost', 'expense', 'Bad debts'),
    ...more,
    account('bank', 'bank'),
    account('rec', 'receivable'),
    account('reserve', 'otherAsset', 'Allowance'),
    account('capital', 'equity'),
  ];
  const MAR = periodIds(2026)[2]!;
  const every = (amount: number) =>
    byMonth(Object.fromEntries(periodIds(2026).map((p) => [p, minor(amount)])));
  const open = blockOf(chart, [
    ['2025-12-31', 'bank', 5_000_00],
    ['2025-12-31', 'line', 12_000_00],
    ['2025-12-31', 'capital', -7_000_00],
  ]);
  const book = (
    lines: readonly Line[],
    change: Partial<Budget> = {},
    closed = periodIds(2025)[11]!,
  ): Book => {
    const sold = terms('sales', ['100', { ...onAccount([['98', { days: 30 }]]), badDebt: 'lost' }]);
    return bookWith(chart, {
      budgets: [
        budgetOf([line('sales', every(10_000_00)), line('rent', every(1_000_00)), ...lines], 'b1', {
          terms: [sold, terms('rent', ['100', atOnce()])],
          ...change,
        }),
      ],
      sources: [sourceOf({ id: 's0', block: open.id })],
      closedThrough: closed,
      cash: {
        ...bookWith([]).cash,
        floor: minor(0),
        creditLine: {
          account: 'line',
          interest: 'interest',
          limit: minor(12_000_00),
          rate: percent('10'),
          step: minor(1_000_00),
        },
      },
    });
  };
  const groundOver = (of: Book, blocks = [open]) =>
    makeGround(
      { ...of, sources: blocks.map((b, i) => sourceOf({ id: `s${i}`, block: b.id })) },
      new Map(blocks.map((b) => [b.id, b])),
      createMemory(),
      madeAhead,
    );
  const months = (ground: Ground, id: string, count = 4) =>
    reckoned(ground, ground.book.budgets[0]!).amounts(id)?.slice(0, count) ?? null;
  const SCHEDULED = [line('lost', BY_SCHEDULE), line('interest', BY_SCHEDULE)];

  test('2 % are lost 30 days after each invoice; the line costs a twelfth of 10 % of what is drawn', () => {
    const ground = groundOver(book(SCHEDULED));
    // 31 January and 30 days is 2 March, 28 February and 30 days 30 March; then 30 April, 30 May.
    expect(months(ground, 'lost', 6)).toEqual([0, 0, 400_00, 200_00, 200_00, 200_00]);
    // 12,000.00 × 10 % ÷ 12. Of 5,000.00 less rent and interest 3,000.00 are paid back at the end of January; at the end of
    // February 1,000.00 are drawn for the rent. In March 19,600.00 come and all is paid back.
    expect(months(ground, 'interest', 4)).toEqual([100_00, 75_00, 83_33, 0]);
  });

  test('an income tax takes both, month by month', () => {
    const taxed = { schedules: [taxRow()] };
    const lines = [...SCHEDULED, line('tax', BY_SCHEDULE)];
    // 20 % of 10,000 − 1,000 − 100, then less 75 in place of 100; of 26,341.67 in all to March, less what was.
    expect(months(groundOver(book(lines, taxed)), 'tax', 3)).toEqual([1_780_00, 1_785_00, 1_703_33]);
  });

  test('where the budget has no line, one is made', () => {
    const ground = groundOver(book([]));
    expect(months(ground, 'lost', 4)).toEqual([0, 0, 400_00, 200_00]);
    const { lines } = reckoned(ground, ground.book.budgets[0]!).reckoning;
    const made = { account: 'lost', segment: null };
    expect(lines.lineAt(lines.places.of(made)!)).toMatchObject({ ...made, method: BY_SCHEDULE });
  });

  test('amounts of its own stay what they are, and what is lost stands against what they stand against', () => {
    const own = terms('lost', ['100', { kind: 'withoutMoney', against: 'reserve' }]);
    const of = book([line('lost', every(300_00)), SCHEDULED[1]!]);
    const { terms: all } = of.budgets[0]!;
    const ground = groundOver({ ...of, budgets: [{ ...of.budgets[0]!, terms: [...all, own] }] });
    expect(months(ground, 'lost', 4)).toEqual([300_00, 300_00, 300_00, 300_00]);
    const ahead = aheadOf(ground, null)!;
    const { index } = calendar.period(ahead.start + 3);
    // Three months planned, 400.00 of them written off in March.
    expect(ahead.balances.balance('reserve', index, true)).toBe(-3 * 300_00 + 400_00);
    expect(ahead.balances.movement('lost', index)).toBe(300_00);
    expect(unborneOf(ahead.view)).toEqual([{ account: 'lost', amount: 400_00 + 9 * 200_00 }]);
  });

  test('an account of the balance sheet bears it itself', () => {
    const of = book([SCHEDULED[1]!]);
    const sold = terms('sales', ['100', { ...onAccount([['98', { days: 30 }]]), badDebt: 'reserve' }]);
    const ground = groundOver({ ...of, budgets: [{ ...of.budgets[0]!, terms: [sold] }] });
    const ahead = aheadOf(ground, null)!;
    expect(ahead.balances.balance('reserve', ahead.start + 3, true)).toBe(400_00);
    expect(unborneOf(ahead.view)).toEqual([]);
  });

  test('no method follows such a line, and no sum has it', () => {
    const one = book([...SCHEDULED, line('tax', share('lost', '10'))]);
    const { reckoning } = reckoned(groundOver(one), one.budgets[0]!);
    expect(reckoning.lines.get({ account: 'tax', segment: null })).toMatchObject({ issue: 'lineMissing' });
    const all = share('rent', '100');
    const of = book([...SCHEDULED, line('tax', { ...all, of: { of: 'kind', kind: 'expense' } })]);
    // Rent alone; 400.00 are lost in March.
    expect(months(groundOver(of), 'tax', 3)).toEqual([1_000_00, 1_000_00, 1_000_00]);
  });

  test('typed over, a month is what was typed; its cash goes by the line’s own terms', () => {
    const typed = { ...SCHEDULED[0]!, overrides: { [MAR]: minor(50_00) } };
    const ground = groundOver(book([typed, SCHEDULED[1]!]));
    expect(months(ground, 'lost', 4)).toEqual([0, 0, 50_00, 200_00]);
    const ahead = aheadOf(ground, null)!;
    expect(ahead.balances.movement('lost', ahead.start + 3)).toBe(50_00);
  });

  test('approved, it stays; what is made today is outlook', () => {
    const draft = book(SCHEDULED);
    const of = draft.budgets[0]!;
    const ground = groundOver(draft);
    const lines = frozenLines(reckoned(ground, of).reckoning);
    const approved = { at: '2026-01-01T00:00:00Z', by: 'me', fingerprint: '', lines, cash: null };
    const frozen: Budget = { ...of, state: 'approved', approved };
    const dearer = groundOver({
      ...draft,
      budgets: [frozen],
      cash: { ...draft.cash, creditLine: { ...draft.cash.creditLine!, rate: percent('20') } },
    });
    expect(months(dearer, 'interest', 1)).toEqual([100_00]);
    const whole = reckoned(dearer, frozen);
    const { first } = calendarFirst(dearer);
    expect(outlookAt(whole, 'interest', [null], first)).toBe(200_00);
    expect(outlookAt(whole, 'lost', [null], first + 2)).toBe(400_00);
    expect(
      outlookAt(reckoned(groundOver({ ...draft, budgets: [frozen] }), frozen), 'interest', [null], first),
    ).toBe(100_00);
  });

  test('closed months of a draft go by what was invoiced and drawn in them', () => {
    const went = blockOf(
      chart,
      [
        ['2026-01-31', 'rec', 20_000_00],
        ['2026-01-31', 'sales', 20_000_00],
        ['2026-02-10', 'line', -6_000_00],
        ['2026-02-10', 'bank', -6_000_00],
        ['2026-03-31', 'rec', 1_00],
        ['2026-03-31', 'sales', 1_00],
      ],
      'b1',
    );
    const ground = groundOver(book(SCHEDULED, {}, MAR), [open, went]);
    // 2 % of 20,000.00 were to be lost on 2 March.
    expect(months(ground, 'lost', 3)).toEqual([0, 0, 400_00]);
    expect(months(ground, 'interest', 3)).toEqual([100_00, 100_00, 50_00]);
  });

  test('a month opened again is the earlier plan’s; of the later one what looking at it alone makes stands there', () => {
    const draft = book(SCHEDULED);
    const [JAN, FEB] = periodIds(2026);
    const [of] = draft.budgets;
    const revised = { ...of!, id: 'b2', name: 'b2' };
    // The revision rules from February on; January is open again, and the first plan's.
    const inForce = [
      { budget: 'b1', from: JAN! },
      { budget: 'b2', from: FEB! },
    ];
    const ground = groundOver({ ...draft, budgets: [of!, revised], inForce });
    const view = cashOf(ground, null)!;
    expect(view.plans.map((p) => [p.budget.id, p.periods.length])).toEqual([
      ['b1', 1],
      ['b2', 11],
    ]);
    const interest = (b: Budget) => reckoned(ground, b).amounts('interest')!.slice(0, 3);
    expect(interest(revised)).toEqual([100_00, 75_00, 83_33]);
    expect(interest(of!).slice(0, 1)).toEqual([100_00]);
    const ahead = aheadOf(ground, null)!;
    expect([1, 2, 3].map((i) => ahead.balances.movement('interest', ahead.start + i))).toEqual([
      100_00, 75_00, 83_33,
    ]);
  });

  test('by segments it is unassigned; where the budget plans no such segment, of its first', () => {
    const by = (segments: (string | null)[], made: readonly (string | null)[]) => {
      const lines = [
        { ...line('sales', every(10_000_00)), segment: 'n' },
        ...made.flatMap((segment) => SCHEDULED.map((l) => ({ ...l, segment }))),
      ];
      const of = book([]);
      const budget = { ...of.budgets[0]!, lines, axis: 'x', segments };
      const ground = groundOver({ ...of, axes: [siteAxis()], budgets: [budget] });
      const whole = reckoned(ground, budget);
      return [...new Set(segments)].map((s) => whole.amounts('lost', s)?.[2] ?? null);
    };
    expect(by(['n', null], ['n', null])).toEqual([null, 400_00]);
    expect(by(['n', null], [])).toEqual([null, 400_00]);
    expect(by(['n'], ['n'])).toEqual([400_00]);
    expect(by(['n'], [])).toEqual([400_00]);
  });

  test('of two plans of a month one whose line takes it goes before one that has none, and amounts of either stay', () => {
    const of = book([]);
    const part = (id: string, segments: (string | null)[], lines: readonly Line[]): Budget => ({
      ...of.budgets[0]!,
      id,
      name: id,
      axis: 'x',
      segments,
      lines: lines.map((l) => ({ ...l, segment: segments[0]! })),
    });
    const sold = line('sales', every(10_000_00));
    const lostOf = (...budgets: Budget[]) => {
      const inForce = budgets.map((b) => ({ budget: b.id, from: periodIds(2026)[0]! }));
      const ground = groundOver({ ...of, axes: [siteAxis()], budgets, inForce });
      const apart = unborneOf(cashOf(ground, null)!);
      return [...budgets.map((b) => reckoned(ground, b).amounts('lost')?.[2] ?? null), apart.length];
    };
    expect(lostOf(part('b1', ['n'], [sold]), part('b2', [null], SCHEDULED))).toEqual([null, 400_00, 0]);
    expect(lostOf(part('b1', ['n'], [sold]), part('b2', [null], [line('lost', every(5_00))]))).toEqual([
      null,
      5_00,
      1,
    ]);
  });

  test('a credit line alone makes its interest', () => {
    const of = book([]);
    const ground = groundOver({
      ...of,
      budgets: [
        { ...of.budgets[0]!, terms: [terms('sales', ['100', atOnce()]), terms('rent', ['100', atOnce()])] },
      ],
    });
    expect(months(ground, 'interest', 1)).toEqual([100_00]);
  });

  test('beside what schedules post and another plan’s months, a payment counts by itself', () => {
    const staff = staffRow({
      account: 'rent',
      oncosts: [],
      withheld: percent('0'),
      pay: { per: 'month', amount: minor(200_00) },
    });
    const of = book(SCHEDULED, { schedules: [staff], length: 6 });
    const [budget] = of.budgets;
    const lines = budget!.lines.map((l) => (l.account === 'rent' ? { ...l, method: BY_SCHEDULE } : l));
    const first = { ...budget!, lines };
    const next = { ...first, id: 'b2', name: 'b2', first: periodIds(2026)[6]! };
    const dated = {
      id: 'd1',
      name: 'Party',
      direction: 'out' as const,
      amount: minor(75_00),
      first: '2026-08-20' as never,
      repeat: null,
      against: 'rent',
      bank: null,
      group: 'other' as const,
    };
    const ground = groundOver({ ...of, budgets: [first, next], cash: { ...of.cash, dated: [dated] } });
    const start = calendarFirst(ground).first;
    const at = (b: Budget) =>
      [5, 6, 7, 8].map((i) => outlookAt(reckoned(ground, b), 'rent', [null], start + i));
    expect(at(next)).toEqual([null, 200_00, 275_00, 200_00]);
    expect(at(first)).toEqual([200_00, null, null, null]);
    expect(reckoned(ground, next).amounts('rent')!.slice(0, 2)).toEqual([200_00, 200_00]);
  });

  test('a payment beside the plan is outlook, and no plan', () => {
    const of = book(SCHEDULED);
    const dated = {
      id: 'd1',
      name: 'Party',
      direction: 'out' as const,
      amount: minor(75_00),
      first: '2026-02-20' as never,
      repeat: null,
      against: 'rent',
      bank: null,
      group: 'other' as const,
    };
    const ground = groundOver({ ...of, cash: { ...of.cash, dated: [dated] } });
    const whole = reckoned(ground, of.budgets[0]!);
    const { first } = calendarFirst(ground);
    expect(months(ground, 'rent', 2)).toEqual([1_000_00, 1_000_00]);
    expect([0, 1, 2].map((i) => outlookAt(whole, 'rent', [null], first + i))).toEqual([
      1_000_00, 1_075_00, 1_000_00,
    ]);
  });

  const calendarFirst = (ground: Ground) => ({ first: cashOf(ground, null)!.input.periods[0]!.index });
});

test('reckoned again it is the same; of other money it is not', () => {
  const [c] = fc.sample(company, { numRuns: 1, seed: 5 });
  const beside: Beside = {
    lost: 'made',
    interest: 'made',
    taxed: false,
    approved: false,
    floor: 90_000,
    limit: 500_000,
    dated: 'rent',
    typed: null,
  };
  const made = (change: Partial<Beside> = {}) => {
    const ground = groundOf(c!, { ...beside, ...change });
    return madeAhead(ground, ground.book.budgets[0]!);
  };
  expect(made().made.length * made().beyond.length).toBeGreaterThan(0);
  expect(sameAhead(made(), made())).toBe(true);
  // Its own lines otherwise, and what stands beside them.
  expect(sameAhead(made(), { ...made(), made: made({ limit: 0, floor: 0 }).made })).toBe(false);
  expect(sameAhead(made(), { ...made(), beyond: made({ dated: 'fees' }).beyond })).toBe(false);
});
