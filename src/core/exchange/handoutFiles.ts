import type { HandoutPage } from '@/core/handout';
import { pageRows } from '@/core/handout';
import { neutralize, writeDelimited } from '@/core/files';
import { plainDecimal } from '@/core/money';
import { handoutXlsx } from './handoutXlsx';
import { mailFile, type MailDraft } from './mailFile';

/** What is written for one person: the workbook or a CSV, and a message with it. */
export type HandoutFile = {
  /** Without an ending. */
  readonly name: string;
  readonly page: HandoutPage;
  readonly as: 'xlsx' | 'csv';
  readonly mail: Omit<MailDraft, 'attachment'> | null;
};
export type HandoutFiles = {
  readonly files: readonly HandoutFile[];
  /** Other files that go along, such as the due day. */
  readonly beside: readonly { readonly name: string; readonly text: string }[];
};

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** One file as it is, several in a ZIP archive; `onProgress` hears the share that is done. */
export async function handoutFiles(
  { files, beside }: HandoutFiles,
  onProgress: (share: number) => void,
): Promise<Uint8Array> {
  const made: { readonly name: string; readonly bytes: Uint8Array | string }[] = [];
  for (const [i, file] of files.entries()) {
    const { name, page, as, mail } = file;
    const bytes = as === 'xlsx' ? await handoutXlsx(page) : new TextEncoder().encode(csvOf(page));
    made.push({ name: `${name}.${as}`, bytes });
    if (mail) {
      const attachment = { name: `${name}.${as}`, type: as === 'xlsx' ? XLSX : 'text/csv', bytes };
      made.push({ name: `${name}.eml`, bytes: mailFile({ ...mail, attachment }) });
    }
    onProgress((i + 1) / files.length);
  }
  made.push(...beside.map(({ name, text }) => ({ name, bytes: text })));
  const [only] = made;
  if (only && made.length === 1 && typeof only.bytes !== 'string') return only.bytes;
  const { default: JSZip } = await import('jszip');
  const zip = new JSZip();
  for (const { name, bytes } of made) zip.file(name, bytes);
  return zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
}

declare const TextEncoder: { new (): { encode(text: string): Uint8Array } };

/** UTF-8 with a byte-order mark, so that spreadsheets read its letters right. */
const csvOf = (page: HandoutPage): string => {
  const rows = pageRows(page, (a) => plainDecimal(a, page.currency));
  return `\ufeff${writeDelimited(rows.map((r) => r.map((c) => (isAmount(c) ? c : neutralize(c)))))}`;
};

/** A negative amount is no formula. */
const isAmount = (text: string): boolean => /^-?\d+(\.\d+)?$/.test(text);
