import { account, blockOf } from '../test/build';
import { entriesHere } from './here';

const accounts = [account('a', 'income'), account('b', 'expense'), account('old', 'expense')];
const book = blockOf(accounts, [
  ['2026-01-05', 'a', 10],
  ['2026-01-05', 'a', 10],
  ['2026-01-06', 'b', 4],
  ['2026-01-07', 'old', 3],
]);
/** A file whose first account is the book's `a`, its second the book's `b`, its third new. */
const here = (entries: Parameters<typeof blockOf>[1], blocks = [book]) =>
  entriesHere(blockOf(accounts, entries), ['a', 'b', null], blocks, (id) => (id === 'old' ? 'b' : id));

test.each<[string, Parameters<typeof blockOf>[1], number]>([
  [
    'the same entries',
    [
      ['2026-01-05', 'a', 10],
      ['2026-01-06', 'b', 4],
    ],
    2,
  ],
  [
    'each of ours counts once',
    [
      ['2026-01-05', 'a', 10],
      ['2026-01-05', 'a', 10],
      ['2026-01-05', 'a', 10],
    ],
    2,
  ],
  [
    'another day, amount, side or account is another entry',
    [
      ['2026-01-06', 'a', 10],
      ['2026-01-05', 'a', 11],
      ['2026-01-05', 'a', -10],
      ['2026-01-05', 'b', -10],
    ],
    0,
  ],
  ['what was merged is where it is now', [['2026-01-07', 'b', 3]], 1],
  ['of an account that the book has not there is none', [['2026-01-07', 'old', 3]], 0],
])('%s', (_, entries, expected) => expect(here(entries)).toBe(expected));

test('several sources count together', () =>
  expect(
    here(
      [
        ['2026-01-06', 'b', 4],
        ['2026-01-06', 'b', 4],
      ],
      [book, book],
    ),
  ).toBe(2));
