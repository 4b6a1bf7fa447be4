import fc from 'fast-check';
import { minor, type Minor } from '@/core/money';
import { day, monthCalendar, toDayNumber } from '@/core/calendar';
import { addSegment, assignAccount, mergeSegments, renameSegment, type Axis } from '@/core/model';
import { account } from '../test/build';
import {
  ACTIVITY,
  balancesOf,
  BlockBuilder,
  CLOSING,
  entriesOf,
  ledgerChanges,
  median,
  oddMonths,
  openBlock,
  OPENING,
  packTexts,
  segmentsOf,
  textAt,
  totalsOf,
  trialBalance,
  unpackTexts,
  viewOfSegments,
  type LedgerBlock,
} from '.';

const calendar = monthCalendar(1);
const at = (text: string) => calendar.indexOfDay(toDayNumber(day(text)));

type Line = readonly [day: string, account: number, amount: number, mark?: number, site?: string];
function block(lines: readonly Line[], accounts: readonly string[], id = 'l1'): LedgerBlock {
  const b = new BlockBuilder(2, ['Site']);
  lines.forEach(([d, a, amount, mark = ACTIVITY, site = ''], i) => {
    b.add(toDayNumber(day(d)), a, amount, i + 2, b.text('p'), b.text(`r${i}`), b.text('m'), mark);
    b.segment(0, site);
  });
  return b.build(id, accounts);
}

describe('packed texts', () => {
  test('any list of texts comes back as it was, whatever its letters', () =>
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 40 })), (list) => {
        const texts = ['', ...list];
        const packed = packTexts(texts);
        expect(unpackTexts(packed)).toEqual(texts);
        texts.forEach((t, i) => expect(textAt(packed, i)).toBe(t));
      }),
    ));
  test('any texts gathered, some of them again, come back, and one that comes twice running is kept once', () =>
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 6 }), { maxLength: 60 }), (texts) => {
        const b = new BlockBuilder(1);
        const places = texts.map((t) => (t.length % 2 ? b.once(t) : b.text(t)));
        const again = texts.map((t) => [b.text(t), b.text(t)] as const);
        const made = b.build('l', []);
        expect(places.map((p) => textAt(made.texts, p))).toEqual(texts);
        expect(again.map(([first]) => textAt(made.texts, first))).toEqual(texts);
        for (const [first, second] of again) expect(second).toBe(first);
      }),
    ));
  test('a block builder keeps a text that repeats soon once, and gives each back', () => {
    const b = new BlockBuilder(1);
    const places = ['alpha', 'beta', 'alpha', 'é', ''].map((t) => b.text(t));
    expect(places[2]).toBe(places[0]);
    for (const p of places) b.add(0, 0, 1, 1, p);
    const made = b.build('l', ['a']);
    expect([0, 1, 2, 3, 4].map((i) => textAt(made.texts, made.counterparty[i]!))).toEqual([
      'alpha',
      'beta',
      'alpha',
      'é',
      '',
    ]);
  });
  test('a block as it was kept before is brought up', () => {
    const made = block([['2025-01-01', 0, 5]], ['a']);
    const { mark: _m, segments: _s, ...rest } = made;
    const old = { ...rest, texts: unpackTexts(made.texts) } as unknown as LedgerBlock;
    const opened = openBlock(old)!;
    expect(opened.segments).toEqual([]);
    expect([...opened.mark]).toEqual([0]);
    expect(textAt(opened.texts, opened.memo[0]!)).toBe('m');
    expect(openBlock(opened)).toBe(opened);
  });
});

