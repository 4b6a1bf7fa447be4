import type { AccountKind } from '@/core/model';

export type KindReason = 'section' | 'type' | 'name' | 'code' | 'balance' | 'book';
export type KindGuess = { readonly kind: AccountKind; readonly why: KindReason; readonly sure: boolean };

/** Words of the trade in section headings, type columns and account names; the first that fits decides. */
const WORDS: readonly (readonly [RegExp, AccountKind])[] = [
  [/cost of (goods|sales)|\bcogs\b|direct (cost|expense)|stock sold|purchases for resale/, 'costOfSales'],
  [
    /(other|non-?operating|sundry|interest|investment) (income|revenue)|interest (received|earned)|gain on/,
    'otherIncome',
  ],
  [
    /(other|non-?operating) (expense|cost)|(interest|finance) (expense|cost|charge|paid)|loss on|income tax/,
    'otherExpense',
  ],
  [
    /accumulated depreciation|fixed asset|property|plant|equipment|vehicles?$|buildings?$|machinery/,
    'fixedAsset',
  ],
  [/receivable|debtors?\b|undeposited|owed by/, 'receivable'],
  [/inventor(y|ies)|stock on hand|^stock$/, 'inventory'],
  [/(tax|vat|gst|hst|withholding|payroll).*(payable|liabilit|collected|owed)|payable.*tax/, 'taxPayable'],
  [/loan|mortgage|notes? payable|long-?term (debt|liabilit)|borrowing|overdraft/, 'loan'],
  [/payable|creditors?\b|accrued|accruals|credit card/, 'payable'],
  [/deferred|deposits? held|unearned|liabilit/, 'otherLiability'],
  [/prepaid|prepayment|other (current )?asset|^assets?$|current assets?/, 'otherAsset'],
  [/equity|retained|capital|drawings?|owner|member shares|reserves?$|accumulated (surplus|funds)/, 'equity'],
  [/\bbank\b|\bcash\b|checking|current account|savings account|petty/, 'bank'],
  [
    /\b(cost|costs|expenses?|overheads?|wages|salar(y|ies)|rent|lease|insurance|repairs?|utilities|power|fuel|depreciation|postage|advertising|marketing|subscriptions?|licen[cs]es?|travel|training|charges|supplies|audit|payroll|bad debts?)\b/,
    'expense',
  ],
  [
    /\b(income|revenue|sales|turnover|fees|takings|receipts|grants?|donations?|rents received|memberships?)\b/,
    'income',
  ],
];

/** The kind that a heading, a type or a name points to by its words; null when none does. */
export function kindByWords(text: string): AccountKind | null {
  const t = text.toLowerCase();
  return WORDS.find(([words]) => words.test(t))?.[1] ?? null;
}

/**
 * The kind by the first digit of a numeric code, after the ranges common in charts of accounts of small businesses
 * in the US (common practice, no standard): 1 assets, 2 debts, 3 equity, 4 income, 5 cost of sales, 6–8 expenses,
 * 9 other.
 */
export function kindByCode(code: string): AccountKind | null {
  const m = /^\D{0,3}(\d)\d{2,}/.exec(code);
  if (!m) return null;
  const byDigit: Record<string, AccountKind> = {
    '1': 'otherAsset',
    '2': 'otherLiability',
    '3': 'equity',
    '4': 'income',
    '5': 'costOfSales',
    '6': 'expense',
    '7': 'expense',
    '8': 'expense',
    '9': 'otherExpense',
  };
  return byDigit[m[1]!] ?? null;
}

const ON_BALANCE_SHEET = new Set<AccountKind>(['otherAsset', 'otherLiability', 'equity']);
/** Within assets or debts the name tells which; it may not move an account across the statements. */
const WITHIN: Partial<Record<AccountKind, readonly AccountKind[]>> = {
  otherAsset: ['bank', 'receivable', 'inventory', 'fixedAsset', 'otherAsset'],
  otherLiability: ['payable', 'taxPayable', 'loan', 'otherLiability'],
  equity: ['equity'],
};

/**
 * Guesses an account's kind: from the section it stands in (innermost first), its type column, its code with its
 * name, its name, and at last from the side of its balance (`total`, debits positive). Says what decided.
 */
export function guessKind(a: {
  readonly code: string;
  readonly name: string;
  readonly type: string;
  readonly sections: readonly string[];
  readonly total: number;
}): KindGuess {
  for (const section of [...a.sections].reverse()) {
    const kind = kindByWords(section);
    if (kind) return { kind: refine(kind, a.name), why: 'section', sure: true };
  }
  const byType = a.type ? kindByWords(a.type) : null;
  if (byType) return { kind: refine(byType, a.name), why: 'type', sure: true };
  const byCode = kindByCode(a.code);
  const byName = kindByWords(a.name);
  if (byCode) {
    if (ON_BALANCE_SHEET.has(byCode)) return { kind: refine(byCode, a.name), why: 'code', sure: true };
    // Codes of sections of their own (7xxx, 8xxx other items) are told by the name when it is plain about it.
    if (byName === 'otherIncome' || byName === 'otherExpense')
      return { kind: byName, why: 'name', sure: true };
    if (byCode === 'otherExpense' && byName === 'income')
      return { kind: 'otherIncome', why: 'name', sure: false };
    return { kind: byCode, why: 'code', sure: true };
  }
  if (byName) return { kind: byName, why: 'name', sure: byName !== 'bank' };
  return { kind: a.total < 0 ? 'income' : 'expense', why: 'balance', sure: false };
}

function refine(kind: AccountKind, name: string): AccountKind {
  const within = WITHIN[kind];
  const byName = within ? kindByWords(name) : null;
  return byName && within!.includes(byName) ? byName : kind;
}
