import { toJSONSchema } from 'zod/mini';
import { bookFileSchema } from './bookJson';

/** The JSON Schema (draft 2020-12) of the `.tellan.json` file, for other programs; made when the app's files are written. */
export const bookFileJsonSchema = (): unknown =>
  toJSONSchema(bookFileSchema, { target: 'draft-2020-12', io: 'input' });
