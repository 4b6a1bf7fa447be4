import type { Book, Covenant, RatioId } from '@/core/model';

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

type Ratio = Covenant['ratio'];

/** What a ratio is called, the trade's or one of the book's own. */
export const ratioName = ({ ownRatios }: Pick<Book, 'ownRatios'>, ratio: Ratio): string =>
  typeof ratio === 'string'
    ? RATIO_NAMES[ratio]
    : (ownRatios.find((r) => r.id === ratio.own)?.name ?? 'a ratio that is gone');

/** The same within a sentence; a name that someone gave stays as it was given. */
export const ratioInWords = (book: Pick<Book, 'ownRatios'>, ratio: Ratio): string =>
  typeof ratio === 'string' ? RATIO_NAMES[ratio].toLowerCase() : ratioName(book, ratio);
