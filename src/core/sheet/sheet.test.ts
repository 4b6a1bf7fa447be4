import Papa from 'papaparse';
import fc from 'fast-check';
import {
  at,
  fillRight,
  fromTsv,
  inRect,
  layOver,
  moved,
  rectOf,
  select,
  toTsv,
  type Bounds,
  type Move,
} from '.';

/** Rows 0, 3 and 4 are headings. */
const bounds: Bounds = { rows: 8, columns: 5, enterable: (r) => ![0, 3, 4].includes(r) };

test.each<[Move, [number, number], [number, number]]>([
  ['down', [2, 1], [5, 1]],
  ['up', [5, 1], [2, 1]],
  ['up', [1, 1], [1, 1]],
  ['left', [1, 0], [1, 0]],
  ['right', [1, 4], [1, 4]],
  ['rowEnd', [1, 0], [1, 4]],
  ['rowStart', [1, 4], [1, 0]],
  ['top', [6, 2], [1, 2]],
  ['bottom', [1, 2], [7, 2]],
  ['pageDown', [1, 0], [7, 0]],
  ['pageUp', [7, 0], [1, 0]],
])('%s from %j', (move, [row, column], [r, c]) =>
  expect(moved({ row, column }, move, bounds)).toEqual({ row: r, column: c }),
);

test('Shift keeps the anchor; a move without it collapses the range; at an edge nothing changes', () => {
  const range = select(at(1, 1), 'right', bounds, true);
  expect(rectOf(range)).toEqual({ top: 1, bottom: 1, left: 1, right: 2 });
  expect(select(range, 'right', bounds, false)).toEqual(at(1, 3));
  const edge = at(1, 0);
  expect(select(edge, 'left', bounds, false)).toBe(edge);
});

test('no run of moves leaves the bounds or lands on a heading', () => {
  const moves: Move[] = [
    'up',
    'down',
    'left',
    'right',
    'rowStart',
    'rowEnd',
    'top',
    'bottom',
    'pageUp',
    'pageDown',
  ];
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom(...moves), fc.boolean()), { maxLength: 30 }), (list) => {
      const s = list.reduce((x, [m, extend]) => select(x, m, bounds, extend), at(1, 0));
      for (const p of [s.anchor, s.focus])
        expect(bounds.enterable(p.row) && p.column >= 0 && p.column < 5 && p.row >= 0 && p.row < 8).toBe(
          true,
        );
      expect(inRect(rectOf(s), s.focus.row, s.focus.column)).toBe(true);
    }),
  );
});

describe('blocks', () => {
  test.each([
    [
      'one cell over a range repeats',
      [['a']],
      2,
      2,
      [
        ['a', 'a'],
        ['a', 'a'],
      ],
    ],
    [
      'a row over two rows repeats',
      [['a', 'b']],
      2,
      2,
      [
        ['a', 'b'],
        ['a', 'b'],
      ],
    ],
    ['a block that does not fit goes once', [['a', 'b', 'c']], 1, 2, [['a', 'b', 'c']]],
  ])('%s', (_n, block, rows, columns, expected) => expect(layOver(block, rows, columns)).toEqual(expected));
  test('tab-separated text to and from spreadsheets', () => {
    expect(fromTsv('1\t2\r\n3\t4\r\n')).toEqual([
      ['1', '2'],
      ['3', '4'],
    ]);
    expect(fromTsv('"two\nlines"\tx')).toEqual([['two\nlines', 'x']]);
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string({ unit: 'grapheme-ascii' }), { minLength: 2, maxLength: 2 }), {
          minLength: 1,
          maxLength: 5,
        }),
        (rows) => {
          expect(fromTsv(toTsv(rows))).toEqual(rows);
          // As the parser of ledger files reads it, and reads what that one writes.
          expect(Papa.parse(toTsv(rows), { delimiter: '\t' }).data).toEqual(rows);
          const theirs = Papa.unparse(rows, { delimiter: '\t', newline: '\r\n' });
          expect(fromTsv(`${theirs}\r\n`)).toEqual(rows);
        },
      ),
    );
    expect(fromTsv('')).toEqual([['']]);
    expect(fromTsv('5" pipe\t"open\t"a"b')).toEqual([['5" pipe', '"open', '"a"b']]);
  });
  test('fill', () =>
    expect(
      fillRight([
        [1, 2, 3],
        [4, 5, 6],
      ]),
    ).toEqual([
      [1, 1, 1],
      [4, 4, 4],
    ]));
});
