import fc from 'fast-check';
import { newAccount, newBook, openHistory, perform, redo, undo, type Book, type History } from '@/core/model';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import { sourceOf } from '@/core/test/build';
import { memoryKeyValue, type KeyValue } from '@/platform/keyValue';
import { Keeper } from './keeper';

let tabs = 0;
/** The keeper of another tab each time. */
const keeperOf = (place: KeyValue, limits?: { tail: number; since: number }) =>
  new Keeper(place, `t${++tabs}x`, () => tabs, limits);

const book = (id = 'k1', name = 'First'): Book =>
  newBook({ id, name, currency: 'USD', locale: 'en-US', firstMonth: 1 });
const renamed = (h: History, name: string): History => {
  const step = perform(h, { type: 'renameBook', name }, 't');
  if (!step.ok) throw new Error(step.refusal.code);
  return step.history;
};
const block = (id: string): LedgerBlock => {
  const b = new BlockBuilder(1);
  b.add(20000, 0, 100, 2);
  return b.build(id, ['a1']);
};
const withSource = (h: History, blockId: string): History => {
  const step = perform(
    h,
    {
      type: 'takeIn',
      newAccounts: h.book.accounts.length ? [] : [newAccount('a1', '', 'A', 'income')],
      accountChanges: [],
      axes: [],
      replaces: [],
      closedThrough: null,
      nextId: 9,
      source: sourceOf({
        id: blockId,
        fingerprint: blockId.slice(1).padStart(64, '0'),
        block: blockId,
        entries: 1,
      }),
    },
    't',
  );
  if (!step.ok) throw new Error(step.refusal.code);
  return step.history;
};

test('what was saved opens again: book, blocks, journal and undo', async () => {
  const place = memoryKeyValue();
  const h = renamed(withSource(openHistory(book(), []), 'l1'), 'Second');
  await keeperOf(place).save(h, new Map([['l1', block('l1')]]), 't1');
  const kept = await keeperOf(place).open('k1');
  if (!kept.ok) throw new Error(kept.issue.code);
  expect(kept.history).toEqual(h);
  expect(kept.blocks.get('l1')).toEqual(block('l1'));
  expect(undo(kept.history, 't').book.name).toBe('First');
});

test('a tab killed at any write leaves the last or the one-before-last state, never a broken one', async () => {
  // Each save is cut off after some number of writes, as a killed tab does; then the book is opened afresh.
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 12 }),
      fc.record({ tail: fc.integer({ min: 0, max: 900 }), since: fc.integer({ min: 0, max: 2_000 }) }),
      async (cuts, limits) => {
        let left = Infinity;
        const place = memoryKeyValue(() => left-- <= 0);
        let h = openHistory(book(), []);
        await keeperOf(place, limits).save(h, new Map(), 't');
        let whole = 'First';
        for (const [i, cut] of cuts.entries()) {
          // Many changes between saves, so that journal pieces are sealed on the way.
          for (let n = 0; n < 20; n++) h = n % 5 === 4 ? undo(h, 't') : renamed(h, `Name ${i} ${n}`);
          const last = h.book.name;
          left = cut;
          const ok = await keeperOf(place)
            .open('k1')
            .then(async (kept) => {
              const keeper = keeperOf(place, limits);
              await keeper.open('k1');
              if (!kept.ok) throw new Error('broken');
              return keeper.save(h, new Map(), 't').then(
                () => true,
                () => false,
              );
            });
          left = Infinity;
          const kept = await keeperOf(place).open('k1');
          if (!kept.ok) throw new Error(kept.issue.code);
          expect([whole, last]).toContain(kept.history.book.name);
          if (ok) expect(kept.history).toEqual(h);
          if (ok) expect(kept.history.book.name).toBe(last);
          whole = kept.history.book.name;
          h = kept.history;
        }
      },
    ),
    { numRuns: 60 },
  );
});

/** The keys of a place that begin so, oldest first. */
const keysOf = (place: ReturnType<typeof memoryKeyValue>, start: string) =>
  [...place.data.keys()].filter((k) => k.startsWith(start));

