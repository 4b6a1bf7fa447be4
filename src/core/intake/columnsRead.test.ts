import { readFile } from '@/core/files';
import { columnsRead, guessMapping } from '.';
import { guessing } from '../test/build';

/** The columns of a file as its own guess reads them, and those that are unsure. */
async function columns(...lines: string[]) {
  const read = await readFile(new TextEncoder().encode(`${lines.join('\n')}\n`));
  if (!read.ok) throw new Error(read.issue.code);
  const guess = guessMapping(read.file, 0, guessing);
  const all = columnsRead(guess.mapping, read.file.grids[0]!.head);
  const role = (head: string) => {
    const found = all.find((c) => c.head === head)!;
    return typeof found.role === 'string' ? found.role : found.role.as;
  };
  return { all, role, unsure: (guess.unsure ?? []).map((i) => all.find((c) => c.column === i)!.head) };
}

/** Entries of two accounts, with parties in one column and the account's name in the other. */
const entries = (first: string, second: string, swap: boolean) => [
  `Date,No,Code,${first},${second},Debit,Credit`,
  ...['Ann', 'Bob', 'Cyd', 'Dee'].flatMap((party, i) =>
    (
      [
        ['1000', 'Bank', '10.00,'],
        ['4000', 'Sales', ',10.00'],
      ] as const
    ).map(([code, name, sides]) =>
      [`2025-01-0${i + 1}`, i, code, ...(swap ? [party, name] : [name, party]), sides].join(','),
    ),
  ),
];

test.each([
  ['the name first', 'Name', 'Counterparty', false],
  ['the name last', 'Payee', 'Name', true],
  ['beside two parties', 'Name', 'Customer', false],
])('“Name” beside a code is what its cells are: %s', async (_n, first, second, swap) => {
  const { role, unsure } = await columns(...entries(first, second, swap));
  expect([role(swap ? second : first), role(swap ? first : second), unsure]).toEqual([
    'name',
    'counterparty',
    [],
  ]);
});

test('“Name” with a new text at every entry is the party’s; where the other is the account’s both are unsure', async () => {
  const { role, unsure } = await columns(...entries('Name', 'Counterparty', true));
  expect([role('Name'), unsure]).toEqual(['counterparty', ['Name', 'Counterparty']]);
  const alone = await columns(
    'Date,No,Account,Name,Debit,Credit',
    ...['Ann', 'Bob', 'Cyd'].flatMap((p, i) => [
      `2025-01-0${i + 1},${i},1000,${p},10.00,`,
      `2025-01-0${i + 1},${i},4000,${p},,10.00`,
    ]),
  );
  expect([alone.role('Name'), alone.unsure]).toEqual(['counterparty', []]);
});

test('one account renamed in a long file still has its name; a party that never changes is none', async () => {
  const lines = Array.from({ length: 30 }, (_, i) => [
    `2025-01-05,${i},1000,${i === 29 ? 'Bank (old)' : 'Bank'},10.00,`,
    `2025-01-05,${i},4000,Sales,,10.00`,
  ]).flat();
  const renamed = await columns('Date,No,Code,Name,Debit,Credit', ...lines);
  expect([renamed.role('Name'), renamed.unsure]).toEqual(['name', []]);
  const one = await columns(
    'Date,No,Code,Name,Debit,Credit',
    ...lines.map((l) => l.replace(/Bank \(old\)|Bank|Sales/, 'Ann')),
  );
  expect(one.role('Name')).toBe('counterparty');
});

test('codes that stand once tell nothing: by the head, and unsure', async () => {
  const { role, unsure } = await columns(...entries('Name', 'Party', false).slice(0, 3));
  expect([role('Name'), role('Party'), unsure]).toEqual(['name', 'counterparty', ['Name', 'Party']]);
  const alone = await columns(...entries('Name', 'Debit note', false).slice(0, 3));
  expect([alone.role('Name'), alone.unsure]).toEqual(['counterparty', ['Name']]);
});

test.each<[string, readonly string[], boolean]>([
  [
    'one text in four is another',
    ['1000 Ann', '1000 Ann', '1000 Bob', '4000 Eve', '4000 Eve', '4000 Eve'],
    false,
  ],
  ['one account has none', ['1000 Ann', '1000 Ann', '1000 Ann', '4000 ', '4000 ', '4000 '], false],
  ['one code alone stands twice', ['1000 Bank', '4000 Sales', '1000 Bank'], true],
])('no name is made of little: %s', async (_n, cells, unsure) => {
  const read = await columns(
    'Date,No,Code,Name,Amount',
    ...cells.map((c, i) => `2025-01-05,${i},${c.replace(' ', ',')},${i + 1}.00`),
  );
  expect([read.role('Name'), read.unsure]).toEqual(['counterparty', unsure ? ['Name'] : []]);
});

test('what is left out is named with what it holds, and whether it may be a segment', async () => {
  const { all } = await columns(
    'Date,No,Account,Debit,Credit,Department,Hall,Rate,Sent,,Mark of VAT,Remark 2',
    '2025-01-05,1,Bank,10.00,,North,Red,1.5,2025-01-09,,A,one',
    '2025-01-05,1,Sales,,10.00,North,Red,1.5,2025-01-09,,A,two',
    '2025-01-06,2,Bank,10.00,,South,Blue,2,2025-01-10,,A,three',
    '2025-01-06,2,Sales,,10.00,South,Blue,2,2025-01-10,,A,four',
  );
  const told = all.filter((c) => c.role === 'ignore').map((c) => [c.head, c.texts, c.mayBeSegment]);
  // Amounts, days, one text for all and texts that never come again are no segments; an empty column is not told of.
  expect(told).toEqual([
    ['Hall', ['Red', 'Blue'], true],
    ['Rate', ['1.5', '2'], false],
    ['Sent', ['2025-01-09', '2025-01-10'], false],
    ['Mark of VAT', ['A'], false],
    ['Remark 2', ['one', 'two', 'three'], false],
  ]);
});
