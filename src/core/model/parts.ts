import { z } from 'zod';
import { MOST_AMOUNT, type Minor, type Percent } from '@/core/money';
import { parseIsoDay, type Day, type PeriodId } from '@/core/calendar';

/* What documents are made of. Text from outside is bounded: a name of a megabyte is a broken file. */

export const text = (max = 500) => z.string().max(max);
export const id = z.string().regex(/^[A-Za-z][A-Za-z0-9-]{0,79}$/);
/** Fiscal years 1900 to 2199, as calendars know them; whether a calendar has the period is for whoever knows it. */
export const PERIOD_ID = /^(19|20|21)\d\d-(0[1-9]|[1-9]\d)$/;
export const periodId = z.string().regex(PERIOD_ID) as unknown as z.ZodType<PeriodId, string>;
/** A day that there is, of the years 1900 to 2199. */
export const dayText = z
  .string()
  .refine(
    (d) => /^(19|20|21)/.test(d) && parseIsoDay(d) !== null,
    'no day from 1900 to 2199',
  ) as unknown as z.ZodType<Day, string>;
export const percentText = z.string().regex(/^-?\d{1,9}(\.\d{1,6})?$/) as unknown as z.ZodType<
  Percent,
  string
>;
/** A single figure of money; more is no amount of a small business, and sums of it must stay exact. */
export const money = z.int().min(-MOST_AMOUNT).max(MOST_AMOUNT) as unknown as z.ZodType<Minor, number>;
/** A sum of many figures. */
export const total = z.int() as unknown as z.ZodType<Minor, number>;
/** A quantity in whole numbers of its last decimal. */
export const quantity = z.int().min(-MOST_AMOUNT).max(MOST_AMOUNT);
/** Amounts by period; `null` is a blank that someone made. */
export const byPeriod = z.record(periodId as unknown as z.ZodString, money.nullable());
/** An ISO 8601 instant. */
export const instant = text(40);
