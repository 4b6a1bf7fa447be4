import type { BookFileIssue } from '@/core/exchange/bookJson';
import { openHistory } from '@/core/model';
import { download, fileNameOf } from '@/platform/download';
import { addBook, rescueBook, useBookStore, type ShelfItem } from './bookStore';

/** Saves the open book as a `.tellan.json` file: all of it, the journal and what undo needs included. */
export async function saveBookFile(): Promise<void> {
  const { history, blocks } = useBookStore.getState();
  if (!history) return;
  const { bookFile } = await import('@/core/exchange/bookJson');
  const text = bookFile({ book: history.book, blocks: [...blocks.values()], journal: history.journal });
  download(`${fileNameOf(history.book.name)}.tellan.json`, text, 'application/json');
}

const WORDS: Record<BookFileIssue['code'], string> = {
  notJson: 'it is not JSON text, or it was cut off',
  notABook: 'it is not a Tellan book',
  brokenOlder: 'it is of an older version, and not whole',
  newerVersion: 'it was written by a newer version of Tellan',
  invalid: 'one of its values is not as it must be',
  brokenLedger: 'its ledger entries are incomplete',
};

/** Opens a `.tellan.json` file as a book of the shelf; what is wrong with it, in words, when it cannot be. */
export async function openBookFile(file: File): Promise<string | null> {
  const { parseBookFile } = await import('@/core/exchange/bookJson');
  const read = parseBookFile(await file.text());
  if (!read.ok) {
    const where =
      read.issue.code === 'invalid' ? ` (at ${read.issue.path || 'the top'}: ${read.issue.message})` : '';
    return `${file.name} was not opened: ${WORDS[read.issue.code]}${where}. Nothing was changed.`;
  }
  const fits = read.setAside.length === 0;
  await addBook(read.book, read.blocks, openHistory(read.book, read.journal, fits), read.setAside);
  return null;
}

/** Saves all that is kept of a book that cannot be opened, as it lies in the storage. */
export async function saveRescue({ id, name }: ShelfItem): Promise<void> {
  const parts = await rescueBook(id);
  const plain = (_key: string, value: unknown): unknown =>
    ArrayBuffer.isView(value) ? [...(value as Uint8Array)] : value;
  const text = JSON.stringify({ format: 'tellan.parts', book: id, parts }, plain);
  download(`${fileNameOf(name || id)}.parts.json`, text, 'application/json');
}
