import { lineBadge, METHOD_NAMES, methodBadge, typedMonths } from '@/store/methodWords';
import fc from 'fast-check';
import { minor, sum, type Minor } from '@/core/money';
import { balancesOf } from '@/core/ledger';
import { applyCommand, lineOf, type Book, type Line, type Method, type MethodKind } from '@/core/model';
import { createReckoner } from '@/core/plan';
import { createMemory, reckonedAs, type Ground, type Reckoned } from '@/core/ground';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  factsWith,
  lastYear,
  line,
  of,
  pattern,
  pct,
  phased,
  periodIds,
  share,
} from '@/core/test/build';
import {
  clearEdit,
  countAndSum,
  fillEdit,
  pasteEdit,
  restoreEdit,
  typeEdit,
  type Edit,
  type EditContext,
} from './edits';
import { methodAs } from '../methods/methodChange';

import type { Setup } from '../sheet/setup';
import { ghostCells, ghostFor } from '../rows/ghosts';
import { createFillers, NO_CHOICE, worksheet, type WorksheetChoice } from '../rows/worksheetRows';

const accounts = [
  account('s', 'income', 'Sales', '4000'),
  account('f', 'income', 'Fees', '4100'),
  account('r', 'expense', 'Rent', '6000'),
];
const season = [100, 200, 300, 400, 500, 600, 700, 800, 900, 1000, 1100, 1200].map((v) => v * 100);
const facts = factsWith(accounts, { s: season, r: new Array<number>(12).fill(5000) });
const ids = periodIds(2026);
const start = (change: Partial<Record<string, Line>> = {}): Book =>
  bookWith(accounts, {
    budgets: [
      budgetOf([
        change.s ?? line('s', lastYear()),
        change.f ?? line('f', byMonth()),
        change.r ?? line('r', lastYear()),
      ]),
    ],
  });

function reckonedOf(book: Book): Reckoned {
  const budget = book.budgets[0]!;
  return reckonedAs(budget, facts, createReckoner()(budget, facts));
}

const PLAIN: Setup = {
  grain: 'months',
  lead: ['badge'],
  info: ['change'],
  ghosts: 'selected',
  ghostOf: 'lastYear',
  costsFirst: false,
  wholeWindow: false,
};

const groundOf = (book: Book): Ground => ({
  book,
  calendar,
  balances: balancesOf([blockOf(accounts, [['2025-01-15', 's', 1]])], calendar),
  blocks: [],
  view: { merged: new Map(), keep: null },
  closedThrough: null,
  made: null,
  inCase: null,
  memory: createMemory(),
});

function contextOf(
  book: Book,
  setup: Partial<Setup> = {},
  choice: Partial<WorksheetChoice> = {},
): EditContext {
  const ground = groundOf(book);
  const reckoned = reckonedOf(book);
  const { rows, columns } = worksheet(
    ground,
    reckoned,
    { ...NO_CHOICE, ...choice, setup: { ...PLAIN, ...setup } },
    createFillers(),
  );
  return { book, reckoned, rows, columns, line: (ref) => lineOf(reckoned.budget, ref) };
}

/** Rows of the sheet: section, Sales, Fees, total, section, Rent, total, net profit. */
const [SALES, FEES, RENT] = [1, 2, 5];
const rect = (top: number, left: number, bottom = top, right = left) => ({ top, left, bottom, right });
const months = (book: Book, id: string) =>
  reckonedOf(book)
    .amounts(id)!
    .map((a) => (a === null ? null : a / 100));

function done(book: Book, edit: Edit): Book {
  if ('trouble' in edit) throw new Error(edit.trouble);
  const applied = applyCommand(book, edit.command);
  if (!applied.ok) throw new Error(applied.refusal.code);
  return applied.book;
}
const trouble = (edit: Edit) => ('trouble' in edit ? edit.trouble : null);

