import { isProfitAndLoss, profitSign, type AccountKind } from '@/core/model';

export type KindReason = 'section' | 'type' | 'name' | 'code' | 'balance' | 'book' | 'twoNames';
export type KindGuess = { readonly kind: AccountKind; readonly why: KindReason; readonly sure: boolean };

/** Words of the trade in section headings, type columns and account names; the first that fits decides. */
const WORDS: readonly (readonly [RegExp, AccountKind])[] = [
  [/cost of (goods|sales)|\bcogs\b|direct (cost|expense)|stock sold|purchases for resale/, 'costOfSales'],
  [
    /(other|non-?operating|sundry|interest|investment|dividend) (income|revenue)|interest (received|earned)|gains? (on|from)|(exchange|currency|foreign exchange|fx) gains?/,
    'otherIncome',
  ],
  [
    /(other|non-?operating) (expense|cost)|(interest|finance) (expense|cost|charge|paid)|(loan|mortgage|overdraft|bank) interest|interest on|loss(es)? on|(exchange|currency|foreign exchange|fx) (difference|loss)|income tax|corporat(e|ion) tax/,
    'otherExpense',
  ],
  // What is written off is a cost; what has been written off stands against the asset.
  [
    /accumulated depreciation|fixed asset|property\b(?! tax)|^plant\b|equipment|vehicles?$|^land\b|land and buildings?|(free|lease)hold|buildings?$|machinery/,
    'fixedAsset',
  ],
  [/receivable|debtors?\b|undeposited|owed by/, 'receivable'],
  [/inventor(y|ies)|stock on hand|^stock$|work in progress/, 'inventory'],
  [
    /(tax|vat|value[- ]added tax|gst|hst|withholding|payroll).*(payable|liabilit|collected|owed|control|due)|payable.*tax|^(sales tax|vat|value[- ]added tax|gst|hst)\b(?!.*(expense|irrecoverable))|output tax|input tax/,
    'taxPayable',
  ],
  [/loan|mortgage|notes? payable|long-?term (debt|liabilit)|borrowing|overdraft/, 'loan'],
  [/payable|creditors?\b|accrued|accruals|credit card/, 'payable'],
  [/deferred|deposits? held|unearned|in advance|liabilit/, 'otherLiability'],
  [/prepaid|prepayment|other (current )?asset|^assets?$|current assets?/, 'otherAsset'],
  [/equity|retained|capital|drawings?|owner|member shares|reserves?$|accumulated (surplus|funds)/, 'equity'],
  [/\bbank\b(?! (charge|fee))|\bcash\b|checking|current account|savings account|petty/, 'bank'],
  [
    /\b(cost|costs|expenses?|overheads?|wages|salar(y|ies)|rent|lease|insurance|repairs?|utilities|power|fuel|depreciation|amorti[sz]ation|postage|advertising|marketing|subscriptions?|licen[cs]es?|travel|training|charges|supplies|audit|payroll|bad debts?|property tax)\b/,
    'expense',
  ],
  [
    /\b(income|revenue|sales|turnover|fees|takings|receipts|grants?|subsid(y|ies)|donations?|rents received|memberships?)\b/,
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
  const digit = leadingDigit(code);
  return digit === null ? null : (US_RANGES[digit] ?? null);
}

const leadingDigit = (code: string): string | null => /^\D{0,3}(\d)\d{2,}/.exec(code)?.[1] ?? null;

const US_RANGES: Readonly<Record<string, AccountKind>> = {
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

/** What a code tells of its kind, in one chart of accounts. */
export type CodeScheme = (code: string) => AccountKind | null;

/** What first digits stand for, as far as names say: the statement side of a kind. */
const coarse = (kind: AccountKind): AccountKind =>
  (Object.entries(WITHIN).find(([, within]) => within.includes(kind))?.[0] as AccountKind | undefined) ??
  kind;

/**
 * How the codes of a chart are to be understood: as the US ranges if its names bear them out, else not at all. Charts of
 * other countries have ranges of their own, and codes with leading zeros have none.
 */
export function schemeOf(accounts: readonly { readonly code: string; readonly name: string }[]): CodeScheme {
  let agree = 0;
  let differ = 0;
  for (const { code, name } of accounts) {
    const [byCode, byName] = [kindByCode(code), kindByWords(name)];
    if (!byName || code === '') continue;
    if (/^0/.test(code)) differ++;
    else if (byCode) {
      const [a, b] = [coarse(byCode), coarse(byName)];
      const sameSide =
        a === b || (isProfitAndLoss(a) && isProfitAndLoss(b) && profitSign(a) === profitSign(b));
      if (sameSide) agree++;
      else differ++;
    }
  }
  return differ > 0 && differ >= agree * 0.5 && agree + differ >= 3 ? () => null : kindByCode;
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
export function guessKind(
  a: {
    readonly code: string;
    readonly name: string;
    readonly type: string;
    readonly sections: readonly string[];
    readonly total: number;
  },
  scheme: CodeScheme = kindByCode,
): KindGuess {
  const bySection = sectionKind(a.sections);
  if (bySection) return { kind: refine(bySection, a.name), why: 'section', sure: true };
  const byType = a.type ? kindByWords(a.type) : null;
  if (byType) return { kind: refine(byType, a.name), why: 'type', sure: true };
  const byCode = scheme(a.code);
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

/**
 * The kind of the sections that an account stands in: the innermost that says one, on the statement that the outermost
 * belongs to. "Equipment" among expenses is an expense.
 */
function sectionKind(sections: readonly string[]): AccountKind | null {
  const kinds = sections.map(kindByWords);
  const outer = kinds.find((k) => k !== null);
  if (!outer) return null;
  const flow = isProfitAndLoss(outer);
  return kinds.findLast((k) => k !== null && isProfitAndLoss(k) === flow) ?? outer;
}

function refine(kind: AccountKind, name: string): AccountKind {
  const within = WITHIN[kind];
  const byName = within ? kindByWords(name) : null;
  return byName && within!.includes(byName) ? byName : kind;
}
