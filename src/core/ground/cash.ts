import { daysOf, lineAccount, lineInterest, payingBank } from '@/core/schedule';
import { indexOfId, toDayNumber, type DayNumber, type Period, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import type { Balances } from '@/core/ledger';
import {
  hasNature,
  isProfitAndLoss,
  natural,
  termsKey,
  type Account,
  type AccountId,
  type Book,
  type Budget,
  type Cash,
  type CashSource,
  type SegmentId,
  type Terms,
} from '@/core/model';
import { minor } from '@/core/money';
import { lineOfMove, NOTHING_AHEAD } from '@/core/plan';
import {
  createProjector,
  forecastOf,
  guessTerms,
  habitsOf,
  type CashForecast,
  type Guess,
  type MeasuredShares,
  type Part,
  type PlannedLine,
  type Projected,
  type ProjectionInput,
} from '@/core/cash';
import { expectedItems, listsSince, matchSides, shownItems, type ShownItem } from './cashItems';
import { keptGuesses, saidTerms, type LineTerms } from './lineTerms';
import { datedEvents, datedLater, missedEvents, missingOf, type MissedEvent } from './missed';
import { makeItemTerms, readInvoices, type ItemTerms } from './itemTerms';
import { creditedIn, openingOf, taxCredits, withoutItems, type OpeningFrom } from './cashOpening';
import {
  balanceTargets,
  closedEvents,
  makeTaxPaid,
  scheduledRows,
  settledAtStart,
  staffAccounts,
  taxRows,
} from './cashSchedules';
import {
  accountsById,
  cashStart,
  explainedLines,
  plannedLines,
  plansAhead,
  type LinesOf,
  type MonthsOfPlan,
} from './cashPlan';
import { makeToday, type TodayView } from './bank';
import { mayMake } from './bearers';
import { plansIn } from './comparison';
import { againstOf, feedsBack, madeIn, makeBearers, type AheadOf, type Bearers, type MadeBy } from './made';
import { reckoned, type Reckoned } from './reckoned';
import type { Ground } from './ground';

export type CashView = {
  readonly input: ProjectionInput;
  readonly projected: Projected;
  readonly forecast: CashForecast;
  /** How it goes on from what banks say of days after the closed one; null where they say nothing. */
  readonly today: TodayView | null;
  readonly items: readonly ShownItem[];
  /** What was planned for closed months and has no entry. */
  readonly missed: readonly MissedEvent[];
  /** What items of the ledger go by. */
  readonly itemsBy: ItemTerms;
  /** The budgets that months are planned by, in time; months that none plans. */
  readonly plans: readonly MonthsOfPlan[];
  readonly unplanned: readonly Period[];
  /** The budgets that ruled closed months. */
  readonly pastPlans: readonly MonthsOfPlan[];
  /** Who bears what is never paid, and the interest of the credit line. */
  readonly bearers: Bearers;
  /** Accounts with an amount of a year as a whole: nobody said when it falls, so it is not in the bank ahead. */
  readonly undated: readonly Account[];
  /** Budget and line of a projected line, by its key. */
  readonly lines: ReadonlyMap<string, { readonly budget: Budget; readonly line: PlannedLine }>;
  readonly termsOf: (account: Account, segment: SegmentId) => LineTerms;
  /** The accounts that pay goes through by schedules of staff. */
  readonly staff: readonly AccountId[];
  /** Measured from the ledger: how fast money came, how fast bills were paid. */
  readonly measured: { readonly in: MeasuredShares; readonly out: MeasuredShares };
  readonly creditLine: Cash['creditLine'];
  /** Sources that the forecast leaves out. */
  readonly without: readonly CashSource[];
  /** Whether what the bank holds at the start comes from the ledger, was said, or is not known. */
  readonly opening: OpeningFrom;
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
      balances: Balances,
      taxes: Cash['taxes'],
    ): ReadonlyMap<AccountId, Guess> => {
      const untaxed =
        taxes.length === 0 && accounts.some((a) => hasNature(a, 'salesTax') && balances.active(a.id));
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
            return [
              a.id,
              guessTerms(a, { habit: habits.get(a.id), shares: sides.shares, untaxed, stockDays }),
            ];
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
  invoices: lastOf(readInvoices),
  days: lastOf(daysOf),
  /** The credit line with its accounts: as said, else by their nature. */
  creditLine: lastOf(
    (line: Cash['creditLine'], accounts: Book['accounts']): Cash['creditLine'] =>
      line && {
        ...line,
        account: lineAccount(line, accounts),
        interest: lineInterest(line, accounts),
      },
  ),
  dated: lastOf((cash: Cash) =>
    cash.dated
      .map((d) => ({ ...d, key: d.id }))
      .filter((d) => (cash.changes[`dated ${d.id}`]?.state ?? 'counted') === 'counted'),
  ),
  termsOf: new Map<string, (terms: Budget['terms']) => ReadonlyMap<string, Terms>>(),
  epochs: new Map<string, (...all: readonly unknown[]) => object>(),
});

