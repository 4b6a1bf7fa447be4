import { download, fileNameOf } from '@/platform/download';
import { rescueBook, type ShelfItem } from './bookStore';

/** Saves all that is kept of a book that cannot be opened, as it lies in the storage. */
export async function saveRescue({ id, name }: ShelfItem): Promise<void> {
  const parts = await rescueBook(id);
  const plain = (_key: string, value: unknown): unknown =>
    ArrayBuffer.isView(value) ? [...(value as Uint8Array)] : value;
  const text = JSON.stringify({ format: 'tellan.parts', book: id, parts }, plain);
  download(`${fileNameOf(name || id)}.parts.json`, text, 'application/json');
}
