import * as z from 'zod/mini';
import { keyed, list, text, whole } from '@/core/bounded';
import { banksSchema, NO_BANKS } from './bank';
import { LIMITS } from './limits';
import { occurrenceSchema, refSchema } from './methods';
import { dayText, id, instant, money, percentText } from './parts';

/* How a budget becomes dated money: terms of lines, taxes, dated items, the credit line. */

/** The days of a period on which something falls. */
export const dayRuleSchema = z.discriminatedUnion('of', [
  /** A day of each month; beyond its end means its last day. */
  z.strictObject({ of: z.literal('monthDay'), day: whole(1, 31) }),
  /** In equal parts over the days of the working week. */
  z.strictObject({ of: z.literal('spread') }),
  /** Days that recur: paydays, market days. */
  z.strictObject({ of: z.literal('days'), on: occurrenceSchema }),
  /** The days that the line's own method counts; the last day of the month where it counts none. */
  z.strictObject({ of: z.literal('own') }),
]);

/** When something is due after a day: so many days later, or on a day of a month so many months later. */
export const dueRuleSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('days'), days: whole(0, 1000) }),
  z.strictObject({
    of: z.literal('months'),
    months: whole(0, 60),
    day: whole(1, 31),
    /** And so many days after (before: negative) that. */
    later: z.optional(whole(-1000, 1000)),
  }),
]);

/** Where a payment goes whose day is no working day. */
const moved = z.enum(['stays', 'next', 'previous']);

/** A part in percent of what is invoiced, paid when it is due; what the shares leave of 100 is never paid. */
const shares = list(z.strictObject({ percent: percentText, due: dueRuleSchema }), 1, 12).check(
  z.refine((all) => sumOf(all) <= 100, 'shares come to more than 100 %'),
);
const account = z.nullable(id);

/** One way in which a planned amount becomes invoices and payments. Accounts that are null are the book's usual ones. */
export const termsRuleSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('atOnce'), on: dayRuleSchema, moved }),
  z.strictObject({
    kind: z.literal('onAccount'),
    invoiced: dayRuleSchema,
    shares,
    moved,
    /** Where what is never paid is written off. */
    badDebt: account,
    /** The receivable or payable. */
    through: account,
  }),
  z.strictObject({
    kind: z.literal('daysOutstanding'),
    days: whole(0, 1000),
    /** The months whose amount the days are of: the month itself, or the last three. */
    over: z.union([z.literal(1), z.literal(3)]),
    through: account,
  }),
  z.strictObject({
    kind: z.literal('fromStock'),
    target: z.discriminatedUnion('of', [
      z.strictObject({ of: z.literal('days'), days: whole(0, 1000) }),
      z.strictObject({ of: z.literal('share'), percent: percentText }),
    ]),
    bought: dayRuleSchema,
    shares,
    moved,
    inventory: account,
    through: account,
  }),
  z.strictObject({
    kind: z.literal('inAdvance'),
    /** The day of one payment; others follow every so many months, and each is for the months up to the next. */
    first: dayText,
    every: whole(1, 120),
    moved,
    through: account,
  }),
  z.strictObject({ kind: z.literal('withoutMoney'), against: account }),
  z.strictObject({
    kind: z.literal('payroll'),
    on: dayRuleSchema,
    /** The part that is paid out on the payday; the rest is withheld. */
    net: percentText,
    rest: dueRuleSchema,
    moved,
    through: account,
  }),
]);

/** The terms of a line, of a group's lines or of a kind's. */
export const termsSchema = z.strictObject({
  of: refSchema,
  /** One segment's line alone; absent for the account in all segments. */
  segment: z.optional(z.nullable(id)),
  parts: list(z.strictObject({ percent: percentText, rule: termsRuleSchema }), 1, 6).check(
    z.refine((all) => sumOf(all) === 100, 'parts do not come to 100 %'),
  ),
  /** The bank account that it goes through; null for the one that pays by default. */
  bank: account,
  tax: z.nullable(z.strictObject({ scheme: id, rate: percentText })),
});

/** Terms that nobody said, as they were guessed when a plan came in force: they stay so until someone takes a newer guess. */
export const guessedTermsSchema = z.strictObject({
  terms: termsSchema,
  from: z.enum(['history', 'name', 'kind']),
  sure: z.boolean(),
});