describe('the worksheet’s rows', () => {
  test('sections, lines with how they are made, totals and net profit', () => {
    const { rows, columns } = contextOf(start());
    expect(rows.map((r) => [r.kind, r.label, r.badge])).toEqual([
      ['section', 'Income', ''],
      ['line', 'Sales', 'Last year'],
      ['line', 'Fees', 'By month'],
      ['subtotal', 'Total income', ''],
      ['section', 'Expenses', ''],
      ['line', 'Rent', 'Last year'],
      ['subtotal', 'Total expenses', ''],
      ['result', 'Net profit', ''],
    ]);
    expect(columns.map((c) => c.label)).toEqual([
      'Jan',
      'Feb',
      'Mar',
      'Apr',
      'May',
      'Jun',
      'Jul',
      'Aug',
      'Sep',
      'Oct',
      'Nov',
      'Dec',
      'FY26',
      'on FY25',
    ]);
    expect(rows[SALES]!.values.slice(-2)).toEqual([780000, 0]);
    expect(rows.at(-1)!.values[0]).toBe(10000 - 5000);
  });
  test('the quiet row has last year, the outlook or another budget by the same columns', () => {
    const other = { ...budgetOf([line('s', byMonth({ [ids[3]!]: minor(77) }))]), id: 'b2', name: 'Other' };
    const book = { ...start(), budgets: [...start().budgets, other] };
    const { reckoned, columns } = contextOf(book, { grain: 'quarters' });
    const ground = groundOf(book);
    const of = (setup: Partial<Setup>) => {
      const ghost = ghostFor(ground, reckoned, { ...PLAIN, ...setup }, null);
      return ghost && [ghost.label, ...ghostCells(ghost, 's', columns, reckoned)];
    };
    expect(of({})).toEqual(['FY25 actual', 60000, 150000, 240000, 330000, 780000, null]);
    expect(of({ ghostOf: 'outlook' })).toEqual(['Outlook', 60000, 150000, 240000, 330000, 780000, null]);
    expect(of({ ghostOf: 'b2' })).toEqual(['Other', null, 77, null, null, 77, null]);
    expect(of({ ghosts: 'none' })).toBeNull();
  });
  test.each<[Setup['grain'], number]>([
    ['months', 14],
    ['quarters', 6],
    ['year', 2],
  ])('%s make %d columns, and all add up to the same year', (grain, columns) => {
    const c = contextOf(start(), { grain });
    expect(c.columns).toHaveLength(columns);
    const amounts = c.rows[SALES]!.values.filter((_, i) => c.columns[i]!.kind === 'amount') as Minor[];
    if (grain !== 'year') expect(sum(amounts)).toBe(780000);
    expect(c.rows[SALES]!.values[c.columns.findIndex((x) => x.kind === 'total')]).toBe(780000);
  });
});

