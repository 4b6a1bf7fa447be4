import type { Draft } from 'immer';
import type { Book } from '../schema';

/** What each command of a family does to a book that is being changed; `refuse` stops it. */
export type HandlersOf<C extends { readonly type: string }> = {
  readonly [T in C['type']]: (book: Draft<Book>, command: Extract<C, { readonly type: T }>) => void;
};
