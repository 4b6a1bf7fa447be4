import { indexOfId } from '@/core/calendar';
import { minor } from '@/core/money';
import type { Book, VarianceNote } from '@/core/model';
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
import { makeGround, promisesOf, settledNote, waitingPromises } from '.';

const ids = periodIds(2026);
const at = (month: number) => indexOfId(calendar, ids[month]!)!;
const accounts = [account('fees', 'income'), account('rent', 'expense')];
const plan = (id: string, amount: number, first = 0) =>
  budgetOf(
    ['fees', 'rent'].map((a) =>
      line(a, byMonth(Object.fromEntries(ids.slice(first).map((p) => [p, minor(amount)])))),
    ),
    id,
  );
type Back = readonly (readonly [month: number, amount: number])[];
const timing = (back: Back, against: string | null = 'b1'): VarianceNote => ({
  text: '',
  against,
  parts: [
    { kind: 'once', amount: minor(1) },
    {
      kind: 'timing',
      amount: null,
      back: back.map(([m, amount]) => ({ period: ids[m]!, amount: minor(amount) })),
    },
  ],
  at: '',
});
/** Actuals by month of fees and rent, against a plan of 100 a month; closed through May unless said. */
const of = (
  notes: Book['varianceNotes'],
  fees: readonly number[],
  {
    closed = 4,
    rent = [],
    change = {},
  }: { closed?: number; rent?: readonly number[]; change?: Partial<Book> } = {},
) => {
  const block = blockOf(accounts, [
    ...fees.map((a, m) => [`${ids[m]}-15`, 'fees', a] as const),
    ...rent.map((a, m) => [`${ids[m]}-15`, 'rent', a] as const),
  ]);
  const book = bookWith(accounts, {
    budgets: [plan('b1', 100)],
    inForce: [{ budget: 'b1', from: ids[0]! }],
    sources: [sourceOf()],
    closedThrough: ids[closed]!,
    varianceNotes: notes,
    ...change,
  });
  return makeGround(book, new Map([[block.id, block]]));
};
const told = (ground: ReturnType<typeof of>) =>
  promisesOf(ground).map((p) => [p.account, p.explained - at(0), p.due - at(0), p.amount, p.came, p.kept]);

test.each<[string, number, number, string]>([
  ['as promised', 140, 40, 'kept'],
  ['more than promised', 190, 40, 'kept'],
  ['a tenth short', 136, 36, 'kept'],
  ['more than a tenth short', 135, 35, 'inPart'],
  ['nothing beyond the plan', 100, 0, 'not'],
  ['less than the plan', 60, 0, 'not'],
])('a promise of 40 more in May, where May came to %s', (_, may, came, kept) => {
  const ground = of({ [ids[2]!]: { fees: timing([[4, 40]]) } }, [100, 100, 60, 100, may]);
  expect(told(ground)).toEqual([['fees', 2, 4, 40, came, kept]]);
  expect(waitingPromises(ground, at(4))).toHaveLength(kept === 'kept' ? 0 : 1);
  expect(waitingPromises(ground, at(3))).toEqual([]);
});

test('costs that were to fall come back below the plan', () => {
  const ground = of({ [ids[0]!]: { rent: timing([[1, -30]]) } }, [100, 100, 100, 100, 100], {
    rent: [130, 70],
  });
  expect(told(ground)).toEqual([['rent', 0, 1, -30, -30, 'kept']]);
});

test('two promises of one month share what came, the earlier explained first', () => {
  const notes = { [ids[1]!]: { fees: timing([[4, 50]]) }, [ids[0]!]: { fees: timing([[4, 40]]) } };
  expect(told(of(notes, [60, 50, 100, 100, 150]))).toEqual([
    ['fees', 0, 4, 40, 40, 'kept'],
    ['fees', 1, 4, 50, 10, 'inPart'],
  ]);
});

test('months that are not closed, and what comes back before it was explained, promise nothing yet', () => {
  const notes = {
    [ids[2]!]: {
      fees: timing([
        [4, 40],
        [2, 9],
        [1, 8],
      ]),
    },
  };
  expect(told(of(notes, [100, 100, 60, 100, 140], { closed: 3 }))).toEqual([]);
});

test('it is held against the budget that did not know of it, though a revision in force did', () => {
  const revision = plan('b2', 140, 4);
  const change = {
    budgets: [plan('b1', 100), revision],
    inForce: [
      { budget: 'b1', from: ids[0]! },
      { budget: 'b2', from: ids[4]! },
    ],
  };
  const notes = { [ids[2]!]: { fees: timing([[4, 40]]) } };
  expect(told(of(notes, [100, 100, 60, 100, 140], { change }))).toEqual([['fees', 2, 4, 40, 40, 'kept']]);
  // Explained against a budget that has gone, it is held against what is in force.
  const gone = { [ids[2]!]: { fees: timing([[4, 40]], 'b9') } };
  expect(told(of(gone, [100, 100, 60, 100, 140], { change })).map((p) => p[5])).toEqual(['not']);
});

describe('what was not kept is settled', () => {
  const note = timing([
    [3, 5],
    [4, 40],
  ]);
  const notes = { [ids[2]!]: { fees: note } };
  const ground = of(notes, [100, 100, 60, 105, 115]);
  const [promise] = waitingPromises(ground, at(4));
  const back = (n: VarianceNote) => n.parts.flatMap((p) => (p.kind === 'timing' ? p.back : []));

  test('as given up or come another way: it waits no more, and its words stay', () => {
    for (const settled of ['givenUp', 'elsewhere'] as const) {
      const next = settledNote(note, promise!, { settled });
      expect(back(next)).toEqual([
        { period: ids[3], amount: 5 },
        { period: ids[4], amount: 40, settled },
      ]);
      const after = of({ [ids[2]!]: { fees: next } }, [100, 100, 60, 105, 115]);
      expect(waitingPromises(after, at(4))).toEqual([]);
      expect(promisesOf(after).at(-1)).toMatchObject({ settled, kept: 'inPart' });
      expect(settledNote(next, promisesOf(after).at(-1)!, null)).toEqual(note);
    }
  });

  test('as coming later: what came stays in its month, the rest moves on', () => {
    expect(back(settledNote(note, promise!, { later: ids[8]! }))).toEqual([
      { period: ids[3], amount: 5 },
      { period: ids[4], amount: 15 },
      { period: ids[8], amount: 25 },
    ]);
    const nothing = of(notes, [100, 100, 60, 105, 90]);
    const [none] = waitingPromises(nothing, at(4));
    expect(back(settledNote(note, none!, { later: ids[8]! }))).toEqual([
      { period: ids[3], amount: 5 },
      { period: ids[8], amount: 40 },
    ]);
  });
});
