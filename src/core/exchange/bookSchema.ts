import { toJSONSchema } from 'zod/mini';
import { bookFileSchema } from './bookJson';
import { layoutFileSchema } from './layoutFile';

/** The JSON Schema (draft 2020-12) of the `.tellan.json` file, for other programs; made when the app's files are written. */
export const bookFileJsonSchema = (): unknown =>
  toJSONSchema(bookFileSchema, { target: 'draft-2020-12', io: 'input' });

/** The JSON Schema of a file of layouts. */
export const layoutFileJsonSchema = (): unknown =>
  toJSONSchema(layoutFileSchema, { target: 'draft-2020-12', io: 'input' });