/** A sales or value-added tax: what is owed of it, when it is returned and paid. */
export const taxSchemeSchema = z.strictObject({
  id,
  name: text(LIMITS.accountName),
  payable: account,
  /** What is collected alone, or less what was paid to others. */
  owed: z.enum(['collected', 'net']),
  /** A tax falls into the return of the day of its invoice, or of its payment. */
  on: z.enum(['invoice', 'payment']),
  every: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(6), z.literal(12)]),
  /** A calendar month in which a tax period ends. */
  ends: whole(1, 12),
  due: dueRuleSchema,
  /** Periods that end in a certain calendar month are due otherwise. */
  exceptions: list(z.strictObject({ ends: whole(1, 12), due: dueRuleSchema }), 0, 12),
});

/** How often something comes again: until a day, or so many times. */
export const repeatSchema = z.strictObject({
  every: whole(1, 120),
  unit: z.enum(['weeks', 'months']),
  until: z.nullable(dayText),
  times: z.nullable(whole(1, 1000)),
});

/** A receipt or payment entered by hand, once or repeating. */
export const datedItemSchema = z
  .strictObject({
    id,
    name: text(LIMITS.accountName),
    direction: z.enum(['in', 'out']),
    amount: money.check(z.gte(1)) as typeof money,
    first: dayText,
    repeat: z.nullable(repeatSchema),
    /** The account that the money comes from or goes to. */
    against: account,
    bank: account,
    group: z.enum(['owners', 'loans', 'taxes', 'disposals', 'other']),
  })
  .check(z.refine((d) => !d.repeat?.until || d.repeat.until >= d.first, 'ends before it begins'));

/** An invoice, bill, order or planned sale of something owned, that came from a file or the feed. */
export const openItemSchema = z.strictObject({
  id,
  side: z.enum(['in', 'out']),
  kind: z.enum(['invoice', 'order', 'disposal']),
  number: text(LIMITS.reference),
  counterparty: text(LIMITS.counterparty),
  dated: dayText,
  due: dayText,
  /** What it came to, and what of it is open: negative for a credit note. */
  amount: money,
  open: money,
  /** The receivable or payable of an invoice; an order's line; what a disposal sells; null for the usual one. */
  account,
  from: text(LIMITS.fileName),
});

/** A list of open items that is in force on a side, until another takes its place. */
export const openListSchema = z.strictObject({
  from: text(LIMITS.fileName),
  side: z.enum(['in', 'out']),
  /** The day that it is of: what was invoiced and paid later it does not know. Null where nobody said. */
  day: z.nullable(dayText),
  by: text(LIMITS.person),
  at: z.nullable(instant),
});

/** What someone decided of an open or dated item, by its key. */
export const itemChangeSchema = z.strictObject({
  /** Another day than the one it is expected on. */
  day: z.nullable(dayText),
  /**
   * One that waits came with a refresh, and nobody has looked at it yet. What was planned and has no entry of its own is
   * found where someone knows that it happened.
   */
  state: z.enum(['counted', 'waiting', 'held', 'leftOut', 'found']),
  reason: text(LIMITS.reason),
  by: text(LIMITS.person),
  at: instant,
});

/** A revolving loan that is drawn to keep the floor and repaid from what is above it. */
export const creditLineSchema = z.strictObject({
  account,
  interest: account,
  limit: money.check(z.gte(0)) as typeof money,
  /** Yearly rate in percent. */
  rate: percentText,
  /** It is drawn and repaid in whole steps. */
  step: money.check(z.gte(1)) as typeof money,
  /** The day until which it is granted; else it can be called at any time. */
  until: z.optional(z.nullable(dayText)),
});

/** Where the money of a forecast may come from. */
export const CASH_SOURCES = [
  'openInvoices',
  'newSales',
  'otherReceipts',
  'openBills',
  'newPurchases',
  'payroll',
  'taxes',
  'loans',
  'owners',
  'salesOrders',
  'purchaseOrders',
  'disposals',
  'other',
  'creditLine',
  /** What the bank has not cleared of the ledger's entries; what moved there and is not posted yet. */
  'underWay',
  'moved',
] as const;
export type CashSource = (typeof CASH_SOURCES)[number];

export const forecastSchema = z.strictObject({
  id,
  name: text(LIMITS.budgetName),
  without: list(z.enum(CASH_SOURCES), 0, CASH_SOURCES.length),
});

/** Orders stand in place of the plan of their account and month; those of these sources always on top of it. */
export const ORDER_SOURCES = ['salesOrders', 'purchaseOrders'] as const;

