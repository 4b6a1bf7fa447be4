import type { PeriodIndex, PeriodRange } from '@/core/calendar';
import { aheadOf, budgetOn, servedBy, type Ground } from '@/core/ground';
import { hasNature, type Account, type Budget } from '@/core/model';
import { divideRounded, minor, percentOf, plus, type Minor, type Percent } from '@/core/money';
import { variableShareOf } from '@/core/statements';

/*
 * Where is the edge? Break-even, margin of safety and operating leverage (cost-volume-profit analysis, as managerial accounting
 * teaches it), of months and of all of them.
 */

/** What sales and costs come to; all in minor units, costs positive. */
export type CostVolume = {
  readonly income: Minor;
  /** Costs of operations that rise with sales, and those that do not. */
  readonly variable: Minor;
  readonly fixed: Minor;
  /** Other costs less other income, taxes on profit not among them. */
  readonly other: Minor;
};

export type Edge = CostVolume & {
  /** Income at which operations come to nothing, and at which the profit before tax does; null where no sale leaves anything over. */
  readonly operations: Minor | null;
  readonly beforeTax: Minor | null;
  /** By how much income may fall until operations come to nothing: in minor units, and in thousandths of a percent of income. */
  readonly safety: { readonly amount: Minor; readonly percent: number } | null;
  /** By how many times the share of a change of income the operating profit changes, in thousandths; null without a profit. */
  readonly leverage: number | null;
};

const HALF = 'halfAwayFromZero';

/** The edge of what sales and costs come to. */
export function edgeOf(of: CostVolume): Edge {
  const { income, variable, fixed, other } = of;
  const margin = income - variable;
  const even = (costs: number): Minor | null =>
    income > 0 && margin > 0 ? divideRounded(minor(costs), income, margin, HALF) : null;
  const operations = even(fixed);
  const profit = margin - fixed;
  const amount = operations === null ? null : minor(income - operations);
  return {
    ...of,
    operations,
    beforeTax: even(plus(fixed, other)),
    safety: amount === null ? null : { amount, percent: divideRounded(amount, 100_000, income, HALF) },
    leverage: profit > 0 && margin > 0 ? divideRounded(minor(margin), 1000, profit, HALF) : null,
  };
}

/** An account's costs of operations in a range, and how much of them rises with sales. */
export type CostLine = { readonly account: string; readonly cost: Minor; readonly variable: Minor };

export type Edges = {
  readonly months: readonly (Edge & { readonly period: PeriodIndex })[];
  readonly whole: Edge;
  /** What is taken for variable and for fixed. */
  readonly costs: readonly CostLine[];
};

/** The edge of a plan, of each month of a range and of all of them; null where nothing is known at all. */
export function edgesOf(ground: Ground, look: Budget | null, range: PeriodRange): Edges | null {
  const ahead = aheadOf(ground, budgetOn(ground, look));
  if (ahead === null) return null;
  const { balances, accounts, last } = ahead;
  const served = servedBy(ground);
  const isTax = (a: Account) => served.tax?.has(a.id) || hasNature(a, 'tax');
  const moved = (id: string, period: PeriodIndex): number => balances.movement(id, period) ?? 0;
  const costs = new Map<string, { cost: number; variable: number }>();
  const months: { period: PeriodIndex; of: CostVolume }[] = [];
  for (let period = range.first; period <= Math.min(range.last, last); period++) {
    let [income, variable, fixed, other] = [0, 0, 0, 0];
    for (const a of accounts) {
      const amount = moved(a.id, period);
      if (amount === 0 || isTax(a)) continue;
      if (a.kind === 'income') income = plus(income, -amount);
      if (a.kind === 'otherIncome' || a.kind === 'otherExpense') other = plus(other, amount);
      const share = variableShareOf(a, ground.book.variableShares);
      if (share === null) continue;
      const rising = percentOf(minor(amount), `${share}` as Percent);
      variable = plus(variable, rising);
      fixed = plus(fixed, amount - rising);
      const known = costs.get(a.id) ?? { cost: 0, variable: 0 };
      costs.set(a.id, { cost: plus(known.cost, amount), variable: plus(known.variable, rising) });
    }
    const of = { income: minor(income), variable: minor(variable), fixed: minor(fixed), other: minor(other) };
    months.push({ period, of });
  }
  const sum = (key: keyof CostVolume): Minor => minor(months.reduce((t, m) => plus(t, m.of[key]), 0));
  return {
    months: months.map(({ period, of }) => ({ ...edgeOf(of), period })),
    whole: edgeOf({
      income: sum('income'),
      variable: sum('variable'),
      fixed: sum('fixed'),
      other: sum('other'),
    }),
    costs: [...costs].map(([account, c]) => ({
      account,
      cost: minor(c.cost),
      variable: minor(c.variable),
    })),
  };
}
