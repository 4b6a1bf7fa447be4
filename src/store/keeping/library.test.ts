import { newBook, openHistory, perform, undo, type History } from '@/core/model';
import { BlockBuilder } from '@/core/ledger';
import { randomOf } from '@/core/test/random';
import { World, type Tab } from './world';

const settle = () => new Promise((done) => setImmediate(done));
const fresh = (id: string) =>
  openHistory(newBook({ id, name: id, currency: 'USD', locale: 'en-US', firstMonth: 1 }), []);
const block = (id: string) => {
  const b = new BlockBuilder(1);
  b.add(20000, 0, 100, 2);
  return b.build(id, ['a1']);
};

/** The edits that a history holds, by their names. */
const edits = (h: History): string[] => h.journal.flatMap((c) => ('why' in c && c.why ? [c.why] : []));

/** What the test knows of a book: which edits were said to be saved, and by which tab it was taken when. */
type Model = { readonly said: Set<string>; made: boolean; removing: boolean; removed: boolean };

async function drain(world: World): Promise<void> {
  for (let n = 0; n < 4000; n++) {
    await settle();
    if (!world.stepDisk() && !world.stepNews() && !world.stepLost() && !world.stepTimer()) return;
  }
  throw new Error('it never comes to rest');
}

/** One life of a browser: random edits, saves, tabs, kills and refusals; what must hold is looked at all along. */
async function life(
  seed: number,
  steps: number,
): Promise<{ edits: number; kills: number; takeovers: number }> {
  const world = new World();
  const { next: random, pick } = randomOf(seed);
  const models = new Map<string, Model>();
  const count = { edits: 0, kills: 0, takeovers: 0 };
  const asked = new Map<Tab, Promise<unknown>>();
  const ask = (tab: Tab, work: () => Promise<unknown>) => {
    const all = Promise.all([asked.get(tab), work()]).catch(() => undefined);
    asked.set(tab, all);
  };

  /** Whatever a tab says is saved must be found from now on, whoever opens the book. */
  const listen = () => {
    for (const tab of world.tabs) {
      const shown = tab.library.shown;
      if (shown?.save.state === 'saved' && !shown.readOnly)
        for (const e of edits(shown.history)) models.get(shown.history.book.id)!.said.add(e);
    }
  };
  const edit = (tab: Tab) => {
    const shown = tab.library.shown;
    if (!shown || shown.readOnly) return;
    const { history, blocks } = shown;
    count.edits++;
    if (random() < 0.15 && history.done.length > 0) return tab.library.change(undo(history, 't'));
    const step = perform(history, { type: 'renameBook', name: `n${count.edits}` }, 't', {
      why: `e${count.edits}`,
    });
    if (!step.ok) throw new Error(step.refusal.code);
    const id = `l${count.edits}`;
    tab.library.change(step.history, random() < 0.1 ? new Map(blocks).set(id, block(id)) : blocks);
  };

  for (let n = 0; n < steps; n++) {
    if (world.tabs.size === 0) world.tab();
    const tab = pick([...world.tabs]);
    const roll = random();
    const ids = [...models].filter(([, m]) => m.made && !m.removed).map(([id]) => id);
    if (roll < 0.3) edit(tab);
    else if (roll < 0.72) for (let k = 1 + random() * 6; k > 0; k--) world.stepDisk();
    else if (roll < 0.78) world.stepTimer();
    else if (roll < 0.83) world.stepNews();
    else if (roll < 0.86) world.stepLost();
    else if (roll < 0.88) world.full = random() < 0.4;
    else if (roll < 0.9 && world.tabs.size < 3) world.tab();
    else if (roll < 0.92) {
      count.kills++;
      world.kill(tab, Math.floor(random() * 4));
    } else if (roll < 0.95 && ids.length > 0) ask(tab, () => tab.library.open(pick(ids), random() < 0.1));
    else if (roll < 0.97) {
      count.takeovers++;
      ask(tab, () => tab.library.takeOver(random() < 0.4));
    } else if (roll < 0.98 && ids.length > 1) {
      const id = pick(ids);
      models.get(id)!.removing = true;
      ask(tab, async () => {
        if (await tab.library.remove(id)) models.get(id)!.removed = true;
      });
    } else if (models.size < 4) {
      const id = `k${models.size}`;
      const model = { said: new Set<string>(), made: false, removing: false, removed: false };
      models.set(id, model);
      ask(tab, async () => {
        await tab.library.adopt(fresh(id), new Map());
        model.made = true;
      });
    } else ask(tab, () => tab.library.flush());
    await settle();
    listen();
  }

  // The storage takes writes again, and all comes to rest.
  world.full = false;
  await drain(world);
  listen();
  for (const tab of world.tabs) {
    const shown = tab.library.shown;
    if (shown && !shown.readOnly)
      expect([seed, tab.name, shown.save.state]).toEqual([seed, tab.name, 'saved']);
  }
  // One tab at most works on each book; whoever asks for it gets it, and all who read it see what it holds.
  for (const tab of world.tabs) {
    const shown = tab.library.shown;
    // A tab killed while it removed the book told nobody that it did.
    if (!shown || shown.save.state === 'lost' || models.get(shown.history.book.id)!.removing) continue;
    const taking = tab.library.takeOver();
    await drain(world);
    expect([seed, tab.name, await taking]).toEqual([seed, tab.name, { ok: true }]);
    for (const other of world.tabs) {
      const seen = other.library.shown;
      if (other === tab || seen?.history.book.id !== shown.history.book.id) continue;
      expect([seed, other.name, seen.readOnly]).toEqual([seed, other.name, true]);
      if (seen.save.state !== 'lost')
        expect([seed, other.name, edits(seen.history)]).toEqual([
          seed,
          other.name,
          edits(tab.library.shown!.history),
        ]);
    }
  }
  // Every tab is closed; a new one opens each book.
  for (const tab of [...world.tabs]) world.kill(tab, 0);
  const last = world.tab();
  for (const [id, { said, removing, removed }] of models) {
    const shelf = last.keeper.shelf();
    await drain(world);
    const there = (await shelf).some((s) => s.id === id);
    // A tab killed while it removes a book leaves it whole or leaves none.
    if (removed || ((said.size === 0 || removing) && !there)) {
      expect([seed, id, there]).toEqual([seed, id, false]);
      continue;
    }
    const opening = last.keeper.open(id);
    await drain(world);
    const kept = await opening;
    if (!kept.ok) throw new Error(`${seed}: ${id} does not open (${kept.issue.code})`);
    expect([seed, id, kept.passedOver, kept.setAside]).toEqual([seed, id, [], []]);
    const have = new Set(edits(kept.history));
    expect([seed, id, [...said].filter((e) => !have.has(e))]).toEqual([seed, id, []]);
  }
  return count;
}

