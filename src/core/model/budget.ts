import { z } from 'zod';
import { byPeriod, id, instant, money, periodId, text } from './parts';
import { LIMITS } from './limits';
import { driverSchema, methodSchema } from './methods';

/** What someone wrote, with who and when. */
export const noteSchema = z.strictObject({ text: text(LIMITS.note), by: text(LIMITS.person), at: instant });

export const lineSchema = z.strictObject({
  account: id,
  /** A value of the budget's axis; null for the whole company, or what belongs to no value. */
  segment: id.nullable(),
  method: methodSchema,
  /** Months typed over the method; `null` is a typed blank. */
  overrides: byPeriod,
  note: noteSchema.nullable(),
  /** Notes on single months. */
  cellNotes: z.record(periodId as unknown as z.ZodString, noteSchema),
  /** Someone has gone over the line. */
  looked: z.strictObject({ by: text(LIMITS.person), at: instant }).nullable(),
});

export const budgetSchema = z.strictObject({
  id,
  name: text(LIMITS.budgetName),
  state: z.enum(['draft', 'approved', 'superseded']),
  first: periodId,
  length: z.int().min(1).max(LIMITS.budgetPeriods),
  covers: z.enum(['profitAndLoss', 'balanceSheet', 'both']),
  /** The axis whose values have lines of their own; null for a budget of the whole company. */
  axis: id.nullable(),
  /** Those values; null among them is what is unassigned. `[null]` for the whole company. */
  segments: z.array(id.nullable()).min(1).max(LIMITS.budgetSegments),
  lines: z.array(lineSchema).max(LIMITS.lines),
  drivers: z.array(driverSchema).max(LIMITS.drivers),
  /** The budget that this one revises, and why; null for one that revises none. */
  revises: z.strictObject({ budget: id, reason: text(LIMITS.reason) }).nullable(),
  /**
   * What was approved: when, by whom, and each line's figures in the order of the periods, then of the fiscal years
   * where an amount is said of a year as a whole. The fingerprint is the SHA-256 of them.
   */
  approved: z
    .strictObject({
      at: instant,
      by: text(LIMITS.person),
      fingerprint: z.string().regex(/^([0-9a-f]{64})?$/),
      lines: z
        .array(
          z.strictObject({
            account: id,
            segment: id.nullable(),
            amounts: z.array(money.nullable()),
            wholes: z.array(money.nullable()),
          }),
        )
        .max(LIMITS.lines),
    })
    .nullable(),
});

export type Note = z.infer<typeof noteSchema>;
export type Line = z.infer<typeof lineSchema>;
export type Budget = z.infer<typeof budgetSchema>;
export type Approved = NonNullable<Budget['approved']>;
/** A value of the budget's axis, or null. */
export type SegmentId = string | null;
