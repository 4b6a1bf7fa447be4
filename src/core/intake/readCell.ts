import { amountOfNumber, parseAmount, type NumberFormat, type ParsedAmount } from '@/core/money';
import type { GridCell } from '@/core/files';

/** An amount cell of a file: text by the file's number format, a spreadsheet's number by its decimal form. */
export const readAmount = (cell: GridCell | undefined, digits: number, format: NumberFormat): ParsedAmount =>
  cell === undefined
    ? parseAmount('', digits, format)
    : typeof cell === 'number'
      ? amountOfNumber(cell, digits)
      : parseAmount(cell, digits, format);

/** A percentage is no amount; decimals beyond the currency's and figures beyond any amount are told apart from garbage. */
export const amountIssue = (
  parsed: ParsedAmount,
): 'unreadableAmount' | 'tooManyDecimals' | 'tooLarge' | null =>
  parsed.ok
    ? parsed.percent
      ? 'unreadableAmount'
      : null
    : parsed.code === 'notANumber'
      ? 'unreadableAmount'
      : parsed.code;
