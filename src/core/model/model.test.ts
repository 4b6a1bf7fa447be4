import fc from 'fast-check';
import { minor } from '@/core/money';
import {
  applyCommand,
  BOOK_VERSION,
  mergeSegments,
  migrate,
  newBook,
  openBook,
  openHistory,
  perform,
  redo,
  renameSegment,
  undo,
  type Axis,
  type Change,
  type Command,
  type Driver,
  type History,
  type Migrations,
  type VarianceNote,
  type WorkWeek,
} from '.';
import { soundBook } from './sound';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  formula,
  lastYear,
  line,
  of,
  pattern,
  pct,
  periodIds,
  phased,
  runRate,
  share,
  sourceOf,
} from '../test/build';

const accounts = [account('a1', 'income'), account('a2', 'expense')];
const ids = periodIds(2026);
const source = sourceOf();
const start = () => bookWith(accounts, { budgets: [budgetOf([line('a1', lastYear({ uplift: pct('3') }))])] });
const approval = { at: 't', by: 'K', fingerprint: '', cash: null, lines: [] };
const driver = (id: string): Driver => ({
  id,
  name: 'Berths',
  unit: '',
  decimals: 0,
  opening: null,
  series: { kind: 'typed', values: {} },
  note: '',
});

const cell = fc.record({
  account: fc.constantFrom('a1', 'a2', 'gone'),
  segment: fc.constant(null),
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
    type: fc.constant('setMethods' as const),
    budget: fc.constant('b1'),
    lines: fc.array(
      fc.record({
        account: fc.constantFrom('a1', 'a2'),
        segment: fc.constant(null),
        method: fc.constantFrom(byMonth(), share('a1', '5')),
      }),
      { maxLength: 12 },
    ),
  }),
  fc.record({
    type: fc.constant('clearLines' as const),
    budget: fc.constant('b1'),
    lines: fc.constantFrom([of('a1')], [of('a2'), of('a1')]),
  }),
  fc.record({
    type: fc.constant('setLooked' as const),
    budget: fc.constant('b1'),
    lines: fc.constantFrom([of('a1')], [of('a2'), of('a1')]),
    looked: fc.option(fc.constant({ by: 'K', at: 't' })),
  }),
  fc.record({
    type: fc.constant('setCellNote' as const),
    budget: fc.constant('b1'),
    cell: cell.map(({ value: _, ...c }) => c),
    note: fc.option(fc.constant({ text: 'why', by: 'K', at: 't' })),
  }),
  fc.record({
    type: fc.constant('setDriver' as const),
    budget: fc.constant('b1'),
    driver: fc.constantFrom('d1', 'd2').map(driver),
  }),
  fc.record({
    type: fc.constant('removeDriver' as const),
    budget: fc.constant('b1'),
    driver: fc.constantFrom('d1', 'd2'),
  }),
  fc.record({
    type: fc.constant('setWeights' as const),
    weights: fc.constantFrom('w1', 'w2').map((id) => ({ id, name: 'Season', weights: [1, 2, 3] })),
  }),
  fc.record({ type: fc.constant('removeWeights' as const), weights: fc.constant('w1') }),
  fc.record({
    type: fc.constant('setWorkWeek' as const),
    workWeek: fc.constantFrom<WorkWeek>({ weekdays: [1, 2], holidays: [] }, { weekdays: [7], holidays: [] }),
  }),
  fc.record({
    type: fc.constant('setLineNote' as const),
    budget: fc.constant('b1'),
    line: fc.constantFrom(of('a1'), of('a2')),
    note: fc.option(fc.string().map((text) => ({ text, by: '', at: 't' }))),
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
      fc.record({
        text: fc.string(),
        against: fc.constant(null),
        parts: fc.constant<VarianceNote['parts']>([{ kind: 'once', amount: null }]),
        at: fc.constant('t'),
      }),
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
    budget: fc.constantFrom(budgetOf([], 'b2'), budgetOf([line('a2', byMonth())], 'b3')),
  }),
  fc.record({
    type: fc.constant('approveBudget' as const),
    budget: fc.constantFrom('b1', 'b2'),
    approved: fc.constant(approval),
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
        cells: [{ ...of('zz'), period: ids[0]!, value: minor(1) }],
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
      approved: approval,
    });
    const h = run(openHistory(start(), []), [approve('b1')]);
    const cells: Command = {
      type: 'setCells',
      budget: 'b1',
      how: 'typed',
      cells: [{ ...of('a1'), period: ids[0]!, value: minor(1) }],
    };
    expect(perform(h, cells, 't')).toEqual({ ok: false, refusal: { code: 'budgetIsFrozen' } });
    expect(
      perform(
        h,
        { type: 'setLineNote', budget: 'b1', line: of('a1'), note: { text: 'why', by: '', at: '' } },
        't',
      ).ok,
    ).toBe(true);
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
        cells: [{ ...of('a1'), period: ids[0]!, value: null }],
      },
    ]);
    expect(blank.book.budgets[0]!.lines[0]!.overrides).toEqual({ [ids[0]!]: null });
    const restored = run(blank, [
      { type: 'restoreCells', budget: 'b1', cells: [{ ...of('a1'), period: ids[0]! }] },
    ]);
    expect(restored.book.budgets[0]!.lines[0]!.overrides).toEqual({});
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
  test('merging: the line follows, what was approved stays as it was, shares point on, notes come together', () => {
    const lines = [
      line('a', byMonth({ [ids[0]!]: minor(100) })),
      line('c', share('a', '10')),
      line('d', formula('"account:a" * 2 + "account:ab"')),
    ];
    const approved = {
      ...budgetOf(lines, 'b2'),
      length: 2,
      state: 'approved' as const,
      approved: {
        ...approval,
        lines: [
          { ...of('a'), amounts: [minor(100), null], wholes: [] },
          { ...of('b'), amounts: [minor(5), minor(7)], wholes: [minor(1)] },
        ],
      },
    };
    const note = (text: string) => ({
      text,
      against: null,
      parts: [{ kind: 'once' as const, amount: null }],
      at: 't',
    });
    const book = bookWith([...three, account('d', 'expense')], {
      budgets: [budgetOf(lines), approved],
      varianceNotes: { [ids[0]!]: { a: note('one'), b: note('two') } },
      merged: { z: 'a' },
    });
    const merged = apply(book, { type: 'mergeAccounts', from: 'a', into: 'b', lines: [] });
    expect(order(merged)).toBe('bcd');
    expect(merged.merged).toEqual({ a: 'b', z: 'b' });
    const [b, c, d] = merged.budgets[0]!.lines;
    expect(b).toMatchObject({ account: 'b', method: lines[0]!.method });
    expect(c!.method).toMatchObject({ kind: 'share', of: { account: 'b' } });
    expect(d!.method).toMatchObject({ formula: '"account:b" * 2 + "account:ab"' });
    expect(merged.budgets[1]).toBe(approved);
    expect(soundBook(merged).setAside).toEqual([]);
    expect(merged.varianceNotes[ids[0]!]!.b!.text).toBe('two\none');
    expect(applyCommand(book, { type: 'mergeAccounts', from: 'a', into: 'c', lines: [] })).toEqual({
      ok: false,
      refusal: { code: 'sidesDiffer' },
    });
  });
});

