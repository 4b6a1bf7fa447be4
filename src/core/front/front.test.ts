import { toDayNumber, type Day } from '@/core/calendar';
import { asOf, cashOf, largestMoves, makeGround } from '@/core/ground';
import { BlockBuilder } from '@/core/ledger';
import type { Book, VarianceNote } from '@/core/model';
import { minor } from '@/core/money';
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
import { plainWords, reportOf, STANDARD } from '@/core/test/variance';
import { comparedWith, layoutReport, shippedLayout } from '@/core/report';
import { bankBeside, owedOn, toldOf, whyOf } from '.';

/* What an owner asks first, told from reports and from what is open. */

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const accounts = [
  account('sales', 'income', 'Sales'),
  account('fees', 'income', 'Fees'),
  account('rent', 'expense', 'Rent'),
  account('wages', 'expense', 'Wages'),
  account('bank', 'bank', 'Bank'),
  account('capital', 'equity', 'Capital'),
];
/** A ledger of journal entries; debits positive. */
const journal = (...entries: readonly (readonly [string, ...(readonly [string, number])[]])[]) => {
  const builder = new BlockBuilder(20);
  entries.forEach(([day, ...parts], k) =>
    parts.forEach(([id, amount]) =>
      builder.add(
        toDayNumber(day as Day),
        accounts.findIndex((a) => a.id === id),
        amount,
        k + 2,
        0,
        builder.text(`J${k}`),
        0,
      ),
    ),
  );
  return builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
};
const note = (...amounts: (number | null)[]): VarianceNote => ({
  text: 'Because',
  against: 'b1',
  parts: amounts.map((amount) => ({ kind: 'once', amount: amount === null ? null : minor(amount) })) as never,
  at: '2026-02-01T00:00:00.000Z',
});
const january = (amount: number) => byMonth({ [ids[0]!]: minor(amount) });
const ground = (change: Partial<Book> = {}) => {
  const block = blockOf(accounts, [
    ['2026-01-10', 'sales', 900],
    ['2026-01-10', 'fees', 130],
    ['2026-01-20', 'rent', 260],
    ['2026-01-20', 'wages', 300],
  ]);
  return makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      closedThrough: ids[0]!,
      budgets: [
        budgetOf(
          [
            line('sales', january(1_000)),
            line('fees', january(100)),
            line('rent', january(200)),
            line('wages', january(300)),
          ],
          'b1',
        ),
      ],
      ...change,
    }),
    new Map([[block.id, block]]),
  );
};

describe('why the result is another', () => {
  const why = (notes: Record<string, VarianceNote>) => {
    const g = ground();
    const layout = { ...STANDARD, rows: { ...STANDARD.rows, set: 'profitAndLoss' as const } };
    return whyOf(reportOf(g, layout, first, 'b1').table, accounts, 'month', notes);
  };

  test('the lines that moved it most first, by what they do to the result; what is as planned is none of them', () => {
    const { lines, effect, told, untold } = why({});
    expect(lines.map((l) => [l.row.key, l.difference, l.effect])).toEqual([
      ['sales', -100, -100],
      ['rent', 60, -60],
      ['fees', 30, 30],
    ]);
    // 470 instead of 600.
    expect([effect, told, untold]).toEqual([-130, 0, -130]);
  });

  test('as far as somebody said why: a cost that is dearer hurts by what was said of it', () => {
    const { told, untold, lines } = why({ sales: note(-80), rent: note(null) });
    expect([told, untold]).toEqual([-80 - 60, 10]);
    expect(lines.map((l) => l.told)).toEqual([-80, -60, 0]);
  });

  test('a note without parts, or with the rest as a part, tells all of a difference', () => {
    expect(toldOf(note(), minor(-7))).toBe(-7);
    expect(toldOf(note(3, null), minor(-7))).toBe(-7);
    expect(toldOf(note(3, -4), minor(-7))).toBe(-1);
  });
});

