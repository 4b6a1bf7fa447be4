import fc from 'fast-check';
import { newAccount, newBook, openHistory, perform, redo, undo, type Book, type History } from '@/core/model';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import { sourceOf } from '@/core/test/build';
import { memoryKeyValue } from '@/platform/keyValue';
import { Keeper } from './keeper';

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
  await new Keeper(place).save(h, new Map([['l1', block('l1')]]), 't1');
  const kept = await new Keeper(place).open('k1');
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
        await new Keeper(place, limits).save(h, new Map(), 't');
        let whole = 'First';
        for (const [i, cut] of cuts.entries()) {
          // Many changes between saves, so that journal pieces are sealed on the way.
          for (let n = 0; n < 20; n++) h = n % 5 === 4 ? undo(h, 't') : renamed(h, `Name ${i} ${n}`);
          const last = h.book.name;
          left = cut;
          const ok = await new Keeper(place).open('k1').then(async (kept) => {
            const keeper = new Keeper(place, limits);
            await keeper.open('k1');
            if (!kept.ok) throw new Error('broken');
            return keeper.save(h, new Map(), 't').then(
              () => true,
              () => false,
            );
          });
          left = Infinity;
          const kept = await new Keeper(place).open('k1');
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

test('a broken newest slot falls back to the one before', async () => {
  const place = memoryKeyValue();
  const keeper = new Keeper(place);
  const h = openHistory(book(), []);
  await keeper.save(h, new Map(), 't1');
  await keeper.save(renamed(h, 'Second'), new Map(), 't2');
  place.data.set('book:k1:0', {
    seq: 2,
    savedAt: 't2',
    book: { format: 'tellan.book', version: 1 },
    sealed: 0,
    tail: [],
  });
  const kept = await new Keeper(place).open('k1');
  expect(kept.ok && kept.history.book.name).toBe('First');
});

test('whatever is done, undone and done again, saved or not in between, opens as it was', async () => {
  const step = fc.constantFrom('rename', 'source', 'undo', 'redo', 'save');
  await fc.assert(
    fc.asyncProperty(
      fc.array(step, { maxLength: 60 }),
      fc.record({ tail: fc.integer({ min: 0, max: 300 }), since: fc.integer({ min: 0, max: 900 }) }),
      async (steps, limits) => {
        const place = memoryKeyValue();
        let keeper = new Keeper(place, limits);
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
            keeper = new Keeper(place, limits);
            const kept = await keeper.open('k1');
            if (!kept.ok) throw new Error(kept.issue.code);
            expect(kept.history).toEqual(h);
            h = kept.history;
          }
        }
        await keeper.save(h, blocks, 't');
        const kept = await new Keeper(place).open('k1');
        expect(kept.ok && kept.history).toEqual(h);
      },
    ),
  );
});

test('a save after a small change does not write the book anew', async () => {
  const place = memoryKeyValue();
  const keeper = new Keeper(place);
  const accounts = Array.from({ length: 2_000 }, (_, i) => newAccount(`a${i}`, '', `Account ${i}`, 'income'));
  const h = openHistory({ ...book(), accounts }, []);
  await keeper.save(h, new Map(), 't1');
  await keeper.save(renamed(h, 'Second'), new Map(), 't2');
  const size = (key: string) => JSON.stringify(place.data.get(key)).length;
  expect(size('book:k1:0')).toBeLessThan(size('whole:k1:0') / 100);
  expect([...place.data.keys()].sort()).toEqual(['book:k1:0', 'book:k1:1', 'whole:k1:0']);
});

test('a change that does not fit the book before it is not passed over: the state before it opens', async () => {
  const place = memoryKeyValue();
  const keeper = new Keeper(place);
  const h = openHistory(book(), []);
  await keeper.save(h, new Map(), 't1');
  const second = renamed(h, 'Second');
  await keeper.save(second, new Map(), 't2');
  const change = second.journal[0]!;
  const slot = place.data.get('book:k1:0') as object;
  for (const tail of [
    [{ ...change, version: 1 }],
    [{ ...change, patches: [{ op: 'replace', path: ['budgets', 7, 'name'], value: 'x' }] }],
    [{ seq: 1, at: 't', type: 'undo', of: 9 }],
  ]) {
    place.data.set('book:k1:0', { ...slot, tail });
    const kept = await new Keeper(place).open('k1');
    expect(kept.ok && kept.history.book.name).toBe('First');
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
  expect((await new Keeper(place).shelf()).map((s) => s.name)).toEqual(['Second']);
  const keeper = new Keeper(place);
  const kept = await keeper.open('k1');
  if (!kept.ok) throw new Error(kept.issue.code);
  const third = renamed(kept.history, 'Third');
  await keeper.save(third, new Map(), 't');
  const again = await new Keeper(place).open('k1');
  expect(again.ok && again.history).toEqual(third);
  // The same, where only the journal after the old book was saved: its changes are of the old schema.
  place.data.set('whole:k1:2', { book: { ...older, budgets, version: 2, name: 'First' }, changes: 0 });
  place.data.set('book:k1:1', { seq: 9, savedAt: 't', name: 'Second', whole: 2, sealed: 1, tail: [] });
  const later = await new Keeper(place).open('k1');
  expect(later.ok && later.history.book.name).toBe('Second');
});

test('a full disk refuses the save and leaves what was there', async () => {
  let full = false;
  const place = memoryKeyValue(() => full);
  const keeper = new Keeper(place);
  const h = openHistory(book(), []);
  await keeper.save(h, new Map(), 't1');
  full = true;
  await expect(keeper.save(renamed(h, 'Second'), new Map(), 't2')).rejects.toThrow('full');
  full = false;
  const kept = await new Keeper(place).open('k1');
  expect(kept.ok && kept.history.book.name).toBe('First');
  // The next save writes all that is missing.
  await keeper.save(renamed(h, 'Third'), new Map(), 't3');
  expect((await new Keeper(place).shelf()).map((s) => s.name)).toEqual(['Third']);
});

test('a book whose entries are gone is not opened as if it were whole', async () => {
  const place = memoryKeyValue();
  await new Keeper(place).save(
    withSource(openHistory(book(), []), 'l1'),
    new Map([['l1', block('l1')]]),
    't',
  );
  place.data.delete('block:l1');
  expect(await new Keeper(place).open('k1')).toEqual({ ok: false, issue: { code: 'missing' } });
});

test('several books; removing one leaves the others, and what is removed can be put back whole', async () => {
  const place = memoryKeyValue();
  const keeper = new Keeper(place);
  const first = withSource(openHistory(book(), []), 'l1');
  await keeper.save(first, new Map([['l1', block('l1')]]), 't1');
  await keeper.save(openHistory(book('k2', 'Other'), []), new Map(), 't2');
  await keeper.remove('k1');
  expect((await keeper.shelf()).map((s) => s.id)).toEqual(['k2']);
  expect([...place.data.keys()].filter((k) => k.includes('l1') || k.includes('k1'))).toEqual([]);
  await keeper.save(first, new Map([['l1', block('l1')]]), 't3');
  expect((await new Keeper(place).open('k1')).ok).toBe(true);
});
