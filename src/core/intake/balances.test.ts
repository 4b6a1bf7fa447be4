import { readFile, type FileFacts } from '@/core/files';
import { applyKept, guessShape, headsOf, openDraft, readDraft, type GuessContext } from '.';
import { guessing } from '../test/build';

/* What a person meets with trial balances that are not as they should be: each row is named, the others come in. */

const context: GuessContext = guessing;
async function facts(text: string): Promise<FileFacts> {
  const read = await readFile(new TextEncoder().encode(text));
  if (!read.ok) throw new Error(read.issue.code);
  return read.file;
}
const draftOf = async (text: string, change: Partial<GuessContext> = {}) =>
  openDraft(await facts(text), 0, { ...context, ...change }, 'USD');

const tb = (...rows: string[]) =>
  ['Trial balance as of 31 January 2025', 'Account,Debit,Credit', ...rows].join('\n');
const SOUND = ['Bank,130,', 'Equity,,100', 'Sales,,50', 'Rent,20,'];

describe('rows of a trial balance', () => {
  test.each<[string, string, string, object | null]>([
    ['an amount that cannot be read', 'Heat,12O,', 'unreadableAmount', { row: 7, column: 2, value: '12O' }],
    ['an amount finer than the currency', 'Heat,1.234,', 'tooManyDecimals', { row: 7, column: 2 }],
    ['an account without figures', 'Heat,,', 'heading', null],
    ['a blank row', ',,', 'blank', null],
    ['a total', 'Total,150,150', 'total', null],
  ])('%s is left out and named; the others come in', async (_, row, reason, issue) => {
    const { draft } = await draftOf(tb(...SOUND, row));
    expect(draft.rows.leftOut.find((r) => r.reason === reason)).toMatchObject({ reason, count: 1 });
    expect(draft.accounts.map((a) => a.name)).toEqual(['Bank', 'Equity', 'Sales', 'Rent']);
    if (issue) expect(draft.issues).toContainEqual(expect.objectContaining({ code: reason, ...issue }));
    else expect(draft.issues).toEqual([]);
  });
  test('sides that differ are told with the difference and the day', async () => {
    const { draft } = await draftOf(tb(...SOUND, 'Heat,5,'));
    expect(draft.unbalanced).toEqual([
      expect.objectContaining({ reference: '2025-01-31', difference: 500, lines: 5 }),
    ]);
  });
  test('totals of the file are held against ours, side by side', async () => {
    const { draft } = await draftOf(tb(...SOUND, 'Total,150,151'));
    expect(draft.controls.flatMap((c) => c.theirs.map((t) => [t.value, t.ours]))).toEqual([
      [15_000, 15_000],
      [15_100, 15_000],
    ]);
  });
  test('without a day anywhere nothing is dated, and it says where one would stand', async () => {
    const file = await facts(['Account,Debit,Credit', ...SOUND].join('\n'));
    const { mapping } = guessShape(file, 0, { ...context, fileName: 'x.csv' }, 'balances');
    const draft = readDraft(file, mapping, 'USD', context.calendar);
    expect(draft.issues).toContainEqual(expect.objectContaining({ code: 'noDay' }));
    expect(draft.block.day).toHaveLength(0);
    expect(draft.rows.leftOut).toContainEqual(expect.objectContaining({ reason: 'missingDate', count: 4 }));
  });
});

describe('a file as another shape than it looks', () => {
  const strange = 'Hello,World\nsome,words\n';
  test.each(['months', 'balances'] as const)(
    'nothing of %s in it: only where accounts may stand is proposed, and the rest is asked',
    async (shape) => {
      const guess = guessShape(await facts(strange), 0, context, shape);
      expect(guess.mapping).toMatchObject({
        shape,
        headerRow: 0,
        columns: [{ as: 'account' }, { as: 'ignore' }],
      });
      expect(guess.doubts).toEqual(['columns']);
    },
  );
  test('a trial balance may be read as what it is not, and back', async () => {
    const file = await facts(tb(...SOUND));
    expect(guessShape(file, 0, context, 'entries').mapping.shape).toBe('entries');
    expect(guessShape(file, 0, context, 'balances').mapping.shape).toBe('balances');
  });
});

test('the next trial balance keeps what was said of its columns, and has its own day', async () => {
  const text = tb(...SOUND)
    .replace('Account,', 'Account,Dept,')
    .replaceAll(/^(Bank|Equity|Sales|Rent),/gm, '$1,x,');
  const file = await facts(text);
  const { guess } = openDraft(file, 0, context, 'USD');
  if (guess.mapping.shape !== 'balances') throw new Error(guess.mapping.shape);
  const corrected = { ...guess.mapping, cumulative: false };
  const kept = [{ fileName: 'january.csv', heads: headsOf(file, corrected), mapping: corrected }];
  const next = await facts(text.replace('31 January', '28 February'));
  const again = applyKept(next, openDraft(next, 0, context, 'USD').guess, kept);
  expect(again).toMatchObject({
    keptFrom: 'january.csv',
    mapping: { shape: 'balances', cumulative: false, sheets: [{ day: '2025-02-28' }] },
  });
});
