import { day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import { account, bookWith, budgetOf, line, periodIds, share, formula } from '@/core/test/build';
import { onAccount, terms } from '@/core/test/cash';
import { assetRow, equityRow, loanRow, releaseRow, staffRow, taxRow } from '@/core/test/schedule';
import {
  applyCommand,
  type Adjusts,
  type AdjustsOf,
  type AdjustsOn,
  NO_CASH,
  type Book,
  type Budget,
  type Cash,
  type ScheduleRow,
  type TermsRule,
} from '.';
import { soundBook } from './sound';

/*
 * Every part of a book that may name an account stands in these tables, each naming one account wherever it can. A part that is
 * added to a book, to its money or to a budget does not compile until it says here what it names; and then it is held to what
 * follows: an account that was merged or is gone is named nowhere.
 */

const A = 'gone';
const NOTHING = null;
const AT = '2026-01-01T00:00:00Z';
const [JAN] = periodIds(2026);
const person = { by: 'me', at: AT };

const RULES: { readonly [K in TermsRule['kind']]: Extract<TermsRule, { kind: K }> | typeof NOTHING } = {
  atOnce: NOTHING,
  onAccount: { ...onAccount([['90', { days: 30 }]]), badDebt: A, through: A },
  daysOutstanding: { kind: 'daysOutstanding', days: 30, over: 1, through: A },
  fromStock: {
    kind: 'fromStock',
    target: { of: 'days', days: 30 },
    bought: { of: 'monthDay', day: 1 },
    shares: [{ percent: percent('100'), due: { of: 'days', days: 0 } }],
    moved: 'stays',
    inventory: A,
    through: A,
  },
  inAdvance: { kind: 'inAdvance', first: day('2026-01-01'), every: 12, moved: 'stays', through: A },
  withoutMoney: { kind: 'withoutMoney', against: A },
  payroll: {
    kind: 'payroll',
    on: { of: 'monthDay', day: 31 },
    net: percent('80'),
    rest: { of: 'days', days: 10 },
    moved: 'stays',
    through: A,
  },
};
const rules = Object.values(RULES).filter((r) => r !== NOTHING);

const ROWS: { readonly [K in ScheduleRow['kind']]: ScheduleRow } = {
  staff: staffRow({ account: A, oncostAccount: A, through: A, bank: A }),
  loan: loanRow({ account: A, interest: A, accrued: A, bank: A }),
  asset: assetRow({
    account: A,
    expense: A,
    accumulated: A,
    paid: { due: { of: 'days', days: 0 }, through: A, bank: A },
    sold: { day: day('2026-09-01'), price: minor(5), gain: A },
  }),
  release: releaseRow({ account: A, against: A }),
  incomeTax: taxRow({ account: A, payable: A, bank: A }),
  equity: equityRow({ account: A, bank: A }),
};

const REACH = { lines: [{ of: 'account' as const, account: A }, { of: 'costs' as const }] };
const ADJUSTS: { readonly [K in AdjustsOn]: readonly AdjustsOf<K>[] | typeof NOTHING } = {
  amounts: [
    { on: 'amounts', reach: REACH, way: { as: 'percent' } },
    {
      on: 'amounts',
      reach: { lines: [{ of: 'costs' }] },
      way: { as: 'formula', formula: `"base" + "account:${A}"` },
    },
  ],
  driver: [{ on: 'driver', driver: 'd1', way: { as: 'formula', formula: `"base" + "account:${A}"` } }],
  linesMoved: [{ on: 'linesMoved', reach: REACH }],
  rowMoved: NOTHING,
  datedMoved: NOTHING,
  rowAdded: Object.values(ROWS).map((row) => ({ on: 'rowAdded' as const, row, by: 'yes' as const })),
  rowGone: NOTHING,
  rowField: NOTHING,
  pay: [{ on: 'pay', accounts: [A] }],
  oncosts: NOTHING,
  termsDays: [{ on: 'termsDays', reach: REACH }],
  termsLost: [{ on: 'termsLost', reach: REACH }],
  termsNew: rules.map((rule) => ({ on: 'termsNew' as const, reach: REACH, rule })),
  items: NOTHING,
  rate: NOTHING,
};

const adjustmentOf = (id: string, what: Adjusts) => ({
  id,
  name: 'J',
  why: '',
  ...person,
  what,
  when: { from: JAN!, until: null, every: 1, times: null, ramp: null },
  off: false,
});

const BUDGET: { readonly [K in keyof Budget]: Budget[K] | typeof NOTHING } = {
  id: NOTHING,
  name: NOTHING,
  state: NOTHING,
  first: NOTHING,
  length: NOTHING,
  covers: NOTHING,
  axis: NOTHING,
  segments: NOTHING,
  revises: NOTHING,
  // What was approved keeps the accounts of the time.
  approved: NOTHING,
  lines: [line(A, share(A, '10')), line('stays', formula(`"account:${A}" * 2`))],
  drivers: [
    {
      id: 'd1',
      name: 'D',
      unit: '',
      decimals: 0,
      opening: null,
      series: { kind: 'formula', formula: `"account:${A}" / 2` },
    } as Budget['drivers'][number],
  ],
  terms: [
    { ...terms(A, ...rules.slice(0, 3).map((r, i) => [['40', '30', '30'][i]!, r] as const)), bank: A },
    { ...terms('stays', ...rules.slice(3).map((r, i) => [['40', '30', '30'][i]!, r] as const)), bank: A },
  ],
  guessed: [{ terms: { ...terms(A, ['100', rules[0]!]), bank: A }, from: 'history', sure: true }],
  schedules: Object.values(ROWS),
  contras: { [A]: 'bank', stays: A },
  applied: Object.values(ADJUSTS).flatMap((whats, i) =>
    (whats === NOTHING ? [] : whats).map((what, k) => ({
      adjustment: adjustmentOf(`p${i}-${k}`, what),
      size: 1,
      after: null,
    })),
  ),
};

const CASH: { readonly [K in keyof Cash]: Cash[K] | typeof NOTHING } = {
  opening: { day: day('2025-12-31'), amounts: { [A]: minor(5) } },
  bank: A,
  floor: NOTHING,
  creditLine: { account: A, interest: A, limit: minor(5), rate: percent('5'), step: minor(1) },
  taxes: [
    {
      id: 't1',
      name: 'Tax',
      payable: A,
      owed: 'net',
      on: 'invoice',
      every: 1,
      ends: 12,
      due: { of: 'days', days: 0 },
      exceptions: [],
    },
  ],
  items: [
    {
      id: 'i1',
      side: 'in',
      kind: 'invoice',
      number: '1',
      counterparty: 'Ann',
      dated: day('2025-12-01'),
      due: day('2026-01-01'),
      amount: minor(5),
      open: minor(5),
      account: A,
      from: 'a.csv',
    },
  ],
  lists: NOTHING,
  dated: [
    {
      id: 'd1',
      name: 'D',
      direction: 'out',
      amount: minor(5),
      first: day('2026-01-05'),
      repeat: null,
      against: A,
      bank: A,
      group: 'other',
    },
  ],
  changes: NOTHING,
  runOff: NOTHING,
  runOffEnds: { [A]: day('2026-03-01') },
  measuredThrough: NOTHING,
  forecasts: NOTHING,
  own: NOTHING,
  newItems: NOTHING,
  lookedThrough: NOTHING,
  ordersOnTop: NOTHING,
  kept: NOTHING,
  banks: {
    balances: [{ account: A, day: day('2026-01-05'), amount: minor(5), ...person }],
    statements: [
      {
        id: 's1',
        account: A,
        from: 'x.xml',
        number: '1',
        first: day('2026-01-01'),
        last: day('2026-01-05'),
        opening: null,
        closing: null,
        movements: [],
        ...person,
      },
    ],
    said: {},
    numbers: { X1: A },
    floors: { [A]: minor(5) },
  },
};

/** The parts of a table that say something. */
const said = <T extends object>(table: { readonly [K in keyof T]: T[K] | typeof NOTHING }): Partial<T> =>
  Object.fromEntries(Object.entries(table).filter(([, v]) => v !== NOTHING)) as Partial<T>;

const budget = budgetOf([], 'b1', said<Budget>(BUDGET));
const note = {
  at: AT,
  text: 'n',
  against: 'b1',
  parts: [
    {
      kind: 'wrongEntry' as const,
      amount: minor(1),
      entries: [{ day: day('2026-01-05'), reference: '', counterparty: '', amount: minor(1) }],
      to: A,
    },
  ],
};

const BOOK: { readonly [K in keyof Book]: Book[K] | typeof NOTHING } = {
  format: NOTHING,
  version: NOTHING,
  id: NOTHING,
  name: NOTHING,
  currency: NOTHING,
  locale: NOTHING,
  calendar: NOTHING,
  // Texts: they name no accounts.
  messages: NOTHING,
  accounts: NOTHING,
  // Entries keep the account that they came with, and so do the segments that they come to.
  merged: NOTHING,
  axes: NOTHING,
  feed: NOTHING,
  sources: NOTHING,
  closedThrough: NOTHING,
  inForce: NOTHING,
  weights: NOTHING,
  workWeek: NOTHING,
  quantities: NOTHING,
  covenants: NOTHING,
  settings: NOTHING,
  nextId: NOTHING,
  budgets: [budget],
  cash: { ...NO_CASH, ...said<Cash>(CASH) },
  varianceNotes: { [JAN!]: { [A]: note, stays: note } } as unknown as Book['varianceNotes'],
  flags: {
    kinds: {},
    accounts: { [A]: { amount: minor(5), percent: percent('5') } },
  } as unknown as Book['flags'],
  outlookWays: { b1: { [A]: { kind: 'runRate', months: 3 } } } as unknown as Book['outlookWays'],
  flowClasses: { [A]: 'investing' },
  variableShares: { [A]: 40 },
  ownRatios: [{ id: 'o1', name: 'R', formula: `"account:${A}" / "kind:income"`, unit: 'percent' }],
  adjustments: Object.values(ADJUSTS).flatMap((whats, i) =>
    (whats === NOTHING ? [] : whats).map((what, k) => adjustmentOf(`j${i}-${k}`, what)),
  ),
  cases: NOTHING,
  rounds: [
    {
      id: 'u1',
      name: 'R',
      budget: 'b1',
      asks: '',
      address: '',
      due: null,
      message: '',
      first: JAN!,
      length: 1,
      answer: 'months',
      shows: { lastYear: true, draft: true, notes: true },
      handouts: [
        {
          id: 'h1',
          to: 'Yard',
          address: '',
          lines: [{ account: A, segment: null, handed: [minor(1)], target: null }],
          sent: null,
          reminders: 0,
          returns: [
            {
              fingerprint: 'a'.repeat(64),
              fileName: 'x',
              at: AT,
              known: 'identity',
              lines: [
                {
                  account: A,
                  segment: null,
                  row: 1,
                  cells: [],
                  turned: false,
                  comment: '',
                  total: null,
                  spread: 'evenly',
                },
              ],
              own: [],
              strays: [],
              without: [],
              merged: null,
            },
          ],
        },
      ],
    },
  ],
  layouts: [
    {
      id: 'y1',
      name: 'L',
      group: '',
      against: { first: 'inForce', second: '' },
      rows: {
        set: 'profitAndLoss',
        detail: 'account',
        order: 'incomeFirst',
        sort: 'chart',
        own: [{ row: 'account', account: A }],
        kinds: [],
      },
      columns: [],
      segments: { axis: null, place: 'none', values: [] },
      filter: 'all',
      numbers: { unit: 'book', negatives: 'book', red: 'book' },
      days: 'working',
    } as unknown as Book['layouts'][number],
  ],
};

const accounts = [account(A, 'expense'), account('stays', 'expense'), account('bank', 'bank')];
const book = bookWith(accounts, { ...said<Book>(BOOK), nextId: 100 });

/** Where a text still stands in a book, as paths. */
function placesOf(of: unknown, path = ''): string[] {
  if (typeof of === 'string') return of.includes(A) ? [path] : [];
  if (typeof of !== 'object' || of === null) return [];
  return Object.entries(of).flatMap(([k, v]) => [
    ...(k === A ? [`${path}.${k}`] : []),
    ...placesOf(v, `${path}.${k}`),
  ]);
}

test('an account that was merged into another is named nowhere but where its entries are found by it', () => {
  const before = JSON.stringify(book);
  const done = applyCommand(book, { type: 'mergeAccounts', from: A, into: 'stays', lines: [] });
  if (!done.ok) throw new Error(done.refusal.code);
  expect(placesOf(done.book)).toEqual([`.merged.${A}`]);
  expect(JSON.stringify(book)).toBe(before);
});

test('a book that names an account which is not there opens without what names it', () => {
  const { book: sound } = soundBook({ ...book, accounts: accounts.slice(1) });
  // What a formula names that is gone, its line says.
  expect(placesOf(sound).filter((p) => !p.endsWith('.formula'))).toEqual([]);
});
