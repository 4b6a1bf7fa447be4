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
  type Axis,
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
  fc.record({
    type: fc.constant('addAccount' as const),
    account: fc.constantFrom(account('a7', 'expense', 'Seven', '700'), account('a8', 'income', 'Eight')),
  }),
  fc.record({
    type: fc.constant('moveAccount' as const),
    account: fc.constantFrom('a1', 'a2', 'a7'),
    before: fc.constantFrom('a1', 'a2', null),
  }),
  fc.record({
    type: fc.constant('mergeAccounts' as const),
    from: fc.constantFrom('a7', 'a2', 'a9'),
    into: fc.constantFrom('a2', 'a7'),
    lines: fc.constant([]),
  }),
  fc.record({
    type: fc.constant('setCalendar' as const),
    calendar: fc.constantFrom(
      { kind: 'months' as const, firstMonth: 4 },
      {
        kind: 'weeks' as const,
        pattern: '4-4-5' as const,
        endMonth: 6,
        endWeekday: 7,
        ending: 'nearest' as const,
      },
    ),
    closedThrough: fc.option(fc.constantFrom(...ids)),
  }),
  fc.record({
    type: fc.constant('setAxis' as const),
    axis: fc.constantFrom<Axis>(
      { id: 'x1', name: 'Site', columns: ['Site'], values: [], byAccount: {} },
      {
        id: 'x1',
        name: 'Place',
        columns: [],
        values: [{ id: 'v1', name: 'N', from: ['N'] }],
        byAccount: { a2: 'v1' },
      },
    ),
  }),
  fc.record({ type: fc.constant('removeAxis' as const), axis: fc.constant('x1') }),
  fc.record({
    type: fc.constant('setFeed' as const),
    feed: fc.option(
      fc.record({
        url: fc.constant('/feed/v1'),
        company: fc.constant('C'),
        cursor: fc.nat(9),
        schedule: fc.constant({ every: 'hours' as const, hours: 4 }),
      }),
    ),
  }),
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

describe('accounts', () => {
  const three = [
    account('a', 'expense', 'Rent', '6000'),
    account('b', 'expense', 'Heat', '6100'),
    account('c', 'income', 'Sales', '4000'),
  ];
  const apply = (book: ReturnType<typeof start>, command: Command) => {
    const done = applyCommand(book, command);
    if (!done.ok) throw new Error(done.refusal.code);
    return done.book;
  };
  const order = (book: ReturnType<typeof start>) => book.accounts.map((x) => x.id).join('');
  test('one moves before another, or last; before itself nothing happens', () => {
    const book = bookWith(three);
    expect(order(apply(book, { type: 'moveAccount', account: 'c', before: 'a' }))).toBe('cab');
    expect(order(apply(book, { type: 'moveAccount', account: 'a', before: null }))).toBe('bca');
    expect(apply(book, { type: 'moveAccount', account: 'a', before: 'a' })).toBe(book);
  });
  test('a new one takes the place of its code among codes in order, else the end of its kind', () => {
    const ordered = bookWith([three[2]!, three[0]!, three[1]!]);
    const fresh = account('n', 'expense', 'Water', '6050');
    expect(order(apply(ordered, { type: 'addAccount', account: fresh }))).toBe('canb');
    const byHand = bookWith([three[1]!, three[0]!, three[2]!]);
    expect(
      order(apply(byHand, { type: 'addAccount', account: account('n', 'expense', 'Tax', '6900') })),
    ).toBe('banc');
  });
  test('merging: the line follows, what was approved adds up, shares point on, notes come together', () => {
    const lines = [
      line('a', { kind: 'byMonth', amounts: { [ids[0]!]: minor(100) } }),
      line('c', { kind: 'share', of: 'a', percent: pct('10') }),
    ];
    const approved = {
      ...budgetOf(lines, 'b2'),
      state: 'approved' as const,
      approved: { at: 't', amounts: { a: [minor(100), null], b: [minor(5), minor(7)] } },
    };
    const note = (text: string) => ({ text, reach: 'timing' as const, at: 't' });
    const book = bookWith(three, {
      budgets: [budgetOf(lines), approved],
      varianceNotes: { [ids[0]!]: { a: note('one'), b: note('two') } },
      merged: { z: 'a' },
    });
    const merged = apply(book, { type: 'mergeAccounts', from: 'a', into: 'b', lines: [] });
    expect(order(merged)).toBe('bc');
    expect(merged.merged).toEqual({ a: 'b', z: 'b' });
    expect(merged.budgets[0]!.lines.b).toMatchObject({ account: 'b', method: lines[0]!.method });
    expect(merged.budgets[0]!.lines.c!.method).toMatchObject({ kind: 'share', of: 'b' });
    expect(merged.budgets[1]!.approved!.amounts).toEqual({ b: [105, 7] });
    expect(merged.varianceNotes[ids[0]!]!.b!.text).toBe('two\none');
    expect(applyCommand(book, { type: 'mergeAccounts', from: 'a', into: 'c', lines: [] })).toEqual({
      ok: false,
      refusal: { code: 'sidesDiffer' },
    });
  });
});

