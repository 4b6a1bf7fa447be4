import fc from 'fast-check';
import { minor, percent } from '@/core/money';
import { toDayNumber } from '@/core/calendar';
import type { DueRule, TermsRule } from '@/core/model';
import { lostOn, STAND_INS } from '@/core/schedule';
import { account, calendar } from '@/core/test/build';
import {
  atOnce,
  byMonth,
  dayText,
  NEW_YEAR,
  onAccount,
  planned,
  projectionOf,
  terms,
  written,
} from '@/core/test/cash';
import { createProjector } from '.';

/** Where what is never paid stands, in a book without an account for it. */
const LOST = lostOn(STAND_INS.badDebt);

const sales = account('sales', 'income');
const cost = account('cost', 'costOfSales');
const wages = account('wages', 'expense');
const project = (...lines: ReturnType<typeof planned>[]) => createProjector()(projectionOf(lines));
/** What moves an account: day, amount. */
const moves = (p: ReturnType<typeof project>, of: string) =>
  written(p)
    .filter((x) => x.account === of)
    .sort((a, b) => a.day - b.day)
    .map((x) => [dayText(x.day), x.amount]);

describe('terms, rule by rule', () => {
  test('at once: on the day, in parts over working days, on own days', () => {
    expect(
      moves(project(planned(sales, atOnce({ of: 'monthDay', day: 15 }), [100_00, 50_00])), 'bank'),
    ).toEqual([
      ['2026-01-15', 100_00],
      ['2026-02-15', 50_00],
    ]);
    // January 2026 has 22 weekdays (ISO 8601 weeks): 100.00 is 4.55 twelve times and 4.54 ten times.
    const spread = moves(project(planned(wages, atOnce({ of: 'spread' }), [100_00])), 'bank');
    expect(spread).toHaveLength(22);
    expect(spread.slice(11, 13)).toEqual([
      ['2026-01-16', -4_55],
      ['2026-01-19', -4_54],
    ]);
    const line = {
      ...planned(wages, atOnce({ of: 'own' }), [300_00]),
      own: { of: 'days' as const, on: { of: 'weeks' as const, every: 2, from: '2026-01-02' as never } },
    };
    // Biweekly from 2 January: three paydays in January 2026.
    expect(moves(project(line), 'bank')).toEqual([
      ['2026-01-02', -100_00],
      ['2026-01-16', -100_00],
      ['2026-01-30', -100_00],
    ]);
  });

  test('a payment day that is no working day stays, or moves as the rule says, past the month if it must', () => {
    const on = (moved: 'stays' | 'next' | 'previous') =>
      moves(
        project(planned(wages, { ...atOnce({ of: 'monthDay', day: 31 }), moved }, [10_00])),
        'bank',
      )[0]![0];
    // 31 January 2026 is a Saturday.
    expect([on('stays'), on('next'), on('previous')]).toEqual(['2026-01-31', '2026-02-02', '2026-01-30']);
    const p = project(planned(wages, { ...atOnce(), moved: 'next' }, [10_00]));
    // The cost stays in its month; between the two it is owed.
    expect([byMonth(p, 'wages'), byMonth(p, 'pay')]).toEqual([[10_00], [-10_00, 10_00]]);
  });

  test('on account: shares after days or months; the rest is never paid and written off with the last', () => {
    const p = project(
      planned(
        sales,
        onAccount([
          ['60', { days: 30 }],
          ['35', { months: 2, day: 31 }],
        ]),
        [1_000_01],
      ),
    );
    expect(moves(p, 'bank')).toEqual([
      ['2026-03-02', 600_01],
      ['2026-03-31', 350_00],
    ]);
    expect(moves(p, LOST)).toEqual([['2026-03-31', 50_00]]);
    expect(byMonth(p, 'rec').reduce((a, b) => a + b)).toBe(0);
  });

  test('what is never paid is written off when the last share is due, whichever was said last; its tax as it is owed', () => {
    const rule = onAccount([
      ['60', { days: 60 }],
      ['30', { days: 10 }],
    ]);
    const line = planned(sales, rule, [1_000_00]);
    const taxed = { ...line, terms: { ...line.terms, tax: { scheme: 't1', rate: percent('20') } } };
    const off = (on: 'invoice' | 'payment') => {
      const p = createProjector()(projectionOf([taxed], { taxes: [{ ...TAX, on }] }));
      const lost = written(p).filter((x) => x.what === 'badDebt' && x.amount > 0);
      return lost.map((x) => [dayText(x.day), x.account, x.amount]);
    };
    // 31 January and 60 days. A tenth of 1,000.00 and of its tax of 200.00.
    expect(off('invoice')).toEqual([
      ['2026-04-01', LOST, 100_00],
      ['2026-04-01', LOST, 20_00],
    ]);
    expect(off('payment')).toEqual([
      ['2026-04-01', LOST, 100_00],
      ['2026-04-01', 'vat', 20_00],
    ]);
  });

  test('a credit note settles the same way with the sign turned', () => {
    const plus = moves(
      project(
        planned(
          sales,
          onAccount([
            ['50', { days: 10 }],
            ['50', { days: 40 }],
          ]),
          [99_99],
        ),
      ),
      'bank',
    );
    const minus = moves(
      project(
        planned(
          sales,
          onAccount([
            ['50', { days: 10 }],
            ['50', { days: 40 }],
          ]),
          [-99_99],
        ),
      ),
      'bank',
    );
    expect(minus).toEqual(plus.map(([d, a]) => [d, -(a as number)]));
  });

  test('days outstanding fix what stands at the month’s end, and money never turns round', () => {
    // 36,500.00 a month: 45 days of it outstanding are 36,500 × 12 × 45 ÷ 365 = 54,000.00.
    const rule: TermsRule = { kind: 'daysOutstanding', days: 45, over: 1, through: null };
    const p = project(planned(sales, rule, [36_500_00, 36_500_00, 36_500_00, 0]));
    expect(byMonth(p, 'rec')).toEqual([36_500_00, 17_500_00, 0, -54_000_00]);
    expect(byMonth(p)).toEqual([0, 19_000_00, 36_500_00, 54_000_00]);
  });

  test('from stock: purchases bring the stock to its share of next month’s cost', () => {
    const rule: TermsRule = {
      kind: 'fromStock',
      target: { of: 'share', percent: percent('20') },
      bought: { of: 'monthDay', day: 1 },
      shares: onAccount([['100', { days: 0 }]]).shares,
      moved: 'stays',
      inventory: null,
      through: null,
    };
    const p = createProjector()(
      projectionOf([planned(cost, rule, [100_00, 200_00, 50_00])], { opening: new Map([['stock', 20_00]]) }),
    );
    // 100 + 40 − 20; 200 + 10 − 40; 50 + 10 (the last month repeats) − 10.
    expect(byMonth(p)).toEqual([-120_00, -170_00, -50_00]);
    expect(byMonth(p, 'cost')).toEqual([100_00, 200_00, 50_00]);
  });

  test('from stock: a stock that is too large is used up, and nothing is bought', () => {
    const rule: TermsRule = {
      kind: 'fromStock',
      target: { of: 'days', days: 0 },
      bought: { of: 'monthDay', day: 1 },
      shares: onAccount([['100', { days: 0 }]]).shares,
      moved: 'stays',
      inventory: null,
      through: null,
    };
    const p = createProjector()(
      projectionOf([planned(cost, rule, [100_00, 100_00])], { opening: new Map([['stock', 150_00]]) }),
    );
    expect(byMonth(p)).toEqual([0, -50_00]);
  });

  test('in advance: lumps for the months up to the next, the line in its months; the last month repeats after the end', () => {
    const rule: TermsRule = {
      kind: 'inAdvance',
      first: '2026-02-10' as never,
      every: 3,
      moved: 'stays',
      through: null,
    };
    const p = project(planned(wages, rule, [1_00, 2_00, 2_00, 2_00, 3_00, 3_00]));
    expect(moves(p, 'bank')).toEqual([
      ['2026-02-10', -6_00],
      ['2026-05-10', -9_00],
    ]);
    expect(byMonth(p, 'wages')).toEqual([1_00, 2_00, 2_00, 2_00, 3_00, 3_00]);
  });

  test('without money: the other account alone', () => {
    const p = project(planned(wages, { kind: 'withoutMoney', against: 'stock' }, [7_00]));
    expect([byMonth(p), byMonth(p, 'stock')]).toEqual([[], [-7_00]]);
  });

  test('payroll: the net part on the payday, the rest when it is due', () => {
    const p = project(
      planned(
        wages,
        {
          kind: 'payroll',
          on: { of: 'monthDay', day: 25 },
          net: percent('72.5'),
          rest: { of: 'months', months: 1, day: 15 },
          moved: 'stays',
          through: null,
        },
        [1_000_00],
      ),
    );
    expect(moves(p, 'bank')).toEqual([
      ['2026-01-25', -725_00],
      ['2026-02-15', -275_00],
    ]);
  });

  test('parts of a line: 40 % at once, 60 % on account', () => {
    const p = project(
      planned(
        sales,
        terms('sales', ['40', atOnce()], ['60', onAccount([['100', { days: 30 }]])]),
        [1_000_05],
      ),
    );
    expect(moves(p, 'bank')).toEqual([
      ['2026-01-31', 400_02],
      ['2026-03-02', 600_03],
    ]);
  });
});

