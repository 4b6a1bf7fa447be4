import { gridOf } from '@/core/files';
import { calendar } from '@/core/test/build';
import { readQuantities } from '.';

const context = {
  calendar: { kind: 'months', firstMonth: 1 } as const,
  year: 2026,
  numbers: { decimal: '.', group: ',' } as const,
  dates: 'mdy' as const,
};
const known = [{ name: 'Members', unit: 'members', decimals: 0 }];
const read = (rows: (string | number)[][]) =>
  readQuantities(gridOf(null, rows), calendar, known, context as never);

test('names down and months across; a blank says nothing, a zero says zero', () => {
  const { quantities, issues, blanks } = read([
    ['Counts of the year'],
    ['', 'Jan 2026', 'Feb 2026', 'Mar 2026'],
    ['members', '1,251', '', '0'],
    ['Hours', '12.5', '13', '14.25'],
  ]);
  expect(issues).toEqual([]);
  expect(blanks).toBe(1);
  expect(quantities).toEqual([
    { name: 'Members', unit: 'members', decimals: 0, values: { '2026-01': 1251, '2026-03': 0 } },
    { name: 'Hours', unit: '', decimals: 2, values: { '2026-01': 1250, '2026-02': 1300, '2026-03': 1425 } },
  ]);
});

test('a row for each count, by date or month; several of a month add up', () => {
  const { quantities } = read([
    ['Driver', 'Date', 'Count'],
    ['Members', '01/31/2026', 5],
    ['Members', '01/10/2026', 7],
    ['Members', 'Feb 2026', 9],
  ]);
  expect(quantities).toEqual([
    { name: 'Members', unit: 'members', decimals: 0, values: { '2026-01': 12, '2026-02': 9 } },
  ]);
});

test('what cannot be read is named by its row and column, and the rest is read', () => {
  const { quantities, issues } = read([
    ['', 'Jan 2026', 'Feb 2026'],
    ['Members', 'many', '10'],
    ['', '1', '2'],
    ['Members', '', '12.5'],
  ]);
  expect(issues).toEqual([
    { row: 2, column: 2, value: 'many', code: 'noNumber' },
    { row: 3, column: 1, value: '', code: 'noName' },
    { row: 4, column: 3, value: '12.5', code: 'noNumber' },
  ]);
  expect(quantities[0]!.values).toEqual({ '2026-02': 10 });
});

test('a table of something else has no counts', () =>
  expect(
    read([
      ['a', 'b', 'c'],
      ['d', 'e', 'f'],
    ]).quantities,
  ).toEqual([]));
