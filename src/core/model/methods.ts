import { z } from 'zod';
import { dayText, id, money, percentText, periodId, byPeriod, quantity, text } from './parts';
import { ACCOUNT_KINDS } from './kinds';
import { LIMITS } from './limits';

/** Months are rounded to this many whole units of the currency; 0 leaves them exact. */
export const roundSchema = z.union([
  z.literal(0),
  z.literal(1),
  z.literal(10),
  z.literal(100),
  z.literal(1000),
]);

/** What a line may be a share of, or be shaped like: an account, a named group within a kind, or all of a kind. */
export const refSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('account'), account: id }),
  z.strictObject({ of: z.literal('group'), kind: z.enum(ACCOUNT_KINDS), group: text(LIMITS.group) }),
  z.strictObject({ of: z.literal('kind'), kind: z.enum(ACCOUNT_KINDS) }),
]);

/** Years back: 1 is the year before. */
const yearsBack = z.int().min(0).max(20);

/** The earlier figures that a line takes over. */
export const basisSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('actuals'), years: yearsBack.min(1) }),
  /** Actuals of the closed months, a budget's months for the rest. */
  z.strictObject({ of: z.literal('outlook'), budget: id, years: yearsBack }),
  z.strictObject({ of: z.literal('budget'), budget: id, years: yearsBack }),
]);

/** Amounts of the budget's fiscal years, or of its quarters, in their order; each is what is said of the months that the budget has of it. */
export const wholesSchema = z.strictObject({
  per: z.enum(['year', 'quarter']),
  amounts: z.array(money.nullable()).min(1).max(120),
});

/** How an amount is divided over the months of its year or quarter. */
export const phasingSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('even') }),
  z.strictObject({ by: z.literal('days') }),
  /** Days of the book's working week that are no holidays. */
  z.strictObject({ by: z.literal('workingDays') }),
  /** The weeks of a quarter's three months. */
  z.strictObject({ by: z.literal('weeks'), pattern: z.enum(['4-4-5', '4-5-4', '5-4-4']) }),
  /** Only these months, by their number in the fiscal year. */
  z.strictObject({ by: z.literal('months'), numbers: z.array(z.int().min(1).max(99)).min(1).max(99) }),
  /** A month, and every so many months after it. */
  z.strictObject({ by: z.literal('every'), first: periodId, months: z.int().min(1).max(120) }),
  /** Weights made by hand, kept in the book under a name. */
  z.strictObject({ by: z.literal('weights'), weights: id }),
]);

/** What stands in for months of the year before that have no actuals yet; without it they are as the ledger has them. */
const restSchema = z.enum(['yearEarlier', 'average']);

const lifted = { uplift: percentText, round: roundSchema };
const stepChange = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('amount'), amount: money }),
  z.strictObject({ of: z.literal('percent'), percent: percentText, compounding: z.boolean() }),
]);
/** ISO 8601 weekdays: 1 Monday to 7 Sunday. */
export const weekdays = z.array(z.int().min(1).max(7)).max(7);

