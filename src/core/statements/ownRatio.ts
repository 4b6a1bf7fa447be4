import {
  evaluate,
  figureOfKey,
  parseFormula,
  type Expression,
  type FigureName,
  type Name,
} from '@/core/formula';
import { assertNever } from '@/core/assertNever';
import type { Balances } from '@/core/ledger';
import type { FiscalCalendar, PeriodIndex } from '@/core/calendar';
import { isProfitAndLoss, natural, type Account, type OwnRatio } from '@/core/model';
import {
  isTooLarge,
  minor,
  multiplyRatio,
  plus,
  ratio,
  roundRatio,
  UnsafeMoneyError,
  type Minor,
  type Ratio as Fraction,
} from '@/core/money';
import { RATIO_INPUTS, type RatioInput } from './ratios';

/** What an own ratio comes to, as the trade's ratios do: thousandths, of money minor units; or why it comes to nothing. */
export type OwnRatioValue = {
  readonly value: number | null;
  /** Above and below the line in minor units, of a formula that divides once everything is said. */
  readonly parts: { readonly top: number; readonly bottom: number } | null;
  readonly issue: 'badFormula' | 'missing' | 'dividesByZero' | 'tooLarge' | null;
};

const failed = (issue: OwnRatioValue['issue']): OwnRatioValue => ({ value: null, parts: null, issue });

/**
 * An own ratio in a period. Names stand for what they do in the ratios of the trade: profit and loss for the year that ends
 * with the period, balances for what they stand at at its end, and what the statements add up, in units of the currency; `prior` looks so many periods back.
 */
export function ownRatioOf(
  { formula, unit }: Pick<OwnRatio, 'formula' | 'unit'>,
  books: {
    readonly balances: Balances;
    readonly accounts: readonly Account[];
    readonly calendar: FiscalCalendar;
    /** Minor units in one unit of the currency. */
    readonly unit: number;
    /** What the statements add up, as the ratios of the trade have it; null where it is not known. */
    readonly figures: (period: PeriodIndex) => (figure: RatioInput) => Minor | null;
  },
  period: PeriodIndex,
): OwnRatioValue {
  const parsed = parseFormula(formula, figureOfKey);
  if (!parsed.ok || parsed.names.some((n) => n.name.of === 'driver')) return failed('badFormula');
  if (parsed.names.some((n) => !isThere(n.name, books.accounts))) return failed('missing');
  try {
    const of = (expression: Expression<FigureName>) =>
      evaluate(expression, (name, prior) => amountOf(name, books, period - prior));
    const { value, error } = of(parsed.expression);
    if (error) return failed(error);
    if (value === null) return failed(null);
    const scaled = roundRatio(multiplyRatio(value, ratio(unit === 'money' ? books.unit : 1000)));
    if (isTooLarge(scaled)) return failed('tooLarge');
    const { expression } = parsed;
    const [top, bottom] =
      expression.kind === 'quotient' ? [of(expression.left).value, of(expression.right).value] : [null, null];
    const money = (amount: Fraction) => roundRatio(multiplyRatio(amount, ratio(books.unit)));
    return {
      value: scaled,
      parts: top && bottom && { top: money(top), bottom: money(bottom) },
      issue: null,
    };
  } catch (error) {
    if (error instanceof UnsafeMoneyError) return failed('tooLarge');
    throw error;
  }
}

const isFigure = (figure: string): figure is RatioInput =>
  (RATIO_INPUTS as readonly string[]).includes(figure);

const isThere = (name: FigureName, accounts: readonly Account[]): boolean =>
  name.of === 'figure' ? isFigure(name.figure) : membersOf(name, accounts).length > 0;

function membersOf(name: Name, accounts: readonly Account[]): readonly Account[] {
  switch (name.of) {
    case 'account':
      return accounts.filter((a) => a.id === name.account);
    case 'group':
      return accounts.filter((a) => a.kind === name.kind && a.group === name.group);
    case 'kind':
      return accounts.filter((a) => a.kind === name.kind);
    case 'driver':
      return [];
    default:
      return assertNever(name);
  }
}

/** A name's amount in units of the currency; null where its year is not known. */
function amountOf(
  name: FigureName,
  { balances, accounts, calendar, unit, figures }: Parameters<typeof ownRatioOf>[1],
  period: PeriodIndex,
): Fraction | null {
  if (name.of === 'figure') {
    const amount = isFigure(name.figure) ? figures(period)(name.figure) : null;
    return amount === null || Number.isNaN(amount) ? null : ratio(amount, unit);
  }
  const length = calendar.periodsIn(calendar.period(period).year);
  let sum = 0;
  for (const a of membersOf(name, accounts)) {
    if (!isProfitAndLoss(a.kind)) {
      if (!balances.has(period)) return null;
      sum = plus(sum, natural(a.kind, minor(balances.balance(a.id, period, true))));
      continue;
    }
    for (let p = period - length + 1; p <= period; p++) {
      if (!balances.has(p)) return null;
      sum = plus(sum, natural(a.kind, minor(balances.movement(a.id, p) ?? 0)));
    }
  }
  return Number.isNaN(sum) ? null : ratio(sum, unit);
}
