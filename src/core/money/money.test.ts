import { allocate, dinero, toSnapshot } from 'dinero.js';
import * as currencies from 'dinero.js/currencies';
import Decimal from 'decimal.js';
import fc from 'fast-check';
import {
  add,
  amountOfNumber,
  compounded,
  isAmount,
  isTooLarge,
  MOST_AMOUNT,
  negate,
  sumBlank,
  TOO_LARGE,
  divideRounded,
  formatAmount,
  minor,
  minorDigits,
  parseAmount,
  parsePercent,
  percent,
  percentOf,
  plainDecimal,
  roundParts,
  roundTo,
  splitByWeights,
  splitEven,
  splitLike,
  sum,
  uplift,
  UnsafeMoneyError,
  editText,
  readTyped,
  typedDigits,
  type Minor,
  type NumberFormat,
} from '.';

const US: NumberFormat = { decimal: '.', group: ',' };
const DE: NumberFormat = { decimal: ',', group: '.' };
const amount = fc.integer({ min: -1e11, max: 1e11 }).map(minor);

describe('minor units', () => {
  test('a fraction is refused; what is beyond exact whole numbers is a value of its own', () => {
    for (const bad of [0.5, -1e-9]) expect(() => minor(bad)).toThrow(UnsafeMoneyError);
    for (const large of [2 ** 53, -(2 ** 60), NaN, Infinity]) expect(minor(large)).toBe(TOO_LARGE);
    expect([MOST_AMOUNT, -MOST_AMOUNT, MOST_AMOUNT + 1, 0.5, NaN].map(isAmount)).toEqual([
      true,
      true,
      false,
      false,
      false,
    ]);
  });
  test('minus zero becomes zero', () => expect(Object.is(minor(-0), 0)).toBe(true));
  test('a sum that was beyond is too large rather than rounded, also when it comes back', () => {
    const most = minor(Number.MAX_SAFE_INTEGER);
    expect(sum([most, minor(1)])).toBe(TOO_LARGE);
    expect(sum([most, minor(1), negate(most)])).toBe(TOO_LARGE);
    expect(sumBlank([null, most, minor(1)])).toBe(TOO_LARGE);
    expect(sum([minor(-1), most, minor(1)])).toBe(most);
  });
  test('whatever is reckoned with what is too large is too large, and says so in words', () => {
    for (const made of [
      add(TOO_LARGE, minor(1)),
      negate(TOO_LARGE),
      divideRounded(TOO_LARGE, 1, 3, 'floor'),
      percentOf(TOO_LARGE, percent('5')),
      uplift(TOO_LARGE, percent('5')),
      roundTo(TOO_LARGE, 100),
      ...splitEven(TOO_LARGE, 3),
      ...splitLike(TOO_LARGE, [1, -3, 4])!,
      ...splitLike(minor(5), [1, NaN])!,
      ...roundParts([TOO_LARGE, minor(1)], 10),
    ])
      expect(made).toBe(TOO_LARGE);
    expect(formatAmount(TOO_LARGE, 'USD', 'en-US', { cents: true, negatives: 'minus' })).toBe('too large');
    expect([editText(TOO_LARGE, 'USD', 'en-US'), plainDecimal(TOO_LARGE, 'USD')]).toEqual(['', 'too large']);
  });
});

describe('currency digits, against the runtime’s CLDR data (a table that is not ours)', () => {
  test.each(['USD', 'EUR', 'JPY', 'KRW', 'KWD', 'BHD', 'TND', 'CLP', 'VND', 'XOF'])('%s', (code) => {
    expect(minorDigits(code)).toBe(
      new Intl.NumberFormat('en', { style: 'currency', currency: code }).resolvedOptions()
        .maximumFractionDigits,
    );
  });
  test('currencies in dinero.js’s ISO 4217 list agree', () => {
    // dinero.js ships the exponents of ISO 4217 with its currency objects.
    for (const [name, c] of Object.entries(currencies)) {
      if (!/^[A-Z]{3}$/.test(name) || typeof c !== 'object' || !c || !('exponent' in c)) continue;
      const { code, exponent } = c as { code: string; exponent: number };
      if (['CLF', 'UYW', 'MGA', 'MRU'].includes(code)) continue;
      expect([code, minorDigits(code)]).toEqual([code, exponent]);
    }
  });
});