export const methodSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('byMonth'), amounts: byPeriod }),
  z.strictObject({
    kind: z.literal('lastYear'),
    from: basisSchema,
    /** Added to every month that the basis has an amount for, before the percentage. */
    add: money,
    /** Lumps that will not come back: what is taken out of a month's basis; `null` leaves the month out. */
    skip: byPeriod,
    rest: restSchema.optional(),
    ...lifted,
  }),
  z.strictObject({
    kind: z.literal('runRate'),
    over: z.discriminatedUnion('of', [
      z.strictObject({ of: z.literal('all') }),
      z.strictObject({ of: z.literal('last'), months: z.int().min(1).max(120) }),
      z.strictObject({ of: z.literal('range'), first: periodId, last: periodId }),
    ]),
    add: money,
    ...lifted,
  }),
  z.strictObject({
    kind: z.literal('phased'),
    /** `null`: the year before's total. */
    amounts: wholesSchema.nullable(),
    rest: restSchema.optional(),
    by: phasingSchema,
    ...lifted,
  }),
  z.strictObject({
    kind: z.literal('pattern'),
    amounts: wholesSchema.nullable(),
    rest: restSchema.optional(),
    /** `null`: the account itself. */
    like: refSchema.nullable(),
    /** The years whose months are averaged. */
    years: z.array(yearsBack.min(1)).min(1).max(10),
    ...lifted,
  }),
  z.strictObject({
    kind: z.literal('step'),
    /** `null`: as the ledger's last closed month, or its closing balance. */
    start: money.nullable(),
    /** The first month that differs from the start. */
    first: periodId,
    every: z.int().min(1).max(120),
    change: stepChange,
    round: roundSchema,
  }),
  z.strictObject({
    kind: z.literal('share'),
    of: refSchema,
    /** `null`: as it was in the year before the budget. */
    percent: percentText.nullable(),
    /** Months after the amount that it is a share of. */
    lag: z.int().min(0).max(36),
    round: roundSchema,
  }),
  z.strictObject({
    kind: z.literal('occurrence'),
    amount: money,
    /** Other amounts from a day on, such as a raise. */
    later: z
      .array(z.strictObject({ from: dayText, amount: money }))
      .max(24)
      .optional(),
    on: z.discriminatedUnion('of', [
      z.strictObject({ of: z.literal('weeks'), every: z.int().min(1).max(52), from: dayText }),
      /** Days of the month; beyond its end means its last day. */
      z.strictObject({ of: z.literal('monthDays'), days: z.array(z.int().min(1).max(31)).min(1).max(4) }),
      z.strictObject({ of: z.literal('weekdays'), weekdays: weekdays.min(1) }),
      z.strictObject({ of: z.literal('workingDays') }),
    ]),
  }),
  z.strictObject({ kind: z.literal('driver'), factors: z.array(id).min(1).max(6), round: roundSchema }),
  /** The text with ids for names; see `core/formula`. */
  z.strictObject({ kind: z.literal('formula'), formula: text(LIMITS.formula), round: roundSchema }),
  /** Amounts of the years as a whole, with nothing said of their months. */
  z.strictObject({ kind: z.literal('unphased'), amounts: wholesSchema }),
]);

/** A monthly quantity that lines depend on. Its values are whole numbers of 10^−decimals of its unit. */
export const driverSchema = z.strictObject({
  id,
  name: text(LIMITS.driverName),
  unit: text(LIMITS.unit),
  decimals: z.int().min(0).max(6),
  /** Before the budget's first month, for “prior”. */
  opening: quantity.nullable(),
  series: z.discriminatedUnion('kind', [
    z.strictObject({
      kind: z.literal('typed'),
      values: z.record(periodId as unknown as z.ZodString, quantity.nullable()),
    }),
    z.strictObject({
      kind: z.literal('step'),
      start: quantity,
      first: periodId,
      every: z.int().min(1).max(120),
      change: z.discriminatedUnion('of', [
        z.strictObject({ of: z.literal('amount'), amount: quantity }),
        z.strictObject({ of: z.literal('percent'), percent: percentText, compounding: z.boolean() }),
      ]),
    }),
    /** An average month shaped by named weights. */
    z.strictObject({ kind: z.literal('seasonal'), level: quantity, weights: id }),
    z.strictObject({ kind: z.literal('formula'), formula: text(LIMITS.formula) }),
  ]),
  note: text(LIMITS.note),
});

/** Weights by the number of the month in the fiscal year, kept under a name. */
export const weightsSchema = z.strictObject({
  id,
  name: text(LIMITS.weightsName),
  weights: z.array(z.int().min(0).max(1_000_000)).min(1).max(99),
});

export const workWeekSchema = z.strictObject({ weekdays, holidays: z.array(dayText).max(LIMITS.holidays) });

export type Rest = z.infer<typeof restSchema>;
export type RoundUnit = z.infer<typeof roundSchema>;
export type Ref = z.infer<typeof refSchema>;
export type Basis = z.infer<typeof basisSchema>;
export type Wholes = z.infer<typeof wholesSchema>;
export type Phasing = z.infer<typeof phasingSchema>;
export type Method = z.infer<typeof methodSchema>;
export type MethodKind = Method['kind'];
export type MethodOf<K extends MethodKind> = Extract<Method, { kind: K }>;
export type Occurrence = MethodOf<'occurrence'>['on'];
export type Driver = z.infer<typeof driverSchema>;
export type Series = Driver['series'];
export type Weights = z.infer<typeof weightsSchema>;
export type WorkWeek = z.infer<typeof workWeekSchema>;