const NOTHING_LEFT_OUT: readonly CashSource[] = [];
const NOTHING_MISSED: readonly MissedEvent[] = [];

/** What is reckoned of one budget looked at, by one forecast: two that are asked for in turn do not undo each other. */
const makeLooked = () => ({
  project: createProjector(),
  forecast: lastOf(
    (
      projected: Projected,
      without: readonly CashSource[],
      floor: Cash['floor'],
      creditLine: Cash['creditLine'],
      drawn: number,
      today: DayNumber,
    ): CashForecast => forecastOf(projected, { without, floor, creditLine, drawn, today }),
  ),
  today: makeToday(),
  itemTerms: lastOf(makeItemTerms),
  lists: lastOf(listsSince),
  items: lastOf(shownItems),
  expected: lastOf(expectedItems),
  datedEvents: lastOf(datedEvents),
  missing: lastOf(missingOf),
  missed: lastOf(missedEvents),
  dated: lastOf(datedLater),
  taxPaid: makeTaxPaid(),
  settled: steady<ProjectionInput['settled']>(),
  staff: steady<readonly AccountId[]>(),
  inYear: lastOf((calendar: Ground['calendar'], first: PeriodIndex, count: number): readonly number[] =>
    Array.from({ length: count }, (_, i) => calendar.periodsIn(calendar.period(first + i).year)),
  ),
  stoodAt: lastOf(
    (balances: Balances, first: PeriodIndex): ProjectionInput['stoodAt'] =>
      (account, place) =>
        balances.balance(account, first + place, true),
  ),
});

/** Gives the value before as long as one that is just like it comes. */
function steady<T>(): (next: T) => T {
  let last: { readonly value: T; readonly text: string } | null = null;
  return (value) => {
    const text = JSON.stringify(value);
    if (last?.text !== text) last = { value, text };
    return last.value;
  };
}

/** By when what stands without items has run off: by the day that was kept when a month was closed, as long as it is ahead. */
function runOffEnd({ runOff, runOffEnds }: Cash, account: AccountId, start: DayNumber): DayNumber {
  const kept = runOffEnds[account];
  const end = kept === undefined ? start : toDayNumber(kept);
  return end > start ? end : start + runOff;
}

/** The forecast of every source. */
export const ALL_SOURCES = 'all';

/**
 * The company's money ahead: the months after what is closed by the budget that is looked at, and by those in force where it
 * plans nothing; at least twelve months. Null where nothing is known at all. `forecast`: a named one, `ALL_SOURCES`, or
 * the company's own.
 */
export function cashOf(
  ground: Ground,
  budget: Budget | null,
  forecast: string | null = ground.book.cash.own,
): CashView | null {
  const settled = settledOf(ground, budget);
  if (settled === null) return null;
  const isNamed = ground.book.cash.forecasts.some((f) => f.id === forecast);
  return isNamed ? viewOf(withMade(ground, settled.made), budget, forecast) : settled.view;
}