describe('balances', () => {
  const accounts = [
    account('b', 'bank'),
    account('q', 'equity'),
    account('s', 'income'),
    account('x', 'expense'),
  ];
  const ids = accounts.map((a) => a.id);
  const first = block(
    [
      ['2025-01-01', 0, 1000, OPENING],
      ['2025-01-01', 1, -1000, OPENING],
      ['2025-03-05', 0, 500],
      ['2025-03-05', 2, -500],
      ['2025-12-31', 2, 500, CLOSING],
      ['2025-12-31', 1, -500, CLOSING],
    ],
    ids,
  );
  const second = block(
    [
      ['2026-01-01', 0, 1500, OPENING],
      ['2026-02-05', 3, 200],
      ['2026-02-05', 0, -200],
    ],
    ids,
    'l2',
  );
  const balances = balancesOf([first, second], calendar);
  test('openings and closings are no activity; an opening that only repeats is not counted again', () => {
    expect(balances.movement('b', at('2025-01-15'))).toBeNull();
    expect(balances.movement('s', at('2025-12-15'))).toBeNull();
    expect(balances.closing('s', at('2025-12-15'))).toBe(500);
    expect(balances.opening('b')).toBe(1000);
    expect(balances.entries).toBe(4);
    expect(balances.range).toEqual({ first: at('2025-03-01'), last: at('2026-02-01') });
    expect(balances.balance('b', at('2026-02-28'), true)).toBe(1300);
  });
  test('the trial balance balances at every month-end: before closing, and in the next year with and without closing', () => {
    for (const month of ['2025-03-31', '2025-12-31', '2026-01-31', '2026-02-28']) {
      const t = trialBalance(accounts, balances, calendar, at(month));
      expect([month, t.debit]).toEqual([month, t.credit]);
      expect(t.unclosed).toBe(0);
    }
    expect(
      trialBalance(accounts, balances, calendar, at('2025-12-31')).rows.map((r) => [
        r.account.id,
        r.debit - r.credit,
      ]),
    ).toEqual([
      ['b', 1500],
      ['q', -1000],
      ['s', -500],
    ]);
    const open = block(
      [
        ['2025-03-05', 0, 500],
        ['2025-03-05', 2, -500],
        ['2026-02-05', 3, 200],
        ['2026-02-05', 0, -200],
      ],
      ids,
    );
    const t = trialBalance(accounts, balancesOf([open], calendar), calendar, at('2026-02-28'));
    expect([t.unclosed, t.debit, t.credit]).toEqual([-500, 500, 500]);
  });
  test('totals tell activity, openings and closings apart; openings do not stretch the days', () => {
    expect(totalsOf(second)).toMatchObject({
      activity: 2,
      openings: 1,
      closings: 0,
      firstDay: '2026-02-05',
      lastDay: '2026-02-05',
    });
  });
  test('a merged account’s entries are the other’s', () => {
    const view = { merged: new Map([['x', 's']]), keep: null };
    const merged = balancesOf([first, second], calendar, view);
    expect(merged.movement('s', at('2026-02-01'))).toBe(200);
    expect(merged.movement('x', at('2026-02-01'))).toBeNull();
    const found = entriesOf(
      [first, second],
      calendar,
      's',
      { first: at('2025-01-01'), last: at('2026-12-01') },
      view,
    );
    expect(found.map((e) => e.amount)).toEqual([-500, 500, 200]);
  });
  test('what differs between two ledgers is named by account and month', () => {
    const before = balancesOf([first, second], calendar);
    const after = balancesOf([first], calendar);
    const range = { first: at('2025-01-01'), last: at('2026-12-01') };
    expect(ledgerChanges(ids, range, before.movement, after.movement)).toEqual([
      { account: 'b', cells: [{ period: at('2026-02-01'), before: -200, after: null }], difference: 200 },
      { account: 'x', cells: [{ period: at('2026-02-01'), before: 200, after: null }], difference: -200 },
    ]);
    expect(ledgerChanges(ids, range, before.movement, before.movement)).toEqual([]);
  });
});

