import Decimal from 'decimal.js';
import fc from 'fast-check';
import type { Driver, Series } from '@/core/model';
import { isAmount, percent } from '@/core/money';
import { createReckoner } from '.';
import { account, driver, factsWith, line, of, periodIds } from '../test/build';

const ids = periodIds(2026);
const accounts = [account('s', 'income'), account('w', 'expense')];
const weights = [
  { id: 'summer', name: 'Summer', weights: [0, 0, 0, 1, 2, 3, 3, 2, 1, 0, 0, 0] },
  { id: 'none', name: 'None', weights: new Array<number>(12).fill(0) },
];
const facts = factsWith(accounts, {}, { weights });
const Exact = Decimal.clone({ precision: 200, rounding: Decimal.ROUND_HALF_UP });

const typed = (values: readonly (number | null)[]): Series => ({
  kind: 'typed',
  values: Object.fromEntries(values.flatMap((v, i) => (v === null ? [] : [[ids[i]!, v]]))),
});
const reckon = (...drivers: Driver[]) => createReckoner()({ lines: [], drivers }, facts).drivers;
const step = (
  change: Extract<Series, { kind: 'step' }>['change'],
  start = 1000,
  every = 1,
  first = 1,
): Series => ({
  kind: 'step',
  start,
  first: ids[first]!,
  every,
  change,
});

describe('a stepped driver', () => {
  test.each<[string, Series, number[]]>([
    ['by a number each month', step({ of: 'amount', amount: -50 }), [1000, 950, 900, 850]],
    ['each third month', step({ of: 'amount', amount: 10 }, 1000, 3), [1000, 1010, 1010, 1010, 1020]],
    ['from the first month on', step({ of: 'amount', amount: 10 }, 0, 12, 0), [10, 10, 10, 10]],
    [
      'by a percentage of the start',
      step({ of: 'percent', percent: percent('10'), compounding: false }),
      [1000, 1100, 1200, 1300],
    ],
    // 1.1² and 1.1³ of a thousand.
    [
      'by a percentage of what it has become',
      step({ of: 'percent', percent: percent('10'), compounding: true }),
      [1000, 1100, 1210, 1331],
    ],
  ])('%s', (_, series, expected) =>
    expect(reckon(driver('d', series)).get('d')!.values.slice(0, expected.length)).toEqual(expected),
  );
  test('compounding is exact before it is rounded once, beside decimal.js', () =>
    fc.assert(
      fc.property(fc.integer({ min: -1e6, max: 1e6 }), fc.integer({ min: -5000, max: 5000 }), (start, p) => {
        const text = (p / 100).toFixed(2);
        const { values } = reckon(
          driver('d', step({ of: 'percent', percent: percent(text), compounding: true }, start)),
        ).get('d')!;
        const factor = new Exact(text).div(100).plus(1);
        expect(values.map((v) => v! + 0)).toEqual(
          ids.map((_, i) => factor.pow(i).times(start).toDecimalPlaces(0).toNumber() + 0),
        );
      }),
    ));
});

describe('a seasonal driver', () => {
  test('months in proportion to their weights, about the average month', () => {
    const { values } = reckon(driver('d', { kind: 'seasonal', level: 100, weights: 'summer' })).get('d')!;
    expect(values).toEqual([0, 0, 0, 100, 200, 300, 300, 200, 100, 0, 0, 0]);
  });
  test('whatever the weights, a year is twelve times the average month, but for each month’s rounding', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 12, maxLength: 12 }),
        fc.integer({ min: 0, max: 1_000_000 }),
        (list, level) => {
          fc.pre(list.some((w) => w > 0));
          const f = factsWith(accounts, {}, { weights: [{ id: 'w', name: 'w', weights: list }] });
          const d = driver('d', { kind: 'seasonal', level, weights: 'w' });
          const { values } = createReckoner()({ lines: [], drivers: [d] }, f).drivers.get('d')!;
          const all = list.reduce((a, b) => a + b, 0);
          values.forEach((v, i) =>
            expect(v).toBe(
              new Exact(level)
                .times(list[i]! * 12)
                .div(all)
                .toDecimalPlaces(0)
                .toNumber(),
            ),
          );
          expect(Math.abs(values.reduce<number>((a, v) => a + v!, 0) - 12 * level)).toBeLessThanOrEqual(6);
        },
      ),
    ));
  test.each([['gone'], ['none']])('with weights that say nothing (%s) it is blank and says so', (id) => {
    const { values, issue } = reckon(driver('d', { kind: 'seasonal', level: 5, weights: id })).get('d')!;
    expect([values.every((v) => v === null), issue]).toEqual([true, 'weightsMissing']);
  });
});

