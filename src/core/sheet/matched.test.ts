import { account, calendar } from '../test/build';
import { fromTsv, matchBlock } from '.';

const accounts = [
  account('r', 'expense', 'Rent', '6000'),
  account('h', 'expense', 'Heat & light', '6100'),
  account('s', 'income', 'Sales', '4000'),
  account('x', 'expense', 'Other', '6900'),
  account('y', 'otherExpense', 'Other', '7900'),
];
const periods = Array.from({ length: 12 }, (_, i) => calendar.period(calendar.firstOfYear(2026) + i));
const match = (...lines: string[]) => matchBlock(fromTsv(lines.join('\n')), accounts, periods);
const cells = (m: ReturnType<typeof match>) => m?.cells.map((c) => [c.account, c.period, c.text]);

test.each<[string, string[], unknown]>([
  [
    'names and months',
    ['\tJan\tFeb', 'Rent\t1\t2', 'Sales\t3\t4'],
    [
      ['r', 0, '1'],
      ['r', 1, '2'],
      ['s', 0, '3'],
      ['s', 1, '4'],
    ],
  ],
  [
    'codes alone, in any order',
    ['Code\tFeb 2026', '4000\t5', '6000\t6'],
    [
      ['s', 1, '5'],
      ['r', 1, '6'],
    ],
  ],
  ['code and name in two columns', ['Code\tLine\tMar 2026', '6100\tHeat & light\t7'], [['h', 2, '7']]],
  ['code and name in one cell', ['Account\t2026-04', '6100 Heat and light\t7'], [['h', 3, '7']]],
  ['a name by its letters only', ['\tDec', 'heat  light\t7'], [['h', 11, '7']]],
  ['totals and blanks between', ['\tJan\tTotal', 'Costs\t\t', 'Rent\t1\t12'], [['r', 0, '1']]],
])('%s', (_name, lines, expected) => expect(cells(match(...lines))).toEqual(expected));

test('what no account or month is found for is listed', () => {
  const m = match(
    '\tJan\tSmarch\tFeb',
    'Rent\t1\t2\t3',
    'Ghosts\t4\t5\t6',
    'Other\t7\t8\t9',
    'Heading\t\t\t',
  );
  expect(m).toMatchObject({
    lines: 1,
    months: 2,
    unknownLines: ['Ghosts', 'Other'],
    unknownMonths: ['Smarch'],
  });
});
test.each<[string, string[]]>([
  ['plain figures', ['1\t2', '3\t4']],
  ['months without lines', ['Jan\tFeb', '1\t2']],
  ['lines without months', ['Rent\t1', 'Sales\t2']],
  ['months of another year only', ['\tJan 2031\tFeb 2031', 'Rent\t1\t2']],
  ['one row', ['\tJan\tFeb']],
])('%s are no such block', (_name, lines) => expect(match(...lines)).toBeNull());
