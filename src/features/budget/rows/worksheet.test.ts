import fc from 'fast-check';
import { minor, type Minor } from '@/core/money';
import { applyCommand, profitSign, type Book, type Command, type Line } from '@/core/model';
import { createMemory, makeGround, reckoned, sameMonths, yearBefore } from '@/core/ground';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  lastYear,
  line,
  phased,
  runRate,
  share,
  siteAxis,
  sourceOf,
  unphased,
} from '@/core/test/build';
import type { Setup } from '../sheet/setup';
import { createFillers, NO_CHOICE, worksheet, type Worksheet, type WorksheetChoice } from './worksheetRows';
import { NO_FILTER } from '../sheet/filters';

/*
 * Whatever is budgeted, in whatever segments, and however the person looks at it: the sheet adds up, and what it
 * remembers from one edit to the next shows what would be shown without any memory.
 */

const accounts = [
  account('s', 'income', 'Sales', '4000'),
  { ...account('f', 'income', 'Fees', '4100'), group: 'Members' },
  { ...account('d', 'income', 'Dues', '4200'), group: 'Members' },
  account('g', 'costOfSales', 'Goods', '5000'),
  account('r', 'expense', 'Rent', '6000'),
  account('i', 'otherIncome', 'Interest', '8000'),
  account('bank', 'bank', 'Bank', '1000'),
  account('loan', 'loan', 'Loan', '2500'),
];
const profitAndLoss = accounts.filter((a) => !['bank', 'loan'].includes(a.id));
const axis = siteAxis();
const block = blockOf(
  accounts,
  accounts.flatMap((a, k) =>
    Array.from(
      { length: 24 },
      (_, i) =>
        [
          `${2024 + Math.floor(i / 12)}-${String((i % 12) + 1).padStart(2, '0')}-15`,
          a.id,
          (k + 1) * 100 + i,
        ] as const,
    ),
  ),
);
const periods = Array.from({ length: 24 }, (_, i) => calendar.period(calendar.firstOfYear(2026) + i).id);

const amount = fc.integer({ min: -50_000, max: 90_000 }).map(minor);
const method = fc.oneof(
  fc.constant(byMonth()),
  fc.constant(lastYear()),
  fc.constant(runRate()),
  amount.map((a) => phased(a)),
  amount.map((a) => unphased(a)),
  fc.constant(share('s', '12.5')),
);
const cases = fc.record({
  length: fc.constantFrom(3, 12, 24),
  segmented: fc.boolean(),
  covers: fc.constantFrom('profitAndLoss' as const, 'both' as const),
  methods: fc.array(method, { minLength: 6, maxLength: 6 }),
});
type Case = typeof cases extends fc.Arbitrary<infer T> ? T : never;

function bookOf({ length, segmented, covers, methods }: Case): Book {
  const segments = segmented ? ['n', null] : [null];
  const lines: Line[] = segments.flatMap((segment, k) => [
    ...profitAndLoss.map((a, i) => line(a.id, methods[(i + k) % methods.length]!, {}, segment)),
    ...(covers === 'both' ? ['bank', 'loan'].map((id) => line(id, byMonth(), {}, segment)) : []),
  ]);
  return bookWith(accounts, {
    axes: [axis],
    sources: [sourceOf()],
    closedThrough: calendar.period(calendar.firstOfYear(2026) - 1).id,
    budgets: [budgetOf(lines, 'b1', { length, covers, axis: segmented ? 'x' : null, segments })],
  });
}

const views = fc.record({
  setup: fc.record({
    grain: fc.constantFrom<Setup['grain']>('months', 'beside', 'quarters', 'year'),
    lead: fc.constant<Setup['lead']>(['badge', 'picture']),
    info: fc.subarray<Setup['info'][number]>(['change', 'changePercent', 'lastYear', 'yearBefore', 'share']),
    ghosts: fc.constant('none' as const),
    ghostOf: fc.constant('lastYear'),
    costsFirst: fc.boolean(),
    wholeWindow: fc.constant(false),
  }),
  folded: fc.subarray(['section-income', 'group-income-Members', 'section-expense']).map((f) => new Set(f)),
  segment: fc.constantFrom('all' as const, 'n', null),
  words: fc.constantFrom('', '', 'e'),
});
type View = typeof views extends fc.Arbitrary<infer T> ? T : never;

