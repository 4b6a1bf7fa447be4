import fc from 'fast-check';
import { minor } from '@/core/money';
import {
  applyCommand,
  BOOK_VERSION,
  migrate,
  newBook,
  openBook,
  openHistory,
  perform,
  redo,
  undo,
  type Change,
  type Command,
  type History,
  type Migrations,
} from '.';
import { account, bookWith, budgetOf, line, pct, periodIds, sourceOf } from '../test/build';

const accounts = [account('a1', 'income'), account('a2', 'expense')];
const ids = periodIds(2026);
const source = sourceOf();
const start = () =>
  bookWith(accounts, { budgets: [budgetOf([line('a1', { kind: 'lastYear', uplift: pct('3'), round: 0 })])] });

const cell = fc.record({
  account: fc.constantFrom('a1', 'a2', 'gone'),
  period: fc.constantFrom(...ids),
  value: fc.option(fc.integer({ min: -1e9, max: 1e9 }).map(minor)),
});
const anyCommand: fc.Arbitrary<Command> = fc.oneof(
  fc.record({ type: fc.constant('renameBook' as const), name: fc.string() }),
  fc.record({
    type: fc.constant('setSettings' as const),
    settings: fc.record({
      cents: fc.boolean(),
      negatives: fc.constantFrom('minus' as const, 'parentheses' as const),
    }),
  }),
  fc.record({
    type: fc.constant('setCells' as const),
    budget: fc.constantFrom('b1', 'b2'),
    how: fc.constant('typed' as const),
    cells: fc.array(cell, { maxLength: 5 }),
  }),
  fc.record({
    type: fc.constant('restoreCells' as const),
    budget: fc.constant('b1'),
    cells: fc.array(cell, { maxLength: 5 }),
  }),
  fc.record({
    type: fc.constant('setMethod' as const),
    budget: fc.constant('b1'),
    account: fc.constantFrom('a1', 'a2'),
    method: fc.constantFrom(
      { kind: 'byMonth' as const, amounts: {} },
      { kind: 'share' as const, of: 'a1', percent: pct('5') },
    ),
  }),
  fc.record({
    type: fc.constant('setLineNote' as const),
    budget: fc.constant('b1'),
    account: fc.constantFrom('a1', 'a2'),
    note: fc.string(),
  }),
  fc.record({
    type: fc.constant('editAccount' as const),
    account: fc.constantFrom('a1', 'gone'),
    change: fc.record({ name: fc.string() }),
  }),
  fc.record({ type: fc.constant('setClosedThrough' as const), period: fc.option(fc.constantFrom(...ids)) }),
  fc.record({
    type: fc.constant('setVarianceNote' as const),
    period: fc.constantFrom(...ids),
    account: fc.constant('a1'),
    note: fc.option(
      fc.record({ text: fc.string(), reach: fc.constant('timing' as const), at: fc.constant('t') }),
    ),
  }),
  fc.record({
    type: fc.constant('takeIn' as const),
    source: fc.constantFrom(source, { ...source, id: 's2', fingerprint: 'b'.repeat(64) }),
    newAccounts: fc.constantFrom([], [account('a9', 'expense', 'New', '100')]),
    accountChanges: fc.constantFrom([], [{ id: 'a1', code: '9', name: 'Renamed' }]),
    axes: fc.constant([]),
    replaces: fc.constantFrom([], ['s1']),
    closedThrough: fc.constant(null),
    nextId: fc.constant(300),
  }),
  fc.record({ type: fc.constant('removeSource' as const), source: fc.constantFrom('s1', 's2') }),
  fc.record({
    type: fc.constant('addBudget' as const),
    budget: fc.constantFrom(
      budgetOf([], 'b2'),
      budgetOf([line('a2', { kind: 'byMonth', amounts: {} })], 'b3'),
    ),
  }),
  fc.record({
    type: fc.constant('approveBudget' as const),
    budget: fc.constantFrom('b1', 'b2'),
    approved: fc.constant({ at: 't', amounts: {} }),
  }),
  fc.record({ type: fc.constant('deleteBudget' as const), budget: fc.constantFrom('b1', 'b2') }),
);

const run = (history: History, commands: readonly Command[]): History =>
  commands.reduce((h, c) => {
    const step = perform(h, c, 'now');
    return step.ok ? step.history : h;
  }, history);

describe('undo', () => {
  test('any sequence of commands undone gives back the very same book', () => {
    fc.assert(
      fc.property(fc.array(anyCommand, { maxLength: 25 }), (commands) => {
        const first = openHistory(start(), []);
        let h = run(first, commands);
        while (h.done.length > 0) h = undo(h, 'later');
        expect(h.book).toEqual(first.book);
      }),
    );
  });
  test('undone and done again gives the same book, and the saved journal brings both back', () => {
    fc.assert(
      fc.property(fc.array(anyCommand, { maxLength: 20 }), fc.nat(8), (commands, back) => {
        const after = run(openHistory(start(), []), commands);
        let h = after;
        for (let i = 0; i < back; i++) h = undo(h, 't');
        const reopened = openHistory(h.book, JSON.parse(JSON.stringify(h.journal)) as Change[]);
        expect(reopened.done.map((c) => c.seq)).toEqual(h.done.map((c) => c.seq));
        let again = reopened;
        while (again.undone.length > 0) again = redo(again, 't');
        expect(again.book).toEqual(after.book);
      }),
    );
  });
  test('the journal only grows, and a new change drops what could be done again', () => {
    let h = run(openHistory(start(), []), [
      { type: 'renameBook', name: 'A' },
      { type: 'renameBook', name: 'B' },
    ]);
    h = undo(h, 't');
    h = run(h, [{ type: 'renameBook', name: 'C' }]);
    expect(h.journal.map((c) => c.type)).toEqual(['renameBook', 'renameBook', 'undo', 'renameBook']);
    expect(h.undone).toEqual([]);
    expect(redo(h, 't')).toBe(h);
  });
});

