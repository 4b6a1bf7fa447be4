import * as z from 'zod/mini';
import { atLeast, formed, list, text, whole } from '@/core/bounded';
import { LIMITS } from './limits';
import { dayText, id, instant, money, periodId } from './parts';

/* Lines of a budget that are handed out to the people who know them, and what came back. */

/** What stood in a cell of a returned file: an amount, nothing, or something that is no amount. */
export const SAID = ['amount', 'blank', 'text', 'error', 'date', 'percent', 'formula'] as const;
export type Said = (typeof SAID)[number];

const saidSchema = z.strictObject({
  is: z.enum(SAID),
  /** In natural sign; null unless it is an amount. */
  amount: z.nullable(money),
  /** As it stood there, where it is no amount. */
  raw: text(LIMITS.saidText),
});

/** A line of a returned file, whose cells stand in the order of the round's months (one cell of an answer by year). */
const returnedLineSchema = z.strictObject({
  account: id,
  segment: z.nullable(id),
  /** The row of the file, counted from 1. */
  row: atLeast(1),
  cells: list(saidSchema, 0, LIMITS.budgetPeriods),
  /** All amounts of it were negative though it is a cost: they were read as costs. */
  turned: z.boolean(),
  comment: text(LIMITS.note),
  /** Their own total of the row, where the file has one. */
  total: z.nullable(money),
  /** How an amount for the year falls on its months. */
  spread: z.enum(['evenly', 'lastYear', 'draft']),
});

/** A line of their own, which has no account yet. */
const ownLineSchema = z.strictObject({
  name: text(LIMITS.rowName),
  income: z.boolean(),
  row: atLeast(1),
  cells: list(saidSchema, 0, LIMITS.budgetPeriods),
  comment: text(LIMITS.note),
  /** It became a line of the budget, or was left. */
  done: z.boolean(),
});

/** What a file said that no line takes. */
const strayCodes = ['notTheirs', 'twice', 'unknownLine', 'monthOutside', 'label'] as const;
const straySchema = z.strictObject({
  code: z.enum(strayCodes),
  what: text(LIMITS.rowName),
  row: atLeast(1),
});

export const returnSchema = z.strictObject({
  /** SHA-256 of the file. */
  fingerprint: formed(/^[0-9a-f]{64}$/),
  fileName: text(LIMITS.fileName),
  at: instant,
  /** Whether it was known by what it says of itself, or by its codes, names and months. */
  known: z.enum(['identity', 'names']),
  lines: list(returnedLineSchema, 0, LIMITS.handoutLines),
  own: list(ownLineSchema, 0, LIMITS.handoutOwn),
  strays: list(straySchema, 0, LIMITS.handoutOwn),
  /** Months of the round that the file has no column of. */
  without: list(periodId, 0, LIMITS.budgetPeriods),
  /** When it went into the budget; null while it waits. */
  merged: z.nullable(instant),
});

const handedLineSchema = z.strictObject({
  account: id,
  segment: z.nullable(id),
  /** The draft when it was handed out, by month of the round. */
  handed: list(z.nullable(money), 0, LIMITS.budgetPeriods),
  /** What they are asked to stay within over the months of the round; null for nothing. */
  target: z.nullable(money),
});

export const handoutSchema = z.strictObject({
  id,
  to: text(LIMITS.person),
  /** An address for the message; may be empty. */
  address: text(LIMITS.person),
  lines: list(handedLineSchema, 1, LIMITS.handoutLines),
  /** When its file was last made; null: not yet. */
  sent: z.nullable(instant),
  /** How often it was made again to remind. */
  reminders: whole(0, 1000),
  returns: list(returnSchema, 0, LIMITS.handoutReturns),
});

export const roundSchema = z.strictObject({
  id,
  name: text(LIMITS.budgetName),
  budget: id,
  /** Who asks, by when, and what is said on the cover. */
  asks: text(LIMITS.person),
  /** Where answers go; may be empty. */
  address: text(LIMITS.person),
  due: z.nullable(dayText),
  message: text(LIMITS.note),
  /** The months that are asked for. */
  first: periodId,
  length: whole(1, LIMITS.budgetPeriods),
  /** By month, or an amount for the whole of them with a way to fall on months. */
  answer: z.enum(['months', 'whole']),
  shows: z.strictObject({ lastYear: z.boolean(), draft: z.boolean(), notes: z.boolean() }),
  handouts: list(handoutSchema, 0, LIMITS.handouts),
});

export type SaidCell = z.infer<typeof saidSchema>;
export type ReturnedLine = z.infer<typeof returnedLineSchema>;
export type OwnLine = z.infer<typeof ownLineSchema>;
export type Stray = z.infer<typeof straySchema>;
export type Return = z.infer<typeof returnSchema>;
export type HandedLine = z.infer<typeof handedLineSchema>;
export type Handout = z.infer<typeof handoutSchema>;
export type Round = z.infer<typeof roundSchema>;
