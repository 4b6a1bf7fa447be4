import * as z from 'zod/mini';

// What is said of a value that is not as it must be stands at the end of a message, after its place. Our own few words:
// the library's speak of patterns, and weigh more than a kilobyte on the first page.
z.config({
  localeError: (issue) => {
    switch (issue.code) {
      case 'invalid_type':
        return `it must be of the type ${issue.expected}`;
      case 'invalid_value':
        return `it must be ${issue.values.map(String).join(' or ')}`;
      case 'too_big':
        return `it must be ${issue.maximum} at most`;
      case 'too_small':
        return `it must be ${issue.minimum} at least`;
      case 'unrecognized_keys':
        return `nobody knows ${issue.keys.join(', ')} here`;
      case 'invalid_format':
        return 'it is not of the form that it must have';
      default:
        return 'it is not what it must be';
    }
  },
});

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
