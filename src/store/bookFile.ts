import { download, fileNameOf } from '@/platform/download';
import { useBookStore } from './bookStore';

/** Saves the open book as a `.tellan.json` file: all of it, the journal and what undo needs included. */
export async function saveBookFile(): Promise<void> {
  const { history, blocks } = useBookStore.getState();
  if (!history) return;
  const { bookFile } = await import('@/core/exchange/bookJson');
  const text = bookFile({ book: history.book, blocks: [...blocks.values()], journal: history.journal });
  download(`${fileNameOf(history.book.name)}.tellan.json`, text, 'application/json');
}
