import fc from 'fast-check';
import { minor } from '@/core/money';
import { blankLine, type Budget, type Line } from '@/core/model';
import { type Figures } from '@/core/plan';
import { budgetRows } from '@/core/report';
import { account, budgetOf } from '@/core/test/build';
import { approvedFor, isLumpy, keptRows, NO_FILTER, type FilterFacts, type Mark } from './filters';

const YEAR = [{ from: 0, to: 12 }];
const TWO = [
  { from: 0, to: 12 },
  { from: 12, to: 24 },
];
const months = (length: number, amounts: Readonly<Record<number, number>>) =>
  Array.from({ length }, (_, i) => (amounts[i] === undefined ? null : minor(amounts[i])));

describe('a lump', () => {
  test.each<[string, Parameters<typeof isLumpy>, boolean]>([
    ['nothing at all is none', [months(12, {}), YEAR], false],
    ['one month of the year', [months(12, { 3: 900 }), YEAR], true],
    ['half of the year', [months(12, { 3: 50, 4: 30, 5: 20 }), YEAR], true],
    ['less than half', [months(12, { 3: 49, 4: 31, 5: 20 }), YEAR], false],
    ['a refund is as much of a lump', [months(12, { 3: -900, 4: 10 }), YEAR], true],
    ['each of two years has its own', [months(24, { 3: 900, 15: 950, 20: 10 }), TWO], true],
    ['a lump in one year beside an even one', [months(24, { 3: 900, ...fill(12, 24, 500) }), TWO], true],
    ['even in both', [months(24, fill(0, 24, 500)), TWO], false],
    ['two months show nothing', [months(2, { 0: 900 }), [{ from: 0, to: 2 }]], false],
  ])('%s', (_, args, expected) => expect(isLumpy(...args)).toBe(expected));

  test('no scale and no sign makes or unmakes one', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 12, maxLength: 12 }),
        fc.integer({ min: 1, max: 50 }),
        (values, by) => {
          const of = (f: number) =>
            isLumpy(
              values.map((v) => minor(v * f)),
              YEAR,
            );
          expect(of(by)).toBe(of(1));
          expect(of(-by)).toBe(of(1));
        },
      ),
    ));
});

function fill(from: number, to: number, value: number): Record<number, number> {
  return Object.fromEntries(Array.from({ length: to - from }, (_, i) => [from + i, value]));
}

describe('marks', () => {
  const accounts = [
    account('s', 'income', 'Sales'),
    account('r', 'expense', 'Rent'),
    account('bank', 'bank', 'Bank'),
  ];
  const rows = budgetRows(accounts, 'both');
  const figures = (amounts: Figures['amounts'], wholes: Figures['wholes'] = []): Figures => ({
    amounts,
    wholes,
  });
  const shown = (mark: Mark, facts: Partial<FilterFacts>) =>
    keptRows(rows, new Set(), false, {
      filter: { ...NO_FILTER, marks: [mark] },
      lines: () => [],
      figures: () => null,
      approved: () => null,
      years: YEAR,
      ...facts,
    }).flatMap((r) => {
      const row = rows[r]!;
      return row.kind === 'line' ? [row.account.id] : [];
    });
  const looked = { by: 'K', at: 't' };
  const segments = (own: Partial<Line>): Line[] => [
    { ...blankLine({ account: 's', segment: 'north' }), looked },
    { ...blankLine({ account: 's', segment: null }), looked, ...own },
  ];

  // Where segments are added up, an account is what any of its lines is.
  test.each<[Mark, Partial<Line>, boolean]>([
    ['notLooked', {}, false],
    ['notLooked', { looked: null }, true],
    ['noted', {}, false],
    ['noted', { note: { text: 'why', by: '', at: '' } }, true],
    ['noted', { cellNotes: { 'x-01': { text: 'why', by: '', at: '' } } } as Partial<Line>, true],
    ['typed', {}, false],
    ['typed', { overrides: { 'x-01': minor(1) } } as Partial<Line>, true],
  ])('%s, of one of two segments: %o', (mark, own, expected) =>
    expect(shown(mark, { lines: (id) => (id === 's' ? segments(own) : segments({})) }).includes('s')).toBe(
      expected,
    ),
  );
  test('what has no line was not looked at', () =>
    expect(shown('notLooked', {})).toEqual(['s', 'r', 'bank']));

  test.each<[string, Figures | null, Figures | null, boolean]>([
    ['the same', figures([minor(1), null]), figures([minor(1), null]), false],
    ['another month', figures([minor(1), null]), figures([minor(1), minor(2)]), true],
    ['a zero where it was blank', figures([minor(0)]), figures([null]), true],
    ['a line that came', figures([minor(1)]), null, true],
    ['a blank line that came', figures([null, null]), null, false],
    ['a line that went', null, figures([minor(1)]), true],
    ['the amount of a year without months', figures([null], [minor(5)]), figures([null], [minor(6)]), true],
  ])('changed since it was approved: %s', (_, now, then, expected) =>
    expect(shown('changed', { figures: () => now, approved: () => then }).includes('s')).toBe(expected),
  );
  test('a balance is no lump, whatever its months', () =>
    expect(shown('lumps', { figures: () => figures(months(12, { 0: 5 })) })).toEqual(['s', 'r']));

  test('what was approved is that of the latest budget approved for the same periods', () => {
    const of = (id: string, value: number, change: Partial<Budget> = {}) =>
      budgetOf([], id, {
        state: 'approved',
        approved: {
          by: 'K',
          at: 't',
          fingerprint: '',
          cash: null,
          lines: [{ account: 's', segment: null, amounts: [minor(value)], wholes: [] }],
        },
        ...change,
      });
    const draft = budgetOf([], 'mine');
    expect(approvedFor([draft], draft)).toBeNull();
    const list = [of('a', 1), of('b', 2), of('other', 3, { length: 6 }), draft];
    expect(approvedFor(list, draft)!('s', 'all')!.amounts[0]).toBe(2);
    expect(approvedFor(list, draft)!('r', 'all')).toBeNull();
  });
});