describe('segments that a budget is made by', () => {
  const axis = {
    id: 'x1',
    name: 'Site',
    columns: [],
    byAccount: {},
    values: ['v1', 'v2'].map((id) => ({ id, name: id, from: [] })),
  };
  const made = (segments: (string | null)[]) =>
    bookWith([account('s', 'income')], {
      axes: [axis],
      budgets: [{ ...budgetOf([]), axis: 'x1', segments }],
    });
  test('neither the axis nor a segment in use can go; others can, and names may change', () => {
    const book = made(['v1', null]);
    const refused = { ok: false, refusal: { code: 'segmentInUse' } };
    expect(applyCommand(book, { type: 'removeAxis', axis: 'x1' })).toEqual(refused);
    expect(applyCommand(book, { type: 'setAxis', axis: mergeSegments(axis, 'v1', 'v2') })).toEqual(refused);
    expect(applyCommand(book, { type: 'setAxis', axis: mergeSegments(axis, 'v2', 'v1') }).ok).toBe(true);
    expect(applyCommand(book, { type: 'setAxis', axis: renameSegment(axis, 'v1', 'North') }).ok).toBe(true);
    expect(applyCommand({ ...book, budgets: [] }, { type: 'removeAxis', axis: 'x1' })).toMatchObject({
      ok: true,
      book: { axes: [] },
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
    const step = perform(openHistory(start(), []), { type: 'setClosedThrough', period: ids[0]! }, 't', {
      why: ' late bill ',
    });
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
    expect(opened.book).toMatchObject({
      ...old,
      version: BOOK_VERSION,
      merged: {},
      axes: [],
      feed: null,
    });
    expect(opened.book.accounts[0]).toEqual(account('a1', 'income', 'Sales', '4000'));
    expect(opened.book.sources[0]).toMatchObject({ format: 'workbook', untied: null, openings: 0 });
  });

  test('version 2: lines become a list, every old method and what was approved stays what it was', () => {
    const lift = { uplift: '3', round: 10 };
    const methods = {
      a1: { kind: 'byMonth', amounts: { '2026-01': 100 } },
      a2: { kind: 'lastYear', ...lift },
      a3: { kind: 'even', basis: { of: 'amount', annual: 1200 }, ...lift },
      a4: { kind: 'even', basis: { of: 'lastYear' }, ...lift },
      a5: { kind: 'even', basis: { of: 'average' }, ...lift },
      a6: { kind: 'even', basis: { of: 'lastMonth' }, ...lift },
      a7: { kind: 'pattern', annual: 5, ...lift },
      a8: { kind: 'pattern', annual: null, ...lift },
      a9: { kind: 'share', of: 'a1', percent: '12.5' },
    };
    const lines = Object.fromEntries(
      Object.entries(methods).map(([account, method]) => [
        account,
        {
          account,
          method,
          overrides: account === 'a2' ? { '2026-02': null } : {},
          note: account === 'a3' ? 'why' : '',
        },
      ]),
    );
    const {
      weights: _w,
      workWeek: _k,
      ...whole
    } = bookWith(Object.keys(methods).map((a) => account(a, 'income')));
    const old = {
      ...whole,
      version: 2,
      budgets: [
        {
          id: 'b1',
          name: 'Old',
          state: 'approved',
          first: '2026-01',
          length: 2,
          lines,
          approved: { at: 't', amounts: { a1: [100, null] } },
        },
      ],
    };
    const opened = openBook(old);
    if (!opened.ok) throw new Error(JSON.stringify(opened.issue));
    const [budget] = opened.book.budgets;
    expect(budget!.lines.map((l) => l.account)).toEqual(Object.keys(methods));
    const same = { uplift: pct('3'), round: 10 as const };
    expect(budget!.lines.map((l) => l.method)).toEqual([
      byMonth({ [ids[0]!]: minor(100) }),
      lastYear(same),
      phased(1200, same),
      phased(null, same),
      runRate(same),
      runRate({ ...same, over: { of: 'last', months: 1 } }),
      pattern(5, same),
      pattern(null, same),
      share('a1', '12.5'),
    ]);
    expect(budget!.lines[1]!.overrides).toEqual({ '2026-02': null });
    expect(budget!.lines[2]!.note).toEqual({ text: 'why', by: '', at: '' });
    expect(budget!.approved!.lines).toEqual([{ ...of('a1'), amounts: [100, null], wholes: [] }]);
  });
  test('changes of an older version stay told, but cannot be undone', () => {
    const old: Change = { seq: 1, at: 't', type: 'setCells', patches: [], inverse: [] };
    const h = openHistory(start(), [old]);
    expect([h.journal, h.done]).toEqual([[old], []]);
    expect(undo(h, 't')).toBe(h);
  });

  const book = newBook({ id: 'k1', name: 'N', currency: 'EUR', locale: 'de-DE', firstMonth: 4 });
  test('a new book is whole', () =>
    expect(openBook(JSON.parse(JSON.stringify(book)))).toEqual({ ok: true, book, setAside: [] }));
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