test('whatever tabs, kills and refused writes do, what was said to be saved is there, and every book opens', async () => {
  const total = { edits: 0, kills: 0, takeovers: 0 };
  const lives = Number(process.env.TELLAN_LIVES ?? 150);
  for (let seed = 1; seed <= lives; seed++) {
    const c = await life(seed, 160);
    for (const key of ['edits', 'kills', 'takeovers'] as const) total[key] += c[key];
  }
  // The lives were lives: enough of everything happened in them.
  expect(Math.min(total.edits / lives / 10, total.kills / lives, total.takeovers / lives)).toBeGreaterThan(1);
  if (process.env.TELLAN_LIVES) process.stdout.write(`${lives} lives: ${JSON.stringify(total)}\n`);
}, 120_000);

const edited = (h: History, name: string): History => {
  const step = perform(h, { type: 'renameBook', name }, 't', { why: name });
  if (!step.ok) throw new Error(step.refusal.code);
  return step.history;
};
const made = async (world: World, id: string): Promise<Tab> => {
  const tab = world.tab();
  const adopting = tab.library.adopt(fresh(id), new Map());
  await drain(world);
  await adopting;
  return tab;
};

test('saves that wait for one slow save go on one after another', async () => {
  const world = new World();
  const { library, keeper } = await made(world, 'k1');
  let [running, most] = [0, 0];
  const save = keeper.save.bind(keeper);
  keeper.save = async (...args) => {
    most = Math.max(most, ++running);
    await save(...args).finally(() => running--);
  };
  for (let n = 0; n < 6; n++) {
    library.change(edited(library.shown!.history, `n${n}`));
    void library.flush();
    await settle();
    // A refusal leaves all who wait with something to write.
    world.full = n === 3;
    world.stepDisk();
  }
  world.full = false;
  await drain(world);
  expect([library.shown!.save.state, most]).toEqual(['saved', 1]);
  const kept = world.tab().keeper.open('k1');
  await drain(world);
  expect(edits(((await kept) as { history: History }).history)).toEqual(['n0', 'n1', 'n2', 'n3', 'n4', 'n5']);
});

