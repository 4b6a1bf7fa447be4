import { gridOf, type GridCell } from '@/core/files';
import { makeGround } from '@/core/ground';
import {
  applyCommand,
  openBook,
  type Handout,
  type HandedLine,
  type Return,
  type ReturnedLine,
  type Round,
  type SaidCell,
} from '@/core/model';
import { minor, type Minor } from '@/core/money';
import { day, type Day } from '@/core/calendar';
import { account, bookWith, budgetOf, byMonth, calendar, didAll, line, periodIds } from '@/core/test/build';
import { HANDOUT_WORDS } from '@/core/test/handout';
import { anchorText, columnText, rowText } from './marks';
import {
  compareReturn,
  handedLines,
  handoutPage,
  handoutState,
  linesToHand,
  mergeOf,
  NO_PICKS,
  readReturn,
  roundPeriods,
  USUAL_MEANING,
  type ReadGround,
} from '.';

const ids = periodIds(2026);
const accounts = [
  account('fees', 'income', 'Berth fees', '4010'),
  account('rent', 'expense', 'Rent', '6100'),
  { ...account('old', 'expense', 'Old rent', '6101'), active: false },
  account('bank', 'bank', 'Bank', '1000'),
];
const months = (amount: number) => byMonth(Object.fromEntries(ids.map((p) => [p, minor(amount)])));
const budget = budgetOf([line('fees', months(100)), line('rent', months(20)), line('old', months(5))], 'b1');
const round: Round = {
  id: 'u1',
  name: 'Round',
  budget: 'b1',
  asks: '',
  address: '',
  due: day('2026-12-10'),
  message: '',
  first: ids[0]!,
  length: 3,
  answer: 'months',
  shows: { lastYear: false, draft: true, notes: false },
  handouts: [],
};
const ground = makeGround(bookWith(accounts, { budgets: [budget] }), new Map());
const handed: HandedLine[] = handedLines(ground, budget, round, budget.lines.slice(0, 2));
const handout: Handout = {
  id: 'h1',
  to: 'North Yard',
  address: '',
  lines: handed,
  sent: null,
  reminders: 0,
  returns: [],
};
const said = (amount: number | null): SaidCell =>
  amount === null ? { is: 'blank', amount: null, raw: '' } : { is: 'amount', amount: minor(amount), raw: '' };
const answer = (of: string, cells: readonly (number | null)[]): ReturnedLine => ({
  account: of,
  segment: null,
  row: 5,
  cells: cells.map(said),
  turned: false,
  comment: '',
  total: null,
  spread: 'evenly',
});
const returned = (change: Partial<Return> = {}): Return => ({
  fingerprint: 'a'.repeat(64),
  fileName: 'x.xlsx',
  at: 't',
  known: 'identity',
  lines: [answer('fees', [100, 100, 100]), answer('rent', [20, 20, 20])],
  own: [],
  strays: [],
  without: [],
  merged: null,
  ...change,
});

test('lines of profit and loss that are in use can be handed out', () => {
  expect(linesToHand(ground, budget, () => true, true).map((l) => l.account)).toEqual(['fees', 'rent']);
  expect(linesToHand(ground, budget, (a) => a.kind === 'income', true).map((l) => l.account)).toEqual([
    'fees',
  ]);
});

