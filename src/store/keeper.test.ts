import fc from 'fast-check';
import { newAccount, newBook, openHistory, perform, undo, type Book, type History } from '@/core/model';
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
      newAccounts: [newAccount('a1', '', 'A', 'income')],
      accountChanges: [],
      axes: [],
      replaces: [],
      closedThrough: null,
      nextId: 9,
      source: sourceOf({ block: blockId, entries: 1 }),
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
      fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 1, maxLength: 12 }),
      async (cuts) => {
        let left = Infinity;
        const place = memoryKeyValue(() => left-- <= 0);
        let h = openHistory(book(), []);
        await new Keeper(place).save(h, new Map(), 't');
        let whole = 'First';
        for (const [i, cut] of cuts.entries()) {
          // Many changes between saves, so that journal pieces are sealed on the way.
          for (let n = 0; n < 90; n++) h = renamed(h, `Name ${i} ${n}`);
          const last = h.book.name;
          left = cut;
          const ok = await new Keeper(place).open('k1').then(async (kept) => {
            const keeper = new Keeper(place);
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
          expect(kept.history.done.at(-1)?.seq ?? 0).toBe(kept.history.journal.at(-1)?.seq ?? 0);
          if (ok) expect(kept.history.book.name).toBe(last);
          whole = kept.history.book.name;
          h = kept.history;
        }
      },
    ),
    { numRuns: 40 },
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
