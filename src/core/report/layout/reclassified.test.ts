import { minor } from '@/core/money';
import type { ExplanationPart } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  line,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { reportOf, STANDARD } from '@/core/test/variance';
import { cellOf } from '@/core/report';
import { actualsOf, makeGround, reclassifiedOf } from '@/core/ground';

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const accounts = [
  account('s', 'income', 'Sales'),
  account('p', 'expense', 'Power'),
  account('r', 'expense', 'Rent'),
  account('e', 'fixedAsset', 'Equipment'),
];
type Row = readonly [string, string, number];
/** The wrong entry is the third of January: rent, booked as power. Its reference and party are those of the builder. */
const JANUARY: readonly Row[] = [
  ['2026-01-05', 's', 1000],
  ['2026-01-10', 'p', 80],
  ['2026-01-12', 'p', 500],
];
const wrong = (to: string): ExplanationPart => ({
  kind: 'wrongEntry',
  amount: minor(500),
  entries: [{ day: '2026-01-12' as never, reference: 'r2', counterparty: 'party 2', amount: minor(500) }],
  to,
});
const groundOf = (rows: readonly Row[], to = 'r') => {
  const block = blockOf(accounts, rows);
  const plan = byMonth(Object.fromEntries(ids.map((p) => [p, minor(100)])));
  return makeGround(
    bookWith(accounts, {
      sources: [sourceOf()],
      closedThrough: ids[2]!,
      budgets: [budgetOf(accounts.slice(0, 3).map((a) => line(a.id, plan)))],
      varianceNotes: { [ids[0]!]: { p: { text: '', against: null, parts: [wrong(to)], at: '' } } },
    }),
    new Map([[block.id, block]]),
  );
};
const shown = (rows: readonly Row[], month: number, key: string, to?: string) => {
  const { table } = reportOf(groundOf(rows, to), STANDARD, first + month);
  const row = table.rows.find((r) => r.key === key)!;
  return ['monthActual', 'toDateActual'].map((k) => cellOf(table, row, k));
};

test('a wrong entry is shown where it belongs, and profit stays', () => {
  expect(shown(JANUARY, 0, 'p')).toEqual([80, 80]);
  expect(shown(JANUARY, 0, 'r')).toEqual([500, 500]);
  expect(shown(JANUARY, 0, 'netProfit')).toEqual([420, 420]);
  const [entry] = reclassifiedOf(groundOf(JANUARY), null, 'all').entries;
  expect(entry).toMatchObject({ state: 'shown', account: 'p', to: 'r', period: first });
  const actuals = actualsOf(groundOf(JANUARY), null, 'all');
  expect([actuals.ledger(accounts[1]!, first), actuals.moved(accounts[1]!, first)]).toEqual([580, -500]);
});

test('what belongs to the balance sheet leaves the result, and stays in the balance from then on', () => {
  const rows: Row[] = [...JANUARY, ['2026-02-05', 's', 10], ['2026-03-05', 's', 10]];
  expect(shown(rows, 0, 'netProfit', 'e')).toEqual([920, 920]);
  expect(shown(rows, 2, 'e', 'e')).toEqual([500, 500]);
});

test('an entry that puts it right leaves both months as if it had been right from the start', () => {
  // Of one day and reference, as one journal entry has them: the builder numbers references by row, so rows repeat them.
  const block = blockOf(accounts, [...JANUARY, ['2026-02-03', 'p', -500]]);
  const other = blockOf(
    accounts,
    [...JANUARY.map(([, a]) => ['2025-06-01', a, 1] as const), ['2026-02-03', 'r', 500]],
    'l2',
  );
  const book = groundOf(JANUARY).book;
  const ground = makeGround(
    { ...book, sources: [sourceOf(), sourceOf({ id: 's2', block: 'l2' })] },
    new Map([
      [block.id, block],
      [other.id, other],
    ]),
  );
  const at = (key: string, month: number) => {
    const { table } = reportOf(ground, STANDARD, first + month);
    const row = table.rows.find((r) => r.key === key)!;
    return cellOf(table, row, 'monthActual') ?? 0;
  };
  expect(reclassifiedOf(ground, null, 'all').entries[0]).toMatchObject({ state: 'corrected', in: first + 1 });
  expect([at('p', 0), at('p', 1)]).toEqual([80, 0]);
  expect([at('r', 0), at('r', 1)]).toEqual([500, 0]);
});

test('once the ledger has it right, nothing is shown otherwise', () => {
  const right = JANUARY.map(([d, a, v]): Row => [d, d === '2026-01-12' ? 'r' : a, v]);
  expect(shown(right, 0, 'p')).toEqual([80, 80]);
  expect(shown(right, 0, 'r')).toEqual([500, 500]);
  expect(reclassifiedOf(groundOf(right), null, 'all').entries[0]!.state).toBe('gone');
});

test('another entry of the same day and amount is another entry', () => {
  const twice: Row[] = [...JANUARY, ['2026-01-12', 'p', 500]];
  expect(shown(twice, 0, 'p')).toEqual([580, 580]);
});
