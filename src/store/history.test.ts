import { minor } from '@/core/money';
import { openHistory, perform, redo, undo, type Command, type Driver, type History } from '@/core/model';
import {
  account,
  blockOf,
  bookWith,
  budgetOf,
  byMonth,
  driver,
  lastYear,
  line,
  of,
  pct,
  periodIds,
  share,
  sourceOf,
} from '@/core/test/build';
import { budgetStates, driverChanges, figureChanges, type Quantity } from './history';

const accounts = [account('s', 'income', 'Sales'), account('c', 'costOfSales', 'Goods')];
const ids = periodIds(2026);
const block = blockOf(accounts, [['2025-01-10', 's', 1000]]);
const blocks = new Map([[block.id, block]]);
const start = openHistory(
  bookWith(accounts, {
    sources: [sourceOf()],
    closedThrough: periodIds(2025)[11]!,
    budgets: [budgetOf([line('s', lastYear()), line('c', share('s', '40'))])],
  }),
  [],
);
const typed = (value: number): Command => ({
  type: 'setCells',
  budget: 'b1',
  how: 'typed',
  cells: [{ ...of('s'), period: ids[0]!, value: minor(value) }],
});
const run = (h: History, command: Command, by = 'Ines') => {
  const step = perform(h, command, '2026-01-01T00:00:00Z', { by });
  if (!step.ok) throw new Error(step.refusal.code);
  return step.history;
};
const january = (account: string) => ({ budget: 'b1', line: of(account), month: 0 });
const figures = (h: History, of: Parameters<typeof figureChanges>[2]) =>
  figureChanges(h, blocks, of).map((f) => [f.change.type, f.before, f.after]);

let h = run(start, typed(1100));
h = run(h, { type: 'setSettings', settings: { cents: true } });
h = run(h, { type: 'setLineNote', budget: 'b1', line: of('s'), note: { text: 'x', by: '', at: '' } });
h = undo(undo(undo(h, 't'), 't'), 't', 'Ines');
h = redo(h, 't');
h = run(h, {
  type: 'setMethods',
  budget: 'b1',
  lines: [{ ...of('s'), method: byMonth({ [ids[0]!]: minor(500) }) }],
});

test('a month’s history: each amount before and after, undo and redo too, ending at what is shown', () => {
  expect(figures(h, january('s'))).toEqual([
    ['setMethods', 1100, 500],
    ['redo', 1000, 1100],
    ['undo', 1100, 1000],
    ['setCells', 1000, 1100],
  ]);
});
test('a line that follows another moves with it, and its history says by what', () => {
  expect(figures(h, january('c'))).toEqual([
    ['setMethods', 440, 200],
    ['redo', 400, 440],
    ['undo', 440, 400],
    ['setCells', 400, 440],
  ]);
});
test('net profit and a line’s year are figures like any other', () => {
  expect(figures(h, { budget: 'b1', line: null, month: null })[0]).toEqual(['setMethods', 660, 300]);
  expect(figures(h, { budget: 'b1', line: of('s'), month: null })[0]).toEqual(['setMethods', 1100, 500]);
});
test('what the ledger brings moves a figure too, with who did it', () => {
  const gone = run(start, { type: 'removeSource', source: 's1' }, 'Tom');
  const [change] = figureChanges(gone, blocks, january('s'));
  expect([change!.before, change!.after, change!.change.by]).toEqual([1000, null, 'Tom']);
});
test('every state of a budget can be found again', () => {
  const states = budgetStates(h, 'b1');
  const months = states.map((s) => s.budget.lines[0]!.overrides[ids[0]!] ?? s.budget.lines[0]!.method.kind);
  expect(months).toEqual(['byMonth', 1100, 'lastYear', 1100, 1100, 1100]);
});
test('before a change of an older version nothing is told', () => {
  const old = { seq: 1, at: 't', type: 'setCells' as const, patches: [], inverse: [] };
  const later = run(openHistory(start.book, [old]), typed(7));
  expect(figures(later, january('s'))).toEqual([['setCells', 1000, 7]]);
});
test('a budget made another way keeps its uplift in its history', () => {
  const lifted = run(start, {
    type: 'setMethods',
    budget: 'b1',
    lines: [{ ...of('s'), method: lastYear({ uplift: pct('10') }) }],
  });
  expect(figures(lifted, january('s'))).toEqual([['setMethods', 1000, 1100]]);
});
test('a balance’s year is its last one, not its months added up; balances alone have no result', () => {
  const sheet = [account('b', 'bank'), account('l', 'loan')];
  const year = (v: number) => byMonth(Object.fromEntries(ids.map((p) => [p, minor(v)])));
  const book = bookWith(sheet, {
    budgets: [budgetOf([line('b', year(900)), line('l', year(200))], 'b1', { covers: 'balanceSheet' })],
  });
  const paid = run(openHistory(book, []), {
    type: 'setCells',
    budget: 'b1',
    how: 'typed',
    cells: [{ ...of('l'), period: ids[11]!, value: minor(150) }],
  });
  expect(figures(paid, { budget: 'b1', line: of('l'), month: null })).toEqual([['setCells', 200, 150]]);
  expect(figures(paid, { budget: 'b1', line: null, month: null })).toEqual([]);
});

test('a driver’s months have a history too, in the decimals of the time; one by formula moves with what it follows', () => {
  const boats = driver('d1', { kind: 'typed', values: {} });
  const twice = driver('d2', { kind: 'formula', formula: '"driver:d1" * 2' });
  const put = (to: Driver): Command => ({ type: 'setDriver', budget: 'b1', driver: to });
  let d = run(run(start, put(boats)), put(twice));
  d = run(d, {
    type: 'setDriverValues',
    budget: 'b1',
    values: [0, 1].map((i) => ({ driver: 'd1', period: ids[i]!, value: 40 + i })),
  });
  d = run(d, typed(900));
  d = run(
    d,
    put({ ...boats, decimals: 1, series: { kind: 'typed', values: { [ids[0]!]: 400, [ids[1]!]: 415 } } }),
  );
  const text = (q: Quantity | null) => q && q.value / 10 ** q.decimals;
  const told = (id: string) =>
    driverChanges(d, blocks, { budget: 'b1', driver: id }).map((c) => [
      c.change.type,
      ...c.months.map((m) => `${m.month}: ${text(m.before)} → ${text(m.after)}`),
    ]);
  expect(told('d1')).toEqual([
    ['setDriver', '1: 41 → 41.5'],
    ['setDriverValues', '0: null → 40', '1: null → 41'],
  ]);
  expect(told('d2')).toEqual([
    ['setDriver', '1: 82 → 83'],
    ['setDriverValues', '0: null → 80', '1: null → 82'],
  ]);
  d = undo(d, 't');
  expect(told('d1')[0]).toEqual(['undo', '1: 41.5 → 41']);
});