const choiceOf = (view: View, segmented: boolean): WorksheetChoice => ({
  ...NO_CHOICE,
  setup: view.setup,
  folded: view.folded,
  segment: segmented ? view.segment : 'all',
  filter: { ...NO_FILTER, words: view.words },
});
const blocks = new Map([[block.id, block]]);
const sheetOf = (book: Book, choice: WorksheetChoice, memory = createMemory(), fillers = createFillers()) => {
  const ground = makeGround(book, blocks, memory);
  const whole = reckoned(ground, book.budgets[0]!);
  return { ground, whole, sheet: worksheet(ground, whole, choice, fillers) };
};

const added = (values: readonly (Minor | null | undefined)[]): number =>
  values.reduce<number>((a, v) => a + (v ?? 0), 0);
const column = (sheet: Worksheet, key: string) => sheet.columns.findIndex((c) => c.key === key);
const rowOf = (sheet: Worksheet, label: string) => sheet.rows.find((r) => r.label === label);

test('lines add up across, sections and results add up down, however it is looked at', () => {
  fc.assert(
    fc.property(cases, views, (c, view) => {
      const choice = choiceOf({ ...view, words: '', folded: new Set() }, c.segmented);
      const { ground, whole, sheet } = sheetOf(bookOf(c), choice);
      const before = yearBefore(ground, whole);
      const segment = whole.budget.segments.length === 1 ? null : choice.segment;
      const total = column(sheet, 'total');
      const wholes = column(sheet, 'wholes');
      for (const row of sheet.rows) {
        if (row.account === null || !profitAndLoss.some((a) => a.id === row.account)) continue;
        const own = whole.figures(row.account, segment)!;
        const all = added([...own.amounts, ...own.wholes]);
        expect(row.values[total] ?? 0).toBe(all);
        const plan = sheet.columns.flatMap((x, i) => (x.kind === 'amount' ? [row.values[i]] : []));
        if (plan.length > 0) expect(added(plan)).toBe(all - added(own.wholes));
        if (wholes >= 0) expect(row.values[wholes] ?? 0).toBe(added(own.wholes));
        const lastYear = column(sheet, 'lastYear');
        if (lastYear >= 0 && column(sheet, 'change') >= 0)
          expect(row.values[column(sheet, 'change')] ?? 0).toBe(
            (before.all ? all : added(sameMonths(before, own.amounts))) - (row.values[lastYear] ?? 0),
          );
      }
      // By the kinds of accounts alone: income less costs.
      const signs = new Map(profitAndLoss.map((a) => [a.id, profitSign(a.kind)]));
      for (const [i, { kind }] of sheet.columns.entries()) {
        if (kind === 'info') continue;
        const lines = sheet.rows.filter((r) => r.account !== null && signs.has(r.account));
        expect(rowOf(sheet, 'Net profit')!.values[i] ?? 0).toBe(
          lines.reduce((a, r) => a + signs.get(r.account!)! * (r.values[i] ?? 0), 0),
        );
        expect(rowOf(sheet, 'Total Members')!.values[i] ?? 0).toBe(
          added([rowOf(sheet, 'Fees')!.values[i], rowOf(sheet, 'Dues')!.values[i]]),
        );
      }
      expect(sheet.net ?? 0).toBe(rowOf(sheet, 'Net profit')!.values[total] ?? 0);
    }),
    { numRuns: 120 },
  );
});

