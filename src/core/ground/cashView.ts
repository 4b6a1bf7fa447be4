import { daysOf, lineAccount, lineInterest, payingBank } from '@/core/schedule';
import { toDayNumber, yearLength, type DayNumber, type Period, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import type { Balances } from '@/core/ledger';
import {
  hasNature,
  isProfitAndLoss,
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
import {
  createProjector,
  forecastOf,
  guessTerms,
  habitsOf,
  type CashForecast,
  type Guess,
  type MeasuredShares,
  type PlannedLine,
  type Projected,
  type ProjectionInput,
} from '@/core/cash';
import { expectedItems, listsSince, matchSides, shownItems, type ShownItem } from './cashItems';
import { keptGuesses, saidTerms, type LineTerms } from './lineTerms';
import { datedEvents, datedLater, missedEvents, missingOf, type MissedEvent } from './missed';
import { assumedOfItems, itemsAssumed, termsOn } from './inCase';
import { itemTermsIn, makeItemTerms, readInvoices, termsByMonth, type ItemTerms } from './itemTerms';
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
  linesByTerms,
  plannedLines,
  plansAhead,
  type LinesOf,
  type MonthsOfPlan,
} from './cashPlan';
import { makeToday, type TodayView } from './bank';
import { againstOf, makeBearers, type Bearers } from './made';
import { reckoned } from './reckoned';
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
  yearCost: lastOf(
    (balances: Balances, closed: PeriodIndex, length: number) =>
      (account: AccountId): number => {
        let sum = 0;
        for (let p = closed - length + 1; p <= closed; p++) sum += balances.movement(account, p) ?? 0;
        return sum;
      },
  ),
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
  itemTermsIn: lastOf(itemTermsIn),
  termsByMonth: lastOf(termsByMonth),
  itemsTaken: lastOf(itemsAssumed),
  itemsTried: lastOf(itemsAssumed),
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
  const end = keptEnd(runOffEnds, account);
  return end > start ? end : start + runOff;
}

const keptEnd = (ends: Cash['runOffEnds'], account: AccountId): DayNumber => {
  const kept = ends[account];
  return kept === undefined ? -Infinity : toDayNumber(kept);
};

/** The forecast of every source. */
export const ALL_SOURCES = 'all';

/** Money ahead on plans as the ground has them; null where nothing is known at all. */
export function viewOf(ground: Ground, budget: Budget | null, forecast: string | null): CashView | null {
  const { book, calendar, balances, blocks, view } = ground;
  const closed = cashStart(ground, budget);
  if (closed === null) return null;
  const start = toDayNumber(calendar.period(closed).end);
  const memory = ground.memory.of('cash', makeSaid);
  const named = book.cash.forecasts.find((f) => f.id === forecast);
  const looked = lookedAt(ground, budget, forecast);
  const { plans, plansAt, pastPlans, balancePlans, unplanned, periods, past } = plansAhead(
    ground,
    budget,
    closed,
  );
  const sides = memory.matched(blocks, view, book.accounts, start);
  const habits = memory.habits(blocks, view, book.accounts);
  const opening = memory.opening(balances, book.accounts, closed, book.cash.opening);
  const guesses = memory.guesses(
    book.accounts,
    habits,
    sides,
    opening,
    memory.yearCost(balances, closed, yearLength(calendar, closed)),
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
  const itemTerms = looked.itemTermsIn(
    calendar,
    book.accounts,
    looked.termsByMonth(
      pastPlans.map((p) => `${p.periods[0]!.index} ${p.periods.at(-1)!.index}`).join(),
      ...pastPlans.map((p) => termsOn(ground, p.budget)),
    ),
    looked.itemTerms(
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
    ),
  );
  const assumed = assumedOfItems(ground);
  const asSaid = looked.items(
    book.cash,
    sides,
    start,
    itemTerms,
    looked.lists(book.cash.items, book.cash.lists, blocks, view, book.accounts, start),
  );
  const shown = looked.itemsTried(assumed.tried, looked.itemsTaken(assumed.taken, asSaid, start), start);
  const without = named?.without ?? NOTHING_LEFT_OUT;
  const lines = new Map<string, { readonly budget: Budget; readonly line: PlannedLine }>();
  const undated = new Set<Account>();
  const of: LinesOf = {
    periods,
    past,
    plans,
    plansAt,
    taxes: book.cash.taxes,
    ruled: (b) => pastPlans.find((p) => p.budget === b)?.periods.map((p) => p.index) ?? [],
  };
  for (const plan of new Set([...plans, ...pastPlans].map((p) => p.budget)))
    for (const whole of plannedLines(ground, plan, of, termsIn(plan), undated, epochOf(plan)))
      for (const line of linesByTerms(termsOn(ground, plan), whole, of))
        lines.set(line.key, { budget: plan, line });
  for (const { budget: plan } of plans)
    for (const whole of explainedLines(ground, plan, of, termsIn(plan)))
      for (const line of linesByTerms(termsOn(ground, plan), whole, of))
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
    scheduled: scheduledIn(ground, looked, { plans, pastPlans, missed, opening: opening.of, start, periods }),
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
    runsOff: Object.keys(book.cash.runOffEnds).filter((id) => keptEnd(book.cash.runOffEnds, id) > start),
  };
  const termsOf = termsIn(budget ?? plans[0]?.budget ?? null);
  const bearers = makeBearers(ground, plans, (account) => againstOf(termsOf(account, null).terms));
  return {
    ...goneOn(ground, memory, looked, input, shown, without),
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
    without,
    opening: opening.from,
    withoutItems: withoutItems(book, opening.of, shown),
  };
}

