import * as z from 'zod/mini';
import { keyed, list, text } from '@/core/bounded';
import { LIMITS } from './limits';
import { dayText, id, instant, money } from './parts';

/* What banks say: what stood on an account on a day, and what moved. */

/** What a bank account held at the end of a day, as someone read it off at the bank. */
export const bankBalanceSchema = z.strictObject({
  account: id,
  day: dayText,
  amount: money,
  by: text(LIMITS.person),
  at: instant,
});

/** Money that moved on a bank account, by the day on which the bank booked it: into it positive. */
export const bankMovementSchema = z.strictObject({
  day: dayText,
  amount: money,
  counterparty: text(LIMITS.counterparty),
  reference: text(LIMITS.reference),
  memo: text(LIMITS.memo),
  /** The bank's own number of it: what has the same is the same. */
  number: text(LIMITS.reference),
  /** It takes an earlier one back. */
  reverses: z.boolean(),
});

/** A statement of a bank account: every day from its first to its last is told by it. */
export const bankStatementSchema = z.strictObject({
  id,
  account: id,
  from: text(LIMITS.fileName),
  /** The bank's own number of it. */
  number: text(LIMITS.reference),
  first: dayText,
  last: dayText,
  /** What stood there before its first day and at the end of its last; null where it does not say. */
  opening: z.nullable(money),
  closing: z.nullable(money),
  movements: list(bankMovementSchema, 0, LIMITS.statementMovements),
  by: text(LIMITS.person),
  at: instant,
});

/** What someone said of a movement or of an entry of the ledger's bank account: which planned money it is; none: `''`. */
export const movementSaidSchema = z.strictObject({
  as: text(LIMITS.movementKey),
  by: text(LIMITS.person),
  at: instant,
});

/** What banks say, as a part of what a company's money follows. */
export const banksSchema = z.strictObject({
  balances: list(bankBalanceSchema, 0, LIMITS.bankAccounts),
  statements: list(bankStatementSchema, 0, LIMITS.statements),
  said: z.record(keyed('[^\\n]{1,200}'), movementSaidSchema),
  /** The ledger's account of a bank's own number of it (IBAN or other). */
  numbers: z.record(keyed('[^\\n]{1,60}'), id),
  /** The least that single accounts should hold, beside the floor of all together. */
  floors: z.record(id, money),
});

export type BankBalance = z.infer<typeof bankBalanceSchema>;
export type BankMovement = z.infer<typeof bankMovementSchema>;
export type BankStatement = z.infer<typeof bankStatementSchema>;
export type MovementSaid = z.infer<typeof movementSaidSchema>;
export type Banks = z.infer<typeof banksSchema>;

/** A book of which no bank has said anything. */
export const NO_BANKS: Banks = { balances: [], statements: [], said: {}, numbers: {}, floors: {} };

/** The name of a movement of a statement, by its place. */
export const movementKey = (statement: string, place: number): string => `${statement} ${place}`;
