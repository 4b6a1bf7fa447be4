import fc from 'fast-check';
import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import {
  naturalSign,
  NO_BANKS,
  NO_CASH,
  type Account,
  type BankMovement,
  type BankStatement,
  type Book,
  type Budget,
  type DueRule,
  type Terms,
  type TermsRule,
} from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  line,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { atOnce, terms } from '@/core/test/cash';
import { assetRow, equityRow, loanRow, staffRow, taxRow } from '@/core/test/schedule';
import { blockOfMonth, firstEnd, told } from '@/core/test/year';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import { cashOf, closingsAt, makeGround, runOffsOf, type CashView } from '.';

/*
 * The law: closing a month that went exactly as planned changes no later figure. "Exactly as planned" is that the ledger
 * receives the projection's own postings.
 */

const accounts: readonly Account[] = [
  account('sales', 'income', 'Sales'),
  account('fees', 'income', 'Fees'),
  account('goods', 'costOfSales', 'Goods'),
  account('wages', 'expense', 'Pay'),
  account('rent', 'expense', 'Rent'),
  account('insurance', 'expense', 'Insurance'),
  account('lost', 'expense', 'Bad debts'),
  account('bank', 'bank'),
  account('rec', 'receivable'),
  account('stock', 'inventory'),
  account('prepaid', 'otherAsset'),
  account('pay', 'payable'),
  account('vat', 'taxPayable'),
  account('withheld', 'otherLiability', 'Withheld'),
  account('gathered', 'fixedAsset', 'Gathered'),
  account('capital', 'equity'),
];
const LINES = ['sales', 'fees', 'goods', 'wages', 'rent', 'insurance'];

const due: fc.Arbitrary<DueRule> = fc.oneof(
  fc.record({ of: fc.constant('days' as const), days: fc.integer({ min: 0, max: 100 }) }),
  fc.record({
    of: fc.constant('months' as const),
    months: fc.integer({ min: 0, max: 3 }),
    day: fc.integer({ min: 1, max: 31 }),
  }),
);
const moved = fc.constantFrom('stays' as const, 'next' as const, 'previous' as const);
const on = fc.oneof(
  fc.record({ of: fc.constant('monthDay' as const), day: fc.integer({ min: 1, max: 31 }) }),
  fc.constant({ of: 'spread' as const }),
);
const shares = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 33 }), due), { minLength: 1, maxLength: 3 })
  .map((all) => all.map(([p, d]) => ({ percent: percent(String(p)), due: d })));
/** What is bought is paid: the last share takes the rest. */
const wholeShares = shares.map((all) => {
  const others = all.slice(0, -1).reduce((t, s) => t + Number(s.percent), 0);
  return [...all.slice(0, -1), { ...all.at(-1)!, percent: percent(String(100 - others)) }];
});
const rules = (account: string): fc.Arbitrary<TermsRule> => {
  const income = account === 'sales' || account === 'fees';
  const all: fc.Arbitrary<TermsRule>[] = [
    fc.record({ kind: fc.constant('atOnce' as const), on, moved }),
    fc.record({
      kind: fc.constant('onAccount' as const),
      invoiced: on,
      shares,
      moved,
      badDebt: fc.constant('lost'),
      through: fc.constant(null),
    }),
    fc.record({
      kind: fc.constant('daysOutstanding' as const),
      days: fc.integer({ min: 0, max: 75 }),
      over: fc.constantFrom(1 as const, 3 as const),
      through: fc.constant(null),
    }),
  ];
  if (!income)
    all.push(
      fc.record({
        kind: fc.constant('fromStock' as const),
        target: fc.oneof(
          fc.record({ of: fc.constant('days' as const), days: fc.integer({ min: 0, max: 60 }) }),
          fc.record({
            of: fc.constant('share' as const),
            percent: fc.integer({ min: 0, max: 150 }).map((p) => percent(String(p))),
          }),
        ),
        bought: on,
        shares: wholeShares,
        moved,
        inventory: fc.constant('stock'),
        through: fc.constant(null),
      }),
      fc.record({
        kind: fc.constant('inAdvance' as const),
        first: fc.integer({ min: 1, max: 28 }).map((d) => `2026-03-${String(d).padStart(2, '0')}` as Day),
        every: fc.constantFrom(1, 3, 12),
        moved,
        through: fc.constant('prepaid'),
      }),
      fc.record({ kind: fc.constant('withoutMoney' as const), against: fc.constant('gathered') }),
      fc.record({
        kind: fc.constant('payroll' as const),
        on,
        net: fc.integer({ min: 40, max: 100 }).map((p) => percent(String(p))),
        rest: due,
        moved,
        through: fc.constant('withheld'),
      }),
    );
  return fc.oneof(...all);
};
const termsOf = (id: string): fc.Arbitrary<Terms> =>
  fc
    .tuple(rules(id), fc.option(rules(id), { freq: 3 }), fc.integer({ min: 1, max: 99 }), fc.boolean())
    .map(([a, b, p, taxed]) => ({
      of: { of: 'account', account: id },
      parts: b
        ? [
            { percent: percent(String(p)), rule: a },
            { percent: percent(String(100 - p)), rule: b },
          ]
        : [{ percent: percent('100'), rule: a }],
      bank: null,
      tax: taxed && id !== 'wages' ? { scheme: 't1', rate: percent('19') } : null,
    }));