/** Money ahead with what it makes of the plan's own lines. */
type Settled = { readonly view: CashView; readonly made: MadeBy };

const settled = new WeakMap<Ground, Map<Budget | null, Settled | null>>();
const NONE_MADE: MadeBy = new Map();

/** The ground on which plans have what money ahead was found to make of them. */
const withMade = (ground: Ground, made: MadeBy): Ground => ({
  ...ground,
  made: (_, budget) => made.get(budget.id) ?? NOTHING_AHEAD,
});

/**
 * Money ahead follows from plans, and some of their lines from it: what is never paid, the interest of the credit line, the tax
 * on a profit that has both. Each month's follow from what was before it (a month's interest from what is drawn when it
 * begins), so going round comes to rest, from wherever it began: as a rule at once, where nothing changed of it.
 */
function settledOf(ground: Ground, budget: Budget | null): Settled | null {
  let own = settled.get(ground);
  if (!own) settled.set(ground, (own = new Map()));
  let known = own.get(budget);
  if (known === undefined) own.set(budget, (known = settle(ground, budget)));
  return known;
}

function settle(ground: Ground, budget: Budget | null): Settled | null {
  if (!mayMake(ground.book)) {
    const view = viewOf(withMade(ground, NONE_MADE), budget, ALL_SOURCES);
    return view && { view, made: NONE_MADE };
  }
  const last = ground.memory.of(`made ${budget?.id ?? ''}`, () => ({ made: NONE_MADE }));
  for (let turn = 0; ; turn++) {
    const was = last.made;
    const staged = withMade(ground, was);
    const view = viewOf(staged, budget, ALL_SOURCES);
    if (view === null) return null;
    const { input, projected, forecast, creditLine, pastPlans, plans, bearers } = view;
    const { periods, past } = input;
    last.made = madeIn(
      ground,
      {
        projected,
        moves: forecast.moves,
        creditLine,
        periods,
        past,
        pastPlans,
        bearers,
        beyond: beyondOf(staged, view),
      },
      was,
    );
    const isAtRest = sameMade(was, last.made) || !feedsBack(ground.book, plans, last.made);
    // No more turns than months, and a few for what a month's rounding may do to itself.
    if (isAtRest || turn > periods.length + FEW) return { view, made: last.made };
  }
}

const FEW = 4;

/** Parts that someone said beside the plan, or in place of it. */
const BESIDE: ReadonlySet<Part['of']> = new Set(['dated', 'order', 'item']);

/** What accounts of profit and loss move ahead by dated items and orders, beyond what plans have of them; debits positive. */
function beyondOf(ground: Ground, { projected, input, lines, plans }: CashView): AheadOf['beyond'] {
  const touched = new Set<number>();
  for (const { of, postings } of projected.parts.values()) {
    if (!BESIDE.has(of)) continue;
    const { columns, first, count } = postings;
    for (let i = first; i < first + count; i++) touched.add(columns.account[i]!);
  }
  const byId = accountsById(ground.book.accounts);
  return [...touched].flatMap((place) => {
    const account = byId.get(projected.table.ids[place]!);
    const moved = projected.moved[place];
    if (!account || !isProfitAndLoss(account.kind) || !moved) return [];
    const { id, kind } = account;
    const own = [...lines.values()].flatMap(({ line }) => (line.account.id === id ? [line.amounts] : []));
    return input.periods.flatMap(({ index: period }, k) => {
      const planned = own.reduce((t, amounts) => t + (amounts[k] ?? 0), 0);
      const rows = plans.reduce((t, p) => t + rowsOn(reckoned(ground, p.budget), p, id, period), 0);
      const amount = moved[k]! - natural(kind, minor(planned)) - rows;
      return amount === 0 ? [] : [{ account: id, period, amount }];
    });
  });
}

