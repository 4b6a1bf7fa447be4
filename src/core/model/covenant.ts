import * as z from 'zod/mini';
import { text, whole } from '@/core/bounded';
import { LIMITS } from './limits';
import { id, periodId } from './parts';

/** Where an account's movements belong on the cash-flow statement; an adjustment is no money. */
export const FLOW_CLASSES = ['cash', 'operating', 'adjustment', 'investing', 'financing'] as const;
export type FlowClass = (typeof FLOW_CLASSES)[number];

export const RATIO_IDS = [
  'grossMargin',
  'operatingMargin',
  'fixedShare',
  'current',
  'quick',
  'debtToEquity',
  'debtService',
  'interestCover',
  'receivableDays',
  'inventoryDays',
  'payableDays',
  'cashConversion',
  'cashDays',
  'breakEven',
] as const;
export type RatioId = (typeof RATIO_IDS)[number];

/** When a covenant is looked at: at the end of every period, or only of every quarter or fiscal year. */
export const TEST_DAYS = ['period', 'quarter', 'year'] as const;

/** What a lender may ask of a ratio: at least or at most so much, from a period on. */
export const covenantSchema = z.strictObject({
  id,
  /** Who asks for it, in a word. */
  name: text(LIMITS.rowName),
  /** One of the trade, or one of the book's own. */
  ratio: z.union([z.enum(RATIO_IDS), z.strictObject({ own: id })]),
  bound: z.enum(['least', 'most']),
  /** In thousandths of the ratio's unit; of money in minor units. */
  limit: whole(-1_000_000_000_000, 1_000_000_000_000),
  from: periodId,
  tested: z.enum(TEST_DAYS),
});
/** What a ratio of one's own is told in. */
export const OWN_UNITS = ['percent', 'times', 'days', 'money'] as const;

/** A ratio of someone's own: a formula over lines and totals, with ids for names. */
export const ownRatioSchema = z.strictObject({
  id,
  name: text(LIMITS.rowName),
  formula: text(LIMITS.formula),
  unit: z.enum(OWN_UNITS),
});
export type OwnRatio = z.infer<typeof ownRatioSchema>;

export type Covenant = z.infer<typeof covenantSchema>;