describe('the feed', () => {
  test('a pull moves the cursor, one that was overtaken is refused, and undo moves it back', () => {
    const feed = { url: '/feed/v1', company: 'C', cursor: 10, schedule: { every: 'never' as const } };
    const take = (cursor: number, n: number): Command => ({
      type: 'takeIn',
      source: sourceOf({ id: `s${n}`, fingerprint: String(n).repeat(64), format: 'feed', cursor }),
      newAccounts: [],
      accountChanges: [],
      axes: [],
      replaces: [],
      closedThrough: null,
      nextId: 9,
    });
    const h = run(openHistory(bookWith(accounts, { feed }), []), [take(20, 1)]);
    expect(h.book.feed!.cursor).toBe(20);
    expect(perform(h, take(20, 2), 't')).toEqual({ ok: false, refusal: { code: 'alreadyTakenIn' } });
    expect(undo(h, 't').book.feed!.cursor).toBe(10);
  });
  test('a reason goes to the journal with what it was given for', () => {
    const step = perform(
      openHistory(start(), []),
      { type: 'setClosedThrough', period: ids[0]! },
      't',
      ' late bill ',
    );
    expect(step.ok && step.history.journal[0]).toMatchObject({ type: 'setClosedThrough', why: 'late bill' });
  });
});

describe('opening what was saved', () => {
  // A book as version 1 wrote it, written down when it was the present one.
  test('a book of version 1 gets groups, keepers, segments, and all it had stays', () => {
    const old = {
      format: 'tellan.book',
      version: 1,
      id: 'k1',
      name: 'Old',
      currency: 'USD',
      locale: 'en-US',
      calendar: { kind: 'months', firstMonth: 7 },
      accounts: [{ id: 'a1', code: '4000', name: 'Sales', kind: 'income' }],
      sources: [
        {
          id: 's1',
          fileName: 'x.xlsx',
          fingerprint: 'a'.repeat(64),
          sheet: 'P&L',
          takenAt: 't',
          shape: 'months',
          mapping: {},
          block: 'l1',
          rows: { read: 2, used: 1, leftOut: [{ reason: 'header', count: 1 }] },
          entries: 1,
          debit: 0,
          credit: 100,
          firstDay: '2025-01-31',
          lastDay: '2025-01-31',
        },
      ],
      closedThrough: '2025-07',
      budgets: [],
      varianceNotes: {},
      settings: { flagAmount: 50000, flagPercent: '5', negatives: 'parentheses', cents: false },
      nextId: 3,
    };
    const opened = openBook(old);
    if (!opened.ok) throw new Error(JSON.stringify(opened.issue));
    expect(opened.book).toMatchObject({ ...old, version: 2, merged: {}, axes: [], feed: null });
    expect(opened.book.accounts[0]).toEqual(account('a1', 'income', 'Sales', '4000'));
    expect(opened.book.sources[0]).toMatchObject({ format: 'workbook', untied: null, openings: 0 });
  });

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