type Company = {
  readonly amounts: Record<string, readonly number[]>;
  readonly terms: readonly Terms[];
  readonly onPayment: boolean;
  readonly every: 1 | 3;
  readonly openings: Record<string, number>;
  readonly dueDay: number;
  readonly runOff: number;
  readonly told: boolean;
};
const company: fc.Arbitrary<Company> = fc.record({
  amounts: fc.record(
    Object.fromEntries(
      LINES.map((id) => [
        id,
        fc.array(fc.integer({ min: -500, max: 20_000 }), { minLength: 18, maxLength: 18 }),
      ]),
    ),
  ),
  terms: fc.tuple(...LINES.map(termsOf)),
  onPayment: fc.boolean(),
  every: fc.constantFrom(1 as const, 3 as const),
  openings: fc.record({
    rec: fc.constantFrom(0, 30_000),
    pay: fc.constantFrom(0, 12_000),
    stock: fc.constantFrom(0, 9_000),
    vat: fc.constantFrom(0, 4_000),
    withheld: fc.constantFrom(0, 2_500),
  }),
  runOff: fc.constantFrom(30, 100),
  dueDay: fc.integer({ min: 1, max: 28 }),
  told: fc.constant(false),
});

const ids = [...periodIds(2026), ...periodIds(2027)];

/** What stands at the start: with parties and numbers, or as balances alone. */
function openingBlock(told: boolean, rows: readonly (readonly [string, string, number])[]): LedgerBlock {
  if (told) return blockOf(accounts, rows, 'l0');
  const builder = new BlockBuilder(rows.length);
  const nothing = () => builder.text('');
  rows.forEach(([d, id, amount], i) => {
    const place = accounts.findIndex((a) => a.id === id);
    const debits = amount * naturalSign(accounts[place]!.kind);
    builder.add(toDayNumber(d as Day), place, debits, i + 2, nothing(), nothing(), nothing());
  });
  return builder.build(
    'l0',
    accounts.map((a) => a.id),
  );
}

function bookOf(c: Company): { readonly book: Book; readonly blocks: ReadonlyMap<string, LedgerBlock> } {
  const budget: Budget = budgetOf(
    LINES.map((id) =>
      line(id, byMonth(Object.fromEntries(c.amounts[id]!.map((a, i) => [ids[i], minor(a)])))),
    ),
    'b1',
    { terms: [...c.terms], length: 18 },
  );
  const opened = Object.entries(c.openings).filter(([, v]) => v !== 0);
  const first = openingBlock(c.told, [
    ['2025-12-31', 'bank', 100_000],
    ['2025-12-31', 'capital', 100_000],
    ...opened.flatMap(([id, amount]): [string, string, number][] => [
      ['2025-12-31', id, amount],
      ['2025-12-31', 'capital', ['rec', 'stock'].includes(id) ? amount : -amount],
    ]),
  ]);
  return {
    book: bookWith(accounts, {
      budgets: [budget],
      sources: [sourceOf({ id: 's0', block: 'l0' })],
      closedThrough: periodIds(2025)[11]!,
      cash: {
        ...NO_CASH,
        runOff: c.runOff,
        taxes: [
          {
            id: 't1',
            name: 'Tax',
            payable: 'vat',
            owed: 'net',
            on: c.onPayment ? 'payment' : 'invoice',
            every: c.every,
            ends: 12,
            due: { of: 'months', months: 1, day: c.dueDay },
            exceptions: [],
          },
        ],
      },
    }),
    blocks: new Map([[first.id, first]]),
  };
}

