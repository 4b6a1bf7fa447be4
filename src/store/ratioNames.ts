import type { RatioId } from '@/core/model';

/** What ratios are called. */
export const RATIO_NAMES: Readonly<Record<RatioId, string>> = {
  grossMargin: 'Gross margin',
  operatingMargin: 'Operating margin',
  fixedShare: 'Fixed overheads share',
  current: 'Current ratio',
  quick: 'Quick ratio',
  debtToEquity: 'Debt to equity',
  debtService: 'Debt service coverage',
  interestCover: 'Interest cover',
  receivableDays: 'Receivable days',
  inventoryDays: 'Inventory days',
  payableDays: 'Payable days',
  cashConversion: 'Cash conversion',
  cashDays: 'Days of cash',
  breakEven: 'Break-even sales',
};
