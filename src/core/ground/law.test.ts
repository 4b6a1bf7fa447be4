import fc from 'fast-check';
import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import {
  NO_BANKS,
  NO_CASH,
  type Account,
  type BankMovement,
  type BankStatement,
  type Book,
  type TermsRule,
} from '@/core/model';
import { account, bookWith, budgetOf, byMonth, line, periodIds, sourceOf } from '@/core/test/build';
import { atOnce, terms } from '@/core/test/cash';
import {
  accounts,
  bookOf,
  company,
  due,
  ids,
  LINES,
  moved,
  openingBlock,
  type Company,
} from '@/core/test/company';
import { assetRow, equityRow, loanRow, staffRow, taxRow } from '@/core/test/schedule';
import { closings } from '@/core/test/year';
import type { LedgerBlock } from '@/core/ledger';
import { cashOf, closingsAt, makeGround, type CashView } from '.';

/*
 * The law: closing a month that went exactly as planned changes no later figure. "Exactly as planned" is that the ledger
 * receives the projection's own postings.
 */

function closeMonths(c: Company, count: number): void {
  const { book, blocks } = bookOf(c);
  closeFrom(book, blocks, count, c.told);
}

/** Closes months one after another, each as the projection has it; what is told of later days must stay what it was. */
function closeFrom(
  begin: Book,
  begins: ReadonlyMap<string, LedgerBlock>,
  count: number,
  withParties: boolean,
): void {
  const look = (book: Book, blocks: ReadonlyMap<string, LedgerBlock>) =>
    cashOf(makeGround(book, blocks), book.budgets[0]!)!;
  for (const [after, before] of closings(begin, begins, count, look, withParties))
    expect(after).toEqual(before);
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

  test('of what is paid before its month beside payables that run off', () => {
    // 52.34 of goods fall on 1 March, a Sunday, and are paid on 27 February; 120.00 of payables run off until 10 April. At
    // the end of February the account stands at what was paid ahead less the rest of the run-off.
    const nothing = ids.map(() => 0);
    const early = { ...atOnce({ of: 'monthDay', day: 1 }), moved: 'previous' as const };
    closeMonths(
      {
        amounts: Object.fromEntries(
          LINES.map((id) => [id, id === 'goods' ? nothing.with(2, 5_234) : nothing]),
        ),
        terms: LINES.map((id) => terms(id, ['100', id === 'goods' ? early : atOnce()])),
        onPayment: false,
        every: 1,
        openings: { rec: 0, pay: 12_000, stock: 0, vat: 0, withheld: 0 },
        runOff: 100,
        dueDay: 1,
        told: false,
      },
      6,
    );
  });

  test('of staff, a loan, a purchase and income tax by schedules', () => {
    fc.assert(
      fc.property(scheduled, (c) => {
        const first = openingBlock(false, [
          ['2025-12-31', 'bank', 5_000_000],
          ['2025-12-31', 'capital', 5_000_000],
        ]);
        closeFrom(bookOfSchedules(c), new Map([[first.id, first]]), 8, false);
      }),
      { numRuns: RUNS },
    );
  });

  test('with a credit line that is drawn and paid back', () => {
    fc.assert(
      fc.property(company, fc.integer({ min: 0, max: 150_000 }), (c, floor) => {
        const { book, blocks } = bookOf(c);
        const creditLine = {
          account: 'line',
          interest: 'lost',
          limit: minor(400_000),
          rate: percent('9'),
          step: minor(1_000),
        };
        const cash = { ...book.cash, floor: minor(floor), creditLine };
        const all = [...accounts, account('line', 'loan')];
        closeFrom({ ...book, accounts: [...all], cash }, blocks, 5, false);
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