describe('commands', () => {
  test('a command that changes nothing gives the same book and no step', () => {
    const h = openHistory(start(), []);
    const step = perform(h, { type: 'renameBook', name: 'Test' }, 't');
    expect(step.ok && step.history).toBe(h);
  });
  test.each<[string, Command, string]>([
    ['a budget that is not there', { type: 'deleteBudget', budget: 'zz' }, 'noSuchBudget'],
    [
      'a line of an account that is not there',
      {
        type: 'setCells',
        budget: 'b1',
        how: 'typed',
        cells: [{ account: 'zz', period: ids[0]!, value: minor(1) }],
      },
      'noSuchAccount',
    ],
    ['a source that is not there', { type: 'removeSource', source: 'zz' }, 'noSuchSource'],
    ['an empty name', { type: 'renameBook', name: '  ' }, 'emptyName'],
  ])('%s is refused and nothing changes', (_n, command, code) => {
    const book = start();
    expect(applyCommand(book, command)).toEqual({ ok: false, refusal: { code } });
    expect(book).toEqual(start());
  });
  test('an approved budget takes no figures, but a note; approving a revision supersedes it', () => {
    const approve = (budget: string): Command => ({
      type: 'approveBudget',
      budget,
      approved: { at: 't', amounts: {} },
    });
    const h = run(openHistory(start(), []), [approve('b1')]);
    const cells: Command = {
      type: 'setCells',
      budget: 'b1',
      how: 'typed',
      cells: [{ account: 'a1', period: ids[0]!, value: minor(1) }],
    };
    expect(perform(h, cells, 't')).toEqual({ ok: false, refusal: { code: 'budgetIsFrozen' } });
    expect(perform(h, { type: 'setLineNote', budget: 'b1', account: 'a1', note: 'why' }, 't').ok).toBe(true);
    const revised = run(h, [{ type: 'addBudget', budget: budgetOf([], 'b2') }, approve('b2')]);
    expect(revised.book.budgets.map((b) => b.state)).toEqual(['superseded', 'approved']);
  });
  test('the same file twice is refused; replacing it is not', () => {
    const take = (replaces: string[]): Command => ({
      type: 'takeIn',
      source: { ...source, id: `s${replaces.length + 1}` },
      newAccounts: [],
      accountChanges: [],
      axes: [],
      replaces,
      closedThrough: null,
      nextId: 5,
    });
    const h = run(openHistory(start(), []), [take([])]);
    expect(perform(h, take([]), 't')).toEqual({ ok: false, refusal: { code: 'alreadyTakenIn' } });
    expect(run(h, [take(['s1'])]).book.sources.map((s) => s.id)).toEqual(['s2']);
  });
  test('typing a blank over a method differs from restoring it', () => {
    const blank = run(openHistory(start(), []), [
      {
        type: 'setCells',
        budget: 'b1',
        how: 'cleared',
        cells: [{ account: 'a1', period: ids[0]!, value: null }],
      },
    ]);
    expect(blank.book.budgets[0]!.lines.a1!.overrides).toEqual({ [ids[0]!]: null });
    const restored = run(blank, [
      { type: 'restoreCells', budget: 'b1', cells: [{ account: 'a1', period: ids[0]! }] },
    ]);
    expect(restored.book.budgets[0]!.lines.a1!.overrides).toEqual({});
  });
});

describe('opening what was saved', () => {
  const book = newBook({ id: 'k1', name: 'N', currency: 'EUR', locale: 'de-DE', firstMonth: 4 });
  test('a new book is whole', () =>
    expect(openBook(JSON.parse(JSON.stringify(book)))).toEqual({ ok: true, book }));
  test.each<[string, unknown, object]>([
    ['nothing', null, { code: 'notABook' }],
    ['another format', { format: 'x' }, { code: 'notABook' }],
    [
      'a newer version',
      { ...book, version: BOOK_VERSION + 1 },
      { code: 'newerVersion', version: BOOK_VERSION + 1 },
    ],
    ['a broken value', { ...book, currency: 'euro' }, { code: 'invalid', path: 'currency' }],
    [
      'a fraction of a cent',
      { ...book, settings: { ...book.settings, flagAmount: 1.5 } },
      { code: 'invalid', path: 'settings.flagAmount' },
    ],
    ['a key that is not known', { ...book, extra: 1 }, { code: 'invalid' }],
  ])('%s is refused with the place', (_n, saved, issue) =>
    expect(openBook(saved)).toMatchObject({ ok: false, issue }),
  );
  test('older versions are brought up one step at a time; a missing step is not jumped', () => {
    const steps: Migrations = new Map<number, (d: Record<string, unknown>) => Record<string, unknown>>([
      [1, (d: Record<string, unknown>) => ({ ...d, version: 2, a: 1 })],
      [2, (d: Record<string, unknown>) => ({ ...d, version: 3, b: 2 })],
    ]);
    expect(migrate({ version: 1 }, 3, steps)).toEqual({ version: 3, a: 1, b: 2 });
    expect(migrate({ version: 1 }, 4, steps)).toBeNull();
  });
});
