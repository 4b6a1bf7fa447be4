import fc from 'fast-check';
import { minor, sum, type Minor } from '@/core/money';
import { balancesOf } from '@/core/ledger';
import { applyCommand, lineOf, type Book } from '@/core/model';
import { createReckoner } from '@/core/plan';
import { createMemory, reckonedAs, type Ground } from '@/core/ground';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  factsWith,
  line,
  of,
  periodIds,
} from '@/core/test/build';
import { dragFillEdit, type Edit, type EditContext } from './edits';
import { isFiltering, NO_FILTER, type Filter } from '../sheet/filters';
import { pasteOf } from './paste';
import type { Setup } from '../sheet/setup';
import {
  addAmount,
  carryOn,
  clearMonths,
  copyFrom,
  raiseBy,
  roundSelection,
  setTotal,
  swapSign,
} from './tools';
import { TOOLS } from './commands';
import { createFillers, NO_CHOICE, worksheet, type WorksheetChoice } from '../rows/worksheetRows';

const accounts = [
  account('s', 'income', 'Sales', '4000'),
  { ...account('f', 'income', 'Fees', '4100'), group: 'Members' },
  { ...account('r', 'expense', 'Rent', '6000'), keeper: 'Ann' },
  account('h', 'expense', 'Heat', '6100'),
];
const ids = periodIds(2026);
const facts = factsWith(accounts, { s: [1000, 2000], r: [500] });
const months = (...values: (number | null)[]) =>
  byMonth(Object.fromEntries(values.flatMap((v, i) => (v === null ? [] : [[ids[i]!, minor(v)]]))));
const start = (): Book =>
  bookWith(accounts, {
    budgets: [
      budgetOf([
        line('s', months(10_000, 20_000, 30_000)),
        line('f', months(500, null, -700)),
        { ...line('r', months(4000)), looked: { by: 'K', at: 't' } },
        { ...line('h', months(1, 2, 3)), note: { text: 'why', by: '', at: '' } },
      ]),
    ],
  });
const PLAIN: Setup = {
  grain: 'months',
  lead: ['badge'],
  info: ['change'],
  ghosts: 'none',
  ghostOf: 'lastYear',
  costsFirst: false,
  wholeWindow: false,
};

function contextOf(
  book: Book,
  setup: Partial<Setup> = {},
  choice: Partial<WorksheetChoice> = {},
): EditContext {
  const balances = balancesOf([], calendar);
  const ground = {
    book,
    calendar,
    balances,
    blocks: [],
    view: { merged: new Map(), keep: null },
    memory: createMemory(),
  } as unknown as Ground;
  const budget = book.budgets[0]!;
  const reckoned = reckonedAs(budget, facts, createReckoner()(budget, facts));
  const { rows, columns } = worksheet(
    ground,
    reckoned,
    { ...NO_CHOICE, ...choice, setup: { ...PLAIN, ...setup } },
    createFillers(),
  );
  return { book, reckoned, rows, columns, line: (ref) => lineOf(budget, ref) };
}
/** Rows: section, Sales, Fees, (group), total, section, Rent, Heat, total, net profit. */
const rowOf = (c: EditContext, id: string) => c.rows.findIndex((r) => r.account === id);
const rect = (c: EditContext, from: string, to: string, left: number, right = left) => ({
  top: rowOf(c, from),
  bottom: rowOf(c, to),
  left,
  right,
});
function after(book: Book, edit: Edit): Record<string, (number | null)[]> {
  if ('trouble' in edit) throw new Error(edit.trouble);
  const applied = applyCommand(book, edit.command);
  if (!applied.ok) throw new Error(applied.refusal.code);
  const { reckoned } = contextOf(applied.book);
  return Object.fromEntries(accounts.map((a) => [a.id, (reckoned.amounts(a.id) ?? []).slice(0, 4)]));
}

