import type { Command, CommandType } from './commands';
import { lineKey, type LineRef } from './lines';
import type { Book } from './schema';
import { segmentName } from './segments';

/** Something that a change was about, by its id and by the name that it had at the time. */
export type AboutPlace = {
  readonly of:
    | 'line'
    | 'driver'
    | 'budget'
    | 'account'
    | 'source'
    | 'axis'
    | 'weights'
    | 'dated'
    | 'tax'
    | 'layout'
    | 'covenant'
    | 'round'
    | 'schedule'
    | 'ratio'
    | 'adjustment'
    | 'case';
  readonly id: string;
  readonly name: string;
  /** The budget that a line or driver is in. */
  readonly budget?: { readonly id: string; readonly name: string };
};

/** What a change was about: the first places, and how many more there were. */
export type About = { readonly places: readonly AboutPlace[]; readonly more: number };

/** So many places are kept by name; a gesture over a thousand lines says how many more there were. */
const MOST = 6;

type Tellers = {
  readonly [T in CommandType]: (
    book: Book,
    command: Extract<Command, { type: T }>,
  ) => Iterable<AboutPlace | (() => AboutPlace)>;
};

const accountPlace = (book: Book, id: string): AboutPlace => ({
  of: 'account',
  id,
  name: book.accounts.find((a) => a.id === id)?.name ?? id,
});
const budgetOf = (book: Book, id: string) => ({
  id,
  name: book.budgets.find((b) => b.id === id)?.name ?? id,
});
const budgetPlace = (book: Book, id: string): AboutPlace => ({ of: 'budget', ...budgetOf(book, id) });

const layoutPlace = (book: Book, id: string): AboutPlace => ({
  of: 'layout',
  id,
  name: book.layouts.find((l) => l.id === id)?.name ?? id,
});

function driverPlace(book: Book, budget: string, id: string): AboutPlace {
  const driver = book.budgets.find((b) => b.id === budget)?.drivers.find((d) => d.id === id);
  return { of: 'driver', id, name: driver?.name ?? id, budget: budgetOf(book, budget) };
}

/** Lines, each once; a name is made only for those that are kept. */
function* linePlaces(book: Book, budget: string, refs: readonly LineRef[]): Generator<() => AboutPlace> {
  const { axis: axisId } = book.budgets.find((b) => b.id === budget) ?? { axis: null };
  const axis = book.axes.find((a) => a.id === axisId);
  const met = new Set<string>();
  for (const ref of refs) {
    const key = lineKey(ref);
    if (met.has(key)) continue;
    met.add(key);
    yield () => ({
      of: 'line',
      id: key,
      name: [accountPlace(book, ref.account).name, axis ? segmentName(axis, ref.segment) : '']
        .filter(Boolean)
        .join(', '),
      budget: budgetOf(book, budget),
    });
  }
}

const roundPlace = (book: Book, id: string): AboutPlace => ({
  of: 'round',
  id,
  name: book.rounds.find((r) => r.id === id)?.name ?? id,
});

const handoutPlace = (book: Book, round: string, id: string): AboutPlace => ({
  of: 'round',
  id,
  name: book.rounds.find((r) => r.id === round)?.handouts.find((h) => h.id === id)?.to ?? id,
});

const adjustmentPlace = (book: Book, id: string): AboutPlace => ({
  of: 'adjustment',
  id,
  name: book.adjustments.find((a) => a.id === id)?.name ?? id,
});
const casePlace = (book: Book, id: string): AboutPlace => ({
  of: 'case',
  id,
  name: book.cases.find((c) => c.id === id)?.name ?? id,
});

const nothing = () => [];

