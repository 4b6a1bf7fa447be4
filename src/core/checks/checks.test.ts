import { minor } from '@/core/money';
import { balancesOf, entriesOf, sumEntries, totalsOf } from '@/core/ledger';
import { runChecks } from '.';
import { account, blockOf, bookWith, calendar, months, of, sourceOf } from '../test/build';

const accounts = [account('b', 'bank'), account('s', 'income'), account('x', 'expense')];
const block = blockOf(accounts, [
  ['2025-01-05', 'b', 1000],
  ['2025-01-05', 's', 1000],
  ['2025-02-05', 'x', 300],
  ['2025-02-06', 'b', -300],
]);
const totals = totalsOf(block)!;
const source = sourceOf({
  rows: { read: 4, used: 4, leftOut: [] },
  entries: 4,
  debit: totals.debit,
  credit: totals.credit,
});
const run = (change: { source?: object; amounts?: number[]; lines?: string[] } = {}) => {
  const book = bookWith(accounts, { sources: [{ ...source, ...change.source }] });
  const amounts = (change.amounts ?? [100, 200]).map(minor);
  return runChecks({
    book,
    blocks: new Map([['l1', block]]),
    balances: balancesOf([block], calendar),
    budgets: [
      {
        id: 'b1',
        name: 'Budget',
        width: 2,
        lines: (change.lines ?? ['s']).map(of),
        covers: 'profitAndLoss',
        figures: (id) => (id === 's' ? { amounts, wholes: [] } : null),
      },
    ],
  });
};
const broken = (checks: ReturnType<typeof run>) =>
  checks.filter((c) => !c.holds).map((c) => [c.code, c.detail]);

test('a sound book passes every check', () => {
  expect(run().map((c) => c.code)).toEqual([
    'tieOut',
    'debitsCredits',
    'balances',
    'lineAccounts',
    'monthsToYears',
    'subtotals',
    'lineAccounts',
  ]);
  expect(broken(run())).toEqual([]);
});
test.each<[string, Parameters<typeof run>[0], [string, string][]]>([
  ['an entry that got lost', { source: { entries: 5 } }, [['tieOut', '4 of 5']]],
  ['a total that does not match', { source: { debit: minor(1) } }, [['tieOut', '4 of 4']]],
  ['a line without an account', { lines: ['s', 'gone'] }, [['lineAccounts', 'gone']]],
])('%s is found', (_n, change, expected) => expect(broken(run(change))).toEqual(expected));

test('what an amount is made of adds up to it', () => {
  const balances = balancesOf([block], calendar);
  for (const a of accounts)
    for (let p = months(2025).first; p <= months(2025).last; p++)
      expect(sumEntries(entriesOf([block], calendar, a.id, { first: p, last: p }))).toBe(
        balances.movement(a.id, p) ?? 0,
      );
  expect(balances.movement('s', months(2025).first + 5)).toBeNull();
  expect(balances.has(months(2025).first + 5)).toBe(false);
});