describe('typing', () => {
  test.each<[string, string, (number | null)[]]>([
    ['a plain amount', '150', [150, 200, 300]],
    ['thousands and cents', '1,500.25', [1500.25, 200, 300]],
    ['parentheses', '(20)', [-20, 200, 300]],
    ['more of what is there', '+10%', [110, 200, 300]],
    ['less of what is there', '−50%', [50, 200, 300]],
    ['nothing', '', [null, 200, 300]],
  ])('%s', (_n, text, expected) => {
    const book = start();
    expect(
      months(done(book, typeEdit(contextOf(book), { row: SALES, column: 0 }, text)), 's').slice(0, 3),
    ).toEqual(expected);
  });
  test.each([
    ['twelve', 'Not an amount, nor a sum such as 52000/12'],
    ['5%', 'Write +5% or −5% to change what is there'],
    ['1.005', 'USD has 2 decimals at most'],
    ['99999999999999999', '99,999,999,999.99 is the most that an amount can be'],
    ['90071992547409', '99,999,999,999.99 is the most that an amount can be'],
  ])('%s is refused', (text, words) =>
    expect(trouble(typeEdit(contextOf(start()), { row: SALES, column: 0 }, text))).toBe(words),
  );
  test.each<[string, number | null]>([
    ['5', 5000],
    ['1.5', 1500],
    ['0.00125', 1.25],
    ['12/5', 2400],
    ['+10%', 110],
  ])('in a sheet in thousands, %s is %d', (text, expected) => {
    const plain = start();
    const book: Book = { ...plain, settings: { ...plain.settings, thousands: true } };
    const typed = done(book, typeEdit(contextOf(book), { row: SALES, column: 0 }, text));
    expect(months(typed, 's')[0]).toBe(expected);
    expect(trouble(typeEdit(contextOf(book), { row: SALES, column: 0 }, '0.000001'))).toBe(
      'In thousands, USD has 5 decimals at most',
    );
  });
  test('over what a schedule makes, an amount stands instead of it, or on top', () => {
    const book = start({ r: line('r', { kind: 'schedule', beside: {} }) });
    const parts = [{ of: 'interest' as const, amounts: ids.map((_, i) => (i === 3 ? 700 : 0)) }];
    const made = [{ account: 'r', segment: null, parts }];
    const reckonedWith = (b: Book) =>
      reckonedAs(b.budgets[0]!, facts, createReckoner()({ ...b.budgets[0]!, made }, facts));
    const c = { ...contextOf(book), reckoned: reckonedWith(book) };
    const edit = typeEdit(c, { row: RENT, column: 3 }, '5');
    if ('trouble' in edit) throw new Error(edit.trouble);
    const told = (b: Book) => reckonedWith(b).reckoning.lines.get(of('r'))!.amounts.slice(2, 5);
    const instead = done(book, edit);
    expect(told(instead)).toEqual([0, 500, 0]);
    const onTop = edit.otherwise!.commands.reduce<Book>(
      (b, command) => done(b, { command, word: null }),
      instead,
    );
    expect(told(onTop)).toEqual([0, 1200, 0]);
    // Of a month that nothing makes there is nothing to ask.
    expect(typeEdit(c, { row: RENT, column: 4 }, '5')).not.toHaveProperty('otherwise');
  });
  test('a year below the months that are typed says so, and can be divided over all of them', () => {
    const book = start();
    const typed = done(book, typeEdit(contextOf(book), { row: SALES, column: 0 }, '9000'));
    const edit = typeEdit(contextOf(typed), { row: SALES, column: 12 }, '6000');
    if ('trouble' in edit) throw new Error(edit.trouble);
    expect(edit.word).toMatch(/^Months that were typed come to more/);
    const first = done(typed, edit);
    expect(months(first, 's')[0]).toBe(9000);
    const all = edit.otherwise!.commands.reduce<Book>(
      (b, command) => done(b, { command, word: null }),
      first,
    );
    expect(months(all, 's')[0]).toBeLessThan(6000);
    expect(months(all, 's').reduce((a, b) => a! + b!)).toBeCloseTo(6000);
    expect(typeEdit(contextOf(typed), { row: SALES, column: 12 }, '9000')).not.toHaveProperty('otherwise');
  });
  test('a line is made as it says until every month is typed; another method leaves those or makes them', () => {
    const two = Object.fromEntries(ids.slice(0, 2).map((p) => [p, minor(7)]));
    const some = line('s', lastYear({ uplift: pct('4') }), two);
    const all = line('s', lastYear(), Object.fromEntries(ids.map((p) => [p, null])));
    const { periods } = facts;
    expect([some, all].map((l) => [lineBadge(l, periods), typedMonths(l, periods)])).toEqual([
      ['Last year +4%', 2],
      ['Typed', 12],
    ]);
    expect(lineBadge(line('s', lastYear()), [])).toBe('Last year');
    const book = start({ s: some });
    const lines = [{ ...of('s'), method: phased(1200) }];
    const left = (restore: boolean) =>
      done(book, { command: { type: 'setMethods', budget: 'b1', lines, restore }, word: null });
    expect(left(false).budgets[0]!.lines[0]!.overrides).toEqual(two);
    expect(left(true).budgets[0]!.lines[0]!.overrides).toEqual({});
  });
  test('the change on last year cannot be typed', () => {
    expect(trouble(typeEdit(contextOf(start()), { row: SALES, column: 13 }, '1'))).toBe(
      'This column is reckoned',
    );
  });
  test('a quarter is spread in proportion, a year becomes the pattern’s amount', () => {
    const book = start();
    const quarter = done(
      book,
      typeEdit(contextOf(book, { grain: 'quarters' }), { row: SALES, column: 0 }, '1200'),
    );
    expect(months(quarter, 's').slice(0, 4)).toEqual([200, 400, 600, 400]);
    const year = done(book, typeEdit(contextOf(book), { row: SALES, column: 12 }, '15600'));
    expect(year.budgets[0]!.lines[0]!.method).toMatchObject({
      kind: 'pattern',
      amounts: { amounts: [1560000] },
    });
  });
});

