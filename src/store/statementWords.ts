import type { Minor } from '@/core/money';
import type { RatioId } from '@/core/model';
import { isPaid, type FlowLine, type FlowSection, type Ratio, type RatioInput } from '@/core/statements';
import type { MoneyFormat } from './format';

export const SECTION_WORDS: Readonly<Record<FlowSection, string>> = {
  adjustments: 'What was no money, or is told below',
  workingCapital: 'Working capital',
  interestPaid: 'Interest paid',
  incomeTaxPaid: 'Income tax paid',
  investing: 'Investing',
  financing: 'Financing',
};

/** One plain sentence for a step from profit to cash. */
export function stepWords(
  { account, section, sign, key, of }: FlowLine,
  amount: Minor,
  money: MoneyFormat,
): string {
  const size = money.text(Math.abs(amount) as Minor);
  const [brings, name] = [amount > 0, account.name];
  if (of === 'gains')
    return brings
      ? `${size} was lost on what was sold: what it brought is told under investing.`
      : `${size} was gained on what was sold: what it brought is told under investing.`;
  if (sign === 1) return `${size} of it is told under another part of the statement.`;
  if (key !== account.id) return `${name}: ${size}.`;
  if (isPaid(section)) {
    const what = section === 'interestPaid' ? 'interest' : 'income tax';
    return brings
      ? `${size} of ${what} is owed still: ${name}.`
      : `${size} more ${what} was paid than was due: ${name}.`;
  }
  if (section === 'adjustments')
    return brings
      ? `${size} of costs took no money: ${name}.`
      : `${size} of what ${name} gathered was used or taken back.`;
  if (section === 'investing')
    return brings ? `${size} came back out of ${name}.` : `${size} went into ${name}.`;
  switch (account.kind) {
    case 'receivable':
      return brings
        ? `Customers paid ${size} more than was newly invoiced.`
        : `Customers owe ${size} more than at the start: profit that has not come as money yet.`;
    case 'inventory':
      return brings
        ? `Stock shrank by ${size}: a cost that was paid for before.`
        : `Stock grew by ${size}: paid or owed for, and no cost yet.`;
    case 'payable':
      return brings
        ? `Suppliers are owed ${size} more: costs that are not paid yet.`
        : `${size} of older bills was paid.`;
    case 'taxPayable':
      return brings
        ? `${size} of tax was collected or kept back, and is not paid yet.`
        : `${size} of tax was paid that had been kept before.`;
    case 'loan':
      return brings ? `${size} was borrowed: ${name}.` : `${size} of ${name} was repaid.`;
    case 'equity':
      return brings ? `Owners put in ${size}: ${name}.` : `Owners took out ${size}: ${name}.`;
    case 'otherLiability':
      return brings
        ? `${size} more is owed or was received in advance: ${name}.`
        : `${size} that was owed or received before was settled: ${name}.`;
    default:
      return brings
        ? `${size} that was paid before became a cost: ${name}.`
        : `${size} was paid that is no cost yet: ${name}.`;
  }
}

/** How a ratio is made, in the open. */
export const RATIO_FORMULAS: Readonly<Record<RatioId, string>> = {
  grossMargin: 'gross margin ÷ income',
  operatingMargin: 'operating profit ÷ income',
  fixedShare: 'fixed costs ÷ income',
  current: 'current assets ÷ current liabilities',
  quick: '(bank + receivables) ÷ current liabilities',
  debtToEquity: 'all that is owed ÷ owners’ part',
  debtService: '(operating profit + depreciation) ÷ (interest + loans repaid)',
  interestCover: 'operating profit ÷ interest',
  receivableDays: 'receivables ÷ income × days of the year',
  inventoryDays: 'inventory ÷ cost of sales × days of the year',
  payableDays: 'payables ÷ cost of sales × days of the year',
  cashConversion: 'receivable days + inventory days − payable days',
  cashDays: 'bank ÷ costs that are paid × days of the year',
  breakEven: 'fixed costs × income ÷ (income − variable costs)',
};

export const INPUT_NAMES: Readonly<Record<RatioInput, string>> = {
  income: 'Income',
  grossMargin: 'Gross margin',
  operatingProfit: 'Operating profit',
  netProfit: 'Net profit',
  costOfSales: 'Cost of sales',
  fixedCosts: 'Fixed costs',
  variableCosts: 'Variable costs',
  contribution: 'Income less variable costs',
  interest: 'Interest',
  depreciation: 'Depreciation',
  repaid: 'Loans repaid',
  bank: 'Bank',
  receivables: 'Receivables',
  inventory: 'Inventory',
  payables: 'Payables',
  currentAssets: 'Current assets',
  currentLiabilities: 'Current liabilities',
  assets: 'Total assets',
  debt: 'All that is owed',
  equity: 'Owners’ part',
  costsPaid: 'Costs that are paid',
};

/** A ratio as it is written: 24.5%, 1.35 times, 42 days, or money. */
export function ratioText(value: number | null, unit: Ratio['unit'], money: MoneyFormat): string {
  if (value === null) return '';
  switch (unit) {
    case 'percent':
      return `${(value / 10).toFixed(1)}%`;
    case 'times':
      return `${(value / 1000).toFixed(2)} ×`;
    case 'days':
      return `${Math.round(value / 1000)} days`;
    case 'money':
      return money.text(value as Minor);
  }
}
