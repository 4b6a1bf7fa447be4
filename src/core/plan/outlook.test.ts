import { minor, splitLike } from '@/core/money';
import { balancesOf } from '@/core/ledger';
import { account, blockOf, calendar, factsOver, formula, line, of, planOf } from '../test/build';
import { createReckoner, outlookOf, type Planned } from '.';

/* January and February 2025 are closed, March has entries and is not; Fees have no entry ever, Rent one in January. */
const accounts = [account('s', 'income'), account('f', 'income', 'Fees'), account('r', 'expense', 'Rent')];
const block = blockOf(accounts, [
  ['2025-01-10', 's', 100],
  ['2025-01-10', 'r', 40],
  ['2025-02-10', 's', 200],
  ['2025-03-10', 's', 300],
]);
const first = calendar.firstOfYear(2025);
const facts = (closedThrough: number | null) =>
  factsOver(accounts, balancesOf([block], calendar), 12, { closedThrough });
const planned: Planned = { amount: minor(7), line: true };
const silent: Planned = { amount: null, line: true };
const none: Planned = { amount: null, line: false };

describe('the outlook of a month', () => {
  test.each<[string, string, number, Planned, number | null]>([
    ['closed, with an entry: what happened', 's', 1, planned, 200],
    ['not closed, though it has entries: what is planned', 's', 2, planned, 7],
    ['closed and silent, with a line: nothing', 'f', 1, planned, 0],
    [
      'closed and silent, with a line that says nothing of the month: nothing all the same',
      'f',
      1,
      silent,
      0,
    ],
    ['closed and silent, without a line but with a past: nothing', 'r', 1, none, 0],
    ['closed and silent, with neither: unknown', 'f', 1, none, null],
    ['not closed, without a line: unknown', 'r', 2, none, null],
  ])('%s', (_, id, month, plan, expected) =>
    expect(outlookOf(facts(first + 1), id, null, first + month, plan)).toBe(expected),
  );
  test('closed without a source, it shows its plan; where nothing was ever closed, entries count', () => {
    expect(outlookOf(facts(first + 5), 's', null, first + 4, planned)).toBe(7);
    expect(outlookOf(facts(null), 's', null, first + 2, planned)).toBe(300);
  });
});

test('cents left over by a split in proportion go to the largest remainders, the earliest of equal ones', () => {
  expect(splitLike(minor(100), [1, 1, 1].map(minor))).toEqual([34, 33, 33]);
  expect(splitLike(minor(101), [1, 2, 1, 2].map(minor))).toEqual([17, 34, 17, 33]);
  expect(splitLike(minor(-100), [1, 1, 1].map(minor))).toEqual([-34, -33, -33]);
});

test('in a loop over earlier months, each line keeps the issue of its own', () => {
  const lines = [line('s', formula('prior "account:f" + 1')), line('f', formula('"account:s" / 0'))];
  const run = createReckoner()(planOf(...lines), facts(first + 1));
  expect(['s', 'f'].map((id) => run.lines.get(of(id))!.issue)).toEqual([null, 'dividesByZero']);
  expect(run.cyclic.size).toBe(0);
});
