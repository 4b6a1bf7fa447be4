import * as z from 'zod/mini';
import { list, text, whole } from '@/core/bounded';
import { ACCOUNT_KINDS } from './kinds';
import { LIMITS } from './limits';
import { id, periodId } from './parts';

/* A report as it is kept by name: which rows, which columns, for which segments, and how its figures are written. */

/** The sections of statements, by which rows are chosen. */
export const SECTION_KINDS = [
  'income',
  'costOfSales',
  'expense',
  'otherIncome',
  'otherExpense',
  'assets',
  'liabilities',
  'equity',
] as const;

const name = text(LIMITS.rowName);

/** A row that someone put where it stands. */
export const rowItemSchema = z.discriminatedUnion('row', [
  z.strictObject({ row: z.literal('heading'), name }),
  z.strictObject({ row: z.literal('blank') }),
  z.strictObject({ row: z.literal('account'), account: id }),
  /** All accounts with codes from one to another, both included, as codes are ordered. */
  z.strictObject({
    row: z.literal('range'),
    from: text(LIMITS.accountCode),
    to: text(LIMITS.accountCode),
    name,
  }),
  z.strictObject({ row: z.literal('group'), kind: z.enum(ACCOUNT_KINDS), group: text(LIMITS.group) }),
  z.strictObject({ row: z.literal('kind'), kind: z.enum(ACCOUNT_KINDS) }),
  /** Adds what stands above it: since the last total or heading, or everything. */
  z.strictObject({ row: z.literal('total'), name, over: z.enum(['section', 'all']) }),
]);

export const rowsSchema = z.strictObject({
  /** `budget`: what the budget covers; `ledger`: profit and loss, then what moved in every other account. */
  set: z.enum([
    'profitAndLoss',
    'balanceSheet',
    'both',
    'budget',
    'ledger',
    'profitStatement',
    'balanceStatement',
    'cashFlow',
    'cashFlowDirect',
    'cash',
    'units',
  ]),
  /** How far lines are told apart. */
  detail: z.enum(['account', 'group', 'kind']),
  order: z.enum(['incomeFirst', 'incomeLast']),
  /** As the chart of accounts, or the largest variance first within each part. */
  sort: z.enum(['chart', 'size']),
  /** Only these sections; none named: all. */
  kinds: list(z.enum(SECTION_KINDS), 0, SECTION_KINDS.length),
  /** Rows of someone's own in place of the statement's; none: the statement's. */
  own: list(rowItemSchema, 0, LIMITS.layoutRows),
});

/** The periods of a column, told from the month that is looked at. */
export const spanSchema = z.discriminatedUnion('of', [
  /** The month, or one so many months before it. */
  z.strictObject({ of: z.literal('month'), back: whole(0, 36) }),
  z.strictObject({ of: z.literal('quarter') }),
  z.strictObject({ of: z.literal('toDate') }),
  z.strictObject({ of: z.literal('year') }),
  /** Twelve periods that end with the month. */
  z.strictObject({ of: z.literal('rolling') }),
  z.strictObject({ of: z.literal('range'), first: periodId, last: periodId }),
  /** What is chosen on the ruler of months. */
  z.strictObject({ of: z.literal('ruler') }),
  /** All periods of the budget that is compared with. */
  z.strictObject({ of: z.literal('budget') }),
  /** One column for each part of a longer span. */
  z.strictObject({
    of: z.literal('each'),
    by: z.enum(['month', 'quarter', 'year', 'week', 'day']),
    over: z.enum(['month', 'quarter', 'toDate', 'year', 'rolling', 'ruler', 'budget']),
  }),
]);

export const COLUMN_SHOWS = [
  'actual',
  'reclassified',
  'compared',
  'difference',
  'percent',
  'reached',
  'sense',
  'bar',
  'flexible',
  'activity',
  /** Whether it helps: F or U. */
  'activitySense',
  'rate',
  'rateSense',
  'mix',
  'outlook',
  'rest',
  /** What is budgeted for fiscal years as wholes, beyond their months. */
  'unphased',
  /** The budget less the year before, of the months of which both are known. */
  'change',
  'changePercent',
  'share',
  'comparedShare',
  'perUnit',
  'comparedPerUnit',
  'note',
  'keeper',
  /** How a budget's line is made, and what is noted of its plan. */
  'method',
  'planNote',
] as const;

export const columnSchema = z.strictObject({
  show: z.enum(COLUMN_SHOWS),
  /** What it is compared with: the layout's first or second comparison, or the year before. */
  against: z.enum(['first', 'second', 'lastYear']),
  span: spanSchema,
  /** Kept, and not shown. */
  hidden: z.boolean(),
  /** Of amounts per unit: the name of the driver whose quantity divides them. */
  unit: text(LIMITS.driverName),
});

export const layoutSchema = z.strictObject({
  id,
  name: text(LIMITS.layoutName),
  group: text(LIMITS.group),
  /**
   * What actuals are compared with, at most twice: `inForce` the best budget of the month, `lastYear`, `outlook`, or the id
   * of a comparison (a budget, one of its segments, budgets together). The second may be empty.
   */
  against: z.strictObject({ first: text(200), second: text(200) }),
  rows: rowsSchema,
  columns: list(columnSchema, 1, LIMITS.layoutColumns),
  segments: z.strictObject({
    axis: z.nullable(id),
    place: z.enum(['none', 'across', 'beneath']),
    /** Only these values of the axis, null the unassigned; none named: all. */
    values: list(z.nullable(id), 0, LIMITS.budgetSegments),
  }),
  filter: z.enum(['all', 'withFigures', 'withBudget', 'flagged', 'silent']),
  /** How figures are written: as the book does, or otherwise. */
  numbers: z.strictObject({
    unit: z.enum(['book', 'cents', 'whole', 'thousands']),
    negatives: z.enum(['book', 'parentheses', 'minus']),
    red: z.enum(['book', 'red', 'plain']),
  }),
  /** How days share a month's budget: the days that the company works, all days, or the line's own days where it has any. */
  days: z.enum(['working', 'calendar', 'own']),
});

export type SectionKind = (typeof SECTION_KINDS)[number];
export type RowItem = z.infer<typeof rowItemSchema>;
export type LayoutRows = z.infer<typeof rowsSchema>;
export type LayoutSpan = z.infer<typeof spanSchema>;
export type LayoutColumn = z.infer<typeof columnSchema>;
export type ColumnShow = LayoutColumn['show'];
export type Layout = z.infer<typeof layoutSchema>;