describe('beside a textbook', () => {
  // Garrison, Noreen, Brewer: Managerial Accounting, the master budget of Hampton Freeze (values from memory): sales of
  // 10, 30, 40 and 20 thousand cases at 20 dollars, 70 % collected in the quarter and 30 % in the next, 90,000 at the start.
  const quarters = { months: 1, day: 1 };
  test('collections of a master budget', () => {
    const line = planned(
      sales,
      onAccount(
        [
          ['70', { days: 0 }],
          ['30', quarters],
        ],
        { of: 'monthDay', day: 1 },
      ),
      [200_000, 600_000, 800_000, 400_000],
    );
    const p = createProjector()(
      projectionOf([line], { opening: new Map([['rec', 90_000]]), runOffEnd: () => NEW_YEAR + 20 }),
    );
    expect(byMonth(p).slice(0, 4)).toEqual([230_000, 480_000, 740_000, 520_000]);
  });
  test('payments for materials, half of them in the next quarter', () => {
    const line = planned(
      cost,
      onAccount(
        [
          ['50', { days: 0 }],
          ['50', quarters],
        ],
        { of: 'monthDay', day: 1 },
      ),
      [47_400, 97_200, 102_900, 55_800],
    );
    const p = createProjector()(
      projectionOf([line], { opening: new Map([['pay', -25_800]]), runOffEnd: () => NEW_YEAR + 20 }),
    );
    expect(byMonth(p).slice(0, 4)).toEqual([-49_500, -72_300, -100_050, -79_350]);
  });
});

