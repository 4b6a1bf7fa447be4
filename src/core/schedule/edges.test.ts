import { day, fromDayNumber } from '@/core/calendar';
import { minor, ratio } from '@/core/money';
import { calendar, months } from '@/core/test/build';
import { equityRow, loanRow, movesOf, releaseRow, rowGroundOf, staffRow } from '@/core/test/schedule';
import { daysOf, makeRow, monthsOfRow, occurrenceNumbers, rowNeeds } from '.';

/* Days and amounts at the edges of what rows and rules are for. */

const week = { weekdays: [1, 2, 3, 4, 5], holidays: [] };
const january = calendar.period(months(2026).first);
const february = calendar.period(months(2026).first + 1);
const ground = rowGroundOf();
const byMonth = (row: Parameters<typeof makeRow>[0], of: string, g = ground) =>
  movesOf(makeRow(row, g).postings, of, g);

test('a line whose method counts no day in a month falls on its last day, as one that counts none at all', () => {
  const days = daysOf(week);
  const on = (own: readonly number[] | null) =>
    days.on({ of: 'own' }, february, own).map((d) => fromDayNumber(d));
  expect(on([])).toEqual(['2026-02-28']);
  expect(on(null)).toEqual(['2026-02-28']);
});

test('days that recur come on the first and on the last day of a period too', () => {
  const on = (period: typeof january, ...days: number[]) =>
    occurrenceNumbers(period, { of: 'monthDays', days }, week).map((d) => fromDayNumber(d));
  expect(on(january, 1, 31)).toEqual(['2026-01-01', '2026-01-31']);
  expect(on(february, 31)).toEqual(['2026-02-28']);
});

test('paid by the payday: one that falls on her first or last day counts, none before or after', () => {
  const row = staffRow({
    pay: { per: 'payday', amount: minor(1_000) },
    paydays: { of: 'monthDays', days: [15, 31] },
    from: day('2026-01-31'),
    until: day('2026-03-15'),
  });
  expect(byMonth(row, 'wages').slice(0, 4)).toEqual([1_000, 2_000, 1_000, 0]);
});

test('what she needs when she comes is bought on her first day, on the first and the last of the plan too', () => {
  const once = [{ account: 'tools', name: 'Tools', amount: minor(500) }];
  const comes = (from: string) => byMonth(staffRow({ from: day(from), once }), 'tools');
  expect(comes('2026-01-01')[0]).toBe(500);
  expect(comes('2026-12-31')[11]).toBe(500);
  expect(comes('2025-12-31').every((a) => a === 0)).toBe(true);
});

test('hours by a driver need it to be reckoned before; hours of a month need nothing', () => {
  const hours = (of: 'driver' | 'month') =>
    staffRow({
      pay: {
        per: 'hour',
        amount: minor(2_000),
        hours: of === 'driver' ? { of, driver: 'd1' } : { of, hours: 1_000 },
      },
    });
  expect(rowNeeds(hours('driver'))).toEqual({ drivers: ['d1'], profit: false });
  expect(rowNeeds(hours('month')).drivers).toEqual([]);
  const driven = { ...ground, driver: () => ratio(10) };
  expect(byMonth(hours('driver'), 'wages', driven)[0]).toBe(20_000);
});

test('a loan whose agreed repayments come to it leaves no principal; one unit less does', () => {
  const repaid = (amount: number) =>
    loanRow({
      begins: { of: 'drawn', day: day('2026-01-31'), amount: minor(1_000) },
      repay: { of: 'typed', amounts: [{ day: day('2026-06-30'), amount: minor(amount) }] },
      payments: 6,
    });
  expect(makeRow(repaid(1_000), ground).issue).toBeNull();
  expect(makeRow(repaid(999), ground).issue).toBe('principalLeft');
});

test('the table of a row has a figure for each month of the plan', () => {
  for (const row of [staffRow(), equityRow(), releaseRow()])
    for (const { amounts } of monthsOfRow(row, ground)) expect(amounts).toHaveLength(12);
});
