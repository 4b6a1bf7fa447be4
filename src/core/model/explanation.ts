import * as z from 'zod/mini';
import { formed, list, text, whole } from '@/core/bounded';
import { MOST_AMOUNT, type Minor, type Percent } from '@/core/money';
import { LIMITS } from './limits';
import { sameName } from './names';
import { dayText, id, instant, money, periodId, periodKey, quantity } from './parts';

/* Why an account of a month came to something else than its budget. Amounts are natural: actual less budget. */

/** How much of a variance a part explains; null for all that the other parts leave. */
const amount = z.nullable(money);

/** A part of a variance, and what follows from it for the months to come. */
export const explanationPartSchema = z.discriminatedUnion('kind', [
  /**
   * It comes back: what is added to the plan of later months. None where nobody knows when. What did not come waits until
   * someone settles it: it is given up, or came by another way.
   */
  z.strictObject({
    kind: z.literal('timing'),
    amount,
    back: list(
      z.strictObject({
        period: periodId,
        amount: money,
        settled: z.optional(z.enum(['givenUp', 'elsewhere'])),
      }),
      0,
      36,
    ),
  }),
  /** It goes on: so much is added to the plan of each later month, up to one of them or without end. */
  z.strictObject({ kind: z.literal('lasting'), amount, monthly: money, until: z.nullable(periodId) }),
  /** It happened once, and nothing follows. */
  z.strictObject({ kind: z.literal('once'), amount }),
  /**
   * Entries stand in an account that they do not belong to: shown as reclassified until the ledger has it. An entry is known
   * by its day, reference, counterparty and amount (debits positive), whatever file brings it.
   */
  z.strictObject({
    kind: z.literal('wrongEntry'),
    amount,
    entries: list(
      z.strictObject({
        day: dayText,
        reference: text(LIMITS.reference),
        counterparty: text(LIMITS.counterparty),
        amount: money,
      }),
      1,
      50,
    ),
    to: id,
  }),
]);

export const varianceNoteSchema = z.strictObject({
  text: text(LIMITS.note),
  /** The budget that it was explained against: its outlook alone follows from it. Null of one that is not known. */
  against: z.nullable(id),
  parts: list(explanationPartSchema, 0, 12).check(
    z.refine((all) => all.filter((p) => p.amount === null).length <= 1, 'only one part may be the rest'),
  ),
  /** What the account and its budget came to as it was explained. */
  facts: z.optional(
    z.strictObject({ actual: z.nullable(money), budget: z.nullable(money), entries: whole(0, 1e9) }),
  ),
  at: instant,
});

/** When a variance is flagged: it exceeds both. */
export const flagSchema = z.strictObject({
  amount: whole(0, MOST_AMOUNT) as unknown as z.ZodMiniType<Minor, number>,
  percent: formed(/^\d{1,9}(\.\d{1,6})?$/) as unknown as z.ZodMiniType<Percent, string>,
});

/** How a line's coming months are expected, where that is not as planned. */
export const outlookWaySchema = z.discriminatedUnion('kind', [
  /** As an average month of the last so many with actuals. */
  z.strictObject({ kind: z.literal('runRate'), months: whole(1, 36) }),
  /** As last year’s months, at the level that this year has beside last year so far. */
  z.strictObject({ kind: z.literal('lastYear') }),
  /** As typed; months that are not are as planned. */
  z.strictObject({ kind: z.literal('typed'), amounts: z.record(periodKey, money) }),
]);

/**
 * How a quantity goes over several months: hours and units sold add up, of members and berths there are as many as on the
 * mean or at the end, prices make nothing of several months.
 */
export const overMonthsSchema = z.enum(['sum', 'mean', 'last', 'none']);

/** What was counted of a driver: a quantity of the company, whatever budget plans it. */
export const quantitySchema = z.strictObject({
  /** The driver’s name. */
  name: text(LIMITS.driverName),
  unit: text(LIMITS.unit),
  decimals: whole(0, 6),
  /** In whole numbers of 10^−decimals. */
  values: z.record(periodKey, quantity),
  /** Nothing where nobody has said it yet: then only single months tell it. */
  over: z.optional(overMonthsSchema),
});

/** What a book has counted of a name, and says of it; nothing yet where it is not among them. */
export const quantityNamed = (
  all: readonly Quantity[],
  { name, unit, decimals }: Pick<Quantity, 'name' | 'unit' | 'decimals'>,
): Quantity => all.find((q) => sameName(q.name, name)) ?? { name, unit, decimals, values: {} };

/** What a report of a month says, in a line: its title wherever it goes. `draft`: what was drafted when it was written. */
export const messageSchema = z.strictObject({
  text: text(LIMITS.note),
  draft: text(LIMITS.note),
  by: z.optional(text(LIMITS.person)),
  at: instant,
});

export type Message = z.infer<typeof messageSchema>;
export type OverMonths = z.infer<typeof overMonthsSchema>;
export type Flag = z.infer<typeof flagSchema>;
export type OutlookWay = z.infer<typeof outlookWaySchema>;
export type Quantity = z.infer<typeof quantitySchema>;
export type ExplanationPart = z.infer<typeof explanationPartSchema>;
export type VarianceNote = z.infer<typeof varianceNoteSchema>;
