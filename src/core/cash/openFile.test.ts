import { readFile } from '@/core/files';
import { account } from '@/core/test/build';
import { readOpenItems } from '.';

const book = {
  currency: 'USD',
  accounts: [account('rec', 'receivable', 'Trade debtors', '1200')],
  numbers: { decimal: '.', group: ',' } as const,
  dates: 'mdy' as const,
};
async function read(text: string, change: Partial<typeof book> = {}) {
  const file = await readFile(new TextEncoder().encode(text));
  if (!file.ok) throw new Error(file.issue.code);
  return readOpenItems(file.file, 'in', 'open.csv', { ...book, ...change });
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

test('a table without dates or amounts says what it lacks', async () => {
  expect(await read('Customer,Number\nAnn,1\n')).toEqual({ ok: false, missing: ['date', 'amount'] });
  expect(await read('Customer,Date\nAnn,2026-01-01\n')).toEqual({ ok: false, missing: ['amount'] });
});
