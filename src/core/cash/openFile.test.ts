import { readFile } from '@/core/files';
import { account } from '@/core/test/build';
import { readOpenItems } from '.';

const book = {
  currency: 'USD',
  accounts: [
    account('rec', 'receivable', 'Trade debtors', '1200'),
    account('pay', 'payable', 'Trade creditors', '2100'),
  ],
  numbers: { decimal: '.', group: ',' } as const,
  dates: 'mdy' as const,
};
async function read(
  text: string,
  change: Partial<typeof book> & { bySign?: boolean } = {},
  name = 'open.csv',
) {
  const file = await readFile(new TextEncoder().encode(text));
  if (!file.ok) throw new Error(file.issue.code);
  return readOpenItems(file.file, 'in', name, { ...book, ...change });
}

test('a list of open invoices: found by its heads below a title, part payments and credit notes as they are', async () => {
  const got = await read(
    [
      'Aged receivables,,,,,,',
      'Customer,Invoice no,Invoice date,Due date,Total,Open amount,Type',
      'Ann,17,10/05/2026,11/04/2026,"1,200.00",700.00,Invoice',
      'Bob,C3,10/09/2026,10/09/2026,50.00,50.00,Credit note',
      'Bob,O9,10/20/2026,12/01/2026,300.00,300.00,Sales order',
      ',,,,,,',
      'Total,,,,1550.00,1050.00,',
    ].join('\n'),
  );
  expect(got).toMatchObject({ ok: true, issues: [] });
  expect(
    got.ok && got.items.map((i) => [i.counterparty, i.number, i.kind, i.dated, i.due, i.amount, i.open]),
  ).toEqual([
    ['Ann', '17', 'invoice', '2026-10-05', '2026-11-04', 120_000, 70_000],
    ['Bob', 'C3', 'invoice', '2026-10-09', '2026-10-09', -5_000, -5_000],
    ['Bob', 'O9', 'order', '2026-10-20', '2026-12-01', 30_000, 30_000],
  ]);
});

test('decimal commas and days first, as a German list has them', async () => {
  const got = await read('Kunde;Nummer;Datum;Fällig;Betrag\nAnn;1;31.10.2026;30.11.2026;1.234,56\n', {
    dates: 'dmy' as never,
  });
  expect(got.ok && got.items.map((i) => [i.dated, i.due, i.open])).toEqual([
    ['2026-10-31', '2026-11-30', 123_456],
  ]);
});

test.each([
  ['without a date', 'Ann,1,,2026-11-01,100,100,USD,', 'noDate', ''],
  ['with a date that is none', 'Ann,1,soon,2026-11-01,100,100,USD,', 'noDate', 'soon'],
  [
    'due before it is dated',
    'Ann,1,2026-10-05,2026-10-04,100,100,USD,',
    'dueBeforeDated',
    '2026-10-05 – 2026-10-04',
  ],
  ['in another currency', 'Ann,1,2026-10-05,2026-10-06,100,100,EUR,', 'otherCurrency', 'EUR'],
  ['with more open than it came to', 'Ann,1,2026-10-05,2026-10-06,100,101,USD,', 'openBeyondAmount', '101'],
  ['without an amount', 'Ann,1,2026-10-05,2026-10-06,lots,100,USD,', 'noAmount', 'lots'],
  [
    'of an account that the book has not',
    'Ann,1,2026-10-05,2026-10-06,100,100,USD,9999',
    'unknownAccount',
    '9999',
  ],
  ['that is there already', 'Zoe,7,2026-10-05,2026-10-06,100,100,USD,1200', 'twice', 'Zoe 7'],
])('an item %s is named with its row, and the others are taken', async (_, row, code, value) => {
  const head = 'Customer,Number,Date,Due,Amount,Open,Currency,Account';
  const got = await read([head, 'Zoe,7,2026-10-01,2026-10-31,10,10,USD,Trade debtors', row].join('\n'));
  expect(got.ok && got.issues).toEqual([{ code, row: 3, value }]);
  expect(got.ok && got.items.map((i) => [i.counterparty, i.account])).toEqual([['Zoe', 'rec']]);
});

