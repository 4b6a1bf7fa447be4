import {
  fromDayNumber,
  periodsOf,
  toDayNumber,
  type DayNumber,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import { lastOf } from '@/core/lastOf';
import {
  balancesAt,
  balancesByPeriod,
  byPeriods,
  byWeeks,
  cashTable,
  defaultBank,
  happenedIn,
  largestIn,
  otherSide,
  thenAndNow,
  type DayRange,
  type Flow,
  type Happened,
  type LineMove,
  type LineOn,
  type ThenAndNow,
} from '@/core/cash';
import { entryAt, type Entry } from '@/core/ledger';
import { minor, type Minor } from '@/core/money';
import {
  isProfitAndLoss,
  natural,
  type Account,
  type AccountId,
  type ApprovedCash,
  type Budget,
  type CashSource,
  type KeptForecast,
} from '@/core/model';
import { budgetPeriods } from '@/core/plan';
import { cashOf, type CashView } from './cash';
import type { Ground } from './ground';

/* Forecasts that are kept: with a budget that is approved, or by themselves, to stand beside what happened. */

/** A forecast as it is kept: its first days, as many as may be kept. */
export function keptFrom(
  { forecast }: CashView,
  most: number,
): Pick<KeptForecast, 'start' | 'days' | 'opening' | 'sources'> {
  const count = Math.min(most, forecast.closing.length);
  return {
    start: fromDayNumber(forecast.start),
    days: count,
    opening: minor(forecast.opening),
    sources: [...forecast.bySource].flatMap(([source, sums]) => {
      const days: number[] = [];
      for (let d = 0; d < count; d++) if (sums[d] !== 0) days.push(d);
      return days.length === 0 ? [] : [{ source, days, amounts: days.map((d) => minor(sums[d]!)) }];
    }),
  };
}

/** The credit line of a forecast, with its accounts. */
const lineOn = ({ forecast, creditLine, input, bearers }: CashView): LineOn => ({
  moves: forecast.moves,
  rules: creditLine,
  bank: defaultBank(input),
  borneBy: bearers.borneBy,
});

/** What accounts of a forecast stand at at the ends of ranges, debits positive. */
export const closingsAt = (
  view: CashView,
  ends: readonly DayNumber[],
): ReadonlyMap<AccountId, Float64Array> => balancesAt(view.projected, view.input.opening, ends, lineOn(view));

/** The same at the ends of the planned periods. */
export const closingsByPeriod = (view: CashView): ReadonlyMap<AccountId, Float64Array> =>
  balancesByPeriod(
    view.projected,
    view.input.opening,
    view.input.periods.map((p) => toDayNumber(p.end)),
    lineOn(view),
  );

/**
 * What money a budget comes to as it is approved: closing balances and cash by source of its months. Months that are closed
 * by then stand as the ledger has them, and no cash is planned in them. Null where nothing can be reckoned.
 */
export function approvedCash(ground: Ground, budget: Budget): ApprovedCash | null {
  const view = cashOf(ground, budget);
  if (!view) return null;
  const { calendar, balances, book } = ground;
  const periods = budgetPeriods(calendar, budget);
  if (periods.length === 0) return null;
  const ahead = byPeriods(periods.filter((p) => toDayNumber(p.end) > view.input.start));
  const before = budget.length - ahead.length;
  const planned = closingsAt(
    view,
    ahead.map((r) => r.to),
  );
  const closing: Record<AccountId, ReturnType<typeof minor>[]> = {};
  for (const a of book.accounts) {
    if (isProfitAndLoss(a.kind)) continue;
    const all = periods.map((p, i) =>
      i < before ? balances.balance(a.id, p.index, true) : (planned.get(a.id)?.[i - before] ?? 0),
    );
    if (all.some((v) => v !== 0)) closing[a.id] = all.map((v) => natural(a.kind, minor(v)));
  }
  const none = periods.slice(0, before).map(() => minor(0));
  const { rows } = cashTable(view.forecast, ahead);
  return {
    closing,
    sources: Object.fromEntries(
      rows.map(({ source, amounts }) => [source, [...none, ...amounts.map(minor)]]),
    ),
  };
}

/** A kept forecast beside what the banks did since, by week or month; null where nothing was closed since. */
export function thenAndNowOf(
  ground: Ground,
  view: CashView,
  kept: KeptForecast,
  grain: 'weeks' | 'months',
): ThenAndNow | null {
  const start = toDayNumber(kept.start);
  const until = Math.min(view.input.start, start + kept.days);
  if (until <= start) return null;
  const whole = { from: start + 1, to: until };
  // What was to come after the closed day is not held against anyone.
  const happened = happenedOf(ground, view, { from: start + 1, to: view.input.start });
  let moved = 0;
  for (const days of Object.values(happened)) for (const amount of days) moved += amount;
  const sources = new Map<CashSource, Float64Array>();
  for (const { source, days, amounts } of kept.sources) {
    const all = new Float64Array(kept.days);
    days.forEach((d, i) => (all[d] = amounts[i]!));
    sources.set(source, all);
  }
  return thenAndNow(
    { start, opening: kept.opening, sources },
    { opening: view.projected.opening - moved, happened },
    rangesOf(ground, whole, grain),
  );
}

/** What the banks did in closed days, by flow. */
export const happenedOf = (
  { blocks, view, book }: Ground,
  of: Pick<CashView, 'termsOf' | 'staff'>,
  range: DayRange,
): Happened => happenedIn(blocks, view, book.accounts, flowsOf(book.accounts, of), range);

const NOBODY: CashView['staff'] = [];

const makeFlows = () =>
  lastOf(
    (
      blocks: Ground['blocks'],
      view: Ground['view'],
      accounts: readonly Account[],
      calendar: Ground['calendar'],
      range: PeriodRange,
      termsOf: CashView['termsOf'] | null,
      staff: CashView['staff'],
    ) => {
      const first = toDayNumber(calendar.period(range.first).start);
      const last = toDayNumber(calendar.period(range.last).end);
      const flowOf = flowBy(accounts, termsOf && { termsOf, staff });
      const days = happenedIn(blocks, view, accounts, flowOf, { from: first, to: last });
      return (flow: Flow, period: PeriodIndex) => {
        const { start, end } = calendar.period(period);
        let sum = 0;
        for (let d = toDayNumber(start); d <= toDayNumber(end); d++) sum += days[flow][d - first] ?? 0;
        return minor(sum);
      };
    },
  );

/**
 * What the banks did in a period, by flow; null in periods without entries. What is pay follows a budget's terms, so that it
 * stands where the budget has it.
 */
export function cashByFlow(
  ground: Ground,
  budget: Budget | null,
): (flow: Flow, period: PeriodIndex) => Minor | null {
  const { balances, blocks, view, book, calendar, memory } = ground;
  const { range } = balances;
  if (!range) return () => null;
  const ahead = budget && cashOf(ground, budget);
  const of = memory.of('cash by flow', makeFlows)(
    blocks,
    view,
    book.accounts,
    calendar,
    range,
    ahead?.termsOf ?? null,
    ahead?.staff ?? NOBODY,
  );
  return (flow, period) => (balances.has(period) ? of(flow, period) : null);
}

/** The largest journal entry of a flow that goes one way (1: into the banks) in a range of periods; null where none does. */
export function largestMoves(
  ground: Ground,
  budget: Budget | null,
  { first, last }: PeriodRange,
): (flow: Flow, way: 1 | -1) => { readonly entry: Entry; readonly amount: Minor } | null {
  const { blocks, view, book, calendar } = ground;
  const ahead = budget && cashOf(ground, budget);
  const of = largestIn(blocks, view, book.accounts, flowBy(book.accounts, ahead), {
    from: toDayNumber(calendar.period(first).start),
    to: toDayNumber(calendar.period(last).end),
  });
  return (flow, way) => {
    const move = of(flow, way);
    return move && { entry: entryAt(move.block, move.row), amount: minor(move.amount) };
  };
}

function rangesOf({ calendar }: Ground, { from, to }: DayRange, grain: 'weeks' | 'months'): DayRange[] {
  const all =
    grain === 'weeks'
      ? byWeeks(from, Math.ceil((to - from + 1) / 7) + 1)
      : byPeriods(periodsOf(calendar, { first: calendar.indexOfDay(from), last: calendar.indexOfDay(to) }));
  return all
    .filter((r) => r.from <= to)
    .map((r) => ({ from: Math.max(r.from, from), to: Math.min(r.to, to) }));
}

/** Where an account's money belongs, as far as kinds tell: pay by the schedules and terms that say so. (Common practice.) */
function flowsOf(
  accounts: readonly Account[],
  { termsOf, staff }: Pick<CashView, 'termsOf' | 'staff'>,
): (account: Account) => Flow {
  const pay = new Set<AccountId>(staff);
  for (const a of accounts)
    if (isProfitAndLoss(a.kind))
      for (const { rule } of termsOf(a, null).terms.parts)
        if (rule.kind === 'payroll') {
          pay.add(a.id);
          if (rule.through !== null) pay.add(rule.through);
        }
  return (account) => (pay.has(account.id) ? 'payroll' : FLOW_OF_KIND[account.kind]);
}

/** The same by the kinds of accounts alone where no plan says more. */
const flowBy = (
  accounts: readonly Account[],
  ahead: Pick<CashView, 'termsOf' | 'staff'> | null,
): ((account: Account) => Flow) =>
  ahead ? flowsOf(accounts, ahead) : (account) => FLOW_OF_KIND[account.kind];

const FLOW_OF_KIND: Readonly<Record<Account['kind'], Flow>> = {
  income: 'customers',
  receivable: 'customers',
  // Deposits and what is paid in advance.
  otherLiability: 'customers',
  costOfSales: 'suppliers',
  expense: 'suppliers',
  otherExpense: 'suppliers',
  payable: 'suppliers',
  inventory: 'suppliers',
  otherAsset: 'suppliers',
  taxPayable: 'taxes',
  loan: 'loans',
  equity: 'owners',
  otherIncome: 'other',
  fixedAsset: 'other',
  bank: 'other',
};

/** What a credit line moves on an account in a range of days, debits positive. */
export function lineMovesOn(
  view: CashView,
  account: AccountId,
  { from, to }: DayRange,
): readonly (LineMove & { readonly debits: number })[] {
  const line = lineOn(view);
  return line.moves
    .filter((m) => m.day >= from && m.day <= to)
    .flatMap((m) => {
      if (account === line.bank) return [{ ...m, debits: m.amount }];
      return otherSide(m, line) === account ? [{ ...m, debits: -m.amount }] : [];
    });
}