const dayRule = fc.oneof(
  fc.record({ of: fc.constant('monthDay' as const), day: fc.integer({ min: 1, max: 31 }) }),
  fc.constant({ of: 'spread' as const }),
  fc.constant({ of: 'own' as const }),
);
const dueRule: fc.Arbitrary<DueRule> = fc.oneof(
  fc.record({ of: fc.constant('days' as const), days: fc.integer({ min: 0, max: 120 }) }),
  fc.record({
    of: fc.constant('months' as const),
    months: fc.integer({ min: 0, max: 4 }),
    day: fc.integer({ min: 1, max: 31 }),
  }),
);
const moved = fc.constantFrom('stays' as const, 'next' as const, 'previous' as const);
const shares = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 40 }), dueRule), { minLength: 1, maxLength: 3 })
  .map((all) => all.map(([p, due]) => ({ percent: percent(String(p)), due })));
const rule: fc.Arbitrary<TermsRule> = fc.oneof(
  fc.record({ kind: fc.constant('atOnce' as const), on: dayRule, moved }),
  fc.record({
    kind: fc.constant('onAccount' as const),
    invoiced: dayRule,
    shares,
    moved,
    badDebt: fc.constant(null),
    through: fc.constant(null),
  }),
  fc.record({
    kind: fc.constant('daysOutstanding' as const),
    days: fc.integer({ min: 0, max: 90 }),
    over: fc.constantFrom(1 as const, 3 as const),
    through: fc.constant(null),
  }),
  fc.record({
    kind: fc.constant('fromStock' as const),
    target: fc.oneof(
      fc.record({ of: fc.constant('days' as const), days: fc.integer({ min: 0, max: 60 }) }),
      fc.constant({ of: 'share' as const, percent: percent('33.3') }),
    ),
    bought: dayRule,
    shares,
    moved,
    inventory: fc.constant(null),
    through: fc.constant(null),
  }),
  fc.record({
    kind: fc.constant('inAdvance' as const),
    first: fc.constantFrom('2026-02-28' as never, '2024-07-01' as never, '2027-01-31' as never),
    every: fc.integer({ min: 1, max: 14 }),
    moved,
    through: fc.constant(null),
  }),
  fc.constant({ kind: 'withoutMoney' as const, against: null }),
  fc.record({
    kind: fc.constant('payroll' as const),
    on: dayRule,
    net: fc.constantFrom(percent('70'), percent('100'), percent('66.67')),
    rest: dueRule,
    moved,
    through: fc.constant(null),
  }),
);
const amount = fc.oneof(fc.constant(null), fc.integer({ min: -50_000, max: 1_000_000 }));
const line = fc.tuple(
  fc.constantFrom('income', 'costOfSales', 'expense', 'otherIncome'),
  rule,
  fc.array(amount, { minLength: 6, maxLength: 6 }),
  fc.boolean(),
);
const TAX = {
  id: 't1',
  name: 'VAT',
  payable: 'vat',
  owed: 'net' as const,
  on: 'payment' as const,
  every: 3 as const,
  ends: 12,
  due: { of: 'months' as const, months: 1, day: 31 },
  exceptions: [],
};
const linesOf = (all: readonly (typeof line extends fc.Arbitrary<infer T> ? T : never)[]) =>
  all.map(([kind, r, amounts, taxed], i) => {
    const made = planned(account(`l${i}`, kind as 'income'), r, amounts);
    return taxed ? { ...made, terms: { ...made.terms, tax: { scheme: 't1', rate: percent('19') } } } : made;
  });