test('a tab that lost its book while it wrote does not say that it saved, and keeps what it has', async () => {
  const world = new World();
  const first = await made(world, 'k1');
  const second = world.tab();
  void second.library.open('k1');
  await drain(world);
  expect(second.library.shown!.readOnly).toBe(true);
  // The first tab writes; before it hears of anything the second takes the book, however long either takes.
  for (let reached = 0; reached < 12; reached++) {
    const [from, to] = reached % 2 === 0 ? [first, second] : [second, first];
    const name = `n${reached}`;
    // Some blocks to write before the save itself, so that the other tab reads in between.
    const blocks = ['a', 'b', 'c'].map((b) => block(`l${reached}${b}`));
    from.library.change(edited(from.library.shown!.history, name), new Map(blocks.map((b) => [b.id, b])));
    void from.library.flush();
    await settle();
    for (let k = 0; k < reached / 2; k++) {
      world.stepDisk();
      await settle();
    }
    const taking = to.library.takeOver(true);
    for (let k = 0; k < 60; k++) {
      await settle();
      world.stepDisk();
    }
    expect(await taking).toEqual({ ok: true });
    const has = edits(to.library.shown!.history).includes(name);
    const said = from.library.shown!.save.state === 'saved';
    // Said to be saved: the one who took over has it. Not there: it is said to be lost, and still on the screen.
    if (said) expect([reached, has]).toEqual([reached, true]);
    await drain(world);
    if (!has) {
      expect(from.library.shown).toMatchObject({ save: { state: 'lost' }, readOnly: true });
      expect(edits(from.library.shown!.history)).toContain(name);
      expect(from.library.unsaved).toBe(true);
    }
    void from.library.open('k1', true);
    await drain(world);
  }
});

test('a book that is asked for goes over with all that was done to it; one that cannot be written is kept, with why', async () => {
  const world = new World();
  const first = await made(world, 'k1');
  const second = world.tab();
  void second.library.open('k1');
  await drain(world);
  first.library.change(edited(first.library.shown!.history, 'late'));
  world.full = true;
  const refused = second.library.takeOver();
  for (let k = 0; k < 80; k++) {
    await settle();
    if (!world.stepDisk()) world.stepNews();
  }
  expect(await refused).toEqual({ ok: false, why: 'kept', detail: 'full' });
  expect(first.library.shown).toMatchObject({ readOnly: false, save: { state: 'failed', why: 'full' } });
  world.full = false;
  const taken = second.library.takeOver();
  await drain(world);
  expect(await taken).toEqual({ ok: true });
  expect(edits(second.library.shown!.history)).toEqual(['late']);
  expect(first.library.shown!.readOnly).toBe(true);
});

test('a tab that does not answer keeps the book until it is taken by force', async () => {
  const world = new World();
  const first = await made(world, 'k1');
  const second = world.tab();
  void second.library.open('k1');
  await drain(world);
  const asked = second.library.takeOver();
  await settle();
  // Its message is never delivered; time passes.
  while (world.stepTimer()) await settle();
  expect(await asked).toEqual({ ok: false, why: 'silent', detail: '' });
  expect(first.library.shown!.readOnly).toBe(false);
});

test('a book goes to and fro as often as it is asked for, also before the tab that gave it has read what was saved', async () => {
  const world = new World();
  const tabs = [await made(world, 'k1'), world.tab()];
  void tabs[1]!.library.open('k1');
  await drain(world);
  for (let n = 1; n <= 6; n++) {
    const [to, from] = [tabs[n % 2]!, tabs[(n + 1) % 2]!];
    from.library.change(edited(from.library.shown!.history, `n${n}`));
    // Asked for again at once: no timer has gone off, and nothing that was told of the last save has been heard.
    let got: unknown = null;
    void to.library.takeOver().then((answer) => (got = answer));
    for (let k = 0; k < 300 && got === null; k++) {
      await settle();
      if (!world.stepDisk()) world.stepNews();
    }
    expect([n, got]).toEqual([n, { ok: true }]);
    expect([n, to.library.shown!.readOnly, from.library.shown!.readOnly]).toEqual([n, false, true]);
    expect(edits(to.library.shown!.history)).toHaveLength(n);
  }
});

test('a book taken by force can no longer be changed where it was, and that tab follows what is saved from then on', async () => {
  const world = new World();
  const first = await made(world, 'k1');
  const second = world.tab();
  void second.library.open('k1');
  await drain(world);
  for (const [to, from] of [
    [second, first],
    [first, second],
    [second, first],
  ] as const) {
    const taking = to.library.takeOver(true);
    await drain(world);
    expect(await taking).toEqual({ ok: true });
    expect(from.library.shown!.readOnly).toBe(true);
    const before = edits(from.library.shown!.history).length;
    from.library.change(edited(from.library.shown!.history, 'not here'));
    expect(edits(from.library.shown!.history)).toHaveLength(before);
    to.library.change(edited(to.library.shown!.history, `here ${before}`));
    await drain(world);
    expect(edits(from.library.shown!.history)).toEqual(edits(to.library.shown!.history));
    expect(edits(from.library.shown!.history)).toHaveLength(before + 1);
  }
});

