import * as z from 'zod/mini';
import { en } from 'zod/v4/locales';

// The schema's own words stand at the end of a message; the small build of the library comes without any.
z.config(en());

/* Schemas of what comes from outside, each with its bounds: a name of a megabyte is a broken file. */

/** A text of at most so many letters. */
export const text = (max = 500) => z.string().check(z.maxLength(max));
/** A text of one form; `said` is what is said of one that is not of it. */
export const formed = (form: RegExp, said?: string) => z.string().check(z.regex(form, said));
/**
 * Names that every object of the language has, at the head of a form: none of them may be the key of a record, where it
 * would be found though nobody put it there.
 */
const OBJECTS_OWN = Object.getOwnPropertyNames(Object.prototype).join('|');
/** A form, but for the names that every object has. */
const butObjectsOwn = (form: string) => new RegExp(`^(?!(?:${OBJECTS_OWN})$)${form}$`);
/** A text of a form (without its ends) that may be the key of a record. */
export const keyed = (form: string) =>
  formed(
    butObjectsOwn(form),
    'it is not of the form of an id, or is a word that every object has for its own',
  );
/** A whole number between two, these included. */
export const whole = (low: number, high: number) => z.int().check(z.gte(low), z.lte(high));
/** A whole number that is no less than another. */
export const atLeast = (low: number) => z.int().check(z.gte(low));
/** A list of so many members. */
export const list = <T extends z.core.SomeType>(of: T, fewest: number, most: number) =>
  z.array(of).check(...(fewest > 0 ? [z.minLength(fewest)] : []), z.maxLength(most));
