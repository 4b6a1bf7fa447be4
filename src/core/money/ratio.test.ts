import Decimal from 'decimal.js';
import fc from 'fast-check';
import {
  addRatio,
  compareRatio,
  divideRatio,
  multiplyRatio,
  negateRatio,
  percent,
  ratio,
  ratioOfPercent,
  ratioOfText,
  roundRatio,
  type Ratio,
} from '.';

/* Beside decimal.js at 200 digits, which keeps every sum and product here exactly. */
const Exact = Decimal.clone({ precision: 200, toExpNeg: -100, toExpPos: 200 });
const decimal = (r: Ratio) => new Exact(String(r.n)).div(String(r.d));
const any = fc
  .tuple(fc.maxSafeInteger(), fc.integer({ min: 1, max: 1e12 }))
  .map(([n, d]): Ratio => ratio(n, d));
const close = (a: Ratio, b: Decimal) => expect(decimal(a).minus(b).abs().lt('1e-150')).toBe(true);

describe('exact fractions', () => {
  test.each<[string, Ratio, number]>([
    ['a half goes away from zero', ratio(5, 10), 1],
    ['a negative half too', ratio(-5, 10), -1],
    ['1.005 × 100 is 101, not 100', multiplyRatio(ratioOfText('1.005')!, ratio(100)), 101],
    ['just below a half', ratio(499_999, 1_000_000), 0],
    ['4.5 percent of 1,000', multiplyRatio(ratioOfPercent(percent('4.5')), ratio(1000)), 45],
    ['nothing', ratio(0, 7), 0],
  ])('%s', (_name, r, expected) => expect(Object.is(roundRatio(r), expected)).toBe(true));

  test.each(['', '.', 'x', '1e3', '-1', '1.2.3'])('%p is no number', (text) =>
    expect(ratioOfText(text)).toBeNull(),
  );
  test('a zero denominator is a mistake, and division by zero has no answer', () => {
    expect(() => ratio(1, 0)).toThrow(RangeError);
    expect(divideRatio(ratio(1), ratio(0))).toBeNull();
  });
  test('sum, product, quotient and order agree with decimal.js', () => {
    fc.assert(
      fc.property(any, any, any, (a, b, c) => {
        const [x, y, z] = [decimal(a), decimal(b), decimal(c)];
        close(addRatio(multiplyRatio(a, b), negateRatio(c)), x.times(y).minus(z));
        const q = divideRatio(a, b);
        if (q) close(q, x.div(y));
        expect(compareRatio(a, b)).toBe(x.comparedTo(y));
      }),
    );
  });
  test('rounding agrees with decimal.js, half away from zero', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e14, max: 1e14 }), fc.integer({ min: 1, max: 1e6 }), (n, d) => {
        const expected = new Exact(n).div(d).toDecimalPlaces(0, Decimal.ROUND_HALF_UP).toNumber();
        expect(roundRatio(ratio(n, d))).toBe(expected === 0 ? 0 : expected);
      }),
    );
  });
});