test('a tab that hears what was saved elsewhere before it hears that its book was taken shows it all the same', async () => {
  const world = new World();
  const first = await made(world, 'k1');
  const second = world.tab();
  void second.library.open('k1');
  await drain(world);
  const taking = second.library.takeOver(true);
  const rest = async () => {
    for (await settle(); world.stepDisk() || world.stepNews(); await settle());
  };
  await rest();
  expect(await taking).toEqual({ ok: true });
  second.library.change(edited(second.library.shown!.history, 'there'));
  void second.library.flush();
  await rest();
  expect(edits(first.library.shown!.history)).toEqual([]);
  while (world.stepLost()) await rest();
  expect(first.library.shown!.readOnly).toBe(true);
  expect(edits(first.library.shown!.history)).toEqual(['there']);
});

test('a tab that is still opening a book gives it up once it has it', async () => {
  const world = new World();
  const first = await made(world, 'k1');
  const [second, third] = [world.tab(), world.tab()];
  void third.library.open('k1');
  await drain(world);
  world.kill(first, 0);
  void second.library.open('k1');
  await settle();
  // The second holds the book and is still reading it when it is asked for it.
  const taking = third.library.takeOver();
  await settle();
  while (world.stepNews()) await settle();
  await drain(world);
  expect(await taking).toEqual({ ok: true });
  expect([second, third].map((t) => t.library.shown!.readOnly)).toEqual([true, false]);
});

test('those who read a book see what a tab had saved that died before it could say so, once another works on it', async () => {
  const world = new World();
  const first = await made(world, 'k1');
  const [second, third] = [world.tab(), world.tab()];
  void third.library.open('k1');
  await drain(world);
  const saves = () => [...world.data.keys()].length;
  const before = saves();
  first.library.change(edited(first.library.shown!.history, 'last'));
  void first.library.flush();
  for (await settle(); saves() < before + 2; await settle()) world.stepDisk();
  world.kill(first, 0);
  expect(edits(third.library.shown!.history)).toEqual([]);
  void second.library.open('k1');
  await drain(world);
  expect(edits(second.library.shown!.history)).toEqual(['last']);
  expect(edits(third.library.shown!.history)).toEqual(['last']);
});

test('a right taken away before the book is read is not worked by, and one asked for in vain stays where it is', async () => {
  const world = new World();
  const first = await made(world, 'k1');
  const second = world.tab();
  void second.library.open('k1');
  const third = world.tab();
  void third.library.open('k1');
  await drain(world);
  // The second is given the book, and the third takes it from there before the second has read it.
  const taking = second.library.takeOver();
  for (let k = 0; k < 40 && !first.library.shown!.readOnly; k++) {
    await settle();
    if (!world.stepDisk()) world.stepNews();
  }
  const seizing = third.library.takeOver(true);
  await settle();
  world.stepLost();
  await drain(world);
  await Promise.all([taking, seizing]);
  expect([first, second, third].map((t) => t.library.shown!.readOnly)).toEqual([true, true, false]);
  // An answer that comes after the question was given up: the book is not let go into nobody's hands.
  const asked = first.library.takeOver();
  await settle();
  while (world.stepTimer()) await settle();
  expect(await asked).toMatchObject({ why: 'silent' });
  await drain(world);
  expect(third.library.shown!.readOnly).toBe(false);
});

test('what the storage refused is tried again, also of a book that is not shown, and is there when it is opened', async () => {
  const world = new World();
  const tab = await made(world, 'k1');
  const other = tab.library.adopt(fresh('k2'), new Map());
  await drain(world);
  await other;
  void tab.library.open('k1');
  await drain(world);
  world.full = true;
  tab.library.change(edited(tab.library.shown!.history, 'kept here'));
  void tab.library.flush();
  while (world.stepDisk()) await settle();
  expect(tab.library.shown!.save).toEqual({ state: 'failed', why: 'full' });
  void tab.library.open('k2');
  for (let k = 0; k < 60; k++) {
    world.stepDisk();
    await settle();
  }
  expect(tab.library.shown!.history.book.id).toBe('k2');
  expect(tab.library.waiting).toEqual([{ id: 'k1', name: 'kept here' }]);
  expect(tab.library.unsaved).toBe(true);
  void tab.library.open('k1');
  for (let k = 0; k < 60; k++) {
    world.stepDisk();
    await settle();
  }
  expect(tab.library.shown).toMatchObject({
    history: { book: { name: 'kept here' } },
    save: { state: 'failed' },
  });
  void tab.library.open('k2');
  world.full = false;
  await drain(world);
  expect(tab.library.waiting).toEqual([]);
  expect(tab.library.unsaved).toBe(false);
  const kept = world.tab().keeper.open('k1');
  await drain(world);
  expect(await kept).toMatchObject({ ok: true, history: { book: { name: 'kept here' } } });
});

test('a book that another tab works on is not removed', async () => {
  const world = new World();
  await made(world, 'k1');
  const second = world.tab();
  const removing = second.library.remove('k1');
  await drain(world);
  expect(await removing).toBe(false);
  const shelf = second.library.shelf();
  await drain(world);
  expect(await shelf).toHaveLength(1);
});