describe('segments', () => {
  const ledger = block(
    [
      ['2025-01-05', 0, -100, ACTIVITY, 'N'],
      ['2025-01-05', 0, -200, ACTIVITY, 'North'],
      ['2025-01-05', 0, -400, ACTIVITY, 'South'],
      ['2025-01-05', 0, -800],
      ['2025-01-05', 1, 50],
    ],
    ['s', 'x'],
  );
  const axis: Axis = {
    id: 'x1',
    name: 'Site',
    columns: ['site'],
    values: [
      { id: 'v1', name: 'North', from: ['North'] },
      { id: 'v2', name: 'South', from: ['South'] },
      { id: 'v3', name: 'N', from: ['N'] },
    ],
    byAccount: {},
  };
  const sum = (a: Axis, value: string | null, id = 's') =>
    balancesOf(
      [ledger],
      calendar,
      viewOfSegments({ merged: new Map(), keep: null }, [{ axis: a, values: [value] }]),
    ).movement(id, at('2025-01-01'));
  test('entries stand in the segment their file says, or are unassigned', () => {
    expect([sum(axis, 'v1'), sum(axis, 'v2'), sum(axis, null)]).toEqual([-200, -400, -800]);
  });
  test('values are renamed and merged, and by hand an account is put into one', () => {
    const merged = mergeSegments(renameSegment(axis, 'v1', 'North Yard'), 'v3', 'v1');
    expect(merged.values.map((v) => [v.name, v.from])).toEqual([
      ['North Yard', ['North', 'N']],
      ['South', ['South']],
    ]);
    expect(sum(merged, 'v1')).toBe(-300);
    const byHand = assignAccount(addSegment(merged, 'Hall', 9), 'x', 'v9');
    expect(sum(byHand, 'v9', 'x')).toBe(50);
    expect(sum(byHand, null, 'x')).toBeNull();
    expect(assignAccount(byHand, 'x', null).byAccount).toEqual({});
    expect(mergeSegments(axis, 'v1', 'zz')).toBe(axis);
  });
  test('the segments add up to the whole', () => {
    const of = segmentsOf(axis, ledger, new Map());
    expect([0, 1, 2, 3, 4].map(of)).toEqual(['v3', 'v1', 'v2', null, null]);
    const parts: number[] = ['v1', 'v2', 'v3', null].map((v) => sum(axis, v) ?? 0);
    expect(parts.reduce((t, v) => t + v, 0)).toBe(-1500);
  });
});

describe('months that stand out', () => {
  const of = (...v: (number | null)[]) => oddMonths(v as (Minor | null)[]).map((o) => [o.at, o.kind]);
  // The eight readings of uranium isotopes by which the NIST/SEMATECH e-Handbook shows its tests for an outlier
  // (1.3.5.17.1, Grubbs; from memory): 245.57 stands out, and nothing else does.
  test('the handbook’s example has one outlier', () => {
    const readings = [199.31, 199.53, 200.19, 200.82, 201.92, 201.95, 202.18, 245.57];
    const middle = median(readings);
    const mad = median(readings.map((v) => Math.abs(v - middle)));
    const beyond = readings.filter((v) => Math.abs((0.6745 * (v - middle)) / mad) > 3.5);
    expect(beyond).toEqual([245.57]);
    // As months, the value must also differ by a quarter of the usual to be news.
    expect(oddMonths(readings.map((v) => minor(Math.round(v * 100))))).toEqual([]);
  });
  test.each<[string, (number | null)[], [number, string][]]>([
    ['steady', [100, 101, 99, 100, 102, 98, 100, 100], []],
    ['a doubled month', [100, 100, 100, 200, 100, 100, 100, 100], [[3, 'double']]],
    [
      'a gap, then a double',
      [100, 102, 98, null, 201, 100, 99, 101],
      [
        [3, 'gap'],
        [4, 'double'],
      ],
    ],
    ['a lump', [100, 102, 98, 900, 100, 101, 99, 100], [[3, 'lump']]],
    ['a low month', [100, 102, 98, 20, 100, 101, 99, 100], [[3, 'low']]],
    ['the wrong sign', [100, 102, 98, -100, 100, 101, 99, 100, 100, 100], [[3, 'sign']]],
    ['once a year', [null, null, 1200, null, null, null, null, null, null, null, null, null], [[2, 'lump']]],
    [
      'every January alike is a habit',
      [1200, ...Array<null>(11).fill(null), 1250, ...Array<null>(11).fill(null)],
      [],
    ],
    ['too few to tell', [100, 900, 100], []],
    ['nothing', [null, null], []],
  ])('%s', (_n, values, odd) => expect(of(...values)).toEqual(odd));
  test('beyond the bounds that the person gave', () => {
    expect(
      oddMonths([100, 120, 80].map(minor), { low: minor(90), high: minor(110) }).map((o) => [o.at, o.kind]),
    ).toEqual([
      [1, 'outside'],
      [2, 'outside'],
    ]);
  });
  test('scaling an account changes no verdict', () =>
    fc.assert(
      fc.property(fc.array(fc.option(fc.integer({ min: -5000, max: 5000 })), { maxLength: 24 }), (list) => {
        const plain = oddMonths(list as (Minor | null)[]).map((o) => [o.at, o.kind]);
        const scaled = oddMonths(list.map((v) => (v === null ? null : minor(v * 4)))).map((o) => [
          o.at,
          o.kind,
        ]);
        expect(scaled).toEqual(plain);
      }),
    ));
});
