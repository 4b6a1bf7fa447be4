import { payingBank } from '@/core/schedule';
import { indexOfId, toDayNumber, type Period, type PeriodIndex } from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import type { Balances } from '@/core/ledger';
import {
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
import { expectedItems, matchSides, shownItems, type ShownItem } from './cashItems';
import { openingOf, taxStood, withoutItems, type OpeningFrom } from './cashOpening';
import {
  balanceTargets,
  makeTaxPaid,
  scheduledRows,
  settledAtStart,
  staffAccounts,
  taxRows,
} from './cashSchedules';
import { plannedLines, plansAhead, saidTerms, type MonthsOfPlan } from './cashPlan';
import type { Ground } from './ground';

/** How a line's money goes: said by someone, or guessed. */
export type LineTerms = { readonly terms: Terms; readonly guess: Guess | null };

export type CashView = {
  readonly input: ProjectionInput;
  readonly projected: Projected;
  readonly forecast: CashForecast;
  readonly items: readonly ShownItem[];
  /** The budgets that months are planned by, in time; months that none plans. */
  readonly plans: readonly MonthsOfPlan[];
  readonly unplanned: readonly Period[];
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
  dated: lastOf((cash: Cash) =>
    cash.dated
      .map((d) => ({ ...d, key: d.id }))
      .filter((d) => (cash.changes[`dated ${d.id}`]?.state ?? 'counted') === 'counted'),
  ),
  termsOf: new Map<string, (terms: Budget['terms']) => ReadonlyMap<string, Terms>>(),
});

const NOTHING_LEFT_OUT: readonly CashSource[] = [];

/** What is reckoned of one budget looked at, by one forecast: two that are asked for in turn do not undo each other. */
const makeLooked = () => ({
  project: createProjector(),
  forecast: lastOf(
    (
      projected: Projected,
      _version: number,
      without: readonly CashSource[],
      cash: Cash,
      drawn: number,
    ): CashForecast =>
      forecastOf(projected, { without, floor: cash.floor, creditLine: cash.creditLine, drawn }),
  ),
  expected: lastOf(expectedItems),
  taxPaid: makeTaxPaid(),
  settled: steady<ProjectionInput['settled']>(),
  staff: steady<readonly AccountId[]>(),
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

/** The forecast of every source. */
export const ALL_SOURCES = 'all';

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
  const { book, calendar, balances, blocks, view } = ground;
  const closed = cashStart(ground, budget);
  if (closed === null) return null;
  const start = toDayNumber(calendar.period(closed).end);
  const memory = ground.memory.of('cash', makeSaid);
  const named = book.cash.forecasts.find((f) => f.id === forecast);
  const looked = ground.memory.of(`cash ${budget?.id ?? ''} ${named?.id ?? ''}`, makeLooked);
  const { plans, balancePlans, unplanned, periods } = plansAhead(ground, budget, closed);
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
  const without = named?.without ?? NOTHING_LEFT_OUT;
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
    scheduled: [
      ...scheduledRows(ground, plans),
      ...looked.taxPaid(
        calendar,
        payingBank(book.cash.bank, book.accounts),
        opening.of,
        start,
        periods.length === 0 ? start : toDayNumber(periods.at(-1)!.end),
        ...taxRows(ground, plans),
      ),
    ],
    settled: looked.settled(settledAtStart(ground, plans, start)),
    balances: balanceTargets(ground, balancePlans, periods),
    items: looked.expected(shown, book.cash.newItems, book.cash.ordersOnTop, without),
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
    forecast: looked.forecast(projected, projected.version, without, book.cash, Math.max(0, drawn)),
    items: shown,
    plans,
    unplanned,
    undated: [...undated],
    lines,
    termsOf: termsIn(budget),
    staff: looked.staff(staffAccounts(plans)),
    measured: sides.shares,
    creditLine: book.cash.creditLine,
    without,
    opening: opening.from,
    withoutItems: withoutItems(book, opening.of, shown),
  };
}
