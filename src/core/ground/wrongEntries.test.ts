import { toDayNumber } from '@/core/calendar';
import { minor } from '@/core/money';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import type { Book, ExplanationPart } from '@/core/model';
import { account, calendar, periodIds } from '@/core/test/build';
import { makeGround } from './ground';
import { bookWith, sourceOf } from '@/core/test/build';
import { reclassifiedBy } from './reclassified';

/* Wrong entries found again: which entry it is, and which later ones put it right. */

const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const accounts = [
  account('p', 'expense', 'Power'),
  account('r', 'expense', 'Rent'),
  account('e', 'fixedAsset'),
];
type Row = readonly [day: string, account: string, amount: number, reference: string, party: string];
const WRONG: Row = ['2026-01-12', 'p', 500, 'J7', 'Landlord'];

function blockOf(rows: readonly Row[]): LedgerBlock {
  const builder = new BlockBuilder(rows.length);
  rows.forEach(([date, a, amount, reference, party], i) =>
    builder.add(
      toDayNumber(date as never),
      accounts.findIndex((x) => x.id === a),
      amount,
      i + 2,
      builder.text(party),
      builder.text(reference),
      builder.text(''),
    ),
  );
  return builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
}

const part = (to: string, of: Row = WRONG): ExplanationPart => ({
  kind: 'wrongEntry',
  amount: minor(of[2]),
  entries: [{ day: of[0] as never, reference: of[3], counterparty: of[4], amount: minor(of[2]) }],
  to,
});

function read(rows: readonly Row[], parts: readonly ExplanationPart[] = [part('r')]) {
  const block = blockOf(rows);
  const { view } = makeGround(bookWith(accounts, { sources: [sourceOf()] }), new Map([[block.id, block]]));
  const notes = {
    [ids[0]!]: { p: { text: '', against: null, parts: [...parts], at: '' } },
  } as Book['varianceNotes'];
  const by = reclassifiedBy(notes, [block], calendar, view);
  return {
    states: by.entries.map((e) => (e.state === 'corrected' ? `corrected in ${e.in - first}` : e.state)),
    moved: (a: string) => [0, 1, 2].map((i) => Number(by.movement(a, first + i))),
    stands: (a: string) => [0, 1, 2].map((i) => Number(by.balance(a, first + i))),
  };
}
const BACK: Row = ['2026-02-03', 'p', -500, 'J9', 'Landlord'];
const THERE: Row = ['2026-02-03', 'r', 500, 'J9', 'Landlord'];

test.each<[string, Row, string]>([
  ['the very entry', WRONG, 'shown'],
  ['another amount', ['2026-01-12', 'p', 501, 'J7', 'Landlord'], 'gone'],
  ['another day', ['2026-01-13', 'p', 500, 'J7', 'Landlord'], 'gone'],
  ['another reference', ['2026-01-12', 'p', 500, 'J8', 'Landlord'], 'gone'],
  ['another party', ['2026-01-12', 'p', 500, 'J7', 'Somebody'], 'gone'],
  ['another account', ['2026-01-12', 'r', 500, 'J7', 'Landlord'], 'gone'],
])('an entry is found by all that it says: %s', (_, row, state) => {
  expect(read([row, ['2026-03-01', 'e', 1, '', '']]).states).toEqual([state]);
});

test('what is shown elsewhere moves in its month, and stands there from then on, that month included', () => {
  const { moved, stands } = read([WRONG, ['2026-03-01', 'e', 1, '', '']]);
  expect([moved('p'), moved('r')]).toEqual([
    [-500, 0, 0],
    [500, 0, 0],
  ]);
  expect([stands('p'), stands('r')]).toEqual([
    [-500, -500, -500],
    [500, 500, 500],
  ]);
});

test.each<[string, readonly Row[], string]>([
  ['taken back and put right by one later entry', [BACK, THERE], 'corrected in 1'],
  [
    'taken back before it was made',
    [
      ['2026-01-05', 'p', -500, 'J9', ''],
      ['2026-01-05', 'r', 500, 'J9', ''],
    ],
    'shown',
  ],
  ['taken back, and put right under another reference', [BACK, ['2026-02-03', 'r', 500, 'J8', '']], 'shown'],
  ['taken back, and put right on another day', [BACK, ['2026-02-04', 'r', 500, 'J9', '']], 'shown'],
  ['taken back, and put elsewhere', [BACK, ['2026-02-03', 'e', 500, 'J9', '']], 'shown'],
  [
    'taken back in part',
    [
      ['2026-02-03', 'p', -400, 'J9', ''],
      ['2026-02-03', 'r', 400, 'J9', ''],
    ],
    'shown',
  ],
])('%s', (_, later, state) => {
  const { states, moved, stands } = read([WRONG, ...later]);
  expect(states).toEqual([state]);
  // Moved as long as the ledger has it wrong; afterwards both months are as if it had been right.
  expect(moved('p')).toEqual(state === 'shown' ? [-500, 0, 0] : [-500, 500, 0]);
  expect(stands('r')).toEqual(state === 'shown' ? [500, 500, 500] : [500, 0, 0]);
});

test('two alike are two: one correction puts one of them right', () => {
  const twice = [part('r'), part('r')];
  const { states, moved } = read([WRONG, WRONG, BACK, THERE], twice);
  expect(states).toEqual(['corrected in 1', 'shown']);
  expect(moved('p')).toEqual([-1000, 500, 0]);
  expect(read([WRONG, BACK, THERE], twice).states).toEqual(['corrected in 1', 'gone']);
});

test('what is said to belong where it stands is nothing', () => {
  const { states, moved } = read([WRONG], [part('p')]);
  expect([states, moved('p')]).toEqual([['gone'], [0, 0, 0]]);
});
