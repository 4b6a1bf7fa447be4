import * as z from 'zod/mini';
import { formed, keyed, text, whole } from '@/core/bounded';
import { MOST_AMOUNT, type Minor, type Percent } from '@/core/money';
import { parseIsoDay, type Day, type PeriodId } from '@/core/calendar';

/* What documents are made of. */

export const id = keyed('[A-Za-z][A-Za-z0-9-]{0,79}');
/** Fiscal years 1900 to 2199, as calendars know them; whether a calendar has the period is for whoever knows it. */
export const PERIOD_ID = /^(19|20|21)\d\d-(0[1-9]|[1-9]\d)$/;
/** A period as the key of a record. */
export const periodKey = formed(PERIOD_ID);
export const periodId = periodKey as unknown as z.ZodMiniType<PeriodId, string>;
/** A day that there is, of the years 1900 to 2199. */
export const dayText = z
  .string()
  .check(
    z.refine((d) => /^(19|20|21)/.test(d) && parseIsoDay(d) !== null, 'no day from 1900 to 2199'),
  ) as unknown as z.ZodMiniType<Day, string>;
export const percentText = formed(/^-?\d{1,9}(\.\d{1,6})?$/) as unknown as z.ZodMiniType<Percent, string>;
/** A quantity in whole numbers of its last decimal. */
export const quantity = whole(-MOST_AMOUNT, MOST_AMOUNT);
/** A single figure of money; more is no amount of a small business, and sums of it must stay exact. */
export const money = quantity as unknown as z.ZodMiniType<Minor, number>;
/** A sum of many figures. */
export const total = z.int() as unknown as z.ZodMiniType<Minor, number>;
/** Amounts by period; `null` is a blank that someone made. */
export const byPeriod = z.record(periodKey, z.nullable(money));
/** An ISO 8601 instant. */
export const instant = text(40);