function closeMonths(c: Company, count: number): void {
  const { book, blocks } = bookOf(c);
  closeFrom(book, blocks, accounts, count, c.told);
}

/** Closes months one after another, each as the projection has it; what is told of later days must stay what it was. */
function closeFrom(
  begin: Book,
  begins: ReadonlyMap<string, LedgerBlock>,
  all: readonly Account[],
  count: number,
  withParties: boolean,
): void {
  let [book, blocks] = [begin, begins];
  let before = cashOf(makeGround(book, blocks), book.budgets[0]!)!;
  for (let n = 1; n <= count; n++) {
    const end = firstEnd(before);
    const block = blockOfMonth(before, end, `l${n}`, withParties);
    blocks = new Map([...blocks, [block.id, block]]);
    book = {
      ...book,
      cash: { ...book.cash, runOffEnds: runOffsOf(before) },
      sources: [
        ...book.sources,
        sourceOf({ id: `s${n}`, block: block.id, fingerprint: String(n).padStart(64, '0') }),
      ],
      closedThrough: calendar.period(calendar.indexOfDay(end)).id,
    };
    const after = cashOf(makeGround(book, blocks), book.budgets[0]!)!;
    const last = Math.min(
      toDayNumber(before.input.periods.at(-1)!.end),
      toDayNumber(after.input.periods.at(-1)!.end),
    );
    const of = (view: CashView) => ({ closed: n, ...told(view, end + 1, last) });
    expect(of(after)).toEqual(of(before));
    before = after;
  }
}

function toldRule(rule: TermsRule, line: string): TermsRule {
  if (rule.kind === 'fromStock' && line !== 'goods') return atOnce();
  return rule.kind === 'atOnce' && rule.moved === 'previous' ? { ...rule, moved: 'next' } : rule;
}

/* A company whose staff, loans, purchases and income tax are planned by schedules. */
const scheduled = fc.record({
  pay: fc.integer({ min: 10_000, max: 500_000 }),
  paydays: fc.oneof(
    fc.constant({ of: 'monthDays' as const, days: [31] as number[] }),
    fc.constant({ of: 'monthDays' as const, days: [14, 28] as number[] }),
    fc.constant({ of: 'weeks' as const, every: 2 as number, from: '2025-12-05' as Day }),
  ),
  moved,
  withheld: fc.integer({ min: 0, max: 45 }),
  oncost: fc.integer({ min: 0, max: 30 }),
  remitted: due,
  cost: fc.integer({ min: 10_000, max: 900_000 }),
  bought: fc.integer({ min: 1, max: 9 }),
  billed: due,
  accrued: fc.boolean(),
  installments: fc.array(
    fc.record({ months: fc.integer({ min: 2, max: 11 }), amount: fc.integer({ min: 1, max: 9_000 }) }),
    {
      maxLength: 2,
    },
  ),
  onPayment: fc.boolean(),
  income: fc.integer({ min: 0, max: 900_000 }),
  /** The month of a sale; after it none. */
  sold: fc.integer({ min: 5, max: 14 }),
  drawn: fc.integer({ min: 1, max: 20_000 }),
  dated: fc.array(
    fc.record({
      direction: fc.constantFrom('in' as const, 'out' as const),
      amount: fc.integer({ min: 1, max: 20_000 }),
      against: fc.constantFrom('capital', 'deposit'),
      every: fc.integer({ min: 1, max: 4 }),
    }),
    { maxLength: 3 },
  ),
});
type Scheduled = typeof scheduled extends fc.Arbitrary<infer T> ? T : never;

const withSchedules: readonly Account[] = [
  ...accounts,
  account('loan', 'loan'),
  account('interest', 'otherExpense'),
  account('accrued', 'otherLiability', 'Interest accrued'),
  account('boats', 'fixedAsset'),
  account('accumulated', 'fixedAsset', 'Written off'),
  account('depreciation', 'expense'),
  account('tax', 'otherExpense', 'Income tax'),
  account('taxOwed', 'taxPayable', 'Income tax owed'),
  account('gain', 'otherIncome'),
  account('deposit', 'otherAsset'),
];