test('a broken newest save falls back to the one before, says so, and is left where it is', async () => {
  const place = memoryKeyValue();
  const keeper = keeperOf(place);
  const h = openHistory(book(), []);
  await keeper.save(h, new Map(), 't1');
  await keeper.save(renamed(h, 'Second'), new Map(), 't2');
  const newest = keysOf(place, 'save:').at(-1)!;
  place.data.set(newest, { savedAt: 't2', name: 'Second', wholes: ['whole:k2:x:0'], runs: [], tail: [] });
  const later = keeperOf(place);
  const kept = await later.open('k1');
  if (!kept.ok) throw new Error(kept.issue.code);
  expect(kept).toMatchObject({ history: { book: { name: 'First' } }, passedOver: [{ code: 'unreadable' }] });
  // What is saved from here on is newer than what was passed over.
  for (const name of ['Third', 'Fourth', 'Fifth'])
    await later.save(renamed(kept.history, name), new Map(), 't');
  expect(place.data.has(newest)).toBe(true);
  const again = await keeperOf(place).open('k1');
  expect(again).toMatchObject({ ok: true, passedOver: [], history: { book: { name: 'Fifth' } } });
});

test('whatever is done, undone and done again, saved or not in between, opens as it was', async () => {
  const step = fc.constantFrom('rename', 'source', 'undo', 'redo', 'save');
  await fc.assert(
    fc.asyncProperty(
      fc.array(step, { maxLength: 60 }),
      fc.record({ tail: fc.integer({ min: 0, max: 300 }), since: fc.integer({ min: 0, max: 900 }) }),
      async (steps, limits) => {
        const place = memoryKeyValue();
        let keeper = keeperOf(place, limits);
        let h = openHistory(book(), []);
        const blocks = new Map<string, LedgerBlock>();
        for (const [i, s] of steps.entries()) {
          if (s === 'rename') h = renamed(h, `Name ${i}`);
          else if (s === 'source') {
            blocks.set(`l${i}`, block(`l${i}`));
            h = withSource(h, `l${i}`);
          } else if (s === 'undo') h = undo(h, 't');
          else if (s === 'redo') h = redo(h, 't');
          else {
            await keeper.save(h, blocks, 't');
            // Every other time the book is opened afresh, and the work goes on from what came back.
            if (i % 2 === 0) continue;
            keeper = keeperOf(place, limits);
            const kept = await keeper.open('k1');
            if (!kept.ok) throw new Error(kept.issue.code);
            expect(kept.history).toEqual(h);
            h = kept.history;
          }
        }
        await keeper.save(h, blocks, 't');
        const kept = await keeperOf(place).open('k1');
        expect(kept.ok && kept.history).toEqual(h);
      },
    ),
  );
});

test('a save after a small change does not write the book anew', async () => {
  const place = memoryKeyValue();
  const keeper = keeperOf(place);
  const accounts = Array.from({ length: 2_000 }, (_, i) => newAccount(`a${i}`, '', `Account ${i}`, 'income'));
  const h = openHistory({ ...book(), accounts }, []);
  await keeper.save(h, new Map(), 't1');
  const second = renamed(h, 'Second');
  await keeper.save(second, new Map(), 't2');
  await keeper.save(renamed(second, 'Third'), new Map(), 't3');
  const size = (start: string) => JSON.stringify(place.data.get(keysOf(place, start).at(-1)!)).length;
  expect(size('save:')).toBeLessThan(size('whole:') / 100);
  expect([keysOf(place, 'save:').length, keysOf(place, 'whole:').length, place.data.size]).toEqual([2, 2, 5]);
});

test('nothing that stands is ever written over, and what two saves no longer name goes', async () => {
  const written = new Set<string>();
  const place = memoryKeyValue();
  const watched: KeyValue = {
    ...place,
    set: (key, value) => {
      // But for the mark of who wrote last, which names nothing.
      expect([key, written.has(key) && !key.startsWith('owner:')]).toEqual([key, false]);
      written.add(key);
      return place.set(key, value);
    },
  };
  let h = openHistory(book(), []);
  for (let n = 0; n < 30; n++) {
    const keeper = keeperOf(watched, { tail: 40, since: 120 });
    if (n > 0) await keeper.open('k1');
    for (let i = 0; i < 4; i++) {
      h = renamed(h, `Name ${n} ${i}`);
      await keeper.save(h, new Map(), 't');
    }
  }
  expect(keysOf(place, 'save:')).toHaveLength(2);
  expect(keysOf(place, 'whole:').length).toBeLessThanOrEqual(4);
  const kept = await keeperOf(place).open('k1');
  expect(kept.ok && kept.history).toEqual(h);
});

