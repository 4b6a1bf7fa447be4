import { divideRounded, minor, percentOf, plus, type Minor, type Percent } from '@/core/money';
import { toDayNumber, yearsBefore, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import type { Balances } from '@/core/ledger';
import {
  hasNature,
  isProfitAndLoss,
  profitSign,
  type Account,
  type AccountId,
  type AccountKind,
  type RatioId,
} from '@/core/model';

/*
 * Ratios as the trade reckons them (common practice; definitions after textbooks of financial statement analysis, such as
 * K. Palepu, P. Healy, "Business Analysis and Valuation", from memory). Flows are those of the year that ends with the
 * period, balances those at its end.
 */

/** A figure that a ratio is made of. */
export type RatioPart = { readonly name: RatioInput; readonly amount: Minor | null };
export type Ratio = {
  readonly id: RatioId;
  /** In thousandths: of one, of a day; of money in minor units. Null where its inputs say nothing, or it divides by nothing. */
  readonly value: number | null;
  readonly unit: 'percent' | 'times' | 'days' | 'money';
  readonly top: readonly RatioPart[];
  readonly bottom: readonly RatioPart[];
};

export const RATIO_INPUTS = [
  'income',
  'grossMargin',
  'operatingProfit',
  'netProfit',
  'costOfSales',
  'fixedCosts',
  'variableCosts',
  'contribution',
  'interest',
  'depreciation',
  'repaid',
  'bank',
  'receivables',
  'inventory',
  'payables',
  'currentAssets',
  'currentLiabilities',
  'assets',
  'debt',
  'equity',
  'costsPaid',
] as const;
export type RatioInput = (typeof RATIO_INPUTS)[number];

const CURRENT_ASSETS: readonly AccountKind[] = ['bank', 'receivable', 'inventory', 'otherAsset'];
const CURRENT_LIABILITIES: readonly AccountKind[] = ['payable', 'taxPayable', 'otherLiability'];

type Inputs = (name: RatioInput) => Minor | null;

/** What schedules know of accounts and names do not tell. */
export type RatioKnown = {
  readonly interest: ReadonlySet<AccountId>;
  readonly depreciation: ReadonlySet<AccountId>;
  /** What of loans falls due in the twelve months after a period: it is a current liability. */
  readonly due: (period: PeriodIndex) => number;
  /** How much of accounts' costs rises with sales, in whole percent, where it is said. */
  readonly variable: Readonly<Record<AccountId, number>>;
};
const NOTHING_KNOWN: RatioKnown = {
  interest: new Set(),
  depreciation: new Set(),
  due: () => 0,
  variable: {},
};

/**
 * How much of a cost rises with sales, in whole percent: what is said of the account, else all of a cost of sales and
 * nothing of an expense; null of what is no cost of operations.
 */
export const variableShareOf = (
  { id, kind }: Pick<Account, 'id' | 'kind'>,
  said: RatioKnown['variable'],
): number | null =>
  kind === 'costOfSales' ? (said[id] ?? 100) : kind === 'expense' ? (said[id] ?? 0) : null;

/** What ratios of a period are made of: balances at its end, and flows of the year up to it; null where that is not known. */
export function ratioInputs(
  balances: Balances,
  accounts: readonly Account[],
  calendar: FiscalCalendar,
  period: PeriodIndex,
  known: RatioKnown = NOTHING_KNOWN,
): Inputs {
  const before = yearsBefore(calendar, period);
  const first = before === null ? null : before + 1;
  const year: PeriodIndex[] = [];
  for (let p = first ?? period + 1; p <= period; p++) year.push(p);
  const whole = year.length > 0 && year.every((p) => balances.has(p));
  const told = new Map<RatioInput, Minor | null>();
  /** Debits positive. */
  const movedBy = ({ id }: Account, only: (amount: number) => number = (x) => x): number =>
    year.reduce((t, p) => plus(t, only(balances.movement(id, p) ?? 0)), 0);
  const moved = (fits: (a: Account) => boolean, only?: (amount: number) => number): number =>
    accounts.reduce((t, a) => (fits(a) ? plus(t, movedBy(a, only)) : t), 0);
  const stands = (fits: (a: Account) => boolean): number =>
    accounts.reduce((t, a) => (fits(a) ? plus(t, balances.balance(a.id, period, true)) : t), 0);
  const overpaid = (): number =>
    accounts.reduce(
      (t, a) => (a.kind === 'taxPayable' ? plus(t, Math.max(0, balances.balance(a.id, period, true))) : t),
      0,
    );
  const kind =
    (...kinds: AccountKind[]) =>
    (a: Account) =>
      kinds.includes(a.kind);
  const profit = (fits: (a: Account) => boolean) => -moved((a) => isProfitAndLoss(a.kind) && fits(a));
  const isCost = (a: Account) => profitSign(a.kind) === -1;
  const variable = (): number =>
    accounts.reduce((t, a) => {
      const share = variableShareOf(a, known.variable);
      if (!share) return t;
      const cost = movedBy(a);
      return plus(t, share === 100 ? cost : percentOf(minor(cost), `${share}` as Percent));
    }, 0);
  const flow = (of: () => number) => () => (whole ? of() : null);
  const stock = (of: () => number) => () => (balances.has(period) ? of() : null);
  const isInterest = (a: Account) => isCost(a) && (known.interest.has(a.id) || hasNature(a, 'interest'));
  const isDepreciation = (a: Account) =>
    isCost(a) && (known.depreciation.has(a.id) || hasNature(a, 'depreciation'));
  const makers: Readonly<Record<RatioInput, () => number | null>> = {
    income: flow(() => profit(kind('income'))),
    grossMargin: flow(() => profit(kind('income', 'costOfSales'))),
    operatingProfit: flow(() => profit(kind('income', 'costOfSales', 'expense'))),
    netProfit: flow(() => profit(() => true)),
    costOfSales: flow(() => moved(kind('costOfSales'))),
    fixedCosts: flow(() => plus(moved(kind('costOfSales', 'expense')), -variable())),
    variableCosts: flow(variable),
    contribution: flow(() => plus(profit(kind('income')), -variable())),
    interest: flow(() => moved(isInterest)),
    depreciation: flow(() => moved(isDepreciation)),
    // What was repaid, and nothing of what was drawn.
    repaid: flow(() => moved(kind('loan'), (x) => Math.max(0, x))),
    costsPaid: flow(() => moved((a) => isCost(a) && !isDepreciation(a))),
    bank: stock(() => stands(kind('bank'))),
    receivables: stock(() => stands(kind('receivable'))),
    inventory: stock(() => stands(kind('inventory'))),
    payables: stock(() => -stands(kind('payable'))),
    // Tax that was paid beyond what is owed is had back: an asset.
    currentAssets: stock(() => plus(stands(kind(...CURRENT_ASSETS)), overpaid())),
    currentLiabilities: stock(() =>
      plus(plus(-stands(kind(...CURRENT_LIABILITIES)), overpaid()), known.due(period)),
    ),
    assets: stock(() => plus(stands(kind(...CURRENT_ASSETS, 'fixedAsset')), overpaid())),
    debt: stock(() => plus(-stands(kind('payable', 'taxPayable', 'otherLiability', 'loan')), overpaid())),
    // Results that no entry has put into equity yet are the owners' too.
    equity: stock(() => stands((a) => !isProfitAndLoss(a.kind) && a.kind !== 'equity')),
  };
  return (name) => {
    let value = told.get(name);
    if (value === undefined) {
      const made = makers[name]();
      told.set(name, (value = made === null ? null : minor(made)));
    }
    return value;
  };
}

type Rule = {
  readonly unit: Ratio['unit'];
  readonly top: readonly RatioInput[];
  readonly bottom: readonly RatioInput[];
  /** Days of a year that the quotient is told in, where it is. */
  readonly days?: true;
};
/** Ratios that are quotients of sums. */
const RULES: Readonly<Record<Exclude<RatioId, 'cashConversion' | 'breakEven'>, Rule>> = {
  grossMargin: { unit: 'percent', top: ['grossMargin'], bottom: ['income'] },
  operatingMargin: { unit: 'percent', top: ['operatingProfit'], bottom: ['income'] },
  fixedShare: { unit: 'percent', top: ['fixedCosts'], bottom: ['income'] },
  current: { unit: 'times', top: ['currentAssets'], bottom: ['currentLiabilities'] },
  quick: { unit: 'times', top: ['bank', 'receivables'], bottom: ['currentLiabilities'] },
  debtToEquity: { unit: 'times', top: ['debt'], bottom: ['equity'] },
  debtService: { unit: 'times', top: ['operatingProfit', 'depreciation'], bottom: ['interest', 'repaid'] },
  interestCover: { unit: 'times', top: ['operatingProfit'], bottom: ['interest'] },
  receivableDays: { unit: 'days', top: ['receivables'], bottom: ['income'], days: true },
  inventoryDays: { unit: 'days', top: ['inventory'], bottom: ['costOfSales'], days: true },
  payableDays: { unit: 'days', top: ['payables'], bottom: ['costOfSales'], days: true },
  cashDays: { unit: 'days', top: ['bank'], bottom: ['costsPaid'], days: true },
};

/** What a ratio is told in. */
export const ratioUnit = (id: RatioId): Ratio['unit'] =>
  id === 'breakEven' ? 'money' : id === 'cashConversion' ? 'days' : RULES[id].unit;

const sumOf = (parts: readonly RatioPart[]): number | null =>
  parts.some((p) => p.amount === null) ? null : parts.reduce((t, p) => plus(t, p.amount!), 0);

/** A ratio from what it is made of; `days` of the year that the flows are of. */
export function ratioOf(id: RatioId, input: Inputs, days: number): Ratio {
  const part = (name: RatioInput): RatioPart => ({ name, amount: input(name) });
  if (id === 'cashConversion') {
    const [receivable, inventory, payable] = (
      ['receivableDays', 'inventoryDays', 'payableDays'] as const
    ).map((r) => ratioOf(r, input, days)) as [Ratio, Ratio, Ratio];
    // A company without stock waits for none.
    const of = (r: Ratio) => (r.value === null && sumOf(r.top) === 0 ? 0 : r.value);
    const all = [of(receivable), of(inventory), of(payable)];
    const value = all.some((v) => v === null) ? null : all[0]! + all[1]! - all[2]!;
    return {
      id,
      value,
      unit: 'days',
      top: [...receivable.top, ...inventory.top, ...payable.top],
      bottom: [...receivable.bottom, ...inventory.bottom],
    };
  }
  if (id === 'breakEven') {
    // Where each sale leaves something over its variable costs, so many sales pay the fixed ones.
    const [fixed, margin, income] = [part('fixedCosts'), part('contribution'), part('income')];
    const value =
      fixed.amount === null || income.amount === null || margin.amount === null || margin.amount <= 0
        ? null
        : divideRounded(fixed.amount, income.amount, margin.amount, 'halfAwayFromZero');
    return { id, value, unit: 'money', top: [fixed], bottom: [margin, income] };
  }
  const rule = RULES[id];
  const [top, bottom] = [rule.top.map(part), rule.bottom.map(part)];
  const [over, under] = [sumOf(top), sumOf(bottom)];
  const value =
    over === null || under === null || under <= 0
      ? null
      : divideRounded(minor(over), 1000 * (rule.days ? days : 1), minor(under), 'halfAwayFromZero');
  return { id, value, unit: rule.unit, top, bottom };
}

/** The days of the year that ends with a period. */
export function daysOfYear(calendar: FiscalCalendar, period: PeriodIndex): number {
  const before = yearsBefore(calendar, period);
  const { end } = calendar.period(period);
  return before === null ? 365 : toDayNumber(end) - toDayNumber(calendar.period(before).end);
}
