import type { PdfFonts, Script } from '@/core/exchange/pdf';

/*
 * The book's own fonts as files, for documents; each is fetched when a text needs it. The condensed face has no Greek and no
 * Cyrillic: the plain one of the same family stands in.
 */
const FIGURES: Readonly<Record<'plain' | 'bold', Readonly<Record<Script, () => URL>>>> = {
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
    greek: () =>
      new URL('@fontsource/ibm-plex-sans/files/ibm-plex-sans-greek-400-normal.woff', import.meta.url),
    cyrillic: () =>
      new URL('@fontsource/ibm-plex-sans/files/ibm-plex-sans-cyrillic-400-normal.woff', import.meta.url),
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
    greek: () =>
      new URL('@fontsource/ibm-plex-sans/files/ibm-plex-sans-greek-600-normal.woff', import.meta.url),
    cyrillic: () =>
      new URL('@fontsource/ibm-plex-sans/files/ibm-plex-sans-cyrillic-600-normal.woff', import.meta.url),
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
/** What titles are set in; they have no other scripts, and stand in bold figures there. */
const TITLES: Readonly<Partial<Record<Script, () => URL>>> = {
  latin: () => new URL('@fontsource/newsreader/files/newsreader-latin-500-normal.woff', import.meta.url),
  latinExt: () =>
    new URL('@fontsource/newsreader/files/newsreader-latin-ext-500-normal.woff', import.meta.url),
  vietnamese: () =>
    new URL('@fontsource/newsreader/files/newsreader-vietnamese-500-normal.woff', import.meta.url),
};

async function bytesOf(url: URL): Promise<Uint8Array> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`a font is missing (${answer.status})`);
  return new Uint8Array(await answer.arrayBuffer());
}

/** The fonts that texts in these scripts need. */
export async function pdfFonts(scripts: ReadonlySet<Script>): Promise<PdfFonts> {
  const face = async (of: Readonly<Partial<Record<Script, () => URL>>>) =>
    Object.fromEntries(
      await Promise.all(
        [...scripts].flatMap((s) => {
          const url = of[s];
          return url ? [bytesOf(url()).then((bytes) => [s, bytes] as const)] : [];
        }),
      ),
    );
  const [plain, bold, title] = await Promise.all([face(FIGURES.plain), face(FIGURES.bold), face(TITLES)]);
  return { plain, bold, title };
}
