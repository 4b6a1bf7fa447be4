import type { AccountKind } from '@/core/model';
import { ROW_NAMES, type SectionKind } from '@/core/report';

const KIND_WORDS: Record<string, string> = {
  bank: 'bank',
  receivable: 'receivables',
  inventory: 'inventory',
  otherAsset: 'other assets',
  fixedAsset: 'fixed assets',
  payable: 'payables',
  taxPayable: 'taxes payable',
  otherLiability: 'other liabilities',
  loan: 'loans',
  equity: 'equity',
};

/** A kind of account in the plural, in small letters. */
export const kindWords = (kind: AccountKind): string =>
  KIND_WORDS[kind] ?? ROW_NAMES[kind as SectionKind].toLowerCase();
