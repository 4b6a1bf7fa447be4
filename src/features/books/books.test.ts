import fc from 'fast-check';
import { minor } from '@/core/money';
import { balancesOf, type LedgerBlock } from '@/core/ledger';
import type { AccountChoice, DraftAccount, Proof } from '@/core/intake';
import type { Account, Book } from '@/core/model';
import { account, blockOf, bookWith, calendar, months, sourceOf } from '@/core/test/build';
import { makeGround } from '@/core/ground';
import { bookProfit, changesBy, clashesOf, silentAccounts, sumsHere } from './intakeCompare';
import { filteredLedger, ledgerRows, NO_FILTER, oddities, partWords, type LedgerFilter } from './ledgerRows';

const accounts: readonly Account[] = [
  account('s', 'income', 'Sales', '4000'),
  { ...account('f', 'income', 'Course fees', '4100'), group: 'School' },
  account('r', 'expense', 'Rent', '6000'),
  account('b', 'bank', 'Bank', '1000'),
];
const first = calendar.firstOfYear(2025);
const day = (m: number, year = 2025) => `${year}-${String(m).padStart(2, '0')}-10`;

/** A book with a source for each block. */
function groundOf(blocks: readonly LedgerBlock[], change: Partial<Book> = {}) {
  const sources = blocks.map((b, i) =>
    sourceOf({ id: `s${i}`, block: b.id, fingerprint: String(i).repeat(64).slice(0, 64) }),
  );
  return makeGround(bookWith(accounts, { sources, ...change }), new Map(blocks.map((b) => [b.id, b])));
}

test('sums that the book has already are counted, whatever entries they are of', () => {
  const ground = groundOf([
    blockOf(accounts, [
      [day(1), 's', 10],
      [day(1), 's', 20],
      [day(2), 'r', 7],
    ]),
  ]);
  const choice = (existing: string | null) => ({ existing }) as AccountChoice;
  const cells = [
    { account: 0, period: first, amount: minor(-30) },
    { account: 1, period: first + 1, amount: minor(7) },
    { account: 1, period: first, amount: minor(7) },
    { account: 2, period: first, amount: minor(7) },
    { account: 1, period: first + 2, amount: minor(0) },
  ];
  expect(sumsHere(ground, { cells }, [choice('s'), choice('r'), choice(null)])).toEqual({ here: 2, of: 4 });
});

describe('the ledger by month', () => {
  const entries = Array.from({ length: 24 }, (_, i) => {
    const d = day((i % 12) + 1, i < 12 ? 2024 : 2025);
    return [
      [d, 's', 1000 + (i % 3)],
      [d, 'r', i === 20 ? 9000 : 500 + (i % 2)],
    ] as const;
  }).flat();
  const block = blockOf(accounts, [...entries, [day(3), 'f', 250], [day(4), 'b', 40]]);
  const ground = groundOf([block]);
  const range = months(2025);
  const none = new Map();
  const shown = (filter: Partial<LedgerFilter>, odd: Parameters<typeof filteredLedger>[4] = none) =>
    filteredLedger(ground, ground.balances, range, { ...NO_FILTER, ...filter }, odd)
      .rows.filter((r) => r.kind === 'line')
      .map((r) => r.key);

  test.each<[string, Partial<LedgerFilter>, string[]]>([
    ['words of the name', { words: ' COURSE ' }, ['f']],
    ['words of the code', { words: '41' }, ['f']],
    ['a span of codes', { from: '4100', to: '6000' }, ['f', 'r']],
    ['a kind', { kind: 'expense' }, ['r']],
    ['a group', { group: 'School' }, ['f']],
    ['no group', { group: '', kind: 'income' }, ['s']],
  ])('filtered by %s', (_, filter, expected) => expect(shown(filter)).toEqual(expected));

  test('totals of what a search leaves are called so, and the title says what was looked for', () => {
    const totals = (filter: Partial<LedgerFilter>, part = '') => {
      const table = filteredLedger(ground, ground.balances, range, { ...NO_FILTER, ...filter }, none, part);
      return [
        table.rows.flatMap((r) => (r.kind === 'subtotal' || r.kind === 'result' ? [r.label] : [])),
        table.subtitle,
      ];
    };
    const months = 'Jan 2025 – Dec 2025';
    expect(totals({})).toEqual([['Total income', 'Total expenses', 'Net profit'], months]);
    const [labels, subtitle] = totals({ words: 'sales' }, 'accounts with “sales”');
    expect([labels, subtitle]).toEqual([
      ['Shown of income', 'Total income', 'Net of what is shown', 'Net profit'],
      `${months} · accounts with “sales”`,
    ]);
    // All of income is still the total of income.
    expect(totals({ to: '4999' })[0]).toEqual(['Total income', 'Net of what is shown', 'Net profit']);
    // The true totals stay beneath the part's, and what adds rows adds them where they stand.
    const found = filteredLedger(ground, ground.balances, range, { ...NO_FILTER, words: 'sales' }, none);
    const full = filteredLedger(ground, ground.balances, range, NO_FILTER, none);
    const year = (of: typeof full, label: string) => of.rows.find((r) => r.label === label)!.cells.at(-1);
    for (const label of ['Total income', 'Net profit']) expect(year(found, label)).toBe(year(full, label));
    expect(year(found, 'Shown of income')).toBe((year(full, 'Total income') as number) - 250);
    const net = found.rows.find((r) => r.label === 'Net of what is shown')!;
    expect(net.terms.map((t) => found.rows[t.row]!.label)).toEqual(['Shown of income']);
    const book = {
      axes: [
        { id: 'x', name: 'Site', columns: [], byAccount: {}, values: [{ id: 'n', name: 'North', from: [] }] },
      ],
      sources: [sourceOf()],
    };
    expect(partWords(book, NO_FILTER, {}, null)).toBe('');
    expect(
      partWords(book, { ...NO_FILTER, words: ' rent ', kind: 'expense', group: '' }, { x: 'n' }, 'l1'),
    ).toBe('accounts with “rent” · expense only · group none · Site North · from x.csv alone');
  });
  test('an odd month is judged by the two years before it, and told with what is usual', () => {
    const odd = oddities(ground, ground.balances, range);
    expect([...odd.keys()]).toContain('r');
    expect(odd.get('r')!.map((o) => o.at)).toEqual([8]);
    expect(shown({ oddOnly: true }, odd)).toContain('r');
    expect(shown({ oddOnly: true }, odd)).not.toContain('s');
    const table = filteredLedger(ground, ground.balances, range, NO_FILTER, odd);
    const { rows, columns } = ledgerRows(ground, range, table, odd, (v) => `¤${v}`);
    const rent = rows.find((r) => r.key === 'r')!;
    expect(rent.odd!.filter(Boolean)).toHaveLength(1);
    expect(rent.odd![8]).toMatch(/¤5/);
    expect(rent.values[12]).toBe(rent.values.slice(0, 12).reduce<number>((t, v) => t + (v ?? 0), 0));
    expect(columns.map((c) => c.kind)).toEqual([...new Array<string>(12).fill('amount'), 'total']);
  });
  test('a range of more than a year says the years', () => {
    const long = { first: first - 12, last: first + 11 };
    const table = filteredLedger(ground, ground.balances, long, NO_FILTER, none);
    const { columns } = ledgerRows(ground, long, table, none, String);
    expect(columns[0]!.label).toBe('Jan 24');
    expect(columns[12]!.label).toBe('Jan 25');
    expect(table.subtitle).toBe('Jan 2024 – Dec 2025');
  });
  test('a book without entries has nothing odd', () =>
    expect(oddities(groundOf([]), balancesOf([], calendar), range).size).toBe(0));
});

