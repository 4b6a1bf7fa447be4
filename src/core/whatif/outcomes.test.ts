import { toDayNumber, type Day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import { calendar, periodIds } from '@/core/test/build';
import { range, smallPlan } from '@/core/test/smallPlan';
import { groundAssuming } from '@/core/ground';
import { assume, lines } from '@/core/test/cases';
import { bankCauses, outcomeOf, outcomesOf, OUTCOME_IDS } from '.';

/* Figures that cases are compared by, reckoned by hand. */

const on = (text: string) => toDayNumber(text as Day);
const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);

test('profit, margin, closing bank, equity, and the lowest day with the days under the floor', () => {
  const { of, months, balances } = outcomesOf(smallPlan(), null, range)!;
  expect(of.income?.amount).toBe(4_000);
  expect(of.grossMargin?.amount).toBe(4_000 - 1_300);
  expect(of.netProfit?.amount).toBe(4_000 - 1_300 - 1_800);
  // 1,000 − 600 on the 5th, − 800 on the 10th; from the 20th it is above.
  expect(of.lowBank).toEqual({ amount: -400, day: on('2026-01-10') });
  expect(of.daysUnder?.amount).toBe(10);
  expect(of.closingBank?.amount).toBe(1_900);
  expect(of.equity?.amount).toBe(1_900);
  expect(of.lowAfterLine).toBeNull();
  expect(of.highestDrawing).toBeNull();
  expect(months.map((m) => [m.profit, m.bank])).toEqual([
    [600, 1_600],
    [900, 2_500],
    [-600, 1_900],
  ]);
  expect(balances).toBe(true);
});

test('a range within the plan has its own lowest day and its own profit', () => {
  const { of } = outcomesOf(smallPlan(), null, { first: first + 1, last: first + 1 })!;
  expect(of.netProfit?.amount).toBe(900);
  // 1,600 − 600 on 5 February, − 500 on the 10th.
  expect(of.lowBank).toEqual({ amount: 500, day: on('2026-02-10') });
  expect(of.daysUnder?.amount).toBe(0);
  expect(of.closingBank?.amount).toBe(2_500);
});

test('with a credit line the lowest day is told before it and after it, with the most that is drawn', () => {
  const line = { account: 'line', interest: null, limit: minor(350), rate: percent('0'), step: minor(100) };
  const { of, balances } = outcomesOf(smallPlan({ creditLine: line }), null, range)!;
  expect(of.lowBank).toEqual({ amount: -400, day: on('2026-01-10') });
  // Three whole steps of the 350; what is missing beyond them stays missing.
  expect(of.lowAfterLine).toEqual({ amount: -100, day: on('2026-01-10') });
  expect(of.highestDrawing).toEqual({ amount: 300, day: on('2026-01-10') });
  expect(of.daysUnder?.amount).toBe(10);
  // Repaid at January's end.
  expect(of.closingBank?.amount).toBe(1_900);
  expect(balances).toBe(true);
});

test('a covenant is broken in the range or not in it', () => {
  const bank = { id: 'o1', name: 'At the bank', formula: '"account:bank"', unit: 'money' as const };
  const covenant = {
    id: 'n1',
    name: 'Owners',
    ratio: { own: 'o1' },
    bound: 'least' as const,
    limit: 2_000,
    from: ids[0]!,
    tested: 'period' as const,
  };
  const asked = smallPlan({}, { covenants: [covenant], ownRatios: [bank] });
  const brokenIn = (of: typeof range) => outcomesOf(asked, null, of)!.covenants[0]!.broken;
  // It stands at 1,600, 2,500 and 1,900.
  expect(brokenIn(range)).toBe(first);
  expect(brokenIn({ first: first + 1, last: first + 1 })).toBeNull();
  expect(brokenIn({ first: first + 1, last: first + 2 })).toBe(first + 2);
});

