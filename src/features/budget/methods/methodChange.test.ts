import fc from 'fast-check';
import { staffRow } from '@/core/test/schedule';
import { minor, sumBlank, type Minor } from '@/core/money';
import { applyCommand, type Book, type Driver, type Line, type Method, type MethodKind } from '@/core/model';
import { createReckoner, explainMonth, type LineResult } from '@/core/plan';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  calendar,
  factsWith,
  formula,
  lastYear,
  line,
  of,
  pattern,
  pct,
  periodIds,
  phased,
  runRate,
  share,
  yearly,
} from '@/core/test/build';
import { reckonedAs, type Reckoned } from '@/core/ground';
import { moneyFormat } from '@/store/format';
import { methodKinds } from '@/core/plan';
import { likelyRef, methodAs, methodForOther } from './methodChange';
import { createPreviewer } from '../edit/preview';
import { reasonWords } from '../words';

const ids = periodIds(2026);
const accounts = [
  account('s', 'income', 'Sales', '4000'),
  { ...account('f', 'income', 'Fees', '4100'), group: 'Members' },
  account('c', 'costOfSales', 'Goods', '5000'),
  account('w', 'expense', 'Wages', '6000'),
];
const season = [10, 20, 30, 40, 50, 60, 70, 80, 90, 100, 110, 120].map((v) => v * 1000);
const facts = factsWith(accounts, {
  s: season,
  f: new Array<number>(12).fill(5_000),
  c: season.map((v) => v * 0.4),
  w: [60_000, null, null, 90_000],
});
const drivers: Driver[] = [
  {
    id: 'd1',
    name: 'Berths',
    unit: 'berths',
    decimals: 0,
    opening: null,
    series: { kind: 'typed', values: Object.fromEntries(ids.map((p, i) => [p, 40 + i])) } as Driver['series'],
    note: '',
  },
];

const METHODS: readonly (readonly [string, Method])[] = [
  ['by month', byMonth({ [ids[0]!]: minor(1234), [ids[5]!]: minor(-50), [ids[11]!]: minor(0) })],
  ['last year', lastYear({ uplift: pct('3.5'), add: minor(100), skip: { [ids[3]!]: minor(5_000) } })],
  ['last year, rounded', lastYear({ uplift: pct('-2'), round: 10 })],
  ['run rate', runRate({ over: { of: 'last', months: 3 }, uplift: pct('1') })],
  ['phased', phased(1_000_001)],
  ['phased by days', phased(777_777, { by: { by: 'days' } })],
  ['phased, last year', phased(null, { uplift: pct('4') })],
  ['pattern', pattern(500_003)],
  ['pattern of a group', pattern(500_003, { like: { of: 'group', kind: 'income', group: 'Members' } })],
  [
    'step',
    {
      kind: 'step',
      start: minor(10_050),
      first: ids[2]!,
      every: 2,
      change: { of: 'percent', percent: pct('1.25'), compounding: true },
      round: 0,
    },
  ],
  ['share', share('s', '12.5', { lag: 1 })],
  ['share of last year', { ...share('s', '1'), percent: null }],
  [
    'paydays',
    {
      kind: 'occurrence',
      amount: minor(84_637),
      later: [{ from: '2026-06-20' as never, amount: minor(90_000) }],
      on: { of: 'weeks', every: 2, from: '2026-01-09' as never },
    },
  ],
  ['drivers', { kind: 'driver', factors: ['d1'], round: 0 }],
  ['formula', formula('prior "account:w" * 10% + "driver:d1" - round("account:s" / 3, 2)')],
  ['unphased', { kind: 'unphased', amounts: yearly(250_000) }],
];
const KINDS = methodKinds(false);
const PAID = { per: 'month', amount: minor(1000) } as const;

function reckonedWith(
  method: Method,
  id = 'w',
): { book: Book; reckoned: Reckoned; line: Line; result: LineResult } {
  const lines = accounts.map((a) => line(a.id, a.id === id ? method : lastYear()));
  // Every account is paid to by a row, so that each of its lines may be made by schedule.
  const schedules = [...new Set(accounts.map((a) => a.id))].map((a) =>
    staffRow({ id: `r-${a}`, account: a, pay: PAID }),
  );
  const budget = { ...budgetOf(lines), drivers, schedules };
  const reckoning = createReckoner()(budget, facts);
  const own = lines.find((l) => l.account === id)!;
  return {
    book: bookWith(accounts, { budgets: [budget] }),
    line: own,
    result: reckoning.lines.get(own)!,
    reckoned: reckonedAs(budget, facts, reckoning),
  };
}
const whole = (r: LineResult): Minor | null => sumBlank([...r.amounts, ...r.wholes]);
const under = (method: Method) => reckonedWith(method).result;

