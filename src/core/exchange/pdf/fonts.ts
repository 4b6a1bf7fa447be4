/** Font files of one weight, by the part of Unicode that each covers. */
export type FontFiles = Readonly<Partial<Record<Script, Uint8Array>>>;
export type PdfFonts = {
  readonly plain: FontFiles;
  readonly bold: FontFiles;
  /** For titles; what it has not is set in the bold of the figures. */
  readonly title: FontFiles;
};
export type Face = keyof PdfFonts;

export const SCRIPTS = ['latin', 'latinExt', 'greek', 'cyrillic', 'cyrillicExt', 'vietnamese'] as const;
export type Script = (typeof SCRIPTS)[number];

/** Letters of each file, as the fonts' own style sheets divide them (CSS `unicode-range`); in order of preference. */
const RANGES: Readonly<Record<Script, readonly (readonly [number, number])[]>> = {
  latin: [
    [0x20, 0xff],
    [0x131, 0x131],
    [0x152, 0x153],
    [0x2bb, 0x2bc],
    [0x2c6, 0x2c6],
    [0x2da, 0x2da],
    [0x2dc, 0x2dc],
    [0x2000, 0x206f],
    [0x20ac, 0x20ac],
    [0x2122, 0x2122],
    [0x2191, 0x2193],
    [0x2212, 0x2215],
  ],
  latinExt: [
    [0x100, 0x2ba],
    [0x1e00, 0x1e9f],
    [0x1ef2, 0x1eff],
    [0x20a0, 0x20c0],
    [0x2c60, 0x2c7f],
    [0xa720, 0xa7ff],
  ],
  greek: [[0x370, 0x3ff]],
  cyrillic: [
    [0x301, 0x301],
    [0x400, 0x45f],
    [0x490, 0x491],
    [0x4b0, 0x4b1],
    [0x2116, 0x2116],
  ],
  cyrillicExt: [
    [0x460, 0x52f],
    [0x1c80, 0x1c8a],
    [0x2de0, 0x2dff],
    [0xa640, 0xa69f],
  ],
  vietnamese: [[0x1ea0, 0x1ef9]],
};

export const scriptOf = (code: number): Script | null =>
  SCRIPTS.find((s) => RANGES[s].some(([low, high]) => code >= low && code <= high)) ?? null;

/** The scripts that texts need, so that no other font file is read. */
export function scriptsIn(texts: Iterable<string>): ReadonlySet<Script> {
  const found = new Set<Script>(['latin']);
  for (const text of texts)
    for (const letter of text.normalize('NFC')) {
      const script = scriptOf(letter.codePointAt(0)!);
      if (script) found.add(script);
    }
  return found;
}

/** Spaces that no font has, and breaks, are plain spaces. */
const isSpace = (letter: string): boolean => /[\u00a0\u2007\u2009\u202f\t\n\r]/.test(letter);

/** What of texts no font has: letters and digits, without which a name is none, and other signs. Each once. */
export function unknownIn(texts: Iterable<string>): {
  readonly letters: readonly string[];
  readonly signs: readonly string[];
} {
  const [letters, signs] = [new Set<string>(), new Set<string>()];
  for (const text of texts)
    for (const one of text.normalize('NFC'))
      if (!isSpace(one) && scriptOf(one.codePointAt(0)!) === null)
        (/[\p{L}\p{N}]/u.test(one) ? letters : signs).add(one);
  return { letters: [...letters], signs: [...signs] };
}

/** A text as runs of letters of one font; what no font has is left out (`unknownIn` tells of it). */
export function runsOf(text: string, files: FontFiles): { readonly script: Script; readonly text: string }[] {
  const out: { script: Script; text: string }[] = [];
  for (const letter of text.normalize('NFC')) {
    const shown = isSpace(letter) ? ' ' : letter;
    const script = scriptOf(shown.codePointAt(0)!);
    if (script === null || !files[script]) continue;
    const last = out.at(-1);
    if (last?.script === script) last.text += shown;
    else out.push({ script, text: shown });
  }
  return out;
}
