import type { ReportTable } from '@/core/report';
import type { PdfFonts } from './fonts';
import { Pages } from './pages';
import { tablePages, type PdfStyle } from './tablePages';

export type PdfRequest = {
  readonly tables: readonly ReportTable[];
  readonly style: Omit<PdfStyle, 'foot'>;
  readonly fonts: PdfFonts;
  /** ISO 8601 instant at which it is made. */
  readonly made: string;
  /** “Page” and “of”. */
  readonly page: readonly [string, string];
};

/** Reports as one PDF (ISO 32000), one after another; pages are counted through. */
export async function reportPdf({
  tables,
  style,
  fonts,
  made,
  page: [page, of],
}: PdfRequest): Promise<Uint8Array> {
  const first = tables[0];
  const pages = new Pages(fonts, style.paper, {
    title: first?.title ?? '',
    author: first?.book ?? '',
    made: new Date(made),
    lang: 'en-US',
  });
  for (const table of tables)
    tablePages(pages, table, { ...style, foot: (n, all) => `${page} ${n} ${of} ${all}` });
  return pages.bytes();
}
