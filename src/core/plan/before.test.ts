import { minor, sumBlank } from '@/core/money';
import { balancesOf } from '@/core/ledger';
import type { Method } from '@/core/model';
import { account, blockOf, calendar, factsOver, lastYear, of, phased, planOf } from '../test/build';
import {
  createReckoner,
  explainMonth,
  monthsMissing,
  startLines,
  thisYearSoFar,
  threePaydays,
  type StartChoice,
} from '.';

/*
 * A ledger of 2024 and of 2025 to October; October is not closed. Sales are 100 × the month in 2024 and ten times that in
 * 2025; insurance is paid in November alone.
 */
const accounts = [account('s', 'income'), account('i', 'expense', 'Insurance'), account('z', 'expense')];
const entries = [
  ...Array.from(
    { length: 12 },
    (_, i) => [`2024-${String(i + 1).padStart(2, '0')}-15`, 's', 100 * (i + 1)] as const,
  ),
  ['2024-11-20', 'i', 900] as const,
  ...Array.from(
    { length: 10 },
    (_, i) => [`2025-${String(i + 1).padStart(2, '0')}-15`, 's', 1000 * (i + 1)] as const,
  ),
];
const first = calendar.firstOfYear(2025);
const facts = (length = 12) =>
  factsOver(accounts, balancesOf([blockOf(accounts, entries)], calendar), length, {
    closedThrough: first + 8,
  });
const choice: StartChoice = {
  from: 'sameMonth',
  other: null,
  uplift: '0' as StartChoice['uplift'],
  upliftByKind: {},
  round: 0,
  rest: null,
};
const started = (change: Partial<StartChoice>, length = 12) => {
  const f = facts(length);
  const lines = startLines({ ...choice, ...change }, accounts, f);
  const run = createReckoner()(planOf(...lines), f);
  return (id: string) => run.lines.get(of(id))!.amounts;
};

test('the months without actuals are those not closed, too', () =>
  expect(monthsMissing(facts())).toEqual([first + 9, first + 10, first + 11]));

describe('a start before the year is over', () => {
  test('fills what is not there with the same months of the year before that', () => {
    const of = started({ rest: 'yearEarlier' });
    expect(of('s')).toEqual([1000, 2000, 3000, 4000, 5000, 6000, 7000, 8000, 9000, 1000, 1100, 1200]);
    // What falls in a missing month alone is no silent account.
    expect(of('i')[10]).toBe(900);
    expect(of('z').every((a) => a === null)).toBe(true);
  });
  test('or with the average month', () =>
    expect(started({ rest: 'average' })('s').slice(8)).toEqual([9000, 5000, 5000, 5000]));
  test('or leaves them as the ledger has them, when it was told so', () =>
    expect(started({ rest: null })('s').slice(8)).toEqual([9000, 10_000, null, null]));
  test('its total spread evenly is that of a whole year', () => {
    const whole = 45_000 + 1000 + 1100 + 1200;
    expect(sumBlank(started({ from: 'yearOverTwelve', rest: 'yearEarlier' })('s'))).toBe(whole);
    expect(sumBlank(started({ from: 'yearOverTwelve', rest: 'average' })('s'))).toBe(60_000);
  });
  test('a second year follows the first, filled as well', () =>
    expect(started({ rest: 'yearEarlier' }, 24)('s').slice(20)).toEqual([9000, 1000, 1100, 1200]));
  test('a budget begun in mid-year has its second year’s months filled where they lie before it', () => {
    // From July 2026: its second fiscal year asks for January to June 2026, of which nothing is there.
    const f = { ...facts(), ...factsFrom(18) };
    const lines = startLines({ ...choice, rest: 'yearEarlier' }, accounts, f);
    const { amounts } = createReckoner()(planOf(...lines), f).lines.get(of('s'))!;
    expect(amounts).not.toContain(null);
    expect(amounts.slice(6, 12)).toEqual([1000, 2000, 3000, 4000, 5000, 6000]);
  });
  test('this year so far is its average month, and the last month carried on is the last closed one', () => {
    expect(started({ from: 'thisYear' })('s')).toEqual(new Array(12).fill(5000));
    expect(started({ from: 'lastMonth' })('s')).toEqual(new Array(12).fill(9000));
    expect(thisYearSoFar(facts())).toMatchObject({ first: { index: first }, last: { index: first + 8 } });
  });
  test('the base window ends with the last month that has actuals', () =>
    expect(facts().window.map((p) => p.index)).toEqual(Array.from({ length: 9 }, (_, i) => first + i)));
});

const factsFrom = (length: number) => {
  const start = calendar.firstOfYear(2026) + 6;
  return factsOver(accounts, balancesOf([blockOf(accounts, entries)], calendar), length, {
    closedThrough: first + 8,
    periods: Array.from({ length }, (_, i) => calendar.period(start + i)),
  });
};

test.each<[string, Method]>([
  ['last year', lastYear({ rest: 'average' })],
  ['phased', phased(null, { rest: 'average' })],
])('%s says where a filled month comes from', (_, method) => {
  const f = facts();
  const line = { ...startLines(choice, accounts, f)[0]!, method };
  const run = createReckoner()(planOf(line), f);
  const steps = explainMonth(line, run.lines.get(of('s'))!, run, 11);
  expect(steps[0]).toMatchObject(
    method.kind === 'lastYear'
      ? { step: 'average', months: 9, value: 5000 }
      : { step: 'whole', value: 60_000 },
  );
  expect(steps.at(-1)).toEqual({ step: 'result', value: 5000 });
});

/*
 * Pay every other Friday falls three times in two months of most years: from 3 January 2025, in January and August 2025
 * (common practice of payroll; any calendar shows it).
 */
describe('months with three paydays', () => {
  const year = Array.from({ length: 12 }, (_, i) => calendar.period(first + i));
  const pay = (high: readonly number[], at = 300) => year.map((_, i) => minor(high.includes(i) ? at : 200));
  const found = (values: ReturnType<typeof pay>) => [...threePaydays(year, values, minor(200))];
  test('are known by a fortnight that explains all of them', () =>
    expect(found(pay([0, 7]))).toEqual([0, 7]));
  test('two that no fortnight explains are none', () => expect(found(pay([0, 1]))).toEqual([]));
  test('one that is double is none', () => expect(found(pay([0, 7], 400))).toEqual([]));
  test('a single one is none, where the fortnight has another', () => expect(found(pay([5]))).toEqual([]));
});