describe('how a handout stands', () => {
  const whole = returned();
  const half = returned({ lines: whole.lines.slice(0, 1), fingerprint: 'b'.repeat(64) });
  const short = returned({ without: [ids[2]!] });
  test.each<[string, Partial<Handout>, string, string]>([
    ['not made', {}, '2026-12-31', 'new'],
    ['out on its day', { sent: 't' }, '2026-12-10', 'out'],
    ['late the day after', { sent: 't' }, '2026-12-11', 'late'],
    ['back', { sent: 't', returns: [whole] }, '2026-12-31', 'returned'],
    ['back without a line', { sent: 't', returns: [half] }, '2026-12-01', 'partly'],
    ['back without a month', { sent: 't', returns: [short] }, '2026-12-01', 'partly'],
    ['in the budget', { sent: 't', returns: [{ ...whole, merged: 't' }] }, '2026-12-31', 'merged'],
    ['half of it in the budget', { sent: 't', returns: [{ ...half, merged: 't' }] }, '2026-12-31', 'partly'],
    [
      'in the budget, and another came',
      { sent: 't', returns: [{ ...whole, merged: 't' }, half] },
      '2026-12-01',
      'partly',
    ],
  ])('%s', (_, change, today, state) =>
    expect(handoutState({ ...handout, ...change }, round, today as Day)).toBe(state),
  );
  test('without a due day nobody is late', () =>
    expect(handoutState({ ...handout, sent: 't' }, { due: null }, '2030-01-01' as Day)).toBe('out'));
});

describe('in the book', () => {
  const start = didAll(ground.book, { type: 'setRound', round: { ...round, handouts: [handout] } });
  const send = (reminds: boolean) => ({
    type: 'sendHandouts' as const,
    round: 'u1',
    handouts: [{ id: 'h1', lines: handed.slice(0, 1) }],
    at: 't1',
    reminds,
  });
  test('a file made is noted with its lines, a reminder counted', () => {
    const once = didAll(start, send(false)).rounds[0]!.handouts[0]!;
    expect([once.sent, once.reminders, once.lines.length]).toEqual(['t1', 0, 1]);
    expect(didAll(start, send(false), send(true)).rounds[0]!.handouts[0]!.reminders).toBe(1);
  });
  test('a return can be left out until it is in the budget', () => {
    const take = { type: 'takeReturn' as const, round: 'u1', handout: 'h1', returned: returned() };
    const drop = { type: 'dropReturn' as const, round: 'u1', handout: 'h1', fingerprint: 'a'.repeat(64) };
    const merge = {
      type: 'mergeReturn' as const,
      round: 'u1',
      handout: 'h1',
      fingerprint: 'a'.repeat(64),
      at: 't2',
      cells: [],
      notes: [],
      own: [],
      said: '',
    };
    expect(didAll(start, take, drop).rounds[0]!.handouts[0]!.returns).toEqual([]);
    expect(didAll(start, take, merge, drop).rounds[0]!.handouts[0]!.returns).toMatchObject([
      { merged: 't2' },
    ]);
    for (const command of [take, drop, merge, send(false)])
      expect(applyCommand(ground.book, command)).toMatchObject({
        ok: false,
        refusal: { code: 'noSuchRound' },
      });
  });
  test('it goes with its budget, follows a merged account, and what does not fit is set aside', () => {
    expect(didAll(start, { type: 'deleteBudget', budget: 'b1' }).rounds).toEqual([]);
    const merged = didAll(start, { type: 'mergeAccounts', from: 'rent', into: 'old', lines: [] });
    expect(merged.rounds[0]!.handouts[0]!.lines.map((l) => l.account)).toEqual(['fees', 'old']);
    const plain = {
      ...round,
      handouts: [handout, { ...handout, id: 'h2', lines: [{ ...handed[0]!, handed: [] }] }],
    };
    const opened = openBook({
      ...ground.book,
      rounds: [plain, plain, { ...plain, id: 'u2', budget: 'gone' }],
    });
    expect(opened).toMatchObject({
      ok: true,
      book: { rounds: [{ id: 'u1', handouts: [{ id: 'h1' }] }] },
      setAside: [{ because: 'figuresMissing' }, { because: 'twice' }, { because: 'noSuchBudget' }],
    });
  });
});

