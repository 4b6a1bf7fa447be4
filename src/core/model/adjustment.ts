import * as z from 'zod/mini';
import { list, text, whole } from '@/core/bounded';
import { MOST_AMOUNT } from '@/core/money';
import { termsRuleSchema } from './cash';
import type { ACCOUNT_KINDS } from './kinds';
import { LIMITS } from './limits';
import { refSchema } from './methods';
import { id, instant, periodId } from './parts';
import { renamedInFormula } from './references';
import { renamedRow, scheduleRowSchema } from './scheduleRow';
import { renamedRule } from './termsAccounts';

/*
 * What is tried over a plan. An adjustment says what changes, when and why; a case says by how much. The book's adjustments and
 * its cases are one matrix: each cell has the size of an adjustment in a case, or nothing, and then it is off there.
 */

/** Lines of profit and loss: some of them, or all of a kind, all costs, all income; in every segment or in one. */
export const reachSchema = z.strictObject({
  lines: list(
    z.discriminatedUnion('of', [
      ...refSchema.def.options,
      z.strictObject({ of: z.literal('costs') }),
      z.strictObject({ of: z.literal('income') }),
    ]),
    0,
    LIMITS.lines,
  ),
  /** Absent: in whatever segment. */
  segment: z.optional(z.nullable(id)),
});

/** How a size changes an amount. */
export const amountWaySchema = z.discriminatedUnion('as', [
  /** So much more or less of it. */
  z.strictObject({ as: z.literal('percent') }),
  /** An amount more or less, each time. */
  z.strictObject({ as: z.literal('amount') }),
  /** Another amount in its place: nothing that it follows moves it any more. */
  z.strictObject({ as: z.literal('new') }),
  /** It grows by so much each time; once it is over it is as it was, or stays as high. */
  z.strictObject({ as: z.literal('growth'), compounding: z.boolean(), stays: z.boolean() }),
  /** The month before, and so much more. */
  z.strictObject({ as: z.literal('onBefore') }),
  /** A formula in which `base` is the amount as it was. */
  z.strictObject({ as: z.literal('formula'), formula: text(LIMITS.formula) }),
]);

/** A field of a schedule's row that may be another. */
export const ROW_FIELDS = [
  'pay',
  'count',
  'from',
  'until',
  'rate',
  'amount',
  'payments',
  'bought',
  'cost',
  'price',
] as const;

export const adjustsSchema = z.discriminatedUnion('on', [
  z.strictObject({ on: z.literal('amounts'), reach: reachSchema, way: amountWaySchema }),
  z.strictObject({ on: z.literal('driver'), driver: id, way: amountWaySchema }),
  /** Months earlier or later. */
  z.strictObject({ on: z.literal('linesMoved'), reach: reachSchema }),
  z.strictObject({ on: z.literal('rowMoved'), row: id }),
  z.strictObject({ on: z.literal('datedMoved'), item: id }),
  /** A hire, a loan, a purchase; its size may be its first day. */
  z.strictObject({ on: z.literal('rowAdded'), row: scheduleRowSchema, by: z.enum(['yes', 'day']) }),
  z.strictObject({ on: z.literal('rowGone'), row: id }),
  /** Another value of a field, or so much more of it. */
  z.strictObject({
    on: z.literal('rowField'),
    row: id,
    field: z.enum(ROW_FIELDS),
    by: z.enum(['value', 'percent']),
  }),
  /** A raise for all staff that works then, or for those whose pay goes to some accounts. */
  z.strictObject({ on: z.literal('pay'), accounts: list(id, 0, 50) }),
  /** Points more of what the employer pays on top of all pay. */
  z.strictObject({ on: z.literal('oncosts') }),
  /** How lines are paid: days later or earlier, points that are never paid, or other terms. */
  z.strictObject({ on: z.literal('termsDays'), reach: reachSchema }),
  z.strictObject({ on: z.literal('termsLost'), reach: reachSchema }),
  z.strictObject({ on: z.literal('termsNew'), reach: reachSchema, rule: termsRuleSchema }),
  /** What is open: one item, a counterparty's, or all of a side. */
  z.strictObject({
    on: z.literal('items'),
    side: z.enum(['in', 'out']),
    counterparty: z.nullable(text(LIMITS.counterparty)),
    item: z.nullable(text(200)),
    as: z.enum(['later', 'paid', 'never']),
  }),
  /** Rates and limits: another value, or points (an amount) more. */
  z.strictObject({
    on: z.literal('rate'),
    of: z.enum(['incomeTax', 'interest', 'lineRate', 'limit', 'floor']),
    by: z.enum(['value', 'more']),
  }),
]);

/** The months that an adjustment is for: one, several, or every so many from one on. */
export const whenSchema = z.strictObject({
  from: periodId,
  until: z.nullable(periodId),
  every: whole(1, 120),
  times: z.nullable(whole(1, 1000)),
  /** It reaches its size in so many times, in equal steps; null at once. */
  ramp: z.nullable(whole(2, 120)),
});

