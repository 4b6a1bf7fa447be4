import { account, bookWith, didAll, periodIds, refusalOf } from '../test/build';
import { BOOK_VERSION, openBook, type Command, type Covenant } from '.';

const covenant: Covenant = {
  id: 'c1',
  name: 'Bank',
  ratio: 'current',
  bound: 'least',
  limit: 1250,
  from: periodIds(2026)[0]!,
  tested: 'period',
};
const book = bookWith([account('l', 'loan', 'Loan'), account('m', 'loan', 'Mortgage')]);

const refused = (command: Command) => refusalOf(book, command);

test('where accounts belong is said, taken back, and joins the account that another is merged into', () => {
  const said = didAll(book, { type: 'setFlowClass', accounts: ['l', 'm'], flow: 'operating' });
  expect(said.flowClasses).toEqual({ l: 'operating', m: 'operating' });
  expect(didAll(said, { type: 'setFlowClass', accounts: ['l'], flow: null }).flowClasses).toEqual({
    m: 'operating',
  });
  expect(refused({ type: 'setFlowClass', accounts: ['gone'], flow: 'cash' })).toBe('noSuchAccount');
  const one = didAll(book, { type: 'setFlowClass', accounts: ['l'], flow: 'investing' });
  expect(didAll(one, { type: 'mergeAccounts', from: 'l', into: 'm', lines: [] }).flowClasses).toEqual({
    m: 'investing',
  });
});

test('a covenant is kept under its id, needs a name, and can be taken away', () => {
  const kept = didAll(
    book,
    { type: 'setCovenant', covenant },
    { type: 'setCovenant', covenant: { ...covenant, limit: 2000 } },
  );
  expect(kept.covenants).toEqual([{ ...covenant, limit: 2000 }]);
  expect(refused({ type: 'setCovenant', covenant: { ...covenant, name: ' ' } })).toBe('emptyName');
  expect(didAll(kept, { type: 'removeCovenant', covenant: 'c1' }).covenants).toEqual([]);
});

test('a book of version 6 opens with neither; what names accounts that are gone is set aside', () => {
  const { flowClasses: _c, covenants: _n, ...old } = book;
  const opened = openBook(JSON.parse(JSON.stringify({ ...old, version: 6 })));
  expect(opened.ok && opened.book).toMatchObject({ version: BOOK_VERSION, flowClasses: {}, covenants: [] });
  const broken = openBook({
    ...book,
    flowClasses: { gone: 'cash', l: 'cash' },
    covenants: [covenant, covenant],
  });
  if (!broken.ok) throw new Error('not opened');
  expect(broken.book.flowClasses).toEqual({ l: 'cash' });
  expect(broken.book.covenants).toEqual([covenant]);
  expect(broken.setAside.map((s) => s.part)).toEqual(['flowClass', 'covenant']);
});

test('a covenant of a book of version 8 is tested every month, and no cost is said to be mixed', () => {
  const { variableShares: _v, ...old } = book;
  const { tested: _t, ...before } = covenant;
  const opened = openBook(JSON.parse(JSON.stringify({ ...old, version: 8, covenants: [before] })));
  expect(opened.ok && opened.book).toMatchObject({ variableShares: {}, covenants: [covenant] });
});

test('a covenant on a ratio of one’s own needs it, and goes and comes back with it', () => {
  const ratio = { id: 'o1', name: 'Loans', formula: '"account:l" / "account:m"', unit: 'times' as const };
  const own: Covenant = { ...covenant, id: 'c2', ratio: { own: 'o1' }, tested: 'quarter' };
  expect(refused({ type: 'setCovenant', covenant: own })).toBe('noSuchRatio');
  const kept = didAll(
    book,
    { type: 'setOwnRatio', ratio },
    { type: 'setCovenant', covenant },
    { type: 'setCovenant', covenant: own },
  );
  expect(kept.covenants).toEqual([covenant, own]);
  expect(didAll(kept, { type: 'removeOwnRatio', ratio: 'o1' }).covenants).toEqual([covenant]);
  const without = openBook(JSON.parse(JSON.stringify({ ...kept, ownRatios: [] })));
  expect(without).toMatchObject({
    book: { covenants: [covenant] },
    setAside: [{ part: 'covenant', because: 'noSuchRatio' }],
  });
});

test('how much of a cost is variable is said in whole percent, taken back, and follows a merge', () => {
  const set = (variable: number | null) => ({
    type: 'setCostBehavior' as const,
    accounts: ['l'],
    variable,
  });
  const said = didAll(book, set(40));
  expect(said.variableShares).toEqual({ l: 40 });
  expect(didAll(book, set(250)).variableShares).toEqual({ l: 100 });
  expect(didAll(said, set(null)).variableShares).toEqual({});
  expect(refused({ ...set(1), accounts: ['gone'] })).toBe('noSuchAccount');
  expect(didAll(said, { type: 'mergeAccounts', from: 'l', into: 'm', lines: [] }).variableShares).toEqual({
    m: 40,
  });
  const opened = openBook(JSON.parse(JSON.stringify({ ...said, variableShares: { l: 40, gone: 5 } })));
  expect(opened).toMatchObject({
    book: { variableShares: { l: 40 } },
    setAside: [{ part: 'costBehavior', because: 'noSuchAccount' }],
  });
});

test('a ratio of one’s own is kept, follows accounts that are merged, and can be taken away', () => {
  const ratio = { id: 'o1', name: 'Loans', formula: '"account:l" / "account:m"', unit: 'times' as const };
  const kept = didAll(book, { type: 'setOwnRatio', ratio });
  expect(kept.ownRatios).toEqual([ratio]);
  expect(refused({ type: 'setOwnRatio', ratio: { ...ratio, name: '' } })).toBe('emptyName');
  const merged = didAll(kept, { type: 'mergeAccounts', from: 'l', into: 'm', lines: [] });
  expect(merged.ownRatios[0]!.formula).toBe('"account:m" / "account:m"');
  expect(didAll(kept, { type: 'removeOwnRatio', ratio: 'o1' }).ownRatios).toEqual([]);
  const twice = openBook(JSON.parse(JSON.stringify({ ...kept, ownRatios: [ratio, ratio] })));
  expect(twice).toMatchObject({
    ok: true,
    book: { ownRatios: [ratio] },
    setAside: [{ part: 'ratio', because: 'twice' }],
  });
});