/** What a budget's rows of schedules post to an account in a period that it plans, debits positive. */
function rowsOn(
  { reckoning }: Reckoned,
  plan: MonthsOfPlan,
  account: AccountId,
  period: PeriodIndex,
): number {
  if (!plan.periods.some((p) => p.index === period)) return 0;
  let sum = 0;
  for (const { first, moves } of reckoning.rows.values())
    for (const [key, months] of moves)
      if (lineOfMove(key).account === account) sum += months[period - first] ?? 0;
  return sum;
}

const sameMade = (a: MadeBy, b: MadeBy): boolean =>
  a.size === b.size && [...a].every(([budget, made]) => b.get(budget) === made);

/**
 * What money ahead makes of a budget's lines: as the company's plan in force has it where the budget is in force for every
 * month ahead that it covers, else with the budget looked at by itself.
 */
export const madeAhead: NonNullable<Ground['made']> = (ground, budget) => {
  if (!mayMake(ground.book)) return NOTHING_AHEAD;
  return settledOf(ground, isInForce(ground, budget) ? null : budget)?.made.get(budget.id) ?? NOTHING_AHEAD;
};

function isInForce(ground: Ground, budget: Budget): boolean {
  const closed = cashStart(ground, null);
  const first = indexOfId(ground.calendar, budget.first);
  if (closed === null || first === null) return false;
  for (let p = Math.max(first, closed + 1); p < first + budget.length; p++)
    if (!plansIn(ground, p, 'profit').some((b) => b.id === budget.id)) return false;
  return true;
}

