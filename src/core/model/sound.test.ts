import { minor, MOST_AMOUNT } from '@/core/money';
import {
  applyCommand,
  BOOK_VERSION,
  LIMITS,
  nameWith,
  openBook,
  openHistory,
  perform,
  undo,
  type Book,
  type Change,
  type Command,
} from '.';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  formula,
  lastYear,
  line,
  of,
  periodIds,
  sourceOf,
} from '../test/build';

const ids = periodIds(2026);
const accounts = [account('a', 'income', 'Sales'), account('b', 'expense', 'Rent')];
const axis = {
  id: 'x1',
  name: 'Site',
  columns: [],
  byAccount: {},
  values: [{ id: 'v1', name: 'North', from: [] }],
};
const budget = budgetOf([line('a', byMonth({ [ids[0]!]: minor(5) }))]);
const book = (change: Partial<Book> = {}) =>
  bookWith(accounts, { axes: [axis], budgets: [budget], ...change });
const approved = (length: number) => ({
  ...budget,
  id: 'b9',
  state: 'approved' as const,
  approved: {
    at: 't',
    by: '',
    fingerprint: '',
    cash: null,
    lines: [{ ...of('a'), amounts: new Array<null>(length).fill(null), wholes: [] }],
  },
});

describe('a book opens without what does not hold together in it', () => {
  test('what holds together is the same object, with nothing set aside', () => {
    const sound = JSON.parse(JSON.stringify(book({ budgets: [budget, approved(12)] })));
    expect(openBook(sound)).toMatchObject({
      ok: true,
      setAside: [],
      book: { budgets: [{ id: 'b1' }, { id: 'b9' }] },
    });
  });
  test.each<[string, Partial<Book>, string, string]>([
    ['an account twice', { accounts: [...accounts, account('a', 'expense', 'Again')] }, 'account', 'twice'],
    ['a source twice', { sources: [sourceOf(), sourceOf({ id: 's2' })] }, 'source', 'twice'],
    ['an account merged into none', { merged: { z: 'gone' } }, 'merged', 'noSuchAccount'],
    ['an account merged that is there', { merged: { a: 'b' } }, 'merged', 'noSuchAccount'],
    [
      'a month closed that there is not',
      { closedThrough: '2026-13' as never },
      'closedThrough',
      'noSuchPeriod',
    ],
    [
      'a budget from a month that there is not',
      { budgets: [{ ...budget, first: '2027-13' as never }] },
      'budget',
      'noSuchPeriod',
    ],
    ['a budget by an axis that is gone', { budgets: [{ ...budget, axis: 'x9' }] }, 'budget', 'noSuchAxis'],
    [
      'a budget by a segment that is gone',
      { budgets: [{ ...budget, axis: 'x1', segments: ['v9'] }] },
      'budget',
      'noSuchSegment',
    ],
    ['approved figures too few', { budgets: [approved(3)] }, 'budget', 'figuresMissing'],
    ['approved and a draft', { budgets: [{ ...approved(12), state: 'draft' }] }, 'budget', 'stateUnclear'],
    [
      'a line of an account that is gone',
      { budgets: [budgetOf([line('z', byMonth())])] },
      'line',
      'noSuchAccount',
    ],
    ['a line twice', { budgets: [budgetOf([line('a', byMonth()), line('a', byMonth())])] }, 'line', 'twice'],
    [
      'a line of a segment that the budget has not',
      { budgets: [budgetOf([line('a', byMonth(), {}, 'v1')])] },
      'line',
      'noSuchSegment',
    ],
    [
      'budgets that revise each other',
      {
        budgets: [
          { ...budget, revises: { budget: 'b2', reason: '' } },
          { ...budgetOf([], 'b2'), revises: { budget: 'b1', reason: '' } },
        ],
      },
      'revises',
      'circle',
    ],
    [
      'a note in a month that there is not',
      { varianceNotes: { '2026-40': {} } },
      'varianceNote',
      'noSuchPeriod',
    ],
    ['a locale that is none', { locale: 'no locale' }, 'locale', 'unknownLocale'],
    [
      'an account in a segment that is gone',
      { axes: [{ ...axis, byAccount: { a: 'v9' } }] },
      'segment',
      'noSuchSegment',
    ],
  ])('%s', (_, change, part, because) => {
    const opened = openBook(JSON.parse(JSON.stringify(book(change))));
    if (!opened.ok) throw new Error(JSON.stringify(opened.issue));
    expect(opened.setAside).toContainEqual(expect.objectContaining({ part, because }));
    // What is left holds together.
    expect(openBook(JSON.parse(JSON.stringify(opened.book)))).toEqual({
      ok: true,
      book: opened.book,
      setAside: [],
    });
  });
  test('figures beyond any, as they could be saved once, are blank and named', () => {
    const large = budgetOf([
      line('a', byMonth({ [ids[0]!]: minor(90_000_000_000_000_00) }), { [ids[1]!]: minor(-1e14) }),
    ]);
    const opened = openBook(JSON.parse(JSON.stringify(book({ budgets: [large] }))));
    expect(opened).toMatchObject({
      ok: true,
      setAside: [{ part: 'amount' }, { part: 'amount' }],
      book: { budgets: [{ lines: [{ overrides: { [ids[1]!]: null } }] }] },
    });
  });
  test('one of an older version that was not even whole then is refused with a word', () =>
    expect(openBook({ format: 'tellan.book', version: 2, budgets: [{ lines: { a: null } }] })).toMatchObject({
      ok: false,
      issue: { code: 'brokenOlder', version: 2 },
    }));
});

