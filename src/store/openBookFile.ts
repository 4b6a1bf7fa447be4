import { parseBookFile, type BookFileIssue } from '@/core/exchange/bookJson';
import { openHistory } from '@/core/model';
import { addBook } from './bookStore';

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
