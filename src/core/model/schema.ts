import * as z from 'zod/mini';
import { atLeast, formed, list, text, whole } from '@/core/bounded';
import { periodFaults } from '@/core/calendar';
import { adjustmentSchema, caseSchema } from './adjustment';
import { budgetSchema } from './budget';
import { cashSchema } from './cash';
import { roundSchema } from './handout';
import { covenantSchema, FLOW_CLASSES, ownRatioSchema } from './covenant';
import {
  flagSchema,
  messageSchema,
  outlookWaySchema,
  quantitySchema,
  varianceNoteSchema,
} from './explanation';
import { ACCOUNT_KINDS } from './kinds';
import { layoutSchema } from './layout';
import { LIMITS } from './limits';
import { weightsSchema, workWeekSchema } from './methods';
import { NATURES } from './nature';
import { dayText, id, money, percentText, periodId, periodKey, total } from './parts';

export const accountSchema = z.strictObject({
  id,
  code: text(LIMITS.accountCode),
  name: text(LIMITS.accountName),
  kind: z.enum(ACCOUNT_KINDS),
  /** What it is for, where someone said it; else its name tells. */
  nature: z.optional(z.enum(NATURES)),
  /** Name of the group it stands in within its kind; empty for none. */
  group: text(LIMITS.group),
  /** Not active: kept for its past, offered for no new budget. */
  active: z.boolean(),
  /** The person who looks after it; empty for nobody in particular. */
  keeper: text(LIMITS.keeper),
  /** A usual month lies between these natural amounts; a month outside is marked. Null: no such bound. */
  usual: z.strictObject({ low: z.nullable(money), high: z.nullable(money) }),
});

export const sourceSchema = z.strictObject({
  id,
  fileName: text(LIMITS.fileName),
  /** SHA-256 of the file's bytes, in hexadecimal. */
  fingerprint: formed(/^[0-9a-f]{64}$/),
  sheet: z.nullable(text(LIMITS.sheetName)),
  takenAt: text(40),
  /** How the ledger's figures stood in it. */
  shape: z.enum(['months', 'entries', 'balances']),
  /** What it was: a text or workbook file, the OECD's audit file, or a pull from the ledger feed. */
  format: z.enum(['delimited', 'workbook', 'auditFile', 'feed']),
  /** How the file was read; enough to read it again alike. */
  mapping: z.json(),
  /** The file's column heads, by which the next file of the same shape is known. */
  heads: text(LIMITS.heads),
  /** The entry of the feed up to which this pull went. */
  cursor: z.nullable(z.int()),
  /** Accepted although it did not tie: what did not, why it was accepted all the same, and when. */
  untied: z.nullable(
    z.strictObject({ faults: list(text(60), 0, 20), reason: text(LIMITS.reason), at: text(40) }),
  ),
  /** It holds one side of each entry, or what is left of it when what the book had was taken off: its debits need not equal its credits. */
  oneSided: z.optional(z.literal(true)),
  block: id,
  rows: z.strictObject({
    read: z.int(),
    used: z.int(),
    leftOut: z.array(z.strictObject({ reason: text(60), count: z.int() })),
  }),
  /** All entries, with those of openings and of year-end closings, which are no activity. */
  entries: z.int(),
  openings: z.int(),
  closings: z.int(),
  /** Totals that the file states, all equal to ours unless `untied` says otherwise. */
  controls: z.int(),
  debit: total,
  credit: total,
  firstDay: dayText,
  lastDay: dayText,
});

export const settingsSchema = z.strictObject({
  /** A variance is flagged when it exceeds both: an amount in minor units and a percentage of the budget. */
  flagAmount: money,
  flagPercent: percentText,
  negatives: z.enum(['parentheses', 'minus']),
  cents: z.boolean(),
  /** Figures are shown in thousands; `cents` is then off. */
  thousands: z.optional(z.literal(true)),
  /** Negatives are red, too. */
  red: z.optional(z.literal(true)),
});

export const calendarSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('months'), firstMonth: whole(1, 12) }),
  z.strictObject({
    kind: z.literal('weeks'),
    pattern: z.enum(['4-4-5', '4-5-4', '5-4-4']),
    endMonth: whole(1, 12),
    /** ISO 8601: 1 Monday to 7 Sunday. */
    endWeekday: whole(1, 7),
    ending: z.enum(['last', 'nearest']),
  }),
  z.strictObject({
    kind: z.literal('handMade'),
    periods: list(
      z.strictObject({
        year: whole(1900, 2199),
        name: text(LIMITS.periodName),
        start: dayText,
        end: dayText,
      }),
      0,
      LIMITS.periods,
    ).check(z.refine((all) => periodFaults(all).length === 0, 'periods leave a gap or overlap')),
  }),
]);

