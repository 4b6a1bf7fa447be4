import * as z from 'zod/mini';
import { list, text } from '@/core/bounded';
import { LIMITS } from './limits';
import { id, money, periodId } from './parts';

/* Why an account of a month came to something else than its budget. Amounts are natural: actual less budget. */

/** How much of a variance a part explains; null for all that the other parts leave. */
const amount = z.nullable(money);

/** A part of a variance, and what follows from it for the months to come. */
export const explanationPartSchema = z.discriminatedUnion('kind', [
  /** It comes back: what is added to the plan of later months. None where nobody knows when. */
  z.strictObject({
    kind: z.literal('timing'),
    amount,
    back: list(z.strictObject({ period: periodId, amount: money }), 0, 36),
  }),
  /** It goes on: so much is added to the plan of each later month, up to one of them or without end. */
  z.strictObject({ kind: z.literal('lasting'), amount, monthly: money, until: z.nullable(periodId) }),
  /** It happened once, and nothing follows. */
  z.strictObject({ kind: z.literal('once'), amount }),
]);

export const varianceNoteSchema = z.strictObject({
  text: text(LIMITS.note),
  /** The budget that it was explained against: its outlook alone follows from it. Null of one that is not known. */
  against: z.nullable(id),
  parts: list(explanationPartSchema, 0, 12).check(
    z.refine((all) => all.filter((p) => p.amount === null).length <= 1, 'only one part may be the rest'),
  ),
  at: text(40),
});

export type ExplanationPart = z.infer<typeof explanationPartSchema>;
export type VarianceNote = z.infer<typeof varianceNoteSchema>;