test('a storage that was cleared under the app gets all of the book again', async () => {
  const place = memoryKeyValue();
  const keeper = keeperOf(place, { tail: 20, since: 60 });
  const blocks = new Map([['l1', block('l1')]]);
  let h = withSource(openHistory(book(), []), 'l1');
  for (let n = 0; n < 9; n++) await keeper.save((h = renamed(h, `Name ${n}`)), blocks, 't');
  for (const lost of ['', 'whole:', 'journal:', 'block:']) {
    for (const key of keysOf(place, lost)) place.data.delete(key);
    // All of it gone is seen at once; a part that is gone, with one of the next saves.
    for (let n = lost === '' ? 1 : 40; n > 0; n--)
      await keeper.save((h = renamed(h, `After ${lost} ${n}`)), blocks, 't');
    const kept = await keeperOf(place).open('k1');
    expect(kept.ok && kept.passedOver.length === 0 && kept.history).toEqual(h);
  }
});

test('a storage that says it wrote and did not is not believed', async () => {
  const place = memoryKeyValue();
  const deaf: KeyValue = {
    ...place,
    set: async (key, value) => (key.startsWith('save:') ? undefined : place.set(key, value)),
  };
  await expect(keeperOf(deaf).save(openHistory(book(), []), new Map(), 't')).rejects.toThrow('read back');
});

test('a change that does not fit the book before it is not passed over: the state before it opens', async () => {
  const place = memoryKeyValue();
  const keeper = keeperOf(place);
  const h = openHistory(book(), []);
  await keeper.save(h, new Map(), 't1');
  const second = renamed(h, 'Second');
  await keeper.save(second, new Map(), 't2');
  const third = renamed(second, 'Third');
  await keeper.save(third, new Map(), 't3');
  const [before, change] = third.journal;
  const newest = keysOf(place, 'save:').at(-1)!;
  const slot = place.data.get(newest) as object;
  for (const tail of [
    [before, { ...change, version: 1 }],
    [before, { ...change, patches: [{ op: 'replace', path: ['budgets', 7, 'name'], value: 'x' }] }],
    [before, { seq: 2, at: 't', type: 'undo', of: 9 }],
  ]) {
    place.data.set(newest, { ...slot, tail });
    const kept = await keeperOf(place).open('k1');
    expect(kept.ok && kept.history.book.name).toBe('Second');
  }
});

test('books written with each slot whole, and books of an older schema, open and are kept in the new way', async () => {
  const place = memoryKeyValue();
  const h = renamed(openHistory(book(), []), 'Second');
  const { budgets, weights: _w, workWeek: _k, ...older } = h.book as Book & Record<string, unknown>;
  const change = { ...h.journal[0]!, version: undefined };
  place.data.set('book:k1:1', {
    seq: 3,
    savedAt: 't',
    book: { ...older, budgets, version: 2 },
    sealed: 1,
    tail: [],
  });
  place.data.set('journal:k1:0', [change]);
  expect((await keeperOf(place).shelf()).map((s) => s.name)).toEqual(['Second']);
  const keeper = keeperOf(place);
  const kept = await keeper.open('k1');
  if (!kept.ok) throw new Error(kept.issue.code);
  const third = renamed(kept.history, 'Third');
  await keeper.save(third, new Map(), 't');
  const again = await keeperOf(place).open('k1');
  expect(again.ok && again.history).toEqual(third);
  // One more save, and nothing of the older form is left.
  expect(keysOf(place, 'book:')).toHaveLength(1);
  await keeper.save(renamed(third, 'Fourth'), new Map(), 't');
  expect(keysOf(place, 'book:')).toEqual([]);
  for (const key of keysOf(place, 'save:')) place.data.delete(key);
  // The same, where only the journal after the old book was saved: its changes are of the old schema.
  place.data.set('whole:k1:2', { book: { ...older, budgets, version: 2, name: 'First' }, changes: 0 });
  place.data.set('book:k1:1', { seq: 9, savedAt: 't', name: 'Second', whole: 2, sealed: 1, tail: [] });
  const later = await keeperOf(place).open('k1');
  expect(later.ok && later.history.book.name).toBe('Second');
});