describe('percent and rounding', () => {
  test.each([
    ['1.005 percent of 10000 is 100.5, away from zero', 10000, '1.005', 101],
    ['minus 1.005 percent', 10000, '-1.005', -101],
    ['a third of a percent', 999, '0.333333', 3],
    ['zero percent', 12345, '0', 0],
  ])('%s', (_n, base, p, expected) => expect(percentOf(minor(base), percent(p))).toBe(expected));

  test('uplift rounds once: 4 % on 14772.85 is 15363.76', () =>
    expect(uplift(minor(1477285), percent('4'))).toBe(1536376));

  test.each([
    ['4', '4'],
    ['+4,50 %', '4.5'],
    ['-2.5%', '-2.5'],
    ['(3)', '-3'],
    ['−1', '-1'],
    ['0.0', '0'],
    ['-0', '0'],
    ['', null],
    ['x', null],
    ['1.2.3', null],
  ])('reads the percentage %j', (text, expected) => expect(parsePercent(text)).toBe(expected));

  test('quotients against decimal.js, half away from zero', () => {
    fc.assert(
      fc.property(
        amount,
        fc.integer({ min: -1e6, max: 1e6 }),
        fc.integer({ min: 1, max: 1e6 }),
        (a, n, d) => {
          const reference = new Decimal(a).times(n).div(d).toDecimalPlaces(0, Decimal.ROUND_HALF_UP);
          fc.pre(reference.abs().lt(Number.MAX_SAFE_INTEGER));
          expect(divideRounded(a, n, d, 'halfAwayFromZero')).toBe(reference.toNumber() || 0);
        },
      ),
    );
  });
  test('half to even against decimal.js', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e6, max: 1e6 }), fc.constantFrom(2, 4, 10, 20), (a, d) =>
        expect(divideRounded(a, 1, d, 'halfEven')).toBe(
          new Decimal(a).div(d).toDecimalPlaces(0, Decimal.ROUND_HALF_EVEN).toNumber() || 0,
        ),
      ),
    );
  });
  test('rounding to a unit', () => {
    expect(roundTo(minor(1250), 100)).toBe(1300);
    expect(roundTo(minor(-1250), 100)).toBe(-1300);
    expect(roundTo(minor(1249), 100)).toBe(1200);
  });
});

describe('splits', () => {
  test('even split leaves the leftover with the earliest', () =>
    expect(splitEven(minor(100), 3)).toEqual([34, 33, 33]));
  test('a negative split mirrors the positive one', () =>
    expect(splitEven(minor(-100), 3)).toEqual([-34, -33, -33]));
  test('largest remainder, not first come', () =>
    expect(splitByWeights(minor(10), [1, 1, 4])).toEqual([2, 2, 6]));
  test('weights of nothing are refused', () =>
    expect(() => splitByWeights(minor(1), [0, 0])).toThrow(RangeError));
  test('a shape that cancels out gives null', () => expect(splitLike(minor(100), [50, -50])).toBeNull());
  test('a shape with a month of refunds keeps it negative', () => {
    expect(splitLike(minor(1000), [600, -100, 500])).toEqual([600, -100, 500]);
  });

  // dinero.js's allocate gives what is left over to the first parts in turn, not by largest remainder; for equal
  // weights the two rules are one and the same.
  test('even splits against dinero.js allocate', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e9 }), fc.integer({ min: 1, max: 24 }), (total, n) => {
        const d = dinero({ amount: total, currency: currencies.USD });
        const reference = allocate(d, new Array(n).fill(1)).map((p) => toSnapshot(p).amount);
        expect(splitEven(minor(total), n)).toEqual(reference);
      }),
    );
  });

  test('each part is within one unit of the exact fraction, and parts add up (exact fractions by decimal.js)', () => {
    fc.assert(
      fc.property(
        amount,
        fc.array(fc.integer({ min: 0, max: 1e9 }), { minLength: 1, maxLength: 24 }),
        (total, weights) => {
          fc.pre(weights.some((w) => w > 0));
          const parts = splitByWeights(total, weights);
          expect(sum(parts)).toBe(total);
          const all = weights.reduce((a, w) => a + w, 0);
          parts.forEach((p, i) =>
            expect(new Decimal(total).times(weights[i]!).div(all).minus(p).abs().lt(1)).toBe(true),
          );
        },
      ),
    );
  });
  test('a shape with negatives adds up too', () => {
    fc.assert(
      fc.property(
        amount,
        fc.array(fc.integer({ min: -1e7, max: 1e7 }), { minLength: 1, maxLength: 12 }),
        (total, shape) => {
          // A shape that nearly cancels out would need parts beyond all money: those are refused, not made up.
          const all = shape.reduce((a, b) => a + b, 0);
          fc.pre(all === 0 || shape.every((w) => Math.abs((total * w) / all) < Number.MAX_SAFE_INTEGER / 16));
          const parts = splitLike(total, shape);
          if (parts) expect(sum(parts)).toBe(total);
          else expect(all).toBe(0);
        },
      ),
    );
  });
  test('a shape that nearly cancels out gives parts that are too large rather than rounded', () =>
    expect(splitLike(minor(900720466), [9999994, -9999982, -11])!.some(isTooLarge)).toBe(true));
  test('rounded parts add up to the rounded total and stay within one unit', () => {
    fc.assert(
      fc.property(
        fc.array(amount, { minLength: 1, maxLength: 12 }),
        fc.constantFrom(1, 100, 1000, 10000),
        (parts, unit) => {
          const rounded = roundParts(parts, unit);
          expect(sum(rounded)).toBe(roundTo(sum(parts), unit));
          rounded.forEach((r, i) => {
            expect(r % unit === 0).toBe(true);
            expect(Math.abs(r - parts[i]!)).toBeLessThanOrEqual(unit);
          });
        },
      ),
    );
  });
});

