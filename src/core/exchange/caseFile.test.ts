import type { Day, PeriodId } from '@/core/calendar';
import { applyCommand, newBook, type Adjustment, type Adjusts, type Book } from '@/core/model';
import { minor } from '@/core/money';
import { account, bookWith, budgetOf, driver, periodIds, siteAxis } from '../test/build';
import { loanRow, staffRow } from '../test/schedule';
import { caseFile, readCases } from './caseFile';

/* Cases that go from book to book. */

const ids = periodIds(2026);
const adjustment = (id: string, what: Adjusts, until: PeriodId | null = null): Adjustment => ({
  id,
  name: `Named ${id}`,
  why: 'Because',
  by: 'Ines',
  at: '2026-01-01T00:00:00.000Z',
  what,
  when: { from: ids[1]!, until, every: 1, times: null, ramp: null },
  off: false,
});
const on = (id: string) => ({ lines: [{ of: 'account' as const, account: id }] });
const withheld = account('withheld', 'otherLiability', 'Withheld');
const loan = loanRow({ id: 'r1', name: 'Hoist' });
const dated = {
  id: 'd7',
  name: 'Grant',
  direction: 'in' as const,
  amount: minor(5),
  first: '2026-05-01' as Day,
  repeat: null,
  against: null,
  bank: null,
  group: 'other' as const,
};
const all: readonly Adjustment[] = [
  adjustment('j1', { on: 'amounts', reach: on('a1'), way: { as: 'percent' } }, ids[4]!),
  adjustment('j2', { on: 'amounts', reach: { ...on('a2'), segment: 'n' }, way: { as: 'amount' } }),
  adjustment('j3', { on: 'rowMoved', row: 'r1' }),
  adjustment('j4', { on: 'driver', driver: 'd1', way: { as: 'percent' } }),
  adjustment('j5', { on: 'datedMoved', item: 'd7' }),
  adjustment('j6', { on: 'rowAdded', row: staffRow({ account: 'a2' }), by: 'yes' }),
  adjustment('j7', { on: 'items', side: 'in', counterparty: 'Yard', item: null, as: 'later' }),
];
const full = (change: Partial<Book> = {}, at = { row: 'r1', driver: 'd1', dated: 'd7' }): Book => {
  const book = bookWith(
    [account('a1', 'income', 'Sales', '4000'), account('a2', 'expense', 'Pay', '6000'), withheld],
    {
      axes: [siteAxis()],
      nextId: 50,
      budgets: [
        budgetOf([], 'b1', {
          // A row goes by its kind and its name: neither of the others is it.
          schedules: [
            loanRow({ id: 'r20', name: 'Crane' }),
            staffRow({ id: 'r21', account: 'a2', name: 'Hoist' }),
            { ...loan, id: at.row },
          ],
          drivers: [{ ...driver(at.driver, { kind: 'typed', values: {} } as never), name: 'Hours' }],
        }),
      ],
      ...change,
    },
  );
  return { ...book, cash: { ...book.cash, dated: [{ ...dated, id: at.dated }] } };
};
const sizes = (...list: string[]) =>
  Object.fromEntries(list.map((id, i) => [id, { size: 10 * (i + 1), low: null, high: null }]));
const from = full({
  adjustments: [...all],
  cases: [
    { id: 'k1', name: 'Worse', by: '', at: '2026-01-01T00:00:00.000Z', sizes: sizes('j1', 'j3', 'j7') },
    { id: 'k2', name: 'Better', by: '', at: '2026-01-01T00:00:00.000Z', sizes: sizes('j2') },
  ],
});
const file = caseFile(from);

test('into its own book all of it comes back as it went out', () => {
  expect(readCases(file, from)).toEqual({ adjustments: all, cases: from.cases, issues: [] });
});

test('into another book by code, then by name; months by their days', () => {
  // A book whose fiscal year begins in July, under ids of its own.
  const july = newBook({ id: 'x', name: 'X', currency: from.currency, locale: 'en-US', firstMonth: 7 });
  const to = full(
    {
      calendar: july.calendar,
      accounts: [account('k1', 'income', 'Turnover', '4000'), account('k2', 'expense', 'pay '), withheld],
      axes: [{ ...siteAxis(), id: 'z', values: [{ id: 'v1', name: 'North', from: [] }] }],
    },
    { row: 'r8', driver: 'q1', dated: 't1' },
  );
  const { adjustments, issues } = readCases(file, to);
  expect(issues).toEqual([]);
  expect(adjustments.map((a) => a.what)).toMatchObject([
    { reach: on('k1') },
    { reach: { ...on('k2'), segment: 'v1' } },
    { row: 'r8' },
    { driver: 'q1' },
    { item: 't1' },
    { row: { account: 'k2' } },
    { counterparty: 'Yard' },
  ]);
  // February to May 2026 are the eighth to the eleventh month of a year from July 2025 on.
  expect(adjustments[0]!.when).toMatchObject({ from: '2026-08', until: '2026-11' });
});

test('what the book has not, and money of another currency, is left out and told', () => {
  const to = bookWith([account('k1', 'income', 'Sales')], { currency: 'JPY' });
  const { adjustments, cases, issues } = readCases(file, to);
  expect(adjustments.map((a) => a.id)).toEqual(['j1', 'j7']);
  expect(cases[0]!.sizes).toEqual({ j1: from.cases[0]!.sizes.j1, j7: from.cases[0]!.sizes.j7 });
  expect(issues.map((i) => [i.code, 'name' in i && i.name])).toEqual([
    ['noSuchAccount', 'Pay'],
    ['noSuchRow', 'Hoist'],
    ['noSuchDriver', 'Hours'],
    ['noSuchItem', 'Grant'],
    ['noSuchAccount', 'Pay'],
  ]);
  const paid = bookWith([account('k1', 'income', 'Sales'), account('k2', 'expense', 'Pay'), withheld], {
    currency: 'JPY',
  });
  expect(readCases(file, paid).issues.map((i) => i.code)).toEqual([
    'otherCurrency',
    'noSuchRow',
    'noSuchDriver',
    'noSuchItem',
    'otherCurrency',
  ]);
});

test.each([
  ['{"format": ', 'notJson'],
  ['[]', 'notCases'],
  ['null', 'notCases'],
  ['{"format":"tellan.layout","version":1}', 'notCases'],
  ['{"format":"tellan.cases","version":2}', 'newerVersion'],
  ['{"format":"tellan.cases","version":1}', 'invalid'],
  [file.replace('"size": 10', '"size": "ten"'), 'invalid'],
])('%s is refused', (text, code) => {
  expect(readCases(text, from)).toMatchObject({ adjustments: [], cases: [], issues: [{ code }] });
});

test('taken in they are new adjustments; a case of the same name takes their sizes, another is new', () => {
  const read = readCases(file, from);
  const done = applyCommand(
    { ...from, budgets: [], cases: from.cases.slice(0, 1) },
    { type: 'takeCases', adjustments: read.adjustments, cases: read.cases },
  );
  expect(done.ok ? null : done.refusal).toBeNull();
  const book = done.ok ? done.book : from;
  expect(book.adjustments).toHaveLength(14);
  expect(new Set(book.adjustments.map((a) => a.id)).size).toBe(14);
  expect(book.cases.map((c) => [c.name, Object.values(c.sizes).map((s) => s.size)])).toEqual([
    ['Worse', [10, 20, 30, 10, 20, 30]],
    ['Better', [10]],
  ]);
});
