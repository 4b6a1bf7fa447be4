import { STAND_INS } from '@/core/schedule';
import { indexOfId, type PeriodIndex, type PeriodRange } from '@/core/calendar';

import { plus, unitOf } from '@/core/money';
import type { Balances } from '@/core/ledger';
import {
  isProfitAndLoss,
  newAccount,
  type Account,
  type AccountId,
  type Budget,
  type Covenant,
  type RatioId,
  type ScheduleRow,
} from '@/core/model';
import {
  covenantState,
  daysOfYear,
  isTested,
  joinedBalances,
  joinedSales,
  measureOf,
  ownMeasure,
  ownRatioOf,
  ratioInputs,
  ratioOf,
  type CovenantState,
  type Measure,
  type Ratio,
  type RatioKnown,
  type Sales,
} from '@/core/statements';
import { ALL_SOURCES, cashOf, type CashView } from './cash';
import { once } from '@/core/lastOf';
import { salesInLedger, salesPlanned } from './assetSales';
import { dueInAll } from './loanDue';
import type { Ground } from './ground';
import { closingsByPeriod } from './keptCash';

/** The books up to the last closed period and on from there, by the postings of the projection. */
export type Ahead = {
  readonly view: CashView;
  /** The last period that the ledger tells, and the last that is projected. */
  readonly start: PeriodIndex;
  readonly last: PeriodIndex;
  readonly balances: Balances;
  /** Sales of assets, which the cash flow tells by what they brought. */
  readonly sales: () => Sales;
  /** The book's accounts, then what stands in for accounts that it has not. */
  readonly accounts: readonly Account[];
};

/**
 * What all accounts together stand at, debits positive: nothing, where the books balance. Profit and loss is among them, so
 * that results which no year's end has closed are no difference.
 */
export const offBalance = (
  { balances, accounts }: Pick<Ahead, 'balances' | 'accounts'>,
  period: PeriodIndex,
): number => accounts.reduce((t, a) => plus(t, balances.balance(a.id, period, true)), 0);

/** Accounts that the projection needs and a book may not have, as statements name them. */
const STAND_IN_ACCOUNTS: readonly Account[] = [
  newAccount(STAND_INS.bank, '', 'Bank (no account of the book)', 'bank'),
  newAccount(STAND_INS.receivable, '', 'Receivables (no account of the book)', 'receivable'),
  newAccount(STAND_INS.inventory, '', 'Inventory (no account of the book)', 'inventory'),
  newAccount(STAND_INS.prepaid, '', 'Prepaid amounts (no account of the book)', 'otherAsset'),
  newAccount(STAND_INS.underWay, '', 'Not cleared by the bank yet', 'otherAsset'),
  newAccount(STAND_INS.moved, '', 'Moved at the bank, not posted', 'otherAsset'),
  newAccount(STAND_INS.against, '', 'What was written off or accrued (no account of the book)', 'fixedAsset'),
  newAccount(STAND_INS.payable, '', 'Payables (no account of the book)', 'payable'),
  newAccount(STAND_INS.tax, '', 'Tax payable (no account of the book)', 'taxPayable'),
  newAccount(STAND_INS.withheld, '', 'Withheld from pay (no account of the book)', 'otherLiability'),
  newAccount(STAND_INS.deferred, '', 'Received in advance (no account of the book)', 'otherLiability'),
  newAccount(STAND_INS.other, '', 'Other (no account of the book)', 'otherLiability'),
  newAccount(STAND_INS.creditLine, '', 'Credit line (no account of the book)', 'loan'),
  newAccount(STAND_INS.incomeTax, '', 'Income tax owed (no account of the book)', 'taxPayable'),
  newAccount(STAND_INS.gain, '', 'Gain on what is sold (no account of the book)', 'otherIncome'),
];

/** What ratios of the books ahead are made of, by period. */
export function figuresOfBooks({ book, calendar }: Ground, { balances, accounts, view }: Ahead) {
  const rows = (view.plans.at(-1)?.budget.schedules ?? []) as readonly ScheduleRow[];
  const known: RatioKnown = {
    interest: new Set(rows.flatMap((r) => (r.kind === 'loan' ? [r.interest] : []))),
    depreciation: new Set(rows.flatMap((r) => (r.kind === 'asset' ? [r.expense] : []))),
    due: (period) => dueInAll({ rows, creditLine: view.creditLine, calendar, accounts }, balances, period),
    variable: book.variableShares,
  };
  const inputs = new Map<PeriodIndex, ReturnType<typeof ratioInputs>>();
  return (period: PeriodIndex): ReturnType<typeof ratioInputs> => {
    let of = inputs.get(period);
    if (!of) inputs.set(period, (of = ratioInputs(balances, accounts, calendar, period, known)));
    return of;
  };
}

