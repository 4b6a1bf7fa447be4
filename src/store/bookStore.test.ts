import { readFileSync } from 'node:fs';
import { minor } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import { newAccount, type Command } from '@/core/model';
import {
  account,
  blockOf,
  budgetOf,
  byMonth,
  calendar,
  cents,
  line,
  of,
  periodIds,
  sourceOf,
} from '@/core/test/build';
import { memoryKeyValue } from '@/platform/keyValue';
import type { heldRight as heldRightOf } from '@/platform/tabLock';

/** The browser's storage, which may be full, the tabs that hold a book, and what the browser remembers. */
const mockDisk = { full: false, fetched: 0, place: memoryKeyValue() };
const mockTabs = {
  holder: new Map<string, { readonly lost: () => void }>(),
  waiting: 0,
  listeners: [] as { readonly tab: object; readonly on: (news: unknown) => void }[],
};
const mockSettings = new Map<string, string>();

jest.mock('@/platform/browserKeyValue', () => ({ browserKeyValue: () => mockDisk.place }));
jest.mock('@/platform/settings', () => ({
  readSetting: (key: string) => mockSettings.get(key) ?? null,
  writeSetting: (key: string, value: string) => void mockSettings.set(key, value),
}));
jest.mock('@/platform/tabLock', () => {
  // A browser is what has a navigator.
  Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });
  const { heldRight } = jest.requireActual<{ heldRight: typeof heldRightOf }>('@/platform/tabLock');
  const hold = (book: string) => {
    const { held, lose } = heldRight(() => mockTabs.holder.get(book) === own && mockTabs.holder.delete(book));
    const own = { lost: lose };
    mockTabs.holder.set(book, own);
    return held;
  };
  const take = async (book: string) => (mockTabs.holder.has(book) ? null : hold(book));
  return {
    NO_LOCK: null,
    browserTabLock: () => ({
      take,
      wait: async (book: string) => {
        mockTabs.waiting++;
        for (let n = 0; n < 200 && mockTabs.holder.has(book); n++) await new Promise((r) => setTimeout(r, 1));
        mockTabs.waiting--;
        return take(book);
      },
      seize: async (book: string) => {
        mockTabs.holder.get(book)?.lost();
        return hold(book);
      },
      awaited: async () => mockTabs.waiting > 0,
    }),
    tabNews: () => {
      const tab = {};
      return {
        tell: (news: unknown) =>
          mockTabs.listeners.forEach((l) => l.tab !== tab && setTimeout(() => l.on(news), 0)),
        listen: (on: (news: unknown) => void) => void mockTabs.listeners.push({ tab, on }),
      };
    },
  };
});

/** A tab that has just opened the app: modules of its own over the same disk. */
async function tab() {
  jest.resetModules();
  const store = await import('./bookStore');
  const actions = await import('./actions');
  const derived = await import('@/core/ground');
  await store.boot();
  const state = () => store.useBookStore.getState();
  return { ...store, ...actions, ...derived, state, book: () => state().history!.book };
}
type Tab = Awaited<ReturnType<typeof tab>>;

/** The tab that holds the book is closed: the browser frees what it held. */
const close = () => mockTabs.holder.clear();

const SPEC = { name: 'Wharf', currency: 'USD', locale: 'en-US', firstMonth: 1 } as const;
const accounts = [account('s', 'income', 'Sales'), account('r', 'expense', 'Rent')];
const block = blockOf(accounts, [['2025-02-10', 's', 700]]);
const takeIn: Command = {
  type: 'takeIn',
  source: sourceOf({ entries: 1 }),
  newAccounts: accounts,
  accountChanges: [],
  axes: [],
  replaces: [],
  closedThrough: '2025-12' as PeriodId,
  nextId: 10,
};
const ids = periodIds(2026);

async function withBook(): Promise<Tab> {
  const t = await tab();
  await t.createBook(SPEC);
  expect(t.dispatch(takeIn, block, 'last year')).toBeNull();
  return t;
}

beforeEach(() => {
  mockDisk.full = false;
  mockDisk.place = memoryKeyValue(() => mockDisk.full);
  mockTabs.holder.clear();
  mockTabs.listeners.length = 0;
  mockSettings.clear();
  mockDisk.fetched = 0;
  globalThis.fetch = (async (url: string) => {
    mockDisk.fetched += 1;
    return { ok: true, text: async () => readFileSync(`public${url}`, 'utf8') };
  }) as never;
});

