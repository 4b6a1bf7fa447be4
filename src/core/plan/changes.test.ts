import { driver, calendar, account, byMonth, factsOver, line, periodIds, share } from '@/core/test/build';
import { assume, lines } from '@/core/test/cases';
import { staffRow } from '@/core/test/schedule';
import { lineKey, type Adjusts, type Line, type SegmentId } from '@/core/model';
import { balancesOf } from '@/core/ledger';
import { minor } from '@/core/money';
import type { Assumed } from '@/core/scenario';
import { NO_CHANGES, planChanges } from './changes';

/* Which lines an adjustment reaches, and what it is told where it reaches none. */

const [january, , march] = periodIds(2026);
const accounts = [
  account('sales', 'income'),
  account('fees', 'income'),
  account('rent', 'expense'),
  account('wages', 'expense'),
  account('commission', 'expense'),
  account('royalty', 'expense'),
  account('bank', 'bank'),
];
const typed = byMonth({ [january!]: minor(100) });
const facts = factsOver(accounts, balancesOf([], calendar), 3);
const first = calendar.firstOfYear(2026);

const changesOf = (
  own: readonly Line[],
  assumed: Assumed,
  {
    segments = [null] as readonly SegmentId[],
    closed = null as number | null,
    rows = [staffRow({})].slice(1),
  } = {},
) =>
  planChanges(
    { lines: own, drivers: [], segments, applied: [] } as never,
    facts,
    assumed,
    closed,
    rows,
    NO_CHANGES,
  );
const reached = (own: readonly Line[], what: Adjusts, segments?: readonly SegmentId[]) => {
  const {
    lines: all,
    added,
    unreached,
  } = changesOf(own, [assume(what, 1_000)], segments ? { segments } : {});
  return {
    lines: [...all.keys()].sort(),
    added: added.map((l) => lineKey(l)),
    because: unreached.map((u) => u.because),
  };
};
const amount = (segment?: SegmentId, ...ids: string[]): Adjusts => ({
  on: 'amounts',
  reach: { ...lines(...ids), ...(segment === undefined ? {} : { segment }) },
  way: { as: 'amount' },
});
const percent = (reach: Extract<Adjusts, { on: 'amounts' }>['reach']): Adjusts => ({
  on: 'amounts',
  reach,
  way: { as: 'percent' },
});

describe('an amount is of one line', () => {
  const north = line('rent', typed, {}, 'north');
  const south = line('rent', typed, {}, 'south');
  const none = line('rent', typed);

  test('the only one of its account, whatever its segment', () => {
    expect(reached([north], amount(undefined, 'rent')).lines).toEqual(['rent:north']);
    expect(reached([none], amount(undefined, 'rent')).lines).toEqual(['rent']);
  });
  test('of several the unassigned one, and of several segments none', () => {
    expect(reached([north, none, south], amount(undefined, 'rent')).lines).toEqual(['rent']);
    expect(reached([north, south], amount(undefined, 'rent'))).toMatchObject({
      lines: [],
      because: ['severalLines'],
    });
    expect(reached([none], amount(undefined, 'rent', 'wages')).because).toEqual(['severalLines']);
  });
  test('that of the segment that is said', () => {
    expect(reached([north, south, none], amount('south', 'rent')).lines).toEqual(['rent:south']);
    expect(reached([north, south, none], amount(null, 'rent')).lines).toEqual(['rent']);
  });
  test('one that nobody planned is added, in a segment that the budget has', () => {
    const both = ['north', 'south'];
    expect(reached([none], amount(undefined, 'wages')).added).toEqual(['wages']);
    expect(reached([north], amount('south', 'wages'), both).added).toEqual(['wages:south']);
    expect(reached([north], amount('east', 'wages'), both).added).toEqual(['wages:north']);
    expect(reached([none], amount(undefined, 'bank')).because).toEqual(['noLine']);
  });
  test('none where rows of schedules make it', () => {
    const made = line('wages', { kind: 'schedule', beside: {} });
    expect(reached([made], amount(undefined, 'wages')).because).toEqual(['bySchedule']);
    expect(reached([made], percent(lines('wages'))).because).toEqual(['bySchedule']);
    expect(reached([none], percent(lines('wages'))).because).toEqual(['noLine']);
  });
});