/** The ratios of the books ahead, by period. */
export function ratiosOf(ground: Ground, ahead: Ahead) {
  const figures = figuresOfBooks(ground, ahead);
  return (id: RatioId, period: PeriodIndex): Ratio =>
    ratioOf(id, figures(period), daysOfYear(ground.calendar, period));
}

/** A ratio, the trade's or one of the book's own, in a period. */
export type MeasureAt = (ratio: Covenant['ratio'], period: PeriodIndex) => Measure;

/** The ratios that covenants may ask something of, by period; one that is gone says nothing. */
export function measuresOf(ground: Ground, ahead: Ahead, of: ReturnType<typeof ratiosOf>): MeasureAt {
  const { balances, accounts } = ahead;
  const { book, calendar } = ground;
  const figures = figuresOfBooks(ground, ahead);
  const books = { balances, accounts, calendar, unit: unitOf(book.currency), figures };
  const owns = new Map(book.ownRatios.map((r) => [r.id, r]));
  return (ratio, period) => {
    if (typeof ratio === 'string') return measureOf(of(ratio, period), daysOfYear(calendar, period));
    const own = owns.get(ratio.own);
    return own
      ? ownMeasure(ownRatioOf(own, books, period), own.unit)
      : { value: null, unit: 'times', parts: null };
  };
}

/** How the book's covenants fare from their first period on, as far as is known or projected; or in a range of periods alone. */
export function covenantsOf(
  ground: Ground,
  ahead: Ahead,
  at: MeasureAt = measuresOf(ground, ahead, ratiosOf(ground, ahead)),
  within: PeriodRange | null = null,
): readonly CovenantState[] {
  const { book, calendar } = ground;
  const known = ahead.balances.range;
  // Where nothing is planned there is no profit either, which is no news of a covenant.
  const unplanned = new Set(ahead.view.unplanned.map((p) => p.index));
  return book.covenants.map((covenant) => {
    const first = indexOfId(calendar, covenant.from);
    const periods: PeriodIndex[] = [];
    if (first !== null && known)
      for (
        let p = Math.max(first, known.first, within?.first ?? first);
        p <= Math.min(ahead.last, within?.last ?? ahead.last);
        p++
      )
        if (!unplanned.has(p) && isTested(covenant, calendar, p)) periods.push(p);
    return covenantState(covenant, periods, (p) => at(covenant.ratio, p));
  });
}

/** The books ahead by the budget that is looked at; null where nothing is known at all. */
export function aheadOf(ground: Ground, budget: Budget | null): Ahead | null {
  let own = asked.get(ground);
  if (!own) asked.set(ground, (own = new Map()));
  let ahead = own.get(budget);
  if (ahead === undefined) own.set(budget, (ahead = reckonAhead(ground, budget)));
  return ahead;
}

/** A state of the book is asked many times over for one screen. */
const asked = new WeakMap<Ground, Map<Budget | null, Ahead | null>>();

function reckonAhead(ground: Ground, budget: Budget | null): Ahead | null {
  const view = cashOf(ground, budget, ALL_SOURCES);
  if (!view) return null;
  const { book, balances, calendar } = ground;
  const { periods, opening } = view.input;
  const start = calendar.indexOfDay(view.input.start);
  const standing = closingsByPeriod(view);
  const ofProfit = new Set<AccountId>(book.accounts.filter((a) => isProfitAndLoss(a.kind)).map((a) => a.id));
  for (const a of STAND_IN_ACCOUNTS) if (isProfitAndLoss(a.kind)) ofProfit.add(a.id);
  return {
    view,
    start,
    last: start + periods.length,
    sales: once(() => {
      const plans = view.plans.map(({ budget: of, periods: months }) => {
        const own = new Set(months.map((p) => p.index));
        return { budget: of, covers: (p: PeriodIndex) => own.has(p) };
      });
      return joinedSales(salesInLedger(ground), salesPlanned(ground, plans), start);
    }),
    balances: joinedBalances(balances, {
      start,
      count: periods.length,
      opening,
      standing,
      isBalance: (a) => !ofProfit.has(a),
    }),
    accounts: [...book.accounts, ...STAND_IN_ACCOUNTS.filter((a) => standing.has(a.id))],
  };
}