test('a first visit opens the demo book, with ids of its own; a second finds it kept', async () => {
  const first = await tab();
  expect(first.state().phase).toBe('ready');
  const { id, name } = first.book();
  expect(id).toMatch(/^demo-/);
  expect(first.state().save.state).toBe('saved');
  const second = await tab();
  expect(second.book()).toMatchObject({ id, name });
  expect(mockDisk.fetched).toBe(1);
});

test('what is done is saved, and is there with its entries, its journal and its undo when opened again', async () => {
  const t = await withBook();
  expect(t.dispatch({ type: 'renameBook', name: 'Wharf Co-op' })).toBeNull();
  expect(t.state().save.state).toBe('saving');
  expect(t.hasUnsaved()).toBe(true);
  await t.flush();
  expect(t.hasUnsaved()).toBe(false);
  close();
  const again = await tab();
  expect(again.book().name).toBe('Wharf Co-op');
  expect([...again.state().blocks.keys()]).toEqual(['l1']);
  expect(again.state().history!.journal[0]).toMatchObject({ type: 'takeIn', why: 'last year' });
  again.undoLast();
  expect(again.book().name).toBe('Wharf');
  again.redoLast();
  expect(again.book().name).toBe('Wharf Co-op');
  await again.flush();
  expect((await tab()).book().name).toBe('Wharf Co-op');
});

test('a command that is refused, or changes nothing, saves nothing', async () => {
  const t = await withBook();
  await t.flush();
  const before = t.state().history;
  expect(t.dispatch({ type: 'renameBook', name: '  ' })).toEqual({ code: 'emptyName' });
  expect(t.dispatch({ type: 'renameBook', name: 'Wharf' })).toBeNull();
  expect(t.state().history).toBe(before);
  expect(t.state().save.state).toBe('saved');
});

test('a full disk is said, the work goes on in the tab, and the next save writes all of it', async () => {
  const t = await withBook();
  await t.flush();
  mockDisk.full = true;
  t.dispatch({ type: 'renameBook', name: 'Unsaved' });
  await t.flush();
  expect(t.state().save).toMatchObject({
    state: 'failed',
    why: expect.stringContaining('The disk is full') as string,
  });
  expect(t.hasUnsaved()).toBe(true);
  expect((await tab()).book().name).toBe('Wharf');
  mockDisk.full = false;
  t.dispatch({ type: 'setSettings', settings: { cents: true } });
  await t.flush();
  expect(t.state().save.state).toBe('saved');
  expect((await tab()).book()).toMatchObject({ name: 'Unsaved', settings: { cents: true } });
});

test('a second tab reads, follows, refuses to write, and may take the book over', async () => {
  const first = await withBook();
  await first.flush();
  const second = await tab();
  expect(second.state().readOnly).toBe(true);
  expect(second.dispatch({ type: 'renameBook', name: 'No' })).toEqual({ code: 'readOnly' });
  second.undoLast();
  expect(second.book().name).toBe('Wharf');
  first.dispatch({ type: 'renameBook', name: 'Followed' });
  await first.flush();
  await new Promise((r) => setTimeout(r, 20));
  expect(second.book().name).toBe('Followed');
  await second.takeOver();
  expect(second.state().readOnly).toBe(false);
  expect(first.state().readOnly).toBe(true);
  expect(second.dispatch({ type: 'renameBook', name: 'Mine' })).toBeNull();
  await second.flush();
  expect(first.dispatch({ type: 'renameBook', name: 'No' })).toEqual({ code: 'readOnly' });
});

test('a copy owns its entries and starts a journal; deleting one book leaves the other whole', async () => {
  const t = await withBook();
  const id = t.book().id;
  await t.duplicateBook('Copy');
  expect(t.book()).toMatchObject({ name: 'Copy' });
  expect(t.book().id).not.toBe(id);
  expect(t.state().history!.journal).toEqual([]);
  await t.deleteBook(id);
  expect(t.state().shelf.map((s) => s.name)).toEqual(expect.arrayContaining(['Copy']));
  expect(t.state().shelf.map((s) => s.id)).not.toContain(id);
  const again = await tab();
  expect(again.book().name).toBe('Copy');
  expect(again.state().blocks.size).toBe(1);
});

