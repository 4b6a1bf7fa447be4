import { z } from 'zod';
import type { Minor, Percent } from '@/core/money';
import type { Day, PeriodId } from '@/core/calendar';

/* What documents are made of. Text from outside is bounded: a name of a megabyte is a broken file. */

export const text = (max = 500) => z.string().max(max);
export const id = z.string().regex(/^[A-Za-z][A-Za-z0-9-]{0,79}$/);
export const periodId = z.string().regex(/^\d{4}-\d{2}$/) as unknown as z.ZodType<PeriodId, string>;
export const dayText = z.string().regex(/^\d{4}-\d{2}-\d{2}$/) as unknown as z.ZodType<Day, string>;
export const percentText = z.string().regex(/^-?\d{1,9}(\.\d{1,6})?$/) as unknown as z.ZodType<
  Percent,
  string
>;
/** `z.int()` admits safe integers only. */
export const money = z.int() as unknown as z.ZodType<Minor, number>;
/** Amounts by period; `null` is a blank that someone made. */
export const byPeriod = z.record(periodId as unknown as z.ZodString, money.nullable());
/** An ISO 8601 instant. */
export const instant = text(40);