describe('beside the draft', () => {
  const compare = (
    lines: readonly ReturnedLine[],
    change: { now?: number; target?: number; without?: boolean } = {},
  ) => {
    const of = {
      ...handout,
      lines: handed.map((l) => ({ ...l, target: change.target === undefined ? null : minor(change.target) })),
    };
    const c = {
      round,
      handout: of,
      returned: returned({ lines: [...lines], without: change.without ? [ids[1]!] : [] }),
      periods: roundPeriods(calendar, round),
      draft: (): (Minor | null)[] => [minor(change.now ?? 20), minor(20), minor(20)],
      lastYear: () => [],
      meaning: USUAL_MEANING,
      picks: NO_PICKS,
    };
    const compared = compareReturn(c);
    return {
      states: compared[0]!.cells.map((x) => x.state),
      beyond: compared[0]!.beyond,
      merged: mergeOf(compared, c),
    };
  };
  test('what both changed to the same agrees', () => {
    const { states, merged } = compare([answer('rent', [30, 20, 20])], { now: 30 });
    expect([states, merged.cells, merged.counts.open]).toEqual([['agrees', 'same', 'same'], [], 0]);
  });
  test('a month without a column says nothing, whatever a blank means', () => {
    expect(compare([answer('rent', [20, 99, 20])], { without: true }).states).toEqual([
      'same',
      'left',
      'same',
    ]);
  });
  test('a limit is kept at the limit', () => {
    expect(compare([answer('rent', [20, 20, 20])], { target: 60 }).beyond).toBe(false);
    expect(compare([answer('rent', [21, 20, 20])], { target: 60 }).beyond).toBe(true);
  });
  test('a line that was not handed out is nobody’s', () =>
    expect(
      mergeOf(
        compareReturn({
          round,
          handout,
          returned: returned({ lines: [answer('old', [1, 2, 3])] }),
          periods: roundPeriods(calendar, round),
          draft: () => [],
          lastYear: () => [],
          meaning: USUAL_MEANING,
          picks: NO_PICKS,
        }),
        { periods: [], picks: NO_PICKS },
      ).cells,
    ).toEqual([]));
});