describe('tools over a selection', () => {
  const book = start();
  const c = contextOf(book);
  test.each<[string, (c: EditContext) => Edit, string, (number | null)[]]>([
    [
      'a percentage',
      (x) => raiseBy(x, rect(x, 's', 'f', 0, 2), '10' as never),
      's',
      [11_000, 22_000, 33_000, null],
    ],
    [
      'a percentage of blanks and negatives',
      (x) => raiseBy(x, rect(x, 's', 'f', 0, 2), '10' as never),
      'f',
      [550, null, -770, null],
    ],
    ['an amount', (x) => addAmount(x, rect(x, 's', 'f', 0, 2), minor(5)), 'f', [505, null, -695, null]],
    ['the sign', (x) => swapSign(x, rect(x, 'f', 'f', 0, 2)), 'f', [-500, null, 700, null]],
    [
      'a total in proportion',
      (x) => setTotal(x, rect(x, 's', 's', 0, 2), minor(600)),
      's',
      [100, 200, 300, null],
    ],
    [
      'a total over nothing',
      (x) => setTotal(x, rect(x, 's', 's', 3, 4), minor(7)),
      's',
      [10_000, 20_000, 30_000, 4],
    ],
    ['carrying on', (x) => carryOn(x, rect(x, 's', 's', 2), false), 's', [10_000, 20_000, 30_000, 30_000]],
    ['carrying on every line', (x) => carryOn(x, rect(x, 's', 's', 0), true), 'h', [1, 1, 1, 1]],
    ['clearing a month', (x) => clearMonths(x, rect(x, 's', 's', 0)), 'h', [null, 2, 3, null]],
    [
      'copying two months added up',
      (x) => copyFrom(x, rect(x, 's', 's', 3), () => [minor(40), null, minor(2)], 'x'),
      's',
      [10_000, 20_000, 30_000, 42],
    ],
  ])('%s', (_name, tool, id, expected) => expect(after(book, tool(c))[id]).toEqual(expected));

  test('rounding keeps each line’s rounded total; a total is met to the cent whatever stands there', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1e6, max: 1e6 }), { minLength: 3, maxLength: 3 }),
        fc.integer({ min: -1e7, max: 1e7 }),
        (values, total) => {
          const one = bookWith(accounts, { budgets: [budgetOf([line('s', months(...values))])] });
          const x = contextOf(one);
          const edit = roundSelection(x, rect(x, 's', 's', 0, 2), 1000);
          const all = values.reduce((a, b) => a + b, 0);
          const rounded = 'trouble' in edit ? values : after(one, edit).s!.slice(0, 3);
          expect(rounded.every((v) => v! % 1000 === 0)).toBe(true);
          expect(rounded.reduce<number>((a, b) => a + b!, 0)).toBe(
            (Math.sign(all) * Math.round(Math.abs(all) / 1000) || 0) * 1000,
          );
          const set = setTotal(x, rect(x, 's', 's', 0, 2), minor(total));
          if (!('trouble' in set)) expect(sum(after(one, set).s!.slice(0, 3) as Minor[])).toBe(total);
        },
      ),
      { numRuns: 60 },
    );
  });
  test('a handle drawn to the right repeats the months, drawn down repeats the lines', () => {
    const from = rect(c, 's', 's', 0, 1);
    expect(after(book, dragFillEdit(c, from, { ...from, right: 3 })).s).toEqual([
      10_000, 20_000, 10_000, 20_000,
    ]);
    const down = rect(c, 'r', 'r', 0, 1);
    expect(after(book, dragFillEdit(c, down, { ...down, bottom: rowOf(c, 'h') })).h).toEqual([
      4000,
      null,
      3,
      null,
    ]);
  });
  test('each has its own key and name, and says when there is nothing to do', () => {
    expect(new Set(TOOLS.map((t) => t.key)).size).toBe(TOOLS.length);
    expect(swapSign(c, rect(c, 's', 's', 5))).toEqual({ trouble: 'Nothing in the selection would change.' });
  });
});

describe('pasting', () => {
  const c = contextOf(start());
  test('what turns a sign or grows tenfold is shown first', () => {
    const turned = pasteOf(c, rect(c, 's', 's', 0), [['-10', '5']]);
    expect('preview' in turned && turned.preview.doubts).toEqual([{ account: 's', of: 'sign' }]);
    expect('command' in pasteOf(c, rect(c, 's', 's', 0), [['120', '210']])).toBe(true);
  });
  test('a block with heads goes to its lines and months; what is no amount is listed', () => {
    const pasted = pasteOf(c, rect(c, 's', 's', 0), [
      ['', 'Mar 2026', 'Apr 2026'],
      ['Rent', '9', 'x'],
      ['4000', '1', '2'],
    ]);
    if (!('preview' in pasted)) throw new Error();
    expect(pasted.preview.unread).toEqual([{ row: 2, column: 3, text: 'x' }]);
    const result = after(start(), pasted.preview.edit);
    expect([result.r, result.s]).toEqual([
      [4000, null, 900, null],
      [10_000, 20_000, 100, 200],
    ]);
  });
});

