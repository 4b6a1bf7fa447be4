import { minor, percent } from '@/core/money';
import { SHIPPED } from '.';
import { account, bookWith, budgetOf, didAll, periodIds, refusalOf, siteAxis } from '@/core/test/build';
import { BOOK_VERSION, openBook, type Command, type Layout } from '@/core/model';

const own: Layout = {
  ...SHIPPED[0]!,
  id: 'y1',
  rows: {
    ...SHIPPED[0]!.rows,
    own: [
      { row: 'account', account: 'a' },
      { row: 'account', account: 'b' },
    ],
  },
};
const book = bookWith([account('a', 'income', 'Sales'), account('b', 'income', 'Fees')], {
  axes: [siteAxis()],
  budgets: [budgetOf([], 'b1')],
});

const refused = (command: Command) => refusalOf(book, command);
const put: Command = { type: 'putLayouts', layouts: [own, { ...own, id: 'y2', name: 'Two' }] };
const typed = { kind: 'typed', amounts: { [periodIds(2026)[0]!]: minor(5) } } as const;

test('layouts are put, moved and taken away; each once', () => {
  const two = didAll(book, put);
  expect(two.layouts.map((l) => l.id)).toEqual(['y1', 'y2']);
  expect(didAll(two, { type: 'putLayouts', layouts: [{ ...own, name: 'One' }] }).layouts[0]!.name).toBe(
    'One',
  );
  expect(didAll(two, { type: 'moveLayout', layout: 'y2', before: 'y1' }).layouts.map((l) => l.id)).toEqual([
    'y2',
    'y1',
  ]);
  expect(didAll(two, { type: 'moveLayout', layout: 'y1', before: null }).layouts.map((l) => l.id)).toEqual([
    'y2',
    'y1',
  ]);
  expect(didAll(two, { type: 'removeLayout', layout: 'y1' }).layouts).toHaveLength(1);
  expect(refused({ type: 'putLayouts', layouts: [{ ...own, name: ' ' }] })).toBe('emptyName');
  expect(refused({ type: 'putLayouts', layouts: [{ ...own, columns: [] }] })).not.toBeNull();
});

test('thresholds are none below zero, of kinds and accounts that there are', () => {
  const flag = { amount: minor(100), percent: percent('5') };
  expect(didAll(book, { type: 'setFlag', of: 'kinds', key: 'income', flag }).flags.kinds).toEqual({
    income: flag,
  });
  const set = didAll(book, { type: 'setFlag', of: 'accounts', key: 'a', flag });
  expect(didAll(set, { type: 'setFlag', of: 'accounts', key: 'a', flag: null }).flags.accounts).toEqual({});
  expect(
    refused({ type: 'setFlag', of: 'accounts', key: 'a', flag: { ...flag, amount: minor(-1) } }),
  ).not.toBeNull();
  expect(
    refused({ type: 'setFlag', of: 'accounts', key: 'a', flag: { ...flag, percent: percent('-5') } }),
  ).not.toBeNull();
  expect(refused({ type: 'setFlag', of: 'accounts', key: 'nobody', flag })).toBe('noSuchAccount');
});

test('counts are kept under a driver’s name, whatever its capitals; without any it is gone', () => {
  const q = { name: 'Members', unit: '', decimals: 0, values: { [periodIds(2026)[0]!]: 5 } };
  const set = didAll(book, { type: 'setQuantities', quantities: [q, { ...q, name: ' members' }] });
  expect(set.quantities.map((x) => x.name)).toEqual([' members']);
  expect(didAll(set, { type: 'setQuantities', quantities: [{ ...q, values: {} }] }).quantities).toEqual([]);
  expect(refused({ type: 'setQuantities', quantities: [{ ...q, name: '' }] })).toBe('emptyName');
});

test('a line’s outlook is of a budget and an account that there are, and goes with its budget', () => {
  const way: Command = { type: 'setOutlookWay', budget: 'b1', account: 'a', way: typed };
  const set = didAll(book, way);
  expect(set.outlookWays).toEqual({ b1: { a: typed } });
  expect(didAll(set, { ...way, way: null }).outlookWays).toEqual({});
  expect(didAll(set, { type: 'deleteBudget', budget: 'b1' }).outlookWays).toEqual({});
  expect(refused({ ...way, budget: 'b9' })).toBe('noSuchBudget');
  expect(refused({ ...way, account: 'nobody' })).toBe('noSuchAccount');
});

test('what names an account follows it when it is merged', () => {
  const flag = { amount: minor(100), percent: percent('5') };
  const all = didAll(
    book,
    put,
    { type: 'setFlag', of: 'accounts', key: 'a', flag },
    { type: 'setOutlookWay', budget: 'b1', account: 'a', way: typed },
    { type: 'mergeAccounts', from: 'a', into: 'b', lines: [] },
  );
  expect(all.flags.accounts).toEqual({ b: flag });
  expect(all.outlookWays).toEqual({ b1: { b: typed } });
  // It is there already, and stands once.
  expect(all.layouts[0]!.rows.own).toEqual([{ row: 'account', account: 'b' }]);
});

test('a book that names what is not there opens without it, and says so', () => {
  const spoiled = {
    ...didAll(book, put),
    layouts: [
      { ...own, rows: { ...own.rows, own: [{ row: 'account', account: 'gone' }] } },
      own,
      { ...own, id: 'y3', segments: { axis: 'gone', place: 'across', values: ['v'] } },
    ],
    flags: { kinds: { magic: { amount: 1, percent: '5' } }, accounts: { gone: { amount: 1, percent: '5' } } },
    outlookWays: { gone: {}, b1: { gone: typed } },
    quantities: [
      { name: 'Hours', unit: '', decimals: 0, values: {} },
      { name: 'hours', unit: '', decimals: 0, values: {} },
    ],
  };
  const opened = openBook(JSON.parse(JSON.stringify(spoiled)));
  if (!opened.ok) throw new Error('not opened');
  expect(opened.setAside.map((s) => [s.part, s.because])).toEqual([
    ['flag', 'noSuchAccount'],
    ['flag', 'noSuchAccount'],
    ['outlookWay', 'noSuchPeriod'],
    ['outlookWay', 'noSuchAccount'],
    ['quantity', 'twice'],
    ['layout', 'noSuchAccount'],
    ['layout', 'twice'],
    ['layout', 'noSuchAxis'],
  ]);
  expect(opened.book.layouts.map((l) => [l.id, l.rows.own.length, l.segments.axis])).toEqual([
    ['y1', 0, null],
    ['y3', 2, null],
  ]);
});

test('a book of version 5 opens with nothing of all this', () => {
  const {
    layouts: _l,
    flags: _f,
    outlookWays: _o,
    quantities: _q,
    flowClasses: _c,
    covenants: _n,
    ...old
  } = book;
  const opened = openBook(JSON.parse(JSON.stringify({ ...old, version: 5 })));
  expect(opened.ok && opened.book).toMatchObject({
    version: BOOK_VERSION,
    layouts: [],
    flowClasses: {},
    covenants: [],
    flags: { kinds: {}, accounts: {} },
    outlookWays: {},
    quantities: [],
  });
});