describe('a driver by formula', () => {
  test.each<[string, string, string | null]>([
    ['names a line', '"account:s" * 2', 'badFormula'],
    ['cannot be read', '2 *', 'badFormula'],
    ['names a driver that is not there', '"driver:gone" + 1', 'driverMissing'],
    ['divides by nothing', '1 / ("driver:a" - "driver:a")', 'dividesByZero'],
    ['grows beyond what is exact', 'prior "driver:d" * 1000000', 'tooLarge'],
    ['is well', '"driver:a" * 2', null],
  ])('that %s', (_, formula, issue) => {
    const all = reckon(driver('a', typed([3])), driver('d', { kind: 'formula', formula }, 0, 7));
    expect(all.get('d')!.issue).toBe(issue);
    expect(all.get('a')!).toMatchObject({ values: [3, ...new Array<null>(11).fill(null)], issue: null });
  });
  test('is as fine as its own decimals, whatever those it follows have', () => {
    const all = reckon(
      driver('a', typed([12_345]), 3),
      driver('coarse', { kind: 'formula', formula: '"driver:a" / 2' }, 0),
      driver('fine', { kind: 'formula', formula: '"driver:a" / 2' }, 4),
    );
    // 12.345 ÷ 2 = 6.1725
    expect([all.get('coarse')!.values[0], all.get('fine')!.values[0]]).toEqual([6, 61_725]);
  });
  test('before its first month it is what is said of then; in later months its own', () => {
    const all = reckon(driver('d', { kind: 'formula', formula: 'prior "driver:d" + 1' }, 0, 41));
    expect(all.get('d')!.values).toEqual(ids.map((_, i) => 42 + i));
  });
});

test('drivers multiplied are the exact product, rounded once to the cent, beside decimal.js', () =>
  fc.assert(
    fc.property(
      fc.array(fc.record({ value: fc.integer({ min: -9999, max: 9999 }), decimals: fc.nat(4) }), {
        minLength: 1,
        maxLength: 4,
      }),
      (factors) => {
        const drivers = factors.map((f, i) => driver(`d${i}`, typed([f.value]), f.decimals));
        const s = line('s', { kind: 'driver', factors: drivers.map((d) => d.id), round: 0 });
        const product = factors.reduce(
          (a, f) => a.times(new Exact(f.value).div(new Exact(10).pow(f.decimals))),
          new Exact(100),
        );
        const exact = product.toDecimalPlaces(0).toNumber();
        const run = createReckoner()({ lines: [s], drivers }, facts);
        const { amounts, issue } = run.lines.get(of('s'))!;
        if (isAmount(exact)) expect([amounts[0]! + 0, issue]).toEqual([exact + 0, null]);
        else expect([amounts[0], issue]).toEqual([null, 'tooLarge']);
      },
    ),
  ));

test('a line whose driver is taken away is blank and says so, month by month', () => {
  const s = line('s', { kind: 'driver', factors: ['here', 'gone'], round: 0 });
  const run = createReckoner()({ lines: [s], drivers: [driver('here', typed([1, 2]))] }, facts);
  expect(run.lines.get(of('s'))).toMatchObject({ issue: 'driverMissing', total: null });
});