export const adjustmentSchema = z.strictObject({
  id,
  name: text(LIMITS.accountName),
  why: text(LIMITS.reason),
  by: text(LIMITS.person),
  at: instant,
  what: adjustsSchema,
  when: whenSchema,
  /** Switched off in every case; its sizes stay. */
  off: z.boolean(),
});

/**
 * A whole number in the smallest step of what it is counted in: thousandths of a percent, minor units, days, months,
 * hundredths of a position, the number of a day, 1 for yes.
 */
export const sizeSchema = whole(-MOST_AMOUNT, MOST_AMOUNT);

export const caseSizeSchema = z.strictObject({
  size: sizeSchema,
  /** How low and how high it may come to be, where someone said so. */
  low: z.nullable(sizeSchema),
  high: z.nullable(sizeSchema),
});

export const caseSchema = z.strictObject({
  id,
  name: text(LIMITS.budgetName),
  by: text(LIMITS.person),
  at: instant,
  /** By adjustment. */
  sizes: z.record(id, caseSizeSchema),
});

/**
 * An adjustment that was taken into a budget, with its size: in that plan it counts no second time. What it changes of lines and
 * of terms follows from it there, until it is taken out; what it changed of rows and quantities is written into them.
 */
export const appliedSchema = z.strictObject({
  adjustment: adjustmentSchema,
  size: sizeSchema,
  /** The last period that was closed then, which it does not reach; null where none was. */
  after: z.nullable(periodId),
});

export type AppliedAdjustment = z.infer<typeof appliedSchema>;
export type Reach = z.infer<typeof reachSchema>;
export type ReachName = Reach['lines'][number];
export type AmountWay = z.infer<typeof amountWaySchema>;
export type Adjusts = z.infer<typeof adjustsSchema>;
export type AdjustsOn = Adjusts['on'];
export type AdjustsOf<K extends AdjustsOn> = Extract<Adjusts, { on: K }>;
export type RowField = (typeof ROW_FIELDS)[number];
export type When = z.infer<typeof whenSchema>;
export type Adjustment = z.infer<typeof adjustmentSchema>;
export type CaseSize = z.infer<typeof caseSizeSchema>;
export type Case = z.infer<typeof caseSchema>;

/** The kinds whose accounts are costs; the others of profit and loss are income. */
export const COST_KINDS: ReadonlySet<(typeof ACCOUNT_KINDS)[number]> = new Set([
  'costOfSales',
  'expense',
  'otherExpense',
]);

type Rename = (account: string) => string;
type Home<K extends AdjustsOn> = (what: AdjustsOf<K>, rename: Rename) => AdjustsOf<K>;

const renamedReach = (reach: Reach, rename: Rename): Reach => ({
  ...reach,
  lines: reach.lines.map((l) => (l.of === 'account' ? { ...l, account: rename(l.account) } : l)),
});
const renamedWay = (way: AmountWay, rename: Rename): AmountWay =>
  way.as === 'formula' ? { ...way, formula: renamedInFormula(way.formula, rename) } : way;
const alone = <T>(what: T): T => what;

/** Every kind of adjustment names its accounts here, or the program does not compile. */
const RENAMED: { readonly [K in AdjustsOn]: Home<K> } = {
  amounts: (w, rename) => ({
    ...w,
    reach: renamedReach(w.reach, rename),
    way: renamedWay(w.way, rename),
  }),
  driver: (w, rename) => ({ ...w, way: renamedWay(w.way, rename) }),
  linesMoved: (w, rename) => ({ ...w, reach: renamedReach(w.reach, rename) }),
  rowMoved: alone,
  datedMoved: alone,
  rowAdded: (w, rename) => ({ ...w, row: renamedRow(w.row, rename) }),
  rowGone: alone,
  rowField: alone,
  pay: (w, rename) => ({ ...w, accounts: w.accounts.map(rename) }),
  oncosts: alone,
  termsDays: (w, rename) => ({ ...w, reach: renamedReach(w.reach, rename) }),
  termsLost: (w, rename) => ({ ...w, reach: renamedReach(w.reach, rename) }),
  termsNew: (w, rename) => ({
    ...w,
    reach: renamedReach(w.reach, rename),
    rule: renamedRule(w.rule, rename),
  }),
  items: alone,
  rate: alone,
};

/** An adjustment with other accounts named. */
export const renamedAdjusts = (what: Adjusts, rename: Rename): Adjusts =>
  (RENAMED[what.on] as (what: Adjusts, rename: Rename) => Adjusts)(what, rename);

/** What follows from an applied adjustment as long as its budget has it; of the others what they changed is written down. */
export const RUNS: ReadonlySet<AdjustsOn> = new Set<AdjustsOn>([
  'amounts',
  'driver',
  'linesMoved',
  'termsDays',
  'termsLost',
  'termsNew',
  'items',
]);

/** Every account that an adjustment names. */
export function accountsOfAdjusts(what: Adjusts): ReadonlySet<string> {
  const named = new Set<string>();
  renamedAdjusts(what, (account) => {
    named.add(account);
    return account;
  });
  return named;
}