describe('a line made another way keeps what it says', () => {
  test.each(METHODS)('%s, as every other method', (_, method) => {
    const { book, reckoned, line: own, result } = reckonedWith(method);
    for (const kind of KINDS) {
      const next = methodAs(kind, own, result, reckoned, book);
      if (!next) throw new Error(`${kind} is not offered`);
      expect(next.kind).toBe(kind);
      const after = under(next);
      if (kind === method.kind) expect(after.amounts).toEqual(result.amounts);
      else if (kind === 'byMonth') expect(after.amounts).toEqual(result.amounts);
      // What the line had stands beside what the row posts: nothing is lost.
      else if (kind === 'schedule')
        expect(after.amounts).toEqual(result.amounts.map((a) => (a ?? 0) + PAID.amount));
      else if (kind === 'unphased') expect(whole(after)).toBe(whole(result));
      // A pattern of last year's own months keeps last year's amount: what was added or left out by month is gone.
      else if (
        (kind === 'phased' || (kind === 'pattern' && method.kind !== 'lastYear')) &&
        whole(result) !== null
      )
        expect(whole(after)).toBe(whole(result));
      else if (kind === 'step')
        expect(after.amounts[0]).toBe(result.amounts.find((a) => a !== null) ?? after.amounts[0]);
      else if (kind === 'occurrence')
        // Half a cent a payday at most is lost in dividing.
        expect(Math.abs((whole(after) ?? 0) - (whole(result) ?? 0))).toBeLessThanOrEqual(27);
    }
  });
  test('uplift and rounding go along where both methods have them', () => {
    const { book, reckoned, line: own, result } = reckonedWith(lastYear({ uplift: pct('3.5'), round: 100 }));
    expect(methodAs('runRate', own, result, reckoned, book)).toMatchObject({ uplift: '3.5', round: 100 });
    expect(methodAs('pattern', own, result, reckoned, book)).toMatchObject({ uplift: '3.5', round: 100 });
  });
  test('a share becomes a formula that says the same to the cent', () => {
    const { book, reckoned, line: own, result } = reckonedWith(share('s', '12.5', { lag: 1 }));
    const next = methodAs('formula', own, result, reckoned, book)!;
    expect(under(next).amounts).toEqual(result.amounts);
  });
  test('a share is first offered of sales, at what it was last year', () => {
    const { book, reckoned, line: own, result } = reckonedWith(lastYear(), 'c');
    expect(methodAs('share', own, result, reckoned, book)).toMatchObject({
      of: { of: 'account', account: 's' },
      percent: '40',
    });
  });
  test('what the book has nothing for is not offered', () => {
    const { reckoned, line: own, result, book } = reckonedWith(lastYear());
    const bare = { ...reckoned, budget: { ...reckoned.budget, drivers: [] } };
    expect(methodAs('driver', own, result, bare, book)).toBeNull();
    const reckoning = createReckoner()({ lines: bare.budget.lines, drivers: [] }, facts);
    expect(methodAs('schedule', own, result, { ...bare, reckoning }, book)).toBeNull();
    const alone = bookWith([accounts[3]!]);
    expect(likelyRef(alone, 'w')).toBeNull();
    expect(methodAs('share', own, result, reckoned, alone)).toBeNull();
    expect(methodAs('formula', own, result, reckoned, alone)).toBeNull();
  });
  test('balances are offered what makes balances', () =>
    expect(methodKinds(true)).toEqual([
      'byMonth',
      'lastYear',
      'runRate',
      'step',
      'share',
      'driver',
      'formula',
      'schedule',
    ]));
});

describe('a method for several lines', () => {
  const other = reckonedWith(lastYear(), 'f');
  test.each(METHODS)('%s: rules are taken, amounts stay each line’s own', (_, method) => {
    const next = methodForOther(method, other.line, other.result, facts);
    expect(next.kind).toBe(method.kind);
    const own = whole(other.result);
    const after = reckonedWith(next, 'f').result;
    if (method.kind === 'byMonth') expect(after.amounts).toEqual(other.result.amounts);
    if (['phased', 'pattern', 'unphased'].includes(method.kind) && (method as { amounts: unknown }).amounts)
      expect(whole(after)).toBe(own);
    if (method.kind === 'step') expect(after.amounts[0]).toBe(other.result.amounts[0]);
    if (method.kind === 'lastYear') expect(next).toMatchObject({ skip: {}, uplift: method.uplift });
  });
});