test('segments add up to what is shown of all of them, amount by amount', () => {
  fc.assert(
    fc.property(cases, views, (c, view) => {
      const book = bookOf({ ...c, segmented: true });
      const [all, north, rest] = (['all', 'n', null] as const).map(
        (segment) => sheetOf(book, { ...choiceOf({ ...view, words: '' }, true), segment }).sheet,
      );
      all!.rows.forEach((row, r) => {
        all!.columns.forEach(({ shows, kind }, i) => {
          if (shows === 'changePercent' || shows === 'share') return;
          expect([row.label, kind, row.values[i] ?? 0]).toEqual([
            row.label,
            kind,
            added([north!.rows[r]!.values[i], rest!.rows[r]!.values[i]]),
          ]);
        });
      });
    }),
    { numRuns: 60 },
  );
});

const edits = fc.oneof(
  fc.record({
    what: fc.constant('cells' as const),
    account: fc.constantFrom(...accounts.map((a) => a.id)),
    segment: fc.constantFrom('n', null),
    month: fc.nat(23),
    value: fc.option(amount, { nil: null }),
  }),
  fc.record({
    what: fc.constant('method' as const),
    account: fc.constantFrom(...profitAndLoss.map((a) => a.id)),
    segment: fc.constantFrom('n', null),
    method,
  }),
  fc.record({
    what: fc.constantFrom('looked' as const, 'note' as const, 'clear' as const, 'restore' as const),
    account: fc.constantFrom(...accounts.map((a) => a.id)),
    segment: fc.constantFrom('n', null),
  }),
  fc.record({
    what: fc.constant('account' as const),
    account: fc.constantFrom('f', 'd', 'r'),
    group: fc.constantFrom('', 'Members'),
  }),
  fc.record({ what: fc.constant('source' as const) }),
  fc.record({ what: fc.constant('view' as const), view: views }),
  // Folding alone leaves the columns as they are.
  fc.record({ what: fc.constant('fold' as const), view: views }),
);
type Edited = typeof edits extends fc.Arbitrary<infer T> ? T : never;

function commandOf(edit: Exclude<Edited, { view: View }>, book: Book): Command {
  const budget = 'b1';
  if (edit.what === 'source') return { type: 'removeSource', source: book.sources[0]!.id };
  if (edit.what === 'account')
    return { type: 'editAccount', account: edit.account, change: { group: edit.group } };
  const ref = { account: edit.account, segment: book.budgets[0]!.axis ? edit.segment : null };
  switch (edit.what) {
    case 'cells':
      return {
        type: 'setCells',
        budget,
        how: 'typed',
        cells: [{ ...ref, period: periods[edit.month]!, value: edit.value }],
      };
    case 'method':
      return { type: 'setMethods', budget, lines: [{ ...ref, method: edit.method }] };
    case 'looked':
      return { type: 'setLooked', budget, lines: [ref], looked: { by: 'K', at: 't' } };
    case 'note':
      return {
        type: 'setCellNote',
        budget,
        cell: { ...ref, period: periods[0]! },
        note: { text: 'x', by: '', at: '' },
      };
    case 'clear':
      return { type: 'clearLines', budget, lines: [ref] };
    case 'restore':
      return { type: 'restoreCells', budget, cells: [{ ...ref, period: periods[0]! }] };
  }
}

test('after any edits and looks, what is remembered shows what a sheet made from scratch shows', () => {
  fc.assert(
    fc.property(cases, views, fc.array(edits, { minLength: 1, maxLength: 12 }), (c, first, all) => {
      let book = bookOf(c);
      let view = first;
      const memory = createMemory();
      const fillers = createFillers();
      sheetOf(book, choiceOf(view, c.segmented), memory, fillers);
      for (const edit of all) {
        if (edit.what === 'view') view = edit.view;
        else if (edit.what === 'fold') view = { ...view, folded: edit.view.folded };
        else if (edit.what === 'source' && book.sources.length === 0) continue;
        else {
          const applied = applyCommand(book, commandOf(edit, book));
          if (!applied.ok) throw new Error(applied.refusal.code);
          book = applied.book;
        }
        const choice = choiceOf(view, c.segmented);
        const { sheet } = sheetOf(book, choice, memory, fillers);
        expect(sheet).toEqual(sheetOf(book, choice).sheet);
      }
    }),
    { numRuns: 60 },
  );
});
