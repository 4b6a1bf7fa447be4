import { minor, type NumberFormat } from '@/core/money';
import { numbersIn } from './numbers';

/* Amounts that two people would read differently are asked about, not picked. */

const DOT: NumberFormat = { decimal: '.', group: ',' };
const COMMA: NumberFormat = { decimal: ',', group: '.' };
const readings = (cells: (string | number)[], prefer = DOT, digits = 2, was: (number | null)[] = []) => {
  const { format, doubt } = numbersIn(cells, prefer, digits, (i) => (was[i] ?? null) as never);
  return [format.decimal, doubt && doubt.readings.map((r) => [r.format.decimal, r.amount])];
};

test.each<[string, (string | number)[], NumberFormat, unknown]>([
  [
    'one mark before three digits',
    ['1.200'],
    DOT,
    [
      '.',
      [
        ['.', 120],
        [',', 120_000],
      ],
    ],
  ],
  [
    'the same where commas are usual: the usual way comes first',
    ['1.200'],
    COMMA,
    [
      ',',
      [
        [',', 120_000],
        ['.', 120],
      ],
    ],
  ],
  [
    'a comma before three zeros',
    ['3,000', ''],
    DOT,
    [
      '.',
      [
        ['.', 300_000],
        [',', 300],
      ],
    ],
  ],
  ['a cent tells', ['1.200', '12.50'], COMMA, ['.', null]],
  ['so do thousands with decimals', ['1.200', '1.200,50'], DOT, [',', null]],
  ['three digits that are no cents can be thousands alone', ['1.234', '1.200'], DOT, [',', null]],
  ['whole numbers can be read one way', ['1200', '300'], DOT, ['.', null]],
  ['numbers of a workbook are what they are', [1.2, 1200], COMMA, [',', null]],
])('%s', (_, cells, prefer, expected) => expect(readings(cells, prefer)).toEqual(expected));

test('as many signs for one way as for the other are none', () =>
  expect(readings(['1,50', '2.50', '1.200'])).toEqual([
    '.',
    [
      ['.', 120],
      [',', 120_000],
    ],
  ]));
test('a currency with three decimals is in doubt about all of them', () =>
  expect(readings(['1.234'], DOT, 3)).toEqual([
    '.',
    [
      ['.', 1234],
      [',', 1_234_000],
    ],
  ]));
test('a cell that still holds what was handed out tells how it is written', () => {
  expect(readings(['1.200', '3.000'], DOT, 2, [null, 300_000])).toEqual([',', null]);
  expect(readings(['1.200', '3.000'], COMMA, 2, [120, null])).toEqual(['.', null]);
  expect(readings(['1.200', '3.000'], DOT, 2, [120, 300_000])[1]).not.toBeNull();
});
test('how many they are is said, with one of them', () =>
  expect(numbersIn(['7', '1.200', '3.000', 'x'], DOT, 2).doubt).toMatchObject({
    sample: '1.200',
    count: 2,
    readings: [{ amount: minor(120) }, { amount: minor(120_000) }],
  }));
