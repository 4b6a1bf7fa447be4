import { minor, percent } from '@/core/money';
import { dayNumberOf } from '@/core/calendar';
import type { TaxScheme, TermsRule } from '@/core/model';
import { lostOn, STAND_INS } from '@/core/schedule';
import { account, calendar } from '@/core/test/build';
import { atOnce, dayText, NEW_YEAR, onAccount, planned, projectionOf, written } from '@/core/test/cash';
import { createProjector, type PlannedLine, type ProjectionInput } from '.';

/** Where what is never paid stands, in a book without an account for it. */
const LOST = lostOn(STAND_INS.badDebt);

/* What closed months leave to come, with figures and days reckoned by hand. October to December 2025 are closed. */

const first = calendar.firstOfYear(2026);
const past = [first - 3, first - 2, first - 1].map((p) => calendar.period(p));
const sales = account('sales', 'income');
const fees = account('fees', 'income');
const goods = account('goods', 'costOfSales');
const wages = account('wages', 'expense');

const line = (
  of: typeof sales,
  rule: TermsRule,
  closed: readonly number[],
  ahead: readonly number[] = [0, 0, 0],
  tax: string | null = null,
): PlannedLine => {
  const made = planned(of, rule, ahead);
  return {
    ...made,
    past: closed.map((a) => minor(a)),
    ahead: [...closed, ...ahead].map((a) => minor(a)),
    terms: { ...made.terms, tax: tax === null ? null : { scheme: 't1', rate: percent(tax) } },
  };
};
const project = (
  lines: readonly PlannedLine[],
  opening: Record<string, number>,
  change: Partial<ProjectionInput> = {},
) =>
  createProjector()(
    projectionOf(lines, {
      past,
      opening: new Map(Object.entries(opening)),
      runOffEnd: () => NEW_YEAR + 10,
      ...change,
    }),
  );
/** What moves an account by day: [day, amount], the same day's in one. */
const moves = (p: ReturnType<typeof project>, of: string) => {
  const days = new Map<number, number>();
  for (const x of written(p)) if (x.account === of) days.set(x.day, (days.get(x.day) ?? 0) + x.amount);
  return [...days]
    .filter(([, amount]) => amount !== 0)
    .sort(([a], [b]) => a - b)
    .map(([day, amount]) => [dayText(day), amount]);
};

describe('receivables go by the shares of their lines', () => {
  // Invoiced at the month's end: 60 % after 30 days, 38 % after 60, 2 % never.
  const shares = onAccount([
    ['60', { days: 30 }],
    ['38', { days: 60 }],
  ]);
  const closed = line(sales, shares, [0, 1000_00, 2000_00]);
  // Of November's 1,000 (30 November) 380 come on 29 January, 20 are lost then; of December's 2,000 (31 December)
  // 1,200 on 30 January, 760 on 1 March, 40 are lost.
  const all = [
    ['2026-01-29', 380_00],
    ['2026-01-30', 1200_00],
    ['2026-03-01', 760_00],
  ];

  test('all that should stand there comes when it is due, and what is never paid is lost with the last', () => {
    const p = project([closed], { rec: 2400_00 });
    expect(moves(p, 'bank')).toEqual(all);
    expect(moves(p, LOST)).toEqual([
      ['2026-01-29', 20_00],
      ['2026-03-01', 40_00],
    ]);
    expect(p.untold.get('rec')).toBe(0);
  });

  test('where less stands there, the oldest has been paid', () => {
    // 500 less: November's 400 are paid, and 100 of December's first share.
    const p = project([closed], { rec: 1900_00 });
    expect(moves(p, 'bank')).toEqual([
      ['2026-01-30', 1100_00],
      ['2026-03-01', 760_00],
    ]);
  });

  test('where more does, the rest runs off in equal parts up to its end, the larger first', () => {
    const p = project([closed], { rec: 2400_00 + 1_05 });
    expect(moves(p, 'bank').slice(0, 11)).toEqual([
      ...Array.from({ length: 10 }, (_, i) => [dayText(NEW_YEAR + 1 + i), i < 5 ? 11 : 10]),
      all[0],
    ]);
  });

  test('where the account stands the other way, it comes all the same, and the rest goes back', () => {
    const p = project([closed], { rec: -1_00 });
    expect(moves(p, 'bank').slice(-3)).toEqual(all);
    expect(moves(p, 'rec').reduce((t, [, a]) => t + (a as number), -1_00)).toBe(0);
  });

  test('items that have days of their own come first; only what they leave goes by terms', () => {
    const item = {
      key: 'i',
      side: 'in' as const,
      kind: 'invoice' as const,
      account: 'rec',
      dated: dayNumberOf(2025, 12, 31),
      expected: dayNumberOf(2026, 2, 10),
      open: minor(1640_00),
      counted: true,
      onTop: false,
    };
    const p = project([closed], { rec: 2400_00 }, { items: [item] });
    // 760 are left of 2,400, the latest: 40 of December's last share have been paid, and 40 are lost.
    expect(moves(p, 'bank')).toEqual([
      ['2026-02-10', 1640_00],
      ['2026-03-01', 720_00],
    ]);
  });
});