describe('reading amounts', () => {
  test.each<[string, NumberFormat, number, number | null | string]>([
    ['1,234.56', US, 2, 123456],
    ['1.234,56', DE, 2, 123456],
    ['1 234,56', DE, 2, 123456],
    ["1'234.50", US, 2, 123450],
    ['(1,234.56)', US, 2, -123456],
    ['$(12.00)', US, 2, -1200],
    ['1,234-', US, 2, -123400],
    ['−45.10', US, 2, -4510],
    ['$1,000', US, 2, 100000],
    ['-$5', US, 2, -500],
    ['USD 12.5', US, 2, 1250],
    ['12.50 EUR', US, 2, 1250],
    ['1,234.56 CR', US, 2, -123456],
    ['1,234.56DR', US, 2, 123456],
    ['–', US, 2, 0],
    ['-', US, 2, 0],
    ['', US, 2, null],
    ['   ', US, 2, null],
    ['12,34,567.50', US, 2, 123456750],
    ['.5', US, 2, 50],
    ['10.500', US, 2, 1050],
    ['10.505', US, 2, 'tooManyDecimals'],
    ['12x0', US, 2, 'notANumber'],
    ['1,23.4', US, 2, 'notANumber'],
    ['1.2.3', US, 2, 'notANumber'],
    ['¥12,000', US, 0, 12000],
    ['12.5', US, 0, 'tooManyDecimals'],
    ['1.234', US, 3, 1234],
    ['99999999999999999', US, 2, 'tooLarge'],
    ['#REF!', US, 2, 'notANumber'],
  ])('%j', (text, format, digits, expected) => {
    const read = parseAmount(text, digits, format);
    expect(read.ok ? read.value : read.code).toBe(expected);
  });
  test('what is written for editing is read back', () => {
    fc.assert(
      fc.property(
        amount,
        fc.constantFrom(
          ['USD', 'en-US'],
          ['EUR', 'de-DE'],
          ['JPY', 'ja-JP'],
          ['KWD', 'en-US'],
          ['SEK', 'fr-FR'],
        ),
        (a, [currency, locale]) => {
          const format = locale === 'en-US' || locale === 'ja-JP' ? US : DE;
          const read = parseAmount(editText(a, currency!, locale!), minorDigits(currency!), format);
          // In thousands it is three digits finer, and the same amount.
          const thousands = readTyped(
            editText(a, currency!, locale!, true),
            typedDigits(currency!, true),
            format,
          );
          expect(thousands).toEqual(read);
          expect(read.ok && read.value).toBe(a);
        },
      ),
    );
  });
  test.each([
    [0.1 + 0.2, 2, 30],
    [1234.5, 2, 123450],
    [-7, 2, -700],
    [1e10, 0, 1e10],
    [0.005, 2, 'tooManyDecimals'],
    [NaN, 2, 'notANumber'],
  ])('a spreadsheet’s number %d with %d digits', (n, digits, expected) => {
    const read = amountOfNumber(n, digits);
    expect(read.ok ? read.value : read.code).toBe(expected);
  });
});

