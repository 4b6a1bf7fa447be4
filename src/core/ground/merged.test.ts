import { minor } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import type { Axis, Budget } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  line,
  of,
  periodIds,
  share,
  sourceOf,
} from '@/core/test/build';
import { makeGround, reckoned, segmentLedgers } from '.';

const [january, february] = periodIds(2026) as unknown as [PeriodId, PeriodId];
const accounts = [account('s', 'income', 'Sales'), account('r', 'expense', 'Rent')];
const lines = [
  line('s', byMonth({ [january]: minor(900) })),
  line('old', byMonth({ [january]: minor(30), [february]: minor(7) })),
  line('r', share('old', '50')),
];
const approved: Budget = {
  ...budgetOf(lines, 'b1', { length: 2 }),
  state: 'approved',
  approved: {
    at: 't',
    by: 'K',
    fingerprint: '',
    cash: null,
    lines: [
      { ...of('s'), amounts: [minor(900), null], wholes: [] },
      { ...of('old'), amounts: [minor(30), minor(7)], wholes: [] },
      { ...of('r'), amounts: [minor(15), null], wholes: [minor(4)] },
    ],
  },
};
const block = blockOf(
  [...accounts, account('old', 'expense')],
  [
    ['2025-02-10', 'old', 700],
    ['2025-02-10', 'r', 300],
  ],
);
const axis: Axis = {
  id: 'x1',
  name: 'Site',
  columns: [],
  values: [{ id: 'north', name: 'North', from: [] }],
  byAccount: { old: 'north', r: 'north' },
};
const merging = (merged: Record<string, string>) =>
  makeGround(
    bookWith(accounts, { sources: [sourceOf()], budgets: [approved], merged, axes: [axis] }),
    new Map([[block.id, block]]),
  );

describe('an approved budget through a merge', () => {
  const ground = merging({ old: 'r' });
  const budget = ground.book.budgets[0]!;
  test('shows the two accounts as one, with the amounts of both', () => {
    const { figures } = reckoned(ground, budget);
    expect(figures('r')).toEqual({ account: 'r', segment: null, amounts: [45, 7], wholes: [4] });
    expect(figures('old')).toBeNull();
    expect(budget.lines.map((l) => l.account)).toEqual(['s', 'r']);
    expect(budget.lines[1]!.method).toEqual(byMonth({ [january]: minor(45), [february]: minor(7) }));
  });
  test('into an account that it has no line of, the line keeps its method under the other name', () => {
    const { book } = merging({ old: 'q' });
    expect(book.budgets[0]!.lines.map((l) => [l.account, l.method])).toEqual([
      ['s', lines[0]!.method],
      ['q', lines[1]!.method],
      ['r', share('q', '50')],
    ]);
  });
  test('one that no merge touches is the same object, and so is the book', () => {
    const book = bookWith(accounts, { budgets: [approved], merged: { other: 's' } });
    expect(makeGround(book, new Map()).book).toBe(book);
  });
});

describe('entries of a merged account in segments put by account', () => {
  const month = calendar.firstOfYear(2025) + 1;
  test.each<[string, Record<string, string>, number]>([
    ['both accounts in the segment', { old: 'north', r: 'north' }, 1000],
    ['only the one that took the other in', { r: 'north' }, 1000],
    ['only the one that was taken in', { old: 'north' }, 700],
  ])('%s', (_, byAccount, expected) => {
    const ground = makeGround(
      bookWith(accounts, { sources: [sourceOf()], merged: { old: 'r' }, axes: [{ ...axis, byAccount }] }),
      new Map([[block.id, block]]),
    );
    expect(segmentLedgers(ground, 'x1')('north').movement('r', month)).toBe(expected);
  });
});
