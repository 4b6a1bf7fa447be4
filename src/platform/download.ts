import { cutText, wholeLetters } from '@/core/model';

/** Hands a file to the person through the browser's download. */
export function download(name: string, content: string | Uint8Array, type: string): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The download holds the content from here on; the address may go once it has begun.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A text as a file name: no separators, nothing hidden, not too long. */
export const fileNameOf = (text: string): string =>
  cutText(
    wholeLetters(text)
      .normalize('NFKC')
      .replace(/[\\/:*?"<>|\u0000-\u001f]+/g, ' ')
      .replace(/^[.\s]+/, '')
      .replace(/\s+/g, ' ')
      .trim(),
    80,
  ) || 'tellan';