type Looked = ReturnType<typeof makeLooked>;
const lookedAt = ({ memory, book }: Ground, budget: Budget | null, forecast: string | null): Looked => {
  const named = book.cash.forecasts.find((f) => f.id === forecast);
  return memory.of(`cash ${budget?.id ?? ''} ${named?.id ?? ''}`, makeLooked);
};

/** What schedules post, as plans have it. */
const scheduledIn = (
  ground: Ground,
  looked: Looked,
  {
    plans,
    pastPlans,
    missed,
    opening,
    start,
    periods,
  }: Pick<CashView, 'plans' | 'pastPlans' | 'missed'> &
    Pick<ProjectionInput, 'opening' | 'start' | 'periods'>,
): ProjectionInput['scheduled'] => [
  ...scheduledRows(ground, plans, pastPlans, start, missed),
  ...looked.taxPaid(
    ground.calendar,
    ground.book.accounts,
    payingBank(ground.book.cash.bank, ground.book.accounts),
    opening,
    start,
    periods.length === 0 ? start : toDayNumber(periods.at(-1)!.end),
    creditedIn(ground),
    ...taxRows(ground, plans),
  ),
];

/** The projection of an input, as it goes on from what banks say, and the bank by day. */
function goneOn(
  ground: Ground,
  memory: ReturnType<typeof makeSaid>,
  looked: Looked,
  input: ProjectionInput,
  items: CashView['items'],
  without: CashView['without'],
): Pick<CashView, 'input' | 'projected' | 'forecast' | 'today' | 'creditLine'> {
  const { cash, accounts, workWeek } = ground.book;
  const asPlanned = looked.project(input);
  const today = looked.today(ground, input, asPlanned, items, memory.days(workWeek));
  const projected = today?.projected ?? asPlanned;
  const creditLine = memory.creditLine(cash.creditLine, accounts);
  const drawn = Math.max(0, -(input.opening.get(creditLine?.account ?? '') ?? 0));
  const day = today?.day ?? input.start;
  const forecast = looked.forecast(projected, without, cash.floor, creditLine, drawn, day);
  return { input, projected, forecast, today, creditLine };
}

/** The same view where what schedules post is another, and nothing else: a tax on a profit that changed. */
export function withSchedulesAnew(ground: Ground, budget: Budget | null, view: CashView): CashView {
  const looked = lookedAt(ground, budget, ALL_SOURCES);
  const { opening, start, periods } = view.input;
  const { plans, pastPlans, missed, items, without } = view;
  const scheduled = scheduledIn(ground, looked, { plans, pastPlans, missed, opening, start, periods });
  const input = { ...view.input, scheduled };
  return { ...view, ...goneOn(ground, ground.memory.of('cash', makeSaid), looked, input, items, without) };
}