describe('whatever the terms', () => {
  const plans = fc.array(line, { minLength: 1, maxLength: 5 }).map(linesOf);
  const rounds = { numRuns: 100 };

  test('every event comes to nothing, every account of profit and loss to the plan of its month', () =>
    fc.assert(
      fc.property(plans, (lines) => {
        const p = createProjector()(projectionOf(lines, { taxes: [TAX] }));
        const all = written(p);
        const byDay = new Map<string, number>();
        for (const x of all) {
          const key = `${x.key} ${x.day}`;
          byDay.set(key, (byDay.get(key) ?? 0) + x.amount);
        }
        expect([...byDay.values()].every((v) => v === 0)).toBe(true);
        for (const l of lines)
          l.amounts.forEach((planned, m) => {
            const period = calendar.period(calendar.firstOfYear(2026) + m);
            const posted = all
              .filter(
                (x) =>
                  x.account === l.account.id &&
                  x.day >= toDayNumber(period.start) &&
                  x.day <= toDayNumber(period.end),
              )
              .reduce((t, x) => t + x.amount, 0);
            const sign = l.account.kind === 'income' || l.account.kind === 'otherIncome' ? -1 : 1;
            expect(posted).toBe((planned ?? 0) * sign || 0);
          });
      }),
      rounds,
    ));

  test('the sums by day are those of the postings, and any order of edits comes to what a fresh reckoning gives', () =>
    fc.assert(
      fc.property(plans, plans, (before, after) => {
        const project = createProjector();
        const first = projectionOf(before, { taxes: [TAX] });
        project(first);
        const accounts = projectionOf([...before, ...after]).accounts;
        const input = { ...projectionOf(after, { taxes: [TAX] }), accounts };
        project({
          ...projectionOf(before, { taxes: input.taxes }),
          accounts,
          opening: input.opening,
          workWeek: input.workWeek,
        });
        const stepped = project(input);
        const told = structuredClone([stepped.bySource, stepped.moved, written(stepped)]);
        // What was handed out stays what it was when more is reckoned.
        project({ ...input, lines: first.lines });
        expect([stepped.bySource, stepped.moved, written(stepped)]).toEqual(told);
        project(input);
        const fresh = createProjector()(input);
        expect(stepped.bySource).toEqual(fresh.bySource);
        expect(written(stepped).length).toBe(written(fresh).length);
        const bank = written(fresh).filter((x) => x.account === 'bank' && x.day <= fresh.start + fresh.days);
        const sum = Object.values(fresh.bySource).reduce((t, s) => t + s.reduce((a, b) => a + b, 0), 0);
        expect(sum).toBe(bank.reduce((t, x) => t + x.amount, 0));
      }),
      rounds,
    ));

  test('a tax is owed once: what is returned and what stands are what was collected', () =>
    fc.assert(
      fc.property(plans, fc.constantFrom('invoice' as const, 'payment' as const), (lines, on) => {
        const p = createProjector()(projectionOf(lines, { taxes: [{ ...TAX, on }] }));
        const horizon = p.start + p.days;
        const owed = p.returns.reduce((t, r) => t + r.owed, 0);
        const paid = written(p).filter((x) => x.key.startsWith('tax') && x.account === 'vat');
        expect(paid.reduce((t, x) => t + x.amount, 0)).toBe(owed);
        // Nothing of it is lost: what is not returned yet falls due after the plan.
        const collected = written(p)
          .filter((x) => x.account === 'vat' && !x.key.startsWith('tax') && x.day <= horizon)
          .reduce((t, x) => t - x.amount, 0);
        if (on === 'invoice') expect(owed).toBe(collected);
      }),
      rounds,
    ));
});

test('minor amounts of any size divide without loss', () => {
  const p = project(
    planned(
      sales,
      onAccount([
        ['33.333333', { days: 1 }],
        ['33.333333', { days: 2 }],
      ]),
      [minor(9_999_999_999_999)],
    ),
  );
  expect(byMonth(p, 'rec').reduce((a, b) => a + b)).toBe(0);
});
