import type { PdfFonts, Script } from '@/core/exchange/pdf';

/* The book's own fonts as files, for documents; each is fetched when a text needs it. */
const CONDENSED: Readonly<Record<'plain' | 'bold', Readonly<Record<Script, () => URL>>>> = {
  plain: {
    latin: () =>
      new URL(
        '@fontsource/ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-latin-400-normal.woff',
        import.meta.url,
      ),
    latinExt: () =>
      new URL(
        '@fontsource/ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-latin-ext-400-normal.woff',
        import.meta.url,
      ),
    cyrillicExt: () =>
      new URL(
        '@fontsource/ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-cyrillic-ext-400-normal.woff',
        import.meta.url,
      ),
    vietnamese: () =>
      new URL(
        '@fontsource/ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-vietnamese-400-normal.woff',
        import.meta.url,
      ),
  },
  bold: {
    latin: () =>
      new URL(
        '@fontsource/ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-latin-600-normal.woff',
        import.meta.url,
      ),
    latinExt: () =>
      new URL(
        '@fontsource/ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-latin-ext-600-normal.woff',
        import.meta.url,
      ),
    cyrillicExt: () =>
      new URL(
        '@fontsource/ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-cyrillic-ext-600-normal.woff',
        import.meta.url,
      ),
    vietnamese: () =>
      new URL(
        '@fontsource/ibm-plex-sans-condensed/files/ibm-plex-sans-condensed-vietnamese-600-normal.woff',
        import.meta.url,
      ),
  },
};
const TITLE = () => new URL('@fontsource/newsreader/files/newsreader-latin-500-normal.woff', import.meta.url);

async function bytesOf(url: URL): Promise<Uint8Array> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`a font is missing (${answer.status})`);
  return new Uint8Array(await answer.arrayBuffer());
}

/** The fonts that texts in these scripts need. */
export async function pdfFonts(scripts: ReadonlySet<Script>): Promise<PdfFonts> {
  const face = async (of: 'plain' | 'bold') =>
    Object.fromEntries(
      await Promise.all([...scripts].map(async (s) => [s, await bytesOf(CONDENSED[of][s]())] as const)),
    );
  const [plain, bold, latin] = await Promise.all([face('plain'), face('bold'), bytesOf(TITLE())]);
  return { plain, bold, title: { latin } };
}