test('blocks that no book owned are taken into each book that names them', async () => {
  const place = memoryKeyValue();
  for (const id of ['k1', 'k2']) {
    const h = withSource(openHistory(book(id), []), 'l1');
    await place.set(`whole:${id}:0`, { book: h.book, changes: 1 });
    await place.set(`book:${id}:1`, { seq: 1, savedAt: 't', name: id, whole: 0, sealed: 0, tail: h.journal });
  }
  await place.set('block:l1', block('l1'));
  const keeper = keeperOf(place);
  for (const id of ['k1', 'k2']) {
    const kept = await keeper.open(id);
    if (!kept.ok) throw new Error(kept.issue.code);
    // The second save takes the last of the older form away.
    for (const name of ['One', 'Two']) await keeper.save(renamed(kept.history, name), kept.blocks, 't');
    expect(place.data.has('block:l1')).toBe(id === 'k1');
  }
  await keeper.remove('k1');
  const kept = await keeperOf(place).open('k2');
  expect(kept.ok && kept.blocks.get('l1')).toEqual(block('l1'));
});

test('a full disk refuses the save and leaves what was there', async () => {
  let full = false;
  const place = memoryKeyValue(() => full);
  const keeper = keeperOf(place);
  const h = openHistory(book(), []);
  await keeper.save(h, new Map(), 't1');
  full = true;
  await expect(keeper.save(renamed(h, 'Second'), new Map(), 't2')).rejects.toThrow('full');
  full = false;
  const kept = await keeperOf(place).open('k1');
  expect(kept.ok && kept.history.book.name).toBe('First');
  // The next save writes all that is missing.
  await keeper.save(renamed(h, 'Third'), new Map(), 't3');
  expect((await keeperOf(place).shelf()).map((s) => s.name)).toEqual(['Third']);
});

test('a book whose entries are gone opens without their source, which is said; nothing can be taken back then', async () => {
  const place = memoryKeyValue();
  const h = withSource(openHistory(book(), []), 'l1');
  await keeperOf(place).save(h, new Map([['l1', block('l1')]]), 't');
  place.data.delete('block:k1:l1');
  const kept = await keeperOf(place).open('k1');
  if (!kept.ok) throw new Error(kept.issue.code);
  expect(kept.setAside).toEqual([{ part: 'source', name: 'x.csv', because: 'entriesMissing' }]);
  expect(kept.history).toMatchObject({ journal: h.journal, done: [], book: { sources: [] } });
});

test('a lost piece of the journal costs the journal before it, not the book', async () => {
  const place = memoryKeyValue();
  const keeper = keeperOf(place, { tail: 12, since: 1e9 });
  let h = openHistory(book(), []);
  await keeper.save(h, new Map(), 't');
  for (let n = 0; n < 8; n++) await keeper.save((h = renamed(h, `Name ${n}`)), new Map(), 't');
  const pieces = keysOf(place, 'journal:');
  expect(pieces.length).toBeGreaterThan(2);
  // The book was written whole before any of them: with the first piece gone, the changes do not lead up to the last.
  place.data.set(pieces[0]!, 'spoiled');
  const early = await keeperOf(place).open('k1');
  expect(early).toMatchObject({
    ok: true,
    setAside: [{ part: 'journal' }],
    history: { book: { name: 'Name 0' } },
  });
  // Written whole later on, what is after it is all there.
  const whole = keysOf(place, 'whole:')[0]!;
  const until = 3;
  place.data.set(whole, { book: { ...h.book, name: 'Name 2' }, changes: until });
  const late = await keeperOf(place).open('k1');
  expect(late).toMatchObject({ ok: true, history: { book: { name: 'Name 7' }, done: [] } });
});

