import * as z from 'zod/mini';
import { atLeast, whole } from '@/core/bounded';
import type { Change } from './journal';

const patch = z.looseObject({
  op: z.enum(['add', 'remove', 'replace']),
  path: z.array(z.union([z.string(), z.number()])),
});

/** Numbers of changes: far from where one more would be none. */
const seq = whole(0, 1e12);

const named = { id: z.string(), name: z.string() };
const about = z.strictObject({
  places: z.array(z.strictObject({ of: z.string(), ...named, budget: z.optional(z.strictObject(named)) })),
  more: atLeast(0),
});

/** One change as it is kept and as it stands in files; whether its patches fit a book shows when they are used. */
export const changeSchema = z.union([
  z.strictObject({
    seq,
    at: z.string(),
    type: z.enum(['undo', 'redo']),
    of: seq,
    by: z.optional(z.string()),
  }),
  z.strictObject({
    seq,
    at: z.string(),
    type: z.string(),
    why: z.optional(z.string()),
    by: z.optional(z.string()),
    how: z.optional(z.string()),
    said: z.optional(z.string()),
    about: z.optional(about),
    version: z.optional(z.int()),
    patches: z.array(patch),
    inverse: z.array(patch),
  }),
]);

const journal = z.array(changeSchema);

/** Whether a value is a list of changes, none of them before one that it follows. */
export const isJournal = (value: unknown): value is readonly Change[] =>
  journal.safeParse(value).success &&
  (value as Change[]).every((c, i, all) => i === 0 || c.seq > all[i - 1]!.seq);