/** Every command says what it is about, before it is done, or the program does not compile. */
const TELLERS: Tellers = {
  renameBook: nothing,
  setSettings: nothing,
  takeIn: (_book, { source }) => [{ of: 'source', id: source.id, name: source.fileName }],
  removeSource: (book, { source }) => [
    { of: 'source', id: source, name: book.sources.find((s) => s.id === source)?.fileName ?? source },
  ],
  editAccount: (book, { account }) => [accountPlace(book, account)],
  addAccount: (_book, { account }) => [{ of: 'account', id: account.id, name: account.name }],
  moveAccount: (book, { account }) => [accountPlace(book, account)],
  mergeAccounts: (book, { from, into }) => [accountPlace(book, from), accountPlace(book, into)],
  setClosedThrough: nothing,
  setCalendar: nothing,
  setAxis: (_book, { axis }) => [{ of: 'axis', id: axis.id, name: axis.name }],
  removeAxis: (book, { axis }) => [
    { of: 'axis', id: axis, name: book.axes.find((a) => a.id === axis)?.name ?? axis },
  ],
  setFeed: nothing,
  addBudget: (_book, { budget }) => [{ of: 'budget', id: budget.id, name: budget.name }],
  renameBudget: (book, { budget }) => [budgetPlace(book, budget)],
  deleteBudget: (book, { budget }) => [budgetPlace(book, budget)],
  approveBudget: (book, { budget }) => [budgetPlace(book, budget)],
  putInForce: (book, { budget }) => [budgetPlace(book, budget)],
  setCells: (book, { budget, cells }) => linePlaces(book, budget, cells),
  restoreCells: (book, { budget, cells }) => linePlaces(book, budget, cells),
  setMethods: (book, { budget, lines }) => linePlaces(book, budget, lines),
  clearLines: (book, { budget, lines }) => linePlaces(book, budget, lines),
  setLineNote: (book, { budget, line }) => linePlaces(book, budget, [line]),
  setCellNote: (book, { budget, cell }) => linePlaces(book, budget, [cell]),
  setLooked: (book, { budget, lines }) => linePlaces(book, budget, lines),
  setDriver: (book, { budget, driver }) => [
    { of: 'driver', id: driver.id, name: driver.name, budget: budgetOf(book, budget) },
  ],
  setDriverValues: (book, { budget, values }) =>
    [...new Set(values.map((v) => v.driver))].map((d) => driverPlace(book, budget, d)),
  removeDriver: (book, { budget, driver }) => [driverPlace(book, budget, driver)],
  putScheduleRows: (book, { budget, rows }) =>
    rows.map(({ id, name }) => ({ of: 'schedule', id, name, budget: budgetOf(book, budget) })),
  removeScheduleRows: (book, { budget, rows }) =>
    (book.budgets.find((b) => b.id === budget)?.schedules ?? [])
      .filter((r) => rows.includes(r.id))
      .map(({ id, name }) => ({ of: 'schedule', id, name, budget: budgetOf(book, budget) })),
  setContra: (book, { budget, account }) => [accountPlace(book, account), budgetPlace(book, budget)],
  setWeights: (_book, { weights }) => [{ of: 'weights', id: weights.id, name: weights.name }],
  removeWeights: (book, { weights }) => [
    { of: 'weights', id: weights, name: book.weights.find((w) => w.id === weights)?.name ?? weights },
  ],
  setWorkWeek: nothing,
  setMessage: (book, { layout }) => [
    { of: 'layout', id: layout, name: book.layouts.find((l) => l.id === layout)?.name ?? '' },
  ],
  setVarianceNote: (book, { account }) => [accountPlace(book, account)],
  setFlag: (book, { of, key }) => (of === 'accounts' ? [accountPlace(book, key)] : []),
  setOutlookWay: (book, { budget, account }) => [accountPlace(book, account), budgetPlace(book, budget)],
  setQuantities: (_book, { quantities }) => quantities.map(({ name }) => ({ of: 'driver', id: name, name })),
  setFlowClass: (book, { accounts }) => accounts.map((a) => accountPlace(book, a)),
  setCostBehavior: (book, { accounts }) => accounts.map((a) => accountPlace(book, a)),
  setCovenant: (_book, { covenant: { id, name } }) => [{ of: 'covenant', id, name }],
  removeCovenant: (book, { covenant: id }) => [
    { of: 'covenant', id, name: book.covenants.find((c) => c.id === id)?.name ?? id },
  ],
  setRound: (_book, { round: { id, name } }) => [{ of: 'round', id, name }],
  removeRound: (book, { round }) => [roundPlace(book, round)],
  sendHandouts: (book, { round, handouts }) => [
    roundPlace(book, round),
    ...handouts.map((h) => handoutPlace(book, round, h.id)),
  ],
  takeReturn: (book, { round, handout }) => [handoutPlace(book, round, handout), roundPlace(book, round)],
  dropReturn: (book, { round, handout }) => [handoutPlace(book, round, handout), roundPlace(book, round)],
  mergeReturn: (book, { round, cells, own }) =>
    linePlaces(book, book.rounds.find((r) => r.id === round)?.budget ?? '', [
      ...cells,
      ...own.flatMap((o) => (o.line ? [o.line] : [])),
    ]),
  setOwnRatio: (_book, { ratio: { id, name } }) => [{ of: 'ratio', id, name }],
  removeOwnRatio: (book, { ratio: id }) => [
    { of: 'ratio', id, name: book.ownRatios.find((r) => r.id === id)?.name ?? id },
  ],
  putLayouts: (_book, { layouts }) => layouts.map(({ id, name }) => ({ of: 'layout', id, name })),
  removeLayout: (book, { layout }) => [layoutPlace(book, layout)],
  moveLayout: (book, { layout }) => [layoutPlace(book, layout)],
  setTerms: (book, { budget, terms, without }) => [
    ...[...terms, ...without].flatMap(({ of }) =>
      of.of === 'account' ? [accountPlace(book, of.account)] : [],
    ),
    budgetPlace(book, budget),
  ],
  addAdjustment: (_book, { adjustment: { name } }) => [{ of: 'adjustment', id: name, name }],
  setAdjustment: (_book, { adjustment: { id, name } }) => [{ of: 'adjustment', id, name }],
  removeAdjustments: (book, { adjustments }) => adjustments.map((id) => adjustmentPlace(book, id)),
  moveAdjustment: (book, { adjustment }) => [adjustmentPlace(book, adjustment)],
  applyAdjustments: (book, { budget, fresh, applied }) => [
    ...applied.map(({ adjustment: { id, name } }) => ({ of: 'adjustment' as const, id, name })),
    fresh ? { of: 'budget' as const, id: fresh.id, name: fresh.name } : budgetPlace(book, budget),
  ],
  takeOutAdjustments: (book, { budget, adjustments }) => [
    ...adjustments.map((id) => adjustmentPlace(book, id)),
    budgetPlace(book, budget),
  ],
  takeCases: (_book, { adjustments, cases }) => [
    ...adjustments.map(({ name }) => ({ of: 'adjustment' as const, id: name, name })),
    ...cases.map(({ name }) => ({ of: 'case' as const, id: name, name })),
  ],
  addCases: (_book, { cases }) => cases.map(({ name }) => ({ of: 'case', id: name, name })),
  renameCase: (book, { case: id }) => [casePlace(book, id)],
  removeCase: (book, { case: id }) => [casePlace(book, id)],
  setSizes: (book, { cells }) => [
    ...[...new Set(cells.map((c) => c.adjustment))].map((id) => adjustmentPlace(book, id)),
    ...[...new Set(cells.map((c) => c.case))].map((id) => casePlace(book, id)),
  ],
  setCash: nothing,
  addTax: (_book, { tax: { name } }) => [{ of: 'tax', id: name, name }],
  setTax: (_book, { tax: { id, name } }) => [{ of: 'tax', id, name }],
  removeTax: (book, { tax: id }) => [
    { of: 'tax', id, name: book.cash.taxes.find((t) => t.id === id)?.name ?? id },
  ],
  addForecast: nothing,
  setForecast: nothing,
  removeForecast: nothing,
  setDatedItem: (_book, { item }) => [{ of: 'dated', id: item.id, name: item.name }],
  removeDatedItem: (book, { item }) => [
    { of: 'dated', id: item, name: book.cash.dated.find((d) => d.id === item)?.name ?? item },
  ],
  keepForecast: nothing,
  removeKeptForecast: nothing,
  takeOpenItems: (_book, { from }) => [{ of: 'source', id: from, name: from }],
  removeOpenList: (_book, { from }) => [{ of: 'source', id: from, name: from }],
  setBankBalance: (book, { account }) => [accountPlace(book, account)],
  setBankFloor: (book, { account }) => [accountPlace(book, account)],
  takeBankStatement: (book, { statement }) => [
    { of: 'source', id: statement.from, name: statement.from },
    accountPlace(book, statement.account),
  ],
  removeBankStatement: (book, { statement }) => {
    const from = book.cash.banks.statements.find((s) => s.id === statement)?.from ?? statement;
    return [{ of: 'source', id: from, name: from }];
  },
  sayMovements: nothing,
  setItemChanges: (book, { changes }) =>
    changes.map(({ key }) => {
      const id = key.replace(/^\w+ /, '');
      const item = book.cash.items.find((i) => i.id === id);
      const dated = book.cash.dated.find((d) => d.id === id);
      if (key.startsWith(MISSED)) return { of: 'dated', id: key, name: missedName(book, key) };
      return {
        of: 'dated',
        id: key,
        name: item ? `${item.counterparty} ${item.number}` : (dated?.name ?? id),
      };
    }),
};

const MISSED = 'missed ';

/** What was planned and has no entry is called as its row or its dated item. */
function missedName({ budgets, cash }: Book, key: string): string {
  const [, of, id] = key.split(' ');
  const named =
    of === 'dated'
      ? cash.dated.find((d) => d.id === id)
      : budgets.find((b) => b.id === of)?.schedules.find((r) => r.id === id);
  return named?.name ?? key;
}

/** What a command is about, told of the book before it; null where it is about the book as a whole. */
export function aboutOf(book: Book, command: Command): About | null {
  const tell = TELLERS[command.type] as (
    book: Book,
    command: Command,
  ) => Iterable<AboutPlace | (() => AboutPlace)>;
  const places: AboutPlace[] = [];
  let more = 0;
  for (const place of tell(book, command))
    if (places.length === MOST) more++;
    else places.push(typeof place === 'function' ? place() : place);
  return places.length === 0 ? null : { places, more };
}