describe('the bank beside the plan', () => {
  const cash = { ...shippedLayout('std-cash')!, filter: 'all' as const };
  /** Cash as it was approved: 500 at the start, 300 from customers, 100 to suppliers. */
  const approved = {
    at: '2025-12-01',
    by: '',
    fingerprint: '',
    lines: [],
    cash: {
      closing: { bank: [minor(700), ...new Array(11).fill(minor(700))] },
      sources: {
        newSales: [minor(300), ...new Array(11).fill(minor(0))],
        newPurchases: [minor(-100), ...new Array(11).fill(minor(0))],
      },
    },
  };
  test('what it holds and was to hold, and the flows by which they are apart: they add up with what it began with', () => {
    const block = journal(
      ['2025-12-31', ['bank', 450], ['capital', -450]],
      ['2026-01-10', ['bank', 260], ['sales', -260]],
      ['2026-01-20', ['bank', -110], ['rent', 110]],
      ['2026-01-21', ['bank', -60], ['rent', 60]],
    );
    const g = makeGround(
      bookWith(accounts, {
        sources: [sourceOf()],
        closedThrough: ids[0]!,
        budgets: [{ ...budgetOf([], 'b1'), state: 'approved', approved } as never],
        inForce: [{ budget: 'b1', from: ids[0]! }],
      }),
      new Map([[block.id, block]]),
    );
    const compared = comparedWith(g, first, cash, null);
    const { table } = layoutReport({ ground: g, layout: cash, month: first, compared, words: plainWords() });
    const beside = bankBeside(table)!;
    expect(beside).toMatchObject({ held: 540, planned: 700, apart: -160, opening: -50 });
    expect(beside.flows.map((f) => [f.flow, f.apart])).toEqual([
      ['suppliers', -70],
      ['customers', -40],
    ]);
    expect(bankBeside({ ...table, rows: [] })).toBeNull();
    const largest = largestMoves(g, null, { first, last: first });
    expect([largest('suppliers', -1)!.amount, largest('suppliers', -1)!.entry.day]).toEqual([
      -110,
      '2026-01-20',
    ]);
    expect([largest('customers', 1)!.amount, largest('suppliers', 1)]).toEqual([260, null]);
  });
});

describe('who owes', () => {
  const item = (n: number, side: 'in' | 'out', due: string, open: number, counterparty: string) => ({
    id: `i${n}`,
    side,
    kind: 'invoice' as const,
    number: `${n}`,
    counterparty,
    dated: '2025-12-01' as never,
    due: due as never,
    amount: minor(open),
    open: minor(open),
    account: null,
    from: 'list.csv',
  });
  const { book } = ground();
  const items = [
    item(1, 'in', '2026-01-05', 100, 'Ann'),
    item(2, 'in', '2026-01-25', 250, 'Bob'),
    item(3, 'in', '2026-01-30', 20, 'Ann'),
    item(4, 'in', '2026-02-10', 500, 'Ann'),
    item(5, 'out', '2026-03-01', 70, 'Supplier'),
  ];
  const lists = (['in', 'out'] as const).map((side) => ({
    from: 'list.csv',
    side,
    day: null,
    by: '',
    at: null,
  }));
  const view = cashOf(ground({ cash: { ...book.cash, items, lists } }), ground().book.budgets[0]!)!;
  const day = view.input.start;

  test('all that is open, what of it is late, and by whom: the most first, the longest of each', () => {
    expect(owedOn(view, 'in', day)).toEqual({
      side: 'in',
      open: 870,
      late: 370,
      by: [
        { counterparty: 'Bob', amount: 250, days: 6 },
        { counterparty: 'Ann', amount: 120, days: 26 },
      ],
      known: 'due',
    });
    expect(owedOn(view, 'out', day)).toMatchObject({ open: 70, late: 0, by: [] });
    expect(owedOn({ items: [] }, 'in', day)).toBeNull();
  });

  test('what is due on the day itself is not late', () => {
    expect(owedOn(view, 'in', day - 1)!.late).toBe(350);
    expect(owedOn(view, 'in', day - 6)!.late).toBe(100);
  });
});

test('as of an earlier month: what was explained, listed or put in force later is not known', () => {
  const g = ground({
    varianceNotes: { [ids[0]!]: { sales: note() }, [ids[1]!]: { sales: note() } },
    budgets: [budgetOf([], 'b1'), budgetOf([], 'b2'), { ...budgetOf([], 'b3'), first: periodIds(2027)[0]! }],
    inForce: [
      { budget: 'b1', from: ids[0]! },
      { budget: 'b2', from: ids[2]! },
      { budget: 'b3', from: periodIds(2027)[0]! },
    ],
  });
  const then = asOf(g, first);
  expect(Object.keys(then.book.varianceNotes)).toEqual([ids[0]]);
  // The one of the year after replaced nobody.
  expect(then.book.inForce.map((f) => f.budget)).toEqual(['b1', 'b3']);
  expect(asOf(g, first + 1).book.inForce.map((f) => f.budget)).toEqual(['b1', 'b2', 'b3']);
});
