import fc from 'fast-check';
import Decimal from 'decimal.js';
import { arithmetic, readTyped } from '.';

const US = { decimal: '.', group: ',' } as const;
const DE = { decimal: ',', group: '.' } as const;

describe('a sum typed where an amount stands', () => {
  test.each<[string, number | string]>([
    ['52000/12', 433333],
    ['=1200*3+80', 368000],
    ['(4+5)×10', 9000],
    ['100-25', 7500],
    ['=5', 500],
    ['=-5', -500],
    ['-5+2', -300],
    ['1,250*4', 500000],
    ['0.005*1', 1],
    ['10%*50', 500],
    ['2*(3+4)-1', 1300],
    ['8:4', 200],
    ['=2*-3', -600],
    ['1/0', 'notANumber'],
    ['=', 'notANumber'],
    ['=2+', 'notANumber'],
    ['=(2', 'notANumber'],
    ['=two', 'notANumber'],
    ['99999999999*99999999999', 'tooLarge'],
  ])('%s', (text, expected) => {
    const read = arithmetic(text, 2, US);
    expect(read && (read.ok ? read.value : read.code)).toBe(expected);
  });
  test.each(['500', '-500', '(500)', '1,234.50', '500-', '', 'ten'])('%s is no sum', (text) =>
    expect(arithmetic(text, 2, US)).toBeNull(),
  );
  test('the locale’s own way of writing numbers, and a currency without cents', () => {
    expect(arithmetic('1.250,50*2', 2, DE)).toMatchObject({ value: 250100 });
    expect(arithmetic('1000/3', 0, US)).toMatchObject({ value: 333 });
  });
  test('an amount is read as it stands, and what is neither is said', () => {
    expect(readTyped('(500)', 2, US)).toEqual({ ok: true, value: -50000 });
    expect(readTyped('52000/12', 2, US)).toEqual({ ok: true, value: 433333, sum: true });
    expect(readTyped('ten', 2, US)).toMatchObject({ ok: false });
  });
});

/** Against decimal.js, whose arithmetic is not ours: sums of products of numbers with two decimals. */
test('sums come to what a reference library makes of them, rounded once', () => {
  const number = fc.integer({ min: 1, max: 99_999 }).map((n) => (n / 100).toFixed(2));
  const term = fc.tuple(number, fc.constantFrom('*', '/'), number);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom('+', '-'), term), { minLength: 1, maxLength: 5 }),
      (terms) => {
        const text = `=0${terms.map(([sign, [a, op, b]]) => `${sign}${a}${op}${b}`).join('')}`;
        const exact = terms.reduce((t, [sign, [a, op, b]]) => {
          const v = op === '*' ? new Decimal(a).times(b) : new Decimal(a).div(b);
          return sign === '+' ? t.plus(v) : t.minus(v);
        }, new Decimal(0));
        const cents = exact.times(100).toDecimalPlaces(0, Decimal.ROUND_HALF_UP).toNumber();
        expect(arithmetic(text, 2, US)).toMatchObject({ ok: true, value: cents === 0 ? 0 : cents });
      },
    ),
  );
});
