import { indexOfId, toDayNumber, type DayNumber, type Period, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import type { Balances, LedgerBlock, View } from '@/core/ledger';
import {
  isProfitAndLoss,
  naturalSign,
  termsKey,
  type Account,
  type AccountId,
  type Book,
  type Budget,
  type Cash,
  type DayRule,
  type ItemChange,
  type Line,
  type OpenItem,
  type SegmentId,
  type TaxScheme,
  type Terms,
} from '@/core/model';
import {
  createProjector,
  forecastOf,
  guessTerms,
  habitsOf,
  matchItems,
  medianDays,
  sharesOf,
  taxPeriods,
  type CashForecast,
  type ExpectedItem,
  type Guess,
  type Matched,
  type MeasuredShares,
  type PlannedLine,
  type Projected,
  type ProjectionInput,
} from '@/core/cash';
import { coversPeriod } from '@/core/plan';
import { comparisonFor } from './comparison';
import type { Ground } from './ground';
import { reckoned } from './reckoned';

/** An invoice, bill or order with what is expected of it. */
export type ShownItem = {
  readonly key: string;
  readonly side: 'in' | 'out';
  readonly kind: OpenItem['kind'];
  readonly number: string;
  readonly counterparty: string;
  readonly dated: DayNumber;
  /** When it is due; of one that only the ledger shows, after the days that are usual. */
  readonly due: DayNumber;
  readonly amount: number;
  readonly open: number;
  readonly account: AccountId | null;
  /** The file or feed that it came from; null for the ledger itself. */
  readonly from: string | null;
  readonly expected: DayNumber;
  readonly change: ItemChange | null;
};

/** How a line's money goes: said by someone, or guessed. */
export type LineTerms = { readonly terms: Terms; readonly guess: Guess | null };

export type CashView = {
  readonly input: ProjectionInput;
  readonly projected: Projected;
  readonly forecast: CashForecast;
  readonly items: readonly ShownItem[];
  /** The budgets that months are planned by, in time; months that none plans. */
  readonly plans: readonly { readonly budget: Budget; readonly periods: readonly Period[] }[];
  readonly unplanned: readonly Period[];
  /** Accounts with an amount of a year as a whole: nobody said when it falls, so it is not in the bank ahead. */
  readonly undated: readonly Account[];
  /** Budget and line of a projected line, by its key. */
  readonly lines: ReadonlyMap<string, { readonly budget: Budget; readonly line: PlannedLine }>;
  readonly termsOf: (account: Account, segment: SegmentId) => LineTerms;
  /** Measured from the ledger: how fast money came, how fast bills were paid. */
  readonly measured: { readonly in: MeasuredShares; readonly out: MeasuredShares };
  /** Whether what the bank holds at the start comes from the ledger, was said, or is not known. */
  readonly opening: 'ledger' | 'said' | 'unknown';
  /** Open items less what receivables and payables stand at, debits positive: what has no item. */
  readonly withoutItems: { readonly in: number; readonly out: number };
};

/** What follows from the ledger and from what was said of money, for every budget alike. */
const makeSaid = () => ({
  habits: lastOf(habitsOf),
  matched: lastOf(matchSides),
  opening: lastOf(openingOf),
  guesses: lastOf(
    (
      accounts: Book['accounts'],
      habits: ReturnType<typeof habitsOf>,
      sides: ReturnType<typeof matchSides>,
      opening: ReturnType<typeof openingOf>,
      yearCost: (account: AccountId) => number,
    ): ReadonlyMap<AccountId, Guess> => {
      const stocks = new Set(accounts.filter((a) => a.kind === 'inventory').map((a) => a.id));
      return new Map(
        accounts
          .filter((a) => isProfitAndLoss(a.kind))
          .map((a) => {
            const cost = yearCost(a.id);
            // A stock of more than a year's cost is no stock of this account.
            const stockDays = (stock: AccountId) =>
              stocks.has(stock) && cost > 0
                ? Math.min(365, Math.max(0, Math.round(((opening.of.get(stock) ?? 0) * 365) / cost)))
                : null;
            return [a.id, guessTerms(a, { habit: habits.get(a.id), shares: sides.shares, stockDays })];
          }),
      );
    },
  ),
  /** What an account cost in the twelve months up to a period. */
  yearCost: lastOf((balances: Balances, closed: PeriodIndex) => (account: AccountId): number => {
    let sum = 0;
    for (let p = closed - 11; p <= closed; p++) sum += balances.movement(account, p) ?? 0;
    return sum;
  }),
  items: lastOf(shownItems),
  expected: lastOf(expectedItems),
  dated: lastOf((cash: Cash) =>
    cash.dated
      .map((d) => ({ ...d, key: d.id }))
      .filter((d) => (cash.changes[`dated ${d.id}`]?.state ?? 'counted') === 'counted'),
  ),
  termsOf: new Map<string, (terms: Budget['terms']) => ReadonlyMap<string, Terms>>(),
});

/** What is reckoned of one budget looked at: two that are asked for in turn do not undo each other. */
const makeLooked = () => ({
  project: createProjector(),
  forecast: lastOf(
    (
      projected: Projected,
      _version: number,
      without: readonly never[],
      cash: Cash,
      drawn: number,
    ): CashForecast =>
      forecastOf(projected, { without, floor: cash.floor, creditLine: cash.creditLine, drawn }),
  ),
  without: lastOf((forecasts: Cash['forecasts'], id: string | null) => [
    ...(forecasts.find((f) => f.id === id)?.without ?? []),
  ]),
});

/** The last day of what is known: of the closed months; of the ledger where nothing was closed; before the budget else. */
export function cashStart(
  { calendar, closedThrough, balances }: Ground,
  budget: Budget | null,
): PeriodIndex | null {
  const known = closedThrough ?? balances.range?.last;
  if (known !== undefined && known !== null) return known;
  const first = budget && indexOfId(calendar, budget.first);
  return first === null ? null : first - 1;
}

const AHEAD = 12;

/**
 * The company's money ahead: the months after what is closed by the budget that is looked at, and by those in force where it
 * plans nothing; at least twelve months. Null where nothing is known at all.
 */
export function cashOf(
  ground: Ground,
  budget: Budget | null,
  forecast: string | null = null,
): CashView | null {
  const { book, calendar, balances, blocks, view } = ground;
  const closed = cashStart(ground, budget);
  if (closed === null) return null;
  const start = toDayNumber(calendar.period(closed).end);
  const memory = ground.memory.of('cash', makeSaid);
  const looked = ground.memory.of(`cash ${budget?.id ?? ''}`, makeLooked);
  const { plans, unplanned, periods } = plansAhead(ground, budget, closed);
  const sides = memory.matched(blocks, view, book.accounts, start);
  const habits = memory.habits(blocks, view, book.accounts);
  const opening = memory.opening(balances, book.accounts, closed, book.cash.opening);
  const guesses = memory.guesses(book.accounts, habits, sides, opening, memory.yearCost(balances, closed));
  const shown = memory.items(book.cash, sides, start);
  const said = (b: Budget) => {
    let of = memory.termsOf.get(b.id);
    if (!of) memory.termsOf.set(b.id, (of = lastOf((all) => new Map(all.map((t) => [termsKey(t), t])))));
    return of(b.terms);
  };
  const termsIn =
    (b: Budget | null) =>
    (account: Account, segment: SegmentId): LineTerms => {
      const own = b && saidTerms(said(b), account, segment);
      if (own) return { terms: own, guess: null };
      const guess = guesses.get(account.id)!;
      return { terms: guess.terms, guess };
    };
  const lines = new Map<string, { readonly budget: Budget; readonly line: PlannedLine }>();
  const undated = new Set<Account>();
  for (const plan of plans)
    for (const line of plannedLines(ground, plan, periods, termsIn(plan.budget), undated))
      lines.set(line.key, { budget: plan.budget, line });
  const input: ProjectionInput = {
    start,
    periods,
    workWeek: book.workWeek,
    accounts: book.accounts,
    opening: opening.of,
    lines: [...lines.values()].map((l) => l.line),
    items: memory.expected(shown),
    dated: memory.dated(book.cash),
    taxes: book.cash.taxes,
    taxStood: (scheme) => taxStood(ground, scheme, start, opening.of),
    bank: book.cash.bank,
    runOff: book.cash.runOff,
  };
  const projected = looked.project(input);
  const drawn = -(opening.of.get(book.cash.creditLine?.account ?? '') ?? 0);
  return {
    input,
    projected,
    forecast: looked.forecast(
      projected,
      projected.version,
      looked.without(book.cash.forecasts, forecast) as never[],
      book.cash,
      Math.max(0, drawn),
    ),
    items: shown,
    plans,
    unplanned,
    undated: [...undated],
    lines,
    termsOf: termsIn(budget),
    measured: sides.shares,
    opening: opening.from,
    withoutItems: withoutItems(book, opening.of, shown),
  };
}

type Plan = CashView['plans'][number];

/** Which budget plans each month ahead. */
function plansAhead(ground: Ground, budget: Budget | null, closed: PeriodIndex) {
  const { calendar } = ground;
  const first = budget && indexOfId(calendar, budget.first);
  const end = Math.max(closed + AHEAD, first === null ? 0 : first + budget!.length - 1);
  const periods = Array.from({ length: end - closed }, (_, i) => calendar.period(closed + 1 + i));
  const of = new Map<string, { budget: Budget; periods: Period[] }>();
  const unplanned: Period[] = [];
  for (const p of periods) {
    const by =
      budget && coversPeriod(calendar, budget, p.index)
        ? [budget]
        : (comparisonFor(ground, p.index, null)?.parts.map((x) => x.budget) ?? []);
    const plan = by.filter((b) => b.covers !== 'balanceSheet');
    if (plan.length === 0) unplanned.push(p);
    for (const b of plan) {
      const there = of.get(b.id);
      if (there) there.periods.push(p);
      else of.set(b.id, { budget: b, periods: [p] });
    }
  }
  return { periods, unplanned, plans: [...of.values()] as readonly Plan[] };
}

/** Terms that were said of a line: of itself, its account, its group, its kind. */
function saidTerms(all: ReadonlyMap<string, Terms>, account: Account, segment: SegmentId): Terms | null {
  if (all.size === 0) return null;
  const own = { of: 'account', account: account.id } as const;
  return (
    all.get(termsKey({ of: own, segment })) ??
    all.get(termsKey({ of: own })) ??
    (account.group === ''
      ? undefined
      : all.get(termsKey({ of: { of: 'group', kind: account.kind, group: account.group } }))) ??
    all.get(termsKey({ of: { of: 'kind', kind: account.kind } })) ??
    null
  );
}

const ownDays = new WeakMap<Line['method'], DayRule>();
function ownRule(method: Line['method'] | undefined): DayRule | null {
  if (method?.kind !== 'occurrence') return null;
  let rule = ownDays.get(method);
  if (!rule) ownDays.set(method, (rule = { of: 'days', on: method.on }));
  return rule;
}

function* plannedLines(
  ground: Ground,
  { budget, periods: own }: Plan,
  periods: readonly Period[],
  termsOf: CashView['termsOf'],
  undated: Set<Account>,
): Generator<PlannedLine> {
  const whole = reckoned(ground, budget);
  const first = whole.facts.periods[0]!.index;
  const planned = new Set(own.map((p) => p.index));
  const accounts = new Map(ground.book.accounts.map((a) => [a.id, a]));
  const lines = budget.approved?.lines ?? budget.lines;
  const methods = new Map(budget.lines.map((l) => [`${l.account}:${l.segment ?? ''}`, l.method]));
  for (const { account: id, segment } of lines) {
    const account = accounts.get(id);
    if (!account || !isProfitAndLoss(account.kind)) continue;
    const figures = whole.figures(id, segment);
    if (!figures) continue;
    const { amounts } = figures;
    if (figures.wholes.some((w) => w)) undated.add(account);
    yield {
      key: `${budget.id} ${id}:${segment ?? ''}`,
      account,
      segment,
      terms: termsOf(account, segment).terms,
      amounts: periods.map((p) => (planned.has(p.index) ? (amounts[p.index - first] ?? null) : null)),
      own: ownRule(methods.get(`${id}:${segment ?? ''}`)),
    };
  }
}

/** What accounts of the balance sheet stand at, debits positive: by the ledger, or as it was said. */
function openingOf(
  balances: Balances,
  accounts: Book['accounts'],
  closed: PeriodIndex,
  said: Cash['opening'],
): { readonly of: ReadonlyMap<AccountId, number>; readonly from: CashView['opening'] } {
  const of = new Map<AccountId, number>();
  let bank = false;
  for (const a of accounts) {
    if (isProfitAndLoss(a.kind)) continue;
    const stands = balances.balance(a.id, closed, true);
    if (a.kind === 'bank' && (balances.active(a.id) || stands !== 0)) bank = true;
    if (stands !== 0) of.set(a.id, stands);
  }
  if (bank || said === null) return { of, from: bank ? 'ledger' : 'unknown' };
  for (const a of accounts) {
    const amount = said.amounts[a.id];
    if (amount !== undefined) of.set(a.id, naturalSign(a.kind) * amount);
  }
  return { of, from: 'said' };
}

type Sides = {
  readonly in: Matched;
  readonly out: Matched;
  readonly shares: { readonly in: MeasuredShares; readonly out: MeasuredShares };
};

/** Receivables and payables of the ledger, matched up to a day. */
function matchSides(
  blocks: readonly LedgerBlock[],
  view: View,
  accounts: Book['accounts'],
  start: DayNumber,
): Sides {
  const side = (kind: Account['kind'], sign: 1 | -1): Matched => {
    const all = accounts
      .filter((a) => a.kind === kind)
      .map((a) => matchItems(blocks, view, a.id, sign, start));
    return {
      items: all.flatMap((m) => m.items),
      settled: all.flatMap((m) => m.settled),
      ahead: all.reduce((t, m) => t + m.ahead, 0),
    };
  };
  const [receivables, payables] = [side('receivable', 1), side('payable', -1)];
  return {
    in: receivables,
    out: payables,
    shares: { in: sharesOf(receivables.settled), out: sharesOf(payables.settled) },
  };
}

/** Days after the closed day that an overdue item is expected on where nothing is known of whose it is. */
const OVERDUE = 14;
const USUAL = 30;

/** Every open item with the day it is expected on: those of files, and of the ledger where a side has none. */
function shownItems(cash: Cash, sides: Sides, start: DayNumber): readonly ShownItem[] {
  const out: ShownItem[] = [];
  for (const side of ['in', 'out'] as const) {
    const { settled, items } = sides[side];
    const usual = medianDays(settled) ?? USUAL;
    const known = new Map<string, number | null>();
    const usualOf = (counterparty: string): number | null => {
      let days = known.get(counterparty);
      if (days === undefined)
        known.set(counterparty, (days = medianDays(settled.filter((s) => s.counterparty === counterparty))));
      return days;
    };
    const overdue = (counterparty: string): DayNumber => {
      const own = usualOf(counterparty);
      return start + (own === null ? OVERDUE : Math.max(1, own - usual));
    };
    const show = (item: Omit<ShownItem, 'expected' | 'change'>): void => {
      const change = cash.changes[item.key] ?? null;
      const expected = change?.day
        ? toDayNumber(change.day)
        : item.due > start
          ? item.due
          : overdue(item.counterparty);
      out.push({ ...item, expected, change });
    };
    const filed = cash.items.filter((i) => i.side === side);
    for (const i of filed)
      show({ ...i, key: `item ${i.id}`, dated: toDayNumber(i.dated), due: toDayNumber(i.due) });
    // What a file says of a side is all of it: the ledger's own entries would be the same items again.
    if (filed.some((i) => i.kind === 'invoice')) continue;
    for (const i of items)
      show({
        key: `ledger ${i.key}`,
        side,
        kind: 'invoice',
        number: i.reference,
        counterparty: i.counterparty,
        dated: i.dated,
        due: i.dated + (usualOf(i.counterparty) ?? usual),
        amount: i.amount,
        open: i.open,
        account: i.account,
        from: null,
      });
  }
  return out;
}

const expectedItems = (shown: readonly ShownItem[]): readonly ExpectedItem[] =>
  shown.map((i) => ({
    ...i,
    open: i.open as ExpectedItem['open'],
    counted: (i.change?.state ?? 'counted') === 'counted',
    onTop: false,
  }));

/** What stands on receivables and payables without an item. */
function withoutItems(
  { accounts }: Book,
  opening: ReadonlyMap<AccountId, number>,
  shown: readonly ShownItem[],
): CashView['withoutItems'] {
  const side = (kind: Account['kind'], of: 'in' | 'out') =>
    accounts.filter((a) => a.kind === kind).reduce((t, a) => t + (opening.get(a.id) ?? 0), 0) -
    (of === 'in' ? 1 : -1) *
      shown.filter((i) => i.side === of && i.kind === 'invoice').reduce((t, i) => t + i.open, 0);
  return { in: side('receivable', 'in'), out: side('payable', 'out') };
}

/**
 * What stands owed of a tax at the start: the running period's part is what its months brought, as far as the ledger tells;
 * the rest belongs to periods that are over.
 */
function taxStood(
  { calendar, balances }: Ground,
  scheme: TaxScheme,
  start: DayNumber,
  opening: ReadonlyMap<AccountId, number>,
): { ended: number; running: number } {
  const account = scheme.payable;
  const owed = account === null ? 0 : -(opening.get(account) ?? 0);
  if (account === null || owed === 0) return { ended: 0, running: 0 };
  const [next] = taxPeriods(scheme, start, start + 1);
  // No period is over that is not due yet: all that stands is the running one's.
  if (!next || next.to > start) return { ended: 0, running: owed };
  let brought = 0;
  for (let p = calendar.indexOfDay(next.to + 1); toDayNumber(calendar.period(p).end) <= start; p++)
    brought -= balances.movement(account, p) ?? 0;
  const running = Math.min(Math.max(0, brought), Math.max(0, owed));
  return { ended: owed - running, running };
}
