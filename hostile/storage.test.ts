import { readFileSync } from 'node:fs';
import { parseBookFile } from '@/core/exchange/bookJson';
import { openHistory, perform } from '@/core/model';
import { randomOf, type Random } from '@/core/test/random';
import { memoryKeyValue } from '@/platform/keyValue';
import { Keeper } from '@/store/keeping';
import { drawAll } from './screens';
import { counted, seed, times, within } from './count';

/* Storage with something wrong in it: no other book is touched, and what opens can be drawn, worked on and opened again. */

type Spoil = (was: unknown, random: Random) => unknown;
const typed = (v: unknown) => ArrayBuffer.isView(v) && !(v instanceof DataView);

/** Any value within, replaced. */
function within_(was: unknown, { pick, below }: Random, put: (v: unknown) => unknown): unknown {
  const copy = structuredClone(was) as Record<string, unknown>;
  let at = copy;
  for (let n = 0; n < 12; n++) {
    if (typeof at !== 'object' || at === null || typed(at)) break;
    const keys = Object.keys(at);
    if (keys.length === 0) break;
    const key = pick(keys);
    const next = at[key];
    if (typeof next !== 'object' || next === null || typed(next) || below(4) === 0) {
      at[key] = put(next);
      break;
    }
    at = next as Record<string, unknown>;
  }
  return copy;
}

const WAYS: Record<string, Spoil> = {
  gone: () => undefined,
  null: () => null,
  number: () => 42,
  text: () => 'spoiled',
  'empty list': () => [],
  'empty object': () => ({}),
  bytes: () => new Uint8Array(9),
  date: () => new Date(0),
  'one part gone': (was, r) => within_(was, r, () => undefined),
  'one part null': (was, r) => within_(was, r, () => null),
  'one part another': (was, r) =>
    within_(was, r, (v) => (typeof v === 'number' ? v + 1e15 : typeof v === 'string' ? `${v}x` : 7)),
  'one part huge': (was, r) => within_(was, r, () => 'x'.repeat(100_000)),
  'one part negative': (was, r) => within_(was, r, () => -1),
};
const PLACES: Record<string, RegExp> = {
  'newest save': /^save:/,
  'save before it': /^save:/,
  'whole book': /^whole:/,
  'piece of the journal': /^journal:/,
  'ledger block': /^block:/,
};

test('spoiled storage touches no other book, and what opens can be drawn, worked on and opened again', async () => {
  const demo = parseBookFile(readFileSync('public/demo/pellow-creek.tellan.json', 'utf8'));
  if (!demo.ok) throw new Error('No demo');
  const blocks = new Map(demo.blocks.map((b) => [b.id, b]));
  const keep = memoryKeyValue();
  const first = new Keeper(keep, 'w', () => 1, { tail: 30, since: 1e9 });
  let history = openHistory(demo.book, demo.journal);
  await first.save(history, blocks, '2026-01-01');
  for (const name of ['One', 'Two', 'Three']) {
    const step = perform(history, { type: 'renameBook', name }, 't');
    if (!step.ok) throw new Error(step.refusal.code);
    history = step.history;
    await first.save(history, blocks, '2026-01-02');
  }
  const other = {
    ...demo.book,
    id: 'other',
    sources: [],
    budgets: [],
    inForce: [],
    rounds: [],
    name: 'Other',
  };
  await first.save(openHistory(other, []), new Map(), '2026-01-03');

  const random = randomOf(seed(20261127));
  const count = { kinds: 0, tried: 0, newest: 0, older: 0, withoutAPart: 0, notOpened: 0, slowest: 0 };
  for (const [place, pattern] of Object.entries(PLACES))
    for (const [way, spoil] of Object.entries(WAYS)) {
      count.kinds++;
      for (let n = 0; n < times(5, 1); n++) {
        count.tried++;
        await within(count, async () => {
          const storage = memoryKeyValue();
          for (const [k, v] of keep.data) storage.data.set(k, v);
          const keys = [...keep.data.keys()].filter((k) => pattern.test(k) && !k.includes('other'));
          const key =
            place === 'newest save'
              ? keys.at(-1)!
              : place === 'save before it'
                ? keys.at(-2)!
                : random.pick(keys);
          const value = spoil(keep.data.get(key), random);
          if (value === undefined) storage.data.delete(key);
          else storage.data.set(key, value);
          const keeper = new Keeper(storage, 'x', () => 2);
          expect((await keeper.shelf()).map((s) => s.id)).toContain('other');
          expect(await keeper.open('other')).toMatchObject({ ok: true, passedOver: [], setAside: [] });
          const kept = await keeper.open(demo.book.id);
          if (!kept.ok) {
            // Only a book that is nowhere whole cannot be opened, and one spoiled value leaves it whole somewhere.
            expect([place, way]).toEqual(['none', way]);
            return void count.notOpened++;
          }
          if (kept.passedOver.length > 0) count.older++;
          else if (kept.setAside.length > 0) count.withoutAPart++;
          else count.newest++;
          if (way.startsWith('one part') && n === 0) await drawAll(kept.history, kept.blocks, false);
          const step = perform(kept.history, { type: 'renameBook', name: 'After' }, 't');
          if (!step.ok) throw new Error(step.refusal.code);
          await keeper.save(step.history, kept.blocks, 't');
          const again = await new Keeper(storage, 'y', () => 3).open(demo.book.id);
          expect(again).toMatchObject({
            ok: true,
            passedOver: [],
            setAside: [],
            history: { book: { name: 'After' } },
          });
        });
      }
    }
  counted('spoiled storage', count);
  expect(count.kinds).toBeGreaterThanOrEqual(50);
  // What hangs is found, whatever else the machine does meanwhile.
  expect(count.slowest).toBeLessThan(30_000);
}, 600_000);