/** Money ahead on plans as the ground has them. */
function viewOf(ground: Ground, budget: Budget | null, forecast: string | null): CashView | null {
  const { book, calendar, balances, blocks, view } = ground;
  const closed = cashStart(ground, budget);
  if (closed === null) return null;
  const start = toDayNumber(calendar.period(closed).end);
  const memory = ground.memory.of('cash', makeSaid);
  const named = book.cash.forecasts.find((f) => f.id === forecast);
  const looked = ground.memory.of(`cash ${budget?.id ?? ''} ${named?.id ?? ''}`, makeLooked);
  const { plans, pastPlans, balancePlans, unplanned, periods, past } = plansAhead(ground, budget, closed);
  const sides = memory.matched(blocks, view, book.accounts, start);
  const habits = memory.habits(blocks, view, book.accounts);
  const opening = memory.opening(balances, book.accounts, closed, book.cash.opening);
  const guesses = memory.guesses(
    book.accounts,
    habits,
    sides,
    opening,
    memory.yearCost(balances, closed),
    balances,
    book.cash.taxes,
  );
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
      const kept = b && keptGuesses(b.guessed).get(account.id);
      return kept ? { terms: kept.terms, guess: kept, newer: guess } : { terms: guess.terms, guess };
    };
  const epochOf = (b: Budget): object => {
    let of = memory.epochs.get(b.id);
    if (!of) memory.epochs.set(b.id, (of = lastOf((..._all: readonly unknown[]) => ({}))));
    const { facts } = reckoned(ground, b);
    return of(said(b), keptGuesses(b.guessed), guesses, book.accounts, book.cash.taxes, facts);
  };
  const itemTerms = looked.itemTerms(
    memory.invoices(blocks, view, book.accounts),
    memory.days(book.workWeek),
    book.accounts,
    book.cash.taxes,
    calendar,
    guesses,
    pastPlans.map((p) => `${p.budget.id} ${p.periods[0]!.index} ${p.periods.length}`).join(),
    ...pastPlans.flatMap((p) => [
      said(p.budget),
      keptGuesses(p.budget.guessed),
      p.budget.lines,
      p.periods[0]!.index,
      p.periods.at(-1)!.index,
    ]),
  );
  const shown = looked.items(
    book.cash,
    sides,
    start,
    itemTerms,
    looked.lists(book.cash.items, book.cash.lists, blocks, view, book.accounts, start),
  );
  const without = named?.without ?? NOTHING_LEFT_OUT;
  const lines = new Map<string, { readonly budget: Budget; readonly line: PlannedLine }>();
  const undated = new Set<Account>();
  const of: LinesOf = {
    periods,
    past,
    plans,
    taxes: book.cash.taxes,
    ruled: (b) => pastPlans.find((p) => p.budget === b)?.periods.map((p) => p.index) ?? [],
  };
  for (const plan of new Set([...plans, ...pastPlans].map((p) => p.budget)))
    for (const line of plannedLines(ground, plan, of, termsIn(plan), undated, epochOf(plan)))
      lines.set(line.key, { budget: plan, line });
  for (const { budget: plan } of plans)
    for (const line of explainedLines(ground, plan, of, termsIn(plan)))
      lines.set(line.key, { budget: plan, line });
  const planned = [...lines.values()].map((l) => l.line);
  // A book of which only profit and loss is known tells nothing of what happened to its balances.
  const missed =
    opening.from !== 'ledger'
      ? NOTHING_MISSED
      : looked.missed(
          looked.missing(
            blocks,
            view,
            calendar,
            start,
            looked.datedEvents(memory.dated(book.cash), book.cash.bank, book.accounts, past),
            ...closedEvents(ground, pastPlans, accountsById(book.accounts), start),
          ),
          book.cash.changes,
          memory.days(book.workWeek),
          start,
        );
  const input: ProjectionInput = {
    start,
    periods,
    workWeek: book.workWeek,
    accounts: book.accounts,
    opening: opening.of,
    past,
    inYear: looked.inYear(calendar, past[0]?.index ?? closed + 1, past.length + periods.length),
    stoodAt: looked.stoodAt(balances, past[0]?.index ?? closed + 1),
    lines: planned,
    scheduled: [
      ...scheduledRows(ground, plans, pastPlans, start, missed),
      ...looked.taxPaid(
        calendar,
        book.accounts,
        payingBank(book.cash.bank, book.accounts),
        opening.of,
        start,
        periods.length === 0 ? start : toDayNumber(periods.at(-1)!.end),
        creditedIn(ground),
        ...taxRows(ground, plans),
      ),
    ],
    settled: looked.settled(
      settledAtStart(
        ground,
        [...plans, ...pastPlans],
        planned.map((l) => l.terms),
        start,
      ),
    ),
    balances: balanceTargets(ground, balancePlans, periods),
    items: looked.expected(shown, book.cash.newItems, book.cash.ordersOnTop, without),
    dated: looked.dated(memory.dated(book.cash), missed),
    taxes: book.cash.taxes,
    taxCredits: (scheme, from, to) => taxCredits(ground, scheme, from, to),
    bank: book.cash.bank,
    runOffEnd: (account) => runOffEnd(book.cash, account, start),
  };
  const asPlanned = looked.project(input);
  const termsOf = termsIn(budget ?? plans[0]?.budget ?? null);
  const bearers = makeBearers(ground, plans, (account) => againstOf(termsOf(account, null).terms));
  const today = looked.today(ground, input, asPlanned, shown, memory.days(book.workWeek));
  const projected = today?.projected ?? asPlanned;
  const creditLine = memory.creditLine(book.cash.creditLine, book.accounts);
  const drawn = -(opening.of.get(creditLine?.account ?? '') ?? 0);
  return {
    input,
    projected,
    forecast: looked.forecast(
      projected,
      without,
      book.cash.floor,
      creditLine,
      Math.max(0, drawn),
      today?.day ?? start,
    ),
    today,
    items: shown,
    missed,
    itemsBy: itemTerms,
    plans,
    pastPlans,
    bearers,
    unplanned,
    undated: [...undated],
    lines,
    // Of what is in force, the terms of the plan that comes next.
    termsOf,
    staff: looked.staff(staffAccounts(plans)),
    measured: sides.shares,
    creditLine,
    without,
    opening: opening.from,
    withoutItems: withoutItems(book, opening.of, shown),
  };
}
