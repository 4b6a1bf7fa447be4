import * as z from 'zod/mini';
import { list, text, whole } from '@/core/bounded';
import { dayText, id, money, percentText, periodId, periodKey, byPeriod, quantity } from './parts';
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
const yearsBack = whole(0, 20);
const yearsBefore = whole(1, 20);

/** The earlier figures that a line takes over. */
export const basisSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('actuals'), years: yearsBefore }),
  /** Actuals of the closed months, a budget's months for the rest. */
  z.strictObject({ of: z.literal('outlook'), budget: id, years: yearsBack }),
  z.strictObject({ of: z.literal('budget'), budget: id, years: yearsBack }),
]);

/** Amounts of the budget's fiscal years, or of its quarters, in their order; each is what is said of the months that the budget has of it. */
export const wholesSchema = z.strictObject({
  per: z.enum(['year', 'quarter']),
  amounts: list(z.nullable(money), 1, 120),
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
  z.strictObject({ by: z.literal('months'), numbers: list(whole(1, 99), 1, 99) }),
  /** A month, and every so many months after it. */
  z.strictObject({ by: z.literal('every'), first: periodId, months: whole(1, 120) }),
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
export const weekdays = list(whole(1, 7), 0, 7);

/** Days on which something recurs. */
export const occurrenceSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('weeks'), every: whole(1, 52), from: dayText }),
  /** Days of the month; beyond its end means its last day. */
  z.strictObject({ of: z.literal('monthDays'), days: list(whole(1, 31), 1, 4) }),
  z.strictObject({ of: z.literal('weekdays'), weekdays: weekdays.check(z.minLength(1)) }),
  z.strictObject({ of: z.literal('workingDays') }),
]);

export const methodSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('byMonth'), amounts: byPeriod }),
  z.strictObject({
    kind: z.literal('lastYear'),
    from: basisSchema,
    /** Added to every month that the basis has an amount for, before the percentage. */
    add: money,
    /** Lumps that will not come back: what is taken out of a month's basis; `null` leaves the month out. */
    skip: byPeriod,
    rest: z.optional(restSchema),
    ...lifted,
  }),
  z.strictObject({
    kind: z.literal('runRate'),
    over: z.discriminatedUnion('of', [
      z.strictObject({ of: z.literal('all') }),
      z.strictObject({ of: z.literal('last'), months: whole(1, 120) }),
      z.strictObject({ of: z.literal('range'), first: periodId, last: periodId }),
    ]),
    add: money,
    ...lifted,
  }),
  z.strictObject({
    kind: z.literal('phased'),
    /** `null`: the year before's total. */
    amounts: z.nullable(wholesSchema),
    rest: z.optional(restSchema),
    by: phasingSchema,
    ...lifted,
  }),
  z.strictObject({
    kind: z.literal('pattern'),
    amounts: z.nullable(wholesSchema),
    rest: z.optional(restSchema),
    /** `null`: the account itself. */
    like: z.nullable(refSchema),
    /** The years whose months are averaged. */
    years: list(yearsBefore, 1, 10),
    ...lifted,
  }),
  z.strictObject({
    kind: z.literal('step'),
    /** `null`: as the ledger's last closed month, or its closing balance. */
    start: z.nullable(money),
    /** The first month that differs from the start. */
    first: periodId,
    every: whole(1, 120),
    change: stepChange,
    round: roundSchema,
  }),
  z.strictObject({
    kind: z.literal('share'),
    of: refSchema,
    /** `null`: as it was in the year before the budget. */
    percent: z.nullable(percentText),
    /** Months after the amount that it is a share of. */
    lag: whole(0, 36),
    round: roundSchema,
  }),
  z.strictObject({
    kind: z.literal('occurrence'),
    amount: money,
    /** Other amounts from a day on, such as a raise. */
    later: z.optional(list(z.strictObject({ from: dayText, amount: money }), 0, 24)),
    on: occurrenceSchema,
  }),
  z.strictObject({ kind: z.literal('driver'), factors: list(id, 1, 6), round: roundSchema }),
  /** The text with ids for names; see `core/formula`. */
  z.strictObject({ kind: z.literal('formula'), formula: text(LIMITS.formula), round: roundSchema }),
  /** Amounts of the years as a whole, with nothing said of their months. */
  z.strictObject({ kind: z.literal('unphased'), amounts: wholesSchema }),
  /** What the budget's schedules come to on the account and segment, and by month what stands beside them. */
  z.strictObject({ kind: z.literal('schedule'), beside: byPeriod }),
]);

/** A monthly quantity that lines depend on. Its values are whole numbers of 10^−decimals of its unit. */
export const driverSchema = z.strictObject({
  id,
  name: text(LIMITS.driverName),
  unit: text(LIMITS.unit),
  decimals: whole(0, 6),
  /** Before the budget's first month, for “prior”. */
  opening: z.nullable(quantity),
  series: z.discriminatedUnion('kind', [
    z.strictObject({
      kind: z.literal('typed'),
      values: z.record(periodKey, z.nullable(quantity)),
    }),
    z.strictObject({
      kind: z.literal('step'),
      start: quantity,
      first: periodId,
      every: whole(1, 120),
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
  weights: list(whole(0, 1_000_000), 1, 99),
});

export const workWeekSchema = z.strictObject({ weekdays, holidays: list(dayText, 0, LIMITS.holidays) });

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