describe('what would be', () => {
  test.each(METHODS)('%s: the preview is what applying it gives, and the book is as it was', (_, method) => {
    const { book, reckoned } = reckonedWith(lastYear());
    const before = JSON.stringify(book);
    const preview = createPreviewer();
    const seen = preview(reckoned, accounts, [{ ...of('w'), method }]);
    expect(JSON.stringify(book)).toBe(before);
    const done = applyCommand(book, { type: 'setMethods', budget: 'b1', lines: [{ ...of('w'), method }] });
    if (!done.ok) throw new Error(done.refusal.code);
    const now = createReckoner()(done.book.budgets[0]!, facts);
    expect(seen.line).toEqual(now.lines.get(of('w')));
    const total = (id: string) => whole(now.lines.get(of(id))!) ?? 0;
    expect(seen.net).toBe(total('s') + total('f') - total('c') - total('w'));
    // Seen again after something else was looked at, it is the same.
    preview(reckoned, accounts, [{ ...of('c'), method: byMonth() }]);
    expect(preview(reckoned, accounts, [{ ...of('w'), method }])).toEqual(seen);
  });
  test('a line that the budget does not have yet is seen too', () => {
    const { reckoned } = reckonedWith(lastYear());
    const bare = { ...reckoned, budget: { ...reckoned.budget, lines: reckoned.budget.lines.slice(0, 1) } };
    const seen = createPreviewer()(bare, accounts, [{ ...of('w'), method: phased(1200) }]);
    expect(seen.line.amounts).toEqual(new Array(12).fill(100));
  });
});

describe('the reasons in words', () => {
  const naming = {
    calendar,
    money: moneyFormat(bookWith(accounts)),
    account: (id: string) => accounts.find((a) => a.id === id)!.name,
    driver: (id: string) => drivers.find((d) => d.id === id)!.name,
    row: (id: string) => id,
    adjustment: (id: string) => id,
  };
  const words = (method: Method, i: number): string[] => {
    const { reckoned, line: own, result } = reckonedWith(method);
    return explainMonth(own, result, reckoned.reckoning, i).map((r) => {
      const { text, figure } = reasonWords(r, naming);
      return `${text}: ${figure}`;
    });
  };
  test.each(METHODS)(
    '%s: every step of every month has its words, and the last is the figure of the sheet',
    (_, method) => {
      const { reckoned, line: own, result } = reckonedWith(method);
      for (let i = 0; i < 12; i++) {
        const steps = explainMonth(own, result, reckoned.reckoning, i).map((r) => reasonWords(r, naming));
        expect(steps.length).toBeGreaterThan(0);
        for (const s of steps) expect(s.text.trim()).not.toBe('');
        const amount = result.amounts[i] ?? null;
        if (method.kind !== 'unphased' && method.kind !== 'byMonth')
          expect(steps.at(-1)).toEqual({
            text: 'in the sheet',
            figure: amount === null ? 'blank' : naming.money.exact(amount),
          });
      }
    },
  );
  test.each<[string, Method, number, string[]]>([
    [
      'last year',
      lastYear({ uplift: pct('-2'), skip: { [ids[3]!]: minor(5_000) } }),
      3,
      [
        'Apr 2025, actual: 900.00',
        'less a lump that will not come back: 50.00',
        '−2%: 833.00',
        'in the sheet: 833.00',
      ],
    ],
    [
      'an amount more, and rounding to tens',
      lastYear({ add: minor(-150), uplift: pct('1.5'), round: 10 }),
      0,
      [
        'Jan 2025, actual: 600.00',
        'added each month: −1.50',
        '+1.5%: 607.48',
        'rounding that keeps the year’s total: +2.52',
        'in the sheet: 610.00',
      ],
    ],
    [
      'a share of the month before',
      share('s', '12.5', { lag: 1 }),
      1,
      ['12.5% of Sales, Jan 2026: 100.00: 12.50', 'in the sheet: 12.50'],
    ],
    [
      'paydays on both sides of a raise',
      METHODS.find(([name]) => name === 'paydays')![1],
      5,
      ['1 × on 12 Jun, 846.37 each: 846.37', '1 × on 26 Jun, 900.00 each: 900.00', 'in the sheet: 1,746.37'],
    ],
    [
      'drivers',
      { kind: 'driver', factors: ['d1'], round: 0 },
      2,
      ['× Berths: 42', 'reckoned: 42.00', 'in the sheet: 42.00'],
    ],
  ])('%s', (_, method, i, expected) => expect(words(method, i)).toEqual(expected));
});

test('whatever lines are typed over, the change to by month says the same months', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...METHODS.map(([, m]) => m)),
      fc.dictionary(fc.constantFrom(...ids), fc.option(fc.integer({ min: -1e8, max: 1e8 }).map(minor))),
      (method, typed) => {
        const { book, reckoned } = reckonedWith(method);
        const own = { ...line('w', method), overrides: typed as Line['overrides'] };
        const lines = reckoned.budget.lines.map((l) => (l.account === 'w' ? own : l));
        const r = createReckoner()({ lines, drivers }, facts);
        const result = r.lines.get(own)!;
        const next = methodAs('byMonth', own, result, reckoned, book)!;
        if (method.kind === 'byMonth') return;
        expect(under(next).amounts).toEqual(result.amounts);
      },
    ),
  );
});

test.each<[MethodKind]>(KINDS.map((k) => [k]))('%s has a hint of its own', async (kind) => {
  const { METHOD_HINTS } = await import('../words');
  expect(METHOD_HINTS[kind]).toMatch(/\.$/);
});
