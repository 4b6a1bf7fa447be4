import type { TermsKind } from '@/core/model';

/** What the kinds of terms are called. */
export const TERMS_NAMES: Record<TermsKind, string> = {
  atOnce: 'At once',
  onAccount: 'On account',
  daysOutstanding: 'Days outstanding',
  fromStock: 'From stock',
  inAdvance: 'In advance',
  withoutMoney: 'Without money',
  payroll: 'Payroll',
};

/** What each kind of terms does, in one plain line. */
export const TERMS_HELP: Record<TermsKind, string> = {
  atOnce: 'Paid on the day it falls on.',
  onAccount: 'Invoiced, and paid in shares so many days later; what the shares leave is never paid.',
  daysOutstanding: 'So many days of it are always unpaid; the rest of the money comes over the month.',
  fromStock: 'The cost comes out of stock; purchases keep so many days of it, and are paid on terms.',
  inAdvance: 'Paid in one sum for several months; the line takes its part each month.',
  withoutMoney: 'No money moves: depreciation, allowances.',
  payroll: 'The net part on the paydays, what is withheld when it is due.',
};