/** A forecast as it was on a day, kept to stand beside what the bank did. */
export const keptForecastSchema = z.strictObject({
  id,
  name: text(LIMITS.budgetName),
  at: instant,
  by: text(LIMITS.person),
  /** The last day that was closed then: the first of its days is the one after. */
  start: dayText,
  days: whole(1, LIMITS.keptDays),
  /** What the banks held, and money into them by source: places of days (0 is the first) and their amounts, in time. */
  opening: money,
  sources: list(
    z
      .strictObject({
        source: z.enum(CASH_SOURCES),
        days: z.array(whole(0, LIMITS.keptDays)),
        amounts: z.array(money),
      })
      .check(z.refine((s) => s.days.length === s.amounts.length, 'as many days as amounts')),
    0,
    CASH_SOURCES.length,
  ),
});

/** Cash and balances of an approved budget's months, as they were reckoned when it was approved. */
export const approvedCashSchema = z.strictObject({
  /** Natural closing balances of the balance sheet's accounts, by month. */
  closing: z.record(id, z.array(money)),
  /** Money into the banks by source and month. */
  sources: z.record(keyed('[^\\n]{1,200}'), z.array(money)),
});

/** What the company's money follows beyond its budgets. */
export const cashSchema = z.strictObject({
  /** What accounts stood at at the end of a day, natural, for a book whose ledger has no balance sheet. */
  opening: z.nullable(z.strictObject({ day: dayText, amounts: z.record(id, money) })),
  /** The bank account that pays by default. */
  bank: account,
  /** The least the bank should hold. */
  floor: z.nullable(money),
  creditLine: z.nullable(creditLineSchema),
  taxes: list(taxSchemeSchema, 0, 20),
  items: list(openItemSchema, 0, LIMITS.openItems),
  lists: list(openListSchema, 0, LIMITS.openLists),
  dated: list(datedItemSchema, 0, LIMITS.datedItems),
  changes: z.record(keyed('[^\\n]{1,200}'), itemChangeSchema),
  /** Days over which receivables and payables without items run off. */
  runOff: whole(1, 1000),
  /** The day by which what stood on an account without items has run off, kept when a month was closed. */
  runOffEnds: z.record(id, dayText),
  /** How fast counterparties pay is measured up to this day, kept when a month was closed; null while none was. */
  measuredThrough: z.nullable(dayText),
  forecasts: list(forecastSchema, 0, 50),
  /** The one that is the company's own: what is shown first, checked and kept with an approval; null for all sources. */
  own: z.nullable(id),
  /** Whether what a refresh brings counts at once, waits for someone's look and counts, or waits and does not. */
  newItems: z.enum(['counted', 'waitCounted', 'wait']),
  /** The ledger's items up to this day were looked at. */
  lookedThrough: z.nullable(dayText),
  ordersOnTop: list(z.enum(ORDER_SOURCES), 0, ORDER_SOURCES.length),
  kept: list(keptForecastSchema, 0, LIMITS.keptForecasts),
  banks: banksSchema,
});

/** Percentages added up, to a millionth. */
function sumOf(all: readonly { readonly percent: string }[]): number {
  return Math.round(all.reduce((t, s) => t + Number(s.percent), 0) * 1e6) / 1e6;
}

export type DayRule = z.infer<typeof dayRuleSchema>;
export type DueRule = z.infer<typeof dueRuleSchema>;
export type TermsRule = z.infer<typeof termsRuleSchema>;
export type TermsKind = TermsRule['kind'];
export type TermsOf<K extends TermsKind> = Extract<TermsRule, { kind: K }>;
export type Terms = z.infer<typeof termsSchema>;
export type GuessedTerms = z.infer<typeof guessedTermsSchema>;
export type TaxScheme = z.infer<typeof taxSchemeSchema>;
export type DatedItem = z.infer<typeof datedItemSchema>;
export type OpenItem = z.infer<typeof openItemSchema>;
export type OpenList = z.infer<typeof openListSchema>;
export type ItemChange = z.infer<typeof itemChangeSchema>;
export type CreditLine = z.infer<typeof creditLineSchema>;
export type KeptForecast = z.infer<typeof keptForecastSchema>;
export type ApprovedCash = z.infer<typeof approvedCashSchema>;
export type Forecast = z.infer<typeof forecastSchema>;
export type Cash = z.infer<typeof cashSchema>;
export type MovedTo = TermsOf<'atOnce'>['moved'];

/** A book of which nothing is said about its money yet. */
export const NO_CASH: Cash = {
  opening: null,
  bank: null,
  floor: null,
  creditLine: null,
  taxes: [],
  items: [],
  lists: [],
  dated: [],
  changes: {},
  runOff: 30,
  runOffEnds: {},
  measuredThrough: null,
  forecasts: [],
  own: null,
  newItems: 'counted',
  lookedThrough: null,
  ordersOnTop: [],
  kept: [],
  banks: NO_BANKS,
};
