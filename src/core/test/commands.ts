import { day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import {
  type Account,
  type Adjusts,
  type Adjustment,
  type Book,
  type Command,
  type CommandType,
  type Layout,
  type OpenItem,
  type Return,
  type Round,
  type VarianceNote,
} from '@/core/model';
import { account, budgetOf, byMonth, driver, lastYear, line, periodIds, share, sourceOf } from './build';
import { atOnce, terms } from './cash';
import type { Random } from './random';
import { staffRow } from './schedule';

/* Commands drawn at random, of every kind that there is, over few names: they meet on the same lines, often. */

const IDS = periodIds(2026);
const ACCOUNTS = ['sales', 'rent', 'wages', 'power', 'late'] as const;
const AT = '2026-01-01T00:00:00Z';

export const RANDOM_ACCOUNTS: readonly Account[] = [
  account('sales', 'income', 'Sales', '4000'),
  account('rent', 'expense', 'Rent', '6000'),
  account('wages', 'expense', 'Wages', '6100'),
  account('power', 'expense', 'Power', '6200'),
  account('withheld', 'payable', 'Withheld', '2100'),
];

const note = (r: Random) => (r.below(3) ? { text: `n${r.below(9)}`, by: 'me', at: AT } : null);
const ref = (r: Random) => ({ account: r.pick(ACCOUNTS), segment: null });
const cell = (r: Random) => ({ ...ref(r), period: r.pick(IDS.slice(0, 4)) });
const value = (r: Random) => (r.below(4) ? minor(r.below(900)) : null);
const some = <T>(r: Random, make: (r: Random) => T): T[] =>
  Array.from({ length: 1 + r.below(6) }, () => make(r));
const budget = (r: Random) => r.pick(['b1', 'b1', 'b1', 'b2']);
const method = (r: Random) => r.pick([byMonth({ [IDS[0]!]: minor(3) }), lastYear(), share('sales', '10')]);

const layout = (id: string): Layout => ({
  id,
  name: id,
  group: '',
  against: { first: 'inForce', second: '' },
  rows: {
    set: 'profitAndLoss',
    detail: 'account',
    order: 'incomeFirst',
    sort: 'chart',
    own: [],
    kinds: [],
  },
  columns: [{ show: 'actual', against: 'first', span: { of: 'ruler' }, hidden: false, unit: '' }],
  segments: { axis: null, place: 'none', values: [] },
  filter: 'all',
  numbers: { unit: 'book', negatives: 'book', red: 'book' },
  days: 'working',
});

const round = (r: Random): Round => ({
  id: `u${r.below(2)}`,
  name: 'Autumn',
  budget: 'b1',
  asks: 'me',
  address: '',
  due: null,
  message: '',
  first: IDS[0]!,
  length: 12,
  answer: 'months',
  shows: { lastYear: true, draft: true, notes: true },
  handouts: [
    { id: 'h1', to: 'Yard', address: '', lines: [handed(r)], sent: null, reminders: 0, returns: [returned] },
  ],
});
const handed = (r: Random) => ({ ...ref(r), handed: IDS.map(() => minor(1)), target: null });
const PRINT = 'a'.repeat(64);
const returned: Return = {
  fingerprint: PRINT,
  fileName: 'x.xlsx',
  at: AT,
  known: 'identity',
  lines: [],
  own: [{ name: 'Their own', income: false, row: 1, cells: [], comment: '', done: false }],
  strays: [],
  without: [],
  merged: null,
};
const openItem = (r: Random): OpenItem => ({
  id: `i${r.below(40)}`,
  side: 'in',
  kind: 'invoice',
  number: `n${r.below(4)}`,
  counterparty: 'Customer',
  dated: day('2026-01-01'),
  due: day('2026-02-01'),
  amount: minor(5),
  open: minor(5),
  account: null,
  from: 'list.csv',
});
const anyId = (r: Random, list: readonly { readonly id: string }[]) => r.pick([...list, { id: 'none' }]).id;
const NONE = [{ id: 'none' }];
const randomTax = {
  name: 'Sales tax',
  payable: null,
  owed: 'net' as const,
  on: 'invoice' as const,
  every: 3 as const,
  ends: 12,
  due: { of: 'months' as const, months: 1, day: 20 },
  exceptions: [],
};
const adjustment = (r: Random): Omit<Adjustment, 'id'> => ({
  name: `Prices ${r.below(3)}`,
  why: '',
  by: 'me',
  at: AT,
  what: r.pick<Adjusts>([
    {
      on: 'amounts',
      reach: { lines: [{ of: 'account', account: r.pick(ACCOUNTS) }] },
      way: { as: 'percent' },
    },
    { on: 'termsDays', reach: { lines: [{ of: 'income' }] } },
    { on: 'rowAdded', row: staffRow({ id: 'r9' }), by: 'yes' },
  ]),
  when: { from: IDS[r.below(4)]!, until: null, every: 1, times: null, ramp: null },
  off: r.below(4) === 0,
});
const caseSize = (r: Random) => ({ size: r.below(2000) - 1000, low: null, high: null });
const varianceNote = (r: Random): VarianceNote => ({
  text: `v${r.below(9)}`,
  against: null,
  parts: [{ kind: 'once', amount: minor(r.below(9)) }],
  at: AT,
});

type Drawn = {
  readonly [T in CommandType]: (
    r: Random,
    book: Book,
  ) => Omit<Extract<Command, { readonly type: T }>, 'type'>;
};

/** A command of each kind. A new kind does not compile until it is drawn here. */
const DRAWN: Drawn = {
  renameBook: (r) => ({ name: `Name ${r.below(3)}` }),
  setSettings: (r) => ({ settings: { cents: r.below(2) > 0 } }),
  setClosedThrough: (r) => ({ period: r.pick([null, IDS[1]!]) }),
  setCalendar: (r) => ({
    calendar: { kind: 'months', firstMonth: 1 },
    closedThrough: r.pick([null, IDS[0]!]),
  }),
  setAxis: (r) => ({
    axis: { id: 'x1', name: `Site ${r.below(2)}`, columns: [], byAccount: {}, values: [] },
  }),
  removeAxis: () => ({ axis: 'x1' }),
  setFeed: (r) => ({
    feed: r.pick([null, { url: '/f', company: 'C', cursor: 3, schedule: { every: 'never' as const } }]),
  }),
  setWeights: (r) => ({ weights: { id: `w${r.below(2)}`, name: 'W', weights: [1, 2] } }),
  removeWeights: (r) => ({ weights: `w${r.below(2)}` }),
  setWorkWeek: (r) => ({ workWeek: { weekdays: [1 + r.below(5)], holidays: [] } }),
  setMessage: (r) => ({
    period: r.pick(IDS.slice(0, 2)),
    layout: `y${r.below(3)}`,
    message: r.below(2) ? { text: `m${r.below(9)}`, draft: '', at: '2026-01-01T00:00:00.000Z' } : null,
  }),
  setVarianceNote: (r) => ({
    period: r.pick(IDS.slice(0, 2)),
    account: r.pick(ACCOUNTS),
    note: r.below(2) ? varianceNote(r) : null,
  }),
  setFlag: (r) => ({
    of: r.pick(['kinds', 'accounts'] as const),
    key: r.pick(ACCOUNTS),
    flag: r.below(2) ? { amount: minor(r.below(9)), percent: percent('5') } : null,
  }),
  setOutlookWay: (r) => ({
    budget: budget(r),
    account: r.pick(ACCOUNTS),
    way: r.below(2) ? { kind: 'runRate', months: 1 + r.below(3) } : null,
  }),
  setQuantities: (r) => ({
    quantities: some(r, () => ({
      name: `q${r.below(3)}`,
      unit: '',
      decimals: 0,
      values: r.below(3) ? { [IDS[r.below(3)]!]: r.below(9) } : {},
    })),
  }),
  setFlowClass: (r) => ({ accounts: [r.pick(ACCOUNTS)], flow: r.pick([null, 'investing' as const]) }),
  setCostBehavior: (r) => ({ accounts: [r.pick(ACCOUNTS)], variable: r.pick([null, 40]) }),
  setCovenant: (r) => ({
    covenant: {
      id: `n${r.below(2)}`,
      name: 'Bank',
      ratio: r.pick(['current' as const, { own: 'o1' }]),
      bound: 'least',
      limit: 1000,
      from: IDS[0]!,
      tested: 'period',
    },
  }),
  removeCovenant: (r) => ({ covenant: `n${r.below(2)}` }),
  setOwnRatio: () => ({ ratio: { id: 'o1', name: 'Own', formula: '"account:rent"', unit: 'times' } }),
  removeOwnRatio: () => ({ ratio: 'o1' }),
  putLayouts: (r) => ({ layouts: [layout(`y${r.below(3)}`)] }),
  removeLayout: (r) => ({ layout: `y${r.below(3)}` }),
  moveLayout: (r) => ({ layout: `y${r.below(3)}`, before: r.pick([null, 'y0', 'y1']) }),
  takeIn: (r) => {
    const n = r.below(3);
    return {
      source: sourceOf({ id: `s${n}`, block: `l${n}`, fingerprint: String(n).repeat(64) }),
      newAccounts: r.below(2) ? [account('late', 'expense', 'Late', '6150')] : [],
      accountChanges: [{ id: 'rent', code: '6000', name: `Rent ${n}` }],
      axes: [],
      replaces: r.below(2) ? [`s${r.below(3)}`] : [],
      closedThrough: null,
      nextId: 100,
    };
  },
  removeSource: (r) => ({ source: `s${r.below(3)}` }),
  editAccount: (r) => ({ account: r.pick(ACCOUNTS), change: { group: `G${r.below(3)}` } }),
  addAccount: () => ({ account: account('late', 'expense', 'Late', '6150') }),
  moveAccount: (r) => ({ account: r.pick(ACCOUNTS), before: r.pick([null, ...ACCOUNTS]) }),
  mergeAccounts: (r) => ({
    from: r.pick(ACCOUNTS),
    into: 'rent',
    lines: r.below(2) ? [{ budget: 'b1', line: line('rent', share('power', '5')) }] : [],
  }),
  addBudget: (r) => ({ budget: budgetOf([line('sales', byMonth())], `b${2 + r.below(2)}`) }),
  renameBudget: (r) => ({ budget: budget(r), name: `B${r.below(3)}` }),
  deleteBudget: () => ({ budget: 'b2' }),
  putInForce: (r) => ({ budget: budget(r) }),
  approveBudget: () => ({
    budget: 'b2',
    approved: { at: AT, by: '', fingerprint: '', lines: [], cash: null },
  }),
  setCells: (r) => ({
    budget: budget(r),
    how: 'typed',
    cells: some(r, () => ({ ...cell(r), value: value(r) })),
  }),
  restoreCells: (r) => ({
    budget: budget(r),
    cells: ACCOUNTS.flatMap((account) =>
      IDS.slice(0, 2 + r.below(3)).map((period) => ({ account, segment: null, period })),
    ),
  }),
  setMethods: (r) => ({
    budget: budget(r),
    lines: some(r, () => ({ ...ref(r), method: method(r) })),
    restore: r.below(3) === 0,
  }),
  clearLines: (r) => ({ budget: budget(r), lines: some(r, ref) }),
  setLineNote: (r) => ({ budget: budget(r), line: ref(r), note: note(r) }),
  setCellNote: (r) => ({ budget: budget(r), cell: cell(r), note: note(r) }),
  setLooked: (r) => ({ budget: budget(r), lines: some(r, ref), looked: r.pick([null, { by: '', at: AT }]) }),
  setDriver: (r) => ({
    budget: budget(r),
    driver: driver(`d${r.below(2)}`, { kind: 'typed', values: { [IDS[0]!]: 4 } } as never),
  }),
  setDriverValues: (r) => ({
    budget: budget(r),
    values: some(r, () => ({
      driver: `d${r.below(2)}`,
      period: IDS[r.below(3)]!,
      value: r.pick([null, r.below(5)]),
    })),
  }),
  removeDriver: (r) => ({ budget: budget(r), driver: `d${r.below(2)}` }),
  putScheduleRows: (r) => ({
    budget: budget(r),
    rows: [staffRow({ id: `r${r.below(3)}` })],
    replaces: r.below(3) ? [] : [`r${r.below(3)}`],
    lines: [{ account: 'wages', segment: null, method: { kind: 'schedule', beside: {} } as never }],
  }),
  removeScheduleRows: (r) => ({ budget: budget(r), rows: [`r${r.below(3)}`] }),
  setContra: (r) => ({ budget: budget(r), account: r.pick(ACCOUNTS), against: r.pick([null, ...ACCOUNTS]) }),
  setTerms: (r) => ({
    budget: budget(r),
    terms: [terms(r.pick(ACCOUNTS), ['100', atOnce()])],
    without: r.below(2) ? [{ of: { of: 'account', account: r.pick(ACCOUNTS) } }] : [],
  }),
  addAdjustment: (r, book) => ({
    adjustment: adjustment(r),
    sizes: Object.fromEntries(book.cases.filter(() => r.below(2) > 0).map((c) => [c.id, caseSize(r)])),
  }),
  setAdjustment: (r, book) => ({
    adjustment: { ...adjustment(r), id: anyId(r, book.adjustments) },
    sizes: Object.fromEntries(
      book.cases.filter(() => r.below(2) > 0).map((c) => [c.id, r.below(2) ? caseSize(r) : null]),
    ),
  }),
  applyAdjustments: (r, book) => ({
    budget: budget(r),
    fresh: null,
    applied: some(r, () => ({
      adjustment: { ...adjustment(r), id: `j${r.below(900)}` },
      size: r.below(9),
      after: r.pick([null, IDS[0]!]),
    })).filter((a, i, all) => all.findIndex((o) => o.adjustment.id === a.adjustment.id) === i),
    lines: r.below(2) ? [line('rent', byMonth({ [IDS[1]!]: minor(r.below(9)) }))] : [],
    drivers: [],
    schedules: null,
    cash: r.below(2) ? { floor: minor(r.below(9)), creditLine: null, dated: book.cash.dated } : null,
  }),
  takeCases: (r, book) => ({
    adjustments: [{ ...adjustment(r), id: 'f1' }],
    cases: [
      {
        id: 'g1',
        name: r.pick(['Likely', book.cases[0]?.name ?? 'New']),
        by: '',
        at: AT,
        sizes: { f1: caseSize(r), gone: caseSize(r) },
      },
    ],
  }),
  takeOutAdjustments: (r, book) => ({
    budget: 'b1',
    adjustments: [book.budgets.find((b) => b.id === 'b1')?.applied[0]?.adjustment.id ?? 'j1'],
  }),
  removeAdjustments: (r, book) => ({ adjustments: [anyId(r, book.adjustments)] }),
  moveAdjustment: (r, book) => ({
    adjustment: anyId(r, book.adjustments),
    before: r.pick([null, anyId(r, book.adjustments)]),
  }),
  addCases: (r, book) => ({
    cases: [{ name: r.pick(['Better', 'Worse']), by: 'me', at: AT }],
    like: r.pick([null, anyId(r, book.cases)]),
  }),
  renameCase: (r, book) => ({ case: anyId(r, book.cases), name: `Case ${r.below(3)}` }),
  removeCase: (r, book) => ({ case: anyId(r, book.cases) }),
  setSizes: (r, book) => ({
    cells: some(r, () => ({
      case: r.pick(book.cases.length > 0 ? book.cases : NONE).id,
      adjustment: r.pick(book.adjustments.length > 0 ? book.adjustments : NONE).id,
      size: r.below(3) ? caseSize(r) : null,
    })),
  }),
  setCash: (r) => ({ change: { floor: minor(r.below(9)) } }),
  addTax: () => ({ tax: randomTax }),
  setTax: (r, book) => ({ tax: { ...randomTax, id: anyId(r, book.cash.taxes), name: `Tax ${r.below(3)}` } }),
  removeTax: (r, book) => ({ tax: anyId(r, book.cash.taxes) }),
  addForecast: () => ({ forecast: { name: 'Lean', without: ['loans'] } }),
  setForecast: (r, book) => ({
    forecast: { id: anyId(r, book.cash.forecasts), name: `F ${r.below(3)}`, without: [] },
  }),
  removeForecast: (r, book) => ({ forecast: anyId(r, book.cash.forecasts) }),
  setDatedItem: (r) => ({
    item: {
      id: `e${r.below(2)}`,
      name: 'Dated',
      direction: 'in',
      amount: minor(1 + r.below(9)),
      first: day('2026-01-01'),
      repeat: null,
      against: null,
      bank: null,
      group: 'other',
    },
  }),
  removeDatedItem: (r) => ({ item: `e${r.below(2)}` }),
  takeOpenItems: (r) => {
    const items = new Map(some(r, openItem).map((i) => [i.id, i]));
    return {
      from: `list${r.below(2)}.csv`,
      sides: ['in'],
      items: [...items.values()],
      day: r.below(2) ? day('2026-01-31') : null,
      by: '',
      at: AT,
    };
  },
  removeOpenList: (r) => ({ from: `list${r.below(2)}.csv`, side: r.below(2) ? 'in' : 'out' }),
  setBankBalance: (r) => ({
    account: 'withheld',
    balance: r.below(3) ? { day: day('2026-01-15'), amount: minor(r.below(900)), by: '', at: AT } : null,
  }),
  setBankFloor: (r) => ({ account: 'withheld', floor: r.below(2) ? minor(r.below(900)) : null }),
  takeBankStatement: (r) => ({
    number: r.below(2) ? 'DE00' : null,
    statement: {
      account: 'withheld',
      from: `bank${r.below(2)}.xml`,
      number: `${r.below(9)}`,
      first: day('2026-01-01'),
      last: day('2026-01-10'),
      opening: null,
      closing: minor(r.below(900)),
      movements: some(r, () => ({
        day: day('2026-01-05'),
        amount: minor(r.below(900)),
        counterparty: '',
        reference: `R${r.below(5)}`,
        memo: '',
        number: '',
        reverses: false,
      })),
      by: '',
      at: AT,
    },
  }),
  removeBankStatement: (r) => ({ statement: `s${r.below(40)}` }),
  sayMovements: (r) => ({
    movements: some(r, () => ({
      key: `s${r.below(40)} ${r.below(3)}`,
      said: r.below(2) ? { as: 'item o1', by: '', at: AT } : null,
    })),
  }),
  keepForecast: (r) => ({
    kept: {
      id: `f${r.below(2)}`,
      name: 'F',
      at: AT,
      by: '',
      start: day('2026-01-01'),
      days: 3,
      opening: minor(0),
      sources: [],
    },
  }),
  removeKeptForecast: (r) => ({ kept: `f${r.below(2)}` }),
  setItemChanges: (r) => ({
    changes: some(r, () => ({
      key: r.pick(['item i1', 'item i2', 'dated e0']),
      change: r.pick([null, { day: null, state: 'held' as const, reason: '', by: '', at: AT }]),
    })),
  }),
  setRound: (r) => ({ round: round(r) }),
  removeRound: (r) => ({ round: `u${r.below(2)}` }),
  sendHandouts: (r) => ({
    round: `u${r.below(2)}`,
    handouts: [{ id: 'h1', lines: [handed(r)] }],
    at: AT,
    reminds: r.below(2) > 0,
  }),
  takeReturn: (r) => ({
    round: `u${r.below(2)}`,
    handout: 'h1',
    returned: { ...returned, fingerprint: String(r.below(3)).repeat(64) },
  }),
  dropReturn: (r) => ({ round: `u${r.below(2)}`, handout: 'h1', fingerprint: String(r.below(3)).repeat(64) }),
  mergeReturn: (r) => ({
    round: `u${r.below(2)}`,
    handout: 'h1',
    fingerprint: PRINT,
    at: AT,
    cells: r.below(4) ? some(r, () => ({ ...cell(r), value: value(r) })) : [],
    notes: some(r, () => ({ ...ref(r), note: { text: `c${r.below(9)}`, by: 'them', at: AT } })),
    own: r.below(2)
      ? [
          {
            place: 0,
            line: { account: 'own1', segment: null },
            account: account('own1', 'expense', 'Own', '6900'),
          },
        ]
      : [],
    said: 'Yard',
  }),
};

export const COMMAND_TYPES = Object.keys(DRAWN) as CommandType[];

/** A command of any kind; what it asks may be refused by a book. */
export function randomCommand(r: Random, book: Book, types: readonly CommandType[] = COMMAND_TYPES): Command {
  const type = r.pick(types);
  return { type, ...DRAWN[type](r, book) } as Command;
}