test('one outcome asked alone is what it is among all', () => {
  const line = { account: 'line', interest: null, limit: minor(350), rate: percent('9'), step: minor(100) };
  for (const ground of [smallPlan(), smallPlan({ creditLine: line }), smallPlan({ floor: null })])
    for (const asked of [range, { first, last: first }, { first: first + 1, last: first + 40 }]) {
      const all = outcomesOf(ground, null, asked)!;
      for (const id of OUTCOME_IDS)
        expect([id, outcomeOf(ground, null, asked, id)]).toEqual([id, all.of[id]]);
    }
});

test('what is drawn on the first day of a range is drawn in it', () => {
  const line = { account: 'line', interest: null, limit: minor(900), rate: percent('0'), step: minor(100) };
  // February begins with 1,600: 700 less on the 1st asks for 100 more than is there after its rent of the 5th.
  const ground = smallPlan({
    creditLine: line,
    dated: [
      {
        id: 'd1',
        name: 'Deposit',
        direction: 'out',
        amount: minor(1_900),
        first: '2026-02-01' as Day,
        repeat: null,
        against: 'capital',
        bank: null,
        group: 'other',
      },
    ],
  });
  const { of } = outcomesOf(ground, null, { first: first + 1, last: first + 1 })!;
  expect(of.highestDrawing).toEqual({ amount: 900, day: on('2026-02-05') });
  const short = outcomesOf(
    smallPlan({ ...ground.book.cash, creditLine: { ...line, limit: minor(300) } }),
    null,
    {
      first: first + 1,
      last: first + 1,
    },
  )!;
  expect(short.of.highestDrawing).toEqual({ amount: 300, day: on('2026-02-01') });
});

test('the bank at the end is that of the last day, whatever comes after it', () => {
  const ground = smallPlan({
    dated: [
      {
        id: 'd1',
        name: 'Deposit',
        direction: 'in',
        amount: minor(5_000),
        first: '2026-03-01' as Day,
        repeat: null,
        against: 'capital',
        bank: null,
        group: 'other',
      },
    ],
  });
  expect(outcomesOf(ground, null, { first, last: first + 1 })!.of.closingBank?.amount).toBe(2_500);
});

test('why the bank stands elsewhere on a day: by what money is from, before the credit line and after it', () => {
  const line = { account: 'line', interest: null, limit: minor(900), rate: percent('0'), step: minor(100) };
  const ground = smallPlan({ creditLine: line });
  const base = outcomesOf(ground, null, range)!;
  const own = outcomesOf(
    groundAssuming(ground, 'c', [
      assume({ on: 'amounts', reach: lines('sales'), way: { as: 'percent' } }, -10_000, {}, 'j1'),
      assume({ on: 'amounts', reach: lines('rent'), way: { as: 'amount' } }, 50, {}, 'j2'),
    ]),
    null,
    range,
  )!;
  const causes = (day: string, before: boolean) =>
    bankCauses(base, own, on(day), before).map((c) => [c.source, c.amount]);
  // Rent is dearer by 50 on the 5th; sales bring a tenth less on the 20th.
  expect(causes('2026-01-04', true)).toEqual([]);
  expect(causes('2026-01-10', true)).toEqual([['newPurchases', -50]]);
  expect(causes('2026-01-20', true)).toEqual([
    ['newSales', -200],
    ['newPurchases', -50],
  ]);
  // Of 450 that lack five hundreds are drawn, of 400 four.
  expect(causes('2026-01-10', false)).toEqual([
    ['creditLine', 100],
    ['newPurchases', -50],
  ]);
  for (let d = 0; d < base.bank.plain.length; d++)
    for (const [before, of] of [
      [true, 'plain'],
      [false, 'closing'],
    ] as const) {
      const sum = bankCauses(base, own, base.bank.start + 1 + d, before).reduce((t, c) => t + c.amount, 0);
      expect(sum).toBe(own.bank[of][d]! - base.bank[of][d]!);
    }
});
