import type { Draft } from 'immer';
import { refuse } from '../refusal';
import type { Book } from '../schema';

/** What each command of a family does to a book that is being changed; `refuse` stops it. */
export type HandlersOf<C extends { readonly type: string }> = {
  readonly [T in C['type']]: (book: Draft<Book>, command: Extract<C, { readonly type: T }>) => void;
};

/** An id that nothing of the book has, had or will have: the book's next number, which only ever grows. */
export const mintId = (book: Draft<Book>, prefix: string): string => `${prefix}${book.nextId++}`;

/** Ids that come with a command, wherever they were made: the book's next number is beyond them, so none is given twice. */
export function passIds(book: Draft<Book>, ids: readonly string[]): void {
  for (const id of ids) {
    const number = Number(/\d{1,9}$/.exec(id)?.[0] ?? 0);
    if (number >= book.nextId) book.nextId = number + 1;
  }
}

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
    passIds(book, [item.id]);
  }
}

/** Puts something named in the place of what has its id. Refuses an empty name, and an id that is not there. */
export function replaceNamed<T extends { readonly id: string; readonly name: string }>(
  list: Draft<T>[],
  item: T,
): void {
  if (item.name.trim() === '') refuse('emptyName');
  const at = list.findIndex((other) => (other as T).id === item.id);
  if (at < 0) refuse('noSuchItem');
  list[at] = item as Draft<T>;
}