test('a file of a book that is on the shelf already becomes a copy beside it', async () => {
  const t = await withBook();
  await t.flush();
  const { history, blocks } = t.state();
  await t.addBook(history!.book, [...blocks.values()], history!);
  expect(t.book().id).not.toBe(history!.book.id);
  expect(t.state().shelf.filter((s) => s.name === 'Wharf')).toHaveLength(2);
});

test('when the last book is deleted, a fresh demo book is there', async () => {
  const t = await tab();
  await t.deleteBook(t.book().id);
  expect(t.book().id).toMatch(/^demo-/);
  expect(t.state().shelf).toHaveLength(1);
});

test('when no book on the shelf can be opened, that is said and nothing is made in its place', async () => {
  await mockDisk.place.set('book:k1:0', {
    seq: 2,
    savedAt: 't',
    name: 'Broken',
    whole: 0,
    sealed: 0,
    tail: [],
  });
  const t = await tab();
  expect(t.state()).toMatchObject({ phase: 'failed', failure: 'noWholeBook' });
  expect(t.state().shelf.map((s) => s.name)).toEqual(['Broken']);
});

describe('approval and merging', () => {
  const draft = budgetOf([
    line('s', byMonth({ [ids[0]!]: minor(500) })),
    line('r', byMonth({ [ids[0]!]: minor(120) })),
  ]);

  test('an approved budget is frozen with who, when and the SHA-256 of its figures', async () => {
    const t = await withBook();
    t.dispatch({ type: 'addBudget', budget: draft });
    const ground = t.makeGround(t.book(), t.state().blocks);
    expect(await t.approveBudget(ground, t.book().budgets[0]!, 'Ines')).toBeNull();
    const [approved] = t.book().budgets;
    expect(approved).toMatchObject({ state: 'approved', approved: { by: 'Ines' } });
    expect(approved!.approved!.fingerprint).toMatch(/^[0-9a-f]{64}$/);
    expect(await t.fingerprintOf(approved!, approved!.approved!.lines)).toBe(approved!.approved!.fingerprint);
    const changed = approved!.approved!.lines.map((l, i) => (i ? l : { ...l, amounts: cents(501) }));
    expect(await t.fingerprintOf(approved!, changed)).not.toBe(approved!.approved!.fingerprint);
    expect(
      t.dispatch({
        type: 'setCells',
        budget: 'b1',
        how: 'typed',
        cells: [{ ...of('s'), period: ids[0]!, value: minor(1) }],
      }),
    ).toEqual({ code: 'budgetIsFrozen' });
  });

  test('two accounts become one: their lines add up month by month, and their notes stand together', async () => {
    const t = await withBook();
    t.dispatch({ type: 'addAccount', account: newAccount('r2', '6010', 'Rent, yard', 'expense') });
    const note = (text: string) => ({ text, by: 'K', at: 't' });
    t.dispatch({
      type: 'addBudget',
      budget: {
        ...draft,
        lines: [
          ...draft.lines.map((l) => (l.account === 'r' ? { ...l, note: note('Office') } : l)),
          { ...line('r2', byMonth({ [ids[0]!]: minor(30), [ids[1]!]: minor(40) })), note: note('Yard') },
        ],
      },
    });
    const ground = t.makeGround(t.book(), t.state().blocks);
    expect(t.mergeAccounts(ground, 'r2', 'r')).toBeNull();
    const merged = t.book().budgets[0]!.lines.filter((l) => l.account !== 's');
    expect(merged).toHaveLength(1);
    expect(merged[0]).toMatchObject({
      account: 'r',
      method: byMonth({ [ids[0]!]: minor(150), [ids[1]!]: minor(40) }),
      note: { text: 'Office\nYard' },
    });
  });

  test('a note on a variance is kept, and an empty one takes it away', async () => {
    const t = await withBook();
    const period = calendar.period(calendar.firstOfYear(2025) + 1).id;
    t.explainVariance(period, 's', { text: ' Boat show ', against: null, parts: [] });
    expect(t.book().varianceNotes[period]!['s']).toMatchObject({ text: 'Boat show' });
    t.explainVariance(period, 's', { text: '  ', against: null, parts: [] });
    expect(t.book().varianceNotes[period]?.['s']).toBeUndefined();
  });
});
