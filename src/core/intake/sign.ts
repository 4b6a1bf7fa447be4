import type { SignRule } from './mapping';

/** −1 when amounts under this rule must be turned to become debit-positive, for an account of natural sign `natural`. */
export const toDebitPositive = (sign: SignRule, natural: 1 | -1): 1 | -1 => {
  switch (sign) {
    case 'natural':
      return natural;
    case 'debitPositive':
      return 1;
    case 'profitPositive':
    case 'creditPositive':
      return -1;
  }
};

/** Words by which a row says that it adds others up. */
export const TOTAL_WORDS = /^\s*(grand\s+|sub-?\s?|net\s+)?totals?\b|\btotals?\s*$/i;