/** A way of dividing the business: its values, and how entries come to them. */
export const axisSchema = z.strictObject({
  id,
  name: text(LIMITS.axisName),
  /** Headings of the file columns that feed it; none for an axis made by hand. */
  columns: list(text(LIMITS.heading), 0, LIMITS.columns),
  /** Values in their order; `from` are the texts of the files that mean them. */
  values: list(
    z.strictObject({
      id,
      name: text(LIMITS.segmentName),
      from: list(text(LIMITS.segmentText), 0, LIMITS.textsOfSegment),
    }),
    0,
    LIMITS.segments,
  ),
  /** Accounts whose entries belong to a value when the entries themselves say nothing. */
  byAccount: z.record(id, id),
});

/** When the ledger feed is pulled while the app is open. */
export const scheduleSchema = z.discriminatedUnion('every', [
  z.strictObject({ every: z.literal('never') }),
  z.strictObject({ every: z.literal('hours'), hours: whole(1, 168) }),
  z.strictObject({
    every: z.literal('days'),
    /** ISO 8601 weekdays; all seven for daily. */
    weekdays: list(whole(1, 7), 1, 7),
    /** Local time, HH:MM. */
    at: formed(/^([01]\d|2[0-3]):[0-5]\d$/),
  }),
]);

export const feedSchema = z.strictObject({
  url: text(500),
  company: text(200),
  /** The feed's entries up to this number are in the book. */
  cursor: atLeast(0),
  schedule: scheduleSchema,
});

export const bookSchema = z.strictObject({
  format: z.literal('tellan.book'),
  version: z.literal(15),
  id,
  name: text(LIMITS.bookName),
  currency: formed(/^[A-Z]{3}$/),
  locale: text(40),
  calendar: calendarSchema,
  accounts: list(accountSchema, 0, LIMITS.accounts),
  /** Accounts that were merged: old id to the one that took it in. Entries keep the old id. */
  merged: z.record(id, id),
  axes: list(axisSchema, 0, LIMITS.axes),
  feed: z.nullable(feedSchema),
  sources: list(sourceSchema, 0, LIMITS.sources),
  closedThrough: z.nullable(periodId),
  budgets: list(budgetSchema, 0, LIMITS.budgets),
  /** Which budgets are in force, each from a period on; a later one goes before those that it cannot stand beside. */
  inForce: list(z.strictObject({ budget: id, from: periodId }), 0, LIMITS.inForce),
  /** Weights for phasing, kept under a name. */
  weights: list(weightsSchema, 0, LIMITS.weights),
  /** The days on which the company works. */
  workWeek: workWeekSchema,
  /** Notes on variances by period, then account. */
  varianceNotes: z.record(periodKey, z.record(id, varianceNoteSchema)),
  /** By period and layout. */
  messages: z.record(periodKey, z.record(id, messageSchema)),
  /** When variances of a kind of account, and of an account, are flagged; the settings say it of the rest. */
  flags: z.strictObject({
    kinds: z.record(id, flagSchema),
    accounts: z.record(id, flagSchema),
  }),
  /** How coming months of a budget's accounts are expected, by budget and account. */
  outlookWays: z.record(id, z.record(id, outlookWaySchema)),
  /** What was counted of drivers. */
  quantities: list(quantitySchema, 0, LIMITS.drivers),
  /** Where accounts belong on the cash-flow statement, where it is said otherwise than by their kind. */
  flowClasses: z.record(id, z.enum(FLOW_CLASSES)),
  /** How much of an account's cost rises with sales, in whole percent, where it is said otherwise than by its kind. */
  variableShares: z.record(id, whole(0, 100)),
  covenants: list(covenantSchema, 0, LIMITS.covenants),
  /** Ratios of the book's own. */
  ownRatios: list(ownRatioSchema, 0, LIMITS.covenants),
  /** What is tried over plans, each on what those before it left; and the cases, with how much of each is in them. */
  adjustments: list(adjustmentSchema, 0, LIMITS.adjustments),
  cases: list(caseSchema, 0, LIMITS.cases),
  /** Lines that were handed out to others, and what came back. */
  rounds: list(roundSchema, 0, LIMITS.rounds),
  /** Reports of the book's own, and those that ship where they were changed. */
  layouts: list(layoutSchema, 0, LIMITS.layouts),
  settings: settingsSchema,
  cash: cashSchema,
  /** The next number for a generated id of an account, source or budget. */
  nextId: atLeast(1),
});

export type Account = z.infer<typeof accountSchema>;
export type AccountId = string;
export type Axis = z.infer<typeof axisSchema>;
export type Feed = z.infer<typeof feedSchema>;
export type Schedule = z.infer<typeof scheduleSchema>;
export type Source = z.infer<typeof sourceSchema>;
export type Settings = z.infer<typeof settingsSchema>;
/** The book: everything but the ledger's entries, which stand in blocks beside it. */
export type Book = z.infer<typeof bookSchema>;
