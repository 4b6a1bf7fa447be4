import { minor } from '@/core/money';
import { account, bookWith, didAll, periodIds, refusalOf } from '@/core/test/build';
import { openBook, type Adjustment, type Book } from '.';

const AT = '2026-01-01T00:00:00Z';
const person = { by: 'me', at: AT };
const adjustment = (name: string, of = 'rent'): Omit<Adjustment, 'id'> => ({
  name,
  why: 'The landlord wrote',
  ...person,
  what: {
    on: 'amounts',
    reach: { lines: [{ of: 'account', account: of }] },
    way: { as: 'percent' },
  },
  when: { from: periodIds(2026)[0]!, until: null, every: 1, times: null, ramp: null },
  off: false,
});
const size = (n: number) => ({ size: n, low: null, high: null });

const book = (): Book =>
  didAll(
    bookWith([account('rent', 'expense'), account('power', 'expense')]),
    {
      type: 'addCases',
      cases: [
        { name: 'Better', ...person },
        { name: 'Worse', ...person },
      ],
      like: null,
    },
    { type: 'addAdjustment', adjustment: adjustment('Rent'), sizes: { k101: size(5000) } },
    { type: 'addAdjustment', adjustment: adjustment('Power', 'power'), sizes: {} },
  );

test('adjustments have ids of their own, and their sizes stand with their cases', () => {
  const b = book();
  expect(b.adjustments.map((a) => [a.id, a.name])).toEqual([
    ['j102', 'Rent'],
    ['j103', 'Power'],
  ]);
  expect(b.cases.map((c) => [c.id, c.name, Object.keys(c.sizes)])).toEqual([
    ['k100', 'Better', []],
    ['k101', 'Worse', ['j102']],
  ]);
});

test('a case begins with the sizes of another, under a name that none has', () => {
  const b = didAll(book(), { type: 'addCases', cases: [{ name: 'Worse', ...person }], like: 'k101' });
  expect(b.cases.at(-1)).toMatchObject({ id: 'k104', name: 'Worse 2', sizes: { j102: size(5000) } });
  const renamed = didAll(b, { type: 'renameCase', case: 'k104', name: 'Better' });
  expect(renamed.cases.at(-1)!.name).toBe('Better 2');
});

test('a size is put in its cell and taken out of it; an adjustment that goes takes its sizes along', () => {
  const put = didAll(book(), {
    type: 'setSizes',
    cells: [
      { case: 'k100', adjustment: 'j103', size: size(-2000) },
      { case: 'k101', adjustment: 'j102', size: null },
    ],
  });
  expect(put.cases.map((c) => c.sizes)).toEqual([{ j103: size(-2000) }, {}]);
  const gone = didAll(put, { type: 'removeAdjustments', adjustments: ['j103'] });
  expect(gone.cases.map((c) => c.sizes)).toEqual([{}, {}]);
  expect(gone.adjustments.map((a) => a.id)).toEqual(['j102']);
});

test('another in the place of an adjustment may come with other sizes', () => {
  const [rent] = book().adjustments;
  const b = didAll(book(), {
    type: 'setAdjustment',
    adjustment: { ...rent!, why: 'He wrote again' },
    sizes: { k100: size(7000), k101: null },
  });
  expect(b.cases.map((c) => c.sizes)).toEqual([{ j102: size(7000) }, {}]);
  expect(b.adjustments[0]!.why).toBe('He wrote again');
});

test('the order of the list is said by moving one before another', () => {
  const moved = didAll(book(), { type: 'moveAdjustment', adjustment: 'j103', before: 'j102' });
  expect(moved.adjustments.map((a) => a.id)).toEqual(['j103', 'j102']);
  expect(
    didAll(moved, { type: 'moveAdjustment', adjustment: 'j103', before: null }).adjustments.map((a) => a.id),
  ).toEqual(['j102', 'j103']);
});

test.each([
  ['a size of no case', { type: 'setSizes', cells: [{ case: 'k9', adjustment: 'j102', size: null }] }],
  ['a size of no adjustment', { type: 'setSizes', cells: [{ case: 'k100', adjustment: 'j9', size: null }] }],
  ['a move of no adjustment', { type: 'moveAdjustment', adjustment: 'j9', before: null }],
  ['another in the place of none', { type: 'setAdjustment', adjustment: { ...adjustment('X'), id: 'j9' } }],
] as const)('%s is refused', (_, command) => {
  expect(refusalOf(book(), command)).toBe('noSuchItem');
});

test('a size beyond reason, and names of nothing, are refused', () => {
  expect(refusalOf(book(), { type: 'addCases', cases: [{ name: ' ', ...person }], like: null })).toBe(
    'emptyName',
  );
  const huge = { case: 'k100', adjustment: 'j102', size: size(1e15) };
  expect(refusalOf(book(), { type: 'setSizes', cells: [huge] })).not.toBeNull();
});

test('version 15 changes nothing of an older book: nobody has said yet how its quantities go over months', () => {
  const counted = { name: 'Members', unit: '', decimals: 0, values: { '2026-01': 12 } };
  const now = { ...book(), quantities: [counted] };
  const opened = openBook(JSON.parse(JSON.stringify({ ...now, version: 14 })));
  expect(opened.ok && opened.book).toEqual(now);
  const said = { ...now, quantities: [{ ...counted, over: 'last' }] };
  const again = openBook(JSON.parse(JSON.stringify(said)));
  expect(again.ok && again.book.quantities[0]!.over).toBe('last');
});

test('version 13 begins with no cases; what names an account that is not there is set aside, with its sizes', () => {
  const { adjustments: _, cases: __, ...old } = book();
  const opened = openBook(JSON.parse(JSON.stringify({ ...old, version: 12 })));
  expect(opened.ok && [opened.book.adjustments, opened.book.cases]).toEqual([[], []]);
  const spoiled = { ...book(), accounts: [account('power', 'expense')] };
  const again = openBook(JSON.parse(JSON.stringify(spoiled)));
  if (!again.ok) throw new Error(again.issue.code);
  expect(again.book.adjustments.map((a) => a.name)).toEqual(['Power']);
  expect(again.book.cases.map((c) => c.sizes)).toEqual([{}, {}]);
  expect(again.setAside).toEqual([{ part: 'adjustment', name: 'Rent', because: 'noSuchAccount' }]);
  const odd = { ...book(), cases: [{ ...book().cases[0]!, sizes: { j77: size(minor(1)) } }] };
  const third = openBook(JSON.parse(JSON.stringify(odd)));
  expect(third.ok && third.setAside).toEqual([{ part: 'case', name: 'Better', because: 'noSuchAdjustment' }]);
});
