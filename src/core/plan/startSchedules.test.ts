import { day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import { lineOf, type Budget, type ScheduleRow } from '@/core/model';
import { calendar, line, lastYear, months, periodIds } from '../test/build';
import { assetRow, loanRow, staffRow } from '../test/schedule';
import { periodsOf } from '@/core/calendar';
import { carriedSchedules } from './startSchedules';

/* A budget of 2027 that starts from one of 2026: what its schedules make is made by them again. */

const then = periodIds(2026);
const now = periodIds(2027);
const bySchedule = (beside: Record<string, number> = {}) =>
  ({
    kind: 'schedule',
    beside: Object.fromEntries(Object.entries(beside).map(([p, a]) => [p, minor(a)])),
  }) as const;
const carry = (
  schedules: readonly ScheduleRow[],
  other: Partial<Budget> = {},
  {
    years = 1,
    length = 12,
    axis = null as string | null,
    segments = [null] as (string | null)[],
    otherAxis = null as string | null,
  } = {},
) => {
  const lines = other.lines ?? [line('wages', bySchedule({ [then[2]!]: 1000 })), line('rent', lastYear())];
  const first = months(2027).first - 12 * (1 - years);
  return carriedSchedules(
    { schedules: [...schedules], lines },
    { axis, segments, otherAxis },
    [line('wages', lastYear()), line('rent', lastYear())],
    {
      calendar,
      periods: periodsOf(calendar, { first, last: first + length - 1 }),
      years,
      upliftOf: () => percent('10'),
    },
  );
};
const methodOf = (lines: Budget['lines'] | readonly Budget['lines'][number][], account: string) =>
  lineOf({ lines: [...lines] }, { account, segment: null })!.method;

test('rows come along, their lines are made by them, and what stands beside them a year later is raised', () => {
  const { schedules, lines, left } = carry([staffRow()]);
  expect([schedules, left]).toEqual([[staffRow()], []]);
  expect(methodOf(lines, 'wages')).toEqual(bySchedule({ [now[2]!]: 1100 }));
  expect(methodOf(lines, 'rent')).toEqual(lastYear());
});
test('of the same months, and of years beyond the other budget’s', () => {
  expect(methodOf(carry([staffRow()], {}, { years: 0 }).lines, 'wages')).toEqual(
    bySchedule({ [then[2]!]: 1100 }),
  );
  const two = methodOf(carry([staffRow()], {}, { length: 24 }).lines, 'wages');
  expect(two).toEqual(bySchedule({ [now[2]!]: 1100, [periodIds(2028)[2]!]: 1100 }));
});
test('a line that says something else than its rows there goes on doing so', () => {
  const { lines, schedules } = carry([staffRow()], { lines: [line('wages', lastYear())] });
  expect([schedules.length, methodOf(lines, 'wages')]).toEqual([1, lastYear()]);
});
test('what is over, or works by a driver, stays behind by name', () => {
  const rows: ScheduleRow[] = [
    staffRow({ name: 'Left in spring', until: day('2026-04-30') }),
    staffRow({ name: 'Leaves later', until: day('2027-01-01') }),
    staffRow({
      name: 'By hours',
      pay: { per: 'hour', amount: minor(20_00), hours: { of: 'driver', driver: 'd1' } },
    }),
    assetRow({ name: 'Sold', sold: { day: day('2026-12-31'), price: minor(1), gain: null } }),
    loanRow({ name: 'Loan' }),
  ];
  const { schedules, left } = carry(rows);
  expect(schedules.map((r) => r.name)).toEqual(['Leaves later', 'Loan']);
  expect(left).toEqual([
    { name: 'Left in spring', because: 'over' },
    { name: 'By hours', because: 'driver' },
    { name: 'Sold', because: 'over' },
  ]);
});
test('a budget of the whole company has the rows of all segments; one of other segments names those that are not its own', () => {
  const north = staffRow({ name: 'North', split: [{ segment: 'n', percent: percent('100') }] });
  const lines = [
    line('wages', bySchedule({ [then[0]!]: 10 }), {}, 'n'),
    line('wages', bySchedule({ [then[0]!]: 20 }), {}, null),
  ];
  const whole = carry([north], { lines }, { otherAxis: 'x' });
  expect(whole.schedules).toMatchObject([{ split: [{ segment: null, percent: '100' }] }]);
  expect(methodOf(whole.lines, 'wages')).toEqual(bySchedule({ [now[0]!]: 33 }));
  expect(carry([north], { lines }, { otherAxis: 'x', axis: 'x', segments: ['s'] }).left).toEqual([
    { name: 'North', because: 'segment' },
  ]);
  expect(carry([north], { lines }, { otherAxis: 'x', axis: 'x', segments: ['n', 's'] }).schedules).toEqual([
    north,
  ]);
  // Of another way of dividing, only what belongs to nobody in particular.
  expect(carry([north], { lines }, { otherAxis: 'x', axis: 'y', segments: ['n', null] }).left).toHaveLength(
    1,
  );
  expect(carry([staffRow()], {}, { otherAxis: null, axis: 'y', segments: ['n', null] }).left).toEqual([]);
});
