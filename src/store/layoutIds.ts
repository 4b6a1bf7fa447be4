import type { Book } from '@/core/model';

/** An id for a layout of the book's own, that none has; `after` more of them. */
export function nextLayoutId(book: Pick<Book, 'layouts' | 'nextId'>, after = 0): string {
  const taken = new Set(book.layouts.map((l) => l.id));
  let n = book.nextId + after;
  while (taken.has(`y${n}`)) n++;
  return `y${n}`;
}