function bookOfSchedules(c: Scheduled): Book {
  const rows = [
    staffRow({
      account: 'wages',
      pay: { per: 'month', amount: minor(c.pay) },
      paydays: c.paydays,
      moved: c.moved,
      withheld: percent(String(c.withheld)),
      oncosts: [{ name: 'x', percent: percent(String(c.oncost)), cap: null, year: 'fiscal' }] as never,
      remitted: c.remitted,
    }),
    loanRow({
      begins: { of: 'drawn', day: '2026-02-10' as Day, amount: minor(900_000) },
      first: '2026-03-10' as Day,
      accrued: c.accrued ? 'accrued' : null,
    }),
    assetRow({
      bought: `2026-0${c.bought}-17` as Day,
      cost: minor(c.cost),
      residual: minor(0),
      paid: { due: c.billed, through: 'pay', bank: null },
      tax: { scheme: 't1', rate: percent('19') },
      sold:
        c.sold > 9
          ? null
          : { day: `2026-0${Math.max(c.bought, c.sold)}-25` as Day, price: minor(1_000), gain: 'gain' },
    }),
    equityRow({ account: 'capital', amount: minor(c.drawn), first: '2026-01-15' as Day }),
    taxRow({ installments: c.installments.map((i) => ({ ...i, day: 20, amount: minor(i.amount) })) }),
  ];
  const made = ['wages', 'interest', 'depreciation', 'tax', 'gain'].map((id) =>
    line(id, { kind: 'schedule', beside: {} }),
  );
  const sales = line('sales', byMonth(Object.fromEntries(ids.map((p) => [p, minor(c.income)]))));
  const budget = budgetOf([sales, ...made], 'b1', {
    length: 18,
    schedules: rows,
    terms: [terms('sales', ['100', atOnce()])],
  });
  return bookWith(withSchedules, {
    budgets: [budget],
    sources: [sourceOf({ id: 's0', block: 'l0' })],
    closedThrough: periodIds(2025)[11]!,
    cash: {
      ...NO_CASH,
      dated: c.dated.map((d, i) => ({
        id: `d${i}`,
        name: `Dated ${i}`,
        direction: d.direction,
        amount: minor(d.amount),
        first: '2026-01-20' as Day,
        repeat: { every: d.every, unit: 'months' as const, until: null, times: null },
        against: d.against,
        bank: null,
        group: 'other' as const,
      })),
      taxes: [
        {
          id: 't1',
          name: 'Tax',
          payable: 'vat',
          owed: 'net',
          on: c.onPayment ? 'payment' : 'invoice',
          every: 3,
          ends: 12,
          due: { of: 'months', months: 1, day: 20 },
          exceptions: [],
        },
      ],
    },
  });
}

const RUNS = Number(process.env.RUNS ?? 20);

describe('closing months that went as planned changes no later figure', () => {
  test('in a ledger of balances', () => {
    fc.assert(
      fc.property(company, (c) => closeMonths(c, 6)),
      { numRuns: RUNS },
    );
  });

  test('of staff, a loan, a purchase and income tax by schedules', () => {
    fc.assert(
      fc.property(scheduled, (c) => {
        const first = openingBlock(false, [
          ['2025-12-31', 'bank', 5_000_000],
          ['2025-12-31', 'capital', 5_000_000],
        ]);
        closeFrom(bookOfSchedules(c), new Map([[first.id, first]]), withSchedules, 8, false);
      }),
      { numRuns: RUNS },
    );
  });

  test('in a ledger of entries with parties and numbers', () => {
    // A credit note pays the oldest invoice there, and so does what somebody pays before his invoice is in the ledger;
    // terms in parts are one invoice, and what is bought for two lines is of neither. None of that is as planned.
    const told = company.map((c) => ({
      ...c,
      told: true,
      openings: { ...c.openings, rec: 0, pay: 0 },
      amounts: Object.fromEntries(
        Object.entries(c.amounts).map(([id, all]) => [id, all.map((a) => Math.max(0, a))]),
      ),
      terms: c.terms.map((t, i) => ({
        ...t,
        parts: [{ percent: percent('100'), rule: toldRule(t.parts[0]!.rule, LINES[i]!) }],
      })),
    }));
    fc.assert(
      fc.property(told, (c) => closeMonths(c, 6)),
      { numRuns: RUNS },
    );
  });
});