describe('whatever is saved opens: commands are held to what opening asks', () => {
  const long = (n: number) => 'x'.repeat(n);
  test.each<[string, Command, object]>([
    [
      'a group',
      { type: 'editAccount', account: 'a', change: { group: long(150) } },
      { code: 'tooLong', fault: { most: 120 } },
    ],
    ['a name', { type: 'renameBook', name: long(121) }, { code: 'tooLong', fault: { path: 'name' } }],
    [
      'a formula that grew',
      { type: 'setMethods', budget: 'b1', lines: [{ ...of('a'), method: formula(long(4001)) }] },
      { code: 'tooLong' },
    ],
    [
      'a figure',
      {
        type: 'setCells',
        budget: 'b1',
        how: 'typed',
        cells: [{ ...of('a'), period: ids[0]!, value: minor(MOST_AMOUNT + 1) }],
      },
      { code: 'tooLarge', fault: { most: MOST_AMOUNT } },
    ],
    [
      'a figure below any',
      {
        type: 'setCells',
        budget: 'b1',
        how: 'typed',
        cells: [{ ...of('b'), period: ids[0]!, value: minor(-MOST_AMOUNT - 1) }],
      },
      { code: 'tooLarge' },
    ],
    [
      'accounts',
      {
        type: 'takeIn',
        source: sourceOf(),
        newAccounts: Array.from({ length: LIMITS.accounts }, (_, i) => account(`n${i}`, 'income')),
        accountChanges: [],
        axes: [],
        replaces: [],
        closedThrough: null,
        nextId: 9,
      },
      { code: 'tooMany', fault: { path: 'accounts', most: LIMITS.accounts } },
    ],
    [
      'segments',
      {
        type: 'setAxis',
        axis: {
          ...axis,
          values: Array.from({ length: LIMITS.segments + 1 }, (_, i) => ({
            id: `v${i + 1}`,
            name: 'n',
            from: [],
          })),
        },
      },
      { code: 'tooMany' },
    ],
    [
      'a month that there is not',
      { type: 'setClosedThrough', period: '2026-13' as never },
      { code: 'doesNotFitCalendar' },
    ],
    [
      'a value of another kind',
      { type: 'setSettings', settings: { cents: 1 as never } },
      { code: 'notSound' },
    ],
    [
      'a calendar without the months of a budget',
      {
        type: 'setCalendar',
        calendar: {
          kind: 'handMade',
          periods: [2025, 2026, 2027].map((year) => ({
            year,
            name: 'Y',
            start: `${year}-01-01` as never,
            end: `${year}-12-31` as never,
          })),
        },
        closedThrough: null,
      },
      { code: 'doesNotFitCalendar', fault: { message: 'Late' } },
    ],
  ])('%s beyond what is kept is refused, and nothing is changed', (_, command, refusal) => {
    const before = book({ budgets: [budget, { ...budgetOf([], 'b2'), name: 'Late', first: ids[3]! }] });
    const copy = structuredClone(before);
    expect(applyCommand(before, command)).toMatchObject({ ok: false, refusal });
    expect(before).toEqual(copy);
  });
  test('months typed over a method are held to the same, by the quick look at them', () => {
    const before = book({ budgets: [budgetOf([line('a', lastYear())])] });
    const typed = (period: string, value: number) =>
      applyCommand(before, {
        type: 'setCells',
        budget: 'b1',
        how: 'typed',
        cells: [{ ...of('a'), period: period as never, value: value as never }],
      });
    for (const bad of [MOST_AMOUNT + 1, -MOST_AMOUNT - 1, 0.5, NaN, Infinity])
      expect([bad, typed(ids[0]!, bad).ok]).toEqual([bad, false]);
    for (const bad of ['2026-00', '1899-01', '2026-1', 'x'])
      expect([bad, typed(bad, 1).ok]).toEqual([bad, false]);
    const done = typed(ids[0]!, -MOST_AMOUNT);
    expect(done.ok && openBook(JSON.parse(JSON.stringify(done.book)))).toMatchObject({
      ok: true,
      setAside: [],
    });
  });
  test('what is just within goes in and opens', () => {
    const done = applyCommand(book(), {
      type: 'editAccount',
      account: 'a',
      change: { group: long(LIMITS.group) },
    });
    expect(done.ok && openBook(JSON.parse(JSON.stringify(done.book))).ok).toBe(true);
    expect(nameWith(long(200), ', copy', LIMITS.bookName)).toBe(`${long(114)}, copy`);
    // A letter of two units is not cut in half.
    expect(nameWith(`${long(4)}😀`, '', 5)).toBe(long(4));
  });
});

