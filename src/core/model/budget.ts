import * as z from 'zod/mini';
import { formed, list, text, whole } from '@/core/bounded';
import { byPeriod, id, instant, money, periodId, periodKey } from './parts';
import { approvedCashSchema, guessedTermsSchema, termsSchema } from './cash';
import { LIMITS } from './limits';
import { appliedSchema } from './adjustment';
import { driverSchema, methodSchema } from './methods';
import { scheduleRowSchema } from './scheduleRow';

/** What someone wrote, with who and when. */
export const noteSchema = z.strictObject({ text: text(LIMITS.note), by: text(LIMITS.person), at: instant });

export const lineSchema = z.strictObject({
  account: id,
  /** A value of the budget's axis; null for the whole company, or what belongs to no value. */
  segment: z.nullable(id),
  method: methodSchema,
  /** Months typed over the method; `null` is a typed blank. */
  overrides: byPeriod,
  note: z.nullable(noteSchema),
  /** Notes on single months. */
  cellNotes: z.record(periodKey, noteSchema),
  /** Someone has gone over the line. */
  looked: z.nullable(z.strictObject({ by: text(LIMITS.person), at: instant })),
});

export const budgetSchema = z.strictObject({
  id,
  name: text(LIMITS.budgetName),
  state: z.enum(['draft', 'approved', 'superseded']),
  first: periodId,
  length: whole(1, LIMITS.budgetPeriods),
  covers: z.enum(['profitAndLoss', 'balanceSheet', 'both']),
  /** The axis whose values have lines of their own; null for a budget of the whole company. */
  axis: z.nullable(id),
  /** Those values; null among them is what is unassigned. `[null]` for the whole company. */
  segments: list(z.nullable(id), 1, LIMITS.budgetSegments),
  lines: list(lineSchema, 0, LIMITS.lines),
  drivers: list(driverSchema, 0, LIMITS.drivers),
  /** How its amounts become money, where someone said so; the rest is guessed. */
  terms: list(termsSchema, 0, LIMITS.lines),
  /** What was guessed of the rest when it came in force, by account; empty while it never was. */
  guessed: list(guessedTermsSchema, 0, LIMITS.lines),
  /** Rows that make several lines each: staff, loans, assets …. */
  schedules: list(scheduleRowSchema, 0, LIMITS.schedules),
  /** What was taken into it of adjustments that were tried over it, in the order of their list. */
  applied: list(appliedSchema, 0, LIMITS.adjustments),
  /** What closing balances of an account are brought about against, where that is not the bank. */
  contras: z.record(id, id),
  /** The budget that this one revises, and why; null for one that revises none. */
  revises: z.nullable(z.strictObject({ budget: id, reason: text(LIMITS.reason) })),
  /**
   * What was approved: when, by whom, and each line's figures in the order of the periods, then of the fiscal years
   * where an amount is said of a year as a whole. The fingerprint is the SHA-256 of them.
   */
  approved: z.nullable(
    z.strictObject({
      at: instant,
      by: text(LIMITS.person),
      fingerprint: formed(/^([0-9a-f]{64})?$/),
      lines: list(
        z.strictObject({
          account: id,
          segment: z.nullable(id),
          amounts: z.array(z.nullable(money)),
          wholes: z.array(z.nullable(money)),
        }),
        0,
        LIMITS.lines,
      ),
      /** Null where no money could be reckoned. */
      cash: z.nullable(approvedCashSchema),
    }),
  ),
});

export type Note = z.infer<typeof noteSchema>;
export type Line = z.infer<typeof lineSchema>;
export type Budget = z.infer<typeof budgetSchema>;
export type Approved = NonNullable<Budget['approved']>;
/** A value of the budget's axis, or null. */
export type SegmentId = string | null;
