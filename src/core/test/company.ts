import fc from 'fast-check';
import { toDayNumber, type Day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import {
  naturalSign,
  NO_CASH,
  type Account,
  type Book,
  type Budget,
  type DueRule,
  type Terms,
  type TermsRule,
} from '@/core/model';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import { account, blockOf, bookWith, budgetOf, byMonth, line, periodIds, sourceOf } from './build';

/* Companies at random: what they plan, on what terms, and what stands when they begin. */

export const accounts: readonly Account[] = [
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
export const LINES = ['sales', 'fees', 'goods', 'wages', 'rent', 'insurance'];

export const due: fc.Arbitrary<DueRule> = fc.oneof(
  fc.record({ of: fc.constant('days' as const), days: fc.integer({ min: 0, max: 100 }) }),
  fc.record({
    of: fc.constant('months' as const),
    months: fc.integer({ min: 0, max: 3 }),
    day: fc.integer({ min: 1, max: 31 }),
  }),
);
export const moved = fc.constantFrom('stays' as const, 'next' as const, 'previous' as const);
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

export type Company = {
  readonly amounts: Record<string, readonly number[]>;
  readonly terms: readonly Terms[];
  readonly onPayment: boolean;
  readonly every: 1 | 3;
  readonly openings: Record<string, number>;
  readonly dueDay: number;
  readonly runOff: number;
  readonly told: boolean;
};
export const company: fc.Arbitrary<Company> = fc.record({
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

export const ids = [...periodIds(2026), ...periodIds(2027)];

/** What stands at the start: with parties and numbers, or as balances alone. */
export function openingBlock(
  told: boolean,
  rows: readonly (readonly [string, string, number])[],
): LedgerBlock {
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

export function bookOf(c: Company): {
  readonly book: Book;
  readonly blocks: ReadonlyMap<string, LedgerBlock>;
} {
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