describe('a wide one passes over lines that follow only lines that it reaches', () => {
  const own = [
    line('rent', typed),
    // Follows a line that is reached; follows one that is not.
    line('commission', share('rent', '10')),
    line('royalty', share('sales', '5')),
    line('sales', typed),
    line('fees', share('sales', '1')),
  ];
  const costs = { of: 'costs' as const };

  test('of all costs those that follow costs move by themselves', () => {
    expect(reached(own, percent({ lines: [costs] })).lines).toEqual(['rent', 'royalty']);
    expect(reached(own, percent({ lines: [{ of: 'kind', kind: 'income' }] })).lines).toEqual(['sales']);
  });
  test('one that is named beside it is reached as well, and of named ones each is', () => {
    const both = [...lines('commission').lines, costs];
    expect(reached(own, percent({ lines: both })).lines).toEqual(['commission', 'rent', 'royalty']);
    expect(reached(own, percent(lines('rent', 'commission'))).lines).toEqual(['commission', 'rent']);
  });
  test('one that follows a whole kind is passed over where all of its lines are reached, and not where some are', () => {
    const all = { kind: 'share' as const, of: { of: 'kind' as const, kind: 'income' as const } };
    const more = [line('sales', typed), line('fees', typed), line('royalty', { ...share('', '5'), ...all })];
    const costsAnd = (...ids: string[]) => percent({ lines: [...lines(...ids).lines, costs] });
    expect(reached(more, costsAnd('sales')).lines).toEqual(['royalty', 'sales']);
    expect(reached(more, costsAnd('sales', 'fees')).lines).toEqual(['fees', 'sales']);
  });
});

test('a line of its own amounts takes rows beside them, one by schedule has them by itself, and one that is not there is added', () => {
  const row = staffRow({ id: 'r1', account: 'wages', oncosts: [], once: [] });
  const { lines: own, added } = changesOf([line('wages', typed)], [], { rows: [row] });
  expect([...own]).toMatchObject([['wages', [{ as: 'rows', rows: ['r1'] }]]]);
  expect(added).toEqual([]);
  const bySchedule = changesOf([line('wages', { kind: 'schedule', beside: {} })], [], { rows: [row] });
  expect([bySchedule.lines.size, bySchedule.added.length]).toEqual([0, 0]);
  expect(changesOf([], [], { rows: [row] }).added.map((l) => l.method.kind)).toEqual(['schedule']);
});

test('months that are closed are not changed; what was moved out of one is still to come', () => {
  const of = (what: Adjusts) =>
    changesOf([line('rent', typed)], [assume(what, 1_000, { until: march! })], { closed: first }).lines.get(
      'rent',
    )![0];
  expect(of(percent(lines('rent')))).toMatchObject({ as: 'way', times: [0, 2, 3] });
  expect(of({ on: 'linesMoved', reach: lines('rent') })).toMatchObject({
    as: 'moved',
    covered: [true, true, true],
    open: [false, true, true],
  });
});

test('growth that stays goes on after its end, other ways end with it', () => {
  const times = (way: Extract<Adjusts, { on: 'amounts' }>['way']) =>
    changesOf(
      [line('rent', typed)],
      [assume({ on: 'amounts', reach: lines('rent'), way }, 1_000, { until: january! })],
    ).lines.get('rent')![0];
  expect(times({ as: 'growth', compounding: true, stays: true })).toMatchObject({ times: [1, 1, 1] });
  expect(times({ as: 'growth', compounding: true, stays: false })).toMatchObject({ times: [1, 0, 0] });
  expect(times({ as: 'percent' })).toMatchObject({ times: [1, 0, 0] });
});

test('what was taken in of a quantity that goes by a rule is of that quantity; of a typed one it was typed', () => {
  const applied = [
    { ...assume({ on: 'driver', driver: 'd2', way: { as: 'percent' } }, 1_000), after: null },
    { ...assume({ on: 'driver', driver: 'd3', way: { as: 'percent' } }, 1_000), after: null },
  ];
  const drivers = [
    driver('d1', { kind: 'constant', value: 1 } as never),
    driver('d2', { kind: 'constant', value: 2 } as never),
    driver('d3', { kind: 'typed', values: {} }),
  ];
  const budget = { lines: [], drivers, segments: [null], applied };
  expect([...planChanges(budget as never, facts, [], null, [], NO_CHANGES).first.drivers.keys()]).toEqual([
    'd2',
  ]);
});