describe('sheets', () => {
  const of: ReadGround = {
    periods: roundPeriods(calendar, round),
    answer: 'months',
    lines: handed,
    accounts,
    axis: null,
    calendar,
    currency: 'USD',
    prefer: { decimal: '.', group: ',' },
  };
  const head: GridCell[] = ['', 'Line', 'Jan 2026', 'Feb 2026', 'Mar 2026'];
  const marks = (second = 1): GridCell[] => [
    anchorText({ book: 'b', round: 'u1', handout: 'h1', checksum: 'c' }),
    columnText({ of: 'name' }),
    ...[0, second, 2].map((m) => columnText({ of: 'month', period: ids[m]! })),
  ];
  const fees: GridCell[] = [
    rowText({ of: 'line', line: { account: 'fees', segment: null } }),
    'Berth fees',
    1,
    2,
    3,
  ];
  const amounts = (rows: GridCell[][], ...more: GridCell[][][]) =>
    readReturn(
      [rows, ...more].map((r, i) => gridOf(`S${i}`, r)),
      of,
    );
  test('the sheet with marks is the one that was handed out, however much another has', () => {
    const other = [head, ['', 'Berth fees', 7, 7, 7], ['', 'Rent', 7, 7, 7]];
    const { lines, known } = amounts(other, [marks(), head, fees]);
    expect([known, lines.length, lines[0]!.cells[0]!.amount]).toEqual(['identity', 1, 1_00]);
  });
  test('a month that stands there twice counts once, and is told', () => {
    const twice = [...marks(), columnText({ of: 'month', period: ids[2]! })];
    const { lines, strays } = amounts([twice, [...head, ''], [...fees, 9]]);
    expect(lines[0]!.cells.map((c) => c.amount)).toEqual([1_00, 2_00, 3_00]);
    expect(strays).toEqual([{ code: 'twice', what: 'Mar 2026', row: 1 }]);
  });
  test.each<[string, string | null]>([
    ['Berth fee', 'fees'],
    ['berth-fees!', 'fees'],
    ['4010 Berth fees', 'fees'],
    ['Births', null],
    ['Ferries', null],
  ])('without marks “%s” is %s', (name, found) => {
    const { lines, own } = amounts([head, ['', name, 5, 5, 5], ['', 'Rent', 1, 1, 1]]);
    expect(lines.find((l) => l.account !== 'rent')?.account ?? null).toBe(found);
    expect(own.map((o) => o.name)).toEqual(found ? [] : [name]);
  });
  test('years across fall on their months as the draft does, else evenly', () => {
    const year = { ...round, length: 12 };
    const lines = handedLines(ground, budget, year, budget.lines.slice(0, 2));
    const rising = lines.map((l) => ({
      ...l,
      handed: l.handed.map((_, i) => minor(i < 2 ? (i + 1) * 100 : 0)),
    }));
    const read = (rows: GridCell[][], first = rising) =>
      readReturn([gridOf('S', rows)], { ...of, periods: roundPeriods(calendar, year), lines: first });
    const {
      lines: found,
      own,
      without,
    } = read([
      ['Account', 'Actual 2025', 'Budget 2026', 2027],
      ['Berth fees', 5, 30, 7],
      ['Rent', '', 'n/a', ''],
      ['Divers', '', 24, ''],
    ]);
    expect(found[0]!.cells.map((c) => c.amount)).toEqual([10_00, 20_00, ...new Array<number>(10).fill(0)]);
    expect(found[1]!.cells[0]).toMatchObject({ is: 'text', raw: 'n/a' });
    expect(own[0]!.cells.map((c) => c.amount)).toEqual(new Array<number>(12).fill(2_00));
    expect(without).toEqual([]);
    const flat = read(
      [
        ['', '2026'],
        ['Rent', -12],
      ],
      lines.map((l) => ({ ...l, handed: [] })),
    );
    expect(flat.lines[0]).toMatchObject({ turned: true, cells: new Array(12).fill({ amount: 1_00 }) });
    // A year that is asked of in part has no amount of its own.
    expect(
      amounts([
        ['', '2026'],
        ['Rent', 12],
      ]).lines,
    ).toEqual([]);
  });
  test('of two names that are as like, neither is taken', () => {
    const near = [...accounts.slice(0, 2), account('fees2', 'income', 'Berth feet', '4011')];
    const lines = [...handed, { ...handed[0]!, account: 'fees2' }];
    const reading = readReturn([gridOf('S', [head, ['', 'Berth feex', 5, 5, 5], ['', 'Rent', 1, 1, 1]])], {
      ...of,
      accounts: near,
      lines,
    });
    expect(reading.own.map((o) => o.name)).toEqual(['Berth feex']);
  });
  test('a cost that comes to nothing in all was handed out as none: negatives are read as costs', () => {
    const rent: GridCell[] = [
      rowText({ of: 'line', line: { account: 'rent', segment: null } }),
      'Rent',
      -1,
      -2,
      -3,
    ];
    const read = (first: number | null) =>
      readReturn([gridOf('S', [marks(), head, rent])], {
        ...of,
        lines: [
          { account: 'rent', segment: null, handed: [first === null ? null : minor(first), null, null] },
        ],
      }).lines[0]!;
    expect(read(null)).toMatchObject({
      turned: true,
      cells: [{ amount: 1_00 }, { amount: 2_00 }, { amount: 3_00 }],
    });
    expect(read(-1)).toMatchObject({ turned: false, cells: [{ amount: -1_00 }, {}, {}] });
  });
  test('where the draft is not shown, no sum of it is either', () => {
    const hidden = { ...round, shows: { ...round.shows, draft: false } };
    const page = handoutPage(ground, budget, hidden, handout, HANDOUT_WORDS);
    expect(page.rows.flatMap((r) => r.cells.filter((c) => typeof c === 'number'))).toEqual([]);
  });
});