describe('what a file changes in the book', () => {
  const cell = fc.record({
    month: fc.integer({ min: 1, max: 12 }),
    account: fc.nat(accounts.length - 1),
    amount: fc.integer({ min: 1, max: 1_000_000 }),
  });
  type Cells = readonly { month: number; account: number; amount: number }[];
  const block = (cells: Cells, id: string) =>
    blockOf(
      accounts,
      cells.map((c) => [day(c.month), accounts[c.account]!.id, c.amount] as const),
      id,
    );
  const choices = accounts.map((a) => ({ existing: a.id }) as AccountChoice);
  const drafts = accounts.map((a) => ({ name: a.name, code: a.code }) as DraftAccount);

  test('replacing a source: what is said to change is what the ledger shows once it is done', () => {
    fc.assert(
      fc.property(fc.array(cell), fc.array(cell), fc.array(cell), (kept, gone, fresh) => {
        const ground = groundOf([block(kept, 'l0'), block(gone, 'l1')]);
        const file = block(fresh, 'l2');
        const own = balancesOf([file], calendar);
        const cells = accounts.flatMap((a, i) =>
          Array.from({ length: 12 }, (_, m) => ({
            account: i,
            period: first + m,
            amount: own.movement(a.id, first + m),
          })).filter((c) => c.amount !== null),
        );
        const proof = {
          cells,
          months: [...new Set(cells.map((c) => c.period))]
            .sort((a, b) => a - b)
            .map((period) => ({ period })),
        } as unknown as Proof;
        const said = changesBy(ground, ['s1'], { proof, accounts: drafts, choices });
        const after = balancesOf([block(kept, 'l0'), file], calendar);
        for (const a of accounts)
          for (let p = first; p < first + 12; p++) {
            const change = said.find((c) => c.account === a.id)?.cells.find((c) => c.period === p);
            const [was, is] = [ground.balances.movement(a.id, p) ?? 0, after.movement(a.id, p) ?? 0];
            if (change) expect([change.before ?? 0, change.after ?? 0]).toEqual([was, is]);
            else expect(is).toBe(was);
          }
        expect(said.every((c) => c.name !== '')).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
  test('the book’s profit of a month; a month without activity has none', () => {
    const ground = groundOf([
      block(
        [
          { month: 2, account: 0, amount: 700 },
          { month: 2, account: 2, amount: 200 },
        ],
        'l0',
      ),
    ]);
    expect(bookProfit(ground, first + 1)).toBe(500);
    expect(bookProfit(ground, first + 2)).toBeNull();
  });
  test('accounts that were active in the year and are not in the file are named', () => {
    const ground = groundOf([
      block(
        [
          { month: 2, account: 0, amount: 700 },
          { month: 3, account: 2, amount: 200 },
        ],
        'l0',
      ),
    ]);
    const proof = { months: [{ period: first + 11 }] } as unknown as Proof;
    expect(silentAccounts(ground, proof, [choices[0]!]).map((a) => a.id)).toEqual(['r']);
    expect(silentAccounts(ground, { months: [] } as unknown as Proof, [])).toEqual([]);
  });
  test('a file that is here already clashes with itself alone', () => {
    const [same, other] = [sourceOf({ id: 'x' }), sourceOf({ id: 'y' })];
    expect(clashesOf({ same, overlapping: [other] } as unknown as Proof)).toEqual([same]);
    expect(clashesOf({ same: null, overlapping: [other] } as unknown as Proof)).toEqual([other]);
  });
});
