import { calendarFrom } from '@/core/calendar';
import { runChecks } from '.';
import { readFile } from '@/core/files';
import { balancesOf } from '@/core/ledger';
import { minor, plainDecimal } from '@/core/money';
import { EMPTY, takeFacts, type Taken } from '../test/takeIn';

/* Opening balances are part of the proof when a file comes, and of the checks ever after. */

const HEAD = 'Date,Ref,Account code,Account,Debit,Credit,Memo';
const opens = (day: string, code: string, name: string, debit: string, credit: string) =>
  `${day},,${code},${name},${debit},${credit},Opening balance`;
const SOUND = [
  opens('2025-01-01', '1000', 'Bank', '500.00', ''),
  opens('2025-01-01', '2000', 'Trade payables', '', '120.00'),
  opens('2025-01-01', '3000', 'Share capital', '', '300.00'),
  opens('2025-01-01', '3100', 'Retained earnings', '', '80.00'),
];
const MOVES = [
  '2025-01-05,A,1000,Bank,100.00,,x',
  '2025-01-05,A,4000,Sales,,100.00,x',
  '2025-02-05,B,6000,Rent,30.00,,x',
  '2025-02-05,B,1000,Bank,,30.00,x',
];

async function take(rows: readonly string[], into: Taken = EMPTY) {
  const read = await readFile(new TextEncoder().encode([HEAD, ...rows].join('\n')));
  if (!read.ok) throw new Error(read.issue.code);
  const taken = takeFacts(read.file, into);
  if (!taken || taken.refusal) throw new Error('not taken');
  return taken;
}
const checksOf = ({ book, blocks }: Taken) =>
  runChecks({
    book,
    blocks: new Map(blocks.map((b) => [b.id, b])),
    balances: balancesOf(blocks, calendarFrom(book.calendar)),
    budgets: [],
  }).flatMap((c) => (c.code === 'openings' ? [c.holds || c.detail.split('\t')] : []));
/** The openings that are off, by the names of their accounts. */
const offIn = ({ proof, draft }: Awaited<ReturnType<typeof take>>) =>
  proof.openingsOff.map((o) => [o.account === null ? '' : draft.accounts[o.account]!.name, o.theirs, o.ours]);

test('openings that meet tie, and the check holds', async () => {
  const taken = await take([...SOUND, ...MOVES]);
  expect([taken.proof.faults, taken.proof.openings.count, checksOf(taken)]).toEqual([[], 4, [true]]);
});

test.each<[string, number, string | null, number]>([
  ['missing', 1, null, 12_000],
  ['changed', 1, opens('2025-01-01', '2000', 'Trade payables', '', '120.10'), -10],
  ['on the wrong side', 1, opens('2025-01-01', '2000', 'Trade payables', '120.00', ''), 24_000],
])('one that is %s: nothing ties, and the check fails afterwards', async (_, at, row, off) => {
  const rows = SOUND.flatMap((r, i) => (i === at ? (row ?? []) : r));
  const taken = await take([...rows, ...MOVES]);
  expect([taken.proof.faults, offIn(taken)]).toEqual([['openings'], [['', off, 0]]]);
  expect(checksOf(taken)).toEqual([['', plainDecimal(minor(off), 'EUR'), '0.00', '0']]);
});

test.each([
  ['in its own column', opens('2025-01-01', '2000', 'Trade payables', '', '12o.00'), 6, '12o.00'],
  ['with too many decimals', opens('2025-01-01', '2000', 'Trade payables', '', '120.005'), 6, '120.005'],
])('an amount that cannot be read %s is named', async (_, row, column, value) => {
  const taken = await take([SOUND[0]!, row, ...SOUND.slice(2), ...MOVES]);
  expect(taken.draft.issues).toMatchObject([{ row: 3, column, value }]);
  expect(taken.proof.faults).toEqual(['unreadable', 'openings']);
});

test.each([
  ['a balance beside an account’s name', '1000 Bank,,,,,5oo.00'],
  ['a balance brought forward', ',,Beginning balance,,,5oo.00'],
])('%s that is no amount is named', async (_, row) => {
  const text = [
    'Date,Number,Memo,Debit,Credit,Balance',
    ...(row.startsWith(',') ? ['1000 Bank,,,,,'] : []),
    row,
    '2025-01-05,1,Sale,100.00,,600.00',
    '4000 Sales,,,,,',
    '2025-01-05,1,Sale,,100.00,(100.00)',
  ].join('\n');
  const read = await readFile(new TextEncoder().encode(text));
  const taken = takeFacts(read.ok ? read.file : (null as never))!;
  expect(taken.draft.issues).toMatchObject([{ code: 'unreadableAmount', column: 6, value: '5oo.00' }]);
  expect(taken.proof.faults).toEqual(['unreadable']);
});

describe('a later file’s openings repeat what the book stands at', () => {
  // 500 + 100 − 30 in the bank; profit of 70 of the running year.
  const next = (bank: string, capital = '300.00', retained = '80.00', day = '2025-03-01') => [
    opens(day, '1000', 'Bank', bank, ''),
    opens(day, '3000', 'Share capital', '', capital),
    opens(day, '3100', 'Retained earnings', '', retained),
    `${day.slice(0, 8)}07,C,1000,Bank,5.00,,x`,
    `${day.slice(0, 8)}07,C,4000,Sales,,5.00,x`,
  ];
  const after = async (rows: readonly string[]) => take(rows, await take([...SOUND, ...MOVES]));

  test('as it is', async () => {
    const taken = await after(next('570.00'));
    expect([taken.proof.faults, checksOf(taken)]).toEqual([[], [true, true]]);
  });
  test('one that differs is named with both figures, and fails afterwards', async () => {
    const taken = await after(next('571.00'));
    expect([taken.proof.faults, offIn(taken)]).toEqual([['openings'], [['Bank', 57_100, 57_000]]]);
    expect(checksOf(taken)).toEqual([true, ['Bank', '571.00', '570.00', '0']]);
  });
  test('over a year’s end equity may have taken in the result, but nothing else', async () => {
    const taken = await after(next('570.00', '300.00', '150.00', '2026-01-01'));
    expect([taken.proof.faults, checksOf(taken)]).toEqual([[], [true, true]]);
    const wrong = await after(next('570.00', '300.00', '150.10', '2026-01-01'));
    expect(offIn(wrong)).toEqual([['Retained earnings', -15_010, -8_000]]);
  });
  test('what is put right before them is asked of them again', async () => {
    const taken = await after(next('570.00'));
    const first = taken.blocks[0]!;
    const blocks = [
      { ...first, amount: first.amount.map((a) => (a === 10_000 ? 10_100 : a)) },
      ...taken.blocks.slice(1),
    ];
    expect(checksOf({ ...taken, blocks })).toEqual([true, ['Bank', '570.00', '571.00', '0']]);
  });
  test('a balance carried further down in the same file says what its entries have reached', async () => {
    const carried = (amount: string) => [
      ...SOUND,
      ...MOVES.slice(0, 2),
      opens('2025-02-01', '1000', 'Bank', amount, ''),
      ...MOVES.slice(2),
    ];
    expect((await take(carried('600.00'))).proof.faults).toEqual([]);
    const off = (await take(carried('601.00'))).proof;
    expect([off.faults, off.controls.map((c) => c.mismatches)]).toEqual([
      ['controls'],
      [[{ day: null, theirs: 60_100, ours: 60_000 }]],
    ]);
  });
});