describe('a journal that came from elsewhere', () => {
  const changed = (inverse: Change extends { inverse: infer I } ? I : never, patches = inverse) =>
    ({ seq: 1, at: 't', type: 'setCells', version: BOOK_VERSION, patches, inverse }) as unknown as Change;
  test.each<[string, unknown[]]>([
    ['leads nowhere', [{ op: 'replace', path: ['budgets', 9, 'name'], value: 'x' }]],
    ['leads to what is no book', [{ op: 'replace', path: ['accounts', 0, 'kind'], value: 7 }]],
    [
      'leads to a budget that no screen can draw',
      [{ op: 'replace', path: ['budgets', 0, 'length'], value: 0 }],
    ],
    [
      'leads to a figure beyond any',
      [{ op: 'replace', path: ['budgets', 0, 'lines', 0, 'overrides', ids[1]!], value: 1e15 }],
    ],
    [
      'leads to a budget of months that there are not',
      [{ op: 'replace', path: ['budgets', 0, 'first'], value: '2027-13' }],
    ],
    ['is no path', [{ op: 'replace', path: ['__proto__', 'x'], value: 1 }]],
  ])('an undo that %s is not done', (_, inverse) => {
    const h = openHistory(book(), [changed(inverse as never)]);
    expect(h.done).toHaveLength(1);
    expect(undo(h, 't')).toBe(h);
    // The book itself goes on.
    expect(perform(h, { type: 'renameBook', name: 'On' }, 't').ok).toBe(true);
  });
});