describe('one spoiled value never takes more than its own book, and says what it is', () => {
  const SPOILED: readonly unknown[] = [
    null,
    undefined,
    0,
    NaN,
    '',
    'text',
    true,
    [],
    [[]],
    {},
    new Date(0),
    new Map(),
    new Uint8Array(3),
    { seq: 1 },
    { savedAt: 't', name: 'x', wholes: 3, runs: 0, tail: {} },
    { savedAt: 't', name: 'x', wholes: [3], runs: [], tail: [] },
    { savedAt: 't', name: 'x', wholes: ['whole:k1:x:0'], runs: [['', 1e12]], tail: [] },
    { savedAt: 't', name: 'x', wholes: ['whole:k1:x:0'], runs: [], tail: [null] },
    { savedAt: 't', name: 'x', wholes: ['whole:k1:x:0'], runs: [], tail: [{ seq: 'x', type: 3 }] },
    { book: null, changes: 0 },
    { book: {}, changes: -1 },
    { book: { format: 'tellan.book', version: 1 }, changes: 0 },
    {
      book: { format: 'tellan.book', version: 2, budgets: [null], accounts: [null], sources: [0] },
      changes: 0,
    },
    { book: { format: 'tellan.book', version: 99 }, changes: 0 },
    { id: 'l1', count: 1e9 },
    { ...block('l1'), account: Int32Array.of(7) },
    { ...block('l1'), day: Int32Array.of(5_000_000) },
    { ...block('l1'), amount: Float64Array.of(0.5) },
    { ...block('l1'), texts: { bytes: new Uint8Array(0), ends: Uint32Array.of(9) } },
  ];
  const made = async () => {
    const place = memoryKeyValue();
    const keeper = keeperOf(place, { tail: 10, since: 1e9 });
    let h = withSource(openHistory(book(), []), 'l1');
    for (let n = 0; n < 4; n++)
      await keeper.save((h = renamed(h, `Name ${n}`)), new Map([['l1', block('l1')]]), 't');
    await keeper.save(openHistory(book('k2', 'Other'), []), new Map(), 't');
    return place;
  };
  test('each value at each key', async () => {
    const keys = [...(await made()).data.keys()].filter((k) => !k.includes('k2'));
    expect(keys.length).toBeGreaterThan(5);
    for (const at of keys.keys())
      for (const value of SPOILED) {
        const place = await made();
        const key = [...place.data.keys()].filter((k) => !k.includes('k2'))[at]!;
        place.data.set(key, value);
        const keeper = keeperOf(place);
        const shelf = await keeper.shelf();
        expect(shelf.map((s) => s.id).sort()).toEqual(['k1', 'k2']);
        expect((await keeper.open('k2')).ok).toBe(true);
        const kept = await keeper.open('k1');
        if (kept.ok) {
          // Whatever opened can be worked on and opens again.
          await keeper.save(renamed(kept.history, 'After'), kept.blocks, 't');
          const again = await keeperOf(place).open('k1');
          expect(again).toMatchObject({ ok: true, passedOver: [], history: { book: { name: 'After' } } });
        } else expect(key.startsWith('whole:')).toBe(true);
      }
  });
  test('a value that the storage cannot give', async () => {
    const place = await made();
    for (const key of [...place.data.keys()].filter((k) => !k.includes('k2'))) {
      const failing: KeyValue = {
        ...place,
        get: <T>(k: string) => (k === key ? Promise.reject<T>(new Error('torn')) : place.get<T>(k)),
      };
      const keeper = keeperOf(failing);
      expect(await keeper.shelf()).toHaveLength(2);
      expect((await keeper.open('k2')).ok).toBe(true);
      expect((await keeper.open('k1')).ok).toBe(true);
    }
  });
});

test('several books; removing one leaves the others, and what is removed can be put back whole', async () => {
  const place = memoryKeyValue();
  const keeper = keeperOf(place);
  const first = withSource(openHistory(book(), []), 'l1');
  await keeper.save(first, new Map([['l1', block('l1')]]), 't1');
  await keeper.save(openHistory(book('k2', 'Other'), []), new Map(), 't2');
  await keeper.remove('k1');
  expect((await keeper.shelf()).map((s) => s.id)).toEqual(['k2']);
  expect([...place.data.keys()].filter((k) => k.includes('l1') || k.includes('k1'))).toEqual(['gone:k1']);
  // What a tab still writes that does not know is no book.
  await expect(keeper.save(first, new Map([['l1', block('l1')]]), 't3')).rejects.toThrow(
    'took the book over',
  );
  expect((await keeper.shelf()).map((s) => s.id)).toEqual(['k2']);
  await keeper.admit('k1');
  await keeper.save(first, new Map([['l1', block('l1')]]), 't3');
  expect((await keeperOf(place).open('k1')).ok).toBe(true);
});

test('the save before the newest keeps all its parts, also when the book was written whole in between', async () => {
  const place = memoryKeyValue();
  const keeper = keeperOf(place, { tail: 6, since: 12 });
  let h = openHistory(book(), []);
  for (let n = 0; n < 12; n++) {
    await keeper.save((h = renamed(h, `Name ${n}`)), new Map(), 't');
    if (n === 0) continue;
    const newest = keysOf(place, 'save:').at(-1)!;
    const value = place.data.get(newest);
    place.data.set(newest, 'spoiled');
    const kept = await keeperOf(place).open('k1');
    expect(kept).toMatchObject({ ok: true, setAside: [], history: { book: { name: `Name ${n - 1}` } } });
    place.data.set(newest, value);
  }
});
