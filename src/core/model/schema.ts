import { z } from 'zod';
import type { Minor, Percent } from '@/core/money';
import type { Day, PeriodId } from '@/core/calendar';
import { ACCOUNT_KINDS } from './kinds';

/** Text from outside is bounded: a name of a megabyte is a broken file. */
const text = (max = 500) => z.string().max(max);
const id = z.string().regex(/^[A-Za-z][A-Za-z0-9-]{0,79}$/);
const periodId = z.string().regex(/^\d{4}-\d{2}$/) as unknown as z.ZodType<PeriodId, string>;
const dayText = z.string().regex(/^\d{4}-\d{2}-\d{2}$/) as unknown as z.ZodType<Day, string>;
const percentText = z.string().regex(/^-?\d{1,9}(\.\d{1,6})?$/) as unknown as z.ZodType<Percent, string>;
/** `z.int()` admits safe integers only. */
const money = z.int() as unknown as z.ZodType<Minor, number>;
const byPeriod = z.record(periodId as unknown as z.ZodString, money.nullable());

export const accountSchema = z.strictObject({
  id,
  code: text(60),
  name: text(200),
  kind: z.enum(ACCOUNT_KINDS),
});

export const sourceSchema = z.strictObject({
  id,
  fileName: text(300),
  /** SHA-256 of the file's bytes, in hexadecimal. */
  fingerprint: z.string().regex(/^[0-9a-f]{64}$/),
  sheet: text(200).nullable(),
  takenAt: text(40),
  shape: z.enum(['months', 'entries']),
  /** How the file was read; enough to read it again alike. */
  mapping: z.json(),
  block: id,
  rows: z.strictObject({
    read: z.int(),
    used: z.int(),
    leftOut: z.array(z.strictObject({ reason: text(60), count: z.int() })),
  }),
  entries: z.int(),
  debit: money,
  credit: money,
  firstDay: dayText,
  lastDay: dayText,
});

/** Months are rounded to this many whole units of the currency; 0 leaves them exact. */
export const roundSchema = z.union([
  z.literal(0),
  z.literal(1),
  z.literal(10),
  z.literal(100),
  z.literal(1000),
]);

export const methodSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('byMonth'), amounts: byPeriod }),
  z.strictObject({ kind: z.literal('lastYear'), uplift: percentText, round: roundSchema }),
  z.strictObject({
    kind: z.literal('even'),
    basis: z.discriminatedUnion('of', [
      z.strictObject({ of: z.literal('amount'), annual: money }),
      z.strictObject({ of: z.literal('lastYear') }),
      z.strictObject({ of: z.literal('average') }),
      z.strictObject({ of: z.literal('lastMonth') }),
    ]),
    uplift: percentText,
    round: roundSchema,
  }),
  z.strictObject({
    kind: z.literal('pattern'),
    annual: money.nullable(),
    uplift: percentText,
    round: roundSchema,
  }),
  z.strictObject({ kind: z.literal('share'), of: id, percent: percentText }),
]);

export const lineSchema = z.strictObject({
  account: id,
  method: methodSchema,
  /** Months typed over the method; `null` is a typed blank. */
  overrides: byPeriod,
  note: text(4000),
});

export const budgetSchema = z.strictObject({
  id,
  name: text(120),
  state: z.enum(['draft', 'approved', 'superseded']),
  first: periodId,
  length: z.int().min(1).max(120),
  lines: z.record(id, lineSchema),
  /** What was approved: when, and each line's amounts in the order of the periods. */
  approved: z.strictObject({ at: text(40), amounts: z.record(id, z.array(money.nullable())) }).nullable(),
});

export const varianceNoteSchema = z.strictObject({
  text: text(4000),
  reach: z.enum(['timing', 'lasting']),
  at: text(40),
});

export const settingsSchema = z.strictObject({
  /** A variance is flagged when it exceeds both: an amount in minor units and a percentage of the budget. */
  flagAmount: money,
  flagPercent: percentText,
  negatives: z.enum(['parentheses', 'minus']),
  cents: z.boolean(),
});

export const bookSchema = z.strictObject({
  format: z.literal('tellan.book'),
  version: z.literal(1),
  id,
  name: text(120),
  currency: z.string().regex(/^[A-Z]{3}$/),
  locale: text(40),
  calendar: z.strictObject({ kind: z.literal('months'), firstMonth: z.int().min(1).max(12) }),
  accounts: z.array(accountSchema).max(20000),
  sources: z.array(sourceSchema).max(2000),
  closedThrough: periodId.nullable(),
  budgets: z.array(budgetSchema).max(200),
  /** Notes on variances by period, then account. */
  varianceNotes: z.record(periodId as unknown as z.ZodString, z.record(id, varianceNoteSchema)),
  settings: settingsSchema,
  /** The next number for a generated id of an account, source or budget. */
  nextId: z.int().min(1),
});

export type Account = z.infer<typeof accountSchema>;
export type AccountId = string;
export type Source = z.infer<typeof sourceSchema>;
export type Method = z.infer<typeof methodSchema>;
export type MethodKind = Method['kind'];
export type EvenBasis = Extract<Method, { kind: 'even' }>['basis'];
export type RoundUnit = z.infer<typeof roundSchema>;
export type Line = z.infer<typeof lineSchema>;
export type Budget = z.infer<typeof budgetSchema>;
export type VarianceNote = z.infer<typeof varianceNoteSchema>;
export type Settings = z.infer<typeof settingsSchema>;
/** The book: everything but the ledger's entries, which stand in blocks beside it. */
export type Book = z.infer<typeof bookSchema>;