describe('showing amounts', () => {
  const style = { cents: false, negatives: 'parentheses' } as const;
  test.each<[number | null, string, string, object, string]>([
    [123456, 'USD', 'en-US', style, '1,235'],
    [-123456, 'USD', 'en-US', style, '(1,235)'],
    [-123456, 'USD', 'en-US', { ...style, negatives: 'minus', cents: true }, '−1,234.56'],
    [0, 'USD', 'en-US', style, '–'],
    [30, 'USD', 'en-US', style, '0'],
    [null, 'USD', 'en-US', style, ''],
    [123456, 'EUR', 'de-DE', { ...style, cents: true }, '1.234,56'],
    [1234567, 'JPY', 'ja-JP', { ...style, cents: true }, '1,234,567'],
    [1234567, 'KWD', 'en-US', { ...style, cents: true }, '1,234.567'],
    [123_456_00, 'USD', 'en-US', { ...style, thousands: true }, '123.5'],
    [-1_234_550_00, 'USD', 'de-DE', { ...style, thousands: true, cents: true }, '(1.234,6)'],
    [-39_999, 'USD', 'en-US', { ...style, thousands: true }, '(0.4)'],
    [-4_999, 'USD', 'en-US', { ...style, thousands: true }, '0.0'],
    [5_000, 'USD', 'en-US', { ...style, thousands: true }, '0.1'],
    [0, 'USD', 'en-US', { ...style, thousands: true }, '–'],
    [99_950, 'JPY', 'ja-JP', { ...style, thousands: true }, '100.0'],
    [99_949_999, 'KWD', 'en-US', { ...style, thousands: true }, '99.9'],
  ])('%s %s %s', (a, currency, locale, s, expected) =>
    expect(formatAmount(a as Minor | null, currency, locale, s as typeof style)).toBe(expected),
  );
  test.each(['en-US', 'de-DE', 'en-GB', 'de-CH', 'ja-JP'])(
    'grouping agrees with the runtime in %s',
    (locale) => {
      const ours = formatAmount(minor(123456789), 'USD', locale, { cents: true, negatives: 'minus' });
      const theirs = new Intl.NumberFormat(locale, { minimumFractionDigits: 2 })
        .format(1234567.89)
        .replace('’', "'");
      expect(ours).toBe(theirs);
    },
  );
  test('plain decimals for files', () => {
    expect(plainDecimal(minor(5), 'USD')).toBe('0.05');
    expect(plainDecimal(minor(-123), 'JPY')).toBe('-123');
  });
});

describe('compound growth, against decimal.js at 200 digits', () => {
  const Long = Decimal.clone({ precision: 200 });
  test('is start × (1 + p)^n, rounded once', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.integer({ min: -30000, max: 30000 }),
        fc.nat(120),
        (start, thousandths, times) => {
          const theirs = new Long(1).plus(new Long(thousandths).div(100_000)).pow(times).times(start);
          const exact = theirs.toDecimalPlaces(0, Decimal.ROUND_HALF_UP);
          const ours = compounded(start, percent(thousandths / 1000), times);
          if (exact.abs().lte(Number.MAX_SAFE_INTEGER)) expect(ours + 0).toBe(exact.toNumber() + 0);
          else expect(ours).toBe(TOO_LARGE);
        },
      ),
    ));
  test('over three centuries of months it is there at once, or too large', () => {
    expect(compounded(100, percent('999999999'), 3600)).toBe(TOO_LARGE);
    expect(compounded(100, percent('-99.999999'), 3600)).toBe(0);
    expect(compounded(1_000_000, percent('0.000001'), 3600)).toBe(1_000_036);
  });
});

test.each([
  [500_000, '5'],
  [523_456, '5.23456'],
  [1, '0.00001'],
  [-50_000, '-0.5'],
  [123_000_000, '1230'],
  [0, '0'],
])('%d cents are typed in thousands as %s', (cents, text) => {
  expect(editText(minor(cents), 'USD', 'en-US', true)).toBe(text);
  expect(readTyped(text, typedDigits('USD', true), { decimal: '.', group: ',' })).toMatchObject({
    value: cents,
  });
});
test('a sum in thousands is one of thousands', () =>
  expect(readTyped('52/12', typedDigits('USD', true), { decimal: '.', group: ',' })).toMatchObject({
    value: 433_333,
  }));
