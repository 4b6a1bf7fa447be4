import { naturalSign, profitSign, type AccountId, type TermsRule } from '@/core/model';
import { divideRounded, isTooLarge, minor, percentOf, type Percent } from '@/core/money';
import { accountFor, splitByPercents, weightOf } from '@/core/schedule';
import type { PlannedLine, ProjectionInput } from './input';

/**
 * What a line does to money by place (closed periods, then planned ones), in parts as its terms divide it: receipts
 * positive. The tax of a month is rounded once and divided as the amount is.
 */
export type LineMonths = {
  readonly line: PlannedLine;
  /** Its receivable or payable, where its terms name none. */
  readonly open: AccountId;
  readonly all: (part: number) => readonly number[];
  readonly allTax: (part: number) => readonly number[];
  readonly money: (part: number, place: number) => number;
  readonly tax: (part: number, place: number) => number;
  /** What a rule that looks ahead finds: closed periods as they were, the rest whoever plans them. */
  readonly ahead: (part: number, place: number) => number;
  /** Whether its budget rules the period. */
  readonly plans: (place: number) => boolean;
  /** The tax of an amount, and the tax in an amount that holds it, each of its sign. */
  readonly taxOf: (amount: number) => number;
  readonly taxIn: (amount: number) => number;
};

const NO_TAX = () => 0;

/** The months of a line; `covered`: what orders stand for of its planned ones. */
export function lineMonths(
  { accounts, taxes, past, periods }: Pick<ProjectionInput, 'accounts' | 'taxes' | 'past' | 'periods'>,
  line: PlannedLine,
  covered: readonly number[] | null,
): LineMonths {
  const { terms, account } = line;
  const first = past.length;
  const rate = taxes.some((t) => t.id === terms.tax?.scheme) ? terms.tax!.rate : null;
  const taxOf = rate === null ? NO_TAX : (amount: number) => taxAt(amount, rate);
  const money = moneyByPlace(line, covered, first, first + periods.length);
  const tax = rate === null ? nothing(money.length) : money.map(taxOf);
  const percents = terms.parts.map((p) => p.percent);
  const shares = percents.length === 1 ? null : percents.map((_, k) => partOf(percents, k));
  const divided = (all: readonly number[]) => (shares ? shares.map((s) => all.map(s)) : [all]);
  const parts = divided(money);
  const taxes_ = shares && rate !== null ? divided(tax) : parts.map(() => tax);
  const sign = -naturalSign(account.kind);
  const aheadOf = (place: number) => {
    const amount = line.ahead?.[place] ?? line.ahead?.at(-1) ?? 0;
    return Number.isNaN(amount) ? 0 : sign * amount;
  };
  return {
    line,
    open: debtOf(accounts, line),
    all: (k) => parts[k]!,
    allTax: (k) => taxes_[k]!,
    money: (k, m) => parts[k]![m]!,
    tax: (k, m) => taxes_[k]![m]!,
    ahead: (k, m) => (shares ? shares[k]!(aheadOf(m)) : aheadOf(m)),
    plans: (m) => (m < first ? line.past[m] : line.amounts[m - first]) != null,
    taxOf,
    taxIn:
      rate === null
        ? NO_TAX
        : (amount) => divideRounded(amount, weightOf(rate), 100_000_000 + weightOf(rate), 'halfAwayFromZero'),
  };
}

const partOf = (percents: readonly Percent[], k: number) => (amount: number) =>
  splitByPercents(amount, percents).parts[k]!;

/** The receivable of income, the payable of costs. */
export const debtOf = (
  accounts: ProjectionInput['accounts'],
  { account }: Pick<PlannedLine, 'account'>,
): AccountId =>
  profitSign(account.kind) > 0 ? accountFor(accounts, 'receivable') : accountFor(accounts, 'payable');

const nothings: number[][] = [];
/** Months without tax, the same ones for every line. */
const nothing = (months: number): readonly number[] => (nothings[months] ??= Array<number>(months).fill(0));

/** The tax of an amount; none of what could not be told. */
function taxAt(amount: number, rate: Percent): number {
  const tax = percentOf(minor(amount), rate);
  return isTooLarge(tax) ? 0 : tax;
}

/** What a line does to money by place: receipts positive. */
function moneyByPlace(
  { account, past, amounts }: PlannedLine,
  covered: readonly number[] | null,
  first: number,
  count: number,
): readonly number[] {
  const sign = -naturalSign(account.kind);
  const out = new Array<number>(count);
  for (let m = 0; m < count; m++) {
    const said = m < first ? past[m] : amounts[m - first];
    const amount = said == null || Number.isNaN(said) ? 0 : said;
    // An order stands in place of the plan as far as the plan reaches.
    const left = covered && m >= first && amount > 0 ? Math.max(0, amount - covered[m - first]!) : amount;
    out[m] = left === 0 ? 0 : sign * left;
  }
  return out;
}

const DAYS_OF_MONTH = 28;

/** How many periods back a rule's events may still have something to come. */
export function reachOf(rule: TermsRule): number {
  const due = (
    d: { readonly of: 'days'; readonly days: number } | { readonly of: 'months'; readonly months: number },
  ) => (d.of === 'days' ? Math.ceil(d.days / DAYS_OF_MONTH) + 1 : d.months + 2);
  switch (rule.kind) {
    case 'atOnce':
      return rule.moved === 'stays' ? 0 : 1;
    case 'onAccount':
    case 'fromStock':
      return Math.max(...rule.shares.map((s) => due(s.due)));
    case 'payroll':
      return due(rule.rest);
    case 'daysOutstanding':
    case 'inAdvance':
    case 'withoutMoney':
      return 0;
  }
}
