import * as z from 'zod/mini';
import { en } from 'zod/v4/locales';

// The schema's own words stand at the end of a message; the small build of the library comes without any.
z.config(en());

/* Schemas of what comes from outside, each with its bounds: a name of a megabyte is a broken file. */

/** A text of at most so many letters. */
export const text = (max = 500) => z.string().check(z.maxLength(max));
/** A text of one form. */
export const formed = (form: RegExp) => z.string().check(z.regex(form));
/** A whole number between two, these included. */
export const whole = (low: number, high: number) => z.int().check(z.gte(low), z.lte(high));
/** A whole number that is no less than another. */
export const atLeast = (low: number) => z.int().check(z.gte(low));
/** A list of so many members. */
export const list = <T extends z.core.SomeType>(of: T, fewest: number, most: number) =>
  z.array(of).check(...(fewest > 0 ? [z.minLength(fewest)] : []), z.maxLength(most));