describe('over a range', () => {
  test('fill, clear and restore give back what was there', () => {
    const book = start();
    const filled = done(book, fillEdit(contextOf(book), rect(SALES, 1, RENT, 4)));
    expect(months(filled, 's').slice(0, 6)).toEqual([100, 200, 200, 200, 200, 600]);
    expect(months(filled, 'r').slice(0, 3)).toEqual([50, 50, 50]);
    const cleared = done(filled, clearEdit(contextOf(filled), rect(SALES, 0, SALES, 11)));
    expect(months(cleared, 's').every((m) => m === null)).toBe(true);
    const restored = done(cleared, restoreEdit(contextOf(cleared), rect(SALES, 0, RENT, 12)));
    expect(months(restored, 's')).toEqual(months(book, 's'));
  });
  test('what cannot be done is said', () => {
    const c = contextOf(start());
    expect(trouble(fillEdit(c, rect(SALES, 3)))).toMatch(/Select the month to fill from/);
    expect(trouble(restoreEdit(c, rect(SALES, 0, RENT, 11)))).toBe(
      'Nothing in the selection is typed over a method.',
    );
    expect(trouble(clearEdit(c, rect(3, 0)))).toBe('Nothing here can be made blank.');
  });
  test('a pasted block skips totals and headings, and says what it left out', () => {
    const book = start();
    const edit = pasteEdit(contextOf(book), rect(SALES, 10), [
      ['1', '2', '9', '9'],
      ['3', '', '9', '9'],
      ['7', '7', '7', '7'],
    ]);
    expect('word' in edit && edit.word).toBe(
      'Pasted 4 months of 2 lines. 2 cells outside the lines and months left out.',
    );
    const after = done(book, edit);
    expect([months(after, 's').slice(10), months(after, 'f').slice(10)]).toEqual([
      [1, 2],
      [3, null],
    ]);
  });
  test('one cell that cannot be read refuses the whole block', () => {
    expect(trouble(pasteEdit(contextOf(start()), rect(SALES, 0), [['1', 'x']]))).toBe(
      'Nothing was pasted: row 1, column 2 of the block holds “x”. Not an amount, nor a sum such as 52000/12.',
    );
    expect(trouble(pasteEdit(contextOf(start()), rect(3, 0), [['1']]))).toMatch(/meets no month/);
  });
  test('count and sum leave blanks and totals out', () => {
    expect(countAndSum(contextOf(start()), rect(SALES, 0, RENT, 12))).toEqual({
      count: 24,
      sum: 780000 + 60000,
    });
    expect(countAndSum(contextOf(start()), rect(FEES, 0))).toEqual({ count: 0, sum: 0 });
  });
});

const step = (startAt: Minor): Method => ({
  kind: 'step',
  start: startAt,
  first: ids[2]!,
  every: 3,
  change: { of: 'amount', amount: minor(17) },
  round: 0,
});

describe('changing the method keeps what the line says', () => {
  const asMethod = (kind: MethodKind, from: Line) => {
    const book = start({ s: from });
    const r = reckonedOf(book);
    const method = methodAs(kind, from, r.reckoning.lines.get(of('s')), r, book)!;
    const applied = applyCommand(book, { type: 'setMethods', budget: 'b1', lines: [{ ...of('s'), method }] });
    if (!applied.ok) throw new Error(applied.refusal.code);
    return { method, before: r.amounts('s')!, after: reckonedOf(applied.book).amounts('s')! };
  };
  test('by month keeps every month, typed ones included', () => {
    const { before, after } = asMethod(
      'byMonth',
      line('s', lastYear(), { [ids[2]!]: minor(7), [ids[3]!]: null }),
    );
    expect(after).toEqual(before);
  });
  test('even and pattern keep the year', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e9 }).map(minor),
        fc.constantFrom('phased' as const, 'pattern' as const, 'unphased' as const),
        (annual, kind) => {
          const from = line('s', step(annual));
          const book = start({ s: from });
          const r = reckonedOf(book);
          const method = methodAs(kind, from, r.reckoning.lines.get(of('s')), r, book)!;
          const after = reckonedOf(start({ s: line('s', method) }));
          const total = (x: Reckoned) => x.reckoning.lines.get(of('s'))!.total;
          expect(total(after)).toBe(total(r));
        },
      ),
    );
  });
  test('a pattern made from last year keeps its uplift', () => {
    expect(asMethod('pattern', line('s', lastYear({ uplift: pct('4') }))).method).toEqual(
      pattern(null, { uplift: pct('4') }),
    );
  });
  test('a share starts at what it was last year, to a tenth of a percent', () => {
    expect(asMethod('share', line('s', lastYear())).method).toMatchObject({ kind: 'share', percent: '0' });
    const rent = line('r', lastYear());
    const book = start({ r: rent });
    const r = reckonedOf(book);
    expect(methodAs('share', rent, r.reckoning.lines.get(of('r')), r, book)).toEqual(share('s', '7.7'));
  });
  test('every method has a name and a badge', () => {
    for (const kind of Object.keys(METHOD_NAMES) as MethodKind[]) {
      // A line cannot follow drivers or rows before there is one.
      if (kind !== 'driver' && kind !== 'schedule')
        expect(methodBadge(asMethod(kind, line('s', lastYear())).method)).not.toBe('');
    }
  });
});