describe('what the sheet shows', () => {
  const shown = (
    filter: Partial<Filter>,
    setup: Partial<Setup> = {},
    choice: Partial<WorksheetChoice> = {},
  ) => contextOf(start(), setup, { filter: { ...NO_FILTER, ...filter }, ...choice }).rows.map((r) => r.label);
  test.each<[string, Partial<Filter>, string[]]>([
    ['words', { words: 'hea' }, ['Heat']],
    ['a code', { words: '4100' }, ['Fees']],
    ['a kind', { kinds: ['expense'] }, ['Rent', 'Heat']],
    ['a group', { group: 'Members' }, ['Fees']],
    ['codes', { codeFrom: '4100', codeTo: '6000' }, ['Fees', 'Rent']],
    ['a beginning of codes', { codeFrom: '41', codeTo: '41' }, ['Fees']],
    ['who looks after it', { keeper: 'Ann' }, ['Rent']],
    ['not looked at yet', { marks: ['notLooked'] }, ['Sales', 'Fees', 'Heat']],
    ['with a note', { marks: ['noted'] }, ['Heat']],
    ['lumps', { marks: ['lumps'] }, ['Sales', 'Fees', 'Rent', 'Heat']],
    ['typed over', { marks: ['typed'] }, []],
  ])('found by %s', (_name, filter, lines) => {
    const names = new Set(accounts.map((a) => a.name));
    expect(shown(filter).filter((l) => names.has(l))).toEqual(lines);
    expect(isFiltering({ ...NO_FILTER, ...filter })).toBe(true);
    expect(shown(filter)).toContain('Net profit');
  });
  test('a folded section and a folded group keep their totals', () => {
    expect(shown({}, {}, { folded: new Set(['section-income']) })).toEqual([
      'Income',
      'Total income',
      'Expenses',
      'Rent',
      'Heat',
      'Total expenses',
      'Net profit',
    ]);
    expect(shown({}, {}, { folded: new Set(['group-income-Members']) })).toContain('Total Members');
    expect(shown({}, {}, { folded: new Set(['group-income-Members']) })).not.toContain('Fees');
  });
  test('costs first', () => {
    const labels = shown({}, { costsFirst: true });
    expect(labels.indexOf('Rent')).toBeLessThan(labels.indexOf('Sales'));
    expect(labels.at(-1)).toBe('Net profit');
  });
  test('two years side by side: last year’s month before each month, and only ours can be typed', () => {
    const c = contextOf(start(), { grain: 'beside' });
    expect(c.columns.slice(0, 4).map((x) => [x.over, x.label, x.kind])).toEqual([
      ['FY25', 'Jan', 'info'],
      ['FY26', 'Jan', 'amount'],
      ['FY25', 'Feb', 'info'],
      ['FY26', 'Feb', 'amount'],
    ]);
    expect(c.rows[rowOf(c, 's')]!.values.slice(0, 4)).toEqual([1000, 10_000, 2000, 20_000]);
  });
  test('chosen columns in their order', () => {
    const c = contextOf(start(), { info: ['share', 'lastYear', 'changePercent'] });
    expect(c.columns.slice(-3).map((x) => x.key)).toEqual(['share', 'lastYear', 'changePercent']);
    // The change compares the months that last year has.
    expect(c.rows[rowOf(c, 's')]!.values.slice(-2)).toEqual([3000, 9_000]);
  });
  test('how far the person is, by section', () => {
    expect(contextOf(start()).rows.find((r) => r.label === 'Expenses')!.aside).toBe('1 of 2 looked at');
  });
  test('whose line it is', () => expect(of('s')).toEqual({ account: 's', segment: null }));
});