/** What the bank books of a projection until a day, each payment as a movement of its own, and the statement of it. */
function statementUntil({ projected }: CashView, until: number): BankStatement {
  const sums = new Map<string, BankMovement>();
  for (const { key, postings } of projected.parts.values()) {
    const { columns: c, first, count } = postings;
    for (let i = first; i < first + count; i++) {
      if (c.day[i]! > until || !projected.isBank(c.account[i]!)) continue;
      const name = `${key} ${c.month[i]!} ${c.from[i]!} ${c.day[i]!}`;
      const amount = minor((sums.get(name)?.amount ?? 0) + c.amount[i]!);
      const day = fromDayNumber(c.day[i]!);
      const nothing = { counterparty: '', reference: '', memo: '', number: '', reverses: false };
      sums.set(name, { ...nothing, day, amount });
    }
  }
  const movements = [...sums.values()]
    .filter((m) => m.amount !== 0)
    .sort((a, b) => toDayNumber(a.day) - toDayNumber(b.day));
  return {
    id: 's1',
    account: 'bank',
    from: 'bank.xml',
    number: '1',
    first: fromDayNumber(projected.start + 1),
    last: fromDayNumber(until),
    opening: minor(projected.opening),
    closing: minor(movements.reduce((t, m) => t + m.amount, projected.opening)),
    movements,
    by: '',
    at: 't',
  };
}

test('a bank that moved as planned until a day within a month changes no later day', () => {
  fc.assert(
    fc.property(company, fc.integer({ min: 1, max: 40 }), (c, days) => {
      const { book, blocks } = bookOf(c);
      const before = cashOf(makeGround(book, blocks), book.budgets[0]!)!;
      const until = before.input.start + days;
      const banks = { ...NO_BANKS, statements: [statementUntil(before, until)] };
      const asked = { ...book, cash: { ...book.cash, banks } };
      const after = cashOf(makeGround(asked, blocks), asked.budgets[0]!)!;
      const ahead = (v: CashView) => [...v.forecast.closing.subarray(days - 1)];
      expect(ahead(after)).toEqual(ahead(before));
      // Whatever its bank did, the months' profit and loss is the plan's.
      const last = toDayNumber(before.input.periods.at(-1)!.end);
      const profit = (v: CashView) => LINES.map((id) => closingsAt(v, [until, last]).get(id));
      expect(profit(after)).toEqual(profit(before));
    }),
    { numRuns: RUNS },
  );
});

test('whatever the bank did, it holds what it says, and every day balances', () => {
  const moves = fc.array(
    fc.record({
      day: fc.integer({ min: 1, max: 20 }),
      amount: fc.integer({ min: -30_000, max: 30_000 }).filter((a) => a !== 0),
      planned: fc.boolean(),
    }),
    { maxLength: 12 },
  );
  fc.assert(
    fc.property(company, moves, fc.integer({ min: -5_000, max: 5_000 }), (c, all, apart) => {
      const { book, blocks } = bookOf(c);
      const before = cashOf(makeGround(book, blocks), book.budgets[0]!)!;
      const asPlanned = statementUntil(before, before.input.start + 20);
      const movements = [
        // Some of what was planned, and what nobody planned.
        ...asPlanned.movements.filter((_, i) => all[i % (all.length || 1)]?.planned),
        ...all.map((m) => ({
          ...asPlanned.movements[0]!,
          counterparty: '',
          reference: '',
          memo: '',
          number: '',
          reverses: false,
          day: fromDayNumber(before.input.start + m.day),
          amount: minor(m.amount),
        })),
      ];
      const opening = minor(before.projected.opening + apart);
      const closing = minor(movements.reduce((t, m) => t + m.amount, opening as number));
      const banks = { ...NO_BANKS, statements: [{ ...asPlanned, opening, closing, movements }] };
      const asked = { ...book, cash: { ...book.cash, banks } };
      const after = cashOf(makeGround(asked, blocks), asked.budgets[0]!)!;
      expect(after.forecast.closing[19]).toBe(closing);
      const sums = new Map<number, number>();
      for (const { postings } of after.projected.parts.values()) {
        const { columns: k, first, count } = postings;
        for (let i = first; i < first + count; i++)
          sums.set(k.day[i]!, (sums.get(k.day[i]!) ?? 0) + k.amount[i]!);
      }
      expect([...sums.values()].filter((v) => v !== 0)).toEqual([]);
      const last = toDayNumber(before.input.periods.at(-1)!.end);
      const ends = [before.input.start + 20, last];
      const [stood, stands] = [before, after].map((v) => closingsAt(v, ends));
      for (const id of LINES) expect(stands!.get(id)?.[1] ?? 0).toBe(stood!.get(id)?.[1] ?? 0);
      // By month and by day from postings, and as it is handed on.
      expect(after.forecast.closing.at(-1)).toBe(stands!.get('bank')![1]);
    }),
    { numRuns: RUNS },
  );
});