describe('a balance that is fixed by days is an account’s', () => {
  const days = (n: number): TermsRule => ({ kind: 'daysOutstanding', days: n, over: 1, through: null });

  test('what stood there at the start counts, over all lines that go through it', () => {
    // 365.00 a month: 12 × 365 × 30 ÷ 365 = 360.00 of sales, 12 × 73 × 20 ÷ 365 = 48.00 of fees should stand there.
    const lines = [
      line(sales, days(30), [365_00, 365_00, 365_00], [365_00, 365_00]),
      line(fees, days(20), [73_00, 73_00, 73_00], [73_00, 73_00]),
    ];
    const january = (rec: number) =>
      written(project(lines, { rec }))
        .filter((x) => x.account === 'bank' && dayText(x.day) < '2026-02')
        .reduce((t, x) => t + x.amount, 0);
    expect(january(408_00)).toBe(438_00);
    expect(january(508_00)).toBe(538_00);
    // Nothing goes back: it stays below what it should be until sales have filled it up.
    expect(january(-100_00)).toBe(0);
  });
});

describe('a stock is an account’s', () => {
  const stock: TermsRule = {
    kind: 'fromStock',
    target: { of: 'share', percent: percent('50') },
    bought: { of: 'monthDay', day: 1 },
    shares: onAccount([['100', { months: 1, day: 10 }]]).shares,
    moved: 'stays',
    inventory: 'stock',
    through: null,
  };
  test('what was bought in a closed month is what the stock grew by and what was used, and is paid when due', () => {
    // December used 100, and the stock rose from 40 to 55: 115 were bought, and are due on 10 January.
    const stood = [30_00, 40_00, 55_00];
    const p = project(
      [line(goods, stock, [0, 0, 100_00], [110_00, 120_00, 0])],
      { stock: 55_00, pay: -115_00 },
      {
        stoodAt: (id, place) => (id === 'stock' ? stood[place]! : 0),
      },
    );
    // January buys 110 + 60 − 55 = 115, February 120 + 0 − 60 = 60, each paid on the 10th after.
    expect(moves(p, 'bank')).toEqual([
      ['2026-01-10', -115_00],
      ['2026-02-10', -115_00],
      ['2026-03-10', -60_00],
    ]);
  });
});

describe('pay and what is paid ahead', () => {
  const payroll: TermsRule = {
    kind: 'payroll',
    on: { of: 'monthDay', day: 25 },
    net: percent('70'),
    rest: { of: 'months', months: 1, day: 15 },
    moved: 'stays',
    through: 'held',
  };
  const accounts = [...projectionOf([]).accounts, account('held', 'otherLiability'), wages];

  test('what was withheld goes when each payday says, and what nothing tells on the day that is given', () => {
    const p = project(
      [line(wages, payroll, [0, 0, 100_00])],
      { held: -35_00 },
      {
        accounts,
        settled: [{ account: 'held', day: dayNumberOf(2026, 1, 20), source: 'payroll' }],
      },
    );
    expect(moves(p, 'bank')).toEqual([
      ['2026-01-15', -30_00],
      ['2026-01-20', -5_00],
    ]);
  });

  test('a payday that moved back over the start has been paid, if that is what stands there; else it is paid at once', () => {
    // 1 January 2026 is no working day of this week: paid on 31 December.
    const rent = line(
      wages,
      { ...atOnce({ of: 'monthDay', day: 1 }), moved: 'previous' },
      [0, 0, 0],
      [80_00],
    );
    const workWeek = { weekdays: [1, 2, 3, 4, 5], holidays: ['2026-01-01' as never] };
    expect(moves(project([rent], { pay: 80_00 }, { workWeek }), 'bank')).toEqual([]);
    expect(moves(project([rent], {}, { workWeek }), 'bank')).toEqual([['2026-01-01', -80_00]]);
    // Where more is owed for what nothing tells of, the account cannot say: it went as planned, and 580 stand there.
    expect(moves(project([rent], { pay: -500_00 }, { workWeek }), 'bank')).toEqual(
      Array.from({ length: 10 }, (_, i) => [`2026-01-${String(i + 1).padStart(2, '0')}`, -58_00]),
    );
    // So it does where what was paid ahead is more than what still runs off: 80 paid, of 30 that are owed.
    expect(moves(project([rent], { pay: 50_00 }, { workWeek, runsOff: ['pay'] }), 'bank')).toEqual(
      Array.from({ length: 10 }, (_, i) => [`2026-01-${String(i + 1).padStart(2, '0')}`, -3_00]),
    );
    // Where nothing ran off, only 50 were paid: the rest is paid at once.
    expect(moves(project([rent], { pay: 50_00 }, { workWeek }), 'bank')).toEqual([['2026-01-01', -30_00]]);
  });
});

describe('a tax on payment', () => {
  const tax: TaxScheme = {
    id: 't1',
    name: 'Tax',
    payable: 'vat',
    owed: 'net',
    on: 'payment',
    every: 1,
    ends: 12,
    due: { of: 'months', months: 1, day: 10 },
    exceptions: [],
  };
  test('what is owed for December is what was paid in it; what is not paid yet falls due as it is', () => {
    // At 10 %, invoiced at the month's end, paid after 31 days: of November’s 1,000, paid on 31 December, 100 are owed on
    // 10 January; of December’s 2,000, paid on 31 January, 200 on 10 February. Both stand at the tax.
    const p = project(
      [line(sales, onAccount([['100', { days: 31 }]]), [0, 1000_00, 2000_00], [0, 0, 0], '10')],
      { rec: 2200_00, vat: -300_00 },
      { taxes: [tax] },
    );
    expect(p.returns.map((r) => [dayText(r.due), r.owed])).toEqual([
      ['2026-01-10', 100_00],
      ['2026-02-10', 200_00],
    ]);
  });
});