describe('both sides in one list', () => {
  const sides = (got: Awaited<ReturnType<typeof read>>) =>
    got.ok ? { apart: got.apart, sides: got.items.map((i) => [i.side, i.counterparty, i.open]) } : got;

  test('are told apart by the accounts that rows name', async () => {
    const got = await read('Name,Date,Amount,Account\nAnn,2026-10-01,10,1200\nMill,2026-10-02,20,2100\n');
    expect(sides(got)).toEqual({
      apart: 'account',
      sides: [
        ['in', 'Ann', 1_000],
        ['out', 'Mill', 2_000],
      ],
    });
  });

  test.each([
    ['Side', 'Receivable', 'Payable'],
    ['Type', 'Customer invoice', 'Supplier invoice'],
    ['Type', 'Sales invoice', 'Bill'],
    ['Ledger', 'AR', 'AP'],
    ['Type', 'Debitor', 'Kreditor'],
  ])('are told apart by what a column “%s” says: %s, %s', async (head, us, them) => {
    const got = await read(`Name,Date,Amount,${head}\nAnn,2026-10-01,10,${us}\nMill,2026-10-02,20,${them}\n`);
    expect(sides(got)).toEqual({
      apart: 'side',
      sides: [
        ['in', 'Ann', 1_000],
        ['out', 'Mill', 2_000],
      ],
    });
  });

  test('by the sign only where that is said: else what is negative is a credit note', async () => {
    const list = 'Name,Number,Date,Amount\nAnn,1,2026-10-01,10\nMill,1,2026-10-02,-20\n';
    const plain = await read(list);
    expect(sides(plain)).toEqual({
      apart: null,
      sides: [
        ['in', 'Ann', 1_000],
        ['in', 'Mill', -2_000],
      ],
    });
    expect(plain.ok && plain.bothSigns).toBe(true);
    expect(sides(await read(list, { bySign: true }))).toEqual({
      apart: 'sign',
      sides: [
        ['in', 'Ann', 1_000],
        ['out', 'Mill', 2_000],
      ],
    });
  });

  test('one number may stand on both sides', async () => {
    const got = await read('Name,Number,Date,Amount,Side\nAnn,1,2026-10-01,10,AR\nAnn,1,2026-10-02,20,AP\n');
    expect(got.ok && got.issues).toEqual([]);
  });
});

test('what was decided of items is read: the day they are expected, held, left out, and why', async () => {
  const got = await read(
    [
      'Name,Number,Date,Due date,Amount,Expected,Status,Notes',
      'Ann,1,10/01/2026,10/31/2026,10,11/20/2026,,pays late',
      'Bob,2,10/01/2026,10/31/2026,10,,On hold,',
      'Cem,3,10/01/2026,10/31/2026,10,,left out,in dispute',
      'Dee,4,10/01/2026,10/31/2026,10,,overdue,',
    ].join('\n'),
  );
  expect(got.ok && got.items.map((i) => [i.number, i.due, i.said])).toEqual([
    ['1', '2026-10-31', { day: '2026-11-20', state: 'counted', reason: 'pays late' }],
    ['2', '2026-10-31', { day: null, state: 'held', reason: '' }],
    ['3', '2026-10-31', { day: null, state: 'leftOut', reason: 'in dispute' }],
    ['4', '2026-10-31', null],
  ]);
  const marked = await read('Name,Date,Amount,Left out\nAnn,2026-10-01,10,x\nBob,2026-10-01,10,\n');
  expect(marked.ok && marked.items.map((i) => i.said?.state)).toEqual(['leftOut', undefined]);
});

test.each([
  ['its title', 'Open items as of 10/31/2026\n', 'open.csv', '2026-10-31'],
  ['its title in words', 'As at 31 October 2026\n', 'open.csv', '2026-10-31'],
  ['its file’s name', '', 'open-2026-09-30.csv', '2026-09-30'],
  ['its file’s name without marks', '', 'open_20260930.csv', '2026-09-30'],
  ['nothing', '', 'open.csv', null],
])('the day that a list is of is told by %s', async (_, above, name, day) => {
  const got = await read(`${above}Name,Date,Amount\nAnn,2026-09-01,10\n`, {}, name);
  expect(got.ok && got.day).toBe(day);
});

test('columns stand in any order, the open amount alone first', async () => {
  const got = await read('Open,Date,Name\n"1,5",10/01/2026,Ann\n', {
    numbers: { decimal: ',', group: '.' } as never,
  });
  expect(got.ok && got.items.map((i) => [i.open, i.amount, i.dated])).toEqual([[150, 150, '2026-10-01']]);
});

test('a table without dates or amounts says what it lacks', async () => {
  expect(await read('Customer,Number\nAnn,1\n')).toEqual({ ok: false, missing: ['date', 'amount'] });
  expect(await read('Customer,Date\nAnn,2026-01-01\n')).toEqual({ ok: false, missing: ['amount'] });
});
