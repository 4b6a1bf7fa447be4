import type { Draft } from 'immer';
import { refuse } from '../refusal';
import type { Book } from '../schema';

/** What each command of a family does to a book that is being changed; `refuse` stops it. */
export type HandlersOf<C extends { readonly type: string }> = {
  readonly [T in C['type']]: (book: Draft<Book>, command: Extract<C, { readonly type: T }>) => void;
};

/** Puts something named in the place of what has its id, or adds it, which takes an id of the book. Refuses an empty name. */
export function putNamed<T extends { readonly id: string; readonly name: string }>(
  book: Draft<Book>,
  list: Draft<T>[],
  item: T,
): void {
  if (item.name.trim() === '') refuse('emptyName');
  const at = list.findIndex((other) => (other as T).id === item.id);
  if (at >= 0) list[at] = item as Draft<T>;
  else {
    list.push(item as Draft<T>);
    book.nextId += 1;
  }
}
