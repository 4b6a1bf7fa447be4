import { periodsOf } from '@/core/calendar';
import type { Driver, Line } from '@/core/model';
import { budgetOf, calendar, line, months, periodIds } from '@/core/test/build';
import { carriedDrivers } from './startDrivers';

const base = { unit: '', decimals: 0, note: '' };
const typed = (id: string, values: readonly (number | null)[], opening: number | null = null): Driver => ({
  id,
  name: id,
  ...base,
  opening,
  series: {
    kind: 'typed',
    values: Object.fromEntries(values.flatMap((v, i) => (v === undefined ? [] : [[periodIds(2025)[i]!, v]]))),
  },
});
const step: Driver = {
  id: 'price',
  name: 'Price',
  ...base,
  opening: null,
  series: {
    kind: 'step',
    start: 100,
    first: periodIds(2025)[0]!,
    every: 12,
    change: { of: 'amount', amount: 5 },
  },
};
const driverLine = (account: string, factors: string[]): Line =>
  line(account, { kind: 'driver', factors, round: 0 });
const carry = (
  drivers: readonly Driver[],
  lines: readonly Line[],
  own: readonly Line[],
  { years = 1, last = 2026 } = {},
) =>
  carriedDrivers({ ...budgetOf([...lines]), drivers: [...drivers] }, own, {
    calendar,
    periods: periodsOf(calendar, { first: months(2026).first, last: months(last).last }),
    years,
    valueOf: (id, period) => (id === 'berths' && period === months(2025).last ? 77 : null),
  });
const values = (d: Driver) => (d.series.kind === 'typed' ? d.series.values : null);

test('typed months are those of the months a year later; further years follow the first', () => {
  const { drivers } = carry([typed('berths', [10, null, 12])], [], [], { last: 2027 });
  const [next, after] = [periodIds(2026), periodIds(2027)];
  expect(values(drivers[0]!)).toEqual({
    [next[0]!]: 10,
    [next[1]!]: null,
    [next[2]!]: 12,
    [after[0]!]: 10,
    [after[1]!]: null,
    [after[2]!]: 12,
  });
});

test('of a budget two years back, its months are two years later', () => {
  const { drivers } = carry([typed('berths', [10])], [], [], { years: 2 });
  expect(values(drivers[0]!)).toEqual({});
});

test('what steps goes on from where it began; before the first month stands what the other planned, else what it said', () => {
  const { drivers } = carry([step, typed('berths', [1]), typed('hours', [1], 5)], [], []);
  expect(drivers[0]!.series).toEqual(step.series);
  expect(drivers.map((d) => d.opening)).toEqual([null, 77, 5]);
});

test('lines that followed its drivers follow them here; others, and what the new one has not, stay as they start', () => {
  const formula = (text: string): Line['method'] => ({ kind: 'formula', formula: text, round: 0 });
  const was = [
    driverLine('fees', ['berths', 'price']),
    driverLine('gone', ['berths', 'nowhere']),
    line('mix', formula('"driver:berths" * 2')),
    line('plain', formula('"account:fees" * 2')),
    driverLine('absent', ['berths']),
  ];
  const own = ['fees', 'gone', 'mix', 'plain'].map((a) =>
    line(a, { kind: 'unphased', amounts: {} } as Line['method']),
  );
  const { lines, follow } = carry([typed('berths', [1]), step], was, own);
  expect(lines.map((l) => l.method.kind)).toEqual(['driver', 'unphased', 'formula', 'unphased']);
  expect(lines[0]!.method).toEqual(was[0]!.method);
  expect(follow).toBe(2);
});
